#include "app/grid/column_widths.h"

#include <QFontMetricsF>
#include <algorithm>
#include <cmath>
#include <iterator>
#include <numeric>

#include "app/grid/ledger_delegate.h"
#include "app/look/tabular.h"
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
  needed.whole.assign(needed.figures.size(), 0);
  for (int c = 0; c < figures; ++c) {
    const QString title = model.headerData(first + c, Qt::Horizontal, Qt::DisplayRole).toString();
    needed.figures[static_cast<size_t>(c)] = up(header.horizontalAdvance(title)) + 3 * CellSpace::kGap;
  }
  needed.label = up(header.horizontalAdvance(model.headerData(0, Qt::Horizontal, Qt::DisplayRole).toString())) +
                 CellSpace::kLabelLeft + CellSpace::kLabelRight;
  needed.labels.assign(model.ledgerRows().size(), 0);
  for (size_t r = 0; r < model.ledgerRows().size(); ++r) {
    const LedgerRow& row = model.ledgerRows()[r];
    if (row.heading) continue;  // it runs on over the cells beside it
    const QFontMetricsF& metrics = row.strong ? bold : plain;
    const double unit = row.unit.isEmpty() ? 0 : metrics.horizontalAdvance(QStringLiteral("  ") + row.unit);
    needed.labels[r] = up(metrics.horizontalAdvance(row.label) + unit) + 1 + CellSpace::besideLabel(row);
    for (size_t c = 0; c < std::min(row.cells.size(), needed.figures.size()); ++c) {
      const LedgerCell& cell = row.cells[c];
      const QString shown =
          model.data(model.index(static_cast<int>(r), first + static_cast<int>(c)), Qt::DisplayRole).toString();
      if (cell.left) {
        needed.words[c] = true;
        needed.whole[c] = std::max(needed.whole[c], up(metrics.horizontalAdvance(shown)) + 4 * CellSpace::kGap);
        continue;
      }
      const bool notch = (cell.ink == Ink::Assumed || cell.ink == Ink::Proposed) && !cell.quiet;
      double width = cell.words ? std::min<double>(kWidestWords, metrics.horizontalAdvance(shown))
                                : tabularWidth(row.strong ? strong : font, shown);
      if (shown.endsWith(QLatin1Char(')'))) width -= hang;
      needed.figures[c] =
          std::max(needed.figures[c], up(width + hang) + 2 * CellSpace::kGap + (notch ? CellSpace::kNotch : 0));
    }
  }
  std::vector<int> labels;
  std::copy_if(needed.labels.begin(), needed.labels.end(), std::back_inserter(labels), [](int w) { return w > 0; });
  std::sort(labels.begin(), labels.end());
  needed.usualLabel = std::max(needed.label, labels.empty() ? 0 : labels[(labels.size() - 1) * 4 / 5]);
  needed.label = std::max(needed.label, labels.empty() ? 0 : labels.back());
  return needed;
}

