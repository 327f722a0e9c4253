#pragma once
// Where parts of a total go that nothing else places.

#include <map>
#include <set>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "core/quantity/error.h"

namespace zl {

/// Totals and headings whose other parts go to one residual line: text of kits/standard/parts,
/// 'concept = line' or 'concept = -line', one a line; for tables 'line = ...' and '"label" | "label" = ...'. What
/// follows 'beside' are lines for a label that several have. 'within line = concepts' (or 'concep*'): in it already.
/// 'starts line = lines' and 'called line = line': see starts() and called(). 'told "of which" | "thereof"': see
/// toldOf().
class PartRules {
 public:
  static Result<PartRules> parse(std::string_view text, const std::string& source);
  struct Residual {
    std::string line;
    int weight = 1;
    std::set<std::string> beside;  ///< other lines that stand under the same total or heading
  };
  [[nodiscard]] const Residual* of(const std::string& concept_name) const;
  /// By what a table calls the total or heading; null where no rule has such a label.
  [[nodiscard]] const Residual* ofLabel(std::string_view label) const;
  /// The line that holds a concept already; empty where none is said to.
  [[nodiscard]] std::string within(const std::string& concept_name) const;
  /// Lines that a total is of which starts from another line's figures: cash from operations from net income.
  [[nodiscard]] const std::map<std::string, std::set<std::string>>& starts() const { return starts_; }
  /// Lines of outflows whose label holds what tables call another line: bought plant, by the plant.
  [[nodiscard]] const std::map<std::string, std::string>& called() const { return called_; }
  /// The label behind the words with which a row tells of the row above it; empty for every other row.
  [[nodiscard]] std::string toldOf(std::string_view label) const;
  /// Every line that parts go to.
  [[nodiscard]] std::set<std::string> lines() const;

 private:
  std::map<std::string, Residual> residuals_;
  std::map<std::string, std::set<std::string>> starts_;
  std::map<std::string, std::string> called_;
  std::vector<std::string> told_;                            ///< normalised
  std::map<std::string, Residual> byLabel_;                  ///< by normalised label
  std::vector<std::pair<std::string, std::string>> within_;  ///< a name or its beginning with '*', and the line
};

}  // namespace zl
