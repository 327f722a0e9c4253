#pragma once
// A stored document as text, with the place of a fact in it.

#include <string>
#include <vector>

#include "services/stages/snapshot.h"

namespace zl::services {

struct DocumentView {
  std::vector<std::string> lines;  ///< around the place where the document is long
  int firstLine = 1;               ///< number of the first of them in the document
  int marked = -1;                 ///< index into `lines` of the fact's place, -1 when it is not found
  int left_out = 0;                ///< lines of the document not shown
};

/// Lines shown at most; a filing with a million facts stays readable around the one asked for.
inline constexpr int kMostLinesShown = 2000;

/// `place` as the reader wrote it: "line 12", "fact 'f7'", "sheet 'Interim', cell B10". Workbooks
/// are shown as their cells, one row a line, tab-separated, the marked one by its row.
Result<DocumentView> viewDocument(const std::string& content, const std::string& name, const std::string& place);

}  // namespace zl::services
