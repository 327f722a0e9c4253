#include "core/quantity/decimal.h"

#include <charconv>

namespace zl {
namespace {
constexpr int kMaxDigits = 60;
constexpr int kMaxExponent = 60;

boost::multiprecision::cpp_int powerOfTen(int n) {
  return boost::multiprecision::pow(boost::multiprecision::cpp_int(10), static_cast<unsigned>(n));
}
}  // namespace

Decimal Decimal::halfUnit(int exponent) {
  Decimal half(5);
  half.exponent_ = exponent - 1;
  return half;
}

namespace {

/// The pieces of a written number, checked against the grammar and the limits.
struct Written {
  std::string_view digits;  ///< with at most one point
  bool negative = false;
  int exponent = 0;  ///< of the last digit
};

std::optional<Written> scan(std::string_view text) {
  Written w;
  size_t at = 0;
  if (at < text.size() && (text[at] == '-' || text[at] == '+')) w.negative = text[at++] == '-';
  const size_t first = at;
  int significant = 0;
  bool point = false;
  bool any = false;
  for (; at < text.size(); ++at) {
    const char c = text[at];
    if (c == '.' && !point) {
      point = true;
      continue;
    }
    if (c < '0' || c > '9') break;
    any = true;
    if ((significant > 0 || c != '0') && ++significant > kMaxDigits) return std::nullopt;
    if (point && --w.exponent < -kMaxExponent) return std::nullopt;
  }
  if (!any) return std::nullopt;
  w.digits = text.substr(first, at - first);
  if (at < text.size() && (text[at] == 'e' || text[at] == 'E')) {
    const char* begin = text.data() + at + 1;
    const char* last = text.data() + text.size();
    if (begin < last && *begin == '+') ++begin;
    int e = 0;
    const auto [end, code] = std::from_chars(begin, last, e);
    if (code != std::errc() || end != last || e > kMaxExponent || e < -kMaxExponent) return std::nullopt;
    w.exponent += e;
    at = text.size();
  }
  if (at != text.size() || w.exponent > kMaxExponent || w.exponent < -kMaxExponent) return std::nullopt;
  return w;
}

}  // namespace

bool Decimal::isNumber(std::string_view text) {
  return scan(text).has_value();
}

std::optional<Decimal> Decimal::parse(std::string_view text) {
  const std::optional<Written> written = scan(text);
  if (!written) return std::nullopt;
  Decimal d;
  for (char c : written->digits) {
    if (c != '.') d.mantissa_ = d.mantissa_ * 10 + (c - '0');
  }
  if (written->negative) d.mantissa_ = -d.mantissa_;
  d.exponent_ = written->exponent;
  return d;
}

void Decimal::align(Decimal& a, Decimal& b) {
  if (a.exponent_ > b.exponent_) {
    a.mantissa_ *= powerOfTen(a.exponent_ - b.exponent_);
    a.exponent_ = b.exponent_;
  } else if (b.exponent_ > a.exponent_) {
    b.mantissa_ *= powerOfTen(b.exponent_ - a.exponent_);
    b.exponent_ = a.exponent_;
  }
}

int Decimal::compare(const Decimal& a, const Decimal& b) {
  Decimal x = a;
  Decimal y = b;
  align(x, y);
  return x.mantissa_.compare(y.mantissa_);
}

Decimal operator+(const Decimal& a, const Decimal& b) {
  Decimal x = a;
  Decimal y = b;
  Decimal::align(x, y);
  x.mantissa_ += y.mantissa_;
  return x;
}

Decimal operator-(const Decimal& a, const Decimal& b) {
  return a + b * -1;
}

Decimal operator*(const Decimal& a, int weight) {
  Decimal x = a;
  x.mantissa_ *= weight;
  return x;
}

Decimal Decimal::shifted(int places) const {
  Decimal moved = *this;
  moved.exponent_ += places;
  return moved;
}

Decimal Decimal::abs() const {
  Decimal x = *this;
  if (x.mantissa_ < 0) x.mantissa_ = -x.mantissa_;
  return x;
}

std::string Decimal::text() const {
  std::string digits = abs().mantissa_.str();
  if (exponent_ > 0) {
    if (mantissa_ != 0) digits.append(static_cast<size_t>(exponent_), '0');
  } else if (exponent_ < 0) {
    const auto places = static_cast<size_t>(-exponent_);
    if (digits.size() <= places) digits.insert(0, places + 1 - digits.size(), '0');
    digits.insert(digits.size() - places, 1, '.');
  }
  return mantissa_ < 0 ? "-" + digits : digits;
}

double Decimal::toDouble() const {
  return std::stod(text());
}

}  // namespace zl
