#include "services/library/companions.h"

#include <algorithm>
#include <array>

#include "core/evidence/estimate.h"
#include "services/library/stored_case.h"

namespace zl::services {
namespace {

using model::Role;

/// In the order of the view as_peer_years; after them come tangible book, then the rows that are not of a year.
constexpr std::array kOfYear = {
    &PeerYear::revenue,           &PeerYear::ebitda, &PeerYear::netIncome, &PeerYear::ebit,      &PeerYear::interest,
    &PeerYear::operatingCashFlow, &PeerYear::capex,  &PeerYear::equity,    &PeerYear::leaseCost, &PeerYear::stockPay,
    &PeerYear::research,          &PeerYear::nopat,  &PeerYear::dividends};
/// In the order of the view as_peer_claims; after them comes the choice of how leases are filed.
constexpr std::array kClaims = {&Peer::debt,    &Peer::leases, &Peer::preferred, &Peer::minorities,
                                &Peer::pension, &Peer::cash,   &Peer::associates};

PeerYear filedYear(const Evaluated& e, const std::vector<model::ViewRow>& rows, int column) {
  PeerYear year;
  year.end = e.ground->years()[static_cast<size_t>(column)].end;
  const model::HistoryTable& history = *e.ground->history->adjusted;
  for (size_t i = 0; i < kOfYear.size(); ++i) year.*kOfYear[i] = history.at(rows[i].row, column);
  year.intangibles = year.equity - history.at(rows[kOfYear.size()].row, column);
  return year;
}

/// Each line that somebody estimates; the others stay absent.
std::vector<PeerYear> expectedYears(const Evaluated& e, const std::vector<model::ViewRow>& rows) {
  const Date last = e.ground->years().back().end;
  std::vector<PeerYear> years;
  for (const Estimate& one : latestEstimates(e.market->estimates, e.caseOf().valuationDate)) {
    const int ahead = one.year - e.ground->years().back().label();
    if (ahead < 1) continue;
    for (size_t i = 0; i < kOfYear.size(); ++i) {
      if (e.evaluation->model()[rows[i].row].name != one.item) continue;
      const Date end = addYears(last, ahead);
      auto at = std::find_if(years.begin(), years.end(), [&](const PeerYear& y) { return y.end == end; });
      if (at == years.end()) {
        at = years.insert(years.end(), PeerYear{});
        at->end = end;
      }
      (*at).*kOfYear[i] = Figure::of(one.mean);
    }
  }
  std::sort(years.begin(), years.end(), [](const PeerYear& a, const PeerYear& b) { return a.end < b.end; });
  return years;
}

}  // namespace

Result<Peer> asPeer(const Evaluated& e) {
  const model::Model& m = e.evaluation->model();
  const Company& company = e.ground->evidence->company;
  const auto& years = m.view("as_peer_years");
  const auto& claims = m.view("as_peer_claims");
  if (years.size() <= kOfYear.size() || claims.size() <= kClaims.size()) {
    return fail(ErrorKind::Unsupported, "the model '" + m.title + "' does not say what a peer is told by", company.name,
                "Give that company the standard model");
  }
  Peer peer;
  peer.id = company.id;
  peer.name = company.name;
  peer.currency = company.currency;
  peer.priceCurrency = company.listing.currency;
  peer.minorPerMajor = company.listing.minorPerMajor;
  if (e.market->prices.empty()) {
    peer.price = Figure::absent("the book has no price of " + company.name);
    peer.priceDate = e.caseOf().valuationDate;
  } else {
    peer.price = Figure::of(e.market->prices.back().close);
    peer.priceDate = e.market->prices.back().date;
  }
  const int base = std::max(0, e.caseOf().indexOf(kBase));
  peer.shares = e.evaluation->constant(Role::DilutedShares, base) / Figure::of(company.listing.sharesPerListed);
  const int last = static_cast<int>(e.ground->years().size()) - 1;
  for (size_t i = 0; i < kClaims.size(); ++i) peer.*kClaims[i] = e.ground->history->adjusted->at(claims[i].row, last);
  // Peers' pensions are claims after tax.
  peer.pension = peer.pension * (Figure::of(1) - e.evaluation->constant(Role::MarginalTax, base));
  const model::Row& leases = m[claims[kClaims.size()].row];
  peer.filesRent = e.evaluation->constant(claims[kClaims.size()].row, base).valueOr(-1) == leases.option("operating");
  for (int c = 0; c <= last; ++c) peer.years.push_back(filedYear(e, years, c));
  peer.expected = expectedYears(e, years);
  peer.remark = company.description;
  peer.source = "a company of this book, from its own statements";
  return peer;
}

std::vector<std::string> bookPeersOf(const Evidence& evidence) {
  std::vector<std::string> ids;
  for (const auto& [id, in] : evidence.bookPeers) {
    if (in) ids.push_back(id);
  }
  return ids;
}

Result<Sources> gatherWithPeers(store::Book& book, const std::string& company, CaseEvaluator& evaluator, Date today,
                                const std::optional<AsOf>& asOf) {
  Result<Sources> sources = gather(book, company, asOf);
  if (!sources) return sources;
  const std::vector<std::string> ids = bookPeersOf(*sources->evidence);
  if (ids.empty()) return sources;
  auto market = std::make_shared<Market>(*sources->market);
  const auto peerOf = [&](const std::string& id) -> Result<Peer> {
    const Result<Sources> theirs = gather(book, id);
    if (!theirs) return tl::unexpected(theirs.error());
    const Result<std::optional<std::string>> text = book.caseText(id);
    if (!text) return tl::unexpected(text.error());
    const Result<StoredCase> stored = storedCase(*text, *theirs, evaluator, today);
    if (!stored) return tl::unexpected(stored.error());
    const Result<Evaluated> evaluated = evaluator.evaluate(*theirs, stored->theCase, Standing::StoodBefore);
    return evaluated ? asPeer(*evaluated) : Result<Peer>(tl::unexpected(evaluated.error()));
  };
  for (const std::string& id : ids) {
    if (id == company) continue;
    Result<Peer> peer = peerOf(id);
    if (!peer) {
      market->peersUntold.push_back(id + ": " + peer.error().text());
      continue;
    }
    // What stands on a table under the same name gives way: it was typed from the same statements.
    std::erase_if(market->peers, [&](const Peer& p) { return p.id == peer->id; });
    market->peers.push_back(std::move(*peer));
  }
  sources->market = std::move(market);
  return sources;
}

}  // namespace zl::services
