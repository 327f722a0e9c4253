#include "core/quantity/figure.h"

#include <cmath>
#include <cstdlib>
#include <initializer_list>
#include <limits>
#include <utility>

namespace zl {

Figure Figure::of(double number) {
  if (!std::isfinite(number)) return notMeaningful("the result is not a finite number");
  Figure f;
  f.state_ = State::Value;
  f.number_ = number;
  return f;
}

Figure Figure::absent(std::string why) {
  Figure f;
  if (!why.empty()) f.reason_ = std::make_shared<const std::string>(std::move(why));
  return f;
}

Figure Figure::notMeaningful(std::string reason) {
  Figure f;
  f.state_ = State::NotMeaningful;
  if (!reason.empty()) f.reason_ = std::make_shared<const std::string>(std::move(reason));
  return f;
}

const std::string& Figure::reason() const {
  static const std::string kNone;
  return reason_ == nullptr ? kNone : *reason_;
}

double Figure::value() const {
  if (!hasValue()) std::abort();
  return number_;
}

double Figure::orNaN() const {
  return hasValue() ? number_ : std::numeric_limits<double>::quiet_NaN();
}

const Figure* decidingGap(std::initializer_list<const Figure*> operands) {
  const Figure* gap = nullptr;
  for (const Figure* f : operands) {
    if (f->isNotMeaningful()) return f;
    if (f->isAbsent() && gap == nullptr) gap = f;
  }
  return gap;
}

Figure operator+(const Figure& a, const Figure& b) {
  if (const Figure* gap = decidingGap({&a, &b})) return *gap;
  return Figure::of(a.value() + b.value());
}

Figure operator-(const Figure& a, const Figure& b) {
  if (const Figure* gap = decidingGap({&a, &b})) return *gap;
  return Figure::of(a.value() - b.value());
}

Figure operator*(const Figure& a, const Figure& b) {
  if (const Figure* gap = decidingGap({&a, &b})) return *gap;
  return Figure::of(a.value() * b.value());
}

Figure operator/(const Figure& a, const Figure& b) {
  if (const Figure* gap = decidingGap({&a, &b})) return *gap;
  if (b.value() == 0.0) return Figure::notMeaningful("division by zero");
  return Figure::of(a.value() / b.value());
}

Figure operator-(const Figure& a) {
  return a.hasValue() ? Figure::of(-a.value()) : a;
}

}  // namespace zl
