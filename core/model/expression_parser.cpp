#include "core/model/expression_parser.h"

#include <array>
#include <cmath>
#include <utility>

#include "core/model/language_words.h"

namespace zl::model {
namespace {

constexpr int kLongestLag = 10;
constexpr int kMaxDepth = 64;  // deeper nesting is refused, not recursed into

}  // namespace

Expr ExpressionParser::expression(int depth) {
  if (depth == 0) joined_ = 0;
  return either(depth);
}

/// A long sum is a tree as deep as it is long, and whatever walks it goes as deep.
Expr ExpressionParser::joined(Op op, Expr left, Position at, Expr right) {
  constexpr int kMostJoined = 2000;
  if (++joined_ > kMostJoined) bad("this expression has more than 2,000 operations; split it into rows");
  return binary(op, std::move(left), at, std::move(right));
}

Expr ExpressionParser::either(int depth) {
  Expr left = both(depth);
  while (peek().type == Token::Type::Word && peek().text == "or") {
    const Position at = next().at;
    left = joined(Op::Or, std::move(left), at, both(depth));
  }
  return left;
}

Expr ExpressionParser::both(int depth) {
  Expr left = comparison(depth);
  while (peek().type == Token::Type::Word && peek().text == "and") {
    const Position at = next().at;
    left = joined(Op::And, std::move(left), at, comparison(depth));
  }
  return left;
}

Expr ExpressionParser::comparison(int depth) {
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

Expr ExpressionParser::sum(int depth) {
  Expr left = product(depth);
  while (isSign("+") || isSign("-")) {
    const Token& sign = next();
    left = joined(sign.text == "+" ? Op::Add : Op::Subtract, std::move(left), sign.at, product(depth));
  }
  return left;
}

Expr ExpressionParser::product(int depth) {
  Expr left = signedTerm(depth);
  while (isSign("*") || isSign("/")) {
    const Token& sign = next();
    left = joined(sign.text == "*" ? Op::Multiply : Op::Divide, std::move(left), sign.at, signedTerm(depth));
  }
  return left;
}

Expr ExpressionParser::signedTerm(int depth) {
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

Expr ExpressionParser::power(int depth) {
  Expr left = atom(depth);
  if (!isSign("^")) return left;
  const Position at = next().at;
  return joined(Op::Power, std::move(left), at, signedTerm(depth + 1));
}

Expr ExpressionParser::atom(int depth) {
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
std::optional<Kind> ExpressionParser::unitHere() {
  if (!onSameLine() || peek().type != Token::Type::Word) return std::nullopt;
  const std::optional<Kind> unit = meaningOf(kKinds, peek().text);
  if (unit) next();
  return unit;
}

/// sum(k = 1 to 10, term): the term for every whole number, which it may hold and look back by.
Expr ExpressionParser::runningSum(const Token& name, int depth) {
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

void ExpressionParser::writeOut(Expr& e, const std::string& counter, int k) const {
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

Expr ExpressionParser::call(const Token& name, int depth) {
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

Expr ExpressionParser::binary(Op op, Expr left, Position at, Expr right) {
  Expr e;
  e.op = op;
  e.at = at;
  e.args.push_back(std::move(left));
  e.args.push_back(std::move(right));
  return e;
}

}  // namespace zl::model
