#include <algorithm>

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

/// A flow that fills exactly the days between two year ends: the fiscal year was changed.
bool isFilledByOnePeriod(const std::vector<Fact>& facts, Date before, Date end) {
  return std::any_of(facts.begin(), facts.end(), [&](const Fact& f) {
    return f.period.start && f.period.end == end && daysBetween(before, *f.period.start) == 1;
  });
}

void checkGapsInYears(const StandardStatements& s, const std::vector<Fact>& facts, std::vector<Finding>& found) {
  for (size_t i = 1; i < s.years().size(); ++i) {
    const Date before = s.years()[i - 1].end;
    const Date end = s.years()[i].end;
    const int days = daysBetween(before, end);
    if (days >= 364 && days <= 371) continue;
    if (days < 364) {
      found.push_back({"period missing or overlapping", Severity::Fault, Stop::Filings,
                       "The years to " + dateText(before) + " and " + dateText(end) + " overlap by " +
                           std::to_string(365 - days) +
                           " days; a change of year-end, or twelve months that are no fiscal year",
                       "", static_cast<int>(i)});
      continue;
    }
    // A short year may stand between: its start is the day after one year end, its end the day
    // before the next year begins.
    const Date yearStart = addYears(end, -1);
    const bool bridged = isFilledByOnePeriod(facts, before, yearStart);
    found.push_back({bridged ? "fiscal year of another length" : "period missing or overlapping",
                     bridged ? Severity::Warning : Severity::Fault, Stop::Filings,
                     bridged ? "Between the years to " + dateText(before) + " and " + dateText(end) +
                                   " stands a period of " + std::to_string(daysBetween(before, yearStart)) +
                                   " days: the fiscal year was changed; growth across it means nothing"
                             : "Fiscal years end on " + dateText(before) + " and " + dateText(end) + ", " +
                                   std::to_string(days) + " days apart",
                     "", static_cast<int>(i)});
  }
}

/// An exact figure with its thousands parted.
std::string parted(const std::string& exact) {
  constexpr const char* kDigits = "0123456789";
  std::string text = exact;
  const size_t first = exact.find_first_of(kDigits);
  if (first == std::string::npos) return text;
  const size_t end = std::min(exact.find_first_not_of(kDigits, first), exact.size());
  for (size_t at = end; at > first + 3;) text.insert(at -= 3, ",");
  return text;
}

}  // namespace

std::vector<Finding> monitorFilings(const model::Model& m, const StandardStatements& s, const std::vector<Fact>& facts,
                                    const std::vector<Tie>& ties, const std::vector<TieResult>& results,
                                    const std::vector<SegmentSum>& segments, const DocumentNames& documents) {
  std::vector<Finding> found;
  checkGapsInYears(s, facts, found);
  monitorPlausibility(m, s, facts, documents, found);
  for (const TieResult& r : results) {
    if (r.state != TieResult::State::Fails) continue;
    if (ties[r.tie].roll) {
      found.push_back({"movement not explained", Severity::Note, Stop::Filings,
                       ties[r.tie].label + " " + yearText(s, r.column) + ": " + parted(r.gap) +
                           " too much or too little for what the lines explain",
                       ties[r.tie].total.line, r.column});
      continue;
    }
    found.push_back({"tie fails", Severity::Fault, Stop::Filings,
                     ties[r.tie].label + " " + yearText(s, r.column) + ": off by " + parted(r.gap) +
                         ", the filed rounding allows " + parted(r.tolerance),
                     ties[r.tie].total.line, r.column});
  }
  for (const SegmentSum& sum : segments) {
    if (sum.ties) continue;
    found.push_back({"segments do not add up", Severity::Warning, Stop::Filings,
                     sum.concept_name + " " + yearText(s, sum.column) + " by " + plainMember(sum.axis) + ": off by " +
                         parted(sum.gap) + " from the whole, the filed rounding allows " + parted(sum.tolerance),
                     "", sum.column});
  }
  for (const Disagreement& d : s.disagreements()) {
    const Fact& a = facts[d.used];
    const Fact& b = facts[d.other];
    found.push_back({"duplicate facts disagree", Severity::Fault, Stop::Filings,
                     a.concept_name + " " + a.period.text() + ": " + a.text + " (" + a.place + ") and " + b.text +
                         " (" + b.place + ")",
                     "", -1});
  }
  int unknown = 0;
  int count = 0;
  for (const UnmappedConcept& u : s.unmapped()) {
    if (!u.reason.empty()) continue;  // a total, a repeat, an amount per share: counted elsewhere
    ++unknown;
    count += u.facts;
  }
  if (unknown > 0) {
    found.push_back({"unmapped facts", Severity::Note, Stop::Filings,
                     std::to_string(count) + " facts of " + std::to_string(unknown) +
                         (unknown == 1 ? " concept map" : " concepts map") + " to no standard line",
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
