#pragma once
// A book and all its companies: who is in it, and what each is worth. In: a book and what evaluates a
// case. Out: lists. Nothing is changed.

#include <functional>
#include <string>
#include <vector>

#include "exchange/json/json.h"
#include "exchange/stop_check.h"
#include "services/stages/case_evaluator.h"

namespace zl::services {

struct CompanyEntry {
  std::string id;    ///< what commands call it
  std::string name;  ///< of its record; the id where there is none that can be read
};

/// The company that a book opens with where nobody names one: the only one, or the one that was made so; empty where
/// there are several and none was.
Result<std::string> homeOf(store::Book& book);

/// All companies of a book by name.
Result<std::vector<CompanyEntry>> companiesOf(store::Book& book);

/// Short names as a message lists them: the first few, and how many more.
std::string companyList(const std::vector<std::string>& ids);

struct ScenarioValue {
  std::string id;
  std::string label;
  Figure value;
};

struct CompanyValue {
  CompanyEntry company;
  std::string fault;  ///< why it has no value; empty where the rest is there
  std::string unit;   ///< of the listing, in which all figures are
  Date valuedOn{};
  Figure price;
  std::vector<ScenarioValue> values;  ///< per share
  Figure weighted;                    ///< by the scenarios' probabilities
  Figure upside;                      ///< weighted value over price, less one
};

/// What every company of a book is worth by its own case, in the order of companiesOf(). A company that
/// cannot be valued says why and stops no other. Linear in the companies, shared by a few reading connections; of those
/// valued the evaluator's caches keep the last few, so a session's own is not the one to give. Fails with Cancelled
/// when it was stopped.
Result<std::vector<CompanyValue>> valuesOf(store::Book& book, CaseEvaluator& evaluator, Date today,
                                           const exchange::StopCheck& stopped = {},
                                           const std::function<void(size_t done, size_t total)>& progress = {});

exchange::Json valuesJson(const std::vector<CompanyValue>& values);
std::string valuesText(const std::vector<CompanyValue>& values);

}  // namespace zl::services
