#include "services/stories/peer_stories.h"

#include "core/peers/likeness.h"

#include <fmt/core.h>

#include <algorithm>
#include <chrono>

#include "core/capital/rates.h"
#include "core/quantity/number_text.h"
#include "exchange/content.h"
#include "services/stories/documents.h"
#include "services/stories/rows.h"
#include "services/views/dividend_view.h"

namespace zl::services {
namespace {

const Peer* find(const Snapshot& s, const std::string& id) {
  const auto& peers = s.market->peers;
  const auto found = std::find_if(peers.begin(), peers.end(), [&](const Peer& p) { return p.id == id; });
  return found == peers.end() ? nullptr : &*found;
}

std::string tableOf(const Snapshot& s) {
  return "from " + activeDocuments(s, exchange::ContentKind::PeerTable);
}

/// The same for one peer, with what the table says of where its figures are from.
std::string tableOf(const Snapshot& s, const Peer& peer) {
  return tableOf(s) + (peer.source.empty() ? "" : ": " + peer.source);
}

/// Money of a peer. Its unit, in its own currency, is said where a list of such begins.
std::string shown(const Figure& figure) {
  return figure.hasValue() ? figureText(figure, Kind::Money) : "absent: " + figure.reason();
}

std::string inUnit(const Peer& peer) {
  return ", " + unitText(Kind::Money, peer.currency, "");
}

/// The subject's twelve months as the peer's fiscal years cover them.
template <class Metric>
void tellYears(const Snapshot& s, const Peer& peer, const std::string& what, const Metric& metric, Story& story) {
  story.lines.push_back(what + inUnit(peer) + ", of the twelve months to " + dateText(s.years().back().end) + ":");
  for (const MonthsOf& part : monthsInside(peer.years, s.years().back().end)) {
    if (part.year >= peer.years.size()) continue;
    const PeerYear& year = peer.years[part.year];
    story.lines.push_back(
        fmt::format("    {} of 12 months to {}: {}", part.months, dateText(year.end), shown(metric(year))));
  }
}

void tellEquity(const Snapshot& s, const Peer& peer, Story& story) {
  const SpotRates rates = spotRatesAt(s.market->rates, s.caseOf().valuationDate);
  std::string price = "price " + groupedNumber(peer.price.valueOr(0), 2) + " " + peer.priceCurrency;
  if (!peer.price.hasValue()) price = "no price: " + peer.price.reason();
  if (peer.minorPerMajor != 1) price += fmt::format(" in units of which {} make one", peer.minorPerMajor);
  story.lines.push_back(price + " on " + dateText(peer.priceDate) + ", times " +
                        (peer.shares.hasValue() ? figureText(peer.shares, Kind::Shares) + " m shares, diluted"
                                                : "shares: " + peer.shares.reason()));
  if (peer.priceCurrency != peer.currency) {
    const Figure rate = spot(rates, peer.priceCurrency, peer.currency);
    story.lines.push_back(fmt::format("{} for one {}: {}; {}", peer.currency, peer.priceCurrency,
                                      rate.hasValue() ? groupedNumber(rate.value(), 4) : rate.reason(),
                                      "from " + activeDocuments(s, exchange::ContentKind::RateTable)));
  }
  story.lines.push_back("market value of equity" + inUnit(peer) + ": " + shown(marketEquity(peer, rates)));
}

void tellClaims(const Snapshot& s, const Peer& peer, const MeasureBasis& basis, Story& story) {
  const std::pair<const char*, const Figure*> claims[] = {{"plus debt", &peer.debt},
                                                          {"plus leases", basis.leasesAsDebt ? &peer.leases : nullptr},
                                                          {"plus preferred", &peer.preferred},
                                                          {"plus minorities", &peer.minorities},
                                                          {"plus pension", &peer.pension},
                                                          {"less cash", &peer.cash},
                                                          {"less associates", &peer.associates}};
  for (const auto& [what, claim] : claims) {
    if (claim != nullptr) story.lines.push_back(std::string("    ") + what + ": " + shown(*claim));
  }
  const SpotRates rates = spotRatesAt(s.market->rates, s.caseOf().valuationDate);
  story.lines.push_back("enterprise value: " + shown(enterpriseValue(peer, rates, basis)));
}

}  // namespace

Story peerRevenueStory(const Snapshot& s, const std::string& id) {
  const auto row =
      std::find_if(s.crossCheck.rows.begin(), s.crossCheck.rows.end(), [&](const PeerRow& r) { return r.id == id; });
  const Peer* peer = find(s, id);
  if (peer == nullptr || row == s.crossCheck.rows.end()) return {};
  Story story = storyAbout(s, peer->name + ", revenue", row->revenue, Kind::Money);
  tellYears(
      s, *peer, "revenue", [](const PeerYear& year) { return year.revenue; }, story);
  if (peer->currency != s.company().currency) {
    const Figure rate =
        spot(spotRatesAt(s.market->rates, s.caseOf().valuationDate), peer->currency, s.company().currency);
    story.lines.push_back(fmt::format("{} for one {}: {}", s.company().currency, peer->currency,
                                      rate.hasValue() ? groupedNumber(rate.value(), 4) : rate.reason()));
  }
  if (row->outOfScale)
    story.lines.push_back(
        fmt::format("more than {} times away from the subject's", plainNumber(s.crossCheck.subject.scaleLimit)));
  story.lines.push_back(tableOf(s, *peer));
  return story;
}

Story multipleStory(const Snapshot& s, const std::string& id, Multiple m) {
  const auto row =
      std::find_if(s.crossCheck.rows.begin(), s.crossCheck.rows.end(), [&](const PeerRow& r) { return r.id == id; });
  const Peer* peer = find(s, id);
  if (peer == nullptr || row == s.crossCheck.rows.end()) return {};
  const MultipleCell& cell = row->cells.at(m);
  Story story = storyAbout(s, peer->name + ", " + multipleLabel(m), cell.multiple, Kind::Multiple);
  const MeasureBasis basis = basisOf(s.evaluation->model(), s.caseOf());
  tellEquity(s, *peer, story);
  const MultipleRule& rule = ruleOf(m);
  if (rule.ofFirm) tellClaims(s, *peer, basis, story);
  const std::string over = std::string("over ") + rule.what + (rule.ofFirm ? " on the basis in use" : "");
  if (rule.balance || rule.of != MultipleRule::Of::Trailing) {
    const Date target = s.years().back().end;
    const std::string of =
        rule.balance ? ", of the last balance sheet: "
        : rule.of == MultipleRule::Of::NormalYear
            ? ": its mean share of revenue in up to five filed years, times the revenue of the "
              "twelve months to " +
                  dateText(target) + ": "
            : ", filed and expected, of the twelve months to " + dateText(addYears(target, yearsAhead(rule.of))) + ": ";
    story.lines.push_back(over + inUnit(*peer) + of + shown(metricOf(rule, *peer, basis, target)));
  } else {
    tellYears(
        s, *peer, over, [&](const PeerYear& year) { return rule.metric.of(basis, *peer, year); }, story);
  }
  story.lines.push_back(std::string(cell.in ? "counts" : "left out") + (cell.byHand ? ", by hand" : ", by the rules") +
                        (cell.reason().empty() ? "" : ": " + cell.reason()));
  if (cell.outlier) story.lines.emplace_back("more than 1.5 interquartile ranges outside the quartiles");
  story.lines.push_back(tableOf(s, *peer));
  return story;
}

Story multipleStatisticStory(const Snapshot& s, Multiple m, const std::string& statistic, const Figure& figure) {
  Story story = storyAbout(s, multipleLabel(m) + ", " + statistic, figure, Kind::Multiple);
  story.lines.emplace_back("of the multiples that count:");
  for (const PeerRow& row : s.crossCheck.rows) {
    const MultipleCell& cell = row.cells.at(m);
    if (cell.in) story.lines.push_back("    " + row.name + ": " + shownWithUnit(s, cell.multiple, Kind::Multiple));
  }
  return story;
}

Story pastStory(const Snapshot& s, const std::string& label, const PastSeries& of, const Figure& figure, Kind kind) {
  Story story = storyAbout(s, label, figure, kind);
  story.lines.push_back(fmt::format("of {} month ends that count; {} more are outliers, {} had no meaningful multiple",
                                    of.count, of.points.size() - static_cast<size_t>(of.count), of.left));
  story.lines.emplace_back(
      "the close then times the count of shares, over the last year that was known: three months "
      "after its end, as it was first filed");
  if (of.monthsBeside > 0) {
    story.lines.push_back(fmt::format(
        "the peers' median of the same kind stands beside it in {} months: their closes then, the count and the claims "
        "of today, over the year that had been filed by then",
        of.monthsBeside));
  }
  if (!of.points.empty()) {
    const PastMultiple& last = of.points.back();
    story.lines.push_back("the last that is meaningful: close of " + dateText(last.on) + ", year " +
                          s.periodOf(last.column));
    reads(s, story, of.row, last.column);
  }
  return story;
}

Story positionStory(const Snapshot& s, Multiple m, const Figure& percentile) {
  Story story = storyAbout(s, multipleLabel(m) + ", the subject's place among the peers", percentile, Kind::Ratio);
  story.lines.emplace_back("the share of the peers that count at or below the subject, ties by half");
  const model::RowId own = ownMultipleRow(s.model(), m);
  if (own.known()) reads(s, story, own, 0);
  return story;
}

Story peerSpreadStory(const Snapshot& s, const std::string& row, const std::string& statistic, const Figure& figure,
                      Kind kind) {
  const model::RowId index = s.evaluation->model().find(row);
  const std::string label = !index.known() ? row : rowAt(s, index).label;
  const std::string measure = !index.known() || !rowAt(s, index).peers ? "" : rowAt(s, index).peers->measure;
  Story story = storyAbout(s, label + ", peers' " + statistic, figure, kind);
  story.lines.emplace_back("of the peers' last fiscal years, on the basis in use:");
  const MeasureBasis basis = basisOf(s.evaluation->model(), s.caseOf());
  for (const Peer& peer : s.market->peers) {
    if (peer.id == s.company().id) continue;
    story.lines.push_back("    " + peer.name + ": " + shownOrWhy(s, peerMeasure(peer, measure, basis), kind));
  }
  story.lines.push_back(tableOf(s));
  return story;
}

Story outsideStory(const Snapshot& s, const OutsideMultiples& of, const std::string& label, const Figure& figure,
                   Kind kind) {
  Story story = storyAbout(s, of.label + ", " + label, figure, kind);
  constexpr size_t kMost = 12;
  const size_t first = of.points.size() > kMost ? of.points.size() - kMost : 0;
  if (first > 0) story.lines.push_back("the latest of " + std::to_string(of.points.size()) + ":");
  for (size_t i = first; i < of.points.size(); ++i) {
    const DatedMultiple& point = of.points[i];
    story.lines.push_back(point.whose + ", " + dateText(point.on) + ": " + groupedNumber(point.multiple, 2) +
                          (point.source.empty() ? "" : ", " + point.source));
  }
  story.lines.push_back("from " + activeDocuments(s, exchange::ContentKind::RateTable) + ", rates by name");
  return story;
}

Story othersStory(const Snapshot& s, const OthersValue& of, const std::string& label, const Figure& figure, Kind kind) {
  Story story = storyAbout(s, of.source + ", " + label, figure, kind);
  story.lines.push_back("said on " + dateText(of.on) + " of fiscal " + std::to_string(of.year));
  story.lines.push_back("from " + activeDocuments(s, exchange::ContentKind::EstimateTable));
  reads(s, story, model::Role::ValuePerShare);
  story.scenario = baseLane(s);
  return story;
}

Story dividendStory(const Snapshot& s, const std::string& label, int year, const Figure& figure, Kind kind) {
  Story story = storyAbout(s, label, figure, kind);
  const DividendView view = dividendView(s);
  const auto endMonth = static_cast<unsigned>(std::chrono::year_month_day(s.years().back().end).month());
  for (const DividendPayment& payment : view.payments) {
    const std::vector<DividendSum> of = byFiscalYear({payment}, endMonth);
    if (of.front().year != year) continue;
    story.lines.push_back(dateText(payment.on) + ": " + shownWithUnit(s, Figure::of(payment.amount), Kind::Quote) +
                          (payment.special ? ", special: more than twice the usual, or said so" : ""));
  }
  story.lines.push_back("from " + activeDocuments(s, exchange::ContentKind::SeriesTable));
  return story;
}

Story likenessStory(const Snapshot& s, const std::string& id, const std::string& measure, const Figure& figure,
                    Kind kind) {
  const Peer* peer = find(s, id);
  if (peer == nullptr) return {};
  const Subject& subject = s.crossCheck.subject;
  if (measure.empty()) {
    Story story = storyAbout(s, peer->name + ", times the subject's revenue", figure, kind);
    story.lines.push_back("the subject's, of the base year: " + shownOrWhy(s, subject.revenue, Kind::Money));
    reads(s, story, model::Role::Revenue, s.evaluation->layout().baseColumn());
    return story;
  }
  for (const LikenessRule& rule : likenessRules()) {
    if (rule.mix == nullptr || measure != rule.words) continue;
    Story story = storyAbout(s, peer->name + ", revenue from other " + measure, figure, kind);
    const auto told = [](const RevenueMix& mix) {
      std::string words;
      for (const auto& [name, share] : mix)
        words += (words.empty() ? "" : ", ") + name + " " + groupedNumber(share * 100, 0) + " %";
      return words.empty() ? std::string("nobody says") : words;
    };
    story.lines.push_back("the peer's: " + told(peer->*rule.mix));
    story.lines.push_back("the subject's, as filed for the base year: " + told(subject.*rule.own));
    story.lines.emplace_back(
        "half of the sum of the differences between the shares; parts are the same by their names");
    story.lines.push_back(tableOf(s, *peer));
    return story;
  }
  const model::RowId row = rowOfMeasure(s.model(), measure);
  const std::string label = row.known() ? s.model()[row].label : measure;
  Story story = storyAbout(s, peer->name + ", " + label + " less the subject's", figure, kind);
  story.lines.push_back("the peer's, of its last fiscal year: " +
                        shownOrWhy(s, peerMeasure(*peer, measure, subject.basis), kind));
  reads(s, story, row, s.evaluation->layout().baseColumn());
  story.lines.push_back(tableOf(s, *peer));
  return story;
}

Story impliedEnterpriseStory(const Snapshot& s, Multiple m, const std::string& statistic, const Figure& figure) {
  Story story = storyAbout(s, multipleLabel(m) + ", " + statistic + ", as enterprise value", figure, Kind::Money);
  story.lines.emplace_back("the implied value per share times the diluted count, with what comes before shareholders");
  story.scenario = baseLane(s);
  reads(s, story, s.model().peerRow(model::Declared::Row, multipleName(m), statistic), 0);
  for (const model::Role role : {model::Role::QuoteRate, model::Role::DilutedShares, model::Role::Claims})
    reads(s, story, role);
  return story;
}

}  // namespace zl::services
