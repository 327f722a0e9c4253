#include "core/model/expression_words.h"

#include <cctype>

#include "core/quantity/number_text.h"

namespace zl::model {
namespace {

/// What is chosen, ready for the option: a label that leads on to it ("Exit multiple of") needs no "is".
std::string isWords(const std::string& label) {
  const std::string last = label.substr(label.rfind(' ') + 1);
  for (const char* leads : {"is", "are", "of", "at", "by", "as", "from", "worth"}) {
    if (last == leads) return label;
  }
  return label + " is";
}

class Words {
 public:
  explicit Words(const Model& m) : m_(m) {}

  [[nodiscard]] std::string of(const Expr& e) const {
    switch (e.op) {
      case Op::Number:
        return plainNumber(e.number) + (e.unit && e.number != 0 ? std::string(" ") + kindWord(*e.unit) : "");
      case Op::Ref:
        return reference(e);
      case Op::Counter:
        return e.name;
      case Op::Is:
        return isWords(of(e.args[0])) + " '" + optionWords(e) + "'";
      case Op::Negate:
        return "minus " + part(e.args[0]);
      case Op::Min:
        return "the smaller of " + listed(e);
      case Op::Max:
        return "the larger of " + listed(e);
      case Op::Abs:
        return "the size of " + part(e.args[0]);
      case Op::Round:
        return part(e.args[0]) + " to the nearest whole number";
      case Op::If:
        return "if " + of(e.args[0]) + " then " + of(e.args[1]) + ", else " + of(e.args[2]);
      case Op::Guard:
        return neverHolds(e.args[0]) ? "no value, as '" + e.reason + "'"
                                     : of(e.args[1]) + ", as long as " + of(e.args[0]);
      case Op::Known:
        return of(e.args[0]) + ", where it is known, else " + of(e.args[1]);
      case Op::Average:
        return "the average over the year of " + part(e.args[0]);
      case Op::Total:
        return "the sum over all forecast years of " + part(e.args[0]);
      case Op::Sum:
        return "the sum of " + of(e.pattern.front()) + " for " + e.name + " from " + std::to_string(e.from) + " to " +
               std::to_string(e.to);
      default:
        return (goesOn(e.op, e.args[0].op) ? of(e.args[0]) : part(e.args[0])) + sign(e.op) + part(e.args[1]);
    }
  }

 private:
  /// In brackets where it has parts of its own.
  [[nodiscard]] std::string part(const Expr& e) const {
    const bool whole = e.op == Op::Number || e.op == Op::Ref || e.op == Op::Counter;
    return whole ? of(e) : "(" + of(e) + ")";
  }

  /// "a plus b less c" and "a times b over c" are read from the left, as they are worked out.
  static bool goesOn(Op op, Op left) {
    const auto adds = [](Op o) { return o == Op::Add || o == Op::Subtract; };
    const auto scales = [](Op o) { return o == Op::Multiply || o == Op::Divide; };
    return (adds(op) && adds(left)) || (scales(op) && scales(left));
  }

  /// How a rule says that there is no value, with the reason: a guard on "0 > 1".
  static bool neverHolds(const Expr& e) {
    return e.op == Op::Greater && e.args[0].op == Op::Number && e.args[1].op == Op::Number &&
           e.args[0].number <= e.args[1].number;
  }

  static const char* sign(Op op) {
    switch (op) {
      case Op::Add:
        return " plus ";
      case Op::Subtract:
        return " less ";
      case Op::Multiply:
        return " times ";
      case Op::Divide:
        return " over ";
      case Op::Power:
        return " to the power of ";
      case Op::Less:
        return " is below ";
      case Op::LessEqual:
        return " is at most ";
      case Op::Greater:
        return " is above ";
      case Op::GreaterEqual:
        return " is at least ";
      case Op::Equal:
        return " equals ";
      case Op::And:
        return " and ";
      default:
        return " or ";
    }
  }

  [[nodiscard]] std::string listed(const Expr& e) const {
    std::string words;
    for (size_t i = 0; i < e.args.size(); ++i)
      words += (i == 0 ? "" : i + 1 == e.args.size() ? " and " : ", ") + part(e.args[i]);
    return words;
  }

  [[nodiscard]] std::string label(const std::string& name) const {
    const RowId row = m_.find(name);
    std::string words = row.known() ? m_[row].label : name;
    // "EBIT" and "WACC" stay as they are.
    const bool abbreviation = words.size() > 1 && std::isupper(static_cast<unsigned char>(words[1])) != 0;
    if (!words.empty() && !abbreviation)
      words[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(words[0])));
    return words;
  }

  [[nodiscard]] std::string reference(const Expr& e) const {
    std::string words = label(e.name);
    switch (e.anchor) {
      case Anchor::Base:
        return words + " of the base year";
      case Anchor::First:
        return words + " at the opening";
      case Anchor::Second:
        return words + " of the second year";
      case Anchor::Third:
        return words + " of the third year";
      case Anchor::Final:
        return words + " of the last year";
      case Anchor::Beyond:
        return words + " of the year after the last";
      case Anchor::Here:
        break;
    }
    if (!e.counter.empty()) return words + " " + e.counter + " years before";
    if (e.lag == 0) return words;
    return words + (e.lag == 1 ? " of the year before" : " of " + std::to_string(e.lag) + " years before");
  }

  [[nodiscard]] std::string optionWords(const Expr& e) const {
    const RowId row = e.args[0].op == Op::Ref ? m_.find(e.args[0].name) : RowId{};
    if (!row.known()) return e.name;
    const int at = m_[row].option(e.name);
    return at < 0 ? e.name : m_[row].options[static_cast<size_t>(at)].label;
  }

  const Model& m_;
};

}  // namespace

std::string expressionWords(const Expr& expr, const Model& m) {
  return Words(m).of(expr);
}

}  // namespace zl::model
