#pragma once
// Companies of a book as peers of another company of it: their figures come from their own statements, record, prices
// and estimates, and nobody types them again.

#include <optional>
#include <string>
#include <vector>

#include "services/intake/gather.h"
#include "services/stages/case_evaluator.h"

namespace zl::services {

/// A company as others see it: filed years with its analyst's adjustments, claims of the last balance sheet, the last
/// close of its listing, diluted shares at that price, what analysts expect. Fails where its model does not say what
/// another company is told by (views as_peer_years and as_peer_claims).
Result<Peer> asPeer(const Evaluated& evaluated);

/// gather(), with the companies of the book that are peers of it, and the peers in those sets of other companies that
/// it shares. One that cannot be read or valued is left out and
/// told of in Market::peersUntold. Peers of those companies are not followed.
Result<Sources> gatherWithPeers(store::Book& book, const std::string& company, CaseEvaluator& evaluator, Date today,
                                const std::optional<AsOf>& asOf = std::nullopt);

/// Ids of the companies of the book that active documents name as peers.
std::vector<std::string> bookPeersOf(const Evidence& evidence);
/// Company and name of the sets that active documents share.
std::vector<std::pair<std::string, std::string>> bookSetsOf(const Evidence& evidence);
/// What such a set is called here: no set of a company's own has the sign between them in its name.
std::string bookSetName(const std::string& company, const std::string& set);

}  // namespace zl::services
