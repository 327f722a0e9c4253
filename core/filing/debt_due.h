#pragma once
// When debt falls due, as tagged in the notes of the latest filing.

#include <span>
#include <string>
#include <vector>

#include "core/filing/company.h"
#include "core/filing/fact.h"

namespace zl {

/// By fiscal year after the latest balance that states it, money of `currency`; what falls due later than five years on
/// stands in the sixth. Empty where nothing is tagged.
std::vector<DebtDue> filedDebtDue(std::span<const Fact> facts, const std::string& currency);

}  // namespace zl
