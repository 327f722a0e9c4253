// Everyday edits of the outlook, one a command: what a driver or an input is, flags, adjustments, probabilities, notes.

#include <algorithm>
#include <set>

#include "cli/command.h"
#include "core/quantity/number_text.h"
#include "services/edits/scenario_edits.h"
#include "services/text/likely_names.h"

namespace zl::cli {
namespace {

using services::Session;

/// The row of a name, of a kind of declaration; fails naming likely ones.
template <class Wanted>
Result<model::RowId> rowNamed(const model::Model& m, const std::string& name, const char* what, const Wanted& wanted) {
  std::set<std::string> known;
  for (size_t r = 0; r < m.rows.size(); ++r) {
    if (wanted(m.rows[r])) known.insert(m.rows[r].name);
  }
  if (known.count(name) > 0) return m.find(name);
  return fail(ErrorKind::NotFound, "the model has no " + std::string(what) + " '" + name + "'", {},
              services::likelyNames(name, known));
}

Result<double> figureTyped(const std::string& text, Kind kind) {
  const std::optional<double> figure = typedFigure(text, kind);
  if (figure) return *figure;
  return fail(ErrorKind::BadInput, "'" + text + "' is no number", {},
              "Numbers may read 12.5%, 1.2bn, (350), 1,250.5 or 1 250,5");
}

bool isDriver(const model::Row& row) {
  return row.declared == model::Declared::Driver;
}
bool isInput(const model::Row& row) {
  return row.declared == model::Declared::Input;
}

class SetCommand : public SessionCommand {
  const char* name() const override { return "set"; }
  const char* purpose() const override { return "What a driver does, or an input is, in a scenario"; }
  void declareMore(CLI::App& app) override {
    app.add_option("ROW", row_, "A driver or input by its name")->required();
    CLI::Option* figures =
        app.add_option("FIGURES", figures_, "'5%', or several parted by ';': a bare number is in the shown unit");
    app.add_option("--scenario", scenario_, "Base where left out");
    app.add_option("--shape", shape_,
                   "hold, typed, glide, fade, steps, recovery, cycle or follow; hold where left out, typed for several "
                   "figures")
        ->check(CLI::IsMember({"hold", "typed", "glide", "fade", "steps", "recovery", "cycle", "follow"}));
    app.add_option("--start", start_, "Glide and fade: start there instead of at the last actual");
    app.add_option("--after", after_,
                   "Glide: the last year still at the start. Fade: the first that moves (1 is first)");
    app.add_option("--by", by_, "Glide and recovery: the year, counted from 1, in which the figure is reached");
    app.add_option("--half-life", halfLife_, "Fade: years in which half the distance is gone");
    app.add_flag("--widening", widening_, "Follow: the distance grows to the last year");
    CLI::Option* year = app.add_option("--year", year_, "Types this fiscal year alone; the others stay");
    app.add_flag("--default", default_, "Take the decision back: base follows its proposal, others follow base")
        ->excludes(figures)
        ->excludes(year);
    app.add_option("--reason", reason_, "Why");
  }
  Status runOn(Session& session, Context&) override {
    const services::Snapshot& now = *session.now();
    const model::Model& m = now.model();
    const Result<int> scenario = scenarioIndex(now.caseOf(), scenario_);
    if (!scenario) return tl::unexpected(scenario.error());
    const Result<model::RowId> row =
        rowNamed(m, row_, "driver or input", [](const model::Row& r) { return isDriver(r) || isInput(r); });
    if (!row) return tl::unexpected(row.error());
    const std::string& id = now.caseOf().scenarios[static_cast<size_t>(*scenario)].id;
    if (default_) return session.apply(services::clearDriver(now.caseOf(), m, id, row_));
    if (figures_.empty() && shape_.empty())
      return fail(ErrorKind::BadInput, "no figure is given for " + row_, {}, "Give one, a shape, or --default");
    if (isInput(m[*row])) return setInput(session, *row, id);
    const std::optional<std::vector<double>> figures =
        figures_.empty() ? std::optional(std::vector<double>{}) : typedFigures(figures_, m[*row].kind);
    if (!figures) {
      return fail(ErrorKind::BadInput, "'" + figures_ + "' holds no figures", row_,
                  "Write '5%' or '8%; 6%; 4%' for several");
    }
    if (year_) return setYear(session, *row, *scenario, *figures);
    const Result<Path> path = pathOf(*figures, m[*row].kind);
    if (!path) return tl::unexpected(path.error());
    return session.apply(services::setDriver(now.caseOf(), m, id, row_, *path, session.said(reason_)));
  }

