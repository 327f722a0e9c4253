#include "app/pages/owner_rows.h"

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/stories/company_stories.h"
#include "services/views/owners.h"

namespace zl::app {
namespace {

LedgerCell said(const std::string& words, bool left) {
  LedgerCell cell;
  cell.words = text(words);
  cell.tip = *cell.words;
  cell.left = left;
  return cell;
}

/// A figure of the record under a title; `how` says what was made of it.
LedgerCell recorded(const Figure& figure, Kind kind, const std::string& title, const std::string& how) {
  LedgerCell cell = figureCell(figure);
  cell.story = [title, figure, kind, how](const services::Snapshot& of) {
    return services::recordStory(of, title, figure, kind, how);
  };
  if (figure.hasValue() && kind == Kind::Ratio) cell.words = text(figureText(figure, kind)) + QStringLiteral(" %");
  if (figure.hasValue() && kind == Kind::Quote) cell.words = text(figureText(figure, kind));
  return cell;
}

}  // namespace

QStringList ownerHeaders(const services::Snapshot& s) {
  return {QObject::tr("shares, %1").arg(unitOf(s, Kind::Shares)), QObject::tr("of all"),
          QObject::tr("price, %1").arg(text(s.company().listing.unit)), QObject::tr("day"), QObject::tr("source")};
}

std::vector<LedgerRow> ownerRows(const services::Snapshot& s) {
  std::vector<LedgerRow> rows;
  const services::OwnersView owners = services::ownersOf(s);
  const auto add = [&](const std::string& who, double shares, const Figure& share, const Figure& price, Date on,
                       const std::string& source) {
    LedgerRow row;
    row.label = text(who);
    row.kind = Kind::Shares;
    row.cells = {
        recorded(Figure::of(shares), Kind::Shares, who + ", shares", ""),
        recorded(share, Kind::Ratio, who + ", share of the company", "Over the ordinary shares outstanding now"),
        recorded(price, Kind::Quote, who + ", price", ""), said(dateText(on), false), said(source, true)};
    rows.push_back(std::move(row));
  };
  if (!owners.holders.empty()) rows.push_back(headingRow(QObject::tr("Holders")));
  for (const auto& [holding, share] : owners.holders)
    add(holding.holder, holding.shares, share, Figure::absent("a holding has no price"), holding.on, holding.source);
  if (!owners.trades.empty()) rows.push_back(headingRow(QObject::tr("Insiders' trades")));
  for (const auto& [trade, share] : owners.trades) {
    add(trade.who, trade.shares, share, trade.price ? Figure::of(*trade.price) : Figure::absent("no price is given"),
        trade.on, trade.source);
  }
  return rows;
}

}  // namespace zl::app
