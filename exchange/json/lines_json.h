#pragma once
// Choices of standard lines by concept, as JSON (docs/formats/rules.md).

#include <string>

#include "core/filing/mapping.h"
#include "exchange/json/reader.h"

namespace zl::exchange {

/// {"concept": {"line": …, "weight": 1 or -1, "reason": …}, …}
Json toJson(const LineChoices& choices);
/// Throws JsonFault; for readers of larger objects that hold choices. `lines` is a reader of `json`.
LineChoices readLineChoices(const ObjectReader& lines, const Json& json);

/// A document of its own, kept with the tables it belongs to.
std::string lineChoicesText(const LineChoices& choices);
Result<LineChoices> lineChoicesFromText(const std::string& text, const std::string& source);

}  // namespace zl::exchange
