#include "app/grid/ledger_rows.h"

#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/history_figures.h"

namespace zl::app {
namespace {

Ink inkOf(const model::Row& row, bool forecast) {
  if (!forecast) return row.historyFiled ? Ink::Filed : Ink::Derived;
  return row.role == model::Role::Row ? Ink::Derived : Ink::Assumed;
}

/// Lines that close a block stand in bold, so that the eye finds them.
bool isTotal(const std::string& name) {
  for (const char* total :
       {"revenue", "gross_profit", "ebitda", "ebit", "net_income", "total_assets", "total_liabilities", "total_equity",
        "operating_cash_flow", "net_cash_movement", "fcff", "nopat", "invested_capital", "enterprise_value",
        "equity_value", "value_per_share", "wacc"}) {
    if (name == total) return true;
  }
  return false;
}

}  // namespace

QString unitOf(const services::Snapshot& s, Kind kind) {
  return text(unitText(kind, s.company().currency, s.company().listing.unit));
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
  out.strong = isTotal(row.name);
  return out;
}

}  // namespace

LedgerRow yearRow(const services::Snapshot& s, int index, int from, int to, int scenario) {
  const Evaluation& e = *s.evaluation;
  const model::Row& row = e.model().rows[static_cast<size_t>(index)];
  LedgerRow out = rowHead(s, row);
  const Scenario& sc = s.caseOf().scenarios[static_cast<size_t>(scenario)];
  for (int c = from; c < to; ++c) {
    const bool forecast = e.layout().isForecast(c);
    LedgerCell cell;
    cell.figure = e.figure(index, c, scenario);
    cell.ink = inkOf(row, forecast);
    cell.source = model::Cell{index, c};
    cell.scenario = scenario;
    cell.editable = forecast && row.role == model::Role::Driver;
    cell.quiet = cell.editable && s.caseOf().driver(sc, row.name) == nullptr;
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

LedgerRow yearRow(const services::Snapshot& s, const char* row, int from, int to, int scenario) {
  return yearRow(s, s.evaluation->model().find(row), from, to, scenario);
}

LedgerRow scenarioRow(const services::Snapshot& s, const char* name) {
  const Evaluation& e = *s.evaluation;
  const int index = e.model().find(name);
  const model::Row& row = e.model().rows[static_cast<size_t>(index)];
  LedgerRow out = rowHead(s, row);
  for (int i = 0; i < e.scenarios(); ++i) {
    const Scenario& sc = s.caseOf().scenarios[static_cast<size_t>(i)];
    LedgerCell cell;
    cell.figure = e.figure(index, 0, i);
    cell.ink =
        row.role == model::Role::Input ? Ink::Assumed : (row.role == model::Role::Given ? Ink::Filed : Ink::Derived);
    cell.source = model::Cell{index, 0};
    cell.scenario = i;
    cell.editable = row.role == model::Role::Input;
    cell.quiet = cell.editable && sc.inputs.count(row.name) == 0;
    out.cells.push_back(std::move(cell));
  }
  return out;
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

std::vector<Figure> trendOf(const services::Snapshot& s, int row, int from, int to, int scenario) {
  std::vector<Figure> list;
  for (int c = from; c < to; ++c) list.push_back(s.evaluation->figure(row, c, scenario));
  return list;
}

std::vector<int> groupRows(const services::Snapshot& s, const char* group) {
  std::vector<int> list;
  const model::Model& m = s.evaluation->model();
  for (size_t r = 0; r < m.rows.size(); ++r) {
    if (m.rows[r].group == group && m.rows[r].timing != model::Timing::Constant) list.push_back(static_cast<int>(r));
  }
  return list;
}

}  // namespace zl::app
