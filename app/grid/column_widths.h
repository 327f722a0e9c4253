#pragma once
// How wide the columns of a ledger must be, measured from what they show in the font in use.

#include <QFont>
#include <vector>

#include "app/grid/ledger_model.h"

namespace zl::app {

struct NeededWidths {
  int label = 0;             ///< of the longest label with its unit, on one line
  int usualLabel = 0;        ///< wide enough for four labels in five
  std::vector<int> labels;   ///< of each row's on one line; 0 of headings, which run on
  std::vector<int> figures;  ///< by column from the first figure: header and figures whole, with room for their marks
  std::vector<bool> words;   ///< the column holds words that read from the left, which may be cut
  std::vector<int> whole;    ///< of columns of words: what would show the longest whole; 0 of others
};

NeededWidths neededWidths(const LedgerModel& model, const QFont& font, const QFont& headerFont);

/// The widths that a ledger's columns get.
struct ColumnWidths {
  int label = 0;
  std::vector<int> figures;
};

/// What a page asks for, all in pixels at the font in use.
struct WantedWidths {
  int viewport = 0;
  int trend = 0;             ///< 0 where there is none
  int figure = 0;            ///< of figures, where there is room; more where they need it
  std::vector<int> columns;  ///< of single columns instead, from the first figure on
};

/// Figures are never cut. Where all does not fit, the longest labels take several lines and then columns of words are
/// cut if all fits then; else the labels keep their own width (at most 38 % of the view) and the figures scroll. Where
/// there is more room than needed, words that are cut get it, then all columns of words, else the figures spread over
/// it, all by as much.
ColumnWidths columnWidths(const NeededWidths& needed, const WantedWidths& wanted);

}  // namespace zl::app
