#include "services/views/outside_multiples.h"

#include <algorithm>
#include <cctype>
#include <map>

#include "core/history/statistics.h"
#include "core/peers/outside_names.h"
#include "services/views/probing.h"

namespace zl::services {
namespace {

std::string folded(std::string text) {
  for (char& c : text) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
  return text;
}

/// The multiple that a name goes on with, by its id, mark or label, and what follows it.
std::optional<std::pair<Multiple, std::string>> told(const std::vector<Multiple>& multiples, const std::string& name) {
  const std::string low = folded(name);
  std::optional<std::pair<Multiple, std::string>> found;
  size_t longest = 0;  // "EV to EBITDA, next year" begins as "EV to EBITDA" does
  for (const Multiple multiple : multiples) {
    const MultipleRule& rule = ruleOf(multiple);
    for (const std::string* words : {&rule.id, &rule.mark, &rule.label}) {
      const std::string begins = folded(*words);
      const bool whole = low.starts_with(begins) && (low.size() == begins.size() || low[begins.size()] == ' ');
      if (!whole || begins.size() <= longest) continue;
      longest = begins.size();
      found = {multiple, name.size() == begins.size() ? std::string() : name.substr(begins.size() + 1)};
    }
  }
  return found;
}

Figure impliedAt(const Snapshot& s, Multiple m, const Figure& multiple) {
  const model::RowId given = s.model().peerRow(model::Declared::Given, multipleName(m), "median");
  const model::RowId value = s.model().peerRow(model::Declared::Row, multipleName(m), "median");
  if (!multiple.hasValue() || !given.known() || !value.known()) return Figure::absent("the model values nothing by it");
  return probeScenario(s, std::max(0, s.caseOf().indexOf(kBase)), {{{given, {multiple}}}}, value).front();
}

void finish(const Snapshot& s, OutsideMultiples& of) {
  std::stable_sort(of.points.begin(), of.points.end(),
                   [](const DatedMultiple& a, const DatedMultiple& b) { return a.on < b.on; });
  std::vector<Figure> figures;
  for (const DatedMultiple& point : of.points) figures.push_back(Figure::of(point.multiple));
  const Statistics all = describe(figures);
  of.count = all.count;
  of.low = all.low;
  of.median = all.median;
  of.high = all.high;
  of.latest = figures.back();
  of.percentile = percentileOf(of.points.back().multiple, figures);
  of.impliedLow = impliedAt(s, of.multiple, of.low);
  of.implied = impliedAt(s, of.multiple, of.median);
  of.impliedHigh = impliedAt(s, of.multiple, of.high);
}

}  // namespace

OutsideView outsideMultiples(const Snapshot& s) {
  OutsideView view;
  std::map<std::pair<std::string, Multiple>, OutsideMultiples> sectors;
  std::map<Multiple, OutsideMultiples> deals;
  for (const MarketRate& rate : s.market->rates) {
    const bool sector = rate.name.starts_with(kSectorMultiple), deal = rate.name.starts_with(kDealMultiple);
    if ((!sector && !deal) || rate.date > s.caseOf().valuationDate) continue;
    const auto name = told(s.crossCheck.multiples,
                           rate.name.substr(std::string_view(sector ? kSectorMultiple : kDealMultiple).size()));
    if (!name || name->second.empty() || rate.figure <= 0) {
      if (std::find(view.untold.begin(), view.untold.end(), rate.name) == view.untold.end())
        view.untold.push_back(rate.name);
      continue;
    }
    const auto& [multiple, whose] = *name;
    OutsideMultiples& of = sector ? sectors[{whose, multiple}] : deals[multiple];
    of.multiple = multiple;
    of.label = (sector ? whose : std::string("Deals")) + ", " + multipleLabel(multiple);
    of.points.push_back({whose, rate.date, rate.figure, rate.source});
  }
  for (auto& [key, of] : sectors) view.sectors.push_back(std::move(of));
  for (auto& [key, of] : deals) view.deals.push_back(std::move(of));
  for (std::vector<OutsideMultiples>* list : {&view.sectors, &view.deals}) {
    for (OutsideMultiples& of : *list) finish(s, of);
  }
  return view;
}

std::vector<OthersValue> othersValues(const Snapshot& s) {
  std::map<std::pair<std::string, int>, OthersValue> latest;
  const std::string& row = s.model().nameOf(model::Role::ValuePerShare);
  for (const Estimate& one : s.market->estimates) {
    if (row.empty() || one.item != row || one.date > s.caseOf().valuationDate) continue;
    OthersValue& of = latest[{one.source, one.year}];
    if (!of.source.empty() && of.on > one.date) continue;
    of = {one.source, one.date, one.year, one.mean, one.low, one.high, {}};
    of.against = s.evaluation->constant(model::Role::ValuePerShare, std::max(0, s.caseOf().indexOf(kBase))) /
                     Figure::of(one.mean) -
                 Figure::of(1);
  }
  std::vector<OthersValue> list;
  for (auto& [key, of] : latest) list.push_back(std::move(of));
  std::stable_sort(list.begin(), list.end(),
                   [](const OthersValue& a, const OthersValue& b) { return a.mean < b.mean; });
  return list;
}

}  // namespace zl::services
