#pragma once
// The transformation rules that inline documents name for numbers and dates (Inline XBRL
// Transformation Registries 1 to 5, XBRL International), on text as a person reads it.

#include <optional>
#include <string>
#include <string_view>

#include "core/period/date.h"
#include "core/quantity/error.h"

namespace zl::exchange {

/// The plain decimal text a displayed number stands for, never signed: signs are attributes. An
/// empty format takes plain decimals as they are. `format` is the rule's local name. Unsupported:
/// a rule not known here; BadInput: text that the rule does not allow.
Result<std::string> transformNumber(std::string_view format, std::string_view displayed);

/// The day a displayed date stands for; an empty format takes 2024-12-31. Rules that name months
/// know English month names.
std::optional<Date> transformDate(std::string_view format, std::string_view displayed);

/// A plain decimal text times ten to the power of `scale`, exactly; no leading zeros are added
/// beyond the one before the point.
std::string scaledText(const std::string& plain, int scale);

}  // namespace zl::exchange
