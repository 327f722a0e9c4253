#include "services/views/decide.h"

#include <algorithm>

#include "core/outlook/path_words.h"
#include "core/outlook/probe.h"
#include "core/quantity/number_text.h"
#include "services/views/driver_evidence.h"

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
std::vector<Figure> figuresOf(const Snapshot& s, model::RowId row, int lane) {
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

std::string wordsOf(const Snapshot& s, const model::Row& row, const std::vector<Figure>& figures) {
  if (row.declared != model::Declared::Driver) {
    const std::string unit = unitText(row.kind, s.company().currency, s.company().listing.unit);
    return figureText(figures.front(), row.kind) + (unit.empty() ? "" : " " + unit);
  }
  const Figure last = s.history->at(s.model().find(row.name), s.evaluation->layout().baseColumn());
  const Path path = pathInForce(row, s.caseOf(), s.caseOf().base(), last);
  if (path.shape == Shape::Hold && !path.level) return "holds " + figureText(last, row.kind);
  return pathWords(path, row.kind);
}

}  // namespace

DecideNext decideNext(const Snapshot& s) {
  const model::Model& m = s.model();
  const Scenario& base = s.caseOf().base();
  const int lane = s.caseOf().indexOf(kBase);
  DecideNext next;
  std::vector<Variant> variants{Variant{}};
  for (size_t i = 0; i < m.rows.size(); ++i) {
    const model::Row& row = m.rows[i];
    const bool assumed = row.declared == model::Declared::Driver || row.declared == model::Declared::Input;
    if (!assumed || !row.projected || row.isChoice()) continue;
    const auto driver = base.drivers.find(row.name);
    const auto input = base.inputs.find(row.name);
    const Provenance* said = driver != base.drivers.end() ? &driver->second.said
                             : input != base.inputs.end() ? &input->second.said
                                                          : nullptr;
    if (said != nullptr && !said->isProposed()) continue;
    Undecided u;
    u.row = model::RowId(i);
    u.proposed = said != nullptr;
    u.placeholder = said != nullptr && said->from == Provenance::From::Placeholder;
    if (said != nullptr) u.reason = said->reason;
    const std::vector<Figure> figures = figuresOf(s, u.row, lane);
    u.words = wordsOf(s, row, figures);
    const Reach reach = reachOf(s, u.row, figures.back().valueOr(0));
    u.apart = reach.of;
    variants.push_back({{u.row, moved(figures, reach.down, row)}});
    variants.push_back({{u.row, moved(figures, reach.up, row)}});
    next.list.push_back(std::move(u));
  }
  Givens givens;
  for (const auto& [row, given] : s.givens) givens[row] = given.figure;
  const ProbeGround ground{*s.evaluation->compiled(), *s.history, s.caseOf(), base, givens};
  model::RowId value = m.find(model::Role::ValueBeforeFloor);
  std::vector<Figure> values = probe(ground, variants, value);
  if (!values.front().hasValue()) {
    next.kind = Kind::Money;
    value = m.find(model::Role::EnterpriseValue);
    values = probe(ground, variants, value);
  }
  next.value = values.front();
  for (size_t i = 0; i < next.list.size(); ++i) {
    Undecided& u = next.list[i];
    u.low = values[1 + 2 * i];
    u.high = values[2 + 2 * i];
    const Figure apart = u.high - u.low;
    u.effect = apart.hasValue() ? Figure::of(std::abs(apart.value())) : apart;
  }
  const auto moves = [](const Undecided& u) { return u.effect.valueOr(0); };
  std::stable_sort(next.list.begin(), next.list.end(), [&](const Undecided& a, const Undecided& b) {
    const bool first = a.placeholder && moves(a) > 0, second = b.placeholder && moves(b) > 0;
    return first != second ? first : moves(a) > moves(b);
  });
  return next;
}

CaseEdit confirm(const Snapshot& s, model::RowId row, const Provenance& said) {
  const model::Row& r = s.model()[row];
  const Scenario& base = s.caseOf().base();
  CaseEdit edit;
  if (r.declared == model::Declared::Driver) {
    const Figure last = s.history->at(row, s.evaluation->layout().baseColumn());
    edit = setDriver(s.caseOf(), s.model(), kBase, r.name, pathInForce(r, s.caseOf(), base, last), said);
  } else {
    edit = setInput(s.caseOf(), s.model(), kBase, r.name,
                    s.evaluation->constant(row, s.caseOf().indexOf(kBase)).valueOr(0), said);
  }
  edit.label = "Confirm " + r.label;
  return edit;
}

}  // namespace zl::services
