#include "core/peers/multiples.h"

#include <algorithm>

#include "core/peers/peer.h"

namespace zl {
namespace {

Figure given(const Figure& figure, const char* column) {
  return figure.isAbsent() ? Figure::absent(std::string("the peer table does not give ") + column) : figure;
}

Figure earnings(const MeasureBasis&, const Peer&, const PeerYear& y) {
  return given(y.netIncome, "net_income");
}
Figure sales(const MeasureBasis&, const Peer&, const PeerYear& y) {
  return given(y.revenue, "revenue");
}
Figure book(const MeasureBasis&, const Peer&, const PeerYear& y) {
  return given(y.equity, "equity");
}
Figure tangibleBook(const MeasureBasis&, const Peer&, const PeerYear& y) {
  return given(y.equity, "equity") - given(y.intangibles, "intangibles");
}
Figure operatingCash(const MeasureBasis&, const Peer&, const PeerYear& y) {
  return given(y.operatingCashFlow, "operating_cash_flow");
}
Figure freeCash(const MeasureBasis&, const Peer&, const PeerYear& y) {
  return given(y.operatingCashFlow, "operating_cash_flow") - given(y.capex, "capex");
}
Figure ebitda(const MeasureBasis& basis, const Peer& peer, const PeerYear& y) {
  return ebitdaOn(basis, peer, y);
}
Figure ebit(const MeasureBasis& basis, const Peer& peer, const PeerYear& y) {
  return ebitOn(basis, peer, y);
}
Figure nopat(const MeasureBasis& basis, const Peer& peer, const PeerYear& y) {
  const Figure change = ebitOn(basis, peer, y) - y.ebit;  // what the basis adds bears no tax
  return given(y.nopat, "nopat") + change;
}
/// The financing side of the last balance sheet, at book.
Figure capital(const MeasureBasis& basis, const Peer& peer, const PeerYear& y) {
  const Figure leases = basis.leasesAsDebt ? peer.leases : Figure::of(0);
  return given(y.equity, "equity") + peer.debt + leases + peer.preferred + peer.minorities + peer.pension - peer.cash -
         peer.associates;
}

}  // namespace

const std::vector<MultipleRule>& multipleRules() {
  using M = Multiple;
  static const std::vector<MultipleRule> kRules = {
      {M::PriceToEarnings, "price-earnings", "price_to_earnings", "Price to earnings", "earnings", "P/E", false, 0,
       false, earnings},
      {M::EvToEbitda, "ev-ebitda", "ev_to_ebitda", "EV to EBITDA", "EBITDA", "EV/EBITDA", true, 0, false, ebitda},
      {M::PriceToSales, "price-sales", "price_to_sales", "Price to sales", "sales", "P/sales", false, 0, false, sales},
      {M::PriceToBook, "price-book", "price_to_book", "Price to book", "book", "P/book", false, 0, true, book},
      {M::PriceToTangibleBook, "price-tangible-book", "price_to_tangible_book", "Price to tangible book",
       "tangible book", "P/tangible", false, 0, true, tangibleBook},
      {M::PriceToOperatingCash, "price-operating-cash", "price_to_operating_cash", "Price to operating cash",
       "operating cash flow", "P/op. cash", false, 0, false, operatingCash},
      {M::PriceToFreeCash, "price-free-cash", "price_to_free_cash", "Price to free cash", "free cash flow",
       "P/free cash", false, 0, false, freeCash},
      {M::EvToSales, "ev-sales", "ev_to_sales", "EV to sales", "sales", "EV/sales", true, 0, false, sales},
      {M::EvToEbit, "ev-ebit", "ev_to_ebit", "EV to EBIT", "EBIT", "EV/EBIT", true, 0, false, ebit},
      {M::EvToNopat, "ev-nopat", "ev_to_nopat", "EV to NOPAT", "NOPAT", "EV/NOPAT", true, 0, false, nopat},
      {M::EvToCapital, "ev-capital", "ev_to_capital", "EV to invested capital", "invested capital", "EV/capital", true,
       0, true, capital},
      {M::PriceToEarningsThis, "price-earnings-this", "price_to_earnings_this", "Price to earnings, this year",
       "earnings of this year", "P/E this", false, 1, false, earnings},
      {M::EvToSalesThis, "ev-sales-this", "ev_to_sales_this", "EV to sales, this year", "sales of this year",
       "EV/sales this", true, 1, false, sales},
      {M::EvToEbitdaThis, "ev-ebitda-this", "ev_to_ebitda_this", "EV to EBITDA, this year", "EBITDA of this year",
       "EV/EBITDA this", true, 1, false, ebitda},
      {M::EvToEbitThis, "ev-ebit-this", "ev_to_ebit_this", "EV to EBIT, this year", "EBIT of this year", "EV/EBIT this",
       true, 1, false, ebit},
      {M::PriceToEarningsNext, "price-earnings-next", "price_to_earnings_next", "Price to earnings, next year",
       "earnings of next year", "P/E next", false, 2, false, earnings},
      {M::EvToSalesNext, "ev-sales-next", "ev_to_sales_next", "EV to sales, next year", "sales of next year",
       "EV/sales next", true, 2, false, sales},
      {M::EvToEbitdaNext, "ev-ebitda-next", "ev_to_ebitda_next", "EV to EBITDA, next year", "EBITDA of next year",
       "EV/EBITDA next", true, 2, false, ebitda},
      {M::EvToEbitNext, "ev-ebit-next", "ev_to_ebit_next", "EV to EBIT, next year", "EBIT of next year", "EV/EBIT next",
       true, 2, false, ebit}};
  return kRules;
}

const MultipleRule& ruleOf(Multiple m) {
  const auto& rules = multipleRules();
  return *std::find_if(rules.begin(), rules.end(), [&](const MultipleRule& r) { return r.multiple == m; });
}

const char* multipleId(Multiple m) {
  return ruleOf(m).id;
}

const char* multipleLabel(Multiple m) {
  return ruleOf(m).label;
}

const char* multipleName(Multiple m) {
  return ruleOf(m).name;
}

}  // namespace zl
