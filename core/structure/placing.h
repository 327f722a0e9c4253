#pragma once
// Which standard line each row of a filed statement is, decided for all rows together from the tree of their sums and
// their labels (READING: structure before names).
//
// A total is never placed as a part. It may be a line: then its parts stand on lines that add up to it, or, where its
// line is no sum of others, its parts are set aside. A label that names a line goes before one that only resembles it,
// and none is believed against the total that the row is a part of. A part that no label places joins the residual line
// of its total, so that nothing is dropped and totals keep tying. The sign is that with which the row enters its total.

#include <set>
#include <span>
#include <string>
#include <vector>

#include "core/filing/mapping.h"
#include "core/structure/placing_rules.h"
#include "core/structure/sum_tree.h"

namespace zl {

struct RowToPlace {
  std::string label;  ///< compared with the usual ones
  std::string name;   ///< what reasons call it
  std::string line;   ///< that its concept is, if anything places it; empty where only its label tells
  const PartRules::Residual* total = nullptr;    ///< a known total: where parts of it go that nothing places
  const PartRules::Residual* heading = nullptr;  ///< of the heading it stands under
  std::string headingName;                       ///< where there is a heading
  const LineChoice* chosen = nullptr;  ///< by the analyst, by a rule, or remembered: it goes before everything
  bool filed = true;                   ///< has figures; else a parent that only a linkbase names
  bool negative = false;               ///< no figure above zero, and one below
  bool whole = false;                  ///< its filed parts do not give it: it is placed, and they are not
  bool zero = false;                   ///< nothing but noughts: its place says nothing of its sign
  std::string told = {};   ///< of a part of the row above it, which counts whole: its label without "of which"
  std::string aside = {};  ///< why it stands on no line whatever it is called; empty where it may
};

struct PlacedRow {
  /// Nothing: nothing is known of it. Aside: it is counted elsewhere or a total of what is.
  enum class By { Nothing, Aside, Choice, Label, Likeness, Residual };
  LineChoice choice;  ///< with its reason; no line where it is set aside or nothing is known of it
  By by = By::Nothing;
  bool signKnown = false;  ///< from a total it is a part of
};

/// One place a row. `taken` are lines that other sheets hold; none of them is given again.
std::vector<PlacedRow> placeRows(std::span<const RowToPlace> rows, const SumTree& tree, const PlacingRules& rules,
                                 const std::set<std::string>& taken);

}  // namespace zl
