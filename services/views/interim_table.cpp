#include "services/views/interim_table.h"

#include <algorithm>
#include <functional>
#include <optional>

#include "core/history/statistics.h"

namespace zl::services {
namespace {

/// What the rules of a row read, under the choices of a case: branches that those leave out do not count.
class RuleReader {
 public:
  RuleReader(const model::Model& m, const Case& c) : m_(m), c_(c) {}

  /// Whether an expression, through the rows it names, reads another period than its own, or (with `balances`) a
  /// balance.
  [[nodiscard]] bool looksElsewhere(const model::Expr& e, bool balances, int depth = 0) const {
    if (e.lag != 0 || e.op == model::Op::Average || e.op == model::Op::Total || e.anchor != model::Anchor::Here)
      return true;
    if (e.op == model::Op::If && e.args.size() == 3) {
      if (const std::optional<bool> taken = decided(e.args[0]))
        return looksElsewhere(e.args[*taken ? 1 : 2], balances, depth);
    }
    if (e.op == model::Op::Ref && e.row.known() && depth < 64) {
      const model::Row& row = m_[e.row];
      if (balances && row.timing == model::Timing::Balance) return true;
      if (row.history && looksElsewhere(*row.history, balances, depth + 1)) return true;
    }
    return std::any_of(e.args.begin(), e.args.end(),
                       [&](const model::Expr& arg) { return looksElsewhere(arg, balances, depth); });
  }

 private:
  /// Whether a condition on a choice or a constant of the case holds; nothing where it stands on figures.
  [[nodiscard]] std::optional<bool> decided(const model::Expr& condition) const {
    if (condition.args.size() != 2) return std::nullopt;
    const model::Expr& asked = condition.args[0];
    const model::Expr& against = condition.args[1];
    if (asked.op != model::Op::Ref || !asked.row.known() || against.op != model::Op::Number) return std::nullopt;
    if (m_[asked.row].declared != model::Declared::Input) return std::nullopt;
    const Figure stands = assumedInput(m_, c_, asked.row);
    if (!stands.hasValue()) return std::nullopt;
    if (condition.op == model::Op::Is) return stands.value() == against.number;
    if (condition.op == model::Op::Greater) return stands.value() > against.number;
    return std::nullopt;
  }

  const model::Model& m_;
  const Case& c_;
};

/// Of a quarter: what was filed, and what follows from that quarter's flows alone.
bool isShown(const RuleReader& reader, const model::Row& row, Basis basis) {
  if (row.timing == model::Timing::Constant || (!row.historyFiled && !row.history)) return false;
  if (basis == Basis::Trailing || row.historyFiled) return true;
  const bool rate = row.kind == Kind::Ratio || row.kind == Kind::Multiple;
  return (rate || row.kind == Kind::Money) && !reader.looksElsewhere(*row.history, rate);
}

/// Columns of the filed years that follow one another up to the one before `year`.
std::vector<int> yearsBefore(const Snapshot& s, int year) {
  std::vector<int> columns;
  const std::vector<FiscalYear>& years = s.years();
  for (int c = static_cast<int>(years.size()) - 1; c >= 0; --c) {
    const int label = years[static_cast<size_t>(c)].label();
    if (label == year - 1 - static_cast<int>(columns.size())) columns.insert(columns.begin(), c);
  }
  return columns;
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
  const RuleReader reader(m, s.caseOf());
  for (size_t r = 0; r < m.rows.size(); ++r) {
    if (isShown(reader, m.rows[r], basis))
      table.rows.push_back({model::RowId(r), std::vector<Figure>(quarterAt.size())});
  }
  // The same quarter of successive years is a history of its own, by the same rules.
  for (int phase = 0; phase < 4; ++phase) {
    std::vector<size_t> columns;
    for (size_t at = static_cast<size_t>(phase); at < quarterAt.size(); at += 4) columns.push_back(at);
    if (columns.empty()) continue;
    // Twelve months that end with the year are the year: those before the first quarter are filed as years.
    const std::vector<int> earlier =
        phase == 3 ? yearsBefore(s, (static_cast<int>(columns.front()) + first) / 4) : std::vector<int>();
    const auto told = [&](Basis by) {
      const int ahead = by == Basis::Trailing ? static_cast<int>(earlier.size()) : 0;
      const auto filed = [&, ahead, by](const std::string& name, int column) {
        const model::RowId row = m.find(name);
        if (!row.known()) return Figure::absent("not reported");
        if (column < ahead) return s.filed->statements.at(name, earlier[static_cast<size_t>(column)]).figure;
        const int quarter = quarterAt[columns[static_cast<size_t>(column - ahead)]];
        if (quarter < 0) return Figure::absent("not reported");
        if (m[row].timing == model::Timing::Balance) return interim.balance(name, quarter);
        return by == Basis::Quarters ? interim.quarter(name, quarter) : interim.trailing(name, quarter);
      };
      return model::HistoryTable(m, {ahead + static_cast<int>(columns.size()), s.caseOf().horizon}, filed,
                                 [&](model::RowId row) { return assumedInput(m, s.caseOf(), row); });
    };
    const model::HistoryTable trailing = told(Basis::Trailing);
    const std::optional<model::HistoryTable> quarters =
        basis == Basis::Quarters ? std::optional(told(Basis::Quarters)) : std::nullopt;
    for (InterimRow& row : table.rows) {
      // A balance is the same whatever the flows beside it are counted over.
      const bool ofQuarter = quarters && m[row.row].timing != model::Timing::Balance;
      for (size_t c = 0; c < columns.size(); ++c) {
        row.figures[columns[c]] = ofQuarter ? quarters->at(row.row, static_cast<int>(c))
                                            : trailing.at(row.row, static_cast<int>(c + earlier.size()));
      }
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
