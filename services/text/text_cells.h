#pragma once
// Cells of the tables that the command line prints.

#include <string>

#include "core/quantity/number_text.h"
#include "core/text/cells.h"

namespace zl::services {

/// A text in quotation marks (RFC 4180), safe where a spreadsheet reads it.
inline std::string quotedCell(const std::string& given) {
  std::string quoted = "\"";
  for (const char c : cellText(given)) quoted += c == '"' ? "\"\"" : std::string(1, c);
  return quoted + "\"";
}

/// A cell of a CSV table: quoted where the text holds what separates cells or begins with a space.
inline std::string csvCell(const std::string& given) {
  const std::string text = cellText(given);
  const bool plain = text.find_first_of(",;\"\n") == std::string::npos && !text.starts_with(' ');
  return plain ? text : quotedCell(given);
}

/// A figure in a table of text: "n.m." where it means nothing, "-" where there is none.
inline std::string shownOrDash(const Figure& f, Kind kind) {
  if (f.hasValue()) return figureText(f, kind);
  return f.isNotMeaningful() ? "n.m." : "-";
}

}  // namespace zl::services
