#include <charconv>

#include "core/model/syntax.h"

namespace zl::model {
namespace {

int strength(Op op) {
  switch (op) {
    case Op::Or:
      return 1;
    case Op::And:
      return 2;
    case Op::Less:
    case Op::LessEqual:
    case Op::Greater:
    case Op::GreaterEqual:
    case Op::Equal:
    case Op::Is:
      return 3;
    case Op::Add:
    case Op::Subtract:
      return 4;
    case Op::Multiply:
    case Op::Divide:
      return 5;
    case Op::Negate:
      return 6;
    case Op::Power:
      return 7;
    default:
      return 9;
  }
}

const char* sign(Op op) {
  switch (op) {
    case Op::Or:
      return " or ";
    case Op::And:
      return " and ";
    case Op::Less:
      return " < ";
    case Op::LessEqual:
      return " <= ";
    case Op::Greater:
      return " > ";
    case Op::GreaterEqual:
      return " >= ";
    case Op::Equal:
      return " == ";
    case Op::Add:
      return " + ";
    case Op::Subtract:
      return " - ";
    case Op::Multiply:
      return " * ";
    case Op::Divide:
      return " / ";
    case Op::Power:
      return "^";
    case Op::Min:
      return "min";
    case Op::Max:
      return "max";
    case Op::Abs:
      return "abs";
    case Op::Round:
      return "round";
    case Op::If:
      return "if";
    case Op::Guard:
      return "guard";
    case Op::Known:
      return "known";
    case Op::Average:
      return "avg";
    case Op::Total:
      return "total";
    default:
      return "";
  }
}

std::string refText(const Expr& e) {
  switch (e.anchor) {
    case Anchor::Base:
      return "base(" + e.name + ")";
    case Anchor::First:
      return "opening_year(" + e.name + ")";
    case Anchor::Second:
      return "second_year(" + e.name + ")";
    case Anchor::Third:
      return "third_year(" + e.name + ")";
    case Anchor::Final:
      return "final(" + e.name + ")";
    case Anchor::Beyond:
      return "beyond(" + e.name + ")";
    case Anchor::Here:
      break;
  }
  if (!e.counter.empty()) return e.name + "[-" + e.counter + "]";
  return e.lag == 0 ? e.name : e.name + "[-" + std::to_string(e.lag) + "]";
}

std::string numberText(const Expr& e) {
  char buffer[32];
  const auto end = std::to_chars(buffer, buffer + sizeof buffer, e.number).ptr;
  return std::string(buffer, end) + (e.unit ? std::string(" ") + kindWord(*e.unit) : "");
}

}  // namespace

std::string expressionText(const Expr& e) {
  const auto wrapped = [&](const Expr& part, bool strict) {
    const std::string text = expressionText(part);
    const bool weak = strength(part.op) < strength(e.op) || (strict && strength(part.op) == strength(e.op));
    return weak ? "(" + text + ")" : text;
  };
  switch (e.op) {
    case Op::Number:
      return numberText(e);
    case Op::Ref:
      return refText(e);
    case Op::Counter:
      return e.name;
    case Op::Is:
      return expressionText(e.args[0]) + " is " + e.name;
    case Op::Sum:
      return "sum(" + e.name + " = " + std::to_string(e.from) + " to " + std::to_string(e.to) + ", " +
             expressionText(e.pattern.front()) + ")";
    case Op::Negate:
      return "-" + wrapped(e.args[0], false);
    case Op::Min:
    case Op::Max:
    case Op::Abs:
    case Op::Round:
    case Op::If:
    case Op::Guard:
    case Op::Known:
    case Op::Average:
    case Op::Total: {
      std::string text = std::string(sign(e.op)) + "(";
      for (size_t i = 0; i < e.args.size(); ++i) {
        if (i > 0) text += ", ";
        text += expressionText(e.args[i]);
      }
      if (e.op == Op::Guard) text += ", \"" + e.reason + "\"";
      return text + ")";
    }
    default:
      return wrapped(e.args[0], e.op == Op::Power) + sign(e.op) + wrapped(e.args[1], e.op != Op::Power);
  }
}

}  // namespace zl::model