namespace {

int sum(const std::vector<int>& widths) {
  return std::accumulate(widths.begin(), widths.end(), 0);
}

/// What a column of words keeps: its heading and figures whole, and some of its words.
int fewest(const NeededWidths& needed, size_t c) {
  return std::max(needed.figures[c], kFewestWords);
}

/// As a page asks for them, and figures at least as wide as they need. Those of one kind of column stand in columns of
/// one width: as wanted, less where all fit then.
std::vector<int> askedFor(const NeededWidths& needed, const WantedWidths& wanted) {
  int even = 0;
  int others = wanted.trend + needed.label;
  int alike = 0;
  for (size_t c = 0; c < needed.figures.size(); ++c) {
    if (c < wanted.columns.size()) {
      others += std::max(wanted.columns[c], needed.figures[c]);
    } else {
      ++alike;
      if (!needed.words[c]) even = std::max(even, needed.figures[c]);
    }
  }
  if (alike > 0) even = std::max(even, std::min(wanted.figure, (wanted.viewport - others) / alike));
  std::vector<int> asked;
  for (size_t c = 0; c < needed.figures.size(); ++c) {
    const int width = c < wanted.columns.size() ? wanted.columns[c] : even;
    asked.push_back(std::max(width, needed.figures[c]));
  }
  return asked;
}

/// First the figures give up their one width, then the longest labels take several lines, then words are cut, each
/// column by what it has to give. False, and nothing changed, where it does not fit even so.
bool narrow(const NeededWidths& needed, const WantedWidths& wanted, ColumnWidths& widths) {
  std::vector<int> figures = widths.figures;
  int lacking = wanted.trend + sum(figures) + needed.label - wanted.viewport;
  for (size_t c = 0; lacking > 0 && c < figures.size(); ++c) {
    if (needed.words[c] || c < wanted.columns.size()) continue;
    lacking -= figures[c] - needed.figures[c];
    figures[c] = needed.figures[c];
  }
  const int label = std::clamp(needed.label - lacking, needed.usualLabel, needed.label);
  lacking -= needed.label - label;
  int giving = 0;
  for (size_t c = 0; c < figures.size(); ++c) {
    if (needed.words[c]) giving += std::max(0, figures[c] - fewest(needed, c));
  }
  if (lacking > giving) return false;
  const double part = giving > 0 ? static_cast<double>(std::max(0, lacking)) / giving : 0;
  for (size_t c = 0; c < figures.size(); ++c) {
    if (needed.words[c]) figures[c] -= up(part * std::max(0, figures[c] - fewest(needed, c)));
  }
  widths = {label, std::move(figures)};
  return true;
}

/// Columns of words keep no more than shows them whole while others of them are cut.
void giveToCut(const NeededWidths& needed, int spare, ColumnWidths& widths) {
  int lacking = 0, giving = std::max(0, spare);
  for (size_t c = 0; c < widths.figures.size(); ++c) {
    if (!needed.words[c]) continue;
    lacking += std::max(0, needed.whole[c] - widths.figures[c]);
    giving += std::max(0, widths.figures[c] - std::max(needed.whole[c], fewest(needed, c)));
  }
  if (lacking == 0 || giving == 0) return;
  const double met = std::min(1.0, static_cast<double>(giving) / lacking);
  double taken = std::max(0.0, met * lacking - std::max(0, spare));  // beyond what is to spare anyway
  for (size_t c = 0; c < widths.figures.size(); ++c) {
    if (!needed.words[c]) continue;
    const int lacks = needed.whole[c] - widths.figures[c];
    if (lacks > 0) {
      widths.figures[c] += static_cast<int>(met * lacks);
      continue;
    }
    const int most = widths.figures[c] - std::max(needed.whole[c], fewest(needed, c));
    const int gives = std::clamp(up(taken), 0, std::max(0, most));
    widths.figures[c] -= gives;
    taken -= gives;
  }
}

/// What the columns leave: words get it, else the figures, all by as much; the rest is the labels'.
void spread(const NeededWidths& needed, int room, ColumnWidths& widths) {
  if (widths.figures.empty()) return;
  giveToCut(needed, room - sum(widths.figures), widths);
  int spare = room - sum(widths.figures);
  if (spare <= 0) return;
  const auto words = static_cast<int>(std::count(needed.words.begin(), needed.words.end(), true));
  const int share = spare / (words > 0 ? words : static_cast<int>(widths.figures.size()));
  for (size_t c = 0; c < widths.figures.size(); ++c) {
    if (words > 0 && !needed.words[c]) continue;
    const int more = needed.words[c] ? share : std::min(share, up(widths.figures[c] * kMostSpread));
    widths.figures[c] += more;
    spare -= more;
  }
  widths.label += spare;
}

}  // namespace

ColumnWidths columnWidths(const NeededWidths& needed, const WantedWidths& wanted) {
  ColumnWidths widths{needed.label, askedFor(needed, wanted)};
  if (!narrow(needed, wanted, widths)) {
    const int left = wanted.viewport - wanted.trend - sum(widths.figures);
    widths.label = std::min(needed.label, std::max(up(wanted.viewport * kWidestLabel), left));
  }
  spread(needed, wanted.viewport - wanted.trend - widths.label, widths);
  return widths;
}

}  // namespace zl::app
