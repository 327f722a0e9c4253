#include "core/model/parser.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <optional>
#include <string>
#include <utility>

#include "core/model/bindings.h"
#include "core/model/checker.h"
#include "core/model/fault.h"
#include "core/model/lexer.h"
#include "core/model/peer_multiple.h"

namespace zl::model {
namespace {

constexpr int kLongestLag = 10;
constexpr int kMaxDepth = 64;  // deeper nesting is refused, not recursed into
constexpr size_t kLongestName = 200;
constexpr size_t kLongestText = 500;
constexpr const char* kOwnGroup = "Own rows";  // of a later text's rows that name no group

template <class E>
struct Word {
  const char* text;
  E meaning;
};
constexpr std::array<Word<Kind>, 9> kKinds{{{"money", Kind::Money},
                                            {"shares", Kind::Shares},
                                            {"per_share", Kind::PerShare},
                                            {"ratio", Kind::Ratio},
                                            {"days", Kind::Days},
                                            {"multiple", Kind::Multiple},
                                            {"count", Kind::Count},
                                            {"quote", Kind::Quote},
                                            {"quote_rate", Kind::QuoteRate}}};
constexpr std::array<Word<Timing>, 4> kTimings{
    {{"flow", Timing::Flow}, {"balance", Timing::Balance}, {"rate", Timing::Rate}, {"constant", Timing::Constant}}};
constexpr std::array<Word<Declared>, 4> kDeclared{
    {{"row", Declared::Row}, {"driver", Declared::Driver}, {"input", Declared::Input}, {"given", Declared::Given}}};
struct Function {
  const char* text;
  Op op;
  size_t arguments;
};
constexpr std::array<Function, 9> kFunctions{{{"min", Op::Min, 2},
                                              {"max", Op::Max, 2},
                                              {"abs", Op::Abs, 1},
                                              {"round", Op::Round, 1},
                                              {"if", Op::If, 3},
                                              {"guard", Op::Guard, 2},
                                              {"known", Op::Known, 2},
                                              {"avg", Op::Average, 1},
                                              {"total", Op::Total, 1}}};
constexpr std::array<Word<Anchor>, 6> kAnchors{{{"base", Anchor::Base},
                                                {"opening_year", Anchor::First},
                                                {"second_year", Anchor::Second},
                                                {"third_year", Anchor::Third},
                                                {"final", Anchor::Final},
                                                {"beyond", Anchor::Beyond}}};

constexpr std::array<Word<PeerMultiple::Of>, 5> kMultipleYears{{{"base", PeerMultiple::Of::Trailing},
                                                                {"opening_year", PeerMultiple::Of::ThisYear},
                                                                {"second_year", PeerMultiple::Of::NextYear},
                                                                {"third_year", PeerMultiple::Of::YearAfter},
                                                                {"normal", PeerMultiple::Of::NormalYear}}};

template <class E, size_t N>
std::optional<E> meaningOf(const std::array<Word<E>, N>& words, const std::string& text) {
  for (const Word<E>& w : words) {
    if (text == w.text) return w.meaning;
  }
  return std::nullopt;
}

template <class E, size_t N>
const char* wordOf(const std::array<Word<E>, N>& words, E meaning) {
  for (const Word<E>& w : words) {
    if (w.meaning == meaning) return w.text;
  }
  return "?";
}

class Parser {
 public:
  Parser(std::vector<Token> tokens, std::string source, Model& model, Bindings& bindings)
      : tokens_(std::move(tokens)), source_(std::move(source)), model_(model), bindings_(bindings) {}

