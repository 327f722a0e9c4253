#pragma once
// A filer's facts over many filings in one JSON text: by taxonomy and concept, by unit an array of amounts with start,
// end, val, form and filed (docs/formats/xbrl.md, "Company facts").

#include <string>
#include <string_view>

#include "core/filing/fact.h"
#include "core/quantity/error.h"
#include "exchange/stop_check.h"

namespace zl::exchange {

/// One filing of them all. Of several amounts for one concept, unit and period the one filed last stands; amounts that
/// a form corrects rank after what they correct. Broken amounts are named and passed over, the rest comes in.
Result<Filing> readCompanyFacts(std::string_view content, const std::string& name, const StopCheck& stopped = {});

}  // namespace zl::exchange
