#pragma once
// How an invented company writes its statements: one table as it would be copied out of a report, and the standard
// lines that a reader of it would say, from the same economics and not from the product.

#include <map>
#include <string>
#include <vector>

#include "tests/services/stranger_economy.h"

namespace zl::test {

enum class Shape {
  UsByFunction,    ///< costs hold depreciation, operating leases, 52/53 weeks, millions of dollars
  EuByFunction,    ///< depreciation in its own row, thousands of euros, decimal comma
  EuByNature,      ///< materials, staff, other; in French
  UkTurned,        ///< losses, then profit; millions of pounds, net assets format with brackets
  GermanCyclical,  ///< at its peak, in German
  Japanese,        ///< millions of yen, March year-end
  SingleEquity,    ///< one row of equity, liabilities that are not added up, cash and investments apart
};

inline constexpr Shape kShapes[] = {Shape::UsByFunction,   Shape::EuByFunction, Shape::EuByNature,  Shape::UkTurned,
                                    Shape::GermanCyclical, Shape::Japanese,     Shape::SingleEquity};

const char* nameOf(Shape shape);

struct Stranger {
  Economy economy;
  std::string name;      ///< of the file
  std::string csv;       ///< the table
  std::string currency;  ///< of the figures
  double unit = 1;       ///< currency in one unit as printed
  double shareUnit = 1;  ///< shares in one unit as printed
  int lastYear = 0;      ///< label of the last fiscal year
  /// Standard lines by fiscal year, in units as printed.
  std::map<std::string, std::map<int, long>> lines;
  /// In currency per share, of the economics.
  [[nodiscard]] double valuePerShare() const { return economy.valuePerShare * unit / shareUnit; }
};

Stranger strangerOf(Shape shape, std::uint64_t seed);

/// The day of September on which a year of 52 or 53 weeks ends.
int lastSaturdayOfSeptember(int year);

/// A figure of a year by its name, with a minus before it for the other sign. The names begin with a capital letter,
/// which no row of a model does.
long figureOf(const EconomyYear& year, const std::string& signedName);

}  // namespace zl::test
