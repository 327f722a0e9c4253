#pragma once
// A case to JSON and back without loss (docs/formats/case.schema.json).

#include "core/outlook/case.h"
#include "exchange/json/reader.h"

namespace zl::exchange {

/// 2 added stages, the base year, acknowledged findings and the shapes steps, recovery, cycle and
/// follow; version 1 is still read.
inline constexpr int kCaseVersion = 2;

Json toJson(const Case& c);
/// Unknown members, other versions and wrong types are refused; the values themselves are checked
/// against the model by faultsOf().
Result<Case> caseFromJson(const Json& json, const std::string& source);

}  // namespace zl::exchange
