#pragma once
// Rows of comma-separated text as hands write them: commas within labels and between thousands that no quotation marks
// hold together.

#include <string>
#include <vector>

#include "exchange/csv/rows.h"

namespace zl::exchange {

/// Puts together what such commas parted in cells without blanks around them, in rows with more cells than the row of
/// headings (the first of which two cells or more are periods): words before the first figure are one label; digits are
/// figures by threes where one way puts the row's years plainly nearest together. A row without such a way keeps its
/// digits in one cell, which is no figure. Where no row is as long as the headings, all of them must be readable so, or
/// the table has columns without a heading and stays as it is. Without periods only labels are put together, against a
/// row of nothing but words or the number of cells that most rows have; digits that may be parted thousands are left
/// unread. What was done is told, with a line of the file.
std::vector<std::string> joinUnquoted(std::vector<CsvRow>& rows);

}  // namespace zl::exchange
