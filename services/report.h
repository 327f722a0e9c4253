#pragma once
// What the command line prints and other programs read: values, statements, facts, findings and
// traces as JSON and as text. The same figures as the pages.

#include <string>

#include "core/outlook/trace.h"
#include "exchange/json/json.h"
#include "services/importer.h"
#include "services/interim_table.h"
#include "services/snapshot.h"
#include "services/stories/story.h"

namespace zl::services {

using exchange::Json;

/// A number, or {"absent": why} or {"not_meaningful": why}: never a zero for either.
Json figureJson(const Figure& figure);

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
std::string readingText(const ImportPreview& preview);

/// Figures that later filings changed, and which of the two is in use.
Json restatementsJson(const Snapshot& s);
std::string restatementsText(const Snapshot& s);

/// The quality review: each test's figure beside its threshold.
Json reviewJson(const Snapshot& s);
std::string reviewText(const Snapshot& s);

Json findingsJson(const Snapshot& s);
std::string findingsText(const Snapshot& s);

/// Walks from a figure down to filed facts, assumptions and givens, `depth` steps at most.
Json traceJson(const Snapshot& s, model::Cell cell, int scenario, int depth);
std::string traceText(const Snapshot& s, model::Cell cell, int scenario, int depth);

/// In words, what the last step of a trace stands on: document and place, or who assumed it and
/// why, or where a given comes from. One line each.
std::vector<std::string> sourceLines(const Snapshot& s, const TraceStep& step);

/// A fact as a source: concept, what its document says, period, document and place.
std::string factWords(const Snapshot& s, const LineCell::Part& part);

/// What a figure of an interim period stands on: its facts with document and place, or history's rule
/// with the lines it reads. `period` is a quarter's label.
Story interimStory(const Snapshot& s, int row, const std::string& period, InterimStatements::Span span,
                   const Figure& figure);

/// Growth rates that the exit multiple implies under the scenario's own terminal rule, ascending.
std::vector<double> impliedGrowthOf(const Snapshot& s, int scenario);

}  // namespace zl::services
