#include "services/stories/why_stories.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/quantity/number_text.h"

namespace zl::services {
namespace {

constexpr const char* kShares =
    "each part is the mean effect of the ground over every order in which the peers' are put in place of the "
    "subject's, on the logarithm of the multiple that they justify (Shapley 1953)";

}  // namespace

Story groundStory(const Snapshot& s, const WhyDiffers& why, size_t ground, const std::string& label,
                  const Figure& figure, Kind kind) {
  const GroundOfGap& of = why.grounds[ground];
  Story story = storyAbout(s, label, figure, kind);
  story.lines.push_back("the subject's, in Base: " + shownOrWhy(s, of.here, Kind::Ratio));
  story.lines.push_back("the peers': " + of.how + "; median of " + std::to_string(of.count) + ": " +
                        shownOrWhy(s, of.there, Kind::Ratio));
  if (!why.gap.known[ground])
    story.lines.emplace_back("as the peers' is not known the subject's own stands for it, and tells nothing");
  story.lines.emplace_back(kShares);
  reads(s, story, of.row, 0);
  return story;
}

Story gapStory(const Snapshot& s, const WhyDiffers& why, const std::string& label, const Figure& figure, Kind kind) {
  Story story = storyAbout(s, label, figure, kind);
  story.lines.push_back(std::string(multipleLabel(why.multiple)) +
                        " of the subject at the price: " + shownOrWhy(s, why.own, Kind::Multiple));
  story.lines.push_back("median of the peers that count: " + shownOrWhy(s, why.peers, Kind::Multiple));
  story.lines.push_back("justified by the subject's growth, payout, return and risk over two stages: " +
                        shownOrWhy(s, why.gap.justifiedHere, Kind::Multiple));
  story.lines.push_back("justified by the peers' medians of the same: " +
                        shownOrWhy(s, why.gap.justifiedThere, Kind::Multiple));
  story.lines.emplace_back("what is not explained is the gap of the multiples less that of the justified ones");
  return story;
}

Story fitStory(const Snapshot& s, Multiple m, const MultipleFit& fit, const std::string& label, const Figure& figure,
               Kind kind, const std::string& peer) {
  Story story = storyAbout(s, label, figure, kind);
  const std::array<std::string, 3> traits = traitsOf(m);
  story.lines.push_back(fmt::format("{} by least squares over {} peers that count and have all three traits",
                                    multipleLabel(m), fit.count));
  story.lines.push_back("begins at " + shownOrWhy(s, fit.intercept, Kind::Multiple));
  for (size_t k = 0; k < traits.size(); ++k) {
    // The slope is per 100 %: what a point of a per cent moves is what one reads.
    story.lines.push_back(fmt::format("for a point of {}: {}", traits[k],
                                      shownOrWhy(s, fit.slopes[k] * Figure::of(0.01), Kind::Multiple)));
  }
  story.lines.push_back("share of the spread told (R²): " + shownOrWhy(s, fit.rSquared, Kind::Ratio));
  const auto of =
      std::find_if(fit.peers.begin(), fit.peers.end(), [&](const FittedPeer& one) { return one.id == peer; });
  if (of == fit.peers.end()) return story;
  for (size_t k = 0; k < traits.size(); ++k)
    story.lines.push_back(of->name + ", " + traits[k] + ": " + shownOrWhy(s, of->traits[k], Kind::Ratio));
  return story;
}

}  // namespace zl::services
