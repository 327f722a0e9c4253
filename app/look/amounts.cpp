#include "app/look/amounts.h"

#include <cmath>

#include "app/look/theme.h"
#include "core/quantity/number_text.h"

namespace zl::app {
namespace {

constexpr int kMillions = 6;
int power = kMillions;

/// What the text layer's millions are divided by.
double inMillions() {
  return std::pow(10, power - kMillions);
}

}  // namespace

int amountPower() {
  return power;
}

void setAmountPower(int to) {
  power = to;
}

int fittingPower(double largest) {
  constexpr double kMillion = 1e6;
  const double x = std::fabs(largest);
  if (!(x > 0) || !std::isfinite(x)) return kMillions;
  if (x < kMillion) return 3;
  return x >= kMillion * kMillion ? 9 : kMillions;
}

double shownUnit(Kind kind) {
  return kind == Kind::Money ? std::pow(10, power) : shownScale(kind);
}

QString shownText(const Figure& figure, Kind kind) {
  return text(kind == Kind::Money && figure.hasValue() ? figureText(Figure::of(figure.value() / inMillions()), kind)
                                                       : figureText(figure, kind));
}

QString shownText(const Figure& figure, Kind kind, int decimals) {
  return text(kind == Kind::Money && figure.hasValue()
                  ? figureText(Figure::of(figure.value() / inMillions()), kind, decimals)
                  : figureText(figure, kind, decimals));
}

QString shownUnitText(Kind kind, const std::string& currency, const std::string& listing) {
  if (kind != Kind::Money) return text(unitText(kind, currency, listing));
  return text(currency) + (power == 3   ? QStringLiteral(" k")
                           : power == 9 ? QStringLiteral(" bn")
                                        : QStringLiteral(" m"));
}

int shownDecimals(double largest) {
  return amountDecimals(largest / inMillions());
}

std::optional<double> typedShown(std::string_view typed, Kind kind) {
  const std::optional<double> figure = typedFigure(typed, kind);
  if (!figure || kind != Kind::Money) return figure;
  // A bare number was taken to be millions; one with a suffix says itself what it is.
  const bool bare = typedNumber(typed) != figure;
  return bare ? *figure * inMillions() : *figure;
}

std::optional<std::vector<double>> typedShownList(std::string_view typed, Kind kind) {
  std::optional<std::vector<double>> list = typedFigures(typed, kind);
  if (!list || kind != Kind::Money || power == kMillions) return list;
  const std::optional<std::vector<double>> plain = typedFigures(typed, Kind::Count);
  for (size_t i = 0; plain && i < list->size(); ++i) {
    if ((*plain)[i] != (*list)[i]) (*list)[i] *= inMillions();
  }
  return list;
}

}  // namespace zl::app
