#include "core/filing/interim.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "core/filing/line_builder.h"
#include "core/filing/shapes.h"

namespace zl {
namespace {

constexpr double kQuarterDays = 365.25 / 4;
constexpr int kSlack = 10;  ///< days by which thirteen weeks and three months may differ, with a leap week

/// Which quarter of a year a day ends, 0 when it ends none.
int quarterEnding(Date yearStart, Date end) {
  const int days = daysBetween(yearStart, end) + 1;
  const int number = static_cast<int>(std::lround(days / kQuarterDays));
  if (number < 1 || number > 4 || std::abs(days - number * kQuarterDays) > kSlack) return 0;
  return number;
}

bool isOneQuarter(const Period& period) {
  return period.start && std::abs(period.days() - kQuarterDays) <= kSlack;
}

struct Year {
  Date start;
  Date end;
  int label;
};

/// The fiscal years on record and the one that is running.
std::vector<Year> fiscalYears(const StandardStatements& annual) {
  std::vector<Year> years;
  const std::vector<FiscalYear>& ends = annual.years();
  for (size_t i = 0; i < ends.size(); ++i) {
    const bool joins = i > 0 && std::abs(daysBetween(ends[i - 1].end, ends[i].end) - 365) <= 7;
    const Date before = joins ? ends[i - 1].end : addYears(ends[i].end, -1);
    years.push_back({before + std::chrono::days(1), ends[i].end, ends[i].label()});
  }
  if (!years.empty()) {
    const Date last = years.back().end;
    const Date next = addYears(last, 1);
    years.push_back({last + std::chrono::days(1), next, yearOf(next)});
  }
  return years;
}

LineCell gap(const char* why) {
  return {Figure::absent(why), Origin::Missing, {}};
}

/// a + weight * b, with the facts of both.
LineCell combined(LineCell a, int weight, const LineCell& b) {
  a.figure = weight < 0 ? a.figure - b.figure : a.figure + b.figure;
  for (const LineCell::Part& part : b.parts) a.parts.push_back({part.fact, weight * part.weight, part.share});
  return a;
}

}  // namespace

InterimStatements InterimStatements::build(std::span<const Fact> facts, const MappingRules& rules,
                                           const std::string& currency, const LineChoices& choices,
                                           const FirstFiled& firstFiled, const StandardStatements& annual,
                                           const StatementShapes& shapes) {
  InterimStatements s;
  LineBuilder builder(facts, rules, choices, firstFiled);
  for (size_t i = 0; i < facts.size(); ++i) {
    const Fact& fact = facts[i];
    if (fact.segments.empty() && !isForeignUnit(fact.unit, currency) && builder.isMapped(fact.concept_name))
      builder.choose(i);
  }
  std::set<Date> interimEnds;
  for (const auto& [key, fact] : builder.chosen()) {
    if (key.period.start && !key.period.isFullYear()) interimEnds.insert(key.period.end);
  }
  const std::vector<Year> years = fiscalYears(annual);
  for (size_t y = 0; y < years.size(); ++y) {
    std::map<int, Date> ends;
    for (const Date end : interimEnds) {
      if (end < years[y].start || end > years[y].end) continue;
      if (const int number = quarterEnding(years[y].start, end); number > 0) ends[number] = end;
    }
    // A finished year that has any interim period also has a last quarter.
    if (!ends.empty() && y + 1 < years.size()) ends[4] = years[y].end;
    for (const auto& [number, end] : ends) s.quarters_.push_back({years[y].label, number, years[y].start, end});
  }
  const auto cellFor = [&](const MappingRule& rule, const Period& period) {
    return builder.cell(rule, [&](const std::string& concept_name) -> const size_t* {
      const auto fact = builder.chosen().find({concept_name, period});
      return fact == builder.chosen().end() ? nullptr : &fact->second;
    });
  };
  // The first day may be a day off where weeks are counted; what ends on the day and lasts a quarter
  // is the quarter.
  std::map<Date, std::set<Date>> quarterStarts;
  for (const auto& [key, fact] : builder.chosen()) {
    if (isOneQuarter(key.period)) quarterStarts[key.period.end].insert(*key.period.start);
  }
  for (const MappingRule& rule : rules.rules()) {
    std::vector<Cells>& cells = s.lines_[rule.line];
    // A line the filer never has is none reported in every period; one that it has in the year's
    // accounts but not in an interim report is not known there.
    bool ever = false;
    for (int c = 0; c < static_cast<int>(annual.years().size()); ++c)
      ever = ever || annual.at(rule.line, c).origin == Origin::Filed;
    const auto known = [&](LineCell cell) {
      return cell.origin == Origin::NoneReported && ever ? gap("not filed for this period") : std::move(cell);
    };
    for (const FiscalQuarter& q : s.quarters_) {
      Cells c;
      c.yearToDate = known(cellFor(rule, {q.yearStart, q.end}));
      if (q.number == 4) {
        for (int column = 0; column < static_cast<int>(annual.years().size()); ++column) {
          if (annual.years()[static_cast<size_t>(column)].end == q.end) c.yearToDate = annual.at(rule.line, column);
        }
      }
      c.quarter = q.number == 1 ? c.yearToDate : gap("not filed for this quarter");
      if (const auto starts = quarterStarts.find(q.end);
          starts != quarterStarts.end() && !c.quarter.figure.hasValue()) {
        for (const Date start : starts->second) {
          if (!c.quarter.figure.hasValue()) c.quarter = known(cellFor(rule, {start, q.end}));
        }
      }
      if (q.number == 1 && !c.yearToDate.figure.hasValue()) c.yearToDate = c.quarter;
      c.balance = known(cellFor(rule, {std::nullopt, q.end}));
      cells.push_back(std::move(c));
    }
  }
  for (size_t q = 0; q < s.quarters_.size(); ++q) {
    for (LineCell Cells::*span : {&Cells::quarter, &Cells::yearToDate, &Cells::balance}) {
      const auto cellOf = [&](const std::string& line) {
        const auto found = s.lines_.find(line);
        return found == s.lines_.end() ? nullptr : &(found->second[q].*span);
      };
      shapes.apply(cellOf, facts);
    }
  }
  for (auto& [line, cells] : s.lines_) {
    // What was not filed follows from what was: forwards, each step needs the one before it.
    for (size_t i = 0; i < cells.size(); ++i) {
      const int previous = s.before(static_cast<int>(i), 1);
      const bool sameYear =
          previous >= 0 && s.quarters_[static_cast<size_t>(previous)].fiscalYear == s.quarters_[i].fiscalYear;
      if (!sameYear) continue;
      const Cells& earlier = cells[static_cast<size_t>(previous)];
      if (!cells[i].yearToDate.figure.hasValue() && cells[i].quarter.figure.hasValue())
        cells[i].yearToDate = combined(earlier.yearToDate, 1, cells[i].quarter);
      if (!cells[i].quarter.figure.hasValue()) cells[i].quarter = combined(cells[i].yearToDate, -1, earlier.yearToDate);
    }
  }
  return s;
}

const InterimStatements::Cells* InterimStatements::at(const std::string& line, int index) const {
  const auto found = lines_.find(line);
  if (found == lines_.end() || index < 0 || index >= static_cast<int>(found->second.size())) return nullptr;
  return &found->second[static_cast<size_t>(index)];
}

int InterimStatements::before(int index, int quarters) const {
  const FiscalQuarter& q = quarters_[static_cast<size_t>(index)];
  const int wanted = q.fiscalYear * 4 + q.number - quarters;
  for (int i = index - 1; i >= 0; --i) {
    const FiscalQuarter& other = quarters_[static_cast<size_t>(i)];
    if (other.fiscalYear * 4 + other.number == wanted) return i;
  }
  return -1;
}

LineCell InterimStatements::cell(Span span, const std::string& line, int index) const {
  if (span == Span::Trailing) return trailingCell(line, index);
  const Cells* cells = at(line, index);
  if (cells == nullptr) return gap("no such quarter");
  return span == Span::Quarter ? cells->quarter : span == Span::Balance ? cells->balance : cells->yearToDate;
}

Figure InterimStatements::quarter(const std::string& line, int index) const {
  return cell(Span::Quarter, line, index).figure;
}

Figure InterimStatements::yearToDate(const std::string& line, int index) const {
  return cell(Span::YearToDate, line, index).figure;
}

Figure InterimStatements::balance(const std::string& line, int index) const {
  return cell(Span::Balance, line, index).figure;
}

Figure InterimStatements::trailing(const std::string& line, int index) const {
  return trailingCell(line, index).figure;
}

LineCell InterimStatements::trailingCell(const std::string& line, int index) const {
  const Cells* now = at(line, index);
  if (now == nullptr) return gap("no such quarter");
  const FiscalQuarter& q = quarters_[static_cast<size_t>(index)];
  if (q.number == 4) return now->yearToDate;
  const Cells* yearBefore = at(line, before(index, 4));
  const Cells* lastYear = at(line, before(index, q.number));
  if (yearBefore != nullptr && lastYear != nullptr) {
    LineCell twelve = combined(combined(lastYear->yearToDate, 1, now->yearToDate), -1, yearBefore->yearToDate);
    if (twelve.figure.hasValue()) return twelve;
  }
  LineCell sum{Figure::of(0.0), Origin::Filed, {}};
  for (int back = 0; back < 4; ++back) {
    const Cells* one = back == 0 ? now : at(line, before(index, back));
    sum = combined(std::move(sum), 1, one == nullptr ? gap("a quarter of the twelve months is missing") : one->quarter);
  }
  return sum;
}

}  // namespace zl
