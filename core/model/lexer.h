#pragma once
// Words, numbers and signs of the model language.

#include <string>
#include <string_view>
#include <vector>

#include "core/model/syntax.h"
#include "core/quantity/error.h"

namespace zl::model {

struct Token {
  enum class Type { Word, Number, Text, Sign, End };
  Type type = Type::End;
  std::string text;
  double number = 0.0;
  bool startsLine = false;
  Position at;
};

/// Splits the text; the list always closes with an End token.
/// `index` is what Position::text becomes.
Result<std::vector<Token>> tokenize(std::string_view text, const std::string& source, int index = 0);

std::string placeText(const std::string& source, Position at);

}  // namespace zl::model
