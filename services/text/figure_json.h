#pragma once
// Figures in what other programs read.

#include "core/quantity/figure.h"
#include "exchange/json/json.h"

namespace zl::services {

using exchange::Json;

/// A number, or {"absent": why} or {"not_meaningful": why}: never a zero for either.
Json figureJson(const Figure& figure);

}  // namespace zl::services