  void run() {
    const bool first = model_.sources.empty();
    model_.sources.push_back(source_);
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
        badAt(tokens_[at_ - 1].at, "this text extends '" + ground + "' and stands on '" + model_.name + "'");
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
    if (!index.known()) badAt(tokens_[at_ - 1].at, "there is no row '" + name + "' to amend");
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
    row.amendedBy = tokens_.front().at.text;
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
      if (!any) badAt(tokens_[at_ - 1].at, "the group '" + group + "' has no rows with years");
      return;
    }
    do {
      Row& row = known(word("the name of a row that is not to be projected"));
      if (!hasYears(row)) {
        badAt(tokens_[at_ - 1].at, "'" + row.name + "' has no years to leave out of the forecast");
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
    row.amendedBy = tokens_.front().at.text;
    row.first.reset();
    Expr condition = binary(Op::Equal, {}, {}, {});  // 0 == 1: the guard never lets through
    condition.args[1].number = 1;
    Expr gap;
    gap.op = Op::Guard;
    gap.at = tokens_[at_ - 1].at;
    gap.reason = "the model '" + model_.name + "' does not project this";
    gap.args = {std::move(condition), Expr{}};
    row.forecast = std::move(gap);
  }

  NamedRow namedRow(const std::string& what) {
    const Position at = peek().at;
    return {word(what), at};
  }

  [[nodiscard]] bool onSameLine() const { return peek().type != Token::Type::End && !peek().startsLine; }

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
    const Position at = tokens_[at_ - 1].at;
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
    Result<std::vector<Token>> written = tokenize(rowsOf(m), source_, at.text);
    if (!written) badAt(at, written.error().text());
    written->pop_back();  // the end
    for (Token& token : *written) token.at = at;
    tokens_.insert(tokens_.begin() + static_cast<std::ptrdiff_t>(at_), written->begin(), written->end());
    model_.multiples.push_back(std::move(m));
  }

  /// An input that stands on one of its options.
  Row parseChoice() {
    constexpr size_t kMostOptions = 9;
    Row row;
    row.at = next().at;
    row.declared = Declared::Input;
    row.kind = Kind::Count;
    row.timing = Timing::Constant;
    row.name = word("a name for the choice");
    row.label = text("the choice's label in quotation marks");
    std::string chosen;
    Position chosenAt = row.at;
    while (peek().startsLine) {
      if (acceptWord("option")) {
        const Position at = peek().at;
        Option option;
        option.name = word("a name for the option");
        option.label = text("the option's label in quotation marks");
        if (row.option(option.name) >= 0) badAt(at, "'" + row.name + "' has an option '" + option.name + "' already");
        if (row.options.size() == kMostOptions) badAt(at, "a choice has nine options at most");
        row.options.push_back(std::move(option));
      } else if (acceptWord("default")) {
        chosenAt = peek().at;
        chosen = word("the option that stands until another is chosen");
      } else if (isWord("help")) {
        parseAttribute(row);
      } else {
        break;
      }
    }
    if (row.options.size() < 2) badAt(row.at, "the choice '" + row.name + "' needs two options or more");
    const int standing = chosen.empty() ? 0 : row.option(chosen);
    if (standing < 0) badAt(chosenAt, "'" + row.name + "' has no option '" + chosen + "'");
    row.preset = Default{false, static_cast<double>(standing)};
    row.range = Range{0, static_cast<double>(row.options.size() - 1)};
    return row;
  }

  Row parseRow() {
    const std::optional<Declared> declared = meaningOf(kDeclared, peek().text);
    if (!declared) {
      bad("expected group, row, driver, input, choice, given, amend, unprojected, means, view or method, found '" +
          shown(peek()) + "'");
    }
    Row row;
    row.at = peek().at;
    row.declared = *declared;
    next();
    row.name = word("a name for the row");
    row.label = text("the row's label in quotation marks");
    const std::string kind = word("the kind of row '" + row.name + "'");
    const std::optional<Kind> k = meaningOf(kKinds, kind);
    if (!k)
      bad("row '" + row.name + "': '" + kind +
          "' is not a kind (money, shares, per_share, "
          "ratio, days, multiple, count, quote, quote_rate)");
    row.kind = *k;
    const std::string timing = word("the timing of row '" + row.name + "'");
    const std::optional<Timing> t = meaningOf(kTimings, timing);
    if (!t)
      bad("row '" + row.name + "': '" + timing +
          "' is not a timing (flow, balance, rate, "
          "constant)");
    row.timing = *t;
    while (peek().startsLine && parseAttribute(row)) {
    }
    return row;
  }

