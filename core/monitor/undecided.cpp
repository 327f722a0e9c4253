#include "core/monitor/undecided.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <utility>
#include <vector>

#include "core/outlook/probe.h"

namespace zl {
namespace {

constexpr size_t kMostNamed = 3;

/// Whether base stands on a proposal, or on what the model has by itself.
bool isUndecided(const Case& c, const model::Row& row) {
  if (row.declared == model::Declared::Driver) {
    const Assumption* assumed = c.driver(c.base(), row.name);
    return assumed == nullptr || assumed->said.isProposed();
  }
  const InputChoice* chosen = c.input(c.base(), row.name);
  return chosen == nullptr || chosen->said.isProposed();
}

}  // namespace

std::string undecidedThatMoveMost(const Evaluation& e) {
  const Case& c = e.caseOf();
  const int lane = c.indexOf(kBase);
  const model::RowId wanted = e.model().find(model::Role::ValueBeforeFloor);
  if (lane < 0 || !wanted.known()) return {};
  std::set<model::RowId> read;  // by the value: what it does not read moves nothing
  for (const model::InputCell& input : e.compiled()->partFor(wanted).inputs) read.insert(input.cell.row);
  std::vector<Variant> variants;
  std::vector<std::string> labels;
  const Figure more = Figure::of(1.1);
  for (const model::RowId r : read) {
    const model::Row& row = e.model()[r];
    const bool driver = row.declared == model::Declared::Driver;
    if ((!driver && row.declared != model::Declared::Input) || !row.projected || row.isChoice() || !isUndecided(c, row))
      continue;
    std::vector<Figure> figures;
    if (driver) {
      for (int column = e.layout().historyYears; column < e.layout().columns(); ++column)
        figures.push_back(e.figure(r, column, lane) * more);
    } else {
      figures = {e.constant(r, lane) * more};
    }
    variants.push_back({{r, std::move(figures)}});
    labels.push_back(row.label);
  }
  const Figure now = e.constant(wanted, lane);
  const std::vector<Figure> values = probe(e, lane, variants, wanted);
  std::vector<std::pair<double, std::string>> ranked;
  for (size_t i = 0; i < labels.size(); ++i) ranked.emplace_back(std::abs((values[i] - now).valueOr(0)), labels[i]);
  std::stable_sort(ranked.begin(), ranked.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
  std::string names;
  for (size_t i = 0; i < std::min(kMostNamed, ranked.size()) && ranked[i].first > 0; ++i)
    names += (names.empty() ? "" : ", ") + ranked[i].second;
  return names;
}

}  // namespace zl
