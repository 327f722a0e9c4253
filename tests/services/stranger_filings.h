#pragma once
// The same invented companies as their filings are handed in: tagged pages with linkbases in packages, facts of a
// company, a workbook copied out of a page. Written from the economics; the product reads what it finds.

#include <utility>

#include "tests/services/stranger_statements.h"

namespace zl::test {

enum class Filed {
  UsPackages,     ///< a package a year, three years of flows and two of balances, every linkbase, a concept of its own
  EuByFunction,   ///< report packages of two years, own concepts anchored in definition and calculation linkbases
  EuByNature,     ///< the same by nature, labels in French
  PenceWorkbook,  ///< pounds in millions and amounts a share in pence, with signs in cells of their own
  YenFacts,       ///< facts of a company, March year end, each year filed twice
  SmallFiler,     ///< whole dollars, one package, nothing rounded
};

inline constexpr Filed kFiled[] = {Filed::UsPackages,    Filed::EuByFunction, Filed::EuByNature,
                                   Filed::PenceWorkbook, Filed::YenFacts,     Filed::SmallFiler};

struct StrangerFilings {
  std::string name;
  Stranger stranger;                                       ///< the company as its table has it
  std::vector<std::pair<std::string, std::string>> files;  ///< name and content
  double count = 0;                                        ///< shares on the latest cover page; 0: none there
};

StrangerFilings filingsOf(Filed filed, std::uint64_t seed);

}  // namespace zl::test
