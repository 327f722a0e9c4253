#include "services/views/scenario_view.h"

#include "core/model/shown.h"

#include <algorithm>

#include "core/outlook/path_words.h"
#include "services/views/driver_evidence.h"

namespace zl::services {
namespace {

Scenario& baseOf(Case& c) {
  return c.scenarios[static_cast<size_t>(c.indexOf(kBase))];
}

Path heldAt(double level) {
  Path path;
  path.level = level;
  return path;
}

/// A driver that stands on its own history and can be compared with it.
bool hasHistory(const model::Row& row) {
  return row.declared == model::Declared::Driver && row.history.has_value();
}

/// Base alone: what else there is does not change its value.
Case baseAlone(const Case& c) {
  Case alone = c;
  std::erase_if(alone.scenarios, [](const Scenario& s) { return s.id != kBase; });
  return alone;
}

Result<Figure> valueOf(const Snapshot& s, const Case& c, model::Role role) {
  const Result<Evaluated> e = s.evaluator->evaluate(s.sources(), c, Standing::StoodBefore);
  return e ? Result<Figure>(e->evaluation->constant(role, e->caseOf().indexOf(kBase))) : tl::unexpected(e.error());
}

/// Puts the neutral figure in place of base's choice.
void makeNeutral(Case& c, const model::Row& row, const Figure& neutral) {
  if (row.declared == model::Declared::Driver) {
    baseOf(c).drivers[row.name] = {heldAt(neutral.value()), {}};
  } else {
    baseOf(c).inputs.erase(row.name);
  }
}

}  // namespace

namespace {

std::optional<EstimateEnd> estimateEnd(Reference reference) {
  switch (reference) {
    case Reference::ConsensusLow:
      return EstimateEnd::Low;
    case Reference::ConsensusMean:
      return EstimateEnd::Mean;
    case Reference::ConsensusHigh:
      return EstimateEnd::High;
    default:
      return std::nullopt;
  }
}

/// Base's path with the years that are estimated taken from the estimates; nothing where none is.
std::optional<Path> estimatedPath(const Snapshot& s, const Consensus& consensus, model::RowId row, EstimateEnd end) {
  Path path;
  path.shape = Shape::Typed;
  bool any = false;
  const model::Layout& layout = s.evaluation->layout();
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  for (int c = layout.historyYears; c < layout.columns(); ++c) {
    const bool estimated = consensus.spread(row, c).mean.hasValue();
    const Figure f = estimated ? consensus.at(row, c, end) : s.evaluation->figure(row, c, base);
    path.typed.push_back(f.hasValue() ? std::optional(f.value()) : std::nullopt);
    any = any || estimated;
  }
  if (!any) return std::nullopt;
  return path;
}

bool fits(const Path& path, const std::optional<model::Range>& range) {
  const auto within = [&](const std::optional<double>& x) {
    return !x || !range || (*x >= range->low && *x <= range->high);
  };
  return within(path.level) && std::all_of(path.typed.begin(), path.typed.end(), within);
}

}  // namespace

const char* referenceWords(Reference reference) {
  switch (reference) {
    case Reference::LastYear:
      return "As last year";
    case Reference::OwnAverage:
      return "Own average";
    case Reference::ConsensusLow:
      return "Consensus low";
    case Reference::ConsensusMean:
      return "Consensus";
    case Reference::ConsensusHigh:
      return "Consensus high";
  }
  return "";
}

Figure referenceFigure(const Snapshot& s, model::RowId row, Reference reference) {
  const model::Layout& layout = s.evaluation->layout();
  if (reference == Reference::LastYear) return s.history->at(row, layout.baseColumn());
  if (const std::optional<EstimateEnd> end = estimateEnd(reference)) {
    const Consensus consensus = consensusOf(s);
    Figure last = Figure::absent("nobody estimates it");
    for (int c = layout.historyYears; c < layout.columns(); ++c) {
      if (consensus.spread(row, c).mean.hasValue()) last = consensus.at(row, c, *end);
    }
    return last;
  }
  Figure median = evidenceOf(s, row, std::max(0, s.caseOf().indexOf(kBase))).windows.back().regular.median;
  const auto& range = s.evaluation->model()[row].range;
  if (!median.hasValue() || !range) return median;
  return Figure::of(std::clamp(median.value(), range->low, range->high));
}

Result<Figure> referenceValue(const Snapshot& s, Reference reference) {
  Case c = baseAlone(s.caseOf());
  const model::Model& m = s.evaluation->model();
  const std::optional<EstimateEnd> end = estimateEnd(reference);
  const Consensus consensus = consensusOf(s);
  if (end && consensus.empty()) return Figure::absent("no estimates are in the book");
  for (size_t r = 0; r < m.rows.size(); ++r) {
    if (!hasHistory(m.rows[r])) continue;
    const model::RowId row = model::RowId(r);
    std::optional<Path> path;
    if (end) {
      path = estimatedPath(s, consensus, row, *end);
    } else if (const Figure figure = referenceFigure(s, row, reference); figure.hasValue()) {
      path = heldAt(figure.value());
    }
    // Where there is no figure, or one that no driver may hold, base's choice stands.
    if (path && fits(*path, m.rows[r].range)) baseOf(c).drivers[m.rows[r].name] = {*path, {}};
  }
  return valueOf(s, c, model::Role::ValuePerShare);
}

std::vector<ScenarioLine> scenarioLines(const Snapshot& s) {
  std::vector<ScenarioLine> lines;
  const model::Model& m = s.evaluation->model();
  const Case& c = s.caseOf();
  const model::Layout& layout = s.evaluation->layout();
  for (size_t r = 0; r < m.rows.size(); ++r) {
    const model::Row& row = m.rows[r];
    if (row.declared != model::Declared::Driver && row.declared != model::Declared::Input) continue;
    const model::RowId index = model::RowId(r);
    ScenarioLine line{row.name, row.label, row.group, row.kind, row.declared == model::Declared::Driver, false, {}, {}};
    for (int i = 0; i < s.evaluation->scenarios(); ++i) {
      const Scenario& scenario = c.scenarios[static_cast<size_t>(i)];
      ScenarioCell cell;
      cell.figure = s.evaluation->figure(index, layout.columns() - 1, i);
      cell.own = scenario.drivers.count(row.name) + scenario.inputs.count(row.name) > 0;
      if (line.driver) {
        cell.words = pathWords(pathInForce(row, c, scenario, s.history->at(index, layout.baseColumn())), row.kind);
        if (const Assumption* a = c.driver(scenario, row.name)) cell.reason = a->said.reason;
      } else if (const InputChoice* choice = c.input(scenario, row.name)) {
        cell.reason = choice->said.reason;
      }
      if (row.isChoice()) cell.words = model::shownText(row, cell.figure);
      line.differs = line.differs || (cell.own && scenario.id != kBase);
      line.cells.push_back(std::move(cell));
    }
    for (const Reference reference : kReferences) {
      line.references.push_back(hasHistory(row) ? referenceFigure(s, index, reference)
                                                : Figure::absent("it has no history of its own"));
    }
    lines.push_back(std::move(line));
  }
  return lines;
}

Result<SumOfCaution> sumOfCaution(const Snapshot& s) {
  SumOfCaution sum;
  const Case alone = baseAlone(s.caseOf());
  const model::Model& m = s.evaluation->model();
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  const int last = s.evaluation->layout().columns() - 1;
  const Figure asChosen = s.evaluation->constant(model::Role::ValueBeforeFloor, base);
  Case all = alone;
  sum.alone = Figure::of(0);
  for (size_t r = 0; r < m.rows.size(); ++r) {
    const model::Row& row = m.rows[r];
    const model::RowId index = model::RowId(r);
    const bool chosen = row.declared == model::Declared::Driver ? alone.base().drivers.count(row.name) > 0
                                                                : alone.base().inputs.count(row.name) > 0;
    if (!chosen || (row.declared == model::Declared::Driver && !hasHistory(row))) continue;
    const Figure neutral = row.declared == model::Declared::Driver ? referenceFigure(s, index, Reference::OwnAverage)
                           : row.preset && row.preset->level
                               ? Figure::of(*row.preset->level)
                               : Figure::absent(row.label + " has no preset to compare with");
    CautionLine line{row.name, row.label, row.kind, s.evaluation->figure(index, last, base), neutral, neutral};
    if (neutral.hasValue()) {
      Case other = alone;
      makeNeutral(other, row, neutral);
      makeNeutral(all, row, neutral);
      const Result<Figure> value = valueOf(s, other, model::Role::ValueBeforeFloor);
      if (!value) return tl::unexpected(value.error());
      line.effect = asChosen - *value;
      sum.alone = sum.alone + line.effect;
    }
    sum.lines.push_back(std::move(line));
  }
  const Result<Figure> neutral = valueOf(s, all, model::Role::ValueBeforeFloor);
  if (!neutral) return tl::unexpected(neutral.error());
  sum.together = asChosen - *neutral;
  std::stable_sort(sum.lines.begin(), sum.lines.end(), [](const CautionLine& a, const CautionLine& b) {
    return a.effect.valueOr(0) < b.effect.valueOr(0);
  });
  return sum;
}

}  // namespace zl::services