  Status setInput(Session& session, model::RowId row, const std::string& scenario) {
    const services::Snapshot& now = *session.now();
    const model::Row& input = now.model()[row];
    Result<double> figure = optionOr(input);
    if (!figure) return tl::unexpected(figure.error());
    return session.apply(
        services::setInput(now.caseOf(), now.model(), scenario, input.name, *figure, session.said(reason_)));
  }

  [[nodiscard]] Result<double> optionOr(const model::Row& input) const {
    if (!input.isChoice()) return figureTyped(figures_, input.kind);
    std::set<std::string> options;
    for (size_t i = 0; i < input.options.size(); ++i) {
      options.insert(input.options[i].name);
      if (input.options[i].name == figures_ || input.options[i].label == figures_) return static_cast<double>(i);
    }
    return fail(ErrorKind::NotFound, "'" + figures_ + "' is no option of " + input.name, {},
                services::likelyNames(figures_, options));
  }

  Status setYear(Session& session, model::RowId row, int scenario, const std::vector<double>& figures) {
    const services::Snapshot& now = *session.now();
    const model::Layout& layout = now.evaluation->layout();
    const int first = now.years().back().label() + 1;
    const int last = first + layout.columns() - layout.historyYears - 1;
    if (figures.size() != 1 || *year_ < first || *year_ > last) {
      return fail(ErrorKind::BadInput, "--year types one figure of one forecast year", row_,
                  "Those are " + std::to_string(first) + " to " + std::to_string(last));
    }
    std::vector<Figure> current;
    for (int c = layout.historyYears; c < layout.columns(); ++c)
      current.push_back(now.evaluation->figure(row, c, scenario));
    return session.apply(
        services::typeDriverYears(now.caseOf(), now.model(), now.caseOf().scenarios[static_cast<size_t>(scenario)].id,
                                  row_, current, {{*year_ - first, figures.front()}}, session.said(reason_)));
  }

  [[nodiscard]] Result<Path> pathOf(const std::vector<double>& figures, Kind kind) const {
    Path path;
    path.shape = *shapeOf(shape_.empty() ? (figures.size() > 1 ? "typed" : "hold") : shape_);
    const bool list = path.shape == Shape::Typed || path.shape == Shape::Steps || path.shape == Shape::Cycle;
    if (list) {
      for (const double figure : figures) path.typed.emplace_back(figure);
    } else if (figures.size() > 1) {
      return fail(ErrorKind::BadInput, std::string("the shape ") + shapeWord(path.shape) + " takes one figure", row_,
                  "Give one, or --shape typed");
    } else if (path.shape == Shape::Follow) {
      path.distance = figures.empty() ? 0 : figures.front();
    } else if (!figures.empty()) {
      path.level = figures.front();
    }
    if (!start_.empty()) {
      const Result<double> start = figureTyped(start_, kind);
      if (!start) return tl::unexpected(start.error());
      path.start = *start;
    }
    path.from = after_;
    path.to = by_;
    if (halfLife_) path.halfLife = *halfLife_;
    path.widening = widening_;
    return path;
  }

