#pragma once
// Cells of the tables that the command line prints.

#include <string>

#include "core/quantity/number_text.h"

namespace zl::services {

/// A cell of a CSV table: quoted where the text holds what separates cells (RFC 4180).
inline std::string csvCell(const std::string& text) {
  if (text.find_first_of(",;\"\n") == std::string::npos) return text;
  std::string quoted = "\"";
  for (const char c : text) quoted += c == '"' ? "\"\"" : std::string(1, c);
  return quoted + "\"";
}

/// A figure in a table of text: "n.m." where it means nothing, "-" where there is none.
inline std::string shownOrDash(const Figure& f, Kind kind) {
  if (f.hasValue()) return figureText(f, kind);
  return f.isNotMeaningful() ? "n.m." : "-";
}

}  // namespace zl::services
