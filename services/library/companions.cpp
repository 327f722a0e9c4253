#include "services/library/companions.h"

#include <algorithm>
#include <array>
#include <set>

#include "core/evidence/estimate.h"
#include "services/library/stored_case.h"
#include "services/stages/parts.h"

namespace zl::services {
namespace {

using model::Role;

/// Of the view's rows those that stand as they are; after them comes tangible book.
constexpr size_t kOfYear = std::size(kPeerColumns) - 1;
/// In the order of the view as_peer_claims; after them comes the choice of how leases are filed.
constexpr std::array kClaims = {&Peer::debt,    &Peer::leases, &Peer::preferred, &Peer::minorities,
                                &Peer::pension, &Peer::cash,   &Peer::associates};

PeerYear filedYear(const Evaluated& e, const std::vector<model::ViewRow>& rows, int column) {
  PeerYear year;
  year.end = e.ground->years()[static_cast<size_t>(column)].end;
  const model::HistoryTable& history = *e.ground->history->adjusted;
  for (size_t i = 0; i < kOfYear; ++i) year.*kPeerColumns[i].figure = history.at(rows[i].row, column);
  year.intangibles = year.equity - history.at(rows[kOfYear].row, column);
  // Whatever a multiple of the subject's own may be of.
  const model::Model& m = e.evaluation->model();
  for (size_t r = 0; r < m.rows.size(); ++r) {
    const model::Row& row = m.rows[r];
    const bool figure = row.kind == Kind::Money || row.kind == Kind::Count;
    if (!figure || row.timing == model::Timing::Constant || (!row.historyFiled && !row.history)) continue;
    if (const Figure& there = history.at(model::RowId(r), column); !there.isAbsent()) year.further[row.name] = there;
  }
  return year;
}

/// Each line that somebody estimates; the others stay absent.
std::vector<PeerYear> expectedYears(const Evaluated& e, const std::vector<model::ViewRow>& rows) {
  const Date last = e.ground->years().back().end;
  std::vector<PeerYear> years;
  for (const Estimate& one : latestEstimates(e.market->estimates, e.caseOf().valuationDate)) {
    const int ahead = one.year - e.ground->years().back().label();
    if (ahead < 1) continue;
    const Date end = addYears(last, ahead);
    auto at = std::find_if(years.begin(), years.end(), [&](const PeerYear& y) { return y.end == end; });
    if (at == years.end()) {
      at = years.insert(years.end(), PeerYear{});
      at->end = end;
    }
    at->further[one.item] = Figure::of(one.mean);
    for (size_t i = 0; i < kOfYear; ++i) {
      if (e.evaluation->model()[rows[i].row].name == one.item) (*at).*kPeerColumns[i].figure = Figure::of(one.mean);
    }
  }
  std::sort(years.begin(), years.end(), [](const PeerYear& a, const PeerYear& b) { return a.end < b.end; });
  return years;
}

}  // namespace

Result<Peer> asPeer(const Evaluated& e) {
  const model::Model& m = e.evaluation->model();
  const Company& company = e.ground->evidence->company;
  const auto& years = m.view(kPeerYearsView);
  const auto& claims = m.view("as_peer_claims");
  if (years.size() <= kOfYear || claims.size() <= kClaims.size()) {
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
    for (const PricePoint& point : e.market->prices) peer.closes.emplace_back(point.date, point.close);
    priceAt(peer, e.market->prices.back().date);
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
  setMixes(cutsOfParts(*e.ground, {}), peer.regions, peer.businesses);
  peer.remark = company.description;
  peer.source = "a company of this book, from its own statements";
  return peer;
}

std::vector<std::pair<std::string, std::string>> bookSetsOf(const Evidence& evidence) {
  std::vector<std::pair<std::string, std::string>> sets;
  for (const auto& [key, in] : evidence.bookSets) {
    if (in) sets.push_back(key);
  }
  return sets;
}

std::vector<std::string> bookPeersOf(const Evidence& evidence) {
  std::vector<std::string> ids;
  for (const auto& [id, in] : evidence.bookPeers) {
    if (in) ids.push_back(id);
  }
  return ids;
}

namespace {

using SetKey = std::pair<std::string, std::string>;

Result<StoredCase> caseIn(store::Book& book, const std::string& id, const Sources& theirs, CaseEvaluator& evaluator,
                          Date today) {
  const Result<std::optional<std::string>> text = book.caseText(id);
  if (!text) return tl::unexpected(text.error());
  return storedCase(*text, theirs, evaluator, today);
}

/// A company of the book as a peer, by its own case.
Result<Peer> peerFromBook(store::Book& book, const std::string& id, const Sources& theirs, CaseEvaluator& evaluator,
                          Date today) {
  const Result<StoredCase> stored = caseIn(book, id, theirs, evaluator, today);
  if (!stored) return tl::unexpected(stored.error());
  const Result<Evaluated> evaluated = evaluator.evaluate(theirs, stored->theCase, Standing::StoodBefore);
  return evaluated ? asPeer(*evaluated) : Result<Peer>(tl::unexpected(evaluated.error()));
}

/// The members of another company's set, and those of them that its tables tell.
struct OthersSet {
  std::set<std::string> members;
  std::vector<Peer> typed;
  std::vector<std::string> ofBook;
};
Result<OthersSet> othersSet(store::Book& book, const SetKey& key, CaseEvaluator& evaluator, Date today) {
  const auto& [company, name] = key;
  const Result<Sources> theirs = gather(book, company);
  if (!theirs) return tl::unexpected(theirs.error());
  const Result<StoredCase> stored = caseIn(book, company, *theirs, evaluator, today);
  if (!stored) return tl::unexpected(stored.error());
  const auto set = stored->theCase.peerSets.find(name);
  if (set == stored->theCase.peerSets.end())
    return fail(ErrorKind::NotFound, "it has no set of peers '" + name + "' any more", company, "Choose another set");
  OthersSet found;
  found.members = set->second;
  const std::vector<std::string> ofBook = bookPeersOf(*theirs->evidence);
  for (const std::string& id : ofBook) {
    if (found.members.count(id) > 0) found.ofBook.push_back(id);
  }
  for (const Peer& peer : theirs->market->peers) {
    const bool fromBook = std::find(ofBook.begin(), ofBook.end(), peer.id) != ofBook.end();
    if (found.members.count(peer.id) > 0 && !fromBook) found.typed.push_back(peer);
  }
  return found;
}

}  // namespace

std::string bookSetName(const std::string& company, const std::string& set) {
  return company + kOfAnother + set;
}

Result<Sources> gatherWithPeers(store::Book& book, const std::string& company, CaseEvaluator& evaluator, Date today,
                                const std::optional<AsOf>& asOf) {
  Result<Sources> sources = gather(book, company, asOf);
  if (!sources) return sources;
  std::vector<std::string> ids = bookPeersOf(*sources->evidence);
  const std::vector<SetKey> sets = bookSetsOf(*sources->evidence);
  if (ids.empty() && sets.empty()) return sources;
  auto market = std::make_shared<Market>(*sources->market);
  const auto known = [&](const std::string& id) {
    return std::any_of(market->peers.begin(), market->peers.end(), [&](const Peer& p) { return p.id == id; });
  };
  for (const SetKey& key : sets) {
    Result<OthersSet> set = othersSet(book, key, evaluator, today);
    if (!set) {
      market->peersUntold.push_back("the set '" + key.second + "' of " + key.first + ": " + set.error().text());
      continue;
    }
    for (const std::string& id : set->ofBook) {
      if (std::find(ids.begin(), ids.end(), id) == ids.end()) ids.push_back(id);
    }
    for (Peer& peer : set->typed) {
      if (peer.id == company || known(peer.id)) continue;
      if (peer.source.empty()) peer.source = "a peer of " + key.first + " in this book";
      market->peers.push_back(std::move(peer));
    }
    market->bookSets[bookSetName(key.first, key.second)] = std::move(set->members);
  }
  for (const std::string& id : ids) {
    if (id == company) continue;
    market->companions.push_back(id);
    const Result<Sources> theirs = gather(book, id);
    Result<Peer> peer =
        theirs ? peerFromBook(book, id, *theirs, evaluator, today) : Result<Peer>(tl::unexpected(theirs.error()));
    if (!peer) {
      market->peersUntold.push_back(id + ": " + peer.error().text());
      continue;
    }
    // What stands on a table under the same name gives way: it was typed from the same statements.
    std::erase_if(market->peers, [&](const Peer& p) { return p.id == peer->id; });
    market->peers.push_back(std::move(*peer));
  }
  // A member that its company has itself from another's set: sets are not followed further than that.
  for (const auto& [name, members] : market->bookSets) {
    for (const std::string& id : members) {
      const bool read = std::find(market->companions.begin(), market->companions.end(), id) != market->companions.end();
      if (id != company && !read && !known(id))
        market->peersUntold.push_back(id + " of the set " + name + ": that company has no figures of its own for it");
    }
  }
  sources->market = std::move(market);
  return sources;
}

}  // namespace zl::services
