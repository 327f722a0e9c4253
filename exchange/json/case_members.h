#pragma once
// Members of the case's JSON that are layouts of their own.

#include <map>
#include <string>
#include <vector>

#include "core/outlook/case.h"
#include "exchange/json/reader.h"

namespace zl::exchange {

/// Bytes of own rows upon one model; more is neither read nor stored.
inline constexpr size_t kLongestOwnRows = 200000;

Json toJson(const Provenance& p);
/// The member "said"; empty where it is missing.
Provenance provenanceOf(ObjectReader& parent);

Json toJson(const std::map<std::string, OwnRows>& ownRows);
/// The member "own_rows" of a case; a text of more than 200,000 characters is refused.
std::map<std::string, OwnRows> readOwnRows(ObjectReader& theCase);

Json toJson(const std::vector<PublishedSet>& sets);
/// The member "published" of a case.
/// A case without the member stands on the price of its valuation date.
Json toJson(const PriceChoice& price);
PriceChoice readPrice(ObjectReader& theCase);

std::vector<PublishedSet> readPublished(ObjectReader& theCase);

}  // namespace zl::exchange
