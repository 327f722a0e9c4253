#pragma once
// What the command line prints and other programs read: values, statements, facts, findings and
// traces as JSON and as text. The same figures as the pages.

#include <string>

#include "services/intake/importer.h"
#include "services/stages/snapshot.h"
#include "services/text/figure_json.h"
#include "services/views/interim_table.h"

namespace zl::services {

/// Values per share by scenario with the price, what they rest on and the cross-check.
Json valueJson(const Snapshot& s);
std::string valueText(const Snapshot& s);

/// Standard lines and ratios by period for one scenario.
Json statementsJson(const Snapshot& s, int scenario);
std::string statementsText(const Snapshot& s, int scenario);

/// History rows by quarter: "quarters" each by itself, "trailing" the twelve months to its end.
Json interimJson(const Snapshot& s, Basis basis);
std::string interimText(const Snapshot& s, Basis basis);

Json factsJson(const Snapshot& s);
std::string factsText(const Snapshot& s);

/// How a table of figures would be read: columns, units, and the line each row would go to.
std::string readingText(const ImportPreview& preview, const model::Model& m);

/// Figures that later filings changed, and which of the two is in use.
Json restatementsJson(const Snapshot& s);
std::string restatementsText(const Snapshot& s);

/// The quality review: each test's figure beside its threshold.
Json reviewJson(const Snapshot& s);
std::string reviewText(const Snapshot& s);

Json findingsJson(const Snapshot& s);
std::string findingsText(const Snapshot& s);

}  // namespace zl::services
