#include "app/grid/ledger_rows.h"

#include <algorithm>
#include <functional>

#include "app/look/amounts.h"
#include "app/look/theme.h"
#include "core/model/shown.h"
#include "core/quantity/number_text.h"
#include "services/views/history_figures.h"

namespace zl::app {
namespace {

Ink inkOf(const model::Row& row, bool forecast) {
  if (!forecast) return row.historyFiled ? Ink::Filed : Ink::Derived;
  return row.declared == model::Declared::Row ? Ink::Derived : Ink::Assumed;
}

}  // namespace

QString proposedTip(const Provenance& said) {
  return said.from == Provenance::From::Placeholder ? QObject::tr("Placeholder: %1").arg(text(said.reason))
                                                    : QObject::tr("Proposed: %1").arg(text(said.reason));
}

QString unitOf(const services::Snapshot& s, Kind kind) {
  return shownUnitText(kind, s.company().currency, s.company().listing.unit);
}

QString cornerOf(const services::Snapshot& s) {
  return unitOf(s, Kind::Money);
}

LedgerCell figureCell(Figure figure, const QString& tip) {
  LedgerCell cell;
  cell.figure = std::move(figure);
  cell.tip = tip;
  return cell;
}

LedgerCell wordsCell(const QString& words, const QString& tip) {
  LedgerCell cell;
  cell.words = words;
  cell.left = true;
  cell.ink = Ink::Plain;
  cell.tip = tip.isEmpty() ? words : tip;
  return cell;
}

LedgerRow headingRow(const QString& label) {
  LedgerRow row;
  row.label = label;
  row.heading = true;
  return row;
}

namespace {

/// Label, unit and key of a model row, without its figures.
LedgerRow rowHead(const services::Snapshot& s, const model::Row& row) {
  LedgerRow out;
  out.label = text(row.label);
  if (row.kind != Kind::Money) out.unit = unitOf(s, row.kind);
  out.kind = row.kind;
  out.key = text(row.name);
  out.strong = s.model().isTotal(s.model().find(row.name));
  for (const model::Option& option : row.options) out.choices << text(option.label);
  return out;
}

}  // namespace

LedgerRow yearRow(const services::Snapshot& s, model::RowId index, int from, int to, int scenario) {
  const Evaluation& e = *s.evaluation;
  const model::Row& row = e.model()[index];
  LedgerRow out = rowHead(s, row);
  const Scenario& sc = s.caseOf().scenarios[static_cast<size_t>(scenario)];
  for (int c = from; c < to; ++c) {
    const bool forecast = e.layout().isForecast(c);
    LedgerCell cell;
    cell.figure = e.figure(index, c, scenario);
    cell.ink = inkOf(row, forecast);
    cell.source = model::Cell{index, c};
    cell.scenario = scenario;
    cell.editable = forecast && row.declared == model::Declared::Driver;
    const Assumption* a = cell.editable ? s.caseOf().driver(sc, row.name) : nullptr;
    cell.quiet = cell.editable && a == nullptr;
    if (a != nullptr && a->said.isProposed()) {
      cell.ink = Ink::Proposed;
      cell.tip = proposedTip(a->said);
    }
    if (!forecast) {
      const std::vector<std::string> beside = services::besideFiled(s, index, c);
      cell.adjusted = !beside.empty();
      for (const std::string& line : beside)
        cell.tip += (cell.tip.isEmpty() ? QString() : QStringLiteral("\n")) + text(line);
    }
    out.cells.push_back(std::move(cell));
  }
  return out;
}

LedgerRow scenarioRow(const services::Snapshot& s, model::RowId index, int year) {
  const Evaluation& e = *s.evaluation;
  const model::Row& row = e.model()[index];
  const int column = row.timing == model::Timing::Constant
                         ? 0
                         : e.layout().historyYears + std::clamp(year, 1, e.layout().forecastYears) - 1;
  LedgerRow out = rowHead(s, row);
  for (int i = 0; i < e.scenarios(); ++i) {
    const Scenario& sc = s.caseOf().scenarios[static_cast<size_t>(i)];
    LedgerCell cell;
    cell.figure = e.figure(index, column, i);
    const bool driver = row.declared == model::Declared::Driver;
    cell.ink = row.declared == model::Declared::Input || driver
                   ? Ink::Assumed
                   : (row.declared == model::Declared::Given ? Ink::Filed : Ink::Derived);
    cell.source = model::Cell{index, column};
    cell.scenario = i;
    cell.editable = row.declared == model::Declared::Input || driver;
    cell.quiet = cell.editable && sc.inputs.count(row.name) == 0 && sc.drivers.count(row.name) == 0;
    if (driver)
      cell.tip = QObject::tr("of %1; a figure typed here holds in all years; Outlook shapes its path")
                     .arg(text(s.periodOf(column)));
    if (const InputChoice* own = cell.editable ? s.caseOf().input(sc, row.name) : nullptr;
        own != nullptr && own->said.isProposed()) {
      cell.ink = Ink::Proposed;
      cell.tip = proposedTip(own->said);
    }
    if (row.isChoice()) {
      cell.words = text(model::shownText(row, cell.figure));
      cell.chooses = true;
    }
    out.cells.push_back(std::move(cell));
  }
  return out;
}

namespace {

bool hasNothing(const LedgerRow& row) {
  return std::all_of(row.cells.begin(), row.cells.end(), [](const LedgerCell& c) { return c.figure.valueOr(1) == 0; });
}

std::vector<LedgerRow> rowsOf(const services::Snapshot& s, const char* view,
                              const std::function<LedgerRow(model::RowId)>& rowOf) {
  std::vector<LedgerRow> rows;
  for (const model::ViewRow& shown : s.model().view(view)) {
    LedgerRow row = rowOf(shown.row);
    if (!shown.optional || !hasNothing(row)) rows.push_back(std::move(row));
  }
  return rows;
}

}  // namespace

std::vector<LedgerRow> yearRows(const services::Snapshot& s, const char* view, int from, int to, int scenario) {
  return rowsOf(s, view, [&](model::RowId row) { return yearRow(s, row, from, to, scenario); });
}

std::vector<LedgerRow> scenarioRows(const services::Snapshot& s, const char* view, int year) {
  return rowsOf(s, view, [&](model::RowId row) { return scenarioRow(s, row, year); });
}

QStringList periodHeaders(const services::Snapshot& s, int from, int to) {
  QStringList list;
  for (int c = from; c < to; ++c) list << text(s.periodOf(c));
  return list;
}

QStringList scenarioHeaders(const services::Snapshot& s) {
  QStringList list;
  for (const Scenario& sc : s.caseOf().scenarios) list << text(sc.label);
  return list;
}

std::vector<Figure> trendOf(const services::Snapshot& s, model::RowId row, int from, int to, int scenario) {
  std::vector<Figure> list;
  for (int c = from; c < to; ++c) list.push_back(s.evaluation->figure(row, c, scenario));
  return list;
}

std::vector<model::RowId> groupRows(const services::Snapshot& s, const std::string& group) {
  std::vector<model::RowId> list;
  const model::Model& m = s.evaluation->model();
  for (size_t r = 0; r < m.rows.size(); ++r) {
    if (m.rows[r].group == group && m.rows[r].timing != model::Timing::Constant) list.emplace_back(r);
  }
  return list;
}

}  // namespace zl::app
