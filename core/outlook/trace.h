#pragma once
// One step of a trace: a figure, the rule that gives it with its values, what it stands on and
// what stands on it. Walking the inputs ends at a filed fact, an assumption or a given.

#include <string>
#include <vector>

#include "core/filing/mapping.h"
#include "core/outlook/evaluation.h"

namespace zl {

struct TraceLink {
  model::Cell cell;
  std::string label;
  std::string period;  ///< "2025", "2026E", "" for a constant
  Figure figure;
  model::Kind kind = model::Kind::Money;
  std::string option;  ///< of a choice: what it stands on
};

struct TraceStep {
  enum class Source { Derived, Filed, NoneReported, NotFiled, Assumed, Preset, Given };
  Source source = Source::Derived;
  TraceLink self;
  std::string help;
  std::string formula;            ///< as written in the model
  std::string formulaInWords;     ///< in the labels of its rows
  std::string formulaWithValues;  ///< with each reference replaced by its shown figure
  std::vector<TraceLink> inputs;
  std::vector<TraceLink> dependents;
  std::vector<LineCell::Part> facts;       ///< Filed: indices into the company's facts
  const Assumption* assumption = nullptr;  ///< Assumed: driver; lives as long as the evaluation
  const InputChoice* choice = nullptr;     ///< Assumed: input
  std::string inheritedFrom;               ///< scenario that holds the assumption
};

/// "2025" for filed years, "2026E" for projected ones, "" for constants.
std::string periodText(const Evaluation& e, const std::vector<FiscalYear>& years, model::Cell cell);

/// A cell as a step of a trace shows it among what it reads.
TraceLink linkTo(const Evaluation& e, const std::vector<FiscalYear>& years, model::Cell cell, int scenario);

TraceStep trace(const Evaluation& e, const StandardStatements& statements, model::Cell cell, int scenario);

}  // namespace zl
