#include "core/model/parser.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <optional>
#include <string>
#include <utility>

#include "core/model/bindings.h"
#include "core/model/checker.h"
#include "core/model/language_words.h"
#include "core/model/peer_multiple.h"
#include "core/model/row_parser.h"

namespace zl::model {
namespace {

constexpr const char* kOwnGroup = "Own rows";  // of a later text's rows that name no group

constexpr std::array<Word<PeerMultiple::Of>, 5> kMultipleYears{{{"base", PeerMultiple::Of::Trailing},
                                                                {"opening_year", PeerMultiple::Of::ThisYear},
                                                                {"second_year", PeerMultiple::Of::NextYear},
                                                                {"third_year", PeerMultiple::Of::YearAfter},
                                                                {"normal", PeerMultiple::Of::NormalYear}}};

class Parser : public RowParser {
 public:
  Parser(std::vector<Token> tokens, std::string source, Model& model, Bindings& bindings)
      : RowParser(std::move(tokens), std::move(source)), model_(model), bindings_(bindings) {}

  void run() {
    const bool first = model_.sources.empty();
    model_.sources.push_back(source());
    if (first || isWord("model")) header(first);
    std::string group = first ? "" : kOwnGroup;
    while (peek().type != Token::Type::End) {
      if (acceptWord("group")) {
        group = text("the group's title in quotation marks");
        const auto& known = model_.statements;
        if (onSameLine() && acceptWord("statement") && std::find(known.begin(), known.end(), group) == known.end())
          model_.statements.push_back(group);
      } else if (acceptWord("amend")) {
        amend();
      } else if (acceptWord("unprojected")) {
        unproject();
      } else if (acceptWord("means")) {
        means();
      } else if (acceptWord("view")) {
        view();
      } else if (acceptWord("method")) {
        method();
      } else if (acceptWord("multiple")) {
        multiple();
      } else {
        Row row = isWord("choice") ? parseChoice() : parseRow();
        row.group = group;
        place(std::move(row), first);
      }
    }
  }

 private:
  void header(bool first) {
    expectWord("model");
    const std::string name = word("a name for the model");
    const std::string title = text("the model's title in quotation marks");
    const int version = static_cast<int>(number("the model's version"));
    if (!first) {
      expectWord("extends");
      const std::string ground = word("the model that this one extends");
      if (ground != model_.name) {
        badAt(last().at, "this text extends '" + ground + "' and stands on '" + model_.name + "'");
      }
    }
    model_.name = name;
    model_.title = title;
    model_.version = version;
  }

  /// A later text's rows join the group of their name, so that a group stays in one piece.
  void place(Row row, bool first) {
    auto at = model_.rows.end();
    if (!first) {
      const auto last = std::find_if(model_.rows.rbegin(), model_.rows.rend(),
                                     [&](const Row& other) { return other.group == row.group; });
      if (last != model_.rows.rend()) at = last.base();
    }
    model_.rows.insert(at, std::move(row));
  }

  Row& known(const std::string& name) {
    const RowId index = model_.find(name);
    if (!index.known()) badAt(last().at, "there is no row '" + name + "' to amend");
    return model_[index];
  }

  void amend() {
    Row& row = known(word("the name of the row to amend"));
    // Another rule for the forecast takes the first year's along, unless that is given too.
    std::optional<Expr> first = std::exchange(row.first, std::nullopt);
    std::optional<Expr> forecast = std::exchange(row.forecast, std::nullopt);
    std::optional<Expr> value = std::exchange(row.value, std::nullopt);
    bool any = false;
    while (peek().startsLine && parseAttribute(row)) any = true;
    if (!any) bad("expected what to amend of '" + row.name + "': history, forecast, value and so on");
    row.amendedBy = textIndex();
    if (row.forecast || row.value) compute(row);
    if (!row.value) row.value = std::move(value);
    if (row.forecast) return;
    row.forecast = std::move(forecast);
    if (!row.first) row.first = std::move(first);
  }

  /// A driver or input that is given a rule is assumed no more: what was chosen for it rests.
  static void compute(Row& row) {
    row.beyond.reset();  // a computed row goes on by its rule
    if (row.declared != Declared::Driver && row.declared != Declared::Input) return;
    row.declared = Declared::Row;
    row.range.reset();
    row.preset.reset();
  }

