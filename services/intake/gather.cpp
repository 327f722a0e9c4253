#include "services/intake/gather.h"

#include <algorithm>

#include "core/filing/debt_due.h"
#include "exchange/content.h"
#include "exchange/json/book_peer.h"
#include "exchange/json/company_json.h"
#include "exchange/json/lines_json.h"
#include "exchange/xbrl/linkbase.h"
#include "services/intake/market.h"

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

/// Reads one active document that is neither a filing nor of the market into the evidence.
Status readDocument(store::Book& book, const store::StoredDocument& d, Evidence& e) {
  const std::string& kind = d.document.kind;
  const auto is = [&](ContentKind k) { return kind == exchange::contentKindText(k); };
  if (!is(ContentKind::CompanyRecord) && !is(ContentKind::TableChoices) && !is(ContentKind::Linkbase) &&
      !is(ContentKind::BookPeer))
    return {};
  const Result<std::string> content = book.content(d.document.id);
  if (!content) return tl::unexpected(content.error());
  if (is(ContentKind::Linkbase)) {
    Result<ConceptNetwork> network = exchange::readLinkbase(*content, d.document.name);
    if (!network) return tl::unexpected(network.error());
    e.network.join(std::move(*network));
    return {};
  }
  if (is(ContentKind::BookPeer)) {
    const Result<exchange::BookPeer> peer = exchange::bookPeerFrom(*content, d.document.name);
    if (!peer) return tl::unexpected(peer.error());
    if (peer->set.empty()) {
      e.bookPeers[peer->company] = peer->in;
    } else {
      e.bookSets[{peer->company, peer->set}] = peer->in;
    }
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

/// A later record replaces the earlier one, which need not be read.
bool isOvertaken(const std::vector<store::StoredDocument>& documents, size_t at) {
  const std::string record = exchange::contentKindText(ContentKind::CompanyRecord);
  if (documents[at].document.kind != record) return false;
  return std::any_of(documents.begin() + static_cast<std::ptrdiff_t>(at) + 1, documents.end(),
                     [&](const store::StoredDocument& d) { return d.active && d.document.kind == record; });
}

/// Where companies' shared figures have changed since this one was last edited: the market as it was then.
Status keepSharedBefore(store::Book& book, const std::string& company, const Evidence& e, Market& market) {
  const Result<std::string> edited = book.lastEdit(company);
  if (!edited) return tl::unexpected(edited.error());
  const Result<std::vector<store::Observation>> fetched = book.observations({});
  if (!fetched) return tl::unexpected(fetched.error());
  const bool later =
      std::any_of(e.documents.begin(), e.documents.end(),
                  [&](const auto& d) { return d.active && isShared(d) && d.document.importedAt > *edited; }) ||
      std::any_of(fetched->begin(), fetched->end(), [&](const auto& o) { return o.fetched > *edited; });
  if (edited->empty() || !later) return {};
  Result<std::shared_ptr<Market>> before = marketOf(book, company, e.documents, e.company, {}, *edited);
  if (!before) return tl::unexpected(before.error());
  market.before = std::move(*before);
  return {};
}

}  // namespace

Result<Sources> gather(store::Book& book, const std::string& company, const std::optional<AsOf>& asOf) {
  const std::vector<std::int64_t>* only = asOf ? &asOf->documents : nullptr;
  auto e = std::make_shared<Evidence>();
  if (Status s = take(book.documents(company), e->documents); !s) return tl::unexpected(s.error());
  for (store::StoredDocument& d : e->documents) {
    if (only != nullptr) d.active = std::count(only->begin(), only->end(), d.document.id) > 0;
  }
  for (size_t i = 0; i < e->documents.size(); ++i) {
    if (!e->documents[i].active || isOvertaken(e->documents, i)) continue;
    if (Status s = readDocument(book, e->documents[i], *e); !s) return tl::unexpected(s.error());
  }
  if (e->company.id.empty()) {
    return fail(ErrorKind::NotFound, "the book has no company '" + company + "'", book.path(),
                "Import its filings and record first");
  }
  if (Status s = take(book.facts(company, only), e->facts); !s) return tl::unexpected(s.error());
  e->inMinor = readInCurrency(e->facts, minorUnits(e->company));
  e->cover = coverCount(e->facts);
  e->debtDue = e->company.debtDue.empty() ? filedDebtDue(e->facts, e->company.currency) : e->company.debtDue;
  Result<std::shared_ptr<Market>> market =
      marketOf(book, company, e->documents, e->company, asOf ? asOf->at : std::string());
  if (!market) return tl::unexpected(market.error());
  if (!asOf) {
    if (Status s = keepSharedBefore(book, company, *e, **market); !s) return tl::unexpected(s.error());
  }
  return Sources{std::move(e), std::move(*market)};
}

}  // namespace zl::services