  bool parseAttribute(Row& row) {
    if (acceptWord("history")) {
      row.historyFiled = false;
      row.history.reset();
      row.fact.reset();
      if (acceptWord("filed")) {
        row.historyFiled = true;
      } else if (acceptWord("recorded")) {
        row.historyFiled = true;
        row.fact = FactSource{text("the operating figure in quotation marks"), {}, {}, true};
      } else if (acceptWord("fact")) {
        row.historyFiled = true;
        row.fact = FactSource{text("the filed concept in quotation marks"), {}, {}};
        if (acceptWord("along")) {
          row.fact->axis = text("the axis in quotation marks");
          row.fact->member = text("the member in quotation marks");
        }
      } else {
        row.history = expression(0);
      }
    } else if (acceptWord("rule")) {  // of history and forecast alike
      row.historyFiled = false;
      row.fact.reset();
      row.forecast = expression(0);
      row.history = row.forecast;
      row.projected = true;
    } else if (acceptWord("first")) {
      row.first = expression(0);
    } else if (acceptWord("forecast")) {
      row.forecast = expression(0);
      row.projected = true;
    } else if (acceptWord("beyond")) {
      row.beyond = expression(0);
    } else if (acceptWord("value")) {
      row.value = expression(0);
    } else if (acceptWord("range")) {
      const double low = amount(row);
      expectWord("to");
      row.range = Range{low, amount(row)};
    } else if (acceptWord("default")) {
      Default preset;
      if (acceptWord("last")) {
        preset.last = true;
        if (acceptWord("else")) preset.level = amount(row);
      } else {
        preset.level = amount(row);
      }
      row.preset = preset;
    } else if (acceptWord("quoted")) {
      row.quoted = text("the name of the rate in quotation marks");
    } else if (acceptWord("peers")) {
      PeerTie tie;
      tie.measure = word("a measure of peers");
      if (onSameLine()) tie.statistic = word("a statistic of peers");
      row.peers = std::move(tie);
    } else if (acceptWord("record")) {
      row.record = recordTie(row);
    } else if (acceptWord("estimate")) {
      row.estimate = estimateTie(row);
    } else if (acceptWord("regular")) {
      row.regular = regularTie(row);
    } else if (acceptWord("help")) {
      row.help = text("the help text in quotation marks");
      while (peek().type == Token::Type::Text) row.help += " " + next().text;
    } else {
      return false;
    }
    return true;
  }

  Expr expression(int depth) {
    if (depth == 0) joined_ = 0;
    return either(depth);
  }

  /// A long sum is a tree as deep as it is long, and whatever walks it goes as deep.
  Expr joined(Op op, Expr left, Position at, Expr right) {
    constexpr int kMostJoined = 2000;
    if (++joined_ > kMostJoined) bad("this expression has more than 2,000 operations; split it into rows");
    return binary(op, std::move(left), at, std::move(right));
  }

  Expr either(int depth) {
    Expr left = both(depth);
    while (peek().type == Token::Type::Word && peek().text == "or") {
      const Position at = next().at;
      left = joined(Op::Or, std::move(left), at, both(depth));
    }
    return left;
  }

  Expr both(int depth) {
    Expr left = comparison(depth);
    while (peek().type == Token::Type::Word && peek().text == "and") {
      const Position at = next().at;
      left = joined(Op::And, std::move(left), at, comparison(depth));
    }
    return left;
  }

  Expr comparison(int depth) {
    Expr left = sum(depth);
    constexpr std::array<Word<Op>, 5> kSigns{
        {{"<", Op::Less}, {"<=", Op::LessEqual}, {">", Op::Greater}, {">=", Op::GreaterEqual}, {"==", Op::Equal}}};
    if (peek().type == Token::Type::Sign) {
      if (const std::optional<Op> op = meaningOf(kSigns, peek().text)) {
        const Position at = next().at;
        return joined(*op, std::move(left), at, sum(depth));
      }
    }
    if (isWord("is") && onSameLine()) {
      const Position at = next().at;
      if (left.op != Op::Ref || left.lag != 0 || left.anchor != Anchor::Here)
        badAt(at, "'is' stands between a choice and one of its options");
      Expr e = binary(Op::Is, std::move(left), at, {});
      e.name = word("an option of the choice");
      return e;
    }
    return left;
  }

