#pragma once
// What a name that is not there was most likely meant to be.

#include <algorithm>
#include <set>
#include <string>
#include <vector>

namespace zl::services {

/// For an error's advice: the names there are, those with the most letters in common at their beginning or end first; a
/// few of them, and how many more.
inline std::string likelyNames(const std::string& given, const std::set<std::string>& known) {
  constexpr size_t kMost = 8;
  const auto inCommon = [&](const std::string& name) {
    const auto ahead = std::mismatch(given.begin(), given.end(), name.begin(), name.end());
    const auto behind = std::mismatch(given.rbegin(), given.rend(), name.rbegin(), name.rend());
    return std::max(ahead.first - given.begin(), behind.first - given.rbegin());
  };
  std::vector<std::string> names(known.begin(), known.end());
  std::stable_sort(names.begin(), names.end(),
                   [&](const std::string& a, const std::string& b) { return inCommon(a) > inCommon(b); });
  if (names.empty()) return "There are none";
  std::string list;
  for (size_t i = 0; i < std::min(kMost, names.size()); ++i) list += (i == 0 ? "There are " : ", ") + names[i];
  if (names.size() > kMost) list += " and " + std::to_string(names.size() - kMost) + " more";
  return list;
}

}  // namespace zl::services
