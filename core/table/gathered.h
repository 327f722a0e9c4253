#pragma once
// Sheets whose figures are spread over cells: currency signs and brackets in cells of their own, as pages and programs
// paste them.

#include "core/table/sheet.h"

namespace zl {

/// Rows with the marks put to their figures, which then stand under the heading that their mark stood under, or under
/// the one before them where nothing else does. Every cell keeps its place in its file. Signs of a currency before a
/// plain number are left out, as the number says all.
Sheet gathered(Sheet sheet);

}  // namespace zl
