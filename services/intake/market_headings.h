#pragma once
// What the columns of a table of the market are, by their headings.

#include <optional>
#include <string>

#include "core/table/displayed.h"

namespace zl::services {

struct MarketColumn {
  int at = 0;
  std::string is;    ///< what it holds: "date", "close", "revenue"; empty where no words of the heading are known
  std::string text;  ///< the heading
  UnitHeading unit;
  std::optional<PeriodHeading> period;  ///< of a figure of a fiscal year: the one that the heading names
  int year = 0;  ///< that the heading names, also of a balance, a price or a count; 0 for none, -1 for an expected one
};

/// Of "Revenue FY25 (EUR m)": revenue, of 2025, in millions of euros.
MarketColumn marketColumn(int at, const std::string& heading);

/// Whether a column is a figure of a peer's fiscal year: a flow, or a balance that multiples are of.
bool isPeerFigure(const std::string& is);

/// A row at the foot of a table of peers that is a statistic of them: "Median".
bool isStatistic(const std::string& name);

/// Units of quotation that are no currencies, as tables write them.
inline constexpr const char* kMinorUnits[] = {"GBX", "GBp", "ZAC", "ZAc", "ILA", "USX"};

/// The unit of quotation that stands behind a price, "412p", "GBX"; empty where none does.
std::string quotedIn(const std::string& cell);

}  // namespace zl::services
