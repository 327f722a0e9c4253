#include "core/outlook/adjusted.h"

#include <algorithm>
#include <array>
#include <set>

#include "core/quantity/number_text.h"

namespace zl {
namespace {

/// Totals that a change of a part moves, in the order in which one enters the next.
constexpr std::array kTotals = {model::Role::Ebit, model::Role::PretaxProfit, model::Role::NetIncome};

const Tie* tieOf(const std::vector<Tie>& ties, const std::string& total) {
  const auto found = std::find_if(ties.begin(), ties.end(), [&](const Tie& t) { return t.total.line == total; });
  return found == ties.end() ? nullptr : &*found;
}

}  // namespace

std::map<CellOfLine, Shift> shiftsOf(const Case& c, const model::Model& m, const std::vector<Tie>& ties,
                                     const Figure& taxRate) {
  const std::string& taxLine = m.nameOf(model::Role::Tax);
  std::map<CellOfLine, Shift> shifts;
  std::set<int> years;
  for (const auto& [cell, adjustment] : c.adjustments) {
    Shift& shift = shifts[cell];
    shift.amount = adjustment.amount;
    shift.why.push_back(adjustment.said.reason.empty() ? "no reason given" : adjustment.said.reason);
    years.insert(cell.second);
  }
  for (const int year : years) {
    for (const model::Role role : kTotals) {
      const std::string& total = m.nameOf(role);
      const Tie* tie = tieOf(ties, total);
      if (tie == nullptr) continue;
      double moved = 0;
      for (const TieTerm& part : tie->addends) {
        const auto shift = shifts.find({part.line, year});
        if (!part.opening && shift != shifts.end()) moved += part.weight * shift->second.amount;
      }
      if (moved == 0) continue;
      Shift& shift = shifts[{total, year}];
      if (c.adjustments.count({total, year}) > 0) {
        // The total was typed: it is that figure, and what its parts do not say is in none of them.
        shift.why.push_back(groupedNumber(moved / 1e6, 1) + " m of it from its parts, the other " +
                            groupedNumber((shift.amount - moved) / 1e6, 1) + " m in none of them");
      } else {
        shift.amount += moved;
        shift.why.push_back("carried from its parts");
      }
      if (role == model::Role::PretaxProfit && taxRate.hasValue() && !taxLine.empty() &&
          c.adjustments.count({taxLine, year}) == 0) {
        Shift& tax = shifts[{taxLine, year}];
        tax.amount += taxRate.value() * shift.amount;
        tax.why.push_back(groupedNumber(taxRate.value() * 100, 1) + " % of the change of profit before tax");
      }
    }
  }
  return shifts;
}

}  // namespace zl
