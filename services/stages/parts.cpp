#include "services/stages/parts.h"

#include <algorithm>
#include <cctype>

namespace zl::services {
namespace {

using model::Role;

std::string keyOf(const std::string& axis, const std::string& member) {
  return axis + "/" + member;
}

/// What axes of regions have in their names, in the words of filers and of tables.
constexpr const char* kWordsOfRegions[] = {"geograph", "region", "countr", "area", "land", "pays", "zone"};

bool isChosen(const CutOfParts& cut, const std::map<std::string, PartChoice>& choices) {
  return std::any_of(cut.keys.begin(), cut.keys.end(), [&](const std::string& key) { return choices.count(key) > 0; });
}

}  // namespace

std::vector<CutOfParts> cutsOfParts(const Ground& ground, const std::map<std::string, PartChoice>& choices) {
  const model::Model& m = ground.compiled->model;
  const Evidence& evidence = *ground.evidence;
  const auto lineFor = [&](const std::string& concept_name) {
    return lineOf(*ground.filed, *ground.resources, concept_name);
  };
  std::map<std::string, CutOfParts> byAxis;
  for (const SegmentRow& row : segmentRows(evidence.facts, ground.years(), lineFor)) {
    if (row.unit != evidence.company.currency || row.facts.empty()) continue;
    const bool revenue = row.line == m.nameOf(Role::Revenue), profit = row.line == m.nameOf(Role::Ebit);
    const std::optional<size_t>& fact = row.facts.back();
    if ((!revenue && !profit) || !fact) continue;
    CutOfParts& cut = byAxis[row.axis];
    cut.axis = row.axis;
    cut.label = plainMember(row.axis);
    const std::string key = keyOf(row.axis, row.member);
    auto at = std::find(cut.keys.begin(), cut.keys.end(), key);
    if (at == cut.keys.end()) {
      cut.keys.push_back(key);
      Part part;
      part.label = calledPart(evidence.company, row.member);
      part.revenue = Figure::absent("no revenue is filed of " + part.label);
      part.profit = Figure::absent("no profit is filed of " + part.label);
      if (const auto choice = choices.find(key); choice != choices.end()) part.choice = choice->second;
      cut.parts.push_back(std::move(part));
      at = std::prev(cut.keys.end());
    }
    Part& part = cut.parts[static_cast<size_t>(at - cut.keys.begin())];
    (revenue ? part.revenue : part.profit) = evidence.facts[*fact].figure();
  }
  std::vector<CutOfParts> cuts;
  for (auto& [axis, cut] : byAxis) {
    const auto withRevenue =
        std::count_if(cut.parts.begin(), cut.parts.end(), [](const Part& part) { return part.revenue.hasValue(); });
    if (withRevenue >= 2) cuts.push_back(std::move(cut));
  }
  const auto profits = [](const CutOfParts& cut) {
    return std::any_of(cut.parts.begin(), cut.parts.end(), [](const Part& part) { return part.profit.hasValue(); });
  };
  std::stable_sort(cuts.begin(), cuts.end(),
                   [&](const CutOfParts& a, const CutOfParts& b) { return profits(a) && !profits(b); });
  return cuts;
}

void setMixes(const std::vector<CutOfParts>& cuts, RevenueMix& regions, RevenueMix& businesses) {
  const auto isOfRegions = [](const std::string& axis) {
    std::string low = axis;
    for (char& c : low) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    return std::any_of(std::begin(kWordsOfRegions), std::end(kWordsOfRegions),
                       [&](const char* word) { return low.find(word) != std::string::npos; });
  };
  double most[] = {0, 0};
  for (const CutOfParts& cut : cuts) {
    double sum = 0;
    for (const Part& part : cut.parts) sum += std::max(0.0, part.revenue.valueOr(0));
    const bool ofRegions = isOfRegions(cut.axis);
    if (sum <= most[ofRegions ? 0 : 1]) continue;
    most[ofRegions ? 0 : 1] = sum;
    RevenueMix& mix = ofRegions ? regions : businesses;
    mix.clear();
    for (const Part& part : cut.parts) {
      if (part.revenue.valueOr(0) > 0) mix[part.label] += part.revenue.value() / sum;
    }
  }
}

const CutOfParts* cutInForce(const std::vector<CutOfParts>& cuts, const std::map<std::string, PartChoice>& choices) {
  const auto chosen =
      std::find_if(cuts.begin(), cuts.end(), [&](const CutOfParts& cut) { return isChosen(cut, choices); });
  return chosen != cuts.end() ? &*chosen : cuts.empty() ? nullptr : &cuts.front();
}

SumOfParts sumOfParts(const Ground& ground, const std::map<std::string, PartChoice>& choices) {
  return sumOfParts(ground, cutsOfParts(ground, choices), choices);
}

SumOfParts sumOfParts(const Ground& ground, const std::vector<CutOfParts>& cuts,
                      const std::map<std::string, PartChoice>& choices) {
  const CutOfParts* cut = cutInForce(cuts, choices);
  const model::RowId ebit = ground.compiled->model.find(Role::Ebit);
  const int last = static_cast<int>(ground.years().size()) - 1;
  const Figure whole = ebit.known() ? ground.history->asFiled->at(ebit, last) : Figure::absent("no profit is filed");
  const auto unallocated = choices.find(kUnallocated);
  SumOfParts sum = zl::sumOfParts(cut == nullptr ? std::vector<Part>{} : cut->parts, whole,
                                  unallocated == choices.end() ? std::nullopt : std::optional(unallocated->second));
  const auto inUse = std::count_if(cuts.begin(), cuts.end(), [&](const CutOfParts& c) { return isChosen(c, choices); });
  if (inUse > 1)
    sum.enterprise = Figure::notMeaningful("parts of two cuts are valued, which hold each other: keep those of one");
  return sum;
}

}  // namespace zl::services
