#pragma once
// The case of a company as its book has it.

#include <memory>
#include <optional>
#include <string>

#include "core/outlook/case.h"
#include "services/stages/case_evaluator.h"

namespace zl::services {

/// A case from before base years were kept starts from the last year filed: pinned there, so that
/// the next filing moves no path.
void pinBaseYear(Case& c, const std::shared_ptr<const Evidence>& evidence, CaseEvaluator& evaluator);

struct StoredCase {
  Case theCase;
  std::string newer;  ///< why it cannot be changed: a newer program wrote it; empty where it can
};

/// What the text says; without one, the first case of the company: valued on the last day with a price,
/// else on `today`.
Result<StoredCase> storedCase(const std::optional<std::string>& text, const Sources& sources, CaseEvaluator& evaluator,
                              Date today);

}  // namespace zl::services
