#include "services/stages/snapshot.h"

namespace zl::services {

Snapshot::Snapshot(std::shared_ptr<CaseEvaluator> by, Evaluated evaluated, std::shared_ptr<const FilingReview> reviewed,
                   Judgement judgement)
    : evaluator(std::move(by)),
      ground(std::move(evaluated.ground)),
      resources(ground->resources),
      evidence(ground->evidence),
      market(std::move(evaluated.market)),
      filed(ground->filed),
      review(std::move(reviewed)),
      history(ground->history->adjusted),
      asFiled(ground->history->asFiled),
      givens(std::move(evaluated.givens)),
      evaluation(std::move(evaluated.evaluation)),
      crossCheck(std::move(evaluated.crossCheck)),
      findings(std::move(judgement.findings)) {}

Snapshot::~Snapshot() = default;

std::string Snapshot::periodOf(int column) const {
  const int past = evaluation->layout().historyYears;
  if (column < past) return std::to_string(years()[static_cast<size_t>(column)].label());
  return std::to_string(years().back().label() + column - past + 1) + "E";
}

const store::StoredDocument* Snapshot::document(std::int64_t id) const {
  for (const store::StoredDocument& d : evidence->documents) {
    if (d.document.id == id) return &d;
  }
  return nullptr;
}

}  // namespace zl::services
