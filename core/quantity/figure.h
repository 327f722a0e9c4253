#pragma once
// Figure: a value, or absent (no input), or not meaningful (with its reason).
//
//   Figure growth = Figure::of(120) / Figure::of(0);   // not meaningful: division by zero
//   growth.hasValue();                                 // false; never a 0, never an infinity
//
// Arithmetic: any not-meaningful operand makes the result not meaningful (its reason), else any
// absent operand makes it absent; a non-finite result is not meaningful.

#include <memory>
#include <string>

namespace zl {

class Figure {
 public:
  /// A finite number becomes a value; anything else is not meaningful.
  static Figure of(double number);
  static Figure absent(std::string why = {});
  static Figure notMeaningful(std::string reason);

  Figure() = default;  ///< absent

  [[nodiscard]] bool hasValue() const { return state_ == State::Value; }
  [[nodiscard]] bool isAbsent() const { return state_ == State::Absent; }
  [[nodiscard]] bool isNotMeaningful() const { return state_ == State::NotMeaningful; }

  /// The number. Calling it without a value is a fault of the caller and stops the program.
  [[nodiscard]] double value() const;
  [[nodiscard]] double valueOr(double other) const { return hasValue() ? number_ : other; }
  /// Why there is no value; empty where there is one.
  [[nodiscard]] const std::string& reason() const;

  /// The kernel's form: the number, or a quiet NaN.
  [[nodiscard]] double orNaN() const;

  friend bool operator==(const Figure& a, const Figure& b) {
    return a.state_ == b.state_ && a.number_ == b.number_ && a.reason() == b.reason();
  }

 private:
  enum class State { Value, Absent, NotMeaningful };
  State state_ = State::Absent;
  double number_ = 0.0;
  std::shared_ptr<const std::string> reason_;  ///< shared by copies, which are many; null: none
};

Figure operator+(const Figure& a, const Figure& b);
Figure operator-(const Figure& a, const Figure& b);
Figure operator*(const Figure& a, const Figure& b);
Figure operator/(const Figure& a, const Figure& b);
Figure operator-(const Figure& a);

/// The operand that decides a result without a value: not meaningful before absent; nullptr when
/// all have values.
const Figure* decidingGap(std::initializer_list<const Figure*> operands);

}  // namespace zl
