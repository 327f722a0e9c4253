#include "services/interim_table.h"

#include <algorithm>
#include <functional>

#include "core/history/statistics.h"

namespace zl::services {
namespace {

/// Whether an expression, through the rows it names, reads another period than its own.
bool looksElsewhere(const model::Model& m, const model::Expr& e, int depth) {
  if (e.lag != 0 || e.op == model::Op::Average || e.op == model::Op::Total || e.anchor != model::Anchor::Here)
    return true;
  if (e.op == model::Op::Ref && e.row >= 0 && depth < 64) {
    const model::Row& row = m.rows[static_cast<size_t>(e.row)];
    if (row.history && looksElsewhere(m, *row.history, depth + 1)) return true;
  }
  return std::any_of(e.args.begin(), e.args.end(),
                     [&](const model::Expr& arg) { return looksElsewhere(m, arg, depth); });
}

bool isShown(const model::Model& m, const model::Row& row, Basis basis) {
  if (row.timing == model::Timing::Constant || (!row.historyFiled && !row.history)) return false;
  if (basis == Basis::Trailing || row.historyFiled) return true;
  return row.kind == Kind::Money && !looksElsewhere(m, *row.history, 0);
}

int index(const FiscalQuarter& q) {
  return q.fiscalYear * 4 + q.number - 1;
}

}  // namespace

InterimTable interimTable(const Snapshot& s, Basis basis) {
  InterimTable table;
  const InterimStatements& interim = *s.filed->interim;
  if (interim.quarters().empty()) return table;
  const model::Model& m = s.evaluation->model();
  const int first = index(interim.quarters().front());
  const int last = index(interim.quarters().back());
  // Quarters that nobody reported stay as empty columns: a gap must be seen.
  std::vector<int> quarterAt(static_cast<size_t>(last - first + 1), -1);
  for (size_t i = 0; i < interim.quarters().size(); ++i) {
    quarterAt[static_cast<size_t>(index(interim.quarters()[i]) - first)] = static_cast<int>(i);
  }
  for (int at = first; at <= last; ++at) {
    table.periods.push_back("Q" + std::to_string(at % 4 + 1) + " " + std::to_string(at / 4));
  }
  for (size_t r = 0; r < m.rows.size(); ++r) {
    if (isShown(m, m.rows[r], basis))
      table.rows.push_back({static_cast<int>(r), std::vector<Figure>(quarterAt.size())});
  }
  // The same quarter of successive years is a history of its own, by the same rules.
  for (int phase = 0; phase < 4; ++phase) {
    std::vector<size_t> columns;
    for (size_t at = static_cast<size_t>(phase); at < quarterAt.size(); at += 4) columns.push_back(at);
    if (columns.empty()) continue;
    const auto filed = [&](const std::string& name, int column) {
      const int quarter = quarterAt[columns[static_cast<size_t>(column)]];
      const int row = m.find(name);
      if (quarter < 0 || row < 0) return Figure::absent("not reported");
      if (m.rows[static_cast<size_t>(row)].timing == model::Timing::Balance) return interim.balance(name, quarter);
      return basis == Basis::Quarters ? interim.quarter(name, quarter) : interim.trailing(name, quarter);
    };
    const model::HistoryTable history(m, {static_cast<int>(columns.size()), s.caseOf().horizon}, filed,
                                      [&](int row) { return assumedInput(m, s.caseOf(), row); });
    for (InterimRow& row : table.rows) {
      for (size_t c = 0; c < columns.size(); ++c) row.figures[columns[c]] = history.at(row.row, static_cast<int>(c));
    }
  }
  return table;
}

std::vector<Figure> InterimTable::growthOf(size_t row) const {
  const std::vector<Figure>& figures = rows[row].figures;
  std::vector<Figure> list;
  list.reserve(figures.size());
  for (size_t c = 0; c < figures.size(); ++c) {
    list.push_back(c < 4 ? Figure::absent("there is no quarter a year before") : growth(figures[c - 4], figures[c]));
  }
  return list;
}

std::vector<Figure> InterimTable::shareOfRevenue(size_t row, const model::Model& m) const {
  const int revenue = m.find("revenue");
  const auto base = std::find_if(rows.begin(), rows.end(), [&](const InterimRow& r) { return r.row == revenue; });
  std::vector<Figure> list;
  list.reserve(rows[row].figures.size());
  for (size_t c = 0; c < rows[row].figures.size(); ++c) {
    const Figure whole = base == rows.end() ? Figure::absent("no revenue") : base->figures[c];
    list.push_back(whole.hasValue() && whole.value() <= 0 ? Figure::notMeaningful("revenue is not positive")
                                                          : rows[row].figures[c] / whole);
  }
  return list;
}

}  // namespace zl::services
