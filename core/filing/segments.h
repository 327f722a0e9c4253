#pragma once
// Parts of the company as filed: a line by business, by region or by any other axis, by year.

#include <functional>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/filing/company.h"
#include "core/filing/mapping.h"

namespace zl {

/// One member of an axis over the fiscal years, of facts that name that axis alone.
struct SegmentRow {
  std::string line;  ///< standard line of the concept, may be empty
  std::string concept_name;
  std::string unit;
  std::string axis;
  std::string member;
  std::vector<std::optional<size_t>> facts;  ///< by fiscal year: the last filed one
};

/// All such rows, by concept, axis and member in the order of their names. `lineOf` tells a
/// concept's standard line. Facts with several axes cut finer and are left out here.
std::vector<SegmentRow> segmentRows(std::span<const Fact> facts, const std::vector<FiscalYear>& years,
                                    const std::function<std::string(const std::string&)>& lineOf);

/// Members of one axis against the whole, judged with the filed rounding.
struct SegmentSum {
  std::string concept_name;
  std::string axis;
  int column = 0;
  bool ties = true;
  std::string gap;            ///< members less the whole, exact decimal text
  std::string tolerance;      ///< exact decimal text
  std::vector<size_t> facts;  ///< the members', then the whole's
};

/// For every concept, axis and year with at least two members and a whole, all of one document. Members that hold one
/// another (a region beside its countries) make a sum too large: the gap then says so.
std::vector<SegmentSum> checkSegmentSums(const std::vector<SegmentRow>& rows, std::span<const Fact> facts,
                                         const std::vector<FiscalYear>& years);

/// "ifrs-full:SegmentsAxis" -> "Segments", "vsh:ServiceAndPartsMember" -> "Service and Parts".
std::string plainMember(const std::string& name);
/// What the record calls a member, told by what is filed or by how that reads in words; else how it reads in words.
std::string calledPart(const Company& company, const std::string& filed);

}  // namespace zl