  Expr sum(int depth) {
    Expr left = product(depth);
    while (isSign("+") || isSign("-")) {
      const Token& sign = next();
      left = joined(sign.text == "+" ? Op::Add : Op::Subtract, std::move(left), sign.at, product(depth));
    }
    return left;
  }

  Expr product(int depth) {
    Expr left = signedTerm(depth);
    while (isSign("*") || isSign("/")) {
      const Token& sign = next();
      left = joined(sign.text == "*" ? Op::Multiply : Op::Divide, std::move(left), sign.at, signedTerm(depth));
    }
    return left;
  }

  Expr signedTerm(int depth) {
    if (depth > kMaxDepth) bad("this expression is nested more than 64 deep; split it into rows");
    if (isSign("-")) {
      Expr e;
      e.op = Op::Negate;
      e.at = next().at;
      e.args.push_back(signedTerm(depth + 1));
      return e;
    }
    return power(depth);
  }

  Expr power(int depth) {
    Expr left = atom(depth);
    if (!isSign("^")) return left;
    const Position at = next().at;
    return joined(Op::Power, std::move(left), at, signedTerm(depth + 1));
  }

  Expr atom(int depth) {
    const Token token = next();
    Expr e;
    e.at = token.at;
    if (token.type == Token::Type::Number) {
      e.number = token.number;
      if (const std::optional<Kind> unit = unitHere()) e.unit = unit;
      return e;
    }
    if (token.type == Token::Type::Sign && token.text == "(") {
      e = expression(depth + 1);
      expectSign(")");
      return e;
    }
    if (token.type == Token::Type::Word) {
      if (isSign("(")) return call(token, depth);
      if (token.text.size() > kLongestName) badAt(token.at, "there is no row '" + shown(token) + "'");
      e.op = token.text == running_ ? Op::Counter : Op::Ref;
      e.name = token.text;
      if (isSign("[")) {
        next();
        expectSign("-");
        if (!running_.empty() && isWord(running_.c_str())) {
          e.counter = next().text;
          expectSign("]");
          return e;
        }
        const double lag = number("how many years back");
        if (lag < 1 || lag > kLongestLag || lag != std::floor(lag)) {
          bad("a reference looks back a whole number of 1 to 10 years");
        }
        e.lag = static_cast<int>(lag);
        expectSign("]");
      }
      return e;
    }
    badAt(token.at, "expected a number, a row or '(', found '" + shown(token) + "'");
  }

  /// The unit of the number just read, where the next word is one.
  std::optional<Kind> unitHere() {
    if (!onSameLine() || peek().type != Token::Type::Word) return std::nullopt;
    const std::optional<Kind> unit = meaningOf(kKinds, peek().text);
    if (unit) next();
    return unit;
  }

  /// A figure that a row may have: a number, with or without its unit.
  double amount(const Row& row) {
    const Position at = peek().at;
    const double n = signedNumber();
    const std::optional<Kind> unit = unitHere();
    if (unit && *unit != row.kind)
      badAt(at, "row '" + row.name + "' is " + kindWord(row.kind) + ", and this figure is " + kindWord(*unit));
    return n;
  }

  /// estimate ROW YEARS, of a given.
  EstimateTie estimateTie(const Row& row) {
    constexpr int kMostYears = 5;
    const Position at = peek().at;
    if (row.declared != Declared::Given) badAt(at, "only a given is read from estimates");
    EstimateTie tie;
    tie.item = word("a row that analysts estimate");
    tie.ahead = wholeNumber();
    if (tie.ahead < 1 || tie.ahead > kMostYears) badAt(at, "estimates are read for the first to the fifth year ahead");
    return tie;
  }

