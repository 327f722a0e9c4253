#pragma once
// Text of the model language to a Model. Grammar and meaning: docs/formats/model-language.md.

#include <string_view>

#include "core/model/syntax.h"
#include "core/quantity/error.h"

namespace zl::model {

/// One text of a model; `source` names it in messages.
struct ModelText {
  std::string source;
  std::string_view text;
};

/// Parses and checks (checker.h). On an error nothing is returned but the first fault, with its
/// line and column.
Result<Model> parseModel(std::string_view text, const std::string& source);

/// A model of several texts, each upon the ones before it: a later text adds rows, amends those it
/// finds, and may take rows out of the forecast. The earlier texts stay as they are written.
Result<Model> parseModel(const std::vector<ModelText>& texts);

/// The place of a fault that parseModel() answered with: the text it is in, and where. Empty where
/// the message names none of the sources.
struct FaultPlace {
  size_t text;
  Position at;
};
std::optional<FaultPlace> placeOf(const Error& fault, const std::vector<ModelText>& texts);

}  // namespace zl::model
