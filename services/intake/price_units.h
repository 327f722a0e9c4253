#pragma once
// In: price tables that would come in. Out: a refusal where they are in a currency that the listing is not in, a
// warning where they do not say and look like another unit.

#include "services/intake/importer.h"

namespace zl::services {

/// Held against the record that comes in with them, else the book's. A table that came with a folder or package is
/// passed over instead of refusing the rest.
Status holdPrices(std::vector<ImportPreview>& previews, const ImportContext& context);

}  // namespace zl::services
