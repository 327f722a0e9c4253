#include "core/outlook/adjusted.h"

#include <algorithm>
#include <array>
#include <set>

#include "core/quantity/number_text.h"

namespace zl {
namespace {

/// Totals that a change of a part moves, in the order in which one enters the next.
constexpr std::array kTotals = {"ebit", "pretax_profit", "net_income"};

const Tie* tieOf(const std::vector<Tie>& ties, const char* total) {
  const auto found = std::find_if(ties.begin(), ties.end(), [&](const Tie& t) { return t.total.line == total; });
  return found == ties.end() ? nullptr : &*found;
}

}  // namespace

std::map<CellOfLine, Shift> shiftsOf(const Case& c, const std::vector<Tie>& ties, double taxRate) {
  std::map<CellOfLine, Shift> shifts;
  std::set<int> years;
  for (const auto& [cell, adjustment] : c.adjustments) {
    Shift& shift = shifts[cell];
    shift.amount = adjustment.amount;
    shift.why.push_back(adjustment.said.reason.empty() ? "no reason given" : adjustment.said.reason);
    years.insert(cell.second);
  }
  for (const int year : years) {
    for (const char* total : kTotals) {
      const Tie* tie = tieOf(ties, total);
      if (tie == nullptr) continue;
      double moved = 0;
      for (const TieTerm& part : tie->addends) {
        const auto shift = shifts.find({part.line, year});
        if (!part.opening && shift != shifts.end()) moved += part.weight * shift->second.amount;
      }
      if (moved == 0) continue;
      Shift& shift = shifts[{total, year}];
      shift.amount += moved;
      shift.why.push_back("carried from its parts");
      if (tie->total.line == kTotals[1] && c.adjustments.count({"tax", year}) == 0) {
        Shift& tax = shifts[{"tax", year}];
        tax.amount += taxRate * shift.amount;
        tax.why.push_back(groupedNumber(taxRate * 100, 1) + " % of the change of profit before tax");
      }
    }
  }
  return shifts;
}

}  // namespace zl
