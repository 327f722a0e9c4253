#include "core/peers/measures.h"

#include <map>

#include "core/history/statistics.h"

namespace zl {
namespace {

struct Years {
  const Peer& peer;
  const MeasureBasis& basis;
  const PeerYear& last;
  const PeerYear* before;  ///< null where one year is all there is
};

Figure over(const Figure& part, const Figure& whole, const char* whyNot) {
  if (const Figure* gap = decidingGap({&part, &whole})) return *gap;
  return whole.value() > 0 ? part / whole : Figure::notMeaningful(whyNot);
}

Figure ofRevenue(const Years& y, const Figure& part) {
  return over(part, y.last.revenue, "revenue is not positive");
}

Figure ebitda(const Years& y) {
  return ebitdaOn(y.basis, y.peer, y.last);
}

bool filedOnAnotherLeaseBasis(const Years& y) {
  return y.basis.leasesAsDebt == y.peer.filesRent;
}

Figure ebit(const Years& y) {
  return ebitOn(y.basis, y.peer, y.last);
}

Figure interest(const Years& y) {
  return filedOnAnotherLeaseBasis(y) ? Figure::absent("interest is filed on another lease basis") : y.last.interest;
}

Figure equity(const Years& y) {
  const bool asFiled = !filedOnAnotherLeaseBasis(y) && y.basis.researchAsCost;
  return asFiled ? y.last.equity : Figure::absent("equity is filed on another basis");
}

Figure claims(const Years& y) {
  return y.basis.leasesAsDebt ? y.peer.debt + y.peer.leases : y.peer.debt;
}

Figure growth(const Years& y) {
  if (y.before == nullptr) return Figure::absent("there is one fiscal year only");
  return zl::growth(y.before->revenue, y.last.revenue);
}

Figure returnOnEquity(const Years& y) {
  if (y.before == nullptr) return Figure::absent("there is one fiscal year only");
  return over(y.last.netIncome, (y.last.equity + y.before->equity) * Figure::of(0.5), "average equity is not positive");
}

using Measure = Figure (*)(const Years&);

const std::map<std::string, Measure>& measures() {
  static const std::map<std::string, Measure> kMeasures = {
      {"revenue_growth", growth},
      {"roe", returnOnEquity},
      {"ebitda_margin", [](const Years& y) { return ofRevenue(y, ebitda(y)); }},
      {"ebit_margin", [](const Years& y) { return ofRevenue(y, ebit(y)); }},
      {"net_margin", [](const Years& y) { return ofRevenue(y, y.last.netIncome); }},
      {"operating_cash_margin", [](const Years& y) { return ofRevenue(y, y.last.operatingCashFlow); }},
      {"capex_ratio", [](const Years& y) { return ofRevenue(y, y.last.capex); }},
      {"stock_pay_ratio", [](const Years& y) { return ofRevenue(y, y.last.stockPay); }},
      {"research_ratio", [](const Years& y) { return ofRevenue(y, y.last.research); }},
      {"interest_cover", [](const Years& y) { return over(ebit(y), interest(y), "no interest"); }},
      {"ebitda_cover", [](const Years& y) { return over(ebitda(y), interest(y), "no interest"); }},
      {"profit_to_cash",
       [](const Years& y) { return over(y.last.operatingCashFlow, y.last.netIncome, "net income is not positive"); }},
      {"net_debt_to_ebitda",
       [](const Years& y) { return over(claims(y) - y.peer.cash, ebitda(y), "EBITDA is not positive"); }},
      {"debt_to_capital",
       [](const Years& y) { return over(claims(y), claims(y) + equity(y), "capital is not positive"); }},
  };
  return kMeasures;
}

}  // namespace

const std::vector<std::string>& peerMeasures() {
  static const std::vector<std::string> kNames = [] {
    std::vector<std::string> names;
    for (const auto& [name, measure] : measures()) names.push_back(name);
    return names;
  }();
  return kNames;
}

Figure peerMeasure(const Peer& peer, const std::string& row, const MeasureBasis& basis) {
  const auto found = measures().find(row);
  if (found == measures().end()) return Figure::absent("the peer table has no such figure");
  if (peer.years.empty()) return Figure::absent("no fiscal year is given");
  const size_t last = peer.years.size() - 1;
  return found->second({peer, basis, peer.years[last], last > 0 ? &peer.years[last - 1] : nullptr});
}

PeerSpread peerSpread(const std::vector<Peer>& peers, const std::string& subject, const std::string& row,
                      const MeasureBasis& basis) {
  std::vector<Figure> figures;
  for (const Peer& peer : peers) {
    if (peer.id != subject) figures.push_back(peerMeasure(peer, row, basis));
  }
  const Statistics all = describe(figures);
  return {all.count, all.low, all.median, all.high};
}

}  // namespace zl
