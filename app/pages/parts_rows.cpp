#include "app/pages/parts_rows.h"

#include <algorithm>
#include <cmath>

#include "app/grid/ledger_rows.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/stories/company_stories.h"

namespace zl::app {
namespace {

/// The fewest decimals, three at most, that show all figures of a row as they were given.
int placesOf(const std::vector<Figure>& figures) {
  constexpr int kMostPlaces = 3;
  for (int places = 0; places < kMostPlaces; ++places) {
    const double scale = std::pow(10.0, places);
    const bool enough = std::all_of(figures.begin(), figures.end(), [&](const Figure& f) {
      return !f.hasValue() || std::abs(f.value() * scale - std::round(f.value() * scale)) < 1e-6 * scale;
    });
    if (enough) return places;
  }
  return kMostPlaces;
}

/// A row over the filed years; `story` tells of a column.
template <class Told>
void addYears(const services::Snapshot& s, std::vector<LedgerRow>& rows, const QString& label, Kind kind,
              const std::vector<Figure>& figures, const Told& story) {
  LedgerRow row;
  row.label = label;
  row.kind = kind;
  row.unit = kind == Kind::Money ? QString() : unitOf(s, kind);
  row.trend = figures;
  for (size_t c = 0; c < figures.size(); ++c) {
    row.cells.push_back(figureCell(figures[c]));
    row.cells.back().story = [story, column = static_cast<int>(c), figure = figures[c]](const services::Snapshot& of) {
      return story(of, column, figure);
    };
  }
  rows.push_back(std::move(row));
}

void addParts(const services::Snapshot& s, const services::SegmentView& view, std::vector<LedgerRow>& rows) {
  const auto shared = std::make_shared<const services::SegmentView>(view);
  const auto partOf = [&](size_t member, services::PartFigure which) {
    return [shared, member, which](const services::Snapshot& of, int column, const Figure&) {
      return services::partStory(of, *shared, member, column, which);
    };
  };
  rows.push_back(headingRow(text(view.axis)));
  for (size_t m = 0; m < view.members.size(); ++m)
    addYears(s, rows, text(view.members[m]), Kind::Money, view.revenue[m], partOf(m, services::PartFigure::Revenue));
  if (!view.profit.front().back().hasValue()) return;
  for (size_t m = 0; m < view.members.size(); ++m) {
    addYears(s, rows, QObject::tr("%1, EBIT margin").arg(text(view.members[m])), Kind::Ratio, view.margin[m],
             partOf(m, services::PartFigure::Margin));
  }
  const std::pair<QString, Figure MarginChange::*> changes[] = {
      {QObject::tr("Margin change: mix"), &MarginChange::mix},
      {QObject::tr("Margin change: within parts"), &MarginChange::within},
      {QObject::tr("Margin change"), &MarginChange::total}};
  for (const auto& [label, part] : changes) {
    std::vector<Figure> figures;
    for (const MarginChange& change : view.change) figures.push_back(change.*part);
    addYears(s, rows, label, Kind::Ratio, figures,
             [shared, words = label.toStdString()](const services::Snapshot& of, int column, const Figure& figure) {
               return services::marginChangeStory(of, *shared, column, words, figure);
             });
  }
  rows.back().strong = true;
}

void addOperating(const services::Snapshot& s, std::vector<LedgerRow>& rows) {
  for (const OperatingFigure& figure : s.company().operating) {
    std::vector<Figure> figures(s.years().size(), Figure::absent("not in the record"));
    for (const auto& [year, x] : figure.years) {
      for (size_t c = 0; c < figures.size(); ++c) {
        if (s.years()[c].label() == year) figures[c] = Figure::of(x);
      }
    }
    if (&figure == &s.company().operating.front()) rows.push_back(headingRow(QObject::tr("Operating figures")));
    const int places = placesOf(figures);
    addYears(
        s, rows, text(figure.name), Kind::Count, figures,
        [name = figure.name, unit = figure.unit, places](const services::Snapshot& of, int column, const Figure& f) {
          services::Story story = services::recordStory(of, name + " " + of.periodOf(column), f, Kind::Count);
          if (f.hasValue()) story.figure = groupedNumber(f.value(), places) + " " + unit;
          return story;
        });
    rows.back().unit = text(figure.unit);
    for (LedgerCell& cell : rows.back().cells) {
      if (cell.figure.hasValue()) cell.words = text(groupedNumber(cell.figure.value(), places));
    }
  }
}

}  // namespace

std::vector<LedgerRow> partsRows(const services::Snapshot& s, const std::vector<services::SegmentView>& views) {
  std::vector<LedgerRow> rows;
  for (const services::SegmentView& view : views) addParts(s, view, rows);
  addOperating(s, rows);
  return rows;
}

}  // namespace zl::app