  /// Rows by name, or all rows of a group that have years.
  void unproject() {
    if (acceptWord("group")) {
      const std::string group = text("the group's title in quotation marks");
      bool any = false;
      for (Row& row : model_.rows) {
        if (row.group != group || !hasYears(row)) continue;
        leaveOut(row);
        any = true;
      }
      if (!any) badAt(last().at, "the group '" + group + "' has no rows with years");
      return;
    }
    do {
      Row& row = known(word("the name of a row that is not to be projected"));
      if (!hasYears(row)) {
        badAt(last().at, "'" + row.name + "' has no years to leave out of the forecast");
      }
      leaveOut(row);
    } while (peek().type == Token::Type::Word && !peek().startsLine);
  }

  static bool hasYears(const Row& row) {
    return row.timing != Timing::Constant && (row.declared == Declared::Row || row.declared == Declared::Driver);
  }

  /// What the model no longer projects keeps its history; a driver becomes a plain row.
  void leaveOut(Row& row) {
    compute(row);
    row.projected = false;
    row.amendedBy = textIndex();
    row.first.reset();
    Expr condition = binary(Op::Equal, {}, {}, {});  // 0 == 1: the guard never lets through
    condition.args[1].number = 1;
    Expr gap;
    gap.op = Op::Guard;
    gap.at = last().at;
    gap.reason = "the model '" + model_.name + "' does not project this";
    gap.args = {std::move(condition), Expr{}};
    row.forecast = std::move(gap);
  }

  NamedRow namedRow(const std::string& what) {
    const Position at = peek().at;
    return {word(what), at};
  }

  /// Roles, each played by the row of its own name or by the one after '='.
  void means() {
    do {
      const Position at = peek().at;
      const std::string name = word("a role");
      const RoleSpec* spec = roleNamed(name);
      if (spec == nullptr) badAt(at, "the program asks for no role '" + name + "'");
      NamedRow row{name, at};
      if (isSign("=")) {
        next();
        row = namedRow("the row that means '" + name + "'");
      }
      bindings_.roles[spec->role] = std::move(row);
    } while (onSameLine());
  }

  /// Rows until the next declaration, each with what it is in the view before its name.
  void view() {
    const Position at = peek().at;
    Bindings::ViewText& view = bindings_.view(word("a name for the view"));
    view.at = at;
    if (peek().type == Token::Type::Text) view.title = text("the view's title in quotation marks");
    const auto declares = [&] {
      constexpr std::array kOthers = {"group", "choice", "amend", "unprojected", "means", "view", "method", "multiple"};
      return peek().startsLine &&
             (meaningOf(kDeclared, peek().text).has_value() ||
              std::any_of(kOthers.begin(), kOthers.end(), [&](const char* w) { return isWord(w); }));
    };
    while (peek().type != Token::Type::End && !declares()) {
      Bindings::ViewLine line;
      for (bool more = true; more;) {
        more = false;
        if (acceptWord("total")) line.marks.total = more = true;
        if (acceptWord("optional")) line.marks.optional = more = true;
        if (isSign("-")) {
          next();
          line.marks.minus = more = true;
        }
      }
      line.row = namedRow("a row of the view");
      view.lines.push_back(std::move(line));
    }
  }

  void method() {
    Bindings::MethodText text;
    Method& m = text.method;
    m.at = peek().at;
    m.name = word("a name for the method");
    m.label = this->text("the method's label in quotation marks");
    m.mark = m.label;
    while (peek().startsLine) {
      const Token attribute = peek();
      if (acceptWord("mark")) {
        m.mark = this->text("a short label in quotation marks");
        continue;
      }
      if (acceptWord("leads")) {
        text.rows["leads"] = namedRow("the choice that leads to this method");
        expectWord("is");
        text.option = word("the option that leads to this method");
        continue;
      }
      constexpr std::array kRowsOf = {"value", "low", "high", "share", "flow", "rate"};
      if (std::none_of(kRowsOf.begin(), kRowsOf.end(), [&](const char* w) { return attribute.text == w; })) break;
      next();
      text.rows[attribute.text] = namedRow("the row that is its " + attribute.text);
      if (attribute.text != "flow") continue;
      expectWord("to");
      const bool firm = acceptWord("firm");
      if (!firm) expectWord("shareholders");
      m.whose = firm ? Method::Flow::Firm : Method::Flow::Shareholders;
    }
    const auto same = std::find_if(bindings_.methods.begin(), bindings_.methods.end(),
                                   [&](const Bindings::MethodText& other) { return other.method.name == m.name; });
    if (same != bindings_.methods.end()) {
      *same = std::move(text);
    } else {
      bindings_.methods.push_back(std::move(text));
    }
  }

