#include "core/filing/fact_lines.h"

#include <algorithm>

namespace zl {
namespace {

bool isCurrency(const std::string& unit) {
  return unit.size() == 3 && std::all_of(unit.begin(), unit.end(), [](char c) { return c >= 'A' && c <= 'Z'; });
}

bool fits(const std::string& unit, Kind kind, const std::string& currency) {
  switch (kind) {
    case Kind::Money:
      return unit == currency;
    case Kind::Shares:
      return unit == "shares";
    case Kind::PerShare:
      return unit == currency + "/shares";
    case Kind::Count:
      return !isCurrency(unit) && unit != "shares" && unit.find('/') == std::string::npos;
    default:
      return unit == "pure";
  }
}

bool isOf(const Fact& fact, const model::FactSource& source) {
  if (fact.nil || fact.concept_name != source.concept_name) return false;
  if (source.axis.empty()) return fact.segments.empty();
  return fact.segments.size() == 1 && fact.segments.front() == Segment{source.axis, source.member};
}

}  // namespace

Kind kindOfUnit(const std::string& unit) {
  if (unit == "shares") return Kind::Shares;
  if (unit.ends_with("/shares")) return Kind::PerShare;
  return isCurrency(unit) ? Kind::Money : Kind::Count;
}

std::vector<LineCell> factLine(std::span<const Fact> facts, const std::vector<FiscalYear>& years,
                               const model::FactSource& source, Kind kind, const std::string& currency) {
  std::vector<LineCell> cells(years.size());
  for (size_t i = 0; i < facts.size(); ++i) {
    const Fact& fact = facts[i];
    const bool annual = fact.period.isInstant() || fact.period.isFullYear();
    if (!annual || !isOf(fact, source) || !fits(fact.unit, kind, currency)) continue;
    for (size_t c = 0; c < years.size(); ++c) {
      if (years[c].end == fact.period.end) cells[c] = {fact.figure(), Origin::Filed, {{i, 1}}};
    }
  }
  return cells;
}

std::vector<LineCell> recordedLine(const Company& company, const std::vector<FiscalYear>& years,
                                   const std::string& name) {
  std::vector<LineCell> cells(years.size());
  for (const OperatingFigure& figure : company.operating) {
    if (figure.name != name) continue;
    for (const auto& [year, amount] : figure.years) {
      for (size_t c = 0; c < years.size(); ++c) {
        if (years[c].label() == year) cells[c] = {Figure::of(amount), Origin::Filed, {}};
      }
    }
  }
  return cells;
}

}  // namespace zl
