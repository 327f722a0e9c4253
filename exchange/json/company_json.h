#pragma once
// The company record to JSON and back (docs/formats/company.schema.json).

#include "core/filing/company.h"
#include "exchange/json/reader.h"

namespace zl::exchange {

Json toJson(const Company& company);
Result<Company> companyFromJson(const Json& json, const std::string& source);

}  // namespace zl::exchange
