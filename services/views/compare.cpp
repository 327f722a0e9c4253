#include "services/views/compare.h"

#include "core/model/shown.h"

#include <algorithm>
#include <set>

#include "core/outlook/path_words.h"
#include "exchange/content.h"

namespace zl::services {
namespace {

/// Scenarios of any side in the order in which they first appear.
std::vector<const Scenario*> scenariosOf(const std::vector<Side>& sides) {
  std::vector<const Scenario*> list;
  std::set<std::string> seen;
  for (const Side& side : sides) {
    for (const Scenario& s : side.snapshot->caseOf().scenarios) {
      if (seen.insert(s.id).second) list.push_back(&s);
    }
  }
  return list;
}

template <class T>
bool allSame(const std::vector<T>& list) {
  return std::adjacent_find(list.begin(), list.end(), std::not_equal_to<>()) == list.end();
}

BesideLine lineOf(const model::Row& row, const std::string& scenario) {
  return {row.name, row.label, row.group, scenario, "", row.kind, {}, {}, {}};
}

/// Whether a side's scenario says anything of its own about a row.
bool hasOwn(const Side& side, const std::string& scenario, const std::string& row) {
  const Scenario* s = side.snapshot->caseOf().scenario(scenario);
  return s != nullptr && (s->drivers.count(row) > 0 || s->inputs.count(row) > 0);
}

/// What each side holds for a row that is not computed; empty where all hold the same.
std::optional<BesideLine> assumptionLine(const std::vector<Side>& sides, const model::Row& row,
                                         const std::string& scenario) {
  BesideLine line = lineOf(row, scenario);
  std::vector<std::optional<Path>> paths;
  for (const Side& side : sides) {
    const Snapshot& s = *side.snapshot;
    const Scenario* there = s.caseOf().scenario(scenario);
    const model::RowId index = s.evaluation->model().find(row.name);
    line.figures.push_back(Figure::absent("not in " + side.name));
    line.words.emplace_back();
    line.reasons.emplace_back();
    paths.emplace_back();
    if (there == nullptr || !index.known()) continue;
    const model::Layout& layout = s.evaluation->layout();
    line.figures.back() = s.evaluation->figure(index, layout.columns() - 1, s.caseOf().indexOf(scenario));
    if (row.declared == model::Declared::Driver) {
      paths.back() = pathInForce(row, s.caseOf(), *there, s.history->at(index, layout.baseColumn()));
      line.words.back() = pathWords(*paths.back(), row.kind);
      if (const Assumption* a = s.caseOf().driver(*there, row.name)) line.reasons.back() = a->said.reason;
    } else if (const InputChoice* choice = s.caseOf().input(*there, row.name)) {
      line.reasons.back() = choice->said.reason;
    }
    if (row.isChoice()) line.words.back() = model::shownText(row, line.figures.back());
  }
  if (allSame(line.figures) && allSame(paths)) return std::nullopt;
  return line;
}

/// The documents that statements are standardised from; prices, rates and peers come in as givens.
std::vector<std::int64_t> statementDocuments(const Evidence& e) {
  using exchange::ContentKind;
  std::vector<std::int64_t> ids;
  for (const store::StoredDocument& d : e.documents) {
    const auto is = [&](ContentKind kind) { return d.document.kind == exchange::contentKindText(kind); };
    const bool market = is(ContentKind::PriceTable) || is(ContentKind::PeerTable) || is(ContentKind::RateTable) ||
                        is(ContentKind::EstimateTable) || is(ContentKind::SeriesTable);
    if (d.active && !market) ids.push_back(d.document.id);
  }
  return ids;
}

}  // namespace

Comparison compare(const std::vector<Side>& sides) {
  Comparison c;
  const Snapshot& first = *sides.front().snapshot;
  c.unit = first.company().listing.unit;
  for (const Side& side : sides) c.names.push_back(side.name);
  const std::vector<const Scenario*> scenarios = scenariosOf(sides);
  const model::Model& m = first.model();
  for (const model::ViewRow& shown : m.view("compared_values")) {
    for (const Scenario* scenario : scenarios) {
      const model::Row& row = m[shown.row];
      BesideLine line = lineOf(row, scenario->id);
      for (const Side& side : sides) {
        const int lane = side.snapshot->caseOf().indexOf(scenario->id);
        line.figures.push_back(lane < 0 ? Figure::absent("not in " + side.name)
                                        : side.snapshot->evaluation->constant(row.name, lane));
      }
      c.values.push_back(std::move(line));
    }
  }
  BesideLine weighted{"", "Probability-weighted value", "", "", "", Kind::Quote, {}, {}, {}};
  for (const Side& side : sides)
    weighted.figures.push_back(weightedValue(*side.snapshot->evaluation, model::Role::ValuePerShare));
  const size_t under = std::min(scenarios.size(), c.values.size());  // below the values per share
  c.values.insert(c.values.begin() + static_cast<std::ptrdiff_t>(under), std::move(weighted));

  for (const Scenario* scenario : scenarios) {
    BesideLine probability{"", "Probability", "Probabilities", scenario->id, "", Kind::Ratio, {}, {}, {}};
    for (const Side& side : sides) {
      const Scenario* there = side.snapshot->caseOf().scenario(scenario->id);
      probability.figures.push_back(there == nullptr ? Figure::absent("not in " + side.name)
                                                     : Figure::of(there->probability));
    }
    if (!allSame(probability.figures)) c.assumptions.push_back(std::move(probability));
  }
  for (const model::Row& row : first.evaluation->model().rows) {
    if (row.declared == model::Declared::Row) continue;
    for (const Scenario* scenario : scenarios) {
      // What a scenario takes over from base is said once.
      const bool own = std::any_of(sides.begin(), sides.end(),
                                   [&](const Side& side) { return hasOwn(side, scenario->id, row.name); });
      if (scenario->id != kBase && !own) continue;
      std::optional<BesideLine> line = assumptionLine(sides, row, scenario->id);
      if (line) c.assumptions.push_back(std::move(*line));
    }
  }
  return c;
}

std::vector<BesideLine> rowBeside(const std::vector<Side>& sides, const std::string& row, const std::string& scenario) {
  std::vector<std::string> periods;
  for (const Side& side : sides) {
    for (int c = 0; c < side.snapshot->evaluation->layout().columns(); ++c) {
      const std::string period = side.snapshot->periodOf(c);
      // "2026" of one side is the "2026E" of another: both stand under the plain year.
      periods.push_back(period.substr(0, 4));
    }
  }
  std::sort(periods.begin(), periods.end());
  periods.erase(std::unique(periods.begin(), periods.end()), periods.end());
  const model::Model& m = sides.front().snapshot->evaluation->model();
  const model::RowId index = m.find(row);
  std::vector<BesideLine> lines;
  if (!index.known()) return lines;
  for (const std::string& period : periods) {
    BesideLine line = lineOf(m[index], scenario);
    line.period = period;
    for (const Side& side : sides) {
      const Snapshot& s = *side.snapshot;
      const int lane = s.caseOf().indexOf(scenario);
      const int column = s.evaluation->layout().baseColumn() + std::stoi(period) - s.years().back().label();
      const bool there = lane >= 0 && column >= 0 && column < s.evaluation->layout().columns();
      line.figures.push_back(there ? s.evaluation->figure(row, column, lane) : Figure::absent("not in " + side.name));
    }
    lines.push_back(std::move(line));
  }
  return lines;
}

Result<ValueWalk> walkBetween(const Side& from, const Side& to, const std::string& scenario, bool byRow) {
  const auto endOf = [](const Snapshot& s) { return WalkEnd{s.caseOf(), s.givenFigures->plain}; };
  const bool filedDiffers = statementDocuments(*from.snapshot->evidence) != statementDocuments(*to.snapshot->evidence);
  const GroundOf groundOf = [&](const Case& mixed, bool secondFiled) -> Result<zl::Ground> {
    const Snapshot& end = secondFiled ? *to.snapshot : *from.snapshot;
    // Only what history and the program stand on matters here; paths may not fit another horizon.
    Case bare = mixed;
    for (Scenario& s : bare.scenarios) s.drivers.clear();
    const auto ground = end.evaluator->ground(end.evidence, bare, Standing::StoodBefore);
    if (!ground) return tl::unexpected(ground.error());
    return zl::Ground{(*ground)->compiled, (*ground)->history->adjusted};
  };
  return walkValue(endOf(*from.snapshot), endOf(*to.snapshot), {scenario, byRow, filedDiffers}, groundOf);
}

Result<Side> sideOf(Session& session, const std::string& name) {
  if (name == kNow) return Side{name, session.now()};
  const Result<store::KeptVersion> version = session.version(name);
  if (!version) return tl::unexpected(version.error());
  Result<std::shared_ptr<const Snapshot>> snapshot = session.snapshotOf(*version);
  if (!snapshot) return tl::unexpected(snapshot.error());
  return Side{name, std::move(*snapshot)};
}

}  // namespace zl::services
