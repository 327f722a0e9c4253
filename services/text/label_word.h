#pragma once
// A word of the model language out of a label: "Order backlog" -> "order_backlog".

#include <cctype>
#include <string>

namespace zl::services {

/// Latin letters and digits in lower case, an underscore for each run of anything else but at the start.
/// Empty for a label without a Latin letter or digit; may end in an underscore.
inline std::string labelWord(const std::string& label) {
  std::string word;
  for (const char c : label) {
    const auto byte = static_cast<unsigned char>(c);
    if (byte < 128 && std::isalnum(byte) != 0) {
      word += static_cast<char>(std::tolower(byte));
    } else if (!word.empty() && word.back() != '_') {
      word += '_';
    }
  }
  return word;
}

}  // namespace zl::services
