#include "core/monitor/finding.h"

namespace zl {

const char* stopWord(Stop stop) {
  switch (stop) {
    case Stop::Company:
      return "Company";
    case Stop::Filings:
      return "Filings";
    case Stop::History:
      return "History";
    case Stop::Outlook:
      return "Outlook";
    case Stop::Capital:
      return "Capital";
    case Stop::CashValue:
      return "Cash value";
    case Stop::Peers:
      return "Peers";
    case Stop::Stress:
      return "Stress";
    case Stop::Verdict:
      return "Verdict";
  }
  return "";
}

namespace {

std::string yearText(const StandardStatements& s, int column) {
  return std::to_string(s.years()[static_cast<size_t>(column)].label());
}

void checkGapsInYears(const StandardStatements& s, std::vector<Finding>& found) {
  for (size_t i = 1; i < s.years().size(); ++i) {
    const int days = daysBetween(s.years()[i - 1].end, s.years()[i].end);
    if (days >= 364 && days <= 371) continue;
    found.push_back({"period missing or overlapping", Severity::Fault, Stop::Filings,
                     "Fiscal years end on " + dateText(s.years()[i - 1].end) + " and " + dateText(s.years()[i].end) +
                         ", " + std::to_string(days) + " days apart",
                     "", static_cast<int>(i)});
  }
}

}  // namespace

std::vector<Finding> monitorFilings(const StandardStatements& s, const std::vector<Fact>& facts,
                                    const std::vector<Tie>& ties, const std::vector<TieResult>& results) {
  std::vector<Finding> found;
  checkGapsInYears(s, found);
  for (const TieResult& r : results) {
    if (r.state != TieResult::State::Fails) continue;
    found.push_back({"tie fails", Severity::Fault, Stop::Filings,
                     ties[r.tie].label + " " + yearText(s, r.column) + ": off by " + r.gap +
                         ", the filed rounding allows " + r.tolerance,
                     ties[r.tie].total.line, r.column});
  }
  for (const Disagreement& d : s.disagreements()) {
    const Fact& a = facts[d.used];
    const Fact& b = facts[d.other];
    found.push_back({"duplicate facts disagree", Severity::Fault, Stop::Filings,
                     a.concept_name + " " + a.period.text() + ": " + a.text + " (" + a.place + ") and " + b.text +
                         " (" + b.place + ")",
                     "", -1});
  }
  if (!s.unmapped().empty()) {
    int count = 0;
    for (const UnmappedConcept& u : s.unmapped()) count += u.facts;
    found.push_back({"unmapped facts", Severity::Note, Stop::Filings,
                     std::to_string(count) + " facts of " + std::to_string(s.unmapped().size()) +
                         " concepts map to no standard line",
                     "", -1});
  }
  if (s.otherCurrencyFacts() > 0) {
    found.push_back({"currency mix", Severity::Warning, Stop::Filings,
                     std::to_string(s.otherCurrencyFacts()) +
                         " facts are in another currency than the company reports in; set aside",
                     "", -1});
  }
  return found;
}

}  // namespace zl