  std::string row_, figures_, scenario_ = kBase, shape_, start_, reason_;
  int after_ = 0, by_ = 0;
  std::optional<double> halfLife_;
  std::optional<int> year_;
  bool default_ = false, widening_ = false;
};

class ChooseCommand : public SessionCommand {
  const char* name() const override { return "choose"; }
  const char* purpose() const override { return "The option that a choice stands on; or the choices there are"; }
  void declareMore(CLI::App& app) override {
    app.add_option("CHOICE", choice_, "By its name; all are printed where it is left out");
    app.add_option("OPTION", option_, "By its name or its words");
    app.add_option("--scenario", scenario_, "Base where left out");
    app.add_option("--reason", reason_, "Why");
  }
  Status runOn(Session& session, Context& c) override {
    const services::Snapshot& now = *session.now();
    const model::Model& m = now.model();
    const Result<int> scenario = scenarioIndex(now.caseOf(), scenario_);
    if (!scenario) return tl::unexpected(scenario.error());
    if (choice_.empty()) {
      for (size_t r = 0; r < m.rows.size(); ++r) {
        if (!m.rows[r].isChoice()) continue;
        const double stands = now.evaluation->constant(model::RowId(r), *scenario).valueOr(-1);
        c.out << m.rows[r].name << "  (" << m.rows[r].label << ")\n";
        for (size_t i = 0; i < m.rows[r].options.size(); ++i) {
          c.out << (static_cast<double>(i) == stands ? "  * " : "    ") << m.rows[r].options[i].name << "  "
                << m.rows[r].options[i].label << '\n';
        }
      }
      return {};
    }
    const Result<model::RowId> row = rowNamed(m, choice_, "choice", [](const model::Row& r) { return r.isChoice(); });
    if (!row) return tl::unexpected(row.error());
    std::set<std::string> options;
    for (size_t i = 0; i < m[*row].options.size(); ++i) {
      const model::Option& option = m[*row].options[i];
      options.insert(option.name);
      if (option.name != option_ && option.label != option_) continue;
      return session.apply(services::setInput(now.caseOf(), m,
                                              now.caseOf().scenarios[static_cast<size_t>(*scenario)].id, choice_,
                                              static_cast<double>(i), session.said(reason_)));
    }
    return fail(ErrorKind::NotFound, "'" + option_ + "' is no option of " + choice_, {},
                services::likelyNames(option_, options));
  }
  std::string choice_, option_, scenario_ = kBase, reason_;
};

class FlagCommand : public SessionCommand {
  const char* name() const override { return "flag"; }
  const char* purpose() const override { return "Leave a year out of averages as exceptional, with its reason"; }
  void declareMore(CLI::App& app) override {
    app.add_option("YEAR", year_, "A filed fiscal year")->required();
    CLI::Option* reason = app.add_option("--reason", reason_, "Why it is no year like others");
    app.add_flag("--off", off_, "Count it again")->excludes(reason);
  }
  Status runOn(Session& session, Context&) override {
    const auto& years = session.now()->years();
    if (std::none_of(years.begin(), years.end(), [&](const FiscalYear& y) { return y.label() == year_; })) {
      return fail(ErrorKind::NotFound, std::to_string(year_) + " is not filed", session.companyId(),
                  "There are " + std::to_string(years.front().label()) + " to " + std::to_string(years.back().label()));
    }
    if (!off_ && reason_.empty())
      return fail(ErrorKind::BadInput, "an exceptional year has its reason", {}, "Give --reason");
    return session.apply(
        services::setExceptional(session.now()->caseOf(), year_, off_ ? std::nullopt : std::optional(reason_)));
  }
  int year_ = 0;
  std::string reason_;
  bool off_ = false;
};

class AdjustCommand : public SessionCommand {
  const char* name() const override { return "adjust"; }
  const char* purpose() const override { return "Put a normal figure beside a filed one, or take that back"; }
  void declareMore(CLI::App& app) override {
    app.add_option("LINE", line_, "A standard line")->required();
    app.add_option("YEAR", year_, "A filed fiscal year")->required();
    CLI::Option* figure = app.add_option("FIGURE", figure_, "Instead of the filed one; a bare number is in millions");
    app.add_option("--reason", reason_, "Why the filed figure is not normal");
    app.add_flag("--off", off_, "The filed figure counts again")->excludes(figure);
  }
  Status runOn(Session& session, Context&) override {
    const services::Snapshot& now = *session.now();
    const model::Model& m = now.model();
    const Result<model::RowId> row =
        rowNamed(m, line_, "standard line", [](const model::Row& r) { return r.isStandardLine(); });
    if (!row) return tl::unexpected(row.error());
    const auto& years = now.years();
    const auto at = std::find_if(years.begin(), years.end(), [&](const FiscalYear& y) { return y.label() == year_; });
    const Figure filed = at == years.end() ? Figure::absent("the year is not filed")
                                           : now.asFiled->at(*row, static_cast<int>(at - years.begin()));
    if (!filed.hasValue()) {
      return fail(ErrorKind::NotFound, line_ + " of " + std::to_string(year_) + " has no filed figure", filed.reason(),
                  "There are " + std::to_string(years.front().label()) + " to " + std::to_string(years.back().label()));
    }
    std::optional<double> figure;
    if (!off_) {
      const Result<double> typed = figureTyped(figure_, m[*row].kind);
      if (!typed) return tl::unexpected(typed.error());
      if (reason_.empty()) return fail(ErrorKind::BadInput, "an adjustment has its reason", line_, "Give --reason");
      figure = *typed;
    }
    return session.apply(
        services::setAdjustment(now.caseOf(), m, line_, year_, filed.value(), figure, session.said(reason_)));
  }
  std::string line_, figure_, reason_;
  int year_ = 0;
  bool off_ = false;
};

class ProbabilityCommand : public SessionCommand {
  const char* name() const override { return "probability"; }
  const char* purpose() const override { return "How likely each scenario is: all together, which sum to one"; }
  void declareMore(CLI::App& app) override {
    app.add_option("PROBABILITIES", given_, "'worst=20%' 'base=55%' 'best=25%'; those left out stay");
  }
  Status runOn(Session& session, Context& c) override {
    Case after = session.now()->caseOf();
    for (const std::string& text : given_) {
      const size_t equals = text.rfind('=');
      const Result<int> scenario = scenarioIndex(after, text.substr(0, equals));
      if (!scenario) return tl::unexpected(scenario.error());
      const std::optional<double> p = equals == std::string::npos ? std::nullopt : typedNumber(text.substr(equals + 1));
      if (!p || *p < 0 || *p > 1) {
        return fail(ErrorKind::BadInput, "'" + text + "' gives no probability", {}, "Write worst=20% or worst=0.2");
      }
      after.scenarios[static_cast<size_t>(*scenario)].probability = *p;
    }
    if (!given_.empty()) {
      if (!probabilitiesSumToOne(after)) {
        return fail(ErrorKind::BadInput,
                    "the probabilities would sum to " + plainNumber(probabilitySum(after)) + ", not to 1", {},
                    "Give all that change in one command");
      }
      if (Status s = session.apply({std::move(after), "Probabilities"}); !s) return s;
    }
    for (const Scenario& s : session.now()->caseOf().scenarios)
      c.out << s.id << "  " << plainNumber(s.probability) << '\n';
    return {};
  }
  std::vector<std::string> given_;
};

class NoteCommand : public SessionCommand {
  const char* name() const override { return "note"; }
  const char* purpose() const override { return "A note on a row; without a text the notes there are"; }
  void declareMore(CLI::App& app) override {
    app.add_option("ROW", row_, "By its name");
    app.add_option("TEXT", text_, "The note; '' takes it away");
  }
  Status runOn(Session& session, Context& c) override {
    const services::Snapshot& now = *session.now();
    if (!text_) {
      for (const auto& [row, text] : now.caseOf().notes) {
        if (row_.empty() || row == row_) c.out << row << ": " << text << '\n';
      }
      return {};
    }
    const Result<model::RowId> row = rowNamed(now.model(), row_, "row", [](const model::Row&) { return true; });
    if (!row) return tl::unexpected(row.error());
    return session.apply(services::setNote(now.caseOf(), now.model(), row_, *text_));
  }
  std::string row_;
  std::optional<std::string> text_;
};

}  // namespace

std::vector<std::unique_ptr<Command>> assumptionCommands() {
  std::vector<std::unique_ptr<Command>> list;
  list.push_back(std::make_unique<SetCommand>());
  list.push_back(std::make_unique<ChooseCommand>());
  list.push_back(std::make_unique<FlagCommand>());
  list.push_back(std::make_unique<AdjustCommand>());
  list.push_back(std::make_unique<ProbabilityCommand>());
  list.push_back(std::make_unique<NoteCommand>());
  return list;
}

}  // namespace zl::cli