  /// regular PART over WHOLE, of a given.
  RegularTie regularTie(const Row& row) {
    if (row.declared != Declared::Given || row.kind != Kind::Ratio)
      badAt(peek().at, "a mean of regular years is a given ratio");
    RegularTie tie;
    tie.part = word("the row whose mean it is");
    expectWord("over");
    tie.whole = word("the row that it is a part of");
    return tie;
  }

  /// record LIST PLACE FIELD, of a given.
  RecordTie recordTie(const Row& row) {
    struct Field {
      const char* list;
      const char* name;
      Kind kind;
    };
    constexpr std::array<Field, 4> kFields = {{{"option_tranches", "count", Kind::Shares},
                                               {"option_tranches", "strike", Kind::Quote},
                                               {"convertibles", "shares", Kind::Shares},
                                               {"convertibles", "face", Kind::Money}}};
    const Position at = peek().at;
    if (row.declared != Declared::Given) badAt(at, "only a given is read from a list of the record");
    RecordTie tie;
    tie.list = word("a list of the record");
    tie.place = wholeNumber();
    tie.field = word("a field of the list");
    const auto* field = std::find_if(kFields.begin(), kFields.end(),
                                     [&](const Field& f) { return f.list == tie.list && f.name == tie.field; });
    if (field == kFields.end() || tie.place < 1) {
      badAt(at,
            "a list of the record is read by place from 1: option_tranches (count, strike) or convertibles "
            "(shares, face)");
    }
    if (field->kind != row.kind)
      badAt(at, "row '" + row.name + "' is " + kindWord(row.kind) + ", and the field is " + kindWord(field->kind));
    return tie;
  }

  /// sum(k = 1 to 10, term): the term for every whole number, which it may hold and look back by.
  Expr runningSum(const Token& name, int depth) {
    Expr e;
    e.op = Op::Sum;
    e.at = name.at;
    if (!running_.empty()) badAt(name.at, "a sum cannot run within another");
    e.name = word("a name for what runs");
    expectSign("=");
    e.from = wholeNumber();
    expectWord("to");
    e.to = wholeNumber();
    if (e.to < e.from || e.to - e.from >= 60) badAt(name.at, "a sum runs upwards, over 60 terms at most");
    expectSign(",");
    running_ = e.name;
    e.pattern.push_back(expression(depth + 1));
    running_.clear();
    expectSign(")");
    for (int k = e.from; k <= e.to; ++k) {
      Expr term = e.pattern.front();
      writeOut(term, e.name, k);
      e.args.push_back(std::move(term));
    }
    return e;
  }

  int wholeNumber() {
    const double n = number("a whole number");
    if (n != std::floor(n) || n > 1000) bad("expected a whole number");
    return static_cast<int>(n);
  }

  void writeOut(Expr& e, const std::string& counter, int k) const {
    if (e.op == Op::Counter) {
      e.op = Op::Number;
      e.number = k;
      e.name.clear();
    } else if (e.counter == counter) {
      if (k < 1 || k > kLongestLag) badAt(e.at, "a reference looks back a whole number of 1 to 10 years");
      e.lag = k;
      e.counter.clear();
    }
    for (Expr& part : e.args) writeOut(part, counter, k);
  }

  Expr call(const Token& name, int depth) {
    expectSign("(");
    if (name.text == "sum") return runningSum(name, depth);
    if (const std::optional<Anchor> anchor = meaningOf(kAnchors, name.text)) {
      Expr e;
      e.op = Op::Ref;
      e.at = name.at;
      e.anchor = *anchor;
      e.name = word("the row that " + name.text + "() reads");
      expectSign(")");
      return e;
    }
    for (const Function& f : kFunctions) {
      if (name.text != f.text) continue;
      Expr e;
      e.op = f.op;
      e.at = name.at;
      e.args.push_back(expression(depth + 1));
      for (size_t i = 1; i < f.arguments; ++i) {
        expectSign(",");
        e.args.push_back(expression(depth + 1));
      }
      if (f.op == Op::Guard) {
        expectSign(",");
        e.reason = text("the reason in quotation marks");
      }
      expectSign(")");
      return e;
    }
    badAt(name.at, "there is no function '" + shown(name) + "'");
  }

