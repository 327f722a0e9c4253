#pragma once
// Short names made of names.

#include <algorithm>
#include <cctype>
#include <string>

namespace zl::services {

/// "Orvane Werke AG" to "orvane-werke-ag": small letters, digits and hyphens, at most forty. `otherwise` where the name
/// has none of them.
inline std::string shortName(const std::string& name, const std::string& otherwise) {
  constexpr size_t kLongest = 40;
  std::string id;
  for (const char c : name) {
    const bool letter = std::isalnum(static_cast<unsigned char>(c)) != 0 && static_cast<unsigned char>(c) < 0x80;
    if (letter) id += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    if (!letter && !id.empty() && id.back() != '-') id += '-';
  }
  id.resize(std::min(id.size(), kLongest));
  while (!id.empty() && id.back() == '-') id.pop_back();
  return id.empty() ? otherwise : id;
}

}  // namespace zl::services
