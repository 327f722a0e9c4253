#pragma once
// Quarters and trailing twelve months from what was filed for any period: quarters, half-years,
// nine months and whole years, each from the year's first day or by itself.

#include <string>
#include <vector>

#include "core/filing/mapping.h"

namespace zl {

/// One fiscal quarter; `fiscalYear` is the calendar year in which its fiscal year ends.
struct FiscalQuarter {
  int fiscalYear = 0;
  int number = 1;    ///< 1 to 4
  Date yearStart{};  ///< first day of the fiscal year
  Date end{};
  [[nodiscard]] std::string label() const { return "Q" + std::to_string(number) + " " + std::to_string(fiscalYear); }
};

class InterimStatements {
 public:
  /// Quarters are found from the ends of filed periods, within the fiscal years of `annual` and the
  /// one that follows it. Facts are chosen as for annual statements.
  static InterimStatements build(std::span<const Fact> facts, const MappingRules& rules, const std::string& currency,
                                 const LineChoices& choices, const FirstFiled& firstFiled,
                                 const StandardStatements& annual, const StatementShapes& shapes);

  [[nodiscard]] const std::vector<FiscalQuarter>& quarters() const { return quarters_; }
  /// A quarter's own flow: as filed for it, else the year to its end less the year to the end of
  /// the quarter before (for the last, the year less nine months). Absent where a step is missing:
  /// two quarters are never shown as one.
  [[nodiscard]] Figure quarter(const std::string& line, int index) const;
  /// The flow of the twelve months to the quarter's end: the last full year, plus the year to date,
  /// less the year to the same date a year before; at a year end the year itself; else the sum of
  /// four quarters.
  [[nodiscard]] Figure trailing(const std::string& line, int index) const;
  /// The balance at the quarter's end.
  [[nodiscard]] Figure balance(const std::string& line, int index) const;
  /// From the fiscal year's start to the quarter's end, as filed or as the sum of its quarters.
  [[nodiscard]] Figure yearToDate(const std::string& line, int index) const;
  /// The same with the facts that the figure stands on, those taken off with a negative weight.
  enum class Span { Quarter, YearToDate, Trailing, Balance };
  [[nodiscard]] LineCell cell(Span span, const std::string& line, int index) const;

 private:
  struct Cells {
    LineCell quarter, yearToDate, balance;
  };
  [[nodiscard]] LineCell trailingCell(const std::string& line, int index) const;
  [[nodiscard]] const Cells* at(const std::string& line, int index) const;
  [[nodiscard]] int before(int index, int quarters) const;  ///< index of the quarter that many earlier, -1

  std::vector<FiscalQuarter> quarters_;
  std::map<std::string, std::vector<Cells>> lines_;
};

}  // namespace zl
