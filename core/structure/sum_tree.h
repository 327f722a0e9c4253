#pragma once
// A filed statement is a tree of sums. It is found here from the figures alone: labels, the order of parts within their
// sum and the scale play no part (READING: structure before names).
//
// A row is a total where a signed sum of open rows beside it gives its figure in every period, within half a unit of
// the last place written of each figure (closed, as in XBRL Calculations 1.1), and where that could hardly be by
// chance: the digits that agree must outweigh the number of sums that were tried. Rows beside one another and few
// changes of sign are tried first. Zero rows say nothing.

#include <cstddef>
#include <optional>
#include <span>
#include <vector>

namespace zl {

struct StatementFigure {
  double value = 0;
  double half = 0;  ///< half a unit of the last place written
};

struct StatementRow {
  std::vector<std::optional<StatementFigure>> figures;  ///< a period each; every row has as many
  bool saysTotal = false;                               ///< its label does; counts where periods are too few to tell
  /// A side of the balance sheet or a part of one: what a total leaves when others are taken off is not its parts.
  bool section = false;
};

struct SumTerm {
  size_t row = 0;
  int sign = 1;
  friend bool operator==(const SumTerm&, const SumTerm&) = default;
};

struct FoundSum {
  size_t total = 0;
  std::vector<SumTerm> terms;     ///< by row
  std::vector<size_t> broken;     ///< periods in which it does not tie, though it is a sum by the others
  std::optional<size_t> suspect;  ///< of a broken one: the row most likely at fault, a term or the total
};

struct SumTree {
  std::vector<FoundSum> sums;                  ///< by total; no row is a term of two
  std::vector<std::optional<size_t>> parent;   ///< by row: the total it is a term of
  std::vector<std::optional<size_t>> repeats;  ///< by row: an earlier row with its figures, no total of parts itself

  [[nodiscard]] const FoundSum* of(size_t total) const;
};

/// The sums among the rows, in the order they are filed in, totals after their parts or before them.
SumTree findSums(std::span<const StatementRow> rows);

}  // namespace zl
