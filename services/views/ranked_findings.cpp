#include "services/views/ranked_findings.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "services/views/swings.h"

namespace zl::services {
namespace {

constexpr double kLittle = 0.01;  // of base's value

/// What each driver or input that findings are about moves, of base's value.
std::map<std::string, Figure> sharesOf(const Snapshot& s) {
  const model::Model& m = s.model();
  std::map<std::string, Figure> shares;
  std::vector<model::RowId> rows;
  for (const Finding& f : s.findings()) {
    const model::RowId row = f.row.empty() ? model::RowId() : m.find(f.row);
    if (!row.known() || shares.count(f.row) > 0) continue;
    const bool assumed = m[row].declared == model::Declared::Driver || m[row].declared == model::Declared::Input;
    if (!assumed || !m[row].projected || m[row].isChoice()) continue;
    shares[f.row] = Figure::absent();
    rows.push_back(row);
  }
  if (rows.empty()) return shares;
  const Swings swings = swingsOf(s, rows);
  for (size_t i = 0; i < rows.size(); ++i) {
    const bool known = swings.value.hasValue() && swings.value.value() != 0 && swings.of[i].effect.hasValue();
    if (known) shares[m[rows[i]].name] = Figure::of(swings.of[i].effect.value() / std::abs(swings.value.value()));
  }
  return shares;
}

}  // namespace

RankedFindings rankedFindings(const Snapshot& s) {
  const std::map<std::string, Figure> shares = sharesOf(s);
  std::vector<RankedFinding> all;
  std::map<std::pair<std::string, std::string>, size_t> first;  // of a monitor about a row in several scenarios
  for (size_t i = 0; i < s.findings().size(); ++i) {
    const Finding& f = s.findings()[i];
    if (!f.scenario.empty() && !f.row.empty() && f.acknowledged.empty()) {
      const auto [found, fresh] = first.try_emplace({f.monitor, f.row}, all.size());
      if (!fresh && s.findings()[all[found->second].finding].severity == f.severity) {
        all[found->second].alike.push_back(i);
        continue;
      }
    }
    const auto share = shares.find(f.row);
    all.push_back({i, {}, share == shares.end() ? Figure::absent() : share->second});
  }
  const auto place = [&](const RankedFinding& r) {
    const Finding& f = s.findings()[r.finding];
    return std::pair(!f.acknowledged.empty(), -static_cast<int>(f.severity));
  };
  std::stable_sort(all.begin(), all.end(), [&](const RankedFinding& a, const RankedFinding& b) {
    // What is about no single assumption concerns all of the value.
    return std::pair(place(a), -a.share.valueOr(1e9)) < std::pair(place(b), -b.share.valueOr(1e9));
  });
  RankedFindings ranked;
  for (RankedFinding& r : all) {
    const Finding& f = s.findings()[r.finding];
    const bool little =
        r.share.hasValue() && r.share.value() < kLittle && f.severity != Severity::Fault && f.acknowledged.empty();
    (little ? ranked.folded : ranked.shown).push_back(std::move(r));
  }
  return ranked;
}

CaseEdit acknowledgeLine(const RankedFinding& ranked, const Snapshot& s, const Provenance& said) {
  CaseEdit edit = acknowledge(s.caseOf(), s.findings()[ranked.finding], said);
  for (const size_t other : ranked.alike) edit.after = acknowledge(edit.after, s.findings()[other], said).after;
  return edit;
}

std::string textOf(const RankedFinding& ranked, const Snapshot& s) {
  const std::string text = s.textOf(s.findings()[ranked.finding]);
  std::string others;
  for (const size_t other : ranked.alike) {
    const Scenario* scenario = s.caseOf().scenario(s.findings()[other].scenario);
    if (scenario != nullptr) others += (others.empty() ? "" : ", ") + scenario->label;
  }
  return others.empty() ? text : text + "; the same in " + others;
}

std::string foldedText(const RankedFindings& ranked, const Snapshot& s) {
  if (ranked.folded.empty()) return {};
  std::string names;
  for (const RankedFinding& r : ranked.folded) {
    const Finding& f = s.findings()[r.finding];
    names += (names.empty() ? "" : "; ") + f.monitor + " of " + s.model()[s.model().find(f.row)].label;
  }
  const size_t count = ranked.folded.size();
  return std::to_string(count) + (count == 1 ? " finding is" : " findings are") +
         " about figures that move less than 1 % of the value: " + names;
}

}  // namespace zl::services
