#include "app/pages/limits_table.h"

#include <algorithm>

#include "app/grid/ledger_rows.h"
#include "app/look/theme.h"
#include "core/monitor/limits.h"
#include "core/quantity/number_text.h"
#include "services/stories/outlook_stories.h"

namespace zl::app {
namespace {
constexpr int kLimitColumn = 0;
}

LimitsTable::LimitsTable(Workbench& bench, LedgerView* grid, QObject* parent)
    : QObject(parent), bench_(bench), grid_(grid) {
  grid_->setWidths(80, 0);
  grid_->setColumns({80, 80, 80, 400});
  connect(&grid_->ledger(), &LedgerModel::typed, this, [this](int row, int column, const QString& text) {
    if (column == kLimitColumn) typed(row, text);
  });
}

void LimitsTable::refresh() {
  const services::Snapshot& s = bench_.now();
  std::vector<LedgerRow> rows;
  for (const MonitorLimit& limit : monitorLimits()) {
    LedgerRow row;
    row.label = QString::fromLatin1(limit.monitor);
    row.unit = unitOf(s, limit.kind);
    row.kind = limit.kind;
    row.key = row.label;
    LedgerCell own = figureCell(Figure::of(limitOf(s.caseOf(), limit.monitor)),
                                tr("Type a limit; an empty cell takes the default again"));
    own.ink = Ink::Assumed;
    own.editable = true;
    own.quiet = s.caseOf().limits.count(limit.monitor) == 0;
    const auto found = std::count_if(s.findings().begin(), s.findings().end(),
                                     [&](const Finding& f) { return f.monitor == limit.monitor; });
    LedgerCell count = wordsCell(found == 0 ? QString() : QString::number(found));
    count.left = false;
    LedgerCell preset = figureCell(Figure::of(limit.preset));
    for (LedgerCell* cell : {&own, &preset}) {
      cell->story = [limit, isPreset = cell == &preset](const services::Snapshot& of) {
        return services::limitStory(of, limit, isPreset);
      };
    }
    row.cells = {own, preset, count, wordsCell(QString::fromLatin1(limit.measure))};
    rows.push_back(std::move(row));
  }
  grid_->ledger().setCorner({});
  grid_->ledger().fill({tr("limit"), tr("default"), tr("findings"), tr("held against it")}, std::move(rows));
}

void LimitsTable::typed(int row, const QString& typed) {
  const LedgerRow& line = grid_->ledger().ledgerRows()[static_cast<size_t>(row)];
  const Case& c = bench_.settled().caseOf();
  const std::string monitor = line.key.toStdString();
  if (typed.trimmed().isEmpty()) {
    bench_.apply(services::setLimit(c, monitor, std::nullopt));
    return;
  }
  const std::optional<double> figure = typedFigure(typed.toStdString(), line.kind);
  if (!figure) return bench_.say(tr("'%1' is not a number; the limit stays").arg(typed.left(40)), true);
  bench_.apply(services::setLimit(c, monitor, *figure));
}

}  // namespace zl::app
