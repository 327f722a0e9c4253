#include "services/views/why_differs.h"

#include <algorithm>
#include <cmath>

#include "core/history/statistics.h"
#include "core/peers/measures.h"
#include "core/quantity/number_text.h"
#include "services/stages/own_beta.h"
#include "services/views/peer_view.h"

namespace zl::services {
namespace {

using model::Role;

/// Earnings from the first to the last expected year, a year; with one expected year from the last filed one.
Figure expectedGrowth(const Peer& peer) {
  std::vector<PeerYear> years = peer.expected;
  if (years.size() == 1 && !peer.years.empty()) years.insert(years.begin(), peer.years.back());
  if (years.size() < 2) return Figure::absent("nothing is expected of it");
  return compoundGrowth(years.front().netIncome, years.back().netIncome,
                        yearOf(years.back().end) - yearOf(years.front().end));
}

Figure payoutOf(const Peer& peer) {
  if (peer.years.empty()) return Figure::absent("no year is filed");
  const PeerYear& last = peer.years.back();
  const Figure payout = last.dividends / last.netIncome;
  if (!payout.hasValue() || last.netIncome.value() > 0) return payout;
  return Figure::notMeaningful("net income is not positive");
}

/// Whose multiple counts: only they are what the median is of.
std::vector<const Peer*> counted(const Snapshot& s, Multiple m) {
  std::vector<const Peer*> peers;
  for (const PeerRow& row : s.crossCheck.rows) {
    if (!row.cells.at(m).in) continue;
    const auto found =
        std::find_if(s.market->peers.begin(), s.market->peers.end(), [&](const Peer& p) { return p.id == row.id; });
    if (found != s.market->peers.end()) peers.push_back(&*found);
  }
  return peers;
}

void setThere(GroundOfGap& ground, const std::vector<Figure>& figures, std::string how, const char* whyNot) {
  const Statistics of = describe(figures);
  ground.count = of.count;
  ground.there = of.count > 0 ? of.median : Figure::absent(whyNot);
  ground.how = std::move(how);
}

std::string inWords(const WhyDiffers& why) {
  if (!why.gap.whole.hasValue() || !why.gap.unexplained.hasValue()) return {};
  constexpr const char* kNames[] = {"growth", "payout", "return", "risk"};
  const auto percent = [](const Figure& log) {
    const double change = (std::exp(log.value()) - 1) * 100;
    return std::string(change >= 0 ? "+" : "") + groupedNumber(change, 0, false) + " %";
  };
  std::string words = multipleLabel(why.multiple) + " of " + figureText(why.own, Kind::Multiple) + " is " +
                      percent(why.gap.whole) + " from the peers' median of " + figureText(why.peers, Kind::Multiple) +
                      ": ";
  std::string unknown;
  for (size_t i = 0; i < why.grounds.size(); ++i) {
    if (why.gap.known[i]) {
      words += std::string(kNames[i]) + " " + percent(why.gap.parts[i]) + ", ";
    } else {
      unknown += (unknown.empty() ? "" : " and ") + std::string(kNames[i]);
    }
  }
  words += "not explained " + percent(why.gap.unexplained);
  if (!unknown.empty()) words += "; the peers' " + unknown + " is not known and tells nothing";
  return words + ".";
}

}  // namespace

WhyDiffers whyDiffers(const Snapshot& s) {
  WhyDiffers why;
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  const auto& rows = s.model().view("multiple_grounds");
  constexpr size_t kLasting = 4;
  if (rows.size() <= kLasting) {
    const Figure none = Figure::absent("the model does not say what a multiple stands on");
    why.own = why.peers = why.gap.whole = why.gap.unexplained = none;
    why.gap.parts.fill(none);
    for (GroundOfGap& ground : why.grounds) ground.here = ground.there = ground.part = none;
    return why;
  }
  if (s.crossCheck.statistics.at(why.multiple).count == 0) why.multiple = Multiple::PriceToEarnings;
  why.own = positionOf(s, why.multiple).own;
  const MultipleStatistics& statistics = s.crossCheck.statistics.at(why.multiple);
  why.peers = statistics.count > 0 ? statistics.median : Figure::absent("no peer counts");
  const std::vector<const Peer*> peers = counted(s, why.multiple);
  const MeasureBasis basis = basisOf(s.model(), s.caseOf());
  std::vector<Figure> growths, payouts, returns, risks;
  for (const Peer* peer : peers) {
    growths.push_back(expectedGrowth(*peer));
    payouts.push_back(payoutOf(*peer));
    returns.push_back(peerMeasure(*peer, "roe", basis));
  }
  // The same rate, premium and country for all: what sets a peer's required return apart is its beta.
  for (size_t i = 0; i < why.grounds.size(); ++i) {
    why.grounds[i].row = rows[i].row;
    why.grounds[i].here = s.evaluation->constant(rows[i].row, base);
  }
  const int first = s.evaluation->layout().historyYears;
  const Figure beta = s.evaluation->figure(Role::Beta, first, base);
  const Figure premium = s.evaluation->figure(Role::EquityPremium, first, base);
  for (const PeerBeta& of : peerBetas(s, {}, base).peers) {
    const bool counts = std::any_of(peers.begin(), peers.end(), [&](const Peer* p) { return p->id == of.id; });
    if (counts) risks.push_back(why.grounds[3].here + (of.beta - beta) * premium);
  }
  setThere(why.grounds[0], growths, "earnings a year over the years that are expected", "nothing is expected of any");
  setThere(why.grounds[1], payouts, "dividends over net income of the last year", "no peer's dividends are known");
  setThere(why.grounds[2], returns, "return on equity of the last year", "no peer has two years of equity");
  setThere(why.grounds[3], risks, "the subject's required return, moved by the peer's beta", "no peer has a beta");
  const MultipleGrounds here{why.grounds[0].here, why.grounds[1].here, why.grounds[2].here, why.grounds[3].here};
  const MultipleGrounds there{why.grounds[0].there, why.grounds[1].there, why.grounds[2].there, why.grounds[3].there};
  const Figure lasting = s.evaluation->constant(rows[kLasting].row, base);
  if (!lasting.hasValue()) {
    why.gap.whole = why.gap.unexplained = lasting;
    why.gap.parts.fill(lasting);
  } else {
    why.gap = gapOf(why.own, why.peers, here, there, lasting.value());
  }
  // What the peers do not tell makes no part, and is none of nought.
  for (size_t i = 0; i < why.grounds.size(); ++i)
    why.grounds[i].part = why.gap.known[i] ? why.gap.parts[i] : why.grounds[i].there;
  why.words = inWords(why);
  return why;
}

namespace {

std::array<const char*, 3> measuresOf(Multiple m) {
  return {"revenue_growth", ruleOf(m).ofFirm ? "ebit_margin" : "net_margin", "roe"};
}

}  // namespace

std::array<std::string, 3> traitsOf(Multiple m) {
  return {"growth of revenue", ruleOf(m).ofFirm ? "EBIT margin" : "net margin", "return on equity"};
}

MultipleFit fitAcrossPeers(const Snapshot& s, Multiple m) {
  const MeasureBasis basis = basisOf(s.model(), s.caseOf());
  const std::array<const char*, 3> measures = measuresOf(m);
  std::vector<FittedPeer> peers;
  for (const Peer* peer : counted(s, m)) {
    FittedPeer one;
    one.id = peer->id;
    one.name = peer->name;
    const auto row = std::find_if(s.crossCheck.rows.begin(), s.crossCheck.rows.end(),
                                  [&](const PeerRow& r) { return r.id == peer->id; });
    one.multiple = row->cells.at(m).multiple;
    for (size_t k = 0; k < measures.size(); ++k) one.traits[k] = peerMeasure(*peer, measures[k], basis);
    peers.push_back(std::move(one));
  }
  FitTraits subject;
  const int base = s.evaluation->layout().baseColumn();
  for (size_t k = 0; k < measures.size(); ++k) {
    const model::RowId row = rowOfMeasure(s.model(), measures[k]);
    subject[k] = row.known() ? s.history->at(row, base) : Figure::absent("the model has no row of that measure");
  }
  return fitMultiples(std::move(peers), subject);
}

}  // namespace zl::services
