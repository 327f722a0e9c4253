#pragma once
// xBRL-JSON 1.0 (XBRL International, 2021): facts as JSON objects.

#include <string_view>

#include "core/filing/fact.h"
#include "core/quantity/error.h"
#include "exchange/stop_check.h"

namespace zl::exchange {

/// Numeric facts with their dimensions; facts that are text are counted in the warnings. The place
/// of a fact is its name in the file.
Result<Filing> readXbrlJson(std::string_view content, const std::string& name, const StopCheck& stopped = {});

}  // namespace zl::exchange
