#pragma once
// The count of shares on the cover page of a filing, which is later than its balance sheet.

#include <optional>
#include <span>

#include "core/filing/fact.h"

namespace zl {

struct CoverCount {
  double shares = 0;  ///< of all classes
  Date on{};
};

/// The latest one filed; of classes that are filed apart, their sum. Empty where no cover page counts shares.
std::optional<CoverCount> coverCount(std::span<const Fact> facts);

}  // namespace zl
