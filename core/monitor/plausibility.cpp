#include <algorithm>
#include <cmath>
#include <set>

#include "core/monitor/finding.h"

namespace zl {
namespace {

constexpr int kFewest = 4;           ///< balances that must speak before a date is doubted
constexpr double kMostly = 0.75;     ///< share of them that must agree with the other date
constexpr double kSlipSpread = 0.3;  ///< decades around a thousand or a million; years differ by less
constexpr double kSplitSpread = 0.02;

std::string nameOf(const DocumentNames& documents, std::int64_t id) {
  const auto found = documents.find(id);
  return found == documents.end() ? "document " + std::to_string(id) : found->second;
}

/// Balances of the whole company by document, date and concept.
using Balances = std::map<std::int64_t, std::map<Date, std::map<std::string, const Fact*>>>;

Balances balancesOf(const std::vector<Fact>& facts) {
  Balances balances;
  for (const Fact& f : facts) {
    const bool amount = f.period.isInstant() && f.segments.empty() && !f.nil && f.unit != "shares" && f.unit != "pure";
    if (amount && f.figure().valueOr(0) != 0) balances[f.document][f.period.end][f.concept_name] = &f;
  }
  return balances;
}

struct Likeness {
  int same = 0;
  int both = 0;
};

Likeness compare(const std::map<std::string, const Fact*>& a, const std::map<std::string, const Fact*>& b) {
  Likeness likeness;
  for (const auto& [concept_name, fact] : a) {
    const auto other = b.find(concept_name);
    if (other == b.end()) continue;
    ++likeness.both;
    likeness.same += agree(*fact, *other->second) ? 1 : 0;
  }
  return likeness;
}

/// A column whose balances other filings report for another date stands under the wrong one.
void checkDates(const std::vector<Fact>& facts, const DocumentNames& documents, std::vector<Finding>& found) {
  const Balances balances = balancesOf(facts);
  for (const auto& [document, dates] : balances) {
    for (const auto& [date, own] : dates) {
      bool contradicted = false;
      std::optional<Date> belongs;
      for (const auto& [other, otherDates] : balances) {
        if (other == document) continue;
        for (const auto& [otherDate, theirs] : otherDates) {
          const Likeness likeness = compare(own, theirs);
          if (likeness.both < kFewest) continue;
          const bool alike = likeness.same >= kMostly * likeness.both;
          if (otherDate == date) contradicted = contradicted || !alike;
          if (otherDate != date && alike) belongs = otherDate;
        }
      }
      if (!contradicted || !belongs) continue;
      found.push_back({"column under the wrong date", Severity::Fault, Stop::Filings,
                       nameOf(documents, document) + " reports for " + dateText(date) +
                           " what other filings report for " + dateText(*belongs) +
                           "; its column seems to stand under the wrong date",
                       "", -1});
    }
  }
}

/// Standard lines of a view, by name.
std::set<std::string> linesOf(const model::Model& m, const char* view) {
  std::set<std::string> lines;
  for (const model::ViewRow& shown : m.view(view)) lines.insert(m[shown.row].name);
  return lines;
}

/// A figure about a thousand or a million times its neighbours in other years; for lines that are steady also
/// about a hundred times: there, two decades are pence read as pounds. Profits and cash come near zero honestly.
void checkScale(const model::Model& m, const StandardStatements& s, const std::vector<Fact>& facts,
                const DocumentNames& documents, std::vector<Finding>& found) {
  const int years = static_cast<int>(s.years().size());
  const std::set<std::string> steady = linesOf(m, "steady_lines");
  for (const std::string& line : linesOf(m, "scaled_lines")) {
    std::vector<std::pair<int, double>> sizes;  // year, decimal logarithm of the size
    for (int c = 0; c < years; ++c) {
      const Figure& f = s.at(line, c).figure;
      if (f.hasValue() && f.value() != 0) sizes.emplace_back(c, std::log10(std::abs(f.value())));
    }
    if (sizes.size() < 3) continue;
    for (size_t i = 0; i < sizes.size(); ++i) {
      // Against both neighbours, so that a series that grows is not doubted.
      const size_t left = i == 0 ? 1 : i - 1;
      const size_t right = i + 1 == sizes.size() ? sizes.size() - 2 : i + 1;
      const double byLeft = sizes[i].second - sizes[left].second;
      const double byRight = sizes[i].second - sizes[right].second;
      for (const int decades : {2, 3, 6}) {
        if (decades == 2 && steady.count(line) == 0) continue;
        const double sign = byLeft < 0 ? -1 : 1;
        if (std::abs(byLeft - sign * decades) > kSlipSpread || std::abs(byRight - sign * decades) > kSlipSpread)
          continue;
        const LineCell& cell = s.at(line, sizes[i].first);
        if (cell.parts.empty()) continue;
        const Fact& fact = facts[cell.parts.front().fact];
        found.push_back({"scale slip", Severity::Fault, Stop::Filings,
                         fact.concept_name + " " +
                             std::to_string(s.years()[static_cast<size_t>(sizes[i].first)].label()) + " is about " +
                             (decades == 2   ? "100"
                              : decades == 3 ? "1,000"
                                             : "1,000,000") +
                             (sign > 0 ? " times" : " times less than") + " its neighbours (" + fact.text + " in " +
                             nameOf(documents, fact.document) + ", " + fact.place + ")",
                         line, sizes[i].first});
      }
    }
  }
}

/// Counts of shares that double, or become a whole fraction, as in a split or a consolidation.
void checkSplits(const std::string& shares, const StandardStatements& s, std::vector<Finding>& found) {
  for (int c = 1; c < static_cast<int>(s.years().size()); ++c) {
    const Figure before = s.at(shares, c - 1).figure;
    const Figure after = s.at(shares, c).figure;
    if (!before.hasValue() || !after.hasValue() || before.value() <= 0 || after.value() <= 0) continue;
    const double ratio = std::max(after.value() / before.value(), before.value() / after.value());
    const double whole = std::round(ratio);
    if (whole < 2 || whole > 100 || std::abs(ratio / whole - 1) > kSplitSpread) continue;
    found.push_back(
        {"shares jump", Severity::Warning, Stop::Filings,
         "The count of shares " + std::string(after.value() > before.value() ? "is" : "was") + " about " +
             std::to_string(static_cast<int>(whole)) + " times as high in " +
             std::to_string(s.years()[static_cast<size_t>(after.value() > before.value() ? c : c - 1)].label()) +
             " as in the year beside it: a split, or a figure in another scale",
         shares, c});
  }
}

/// A figure below zero on a line whose other years are all above it.
void checkSigns(const model::Model& m, const StandardStatements& s, const std::vector<Fact>& facts,
                const DocumentNames& documents, std::vector<Finding>& found) {
  constexpr int kFewestYears = 4;  // others that agree
  for (const std::string& line : linesOf(m, "positive_lines")) {
    int above = 0, below = 0, at = -1;
    for (int c = 0; c < static_cast<int>(s.years().size()); ++c) {
      const Figure& f = s.at(line, c).figure;
      if (!f.hasValue() || f.value() == 0) continue;
      ++(f.value() > 0 ? above : below);
      if (f.value() < 0) at = c;
    }
    if (below != 1 || above < kFewestYears || s.at(line, at).parts.empty()) continue;
    const Fact& fact = facts[s.at(line, at).parts.front().fact];
    found.push_back({"sign unlike history", Severity::Fault, Stop::Filings,
                     fact.concept_name + " " + std::to_string(s.years()[static_cast<size_t>(at)].label()) + " is " +
                         fact.text + " (" + nameOf(documents, fact.document) + ", " + fact.place + "); the " +
                         std::to_string(above) + " other years are above zero",
                     line, at});
  }
}

/// Interest that stands on a concept whose name says that income has been taken off.
void checkNetInterest(const std::string& interest, const StandardStatements& s, const std::vector<Fact>& facts,
                      std::vector<Finding>& found) {
  for (int c = static_cast<int>(s.years().size()) - 1; c >= 0; --c) {
    for (const LineCell::Part& part : s.at(interest, c).parts) {
      const std::string concept_name = facts[part.fact].concept_name.str();
      const bool net = concept_name.find("Net") != std::string::npos ||
                       concept_name.find("net_") != std::string::npos ||
                       concept_name.find("IncomeExpense") != std::string::npos;
      if (!net) continue;
      found.push_back({"net interest used as gross", Severity::Warning, Stop::Filings,
                       concept_name + " stands on gross interest; its name says that interest income has been taken "
                                      "off, which flatters the cost of debt and interest cover",
                       interest, c});
      return;
    }
  }
}

}  // namespace

void monitorPlausibility(const model::Model& m, const StandardStatements& s, const std::vector<Fact>& facts,
                         const DocumentNames& documents, std::vector<Finding>& found) {
  checkDates(facts, documents, found);
  checkScale(m, s, facts, documents, found);
  checkSplits(m.nameOf(model::Role::Shares), s, found);
  checkSigns(m, s, facts, documents, found);
  checkNetInterest(m.nameOf(model::Role::InterestExpense), s, facts, found);
}

}  // namespace zl
