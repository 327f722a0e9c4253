#include "services/views/interim_table.h"

#include <algorithm>
#include <functional>

#include "core/history/statistics.h"

namespace zl::services {
namespace {

/// Whether an expression, through the rows it names, reads another period than its own.
bool looksElsewhere(const model::Model& m, const model::Expr& e, int depth) {
  if (e.lag != 0 || e.op == model::Op::Average || e.op == model::Op::Total || e.anchor != model::Anchor::Here)
    return true;
  if (e.op == model::Op::Ref && e.row.known() && depth < 64) {
    const model::Row& row = m[e.row];
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
  table.basis = basis;
  const InterimStatements& interim = *s.review->interim;
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
    if (isShown(m, m.rows[r], basis)) table.rows.push_back({model::RowId(r), std::vector<Figure>(quarterAt.size())});
  }
  // The same quarter of successive years is a history of its own, by the same rules.
  for (int phase = 0; phase < 4; ++phase) {
    std::vector<size_t> columns;
    for (size_t at = static_cast<size_t>(phase); at < quarterAt.size(); at += 4) columns.push_back(at);
    if (columns.empty()) continue;
    const auto filed = [&](const std::string& name, int column) {
      const int quarter = quarterAt[columns[static_cast<size_t>(column)]];
      const model::RowId row = m.find(name);
      if (quarter < 0 || !row.known()) return Figure::absent("not reported");
      if (m[row].timing == model::Timing::Balance) return interim.balance(name, quarter);
      return basis == Basis::Quarters ? interim.quarter(name, quarter) : interim.trailing(name, quarter);
    };
    const model::HistoryTable history(m, {static_cast<int>(columns.size()), s.caseOf().horizon}, filed,
                                      [&](model::RowId row) { return assumedInput(m, s.caseOf(), row); });
    for (InterimRow& row : table.rows) {
      for (size_t c = 0; c < columns.size(); ++c) row.figures[columns[c]] = history.at(row.row, static_cast<int>(c));
    }
  }
  return table;
}

namespace {

/// Mean of the average counts of the quarters that end with column `c`; a count is known at the
/// ends of quarters only.
Figure averageCount(const std::vector<Figure>& closing, size_t c, size_t quarters) {
  if (c < quarters) return Figure::absent("no opening count of shares");
  Figure sum = Figure::of(0);
  for (size_t q = c + 1 - quarters; q <= c; ++q) sum = sum + (closing[q - 1] + closing[q]) / Figure::of(2);
  return sum / Figure::of(static_cast<double>(quarters));
}

}  // namespace

std::vector<Figure> InterimTable::figuresIn(size_t row, HistoryView view, const model::Model& m) const {
  const std::vector<Figure>& own = rows[row].figures;
  const bool comparesYears =
      view == HistoryView::Growth || view == HistoryView::GrowthTwoYears || view == HistoryView::Change;
  const model::RowId whole = m.find(view == HistoryView::PerShare ? model::Role::Shares : model::Role::Revenue);
  const auto base = std::find_if(rows.begin(), rows.end(), [&](const InterimRow& r) { return r.row == whole; });
  std::vector<Figure> list;
  list.reserve(own.size());
  for (size_t c = 0; c < own.size(); ++c) {
    const size_t back = view == HistoryView::GrowthTwoYears ? 8 : 4;
    if (view == HistoryView::Amounts) {
      list.push_back(own[c]);
    } else if (comparesYears && c < back) {
      list.push_back(Figure::absent("there is no quarter to compare with"));
    } else if (comparesYears) {
      list.push_back(view == HistoryView::Change ? own[c] - own[c - back] : growth(own[c - back], own[c]));
    } else {
      Figure under = base == rows.end() ? Figure::absent("not reported") : base->figures[c];
      if (view == HistoryView::PerShare && base != rows.end())
        under = averageCount(base->figures, c, basis == Basis::Trailing ? 4 : 1);
      list.push_back(under.hasValue() && under.value() <= 0 ? Figure::notMeaningful(m[whole].label + " is not positive")
                                                            : own[c] / under);
    }
  }
  return list;
}

}  // namespace zl::services
