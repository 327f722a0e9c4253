#pragma once
// A sheet written as text, for tests of what reads sheets.

#include <sstream>
#include <string>

#include "core/table/sheet.h"

namespace zl::test {

/// A sheet from text: cells by '|', rows by lines.
inline Sheet sheetOf(const std::string& text) {
  Sheet sheet;
  std::istringstream lines(text);
  int r = 0;
  for (std::string line; std::getline(lines, line); ++r) {
    sheet.rows.emplace_back();
    std::istringstream cells(line);
    int c = 0;
    for (std::string cell; std::getline(cells, cell, '|'); ++c) {
      sheet.add({r, c, SheetCell::Kind::Text, cell});
    }
  }
  return sheet;
}

}  // namespace zl::test
