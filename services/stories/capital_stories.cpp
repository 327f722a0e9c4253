#include "services/stories/capital_stories.h"

#include "core/quantity/number_text.h"

namespace zl::services {

using model::Role;

Story rivalStory(const Snapshot& s, model::RowId row, const Rival& rival, int scenario, bool ofValue) {
  const std::string of = s.model()[row].label + ": " + rival.label;
  Story story = ofValue ? storyAbout(s, "Value per share with " + of, rival.value, Kind::Quote)
                        : storyAbout(s, of, rival.figure, s.model()[row].kind);
  story.scenario = scenario;
  if (ofValue)
    story.lines.emplace_back("the model run with this figure in every forecast year; before the floor at nought");
  if (!rival.source.empty()) story.lines.push_back(rival.source);
  if (rival.stands) story.lines.emplace_back("what counts now, in the first forecast year");
  reads(s, story, row, s.evaluation->layout().historyYears);
  return story;
}

Story regressionStory(const Snapshot& s, const std::string& label, const Figure& figure, Kind kind, const OwnBeta& own,
                      const BetaSettings& settings) {
  Story story = storyAbout(s, label, figure, kind);
  if (!own.index.empty()) story.lines.push_back(betaWords(settings, own.index, own.to));
  story.lines.push_back("least squares of the share's simple returns on the index's, n " + std::to_string(own.fit.n));
  for (const std::string& note : own.notes) story.lines.push_back(note);
  return story;
}

Story peerBetaStory(const Snapshot& s, const std::string& label, const Figure& figure, Kind kind,
                    const PeerBeta& peer) {
  Story story = storyAbout(s, peer.name + ", " + label, figure, kind);
  story.lines.push_back(peer.how.empty() ? "no beta of it is known" : "beta: " + peer.how);
  story.lines.push_back(
      "tax " + (peer.taxRate.hasValue() ? groupedNumber(peer.taxRate.value() * 100, 1) + " %: " : "not known: ") +
      peer.taxSource);
  story.lines.emplace_back(
      "unlevered: beta / (1 + (1 - tax) x debt with leases / market value of equity) (Hamada 1972)");
  return story;
}

Story peerMedianStory(const Snapshot& s, const std::string& label, const Figure& figure, const PeerBetas& peers) {
  Story story = storyAbout(s, label, figure, Kind::Multiple);
  story.lines.push_back("median of " + std::to_string(peers.count) + " peers' betas without debt");
  if (peers.debtToEquity.hasValue())
    story.lines.push_back("relevered at debt of " + groupedNumber(peers.debtToEquity.value() * 100, 1) +
                          " % of equity");
  reads(s, story, Role::YearDebtWeight, s.evaluation->layout().historyYears);
  reads(s, story, Role::YearEquityWeight, s.evaluation->layout().historyYears);
  return story;
}

Story hurdleStory(const Snapshot& s, const std::string& label, const Figure& figure, int scenario) {
  Story story = storyAbout(s, label, figure, Kind::Quote);
  story.scenario = scenario;
  story.lines.emplace_back("the model run with the hurdle taken this way, everything else as it is");
  for (const model::ViewRow& row : s.model().view("hurdle")) reads(s, story, row.row, 0);
  return story;
}

Story impliedCostStory(const Snapshot& s, int scenario, const std::string& shown) {
  Story story;
  story.title = "Cost of equity the price implies · " + s.caseOf().scenarios[static_cast<size_t>(scenario)].label;
  story.scenario = scenario;
  story.figure = shown;
  story.lines.emplace_back(
      "every rate up to 50 % at which the flows to shareholders are worth the price: 512 steps, each "
      "change of sign halved until it is settled");
  reads(s, story, Role::Price);
  reads(s, story, Role::CostOfEquity, s.evaluation->layout().historyYears);
  return story;
}

Story targetStory(const Snapshot& s, int scenario, const DatedTarget& target) {
  Story story = storyAbout(s, "Return to the dated target, a year", target.yearly, Kind::Ratio);
  story.scenario = scenario;
  story.lines.push_back("the rate at which the dividends of " + std::to_string(target.years) +
                        " years and the target are worth today's price");
  for (const model::ViewRow& row : s.model().view("target")) reads(s, story, row.row, 0);
  reads(s, story, Role::Price);
  return story;
}

}  // namespace zl::services
