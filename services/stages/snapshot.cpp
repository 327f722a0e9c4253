#include "services/stages/snapshot.h"

#include "core/monitor/undecided.h"
#include "services/stages/judgement.h"

namespace zl::services {

Snapshot::Snapshot(std::shared_ptr<CaseEvaluator> by, Evaluated evaluated, std::shared_ptr<const FilingReview> reviewed)
    : evaluator(std::move(by)),
      ground(std::move(evaluated.ground)),
      resources(ground->resources),
      evidence(ground->evidence),
      market(std::move(evaluated.market)),
      filed(ground->filed),
      review(std::move(reviewed)),
      history(ground->history->adjusted),
      asFiled(ground->history->asFiled),
      givenFigures(std::move(evaluated.given)),
      givens(givenFigures->givens),
      crossCheck(givenFigures->crossCheck),
      evaluation(std::move(evaluated.evaluation)) {}

Snapshot::~Snapshot() = default;

const std::vector<Finding>& Snapshot::findings() const {
  std::call_once(judged_, [this] { findings_ = judge(*this); });
  return findings_;
}

std::string Snapshot::textOf(const Finding& finding) const {
  if (!finding.standsOnUndecided) return finding.text;
  std::call_once(ranked_, [this] { undecided_ = undecidedThatMoveMost(*evaluation); });
  return undecided_.empty() ? finding.text : finding.text + "; what is not decided and moves it most: " + undecided_;
}

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
