#pragma once
// Sheets whose figures are spread over cells: currency signs and brackets in cells of their own, as pages and programs
// paste them.

#include <vector>

#include "core/table/sheet.h"

namespace zl {

/// Whether a text can be no more than the part of a figure that stands before or after its digits.
bool isMarkBefore(std::string_view text);
bool isMarkAfter(std::string_view text);
/// "1,234", "(350", "-", "n/a": what a mark may stand beside.
bool looksLikeFigure(std::string_view text);

/// Rows with the marks put to their figures, which then stand under the heading that their mark stood under, or under
/// the one before them where nothing else does. Every cell keeps its place in its file. Signs of a currency before a
/// plain number are left out, as the number says all.
Sheet gathered(Sheet sheet);

}  // namespace zl
