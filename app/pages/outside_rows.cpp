#include "app/pages/outside_rows.h"

#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/stories/peer_stories.h"
#include "services/views/outside_multiples.h"

namespace zl::app {
namespace {

LedgerCell count(const QString& words) {
  LedgerCell cell;
  cell.words = words;
  cell.quiet = true;
  return cell;
}

LedgerRow multipleRow(const services::OutsideMultiples& of) {
  LedgerRow row;
  row.label = text(of.label);
  row.kind = Kind::Multiple;
  row.unit = QStringLiteral("×");
  const auto add = [&](const Figure& figure, Kind kind, const char* what) {
    LedgerCell cell = figureCell(figure);
    if (kind != Kind::Multiple && figure.hasValue()) {
      cell.words = text(figureText(figure, kind)) + (kind == Kind::Ratio ? QStringLiteral(" %") : QString());
    }
    cell.story = [of, figure, kind, what = std::string(what)](const services::Snapshot& shown) {
      return services::outsideStory(shown, of, what, figure, kind);
    };
    row.cells.push_back(std::move(cell));
  };
  row.cells.push_back(count(text(dateText(of.points.back().on))));
  add(of.latest, Kind::Multiple, "latest");
  add(of.low, Kind::Multiple, "low");
  add(of.median, Kind::Multiple, "median");
  add(of.high, Kind::Multiple, "high");
  add(of.percentile, Kind::Ratio, "place of the latest");
  row.cells.push_back(count(QString::number(of.count)));
  add(of.impliedLow, Kind::Quote, "implied per share by the low");
  add(of.implied, Kind::Quote, "implied per share by the median");
  add(of.impliedHigh, Kind::Quote, "implied per share by the high");
  return row;
}

LedgerRow othersRow(const services::OthersValue& of) {
  LedgerRow row;
  row.label = text(of.source) + QStringLiteral(", ") + QString::number(of.year);
  row.kind = Kind::Quote;
  const auto add = [&](const std::optional<double>& figure, const char* what) {
    LedgerCell cell = figureCell(figure ? Figure::of(*figure) : Figure::absent("not said"));
    cell.story = [of, figure = cell.figure, what = std::string(what)](const services::Snapshot& shown) {
      return services::othersStory(shown, of, what, figure, Kind::Quote);
    };
    row.cells.push_back(std::move(cell));
  };
  row.cells.push_back(count(text(dateText(of.on))));
  row.cells.resize(5);
  LedgerCell against = figureCell(of.against);
  if (of.against.hasValue()) against.words = text(figureText(of.against, Kind::Ratio)) + QStringLiteral(" %");
  against.tip = QObject::tr("the base value against it");
  against.story = [of](const services::Snapshot& shown) {
    return services::othersStory(shown, of, "base value against it", of.against, Kind::Ratio);
  };
  row.cells.push_back(std::move(against));
  row.cells.emplace_back();
  add(of.low, "low");
  add(of.mean, "value per share");
  add(of.high, "high");
  return row;
}

}  // namespace

QStringList outsideHeaders(const services::Snapshot& s) {
  const QString unit = text(s.company().listing.unit);
  return {QObject::tr("day"),
          QObject::tr("latest"),
          QObject::tr("low"),
          QObject::tr("median"),
          QObject::tr("high"),
          QObject::tr("its place"),
          QObject::tr("days"),
          QObject::tr("low, %1").arg(unit),
          QObject::tr("implied, %1").arg(unit),
          QObject::tr("high, %1").arg(unit)};
}

std::vector<LedgerRow> outsideRows(const services::Snapshot& s) {
  std::vector<LedgerRow> rows;
  const services::OutsideView view = services::outsideMultiples(s);
  if (!view.sectors.empty()) rows.push_back(headingRow(QObject::tr("Sectors over time")));
  for (const services::OutsideMultiples& of : view.sectors) rows.push_back(multipleRow(of));
  if (!view.deals.empty()) rows.push_back(headingRow(QObject::tr("Deals: what control was paid for")));
  for (const services::OutsideMultiples& of : view.deals) rows.push_back(multipleRow(of));
  const std::vector<services::OthersValue> others = services::othersValues(s);
  if (!others.empty()) rows.push_back(headingRow(QObject::tr("What others say a share is worth")));
  for (const services::OthersValue& of : others) rows.push_back(othersRow(of));
  return rows;
}

QString outsideWords(const services::Snapshot& s) {
  const services::OutsideView view = services::outsideMultiples(s);
  QString words = QObject::tr(
      "Multiples of a sector over time and of deals come in as rates by name, 'sector ev-ebitda Machinery' and "
      "'deal ev-ebitda Orvane Mills'; what others say a share is worth as estimates of value_per_share.");
  QStringList untold;
  for (const std::string& name : view.untold) untold << text(name);
  if (!untold.isEmpty())
    words += QObject::tr(" These name no multiple, or nobody: %1.").arg(untold.join(QStringLiteral(", ")));
  return words;
}

}  // namespace zl::app
