#pragma once
// Figures that a later filing reports differently than an earlier one.

#include <span>
#include <string>
#include <vector>

#include "core/filing/fact.h"

namespace zl {

struct Restatement {
  size_t first;        ///< the fact as first filed, index into the list
  size_t last;         ///< as last filed
  std::string change;  ///< last less first, exact decimal text
};

/// One entry for every concept, period and unit, for the whole company, whose first and last filed
/// figures disagree beyond both roundings. `facts` ordered by document, earliest first; the result
/// by period, latest first, then by concept.
std::vector<Restatement> restatements(std::span<const Fact> facts);

}  // namespace zl
