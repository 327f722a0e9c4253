#include "services/gather.h"

#include <algorithm>

#include "exchange/content.h"
#include "exchange/csv/tables.h"
#include "exchange/json/company_json.h"
#include "exchange/json/lines_json.h"
#include "exchange/xbrl/linkbase.h"

namespace zl::services {

using exchange::ContentKind;
using exchange::Json;

namespace {

template <class T>
Status take(Result<T> result, T& into) {
  if (!result) return tl::unexpected(result.error());
  into = std::move(*result);
  return {};
}

/// Reads one active document that is not a filing into the evidence. Tables of the market add to those
/// before, the later one standing where both speak of the same; a later record replaces the earlier.
Status readDocument(store::Book& book, const store::StoredDocument& d, Evidence& e) {
  const std::string& kind = d.document.kind;
  const auto is = [&](ContentKind k) { return kind == exchange::contentKindText(k); };
  if (!is(ContentKind::PriceTable) && !is(ContentKind::PeerTable) && !is(ContentKind::RateTable) &&
      !is(ContentKind::EstimateTable) && !is(ContentKind::CompanyRecord) && !is(ContentKind::TableChoices) &&
      !is(ContentKind::Linkbase)) {
    return {};
  }
  const Result<std::string> content = book.content(d.document.id);
  if (!content) return tl::unexpected(content.error());
  if (is(ContentKind::PriceTable)) {
    Result<std::vector<PricePoint>> more = exchange::readPrices(*content, d.document.name);
    if (!more) return tl::unexpected(more.error());
    for (PricePoint& p : *more) p.document = d.document.id;
    mergePrices(e.prices, *more);
    return {};
  }
  if (is(ContentKind::PeerTable)) {
    const Result<std::vector<Peer>> more = exchange::readPeers(*content, d.document.name);
    if (!more) return tl::unexpected(more.error());
    mergePeers(e.peers, *more);
    return {};
  }
  if (is(ContentKind::RateTable)) {
    Result<std::vector<MarketRate>> more = exchange::readRates(*content, d.document.name);
    if (!more) return tl::unexpected(more.error());
    e.rates.merge(std::move(*more));
    return {};
  }
  if (is(ContentKind::EstimateTable)) {
    // Snapshots of another day add to those there are: the history of a consensus is worth keeping.
    Result<std::vector<Estimate>> more = exchange::readEstimates(*content, d.document.name);
    if (!more) return tl::unexpected(more.error());
    e.estimates.insert(e.estimates.end(), more->begin(), more->end());
    return {};
  }
  if (is(ContentKind::Linkbase)) {
    Result<ConceptNetwork> network = exchange::readLinkbase(*content, d.document.name);
    if (!network) return tl::unexpected(network.error());
    e.network.arcs.insert(e.network.arcs.end(), network->arcs.begin(), network->arcs.end());
    e.network.labels.merge(network->labels);
    return {};
  }
  if (is(ContentKind::TableChoices)) {
    const Result<LineChoices> choices = exchange::lineChoicesFromText(*content, d.document.name);
    if (!choices) return tl::unexpected(choices.error());
    for (const auto& [concept_name, choice] : *choices) e.choices[concept_name] = choice;
    return {};
  }
  Result<Json> json = exchange::parseJson(*content, d.document.name);
  if (!json) return tl::unexpected(json.error());
  e.companySource = d.document.name;
  return take(exchange::companyFromJson(*json, d.document.name), e.company);
}

}  // namespace

Result<std::shared_ptr<const Evidence>> gather(store::Book& book, const std::string& company,
                                               const std::vector<std::int64_t>* only) {
  auto e = std::make_shared<Evidence>();
  if (Status s = take(book.documents(company), e->documents); !s) return tl::unexpected(s.error());
  for (store::StoredDocument& d : e->documents) {
    if (only != nullptr) d.active = std::count(only->begin(), only->end(), d.document.id) > 0;
    if (!d.active) continue;
    if (Status s = readDocument(book, d, *e); !s) return tl::unexpected(s.error());
  }
  if (e->company.id.empty()) {
    return fail(ErrorKind::NotFound, "the book has no company '" + company + "'", book.path(),
                "Import its filings and record first");
  }
  if (Status s = take(book.facts(company, only), e->facts); !s) return tl::unexpected(s.error());
  e->inMinor = readInCurrency(e->facts, minorUnits(e->company));
  return std::shared_ptr<const Evidence>(std::move(e));
}

}  // namespace zl::services
