#include "core/model/parser.h"

#include <array>
#include <cmath>
#include <optional>
#include <string>

#include "core/model/checker.h"
#include "core/model/lexer.h"

namespace zl::model {
namespace {

constexpr int kMaxDepth = 64;  // deeper nesting is refused, not recursed into

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
  Parser(std::vector<Token> tokens, std::string source) : tokens_(std::move(tokens)), source_(std::move(source)) {}

  Model model() {
    Model model;
    expectWord("model");
    model.name = word("a name for the model");
    model.title = text("the model's title in quotation marks");
    model.version = static_cast<int>(number("the model's version"));
    std::string group;
    while (peek().type != Token::Type::End) {
      if (acceptWord("group")) {
        group = text("the group's title in quotation marks");
        continue;
      }
      const std::optional<Role> role = meaningOf(kRoles, peek().text);
      if (!role) bad("expected group, row, driver, input or given, found '" + peek().text + "'");
      Row row = parseRow(*role);
      row.group = group;
      model.rows.push_back(std::move(row));
    }
    return model;
  }

 private:
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
      if (acceptWord("filed")) {
        row.historyFiled = true;
      } else {
        row.history = expression(0);
      }
    } else if (acceptWord("first")) {
      row.first = expression(0);
    } else if (acceptWord("forecast")) {
      row.forecast = expression(0);
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

  Expr expression(int depth) { return either(depth); }

  Expr either(int depth) {
    Expr left = both(depth);
    while (peek().type == Token::Type::Word && peek().text == "or") {
      const Position at = next().at;
      left = binary(Op::Or, std::move(left), at, both(depth));
    }
    return left;
  }

  Expr both(int depth) {
    Expr left = comparison(depth);
    while (peek().type == Token::Type::Word && peek().text == "and") {
      const Position at = next().at;
      left = binary(Op::And, std::move(left), at, comparison(depth));
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
        return binary(*op, std::move(left), at, sum(depth));
      }
    }
    return left;
  }

  Expr sum(int depth) {
    Expr left = product(depth);
    while (isSign("+") || isSign("-")) {
      const Token& sign = next();
      left = binary(sign.text == "+" ? Op::Add : Op::Subtract, std::move(left), sign.at, product(depth));
    }
    return left;
  }

  Expr product(int depth) {
    Expr left = signedTerm(depth);
    while (isSign("*") || isSign("/")) {
      const Token& sign = next();
      left = binary(sign.text == "*" ? Op::Multiply : Op::Divide, std::move(left), sign.at, signedTerm(depth));
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
    return binary(Op::Power, std::move(left), at, signedTerm(depth + 1));
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
    badAt(token.at, "expected a number, a row or '(', found '" + token.text + "'");
  }

  Expr call(const Token& name, int depth) {
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
    badAt(name.at, "there is no function '" + name.text + "'");
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
    if (!isSign(sign)) bad(std::string("expected '") + sign + "', found '" + peek().text + "'");
    next();
  }
  bool acceptWord(const char* expected) {
    if (peek().type != Token::Type::Word || peek().text != expected) return false;
    next();
    return true;
  }
  void expectWord(const char* expected) {
    if (!acceptWord(expected)) {
      bad(std::string("expected '") + expected + "', found '" + peek().text + "'");
    }
  }
  std::string word(const std::string& what) {
    if (peek().type != Token::Type::Word) bad("expected " + what + ", found '" + peek().text + "'");
    return next().text;
  }
  std::string text(const std::string& what) {
    if (peek().type != Token::Type::Text) bad("expected " + what + ", found '" + peek().text + "'");
    return next().text;
  }
  double number(const std::string& what) {
    if (peek().type != Token::Type::Number) {
      bad("expected " + what + ", found '" + peek().text + "'");
    }
    return next().number;
  }
  double signedNumber() {
    const bool negative = isSign("-");
    if (negative) next();
    const double n = number("a number");
    return negative ? -n : n;
  }

  [[noreturn]] void bad(std::string what) const { badAt(peek().at, std::move(what)); }
  [[noreturn]] void badAt(Position at, std::string what) const {
    throw Fault{Error{ErrorKind::BadInput, std::move(what), placeText(source_, at), {}}};
  }

  std::vector<Token> tokens_;
  std::string source_;
  size_t at_ = 0;
};

}  // namespace

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
  constexpr size_t kLargestText = 4u << 20;
  if (text.size() > kLargestText) {
    return fail(ErrorKind::TooLarge, "a model text may hold 4 MiB at most", source);
  }
  Result<std::vector<Token>> tokens = tokenize(text, source);
  if (!tokens) return tl::unexpected(tokens.error());
  try {
    Model model = Parser(std::move(*tokens), source).model();
    if (Status checked = checkModel(model, source); !checked) {
      return tl::unexpected(checked.error());
    }
    return model;
  } catch (const Fault& fault) {
    return tl::unexpected(fault.error);
  }
}

}  // namespace zl::model
