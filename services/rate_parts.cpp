#include "services/rate_parts.h"

namespace zl::services {
namespace {

using What = RatePart::What;

struct Build {
  What what;
  const char* label;
  std::vector<const char*> factors;  ///< rows of the first forecast year
  const char* weight;                ///< constant row
};

const std::vector<Build>& builds() {
  static const std::vector<Build> kBuilds = {
      {What::RiskFree, "risk-free", {"risk_free"}, "equity_weight"},
      {What::Premium, "beta × premium", {"beta", "equity_premium"}, "equity_weight"},
      {What::Country, "country", {"country_exposure", "country_premium"}, "equity_weight"},
      {What::Size, "size", {"size_addition"}, "equity_weight"},
      {What::Debt, "debt after tax", {"debt_cost_after_tax"}, "debt_weight"},
      {What::Preferred, "preferred", {"cost_of_preferred"}, "preferred_weight"}};
  return kBuilds;
}

}  // namespace

std::vector<RatePart> rateParts(const Snapshot& s, int scenario) {
  std::vector<RatePart> parts;
  const Evaluation& e = *s.evaluation;
  const int first = e.layout().historyYears;
  for (const Build& build : builds()) {
    Figure figure = e.constant(build.weight, scenario);
    for (const char* factor : build.factors) figure = figure * e.figure(factor, first, scenario);
    parts.push_back({build.what, build.label, figure});
  }
  return parts;
}

Story ratePartStory(const Snapshot& s, int scenario, const RatePart& part) {
  Story story = storyAbout(s,
                           "Rate of the first year, " + part.label + ", weighted · " +
                               s.caseOf().scenarios[static_cast<size_t>(scenario)].label,
                           part.figure, Kind::Ratio);
  story.scenario = scenario;
  story.lines.emplace_back("the part's rate times its share of the capital; the parts add up to the WACC");
  const int first = s.evaluation->layout().historyYears;
  for (const Build& build : builds()) {
    if (build.what != part.what) continue;
    for (const char* factor : build.factors) reads(s, story, factor, first);
    reads(s, story, build.weight);
  }
  reads(s, story, "wacc", first);
  return story;
}

}  // namespace zl::services
