#include "core/filing/segments.h"

#include <algorithm>
#include <cctype>
#include <map>
#include <tuple>

#include "core/filing/labels.h"
#include "core/filing/tie.h"

namespace zl {
namespace {

/// Fiscal year whose end and length a fact's period has; -1 for any other period.
int columnOf(const Period& period, const std::vector<FiscalYear>& years) {
  for (size_t c = 0; c < years.size(); ++c) {
    if (years[c].end == period.end) return period.isInstant() || period.isFullYear() ? static_cast<int>(c) : -1;
  }
  return -1;
}

}  // namespace

std::vector<SegmentRow> segmentRows(std::span<const Fact> facts, const std::vector<FiscalYear>& years,
                                    const std::function<std::string(const std::string&)>& lineOf) {
  std::map<std::tuple<std::string, std::string, std::string, std::string>, SegmentRow> rows;
  for (size_t i = 0; i < facts.size(); ++i) {
    const Fact& fact = facts[i];
    if (fact.segments.size() != 1 || fact.nil) continue;
    const int column = columnOf(fact.period, years);
    if (column < 0) continue;
    const Segment& segment = fact.segments.front();
    SegmentRow& row = rows[{fact.concept_name, segment.axis, segment.member, fact.unit}];
    if (row.facts.empty()) {
      row = {lineOf(fact.concept_name),
             fact.concept_name,
             fact.unit,
             segment.axis,
             segment.member,
             std::vector<std::optional<size_t>>(years.size())};
    }
    row.facts[static_cast<size_t>(column)] = i;
  }
  std::vector<SegmentRow> list;
  list.reserve(rows.size());
  for (auto& [key, row] : rows) list.push_back(std::move(row));
  return list;
}

std::vector<SegmentSum> checkSegmentSums(const std::vector<SegmentRow>& rows, std::span<const Fact> facts,
                                         const std::vector<FiscalYear>& years) {
  // The whole is the one in the members' own document: a later filing may have restated it alone.
  std::map<std::tuple<std::string, std::string, int, std::int64_t>, size_t> wholes;
  for (size_t i = 0; i < facts.size(); ++i) {
    if (!facts[i].segments.empty() || facts[i].nil) continue;
    const int column = columnOf(facts[i].period, years);
    if (column >= 0) wholes[{facts[i].concept_name, facts[i].unit, column, facts[i].document}] = i;
  }
  std::map<std::tuple<std::string, std::string, std::string, int>, std::vector<size_t>> members;
  for (const SegmentRow& row : rows) {
    for (size_t c = 0; c < row.facts.size(); ++c) {
      if (row.facts[c]) members[{row.concept_name, row.unit, row.axis, static_cast<int>(c)}].push_back(*row.facts[c]);
    }
  }
  std::vector<SegmentSum> sums;
  for (const auto& member : members) {
    const auto& [concept_name, unit, axis, column] = member.first;
    const std::vector<size_t>& parts = member.second;
    const auto whole = wholes.find({concept_name, unit, column, facts[parts.front()].document});
    const bool together = std::all_of(
        parts.begin(), parts.end(), [&](size_t part) { return facts[part].document == facts[parts.front()].document; });
    if (parts.size() < 2 || !together || whole == wholes.end()) continue;
    const std::optional<FiledSum> sum = filedSum(parts, whole->second, facts);
    if (!sum) continue;
    SegmentSum result{concept_name, axis, column, sum->ties, sum->gap, sum->tolerance, parts};
    result.facts.push_back(whole->second);
    sums.push_back(std::move(result));
  }
  return sums;
}

std::string plainMember(const std::string& name) {
  std::string local = name.substr(name.find(':') == std::string::npos ? 0 : name.find(':') + 1);
  for (const char* ending : {"Member", "Axis"}) {
    if (local.ends_with(ending) && local.size() > std::string(ending).size()) {
      local.resize(local.size() - std::string(ending).size());
    }
  }
  std::string words;
  for (size_t i = 0; i < local.size(); ++i) {
    const bool upper = std::isupper(static_cast<unsigned char>(local[i])) != 0;
    if (upper && i > 0 && std::islower(static_cast<unsigned char>(local[i - 1])) != 0) words += ' ';
    words += local[i];
  }
  for (const char* small : {" And ", " Of ", " The ", " In "}) {
    for (size_t at = words.find(small); at != std::string::npos; at = words.find(small))
      words[at + 1] = static_cast<char>(std::tolower(static_cast<unsigned char>(words[at + 1])));
  }
  return words;
}

std::string calledPart(const Company& company, const std::string& filed) {
  const std::string plain = plainMember(filed);
  const auto named = std::find_if(company.partNames.begin(), company.partNames.end(), [&](const PartName& n) {
    return n.filed == filed || normalisedLabel(n.filed) == normalisedLabel(plain);
  });
  return named == company.partNames.end() ? plain : named->called;
}

}  // namespace zl
