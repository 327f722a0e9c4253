#pragma once
// Text in cells that another program will read: CSV files and the clipboard.

#include <string>
#include <string_view>

namespace zl {

/// A text that no spreadsheet takes for a formula: one that begins with = + - @ (or a full-width form
/// of them) gets a space before it, which spreadsheets keep as text and readers that trim cells, ours
/// among them, take off again. Signed numbers stay as they are. Tabs and line ends become spaces.
inline std::string cellText(std::string_view text) {
  std::string out;
  for (const char c : text) out += c == '\t' || c == '\n' || c == '\r' ? ' ' : c;
  const std::size_t first = out.find_first_not_of(' ');
  if (first != 0) return out;  // empty, or begins with a space
  const bool sign = out[0] == '+' || out[0] == '-';
  const bool number = sign && out.size() > 1 && out.find_first_not_of("0123456789.,% ", 1) == std::string::npos;
  const std::string_view start = std::string_view(out).substr(0, 3);
  const bool wide = start == "＝" || start == "＋" || start == "－" || start == "＠";
  if (!number && (sign || out[0] == '=' || out[0] == '@' || wide)) out.insert(0, 1, ' ');
  return out;
}

}  // namespace zl
