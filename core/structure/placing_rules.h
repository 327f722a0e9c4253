#pragma once
// What tells a filed row its line: labels, the tree of the lines, residual lines of totals. Texts of a kit.

#include "core/filing/labels.h"
#include "core/filing/parts.h"
#include "core/structure/line_tree.h"

namespace zl {

/// Of one kit; does not own them.
struct PlacingRules {
  const LabelRules& labels;
  const LineTree& lines;
  const PartRules& parts;
};

}  // namespace zl