  /// multiple NAME "label" "what it is of" shares|firm YEAR ROW: its rows, written out and read as if they stood here.
  void multiple() {
    const Position at = last().at;
    PeerMultiple m;
    m.name = word("a multiple of peers");
    m.label = text("the multiple's label in quotation marks");
    m.what = text("what it is of, in quotation marks");
    m.ofFirm = acceptWord("firm");
    if (!m.ofFirm) expectWord("shares");
    constexpr const char* kYears = "base, opening_year, second_year, third_year or normal";
    const Position yearAt = peek().at;
    const std::optional<PeerMultiple::Of> of = meaningOf(kMultipleYears, word(kYears));
    if (!of) badAt(yearAt, std::string("expected ") + kYears);
    m.of = *of;
    m.row = word("the row that it is of");
    Result<std::vector<Token>> written = tokenize(rowsOf(m), source(), at.text);
    if (!written) badAt(at, written.error().text());
    written->pop_back();  // the end
    for (Token& token : *written) token.at = at;
    insert(*written);
    model_.multiples.push_back(std::move(m));
  }

  Model& model_;
  Bindings& bindings_;
};

}  // namespace

RowId Model::find(const std::string& rowName) const {
  for (size_t i = 0; i < rows.size(); ++i) {
    if (rows[i].name == rowName) return RowId(i);
  }
  return {};
}

Result<Model> parseModel(std::string_view text, const std::string& source) {
  return parseModel(std::vector<ModelText>{{source, text}});
}

Result<Model> parseModel(const std::vector<ModelText>& texts) {
  constexpr size_t kLargestModel = 4u << 20;
  constexpr size_t kMostRows = 2000;
  Model model;
  Bindings bindings;
  for (size_t i = 0; i < texts.size(); ++i) {
    if (texts[i].text.size() > kLargestModel) {
      return fail(ErrorKind::TooLarge, "a model text may hold 4 MiB at most", texts[i].source);
    }
    Result<std::vector<Token>> tokens = tokenize(texts[i].text, texts[i].source, static_cast<int>(i));
    if (!tokens) return tl::unexpected(tokens.error());
    try {
      Parser(std::move(*tokens), texts[i].source, model, bindings).run();
    } catch (const Fault& fault) {
      return tl::unexpected(fault.error);
    }
    if (i > 0 && model.rows.size() > kMostRows) {
      return fail(ErrorKind::TooLarge, "a model and the rows upon it may be 2,000 rows at most", texts[i].source);
    }
  }
  if (Status checked = checkModel(model); !checked) return tl::unexpected(checked.error());
  if (Status bound = bind(model, bindings); !bound) return tl::unexpected(bound.error());
  return model;
}

std::optional<FaultPlace> placeOf(const Error& fault, const std::vector<ModelText>& texts) {
  for (size_t i = 0; i < texts.size(); ++i) {
    const std::string start = texts[i].source + ", line ";
    if (fault.where.rfind(start, 0) != 0) continue;
    FaultPlace place{i, {0, 0, static_cast<int>(i)}};
    const char* end = fault.where.data() + fault.where.size();
    const char* next = std::from_chars(fault.where.data() + start.size(), end, place.at.line).ptr;
    const std::string_view between = ", column ";
    if (std::string_view(next, static_cast<size_t>(end - next)).substr(0, between.size()) != between) continue;
    std::from_chars(next + between.size(), end, place.at.column);
    return place;
  }
  return std::nullopt;
}

}  // namespace zl::model
