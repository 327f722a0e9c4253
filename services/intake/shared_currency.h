#pragma once
// What files that come in together are in, where only some of them say it: one statement of a page, one sheet of three.

#include <vector>

#include "core/quantity/error.h"
#include "services/intake/importer.h"

namespace zl::services {

/// Tables that name no currency take the one that all others of the import are in, and say so. Nothing is taken where
/// those are in several, or in none.
Status shareCurrency(std::vector<ImportPreview>& previews, const ImportContext& context);

}  // namespace zl::services
