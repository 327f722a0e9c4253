#include "services/reports/peer_tables.h"

#include <algorithm>

#include "core/quantity/number_text.h"
#include "services/reports/gather_figures.h"
#include "services/views/dividend_view.h"
#include "services/views/exit_return.h"
#include "services/views/method_figures.h"
#include "services/views/outside_multiples.h"
#include "services/views/parts_view.h"
#include "services/views/past_multiples.h"
#include "services/views/peer_view.h"
#include "services/views/why_differs.h"

namespace zl::services {
namespace {

void addWhy(const Snapshot& s, GatherFigures& gather) {
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  const WhyDiffers why = whyDiffers(s);
  const char* table = "why the multiple differs";
  constexpr const char* kNames[] = {"growth", "payout", "return on equity", "required return"};
  gather.add(table, multipleLabel(why.multiple) + ", subject", base, Kind::Multiple, why.own, "");
  gather.add(table, multipleLabel(why.multiple) + ", peers' median", base, Kind::Multiple, why.peers, "");
  for (size_t i = 0; i < why.grounds.size(); ++i) {
    const GroundOfGap& of = why.grounds[i];
    const std::string name = kNames[i];
    gather.add(table, name + ", subject", base, Kind::Ratio, of.here, "");
    gather.add(table, name + ", peers' median", base, Kind::Ratio, of.there,
               of.how + ", " + std::to_string(of.count) + " of them");
    gather.add(table, name + ", part of the gap in log points", base, Kind::Ratio, of.part,
               why.gap.known[i] ? "" : "the peers' is not known");
  }
  gather.add(table, "justified for the subject", base, Kind::Multiple, why.gap.justifiedHere, "");
  gather.add(table, "justified for the peers", base, Kind::Multiple, why.gap.justifiedThere, "");
  gather.add(table, "the gap in log points", base, Kind::Ratio, why.gap.whole, "");
  gather.add(table, "not explained", base, Kind::Ratio, why.gap.unexplained, why.words);
}

void addFit(const Snapshot& s, Multiple m, GatherFigures& gather) {
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  const MultipleFit fit = fitAcrossPeers(s, m);
  const std::string name = multipleLabel(m);
  const char* table = "fitted across the peers";
  const std::string of = "of " + std::to_string(fit.count) + " peers";
  const std::array<std::string, 3> traits = traitsOf(m);
  gather.add(table, name + ", begins at", base, Kind::Multiple, fit.intercept, of);
  for (size_t k = 0; k < traits.size(); ++k)
    gather.add(table, name + ", for 100 % of " + traits[k], base, Kind::Multiple, fit.slopes[k], of);
  gather.add(table, name + ", share told", base, Kind::Ratio, fit.rSquared, of);
  gather.add(table, name + ", adjusted", base, Kind::Ratio, fit.adjusted, of);
  gather.add(table, name + ", standard error", base, Kind::Multiple, fit.standardError, of);
  gather.add(table, name + ", the subject's by it", base, Kind::Multiple, fit.subjects, of);
  for (const FittedPeer& peer : fit.peers) {
    gather.add(table, name + ", " + peer.name + ", fitted", base, Kind::Multiple, peer.fitted, "");
    gather.add(table, name + ", " + peer.name + ", beyond it", base, Kind::Multiple, peer.residual, "");
  }
}

void addOutside(const Snapshot& s, GatherFigures& gather) {
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  const OutsideView view = outsideMultiples(s);
  for (const auto& [table, list] : {std::pair("sectors over time", &view.sectors), std::pair("deals", &view.deals)}) {
    for (const OutsideMultiples& of : *list) {
      const std::string counted = "of " + std::to_string(of.count);
      gather.add(table, of.label + ", latest", base, Kind::Multiple, of.latest, of.points.back().source);
      gather.add(table, of.label + ", low", base, Kind::Multiple, of.low, counted);
      gather.add(table, of.label + ", median", base, Kind::Multiple, of.median, counted);
      gather.add(table, of.label + ", high", base, Kind::Multiple, of.high, counted);
      gather.add(table, of.label + ", place of the latest", base, Kind::Ratio, of.percentile, counted);
      gather.add(table, of.label + ", implied by the low", base, Kind::Quote, of.impliedLow, "");
      gather.add(table, of.label + ", implied by the median", base, Kind::Quote, of.implied, "");
      gather.add(table, of.label + ", implied by the high", base, Kind::Quote, of.impliedHigh, "");
      for (const DatedMultiple& point : of.points)
        gather.add(table, point.whose + ", " + dateText(point.on), base, Kind::Multiple, Figure::of(point.multiple),
                   point.source);
    }
  }
  for (const std::string& name : view.untold)
    gather.add("deals", name, base, Kind::Multiple, Figure::absent("it names no multiple or nobody"), "");
  for (const OthersValue& of : othersValues(s)) {
    gather.add("others' valuations", of.source + ", " + std::to_string(of.year), base, Kind::Quote, Figure::of(of.mean),
               dateText(of.on));
    gather.add("others' valuations", of.source + ", base against it", base, Kind::Ratio, of.against, "");
  }
}

void addPayments(const Snapshot& s, GatherFigures& gather) {
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  const DividendView view = dividendView(s);
  gather.add("payments", "of the twelve months to the valuation date", base, Kind::Quote, view.lastYear, view.words);
  gather.add("payments", "yield on the price", base, Kind::Ratio, view.yield, "");
  for (const DividendPayment& payment : view.payments)
    gather.add("payments", dateText(payment.on), base, Kind::Quote, Figure::of(payment.amount),
               payment.special ? "special" : "");
  for (const DividendSum& sum : view.quarters)
    gather.add("payments by quarter", std::to_string(sum.year) + " Q" + std::to_string(sum.quarter), base, Kind::Quote,
               Figure::of(sum.regular), sum.special > 0 ? "and special " + plainNumber(sum.special) : "");
  for (const DividendYear& year : view.years) {
    const std::string label = std::to_string(year.sum.year);
    gather.add("payments by fiscal year", label, base, Kind::Quote, Figure::of(year.sum.regular),
               year.sum.special > 0 ? "and special " + plainNumber(year.sum.special) : "");
    gather.add("payments by fiscal year", label + ", growth", base, Kind::Ratio, year.sum.growth, "");
    gather.add("payments by fiscal year", label + ", cover by earnings", base, Kind::Multiple, year.cover, "");
  }
}

}  // namespace

std::vector<ReportFigure> multipleFigures(const Snapshot& s) {
  GatherFigures gather(s);
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  for (const Multiple multiple : s.crossCheck.multiples) {
    const char* table = multipleLabel(multiple).c_str();
    for (const PeerRow& peer : s.crossCheck.rows) {
      const MultipleCell& cell = peer.cells.at(multiple);
      gather.add(table, peer.name, base, Kind::Multiple, cell.multiple,
                 std::string(cell.in ? "counts" : "left out") + (cell.said.empty() ? "" : ": " + cell.said) +
                     (cell.outlier ? "; an outlier" : ""));
    }
    const MultipleStatistics& of = s.crossCheck.statistics.at(multiple);
    const std::pair<const char*, const Figure*> kStatistics[] = {
        {"low", &of.low},   {"lower quartile", &of.lowerQuartile}, {"median", &of.median},
        {"mean", &of.mean}, {"harmonic mean", &of.harmonicMean},   {"upper quartile", &of.upperQuartile},
        {"high", &of.high}};
    for (const auto& [what, figure] : kStatistics)
      gather.add(table, what, base, Kind::Multiple, *figure, "of " + std::to_string(of.count));
    const Position position = positionOf(s, multiple);
    gather.add(table, "subject at the price", base, Kind::Multiple, position.own, "");
    gather.add(table, "its place among the peers", base, Kind::Ratio, position.percentile, "");
    for (const char* statistic : kValuedStatistics) {
      for (int k = 0; k < s.evaluation->scenarios(); ++k)
        gather.add(table, std::string("implied enterprise value, ") + statistic + ", " + gather.scenario(k), k,
                   Kind::Money, impliedEnterprise(*s.evaluation, multiple, statistic, k), "");
      for (int k = 0; k < s.evaluation->scenarios(); ++k)
        gather.add(table, std::string("implied per share, ") + statistic + ", " + gather.scenario(k), k, Kind::Quote,
                   impliedByPeers(*s.evaluation, multiple, statistic, k), "");
    }
  }
  addOutside(s, gather);
  return gather.take();
}

std::vector<ReportFigure> ratioFigures(const Snapshot& s) {
  GatherFigures gather(s);
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  for (const PeerRatio& ratio : peerRatios(s)) {
    const model::Row& row = s.model()[ratio.row];
    const std::string of = "of " + std::to_string(ratio.peers.count) + " peers";
    gather.add("ratios beside the peers'", row.label + ", subject", base, row.kind,
               s.history->at(ratio.row, s.evaluation->layout().baseColumn()),
               s.periodOf(s.evaluation->layout().baseColumn()));
    gather.add("ratios beside the peers'", row.label + ", peers' low", base, row.kind, ratio.peers.low, of);
    gather.add("ratios beside the peers'", row.label + ", peers' median", base, row.kind, ratio.peers.median, of);
    gather.add("ratios beside the peers'", row.label + ", peers' high", base, row.kind, ratio.peers.high, of);
    gather.add("ratios beside the peers'", row.label + ", peers' lower quartile", base, row.kind,
               ratio.peers.lowerQuartile, of);
    gather.add("ratios beside the peers'", row.label + ", peers' upper quartile", base, row.kind,
               ratio.peers.upperQuartile, of);
    gather.add("ratios beside the peers'", row.label + ", subject less median", base, row.kind, ratio.apart,
               ratio.judged);
    for (size_t back = 0; back < ratio.before.size(); ++back)
      gather.add("ratios beside the peers'", row.label + ", peers' median " + std::to_string(back + 1) + " before",
                 base, row.kind, ratio.before[back].median,
                 "of " + std::to_string(ratio.before[back].count) + " peers");
  }
  gather.byScenario("justified multiples", "justified");
  addWhy(s, gather);
  for (const Multiple m : multiplesOf(s, MultipleGroup::Chosen)) addFit(s, m, gather);
  return gather.take();
}

std::vector<ReportFigure> pastFigures(const Snapshot& s) {
  GatherFigures gather(s);
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  const PastMultiples past = pastMultiples(s);
  for (const PastSeries& of : past.series) {
    const std::string counted = std::to_string(of.count) + (of.count == 1 ? " month counts" : " months count") +
                                (past.note.empty() ? "" : ". " + past.note);
    const std::pair<const char*, const Figure*> kStatistics[] = {
        {"today", &of.today},   {"low", &of.low},   {"lower quartile", &of.lowerQuartile},
        {"median", &of.median}, {"mean", &of.mean}, {"upper quartile", &of.upperQuartile},
        {"high", &of.high}};
    for (const auto& [what, figure] : kStatistics)
      gather.add("own past multiples", of.label + ", " + what, base, Kind::Multiple, *figure, counted);
    gather.add("own past multiples", of.label + ", today's place", base, Kind::Ratio, of.percentile, counted);
  }
  for (const PastSeries& of : past.series) {
    const std::string beside = "over " + std::to_string(of.monthsBeside) + " months in which peers' closes are known";
    gather.add("beside the peers over time", of.label + ", peers' median today", base, Kind::Multiple, of.peersToday,
               "");
    gather.add("beside the peers over time", of.label + ", apart today", base, Kind::Ratio, of.gapToday, "");
    gather.add("beside the peers over time", of.label + ", apart as a rule", base, Kind::Ratio, of.usualGap, beside);
  }
  for (const PastSeries& of : past.series) {
    for (const PastMultiple& p : of.points)
      gather.add("by month", of.label + ", " + dateText(p.on), base, Kind::Multiple, Figure::of(p.multiple),
                 s.periodOf(p.column) + (p.outlier ? ", an outlier" : "") +
                     (p.peersCount > 0 ? ", peers at " + figureText(Figure::of(p.peers), Kind::Multiple) + " (" +
                                             std::to_string(p.peersCount) + " of them)"
                                       : ""));
  }
  return gather.take();
}

std::vector<ReportFigure> exitFigures(const Snapshot& s) {
  GatherFigures gather(s);
  gather.byScenario("exit return", "exit_return", exitYear(s, std::max(0, s.caseOf().indexOf(kBase))));
  const ExitBeside beside = exitBeside(s);
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  const std::pair<const char*, const Figure*> kPast[] = {
      {"lower quartile", &beside.lower}, {"median", &beside.median}, {"upper quartile", &beside.upper}};
  for (const auto& [what, figure] : kPast)
    gather.add("the multiple beside the own past", std::string("own past, ") + what, base, Kind::Multiple, *figure,
               beside.label);
  for (size_t k = 0; k < beside.scenarios.size(); ++k) {
    const ExitBeside::Of& of = beside.scenarios[k];
    const int lane = static_cast<int>(k);
    gather.add("the multiple beside the own past", "premium over its median, " + gather.scenario(lane), lane,
               Kind::Ratio, of.overMedian, of.reason);
    gather.add("the multiple beside the own past", "premium over what is justified, " + gather.scenario(lane), lane,
               Kind::Ratio, of.overJustified, of.reason);
  }
  for (int k = 0; k < s.evaluation->scenarios(); ++k) {
    const ExitReturn of = exitReturn(s, k);
    const auto add = [&](const char* label, const Figure& figure) {
      gather.add("return from today's price", label, k, Kind::Ratio, figure, "");
    };
    add("a year", of.yearly);
    add("in all", of.total);
    add("of it by revenue", of.split.revenue);
    add("of it by margin", of.split.margin);
    add("of it by the count of shares", of.split.count);
    add("of it by the multiple", of.split.multiple);
    add("of it by dividends", of.split.dividends);
  }
  const ExitGrid grid = exitGrid(s, base);
  for (size_t g = 0; g < grid.growths.size(); ++g) {
    for (size_t m = 0; m < grid.multiples.size(); ++m)
      gather.add("yearly return by growth and multiple",
                 groupedNumber(grid.growths[g] * 100, 1) + " % and " + groupedNumber(grid.multiples[m], 2) + " x", base,
                 Kind::Ratio, grid.yearly[g][m], "");
  }
  for (int k = 0; k < s.evaluation->scenarios(); ++k) gather.byYear("exit return by year", "exit_return_years", k);
  return gather.take();
}

std::vector<ReportFigure> dividendFigures(const Snapshot& s) {
  GatherFigures gather(s);
  addPayments(s, gather);
  gather.byScenario("dividends", "dividends");
  gather.byScenario("growth multiple", "growth_multiple");
  gather.byScenario("yields beside bonds", "yields");
  gather.byScenario("excess return on book", "excess_book");
  gather.byScenario("own past multiple as a method", "past_method");
  gather.byScenario("a normal year", "normal_year");
  gather.byScenario("weights and the blend", "blend");
  for (int k = 0; k < s.evaluation->scenarios(); ++k) {
    gather.byYear("dividends by year", "dividend_years", k);
    gather.byYear("excess return on book by year", "excess_book_years", k);
  }
  return gather.take();
}

std::vector<ReportFigure> partsFigures(const Snapshot& s) {
  GatherFigures gather(s);
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  const PartsView view = partsView(s);
  for (size_t i = 0; i < view.sum.parts.size(); ++i) {
    const ValuedPart& v = view.sum.parts[i];
    const std::string key = i < view.cut.keys.size() ? view.cut.keys[i] : std::string();
    const auto add = [&](const char* what, Kind kind, const Figure& figure, const std::string& source) {
      gather.add("parts", v.part.label + ", " + what, base, kind, figure, source);
    };
    add("revenue", Kind::Money, v.part.revenue, key);
    add("profit", Kind::Money, v.part.profit, key);
    add("multiple", Kind::Multiple,
        v.part.choice ? Figure::of(v.part.choice->multiple) : Figure::absent("no multiple is chosen"),
        !v.part.choice ? ""
                       : std::string(v.part.choice->of == PartChoice::Of::Ebit ? "of profit" : "of revenue") +
                             (v.part.choice->said.reason.empty() ? "" : ", " + v.part.choice->said.reason));
    add("worth", Kind::Money, v.value, "");
    add("share of all", Kind::Ratio, v.share, "");
  }
  gather.add("parts", "costs of no part", base, Kind::Money, view.sum.unallocated, kUnallocated);
  gather.add("parts", "what they take off", base, Kind::Money, view.sum.unallocatedValue, "");
  gather.add("parts", "together", base, Kind::Money, view.sum.enterprise, view.words);
  gather.add("peers' medians", "EV to EBIT", base, Kind::Multiple, view.byProfit, "");
  gather.add("peers' medians", "EV to sales", base, Kind::Multiple, view.byRevenue, "");
  gather.byScenario("to a share", "parts");
  return gather.take();
}

}  // namespace zl::services
