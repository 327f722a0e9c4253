#include "services/views/peer_view.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "core/history/statistics.h"
#include "core/monitor/limits.h"
#include "core/peers/likeness.h"
#include "core/quantity/number_text.h"
#include "services/stages/evaluated.h"
#include "services/views/company_view.h"
#include "services/views/method_figures.h"
#include "services/views/probing.h"

namespace zl::services {
namespace {

int baseOf(const Snapshot& s) {
  return std::max(0, s.caseOf().indexOf(kBase));
}

std::string quote(const Figure& figure) {
  return figureText(figure, Kind::Quote);
}

}  // namespace

std::vector<Multiple> multiplesOf(const Snapshot& s, MultipleGroup group) {
  constexpr Multiple kUsual[] = {Multiple::PriceToEarnings,     Multiple::EvToEbitda,    Multiple::EvToEbit,
                                 Multiple::EvToSales,           Multiple::PriceToBook,   Multiple::PriceToFreeCash,
                                 Multiple::PriceToEarningsNext, Multiple::EvToEbitdaNext};
  const std::set<std::string>& chosen = s.caseOf().shownMultiples;
  std::vector<Multiple> list;
  for (const Multiple m : s.crossCheck.multiples) {
    const MultipleRule& rule = ruleOf(m);
    const bool shipped = static_cast<size_t>(m) < shippedMultiples().size();
    const bool trailing = rule.of == MultipleRule::Of::Trailing;
    bool wanted = group == MultipleGroup::All;
    if (group == MultipleGroup::Chosen) {
      wanted = chosen.empty() ? !shipped || std::find(std::begin(kUsual), std::end(kUsual), m) != std::end(kUsual)
                              : chosen.count(rule.id) > 0;
    }
    wanted = wanted || (group == MultipleGroup::OfPrice && trailing && !rule.ofFirm);
    wanted = wanted || (group == MultipleGroup::OfFirm && trailing && rule.ofFirm);
    wanted = wanted || (group == MultipleGroup::Expected && yearsAhead(rule.of) > 0);
    wanted = wanted || (group == MultipleGroup::Normal && rule.of == MultipleRule::Of::NormalYear);
    if (wanted) list.push_back(m);
  }
  return list;
}

Position positionOf(const Snapshot& s, Multiple m) {
  Position position;
  const model::RowId row = ownMultipleRow(s.model(), m);
  position.own =
      row.known() ? s.evaluation->constant(row, baseOf(s)) : Figure::absent("the model has no such multiple");
  position.percentile = position.own;
  if (!position.own.hasValue()) return position;
  std::vector<Figure> counted;
  for (const PeerRow& peer : s.crossCheck.rows) {
    if (peer.cells.at(m).in) counted.push_back(peer.cells.at(m).multiple);
  }
  position.percentile =
      counted.empty() ? Figure::absent("no peer counts") : percentileOf(position.own.value(), counted);
  return position;
}

std::optional<PeerEffect> effectOf(const Snapshot& s, const std::string& peer, Multiple m) {
  const auto row =
      std::find_if(s.crossCheck.rows.begin(), s.crossCheck.rows.end(), [&](const PeerRow& r) { return r.id == peer; });
  if (row == s.crossCheck.rows.end() || peer == s.company().id || !row->cells.at(m).multiple.hasValue())
    return std::nullopt;
  PeerEffect effect;
  effect.in = row->cells.at(m).in;
  Case other = s.caseOf();
  other.peers[peerChoiceKey(peer, m)] = PeerChoice{!effect.in, ""};
  effect.median = s.crossCheck.statistics.at(m).median;
  effect.medianThen = comparePeers(*s.ground, *s.market, givenChoicesOf(s.model(), other)).statistics.at(m).median;
  const int base = baseOf(s);
  effect.implied = impliedByPeers(*s.evaluation, m, "median", base);
  effect.impliedThen = effect.medianThen;
  const model::RowId given = s.model().peerRow(model::Declared::Given, multipleName(m), "median");
  const model::RowId value = s.model().peerRow(model::Declared::Row, multipleName(m), "median");
  if (given.known() && value.known() && effect.medianThen.hasValue())
    effect.impliedThen = probeScenario(s, base, {{{given, {effect.medianThen}}}}, value).front();
  return effect;
}

std::vector<PeerRatio> peerRatios(const Snapshot& s) {
  std::vector<PeerRatio> ratios;
  std::set<std::string> told;
  const MeasureBasis basis = basisOf(s.model(), s.caseOf());
  const int base = s.evaluation->layout().baseColumn();
  for (size_t r = 0; r < s.model().rows.size(); ++r) {
    const model::Row& row = s.model().rows[r];
    if (!row.peers || !row.peers->statistic.empty() || !told.insert(row.peers->measure).second) continue;
    PeerRatio ratio;
    ratio.row = model::RowId(r);
    ratio.peers = peerSpread(s.market->peers, s.company().id, row.peers->measure, basis);
    const Figure own = s.history->at(ratio.row, base);
    ratio.apart = own - ratio.peers.median;
    for (int back = 1; back <= 2; ++back)
      ratio.before.push_back(peerSpread(s.market->peers, s.company().id, row.peers->measure, basis, back));
    const int better = betterBy(row.peers->measure);
    if (better != 0 && own.hasValue() && ratio.peers.count > 0) {
      const bool above = own.value() > ratio.peers.upperQuartile.value();
      const bool below = own.value() < ratio.peers.lowerQuartile.value();
      if (above || below) ratio.judged = above == (better > 0) ? "better" : "worse";
    }
    ratios.push_back(std::move(ratio));
  }
  return ratios;
}

std::vector<Likeness> likenessOfPeers(const Snapshot& s) {
  std::vector<Likeness> all;
  const Subject& subject = s.crossCheck.subject;
  const auto subjects = [&](const char* measure) {
    const model::RowId row = rowOfMeasure(s.model(), measure);
    return row.known() ? s.history->at(row, s.evaluation->layout().baseColumn())
                       : Figure::absent("the model has no row of that measure");
  };
  for (size_t i = 0; i < s.crossCheck.rows.size() && i < s.market->peers.size(); ++i) {
    const PeerRow& row = s.crossCheck.rows[i];
    Likeness of;
    of.id = row.id;
    of.name = row.name;
    of.size = row.revenue / subject.revenue;
    of.unlike.push_back(row.outOfScale);
    of.apart = distancesOf(s.market->peers[i], subject, subjects);
    for (size_t k = 0; k < of.apart.size(); ++k)
      of.unlike.push_back(of.apart[k].hasValue() &&
                          std::fabs(of.apart[k].value()) > limitOf(s.caseOf(), likenessRules()[k].limit));
    of.identity = peerIdentity(s.company(), row);
    all.push_back(std::move(of));
  }
  return all;
}

ImpliedSpread impliedSpread(const Snapshot& s) {
  ImpliedSpread spread;
  std::vector<Figure> all;
  for (const Multiple m : s.crossCheck.multiples) {
    const Figure value = impliedByPeers(*s.evaluation, m, "median", baseOf(s));
    if (!value.hasValue()) continue;
    if (value.value() <= 0) {
      spread.nothing.push_back(m);  // the floor under a share is no value to be held against others
      continue;
    }
    if (all.empty() || value.value() < spread.low.value()) {
      spread.low = value;
      spread.lowest = m;
    }
    if (all.empty() || value.value() > spread.high.value()) {
      spread.high = value;
      spread.highest = m;
    }
    all.push_back(value);
  }
  spread.count = static_cast<int>(all.size());
  spread.middle = describe(all).median;
  return spread;
}

namespace {

/// Why two multiples imply values apart: another year, or what the subject keeps of a sale beside its peers.
std::string reasonApart(const Snapshot& s, const ImpliedSpread& spread) {
  const MultipleRule &low = ruleOf(spread.lowest), &high = ruleOf(spread.highest);
  if (low.of != high.of) return std::string(": one is of ") + wordsOf(low.of) + ", the other of " + wordsOf(high.of);
  const model::RowId margin = rowOfMeasure(s.model(), "ebit_margin");
  if (!margin.known()) return {};
  const Figure own = s.history->at(margin, s.evaluation->layout().baseColumn());
  const Figure theirs =
      peerSpread(s.market->peers, s.company().id, "ebit_margin", basisOf(s.model(), s.caseOf())).median;
  if (!own.hasValue() || !theirs.hasValue()) return {};
  return ": the subject keeps " + figureText(own, Kind::Ratio) + " % of a sale as EBIT, its peers " +
         figureText(theirs, Kind::Ratio) + " %";
}

}  // namespace

std::string impliedWords(const Snapshot& s) {
  const ImpliedSpread spread = impliedSpread(s);
  std::string nothing;
  for (const Multiple m : spread.nothing) nothing += (nothing.empty() ? "" : ", ") + multipleLabel(m);
  if (!nothing.empty()) nothing = " Nothing is left for shareholders by " + nothing + ".";
  if (spread.count == 0) return "No multiple of the peers values the subject yet." + nothing;
  const std::string unit = " " + s.company().listing.unit;
  std::string words = std::to_string(spread.count) + (spread.count == 1 ? " multiple values" : " multiples value") +
                      " the subject: their medians imply " + quote(spread.low) + " to " + quote(spread.high) + unit +
                      " a share, " + quote(spread.middle) + " in the middle";
  const Figure price = s.given(model::Role::Price).figure;
  if (price.hasValue()) words += "; the price is " + quote(price);
  if (spread.count > 1) {
    words += ". They lie " + groupedNumber(spread.high.value() / spread.low.value(), 1) + " times apart, least by " +
             multipleLabel(spread.lowest) + " and most by " + multipleLabel(spread.highest) + reasonApart(s, spread);
  }
  return words + "." + nothing;
}

}  // namespace zl::services
