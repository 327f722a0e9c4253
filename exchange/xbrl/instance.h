#pragma once
// XBRL 2.1 instance documents (Extensible Business Reporting Language 2.1, XBRL International,
// 2003 with errata) to facts with their place of origin.

#include <string_view>

#include "core/filing/fact.h"
#include "core/quantity/error.h"
#include "exchange/stop_check.h"

namespace zl::exchange {

/// Reads contexts (instants, durations, segments and scenarios), units, decimals or precision,
/// nil facts and tuples' leaves. Facts whose value is no number are counted in the warnings.
/// Documents with a type declaration are refused: nothing outside the file is ever followed.
Result<Filing> readXbrlInstance(std::string_view content, const std::string& name, const StopCheck& stopped = {});

}  // namespace zl::exchange
