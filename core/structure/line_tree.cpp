#include "core/structure/line_tree.h"

#include <algorithm>

namespace zl {

LineTree::LineTree(std::span<const Tie> ties) {
  for (const Tie& tie : ties) {
    const bool opening =
        std::any_of(tie.addends.begin(), tie.addends.end(), [](const TieTerm& t) { return t.opening; });
    if (tie.roll || opening) continue;  // a movement of a balance is no sum of a statement
    totals_.insert(tie.total.line);
    for (const TieTerm& term : tie.addends) up_.try_emplace(term.line, Up{tie.total.line, term.weight});
  }
}

std::optional<int> LineTree::weightIn(const std::string& line, const std::string& total) const {
  int weight = 1;
  std::string at = line;
  for (size_t height = 0; height <= up_.size(); ++height) {
    const auto up = up_.find(at);
    if (up == up_.end()) return std::nullopt;
    weight *= up->second.weight;
    at = up->second.total;
    if (at == total) return weight;
  }
  return std::nullopt;  // the ties go round
}

size_t LineTree::addends(const std::string& total) const {
  return static_cast<size_t>(
      std::count_if(up_.begin(), up_.end(), [&](const auto& line) { return line.second.total == total; }));
}

std::string LineTree::totalOf(const std::string& line) const {
  const auto up = up_.find(line);
  return up == up_.end() ? std::string() : up->second.total;
}

}  // namespace zl
