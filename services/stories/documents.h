#pragma once
// Where a story's figures come from.

#include <string>

#include "exchange/content.h"
#include "services/snapshot.h"

namespace zl::services {

/// The name of the document of a kind that is in use: the last active one, for tables that take the
/// place of those before them; "no document" without.
std::string activeDocument(const Snapshot& s, exchange::ContentKind kind);
/// All of a kind, for tables that add to those before them.
std::string activeDocuments(const Snapshot& s, exchange::ContentKind kind);

}  // namespace zl::services
