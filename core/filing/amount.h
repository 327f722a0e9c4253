#pragma once
// Filed figures as exact decimals with what their rounding leaves open. Shared by what judges ties; no face of its own.

#include <optional>
#include <span>

#include "core/filing/mapping.h"
#include "core/quantity/decimal.h"

namespace zl {

struct Amount {
  Decimal number;
  Decimal half;  ///< half a unit of the last filed place; 0 for exact facts
};

/// Empty for nil and for what is no number.
std::optional<Amount> amountOf(const Fact& fact);
/// The sum of a cell's parts; 0 where none was reported, empty where none was filed.
std::optional<Amount> amountOf(const LineCell& cell, std::span<const Fact> facts);

}  // namespace zl
