#pragma once
// A case to JSON and back without loss (docs/formats/case.schema.json).

#include "core/outlook/case.h"
#include "exchange/json/reader.h"

namespace zl::exchange {

/// 2 added stages, the base year, acknowledged findings and the shapes steps, recovery, cycle and
/// follow; 3 the analyst's own rows and other models; 6 sets of peers and what parts are worth. All before are still
/// read.
inline constexpr int kCaseVersion = 7;

Json toJson(const Case& c);
/// Unknown members, other versions and wrong types are refused; the values themselves are checked
/// against the model by faultsOf().
Result<Case> caseFromJson(const Json& json, const std::string& source);

/// The version that a newer program wrote a case with; 0 where this one knows it, or it is no case.
int newerVersion(const Json& json);
/// What of a newer program's case this one understands: good for looking at, not for writing back.
Result<Case> understoodCase(const Json& json, const std::string& source);

}  // namespace zl::exchange
