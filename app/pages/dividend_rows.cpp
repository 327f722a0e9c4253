#include "app/pages/dividend_rows.h"

#include "app/grid/ledger_rows.h"
#include "app/look/theme.h"
#include "services/stories/peer_stories.h"
#include "services/views/dividend_view.h"

namespace zl::app {

bool fillPayments(const services::Snapshot& s, LedgerView& grid) {
  const services::DividendView view = services::dividendView(s);
  if (view.years.empty()) return false;
  QStringList headers;
  LedgerRow regular, special, growth, cover;
  regular.label = QObject::tr("Paid a share");
  special.label = QObject::tr("  special, apart");
  growth.label = QObject::tr("  growth");
  cover.label = QObject::tr("Earnings over what was paid");
  regular.kind = special.kind = Kind::Quote;
  regular.unit = special.unit = text(s.company().listing.unit);
  growth.kind = Kind::Ratio;
  growth.unit = QStringLiteral("%");
  cover.kind = Kind::Multiple;
  cover.unit = QStringLiteral("×");
  for (const services::DividendYear& year : view.years) {
    headers << QString::number(year.sum.year);
    const auto add = [&](LedgerRow& row, const Figure& figure) {
      row.cells.push_back(figureCell(figure));
      row.cells.back().story = [figure, kind = row.kind, year = year.sum.year,
                                label = row.label.trimmed().toStdString()](const services::Snapshot& of) {
        return services::dividendStory(of, label + " " + std::to_string(year), year, figure, kind);
      };
    };
    add(regular, Figure::of(year.sum.regular));
    add(special, year.sum.special > 0 ? Figure::of(year.sum.special) : Figure::absent("none"));
    add(growth, year.sum.growth);
    add(cover, year.cover);
  }
  grid.ledger().setCorner({});
  grid.ledger().fill(headers, {std::move(regular), std::move(special), std::move(growth), std::move(cover)});
  return true;
}

}  // namespace zl::app
