#include "services/views/cash_view.h"

#include <algorithm>
#include <cmath>

#include "core/valuation/yearly_return.h"
#include "services/views/swings.h"

namespace zl::services {
namespace {

using model::Role;

/// The driver or input that moves base's value most between its usual ends.
void findStrongest(const Snapshot& s, CashHead& head) {
  const model::Model& m = s.model();
  std::vector<model::RowId> rows;
  for (size_t i = 0; i < m.rows.size(); ++i) {
    const model::Row& row = m.rows[i];
    const bool assumed = row.declared == model::Declared::Driver || row.declared == model::Declared::Input;
    if (assumed && row.projected && !row.isChoice()) rows.emplace_back(i);
  }
  const Swings swings = swingsOf(s, rows);
  if (swings.kind != Kind::Quote) return;
  double most = 0;
  for (size_t i = 0; i < rows.size(); ++i) {
    const double effect = swings.of[i].effect.valueOr(0);
    if (effect <= most) continue;
    most = effect;
    head.driver = m[rows[i]].label;
    head.swing = swings.of[i].effect;
  }
}

}  // namespace

CashHead cashHead(const Snapshot& s) {
  CashHead head;
  const Evaluation& e = *s.evaluation;
  head.price = s.given(Role::Price).figure;
  for (int k = 0; k < e.scenarios(); ++k) head.values.push_back(e.constant(Role::ValuePerShare, k));
  head.beyond = Figure::absent("the model names no method in force");
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  for (const model::Method& method : s.model().methods) {
    if (!method.choice.known() || !method.share.known()) continue;
    if (e.constant(method.choice, base).valueOr(-1) == method.option) head.beyond = e.constant(method.share, base);
  }
  findStrongest(s, head);
  return head;
}

DatedTarget datedTarget(const Snapshot& s, int scenario) {
  DatedTarget target;
  const auto& rows = s.model().view("target");
  const auto& flows = s.model().view("target_flows");
  constexpr size_t kRows = 3;
  if (rows.size() < kRows || flows.empty()) return target;
  const Evaluation& e = *s.evaluation;
  target.years = static_cast<int>(std::lround(e.constant(rows[0].row, scenario).valueOr(0)));
  target.value = e.constant(rows[1].row, scenario);
  target.total = e.constant(rows[2].row, scenario);
  const Figure price = s.given(Role::Price).figure;
  std::vector<double> dividends;
  for (int t = 0; t < target.years && t < s.caseOf().horizon; ++t)
    dividends.push_back(e.figure(flows[0].row, e.layout().historyYears + t, scenario).valueOr(0));
  target.yearly = yearlyReturn(price, dividends, target.value, target.years);
  return target;
}

std::optional<PricePoint> lastAtOrUnder(const Snapshot& s, double price) {
  for (auto p = s.market->prices.rbegin(); p != s.market->prices.rend(); ++p) {
    if (p->date <= s.caseOf().valuationDate && p->close <= price) return *p;
  }
  return std::nullopt;
}

}  // namespace zl::services
