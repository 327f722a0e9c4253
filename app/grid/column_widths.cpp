#include "app/grid/column_widths.h"

#include <QFontMetricsF>
#include <algorithm>
#include <cmath>
#include <numeric>

#include "app/grid/ledger_delegate.h"
#include "app/look/theme.h"

namespace zl::app {
namespace {

constexpr int kWidestWords = 150;      // of words that stand among figures
constexpr double kWidestLabel = 0.38;  // of the view
constexpr int kFewestWords = 96;       // that a column of words keeps
constexpr double kMostSpread = 0.6;    // of a column's own width

int up(double x) {
  return static_cast<int>(std::ceil(x));
}

}  // namespace

NeededWidths neededWidths(const LedgerModel& model, const QFont& font, const QFont& headerFont) {
  QFont strong = font;
  strong.setBold(true);
  const QFontMetricsF plain(font), bold(strong), header(headerFont);
  const double hang = plain.horizontalAdvance(QLatin1Char(')'));
  NeededWidths needed;
  const int first = model.firstColumn();
  const int figures = model.columnCount() - first;
  needed.figures.assign(static_cast<size_t>(std::max(0, figures)), 0);
  needed.words.assign(needed.figures.size(), false);
  for (int c = 0; c < figures; ++c) {
    const QString title = model.headerData(first + c, Qt::Horizontal, Qt::DisplayRole).toString();
    needed.figures[static_cast<size_t>(c)] = up(header.horizontalAdvance(title)) + 3 * CellSpace::kGap;
  }
  needed.label = up(header.horizontalAdvance(model.headerData(0, Qt::Horizontal, Qt::DisplayRole).toString())) +
                 CellSpace::kLabelLeft + CellSpace::kLabelRight;
  std::vector<int> labels;
  for (size_t r = 0; r < model.ledgerRows().size(); ++r) {
    const LedgerRow& row = model.ledgerRows()[r];
    if (row.heading) continue;  // it runs on over the cells beside it
    const QFontMetricsF& metrics = row.strong ? bold : plain;
    const double unit = row.unit.isEmpty() ? 0 : metrics.horizontalAdvance(QStringLiteral("  ") + row.unit);
    const int mark = row.scenario.isEmpty() ? 0 : CellSpace::kScenarioMark;
    labels.push_back(up(metrics.horizontalAdvance(row.label) + unit) + mark + CellSpace::kLabelLeft +
                     CellSpace::kLabelRight);
    for (size_t c = 0; c < std::min(row.cells.size(), needed.figures.size()); ++c) {
      const LedgerCell& cell = row.cells[c];
      if (cell.left) {
        needed.words[c] = true;
        continue;
      }
      const QString shown =
          model.data(model.index(static_cast<int>(r), first + static_cast<int>(c)), Qt::DisplayRole).toString();
      const bool notch = (cell.ink == Ink::Assumed || cell.ink == Ink::Proposed) && !cell.quiet;
      double width =
          cell.words ? std::min<double>(kWidestWords, metrics.horizontalAdvance(shown)) : tabularWidth(metrics, shown);
      if (shown.endsWith(QLatin1Char(')'))) width -= hang;
      needed.figures[c] =
          std::max(needed.figures[c], up(width + hang) + 2 * CellSpace::kGap + (notch ? CellSpace::kNotch : 0));
    }
  }
  std::sort(labels.begin(), labels.end());
  needed.usualLabel = std::max(needed.label, labels.empty() ? 0 : labels[(labels.size() - 1) * 4 / 5]);
  needed.label = std::max(needed.label, labels.empty() ? 0 : labels.back());
  return needed;
}

ColumnWidths columnWidths(const NeededWidths& needed, const WantedWidths& wanted) {
  ColumnWidths widths;
  // Figures of one kind of column stand in columns of one width: as wanted, less where all fit then, never less than
  // they need.
  int even = 0;
  int others = wanted.trend + needed.label;
  int alike = 0;
  for (size_t c = 0; c < needed.figures.size(); ++c) {
    if (c < wanted.columns.size()) {
      others += needed.words[c] ? wanted.columns[c] : std::max(wanted.columns[c], needed.figures[c]);
    } else {
      ++alike;
      if (!needed.words[c]) even = std::max(even, needed.figures[c]);
    }
  }
  if (alike > 0) even = std::max(even, std::min(wanted.figure, (wanted.viewport - others) / alike));
  for (size_t c = 0; c < needed.figures.size(); ++c) {
    const bool own = c < wanted.columns.size();
    const int asked = own ? wanted.columns[c] : even;
    widths.figures.push_back(needed.words[c] ? asked : std::max(asked, needed.figures[c]));
  }
  int used = std::accumulate(widths.figures.begin(), widths.figures.end(), wanted.trend);
  widths.label = needed.label;
  // First the figures give up their one width, then the longest labels are cut, then words: a table that all but fits
  // does not scroll.
  int lacking = used + widths.label - wanted.viewport;
  std::vector<int> narrower = widths.figures;
  for (size_t c = 0; lacking > 0 && c < narrower.size(); ++c) {
    if (needed.words[c] || c < wanted.columns.size()) continue;
    lacking -= narrower[c] - needed.figures[c];
    narrower[c] = needed.figures[c];
  }
  const int label = std::clamp(needed.label - lacking, needed.usualLabel, needed.label);
  lacking -= needed.label - label;
  // Each column of words gives by what it has to give.
  int giving = 0;
  for (size_t c = 0; c < narrower.size(); ++c) {
    if (needed.words[c]) giving += std::max(0, narrower[c] - kFewestWords);
  }
  const double part = giving > 0 ? std::min(1.0, static_cast<double>(std::max(0, lacking)) / giving) : 0;
  for (size_t c = 0; c < narrower.size(); ++c) {
    if (!needed.words[c]) continue;
    const int less = up(part * std::max(0, narrower[c] - kFewestWords));
    narrower[c] -= less;
    lacking -= less;
  }
  if (lacking <= 0) {
    widths.figures = std::move(narrower);
    used = std::accumulate(widths.figures.begin(), widths.figures.end(), wanted.trend);
    widths.label = label;
  } else {
    widths.label = std::min(needed.label, std::max(up(wanted.viewport * kWidestLabel), wanted.viewport - used));
  }
  int spare = wanted.viewport - used - widths.label;
  if (spare <= 0 || widths.figures.empty()) return widths;
  const bool hasWords = std::find(needed.words.begin(), needed.words.end(), true) != needed.words.end();
  const auto columns = static_cast<int>(widths.figures.size());
  for (size_t c = 0; c < widths.figures.size(); ++c) {
    if (hasWords && !needed.words[c]) continue;
    const auto sharing =
        hasWords ? static_cast<int>(std::count(needed.words.begin(), needed.words.end(), true)) : columns;
    const int share = (wanted.viewport - used - widths.label) / sharing;
    const int more = needed.words[c] ? share : std::min(share, up(widths.figures[c] * kMostSpread));
    widths.figures[c] += more;
    spare -= more;
  }
  widths.label += spare;
  return widths;
}

}  // namespace zl::app
