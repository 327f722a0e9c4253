#include "core/model/parser.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <optional>
#include <string>
#include <utility>

#include "core/model/checker.h"
#include "core/model/lexer.h"

namespace zl::model {
namespace {

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
constexpr std::array<Word<Role>, 4> kRoles{
    {{"row", Role::Row}, {"driver", Role::Driver}, {"input", Role::Input}, {"given", Role::Given}}};
struct Function {
  const char* text;
  Op op;
  size_t arguments;
};
constexpr std::array<Function, 7> kFunctions{{{"min", Op::Min, 2},
                                              {"max", Op::Max, 2},
                                              {"abs", Op::Abs, 1},
                                              {"if", Op::If, 3},
                                              {"guard", Op::Guard, 2},
                                              {"avg", Op::Average, 1},
                                              {"total", Op::Total, 1}}};
constexpr std::array<Word<Anchor>, 3> kAnchors{
    {{"base", Anchor::Base}, {"opening_year", Anchor::First}, {"final", Anchor::Final}}};

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

// Faults travel as an exception inside this file only; parseModel turns them into a value.
struct Fault {
  Error error;
};

class Parser {
 public:
  Parser(std::vector<Token> tokens, std::string source, Model& model)
      : tokens_(std::move(tokens)), source_(std::move(source)), model_(model) {}

  void run() {
    const bool first = model_.sources.empty();
    model_.sources.push_back(source_);
    if (first || isWord("model")) header(first);
    std::string group = first ? "" : kOwnGroup;
    while (peek().type != Token::Type::End) {
      if (acceptWord("group")) {
        group = text("the group's title in quotation marks");
      } else if (acceptWord("amend")) {
        amend();
      } else if (acceptWord("unprojected")) {
        unproject();
      } else {
        const std::optional<Role> role = meaningOf(kRoles, peek().text);
        if (!role)
          bad("expected group, row, driver, input, given, amend or unprojected, found '" + shown(peek()) + "'");
        Row row = parseRow(*role);
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
    const int index = model_.find(name);
    if (index < 0) badAt(tokens_[at_ - 1].at, "there is no row '" + name + "' to amend");
    return model_.rows[static_cast<size_t>(index)];
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
    if (row.role != Role::Driver && row.role != Role::Input) return;
    row.role = Role::Row;
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
    return row.timing != Timing::Constant && (row.role == Role::Row || row.role == Role::Driver);
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

  Row parseRow(Role role) {
    Row row;
    row.at = peek().at;
    row.role = role;
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
    } else if (acceptWord("first")) {
      row.first = expression(0);
    } else if (acceptWord("forecast")) {
      row.forecast = expression(0);
      row.projected = true;
    } else if (acceptWord("value")) {
      row.value = expression(0);
    } else if (acceptWord("range")) {
      const double low = signedNumber();
      expectWord("to");
      row.range = Range{low, signedNumber()};
    } else if (acceptWord("default")) {
      Default preset;
      if (acceptWord("last")) {
        preset.last = true;
        if (acceptWord("else")) preset.level = signedNumber();
      } else {
        preset.level = signedNumber();
      }
      row.preset = preset;
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
      if (peek().type == Token::Type::Word && peek().text == "days") {
        next();
        e.inDays = true;
      }
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
      e.op = Op::Ref;
      e.name = token.text;
      if (isSign("[")) {
        next();
        expectSign("-");
        const double lag = number("how many years back");
        if (lag < 1 || lag > 10 || lag != std::floor(lag)) {
          bad("a reference looks back a whole number of 1 to 10 years");
        }
        e.lag = static_cast<int>(lag);
        expectSign("]");
      }
      return e;
    }
    badAt(token.at, "expected a number, a row or '(', found '" + shown(token) + "'");
  }

  Expr call(const Token& name, int depth) {
    expectSign("(");
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
  size_t at_ = 0;
  int joined_ = 0;  ///< operations of the rule that is read
};

}  // namespace

const LanguageWords& languageWords() {
  static const LanguageWords words = [] {
    LanguageWords w;
    w.declarations = {"group", "amend", "unprojected"};
    for (const auto& role : kRoles) w.declarations.emplace_back(role.text);
    w.attributes = {"history", "first", "forecast", "value", "range", "default", "help"};
    w.histories = {"filed", "fact", "recorded"};
    for (const auto& kind : kKinds) w.kinds.emplace_back(kind.text);
    for (const auto& timing : kTimings) w.timings.emplace_back(timing.text);
    for (const auto& function : kFunctions) w.functions.emplace_back(function.text);
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
const char* roleWord(Role role) {
  return wordOf(kRoles, role);
}

int Model::find(const std::string& rowName) const {
  for (size_t i = 0; i < rows.size(); ++i) {
    if (rows[i].name == rowName) return static_cast<int>(i);
  }
  return -1;
}

Result<Model> parseModel(std::string_view text, const std::string& source) {
  return parseModel(std::vector<ModelText>{{source, text}});
}

Result<Model> parseModel(const std::vector<ModelText>& texts) {
  constexpr size_t kLargestModel = 4u << 20;
  constexpr size_t kMostRows = 2000;
  Model model;
  for (size_t i = 0; i < texts.size(); ++i) {
    if (texts[i].text.size() > kLargestModel) {
      return fail(ErrorKind::TooLarge, "a model text may hold 4 MiB at most", texts[i].source);
    }
    Result<std::vector<Token>> tokens = tokenize(texts[i].text, texts[i].source, static_cast<int>(i));
    if (!tokens) return tl::unexpected(tokens.error());
    try {
      Parser(std::move(*tokens), texts[i].source, model).run();
    } catch (const Fault& fault) {
      return tl::unexpected(fault.error);
    }
    if (i > 0 && model.rows.size() > kMostRows) {
      return fail(ErrorKind::TooLarge, "a model and the rows upon it may be 2,000 rows at most", texts[i].source);
    }
  }
  if (Status checked = checkModel(model); !checked) return tl::unexpected(checked.error());
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
