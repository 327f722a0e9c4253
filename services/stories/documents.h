#pragma once
// Where a story's figures come from.

#include <string>

#include "exchange/content.h"
#include "services/stages/snapshot.h"

namespace zl::services {

/// The names of the documents of a kind that are in use, in the order they came; "no document" without.
std::string activeDocuments(const Snapshot& s, exchange::ContentKind kind);

}  // namespace zl::services
