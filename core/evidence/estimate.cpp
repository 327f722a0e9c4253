#include "core/evidence/estimate.h"

#include <algorithm>
#include <map>
#include <tuple>

namespace zl {
namespace {

constexpr int kDeepest = 12;             ///< rules within rules; the shipped model needs four
constexpr size_t kMostCombinations = 8;  ///< items whose ends are tried against each other

double endOf(const Estimate& e, EstimateEnd end) {
  if (end == EstimateEnd::Low) return e.low.value_or(e.mean);
  return end == EstimateEnd::High ? e.high.value_or(e.mean) : e.mean;
}

}  // namespace

std::vector<Estimate> latestEstimates(const std::vector<Estimate>& all, Date date, EstimateBy by) {
  std::map<std::pair<std::string, int>, Estimate> latest;
  for (const Estimate& e : all) {
    if (e.date > date || e.by != by) continue;
    const auto [at, fresh] = latest.try_emplace({e.item, e.year}, e);
    if (!fresh && e.date >= at->second.date) at->second = e;
  }
  std::vector<Estimate> list;
  list.reserve(latest.size());
  for (auto& [key, e] : latest) list.push_back(std::move(e));
  return list;
}

Consensus::Consensus(const model::Model& m, const model::HistoryTable& history, int baseYear,
                     const std::vector<Estimate>& estimates, std::function<Figure(model::RowId)> assumed)
    : model_(m), history_(history), baseYear_(baseYear), estimates_(estimates), assumed_(std::move(assumed)) {}

const Estimate* Consensus::estimate(model::Cell cell) const {
  const int year = baseYear_ + cell.column - history_.layout().baseColumn();
  const std::string& name = model_[cell.row].name;
  const auto found = std::find_if(estimates_.begin(), estimates_.end(),
                                  [&](const Estimate& e) { return e.year == year && e.item == name; });
  return found == estimates_.end() ? nullptr : &*found;
}

Figure Consensus::figure(model::Cell cell, const Choose& choose, std::vector<const Estimate*>* used, int depth) const {
  const model::Row& row = model_[cell.row];
  if (row.declared == model::Declared::Input || row.declared == model::Declared::Given) return assumed_(cell.row);
  if (!history_.layout().isForecast(cell.column)) return history_.at(cell.row, cell.column);
  if (const Estimate* e = estimate(cell)) {
    if (used != nullptr && std::count(used->begin(), used->end(), e) == 0) used->push_back(e);
    return Figure::of(choose(*e));
  }
  if (!row.history || depth > kDeepest) return Figure::absent("nobody estimates " + row.label);
  return model::interpret(model_, history_.layout(), *row.history, cell.column,
                          [&](model::Cell read) { return figure(read, choose, used, depth + 1); });
}

Figure Consensus::at(model::RowId row, int column, EstimateEnd end) const {
  return figure(
      {row, column}, [end](const Estimate& e) { return endOf(e, end); }, nullptr, 0);
}

std::vector<Estimate> Consensus::behind(model::RowId row, int column) const {
  std::vector<const Estimate*> used;
  const Figure mean = figure(
      {row, column}, [](const Estimate& e) { return e.mean; }, &used, 0);
  std::vector<Estimate> list;
  if (!mean.hasValue()) return list;
  list.reserve(used.size());
  for (const Estimate* e : used) list.push_back(*e);
  return list;
}

Consensus::Spread Consensus::spread(model::RowId row, int column) const {
  std::vector<const Estimate*> used;
  Spread s;
  s.mean = figure(
      {row, column}, [](const Estimate& e) { return e.mean; }, &used, 0);
  // A figure that stands on history alone is no estimate.
  if (!s.mean.hasValue() || used.empty())
    return {Figure::absent("nobody estimates it"), Figure::absent(), Figure::absent(), 0};
  s.low = s.high = s.mean;
  // The year's own estimates vary; those of other years that a rule reads stay at their mean, or a
  // growth rate would be stretched by both its ends.
  const int year = baseYear_ + column - history_.layout().baseColumn();
  std::erase_if(used, [&](const Estimate* e) { return e->year != year; });
  for (const Estimate* e : used) s.count = s.count == 0 || (e->count > 0 && e->count < s.count) ? e->count : s.count;
  const size_t items = std::min(used.size(), kMostCombinations);
  for (size_t mask = 0; mask < size_t{1} << items; ++mask) {
    const Figure f = figure(
        {row, column},
        [&](const Estimate& e) {
          const auto i = static_cast<size_t>(std::find(used.begin(), used.end(), &e) - used.begin());
          const bool high = i < items && (mask >> i & 1) != 0;
          return i < items ? endOf(e, high ? EstimateEnd::High : EstimateEnd::Low) : e.mean;
        },
        nullptr, 0);
    if (!f.hasValue()) continue;
    if (f.value() < s.low.value()) s.low = f;
    if (f.value() > s.high.value()) s.high = f;
  }
  return s;
}

}  // namespace zl
