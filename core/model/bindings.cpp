#include "core/model/bindings.h"

#include <algorithm>

#include "core/model/fault.h"
#include "core/model/lexer.h"

namespace zl::model {
namespace {

class Binder {
 public:
  Binder(Model& model, const Bindings& bindings) : model_(model), said_(bindings) {}

  void run() {
    for (const auto& [role, row] : said_.roles) bindRole(role, row);
    for (const auto& [name, text] : said_.views) bindView(name, text);
    for (const Bindings::MethodText& text : said_.methods) bindMethod(text);
  }

 private:
  void bindRole(Role role, const NamedRow& named) {
    const RoleSpec& spec = specOf(role);
    const RowId index = rowOf(named, std::string("the role '") + spec.name + "'");
    const Row& row = at(index);
    if (row.kind != spec.kind || row.timing != spec.timing) {
      bad(named.at, std::string("the role '") + spec.name + "' is " + kindWord(spec.kind) + " " +
                        timingWord(spec.timing) + ", and '" + row.name + "' is " + kindWord(row.kind) + " " +
                        timingWord(row.timing));
    }
    for (size_t i = 0; i < spec.options.size() && spec.options[i] != nullptr; ++i) {
      if (row.option(spec.options[i]) == static_cast<int>(i)) continue;
      bad(named.at, std::string("the role '") + spec.name + "' is a choice whose option " + std::to_string(i + 1) +
                        " is '" + spec.options[i] + "'");
    }
    model_.roles[static_cast<size_t>(role)] = index;
  }

  void bindView(const std::string& name, const Bindings::ViewText& text) {
    View view{name, text.title, {}, text.at};
    for (const Bindings::ViewLine& line : text.lines) {
      ViewRow row = line.marks;
      row.row = rowOf(line.row, "the view '" + name + "'");
      view.rows.push_back(row);
    }
    model_.views.push_back(std::move(view));
  }

  void bindMethod(const Bindings::MethodText& text) {
    Method m = text.method;
    const std::string what = "the method '" + m.name + "'";
    const auto bound = [&](const char* attribute) {
      const auto found = text.rows.find(attribute);
      return found == text.rows.end() ? RowId() : rowOf(found->second, what);
    };
    m.value = bound("value");
    m.low = bound("low");
    m.high = bound("high");
    m.share = bound("share");
    m.flow = bound("flow");
    m.rate = bound("rate");
    m.choice = bound("leads");
    if (!m.value.known()) bad(m.at, what + " needs a row for its value");
    if (m.low.known() != m.high.known()) bad(m.at, what + " needs both ends of its range, or none");
    for (const char* attribute : {"value", "low", "high"}) {
      const RowId index = bound(attribute);
      if (!index.known()) continue;
      if (at(index).kind == Kind::Quote && at(index).timing == Timing::Constant) continue;
      bad(text.rows.at(attribute).at, what + ": '" + at(index).name + "' is no value per share in the listing's unit");
    }
    if (m.choice.known()) {
      m.option = at(m.choice).option(text.option);
      if (m.option < 0)
        bad(text.rows.at("leads").at, what + ": '" + at(m.choice).name + "' has no option '" + text.option + "'");
    }
    checkRate(m, what);
    model_.methods.push_back(std::move(m));
  }

  /// What belongs to all who finance the firm is discounted at their rate, what belongs to shareholders at theirs.
  void checkRate(const Method& m, const std::string& what) const {
    if (m.whose == Method::Flow::None) return;
    if (!m.flow.known() || !m.rate.known()) bad(m.at, what + " needs the flow it discounts and the rate it does it at");
    const RowId wacc = model_.find(Role::Wacc);
    const bool atFirms = m.rate == wacc;
    if (!wacc.known() || atFirms == (m.whose == Method::Flow::Firm)) return;
    bad(m.at, what +
                  (atFirms ? " discounts what belongs to shareholders at the firm's rate '"
                           : " discounts what belongs to the firm at '") +
                  at(m.rate).name + "'");
  }

  [[nodiscard]] const Row& at(RowId index) const { return model_[index]; }

  [[nodiscard]] RowId rowOf(const NamedRow& named, const std::string& what) const {
    const RowId index = model_.find(named.name);
    if (!index.known()) bad(named.at, what + ": there is no row '" + named.name + "'");
    return index;
  }

  [[noreturn]] void bad(Position at, std::string what) const {
    throw Fault{
        Error{ErrorKind::BadInput, std::move(what), placeText(model_.sources[static_cast<size_t>(at.text)], at), {}}};
  }

  Model& model_;
  const Bindings& said_;
};

}  // namespace

Bindings::ViewText& Bindings::view(const std::string& name) {
  const auto found = std::find_if(views.begin(), views.end(), [&](const auto& v) { return v.first == name; });
  if (found != views.end()) return found->second;
  return views.emplace_back(name, ViewText{}).second;
}

Status bind(Model& model, const Bindings& bindings) {
  try {
    Binder(model, bindings).run();
    return {};
  } catch (const Fault& fault) {
    return tl::unexpected(fault.error);
  }
}

Model::Model() = default;
Model::Model(const Model&) = default;
Model::Model(Model&&) noexcept = default;
Model& Model::operator=(const Model&) = default;
Model& Model::operator=(Model&&) noexcept = default;
Model::~Model() = default;

int Row::option(const std::string& optionName) const {
  const auto found =
      std::find_if(options.begin(), options.end(), [&](const Option& o) { return o.name == optionName; });
  return found == options.end() ? -1 : static_cast<int>(found - options.begin());
}

std::string optionLabel(const Row& row, double figure) {
  const auto number = static_cast<size_t>(figure);
  if (figure < 0 || number >= row.options.size() || static_cast<double>(number) != figure) return {};
  return row.options[number].label;
}

const Row* Model::row(Role role) const {
  const RowId index = find(role);
  return !index.known() ? nullptr : &rows[index.at()];
}

const std::string& Model::nameOf(Role role) const {
  static const std::string kNone;
  const Row* found = row(role);
  return found == nullptr ? kNone : found->name;
}

const std::vector<ViewRow>& Model::view(const std::string& viewName) const {
  static const std::vector<ViewRow> kNone;
  const auto found = std::find_if(views.begin(), views.end(), [&](const View& v) { return v.name == viewName; });
  return found == views.end() ? kNone : found->rows;
}

bool Model::shows(const std::string& viewName, const std::string& rowName) const {
  const std::vector<ViewRow>& shown = view(viewName);
  return std::any_of(shown.begin(), shown.end(), [&](const ViewRow& r) { return rows[r.row.at()].name == rowName; });
}

bool Model::isTotal(RowId row) const {
  return std::any_of(views.begin(), views.end(), [&](const View& v) {
    return std::any_of(v.rows.begin(), v.rows.end(), [&](const ViewRow& r) { return r.total && r.row == row; });
  });
}

RowId Model::peerRow(Declared declared, const std::string& measure, const std::string& statistic) const {
  const PeerTie wanted{measure, statistic};
  const auto found = std::find_if(rows.begin(), rows.end(),
                                  [&](const Row& row) { return row.declared == declared && row.peers == wanted; });
  return found == rows.end() ? RowId() : RowId(static_cast<size_t>(found - rows.begin()));
}

std::vector<std::string> Model::restingFeatures() const {
  std::vector<std::string> resting;
  for (const RoleSpec& spec : roleSpecs()) {
    if (!find(spec.role).known()) resting.push_back(std::string("no row means '") + spec.name + "': " + spec.feature);
  }
  return resting;
}

}  // namespace zl::model