  static Expr binary(Op op, Expr left, Position at, Expr right) {
    Expr e;
    e.op = op;
    e.at = at;
    e.args.push_back(std::move(left));
    e.args.push_back(std::move(right));
    return e;
  }

  [[nodiscard]] const Token& peek() const { return tokens_[at_]; }
  const Token& next() {
    const Token& token = tokens_[at_];
    if (at_ + 1 < tokens_.size()) ++at_;
    return token;
  }
  [[nodiscard]] bool isSign(const char* sign) const { return peek().type == Token::Type::Sign && peek().text == sign; }
  void expectSign(const char* sign) {
    if (!isSign(sign)) bad(std::string("expected '") + sign + "', found '" + shown(peek()) + "'");
    next();
  }
  [[nodiscard]] bool isWord(const char* expected) const {
    return peek().type == Token::Type::Word && peek().text == expected;
  }
  bool acceptWord(const char* expected) {
    if (!isWord(expected)) return false;
    next();
    return true;
  }
  void expectWord(const char* expected) {
    if (!acceptWord(expected)) {
      bad(std::string("expected '") + expected + "', found '" + shown(peek()) + "'");
    }
  }
  std::string word(const std::string& what) {
    if (peek().type != Token::Type::Word) bad("expected " + what + ", found '" + shown(peek()) + "'");
    if (peek().text.size() > kLongestName) bad("'" + shown(peek()) + "' is longer than the 200 letters of a name");
    return next().text;
  }
  std::string text(const std::string& what) {
    if (peek().type != Token::Type::Text) bad("expected " + what + ", found '" + shown(peek()) + "'");
    if (peek().text.size() > kLongestText) bad("'" + shown(peek()) + "' is longer than the 500 letters of a text");
    return next().text;
  }
  double number(const std::string& what) {
    if (peek().type != Token::Type::Number) {
      bad("expected " + what + ", found '" + shown(peek()) + "'");
    }
    return next().number;
  }
  double signedNumber() {
    const bool negative = isSign("-");
    if (negative) next();
    const double n = number("a number");
    return negative ? -n : n;
  }

  /// What a message shows of a token: a damaged text may hold one of any length.
  static std::string shown(const Token& token) {
    constexpr size_t kMost = 40;
    return token.text.size() <= kMost ? token.text : token.text.substr(0, kMost) + "...";
  }

  [[noreturn]] void bad(std::string what) const { badAt(peek().at, std::move(what)); }
  [[noreturn]] void badAt(Position at, std::string what) const {
    throw Fault{Error{ErrorKind::BadInput, std::move(what), placeText(source_, at), {}}};
  }

  std::vector<Token> tokens_;
  std::string source_;
  Model& model_;
  Bindings& bindings_;
  size_t at_ = 0;
  int joined_ = 0;       ///< operations of the rule that is read
  std::string running_;  ///< what runs in the sum that is read
};

}  // namespace

const LanguageWords& languageWords() {
  static const LanguageWords words = [] {
    LanguageWords w;
    w.declarations = {"group", "amend", "unprojected", "choice", "means", "view", "method", "multiple"};
    for (const auto& declared : kDeclared) w.declarations.emplace_back(declared.text);
    w.attributes = {"history", "rule",   "first", "forecast", "value",    "range",   "beyond", "default",
                    "option",  "quoted", "peers", "record",   "estimate", "regular", "help"};
    w.histories = {"filed", "fact", "recorded"};
    for (const auto& kind : kKinds) w.kinds.emplace_back(kind.text);
    for (const auto& timing : kTimings) w.timings.emplace_back(timing.text);
    for (const auto& function : kFunctions) w.functions.emplace_back(function.text);
    w.functions.emplace_back("sum");
    for (const auto& anchor : kAnchors) w.functions.emplace_back(anchor.text);
    return w;
  }();
  return words;
}

const char* kindWord(Kind kind) {
  return wordOf(kKinds, kind);
}
const char* timingWord(Timing timing) {
  return wordOf(kTimings, timing);
}
const char* declaredWord(Declared declared) {
  return wordOf(kDeclared, declared);
}

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
