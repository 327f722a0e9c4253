#pragma once
// What tables call the standard lines: a text of synonyms (docs/formats/rules.md), and the match
// of a label to a line.
//
//   [income]
//   revenue = net sales | turnover | total revenue
//   -cost_of_sales = cost of goods sold
//
//   -dividends ~ dividend | dividends & paid | payment & not received
//
// After '~' stand words instead of whole labels: one of each group must be there, and none after 'not'. Several rows
// may be a line by their words.
//
// A line with '-' in front is a cost or an outflow: a positive figure here, that tables often
// print as negative.

#include <map>
#include <set>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "core/quantity/error.h"

namespace zl {

enum class StatementPart { Income, Balance, Cash };

struct LabelRule {
  std::string line;
  StatementPart part = StatementPart::Income;
  bool outflow = false;
  bool eitherWay = false;             ///< its sign says nothing of how the table writes outflows
  bool shares = false;                ///< a count of shares, not money
  bool anywhere = false;              ///< may be read from another statement where its own has no such row
  std::vector<std::string> synonyms;  ///< normalised
};

/// Lower-case words without marks, notes in brackets and articles: what two labels are compared by.
std::string normalisedLabel(std::string_view label);

class LabelRules {
 public:
  static Result<LabelRules> parse(std::string_view text, const std::string& source);
  [[nodiscard]] const std::vector<LabelRule>& rules() const { return rules_; }
  [[nodiscard]] const LabelRule* of(const std::string& line) const;

  struct Near {
    const LabelRule* rule = nullptr;
    double likeness = 0;  ///< words shared over all words of both
    std::string synonym;  ///< the nearest of the rule's
  };
  /// Every line of which a synonym shares at least three fifths of all words of both, the nearest first.
  [[nodiscard]] std::vector<Near> near(std::string_view label) const;
  /// The line whose words the label has; null where it is none's.
  [[nodiscard]] const LabelRule* byWords(std::string_view label) const;
  /// Every line that has the label as a synonym, in their order.
  [[nodiscard]] std::vector<const LabelRule*> allExactly(std::string_view label) const;
  /// The first of them; null where it is none's.
  [[nodiscard]] const LabelRule* exactly(std::string_view label) const;

 private:
  struct Words {
    std::string line;
    std::vector<std::vector<std::string>> groups;  ///< normalised
    std::vector<std::string> none;
  };
  static Result<Words> parseWords(std::string_view line, const std::string& where);

  struct Synonym {
    size_t rule;
    std::string text;
    std::set<std::string> words;
  };
  std::vector<Words> words_;
  std::vector<LabelRule> rules_;
  std::vector<Synonym> synonyms_;                                 ///< of all rules, in their order
  std::unordered_map<std::string, std::vector<size_t>> exactly_;  ///< synonym -> the rules that have it
};

}  // namespace zl
