#pragma once
// What is on record of the company and what the book has of its market, as text and JSON.

#include <string>

#include "services/edits/record_edits.h"
#include "services/stages/snapshot.h"
#include "services/text/figure_json.h"
#include "services/views/listing_view.h"

namespace zl::services {

/// Every field by its name, then the lists that hold anything.
std::string recordText(const Company& company);
/// A list as it would be piped in again.
std::string recordListText(const Company& company, const RecordList& list);

std::string listingsText(const Snapshot& s);
/// The latest of every rate at the valuation date.
std::string ratesText(const Snapshot& s);
std::string peersText(const Snapshot& s);
std::string estimatesText(const Snapshot& s);
/// All of these at full precision.
Json marketJson(const Snapshot& s);

}  // namespace zl::services
