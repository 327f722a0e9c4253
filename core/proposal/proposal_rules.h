#pragma once
// What is proposed for a driver or an input until the analyst decides: a readable table that ships with each kit.
//
//   # rows: kind and its main words, setting words, setting words ...
//   tax_rate: median 10, within 5% 40%, to marginal_tax by 5, else rate tax
//
// Rules stand in the order in which they are applied: a later one may read what an earlier one proposed.

#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "core/model/syntax.h"
#include "core/quantity/error.h"

namespace zl {

struct ProposalRule {
  enum class Kind {
    Level,       ///< a figure
    Rate,        ///< a rate of the book's series, else of the placeholders
    LowerRate,   ///< the lower of such a rate and a driver's last year
    CountryTax,  ///< the marginal rate of the record's country
    Median,      ///< of the last regular years with a figure
    Growth,      ///< of revenue: prudent first year, then to the long run
    Margin,      ///< a margin driver: regular median of profit over revenue, reached by a glide
    Costs,       ///< cost drivers scaled together to give that margin
    Investment,  ///< capex and new leases that keep fixed assets in step with revenue
    WithProfit,  ///< growth at the pace of profit before depreciation
    Multiple,    ///< the peers' median multiple, else what a row of the model implies
    FiledAs,     ///< an option, where most of a filed line says certain words
    Where,       ///< an option, where another choice stands on one
    Unpriced,    ///< an option that is chosen where there is no price
    DebtWeight,  ///< debt over the model's own value of the firm, where there is no price
    Apart,       ///< worst and best: apart from base by the quartiles of regular history
  };
  Kind kind = Kind::Level;
  std::vector<std::string> rows;  ///< that it proposes for
  std::map<std::string, std::vector<std::string>> settings;
  std::string where;

  [[nodiscard]] bool has(const std::string& setting) const { return settings.count(setting) > 0; }
  /// The words of a setting, none where it is not there.
  [[nodiscard]] const std::vector<std::string>& words(const std::string& setting) const;
  /// A setting's figure: "4", "25%"; the other where it is not there. The parser has seen that it is one.
  [[nodiscard]] double number(const std::string& setting, double otherwise, size_t which = 0) const;
};

/// Fails with the line: an unknown kind or setting, a word that is no figure where one is needed.
Result<std::vector<ProposalRule>> parseProposalRules(std::string_view text, const std::string& source);

/// Whether rows and options that rules name are in the model; the message names the rule.
Status checkProposalRules(const std::vector<ProposalRule>& rules, const model::Model& m);

}  // namespace zl
