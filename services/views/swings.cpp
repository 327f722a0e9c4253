#include "services/views/swings.h"

#include <algorithm>
#include <cmath>

#include "services/views/driver_evidence.h"
#include "services/views/probing.h"

namespace zl::services {
namespace {

constexpr int kShortHistory = 4;        // years; quartiles of fewer say little
constexpr double kShortDistance = 0.1;  // of the figure, in place of them

/// How far a row may lie below and above what it is.
struct Reach {
  double down = 0, up = 0;
  std::string of;
};

Reach reachOf(const Snapshot& s, model::RowId row, double figure) {
  const model::Row& r = s.model()[row];
  if (r.declared == model::Declared::Driver) {
    const DriverEvidence evidence = evidenceOf(s, row, s.caseOf().indexOf(kBase));
    const Statistics& spread = evidence.spread;
    if (spread.count >= kShortHistory) {
      return {spread.lowerQuartile.value() - spread.median.value(),
              spread.upperQuartile.value() - spread.median.value(),
              "quartiles of " + std::to_string(spread.count) + " regular years"};
    }
    if (evidence.peers.count >= kShortHistory) {
      return {evidence.peers.low.value() - evidence.peers.median.value(),
              evidence.peers.high.value() - evidence.peers.median.value(),
              "low and high of " + std::to_string(evidence.peers.count) + " peers"};
    }
  }
  const double tenth = std::abs(figure) * kShortDistance;
  return {-tenth, tenth, "a tenth either way"};
}

/// A row's figures in base: by forecast year, or one.
std::vector<Figure> laneFigures(const Snapshot& s, model::RowId row, int lane) {
  const model::Layout& layout = s.evaluation->layout();
  std::vector<Figure> figures;
  if (s.model()[row].declared != model::Declared::Driver) return {s.evaluation->constant(row, lane)};
  for (int c = layout.historyYears; c < layout.columns(); ++c) figures.push_back(s.evaluation->figure(row, c, lane));
  return figures;
}

std::vector<Figure> moved(const std::vector<Figure>& figures, double by, const model::Row& row) {
  std::vector<Figure> out;
  for (const Figure& f : figures) {
    Figure shifted = f + Figure::of(by);
    if (row.range && shifted.hasValue()) {
      shifted = Figure::of(std::clamp(shifted.value(), row.range->low, row.range->high));
    }
    out.push_back(std::move(shifted));
  }
  return out;
}

}  // namespace

Swings swingsOf(const Snapshot& s, const std::vector<model::RowId>& rows) {
  const model::Model& m = s.model();
  const int lane = s.caseOf().indexOf(kBase);
  Swings swings;
  std::vector<Variant> variants{Variant{}};
  for (const model::RowId row : rows) {
    const std::vector<Figure> figures = laneFigures(s, row, lane);
    const Reach reach = reachOf(s, row, figures.back().valueOr(0));
    swings.of.push_back({reach.of, {}, {}, {}});
    variants.push_back({{row, moved(figures, reach.down, m[row])}});
    variants.push_back({{row, moved(figures, reach.up, m[row])}});
  }
  std::vector<Figure> values = probeScenario(s, lane, variants, m.find(model::Role::ValueBeforeFloor));
  if (!values.front().hasValue()) {
    swings.kind = Kind::Money;
    values = probeScenario(s, lane, variants, m.find(model::Role::EnterpriseValue));
  }
  swings.value = values.front();
  for (size_t i = 0; i < rows.size(); ++i) {
    Swing& swing = swings.of[i];
    swing.low = values[1 + 2 * i];
    swing.high = values[2 + 2 * i];
    const Figure apart = swing.high - swing.low;
    swing.effect = apart.hasValue() ? Figure::of(std::abs(apart.value())) : apart;
  }
  return swings;
}

}  // namespace zl::services
