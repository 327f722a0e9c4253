#pragma once
// Cells of the tables that the command line prints.

#include <string>

namespace zl::services {

/// A cell of a CSV table: quoted where the text holds what separates cells (RFC 4180).
inline std::string csvCell(const std::string& text) {
  if (text.find_first_of(",;\"\n") == std::string::npos) return text;
  std::string quoted = "\"";
  for (const char c : text) quoted += c == '"' ? "\"\"" : std::string(1, c);
  return quoted + "\"";
}

}  // namespace zl::services
