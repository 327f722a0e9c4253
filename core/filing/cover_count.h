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

/// Whether a concept is one of a filing's cover page, which states no figure of the statements.
bool isOfCover(const std::string& concept_name);

/// The latest one filed; of classes that are filed apart, their sum. Empty where no cover page counts shares.
std::optional<CoverCount> coverCount(std::span<const Fact> facts);

}  // namespace zl
