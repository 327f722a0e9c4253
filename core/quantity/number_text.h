#pragma once
// Numbers to text and back, the one place that knows how figures are written.

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/figure.h"
#include "core/quantity/kind.h"

namespace zl {

/// Shortest text that reads back to the same double; without an exponent where that is readable.
std::string plainNumber(double x);

/// How figures are written for people: one for the whole program at a time. Both are read back as they are written.
struct NumberStyle {
  enum class Marks { CommaPoint, SpacePoint, SpaceComma };  ///< 1,234.5 · 1 234.5 · 1 234,5
  Marks marks = Marks::CommaPoint;
  bool parentheses = true;  ///< (350), else with a true minus sign
};
void setNumberStyle(NumberStyle style);
NumberStyle numberStyle();

/// Fixed decimals with grouping, by the style: 1,234.5; negatives in parentheses where the style has them and
/// `parentheses` allows them, else with a true minus sign.
std::string groupedNumber(double x, int decimals, bool parentheses = true);

/// How a figure of a kind is shown: money in millions with one decimal, ratios in per cent,
/// multiples with one decimal and a times sign, days whole. Absent is empty, not meaningful "·".
std::string figureText(const Figure& figure, Kind kind);
/// Decimals, in millions, that money or shares in one table are shown with when this is its largest amount: enough for
/// a small firm to show in, none where five digits stand before the point. One for all cells, so that points stand
/// under points.
int amountDecimals(double largest);
/// The same with so many decimals for money and shares.
std::string figureText(const Figure& figure, Kind kind, int amountDecimals);
/// The unit that figureText leaves out: "EUR m", "%", "days"; `currency` and `listing` name them.
std::string unitText(Kind kind, const std::string& currency, const std::string& listing);
/// What figureText divides by: 1e6 for money and shares, 0.01 for ratios, 1 otherwise.
double shownScale(Kind kind);

/// Reads what people type: 12.5%, 1.2bn, 350m, (350), -350, 1,250.5 and 1 250,5. Empty when the
/// text is not one number, or could be two different ones (1,250 is read as 1250).
std::optional<double> typedNumber(std::string_view text);

/// Reads what is typed into a cell of a kind: a bare number is in the shown unit (12 is 12 % in a
/// ratio, 350 is 350 million in money); a suffix (%, k, m, bn) says otherwise.
std::optional<double> typedFigure(std::string_view text, Kind kind);

/// Reads a list such as "8; 5; 2" or "8%, 5%, 2%": parted by semicolons, else by a comma and a
/// space, else by spaces. Empty when any of them is not a figure of the kind.
std::optional<std::vector<double>> typedFigures(std::string_view text, Kind kind);

}  // namespace zl
