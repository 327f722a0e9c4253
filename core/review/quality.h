#pragma once
// The quality review: tests that the analyst edits, each a figure on its own scale beside its
// threshold. No total, no grade: what fails is a question to answer.
//
//   group "Resilience"
//   test cover "EBIT over gross interest" interest_cover last over 1 at least 4 covers counted_interest

#include <functional>
#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "core/history/trend.h"
#include "core/outlook/case.h"
#include "core/quantity/error.h"

namespace zl {

struct QualityTest {
  enum class Statistic { Last, Mean, Median, Low, High, Growth, Change, Nonzero };
  std::string name;
  std::string label;
  std::string group;
  std::string row;  ///< of the model
  Statistic statistic = Statistic::Last;
  int years = 1;
  bool atLeast = true;
  double threshold = 0;
  std::string covers;  ///< row of what is to be covered: where there is nothing of it, the test holds
  std::string sector;  ///< empty: for every company
};

/// Message names the line. Rows are checked against the model by the caller, who knows it.
Result<std::vector<QualityTest>> parseQualityTests(std::string_view text, const std::string& source);
const char* statisticWord(QualityTest::Statistic statistic);

struct QualityResult {
  size_t test = 0;
  Figure figure;
  int count = 0;         ///< years it stands on
  double threshold = 0;  ///< the analyst's own, else the test's
  bool ownThreshold = false;
  std::string exempt;         ///< why it does not apply here; empty: it does
  std::optional<bool> holds;  ///< empty where there is no figure or it is exempt
  std::string remark;         ///< why a figure is missing, or why it holds without one
  Figure low, high;           ///< of the row's regular years, the scale it is drawn on
};

/// `seriesOf` gives a row's history. Tests for other sectors are left out. A cover without a figure holds where its
/// years have nothing to cover.
std::vector<QualityResult> review(const std::vector<QualityTest>& tests,
                                  const std::map<std::string, TestChoice>& choices, const std::string& sector,
                                  const std::function<Series(const std::string&)>& seriesOf);

}  // namespace zl
