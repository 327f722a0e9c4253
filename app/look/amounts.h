#pragma once
// The unit that amounts of money are shown and typed in, one for the whole window at a time like its paper: thousands,
// millions or billions of the reporting currency. What is written in words names its unit and stays in millions.

#include <QString>
#include <optional>
#include <string_view>
#include <vector>

#include "core/quantity/figure.h"
#include "core/quantity/kind.h"

namespace zl::app {

/// The power of ten that one shown unit stands for: 3, 6 or 9.
int amountPower();
void setAmountPower(int power);
/// The one in which the largest amount takes six digits at most before the point, and one at least.
int fittingPower(double largest);

/// What a shown figure of a kind is multiplied by.
double shownUnit(Kind kind);
/// As core/quantity/number_text does, in the shown unit.
QString shownText(const Figure& figure, Kind kind);
QString shownText(const Figure& figure, Kind kind, int decimals);
QString shownUnitText(Kind kind, const std::string& currency, const std::string& listing);
/// Decimals of money in one table by its largest amount.
int shownDecimals(double largest);
/// A bare number is in the shown unit; a suffix (%, k, m, bn) says otherwise.
std::optional<double> typedShown(std::string_view text, Kind kind);
std::optional<std::vector<double>> typedShownList(std::string_view text, Kind kind);

}  // namespace zl::app
