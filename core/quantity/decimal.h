#pragma once
// Exact decimal numbers for judging whether filed figures tie. Everything downstream is double.

#include <boost/multiprecision/cpp_int.hpp>
#include <optional>
#include <string>
#include <string_view>

namespace zl {

/// mantissa * 10^exponent, exact. Holds at most 60 significant digits and exponents of -60..60,
/// which bounds what a hostile file can make it cost.
class Decimal {
 public:
  Decimal() = default;
  explicit Decimal(long long whole) : mantissa_(whole) {}
  /// 5 * 10^exponent-1: half a unit of the decimal place `exponent`.
  static Decimal halfUnit(int exponent);
  /// Parses [+-]digits[.digits][e[+-]digits]; nothing else. Empty on anything else or over limits.
  static std::optional<Decimal> parse(std::string_view text);
  /// Whether parse() would give a number, without making it: for readers of many figures.
  static bool isNumber(std::string_view text);

  [[nodiscard]] int lastPlace() const { return exponent_; }  ///< exponent of the last digit written
  [[nodiscard]] double toDouble() const;
  [[nodiscard]] std::string text() const;
  [[nodiscard]] Decimal abs() const;
  /// Times 10^places: the point moves, no digit is lost.
  [[nodiscard]] Decimal shifted(int places) const;

  friend Decimal operator+(const Decimal& a, const Decimal& b);
  friend Decimal operator-(const Decimal& a, const Decimal& b);
  friend Decimal operator*(const Decimal& a, int weight);
  friend bool operator==(const Decimal& a, const Decimal& b) { return compare(a, b) == 0; }
  friend bool operator<(const Decimal& a, const Decimal& b) { return compare(a, b) < 0; }
  friend bool operator<=(const Decimal& a, const Decimal& b) { return compare(a, b) <= 0; }

 private:
  static int compare(const Decimal& a, const Decimal& b);
  static void align(Decimal& a, Decimal& b);

  boost::multiprecision::cpp_int mantissa_ = 0;
  int exponent_ = 0;
};

}  // namespace zl
