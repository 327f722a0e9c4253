#pragma once
// How the standard lines are sums of one another, as the ties say (kits/standard/ties): EBIT is revenue less cost of
// sales less ..., total assets are cash plus receivables plus ... What a filed row may be is judged by where it stands
// in them.

#include <map>
#include <optional>
#include <set>
#include <span>
#include <string>

#include "core/filing/tie.h"

namespace zl {

class LineTree {
 public:
  /// Ties without opening balances; of several that a line is an addend of, the first counts.
  explicit LineTree(std::span<const Tie> ties);

  /// Whether the line is a sum of others.
  [[nodiscard]] bool isTotal(const std::string& line) const { return totals_.count(line) > 0; }
  /// The weight with which a line enters a total, through the totals between; empty where it does not.
  [[nodiscard]] std::optional<int> weightIn(const std::string& line, const std::string& total) const;
  /// The total a line enters; empty where it enters none.
  [[nodiscard]] std::string totalOf(const std::string& line) const;
  /// How many lines a total is a sum of.
  [[nodiscard]] size_t addends(const std::string& total) const;

 private:
  struct Up {
    std::string total;
    int weight = 1;
  };
  std::map<std::string, Up> up_;
  std::set<std::string> totals_;
};

}  // namespace zl
