#pragma once
// Filed concepts to standard lines, by a rules text (docs/formats/rules.md):
//
//   revenue = ifrs-full:Revenue | ifrs-full:RevenueFromContractsWithCustomers
//   operating_expenses = ifrs-full:AdministrativeExpense + ifrs-full:DistributionCosts?
//   associates? = ifrs-full:InvestmentsAccountedForUsingEquityMethod
//
// Alternatives are tried in order. A term with '?' may be missing from its sum. A line with '?'
// that nobody filed is the value 0 with origin "none reported". `part` before a line says that it
// reads again what another line holds: its concepts stand on that other line.

#include <map>
#include <set>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/filing/fact.h"
#include "core/quantity/error.h"

namespace zl {

struct MappingTerm {
  std::string concept_name;
  int weight = 1;  ///< 1 or -1
  bool optional = false;
};

struct MappingRule {
  std::string line;
  bool optional = false;
  bool part = false;  ///< of another line: it claims no concept
  std::vector<std::vector<MappingTerm>> alternatives;
};

class MappingRules {
 public:
  static Result<MappingRules> parse(std::string_view text, const std::string& source);
  [[nodiscard]] const std::vector<MappingRule>& rules() const { return rules_; }
  [[nodiscard]] bool mentions(const std::string& concept_name) const;
  /// The line a concept belongs to; empty where no rule names it.
  [[nodiscard]] std::string lineOf(const std::string& concept_name) const;

 private:
  std::vector<MappingRule> rules_;
  std::map<std::string, std::string> lineOf_;
};

/// A concept's line as somebody has chosen it; an empty line sets the concept aside.
struct LineChoice {
  std::string line;
  int weight = 1;  ///< -1 where the filed figure has the other sign
  std::string reason;
  bool byHand = false;     ///< of a table's row, by the analyst: it holds for the tables that come later
  std::string outOf = {};  ///< the line that holds the figure as it was filed ("of which interest"); empty: none does
  int outOfSign = -1;      ///< with which the figure, as it stands on its line, is taken out of that one
  friend bool operator==(const LineChoice&, const LineChoice&) = default;
};
using LineChoices = std::map<std::string, LineChoice>;  ///< by concept name

/// The line a concept stands on: as chosen, else by the rules; empty where it is set aside or no
/// rule names it.
std::string lineOf(const MappingRules& rules, const LineChoices& choices, const std::string& concept_name);

/// Standard lines whose figures are used as first filed, not as last; kEveryLine for all of them.
using FirstFiled = std::set<std::string>;
inline constexpr const char* kEveryLine = "*";

enum class Origin { Filed, NoneReported, Missing };

/// One standard line in one fiscal year, with the facts it stands on (indices into the fact list).
struct LineCell {
  Figure figure;
  Origin origin = Origin::Missing;
  struct Part {
    size_t fact;
    int weight;
    std::string share = {};  ///< how much of the fact counts, an exact decimal; empty: all of it
  };
  std::vector<Part> parts;
};

struct FiscalYear {
  Date end;
  [[nodiscard]] int label() const { return yearOf(end); }
};

/// Two facts of one concept, period and unit that do not agree within their filed rounding.
struct Disagreement {
  size_t used;
  size_t other;
};

struct UnmappedConcept {
  std::string concept_name;
  std::string label;
  int facts = 0;
  size_t example = 0;  ///< index of one such fact
  std::string reason;  ///< why it is set aside; empty where nothing is known of it
};

struct StatementShapes;

/// All fiscal years of a company on standard lines.
class StandardStatements {
 public:
  /// Facts of other currencies than `currency` and facts with segments are set aside, never mixed
  /// in. Where several documents report one figure the last filed one is used, or the first for the
  /// lines of `firstFiled`; `facts` must be ordered by document, earliest first. A chosen concept leaves the rule it
  /// stood in and adds to the line it was chosen for, whatever else that line holds.
  static StandardStatements build(std::span<const Fact> facts, const MappingRules& rules, const std::string& currency,
                                  const LineChoices& choices = {}, const FirstFiled& firstFiled = {});

  /// The same statements with further lines, a cell a year each; the concepts they read count as mapped.
  [[nodiscard]] StandardStatements withLines(std::map<std::string, std::vector<LineCell>> lines,
                                             const std::set<std::string>& concepts) const;
  /// The same statements with what their filer's shape asks for: costs taken out of lines that hold them, totals that
  /// are not stated, and, where the facts' source leaves concepts out, what totals leave.
  [[nodiscard]] StandardStatements shaped(const StatementShapes& shapes, std::span<const Fact> facts,
                                          bool conceptsLeftOut = false) const;
  /// The same statements without the fiscal years after one.
  [[nodiscard]] StandardStatements upTo(int label) const;
  [[nodiscard]] const std::vector<FiscalYear>& years() const { return years_; }
  /// Missing for an unknown line or a column out of range.
  [[nodiscard]] const LineCell& at(const std::string& line, int column) const;
  [[nodiscard]] const std::vector<UnmappedConcept>& unmapped() const { return unmapped_; }
  [[nodiscard]] const std::vector<Disagreement>& disagreements() const { return disagreements_; }
  [[nodiscard]] int segmentFacts() const { return segmentFacts_; }
  [[nodiscard]] int otherCurrencyFacts() const { return otherCurrencyFacts_; }

 private:
  std::vector<FiscalYear> years_;
  std::map<std::string, std::vector<LineCell>> lines_;
  std::vector<UnmappedConcept> unmapped_;
  std::vector<Disagreement> disagreements_;
  int segmentFacts_ = 0;
  int otherCurrencyFacts_ = 0;
};

}  // namespace zl
