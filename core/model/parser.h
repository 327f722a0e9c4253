#pragma once
// Text of the model language to a Model. Grammar and meaning: docs/formats/model-language.md.

#include <string_view>

#include "core/model/syntax.h"
#include "core/quantity/error.h"

namespace zl::model {

/// Parses and checks (checker.h). `source` names the text in messages. On an error nothing is
/// returned but the first fault, with its line and column.
Result<Model> parseModel(std::string_view text, const std::string& source);

}  // namespace zl::model
