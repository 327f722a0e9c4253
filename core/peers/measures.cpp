#include "core/peers/measures.h"

#include <algorithm>
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

struct Measure {
  Figure (*of)(const Years&);
  int better;           ///< 1: more is, -1: less is, 0: not said
  bool claims = false;  ///< needs the claims, which are of the last balance sheet
};

const std::map<std::string, Measure>& measures() {
  static const std::map<std::string, Measure> kMeasures = {
      {"revenue_growth", {growth, 1}},
      {"roe", {returnOnEquity, 1}},
      {"ebitda_margin", {[](const Years& y) { return ofRevenue(y, ebitda(y)); }, 1}},
      {"ebit_margin", {[](const Years& y) { return ofRevenue(y, ebit(y)); }, 1}},
      {"net_margin", {[](const Years& y) { return ofRevenue(y, y.last.netIncome); }, 1}},
      {"operating_cash_margin", {[](const Years& y) { return ofRevenue(y, y.last.operatingCashFlow); }, 1}},
      {"capex_ratio", {[](const Years& y) { return ofRevenue(y, y.last.capex); }, 0}},
      {"stock_pay_ratio", {[](const Years& y) { return ofRevenue(y, y.last.stockPay); }, -1}},
      {"research_ratio", {[](const Years& y) { return ofRevenue(y, y.last.research); }, 0}},
      {"interest_cover", {[](const Years& y) { return over(ebit(y), interest(y), "no interest"); }, 1}},
      {"ebitda_cover", {[](const Years& y) { return over(ebitda(y), interest(y), "no interest"); }, 1}},
      {"profit_to_cash",
       {[](const Years& y) { return over(y.last.operatingCashFlow, y.last.netIncome, "net income is not positive"); },
        1}},
      {"net_debt_to_ebitda",
       {[](const Years& y) { return over(claims(y) - y.peer.cash, ebitda(y), "EBITDA is not positive"); }, -1, true}},
      {"debt_to_capital",
       {[](const Years& y) { return over(claims(y), claims(y) + equity(y), "capital is not positive"); }, -1, true}},
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

model::RowId rowOfMeasure(const model::Model& m, const std::string& measure) {
  const auto row = std::find_if(m.rows.begin(), m.rows.end(), [&](const model::Row& r) {
    return r.peers && r.peers->statistic.empty() && r.peers->measure == measure;
  });
  return row == m.rows.end() ? model::RowId() : model::RowId(static_cast<size_t>(row - m.rows.begin()));
}

int betterBy(const std::string& row) {
  const auto found = measures().find(row);
  return found == measures().end() ? 0 : found->second.better;
}

Figure peerMeasure(const Peer& peer, const std::string& row, const MeasureBasis& basis, int back) {
  const auto found = measures().find(row);
  if (found == measures().end()) return Figure::absent("the peer table has no such figure");
  if (back > 0 && found->second.claims) return Figure::absent("claims are of the last balance sheet alone");
  const int at = static_cast<int>(peer.years.size()) - 1 - back;
  if (at < 0)
    return Figure::absent(back == 0 ? "no fiscal year is given" : "the peer's years do not reach back so far");
  const auto year = static_cast<size_t>(at);
  return found->second.of({peer, basis, peer.years[year], at > 0 ? &peer.years[year - 1] : nullptr});
}

PeerSpread peerSpread(const std::vector<Peer>& peers, const std::string& subject, const std::string& row,
                      const MeasureBasis& basis, int back) {
  std::vector<Figure> figures;
  for (const Peer& peer : peers) {
    if (peer.id != subject) figures.push_back(peerMeasure(peer, row, basis, back));
  }
  const Statistics all = describe(figures);
  return {all.count, all.low, all.lowerQuartile, all.median, all.upperQuartile, all.high};
}

}  // namespace zl
