#pragma once
// Everything there is to show about one company at one moment. A value: views read it, nobody
// changes it, and an edit makes another one.

#include <map>
#include <memory>
#include <mutex>
#include <optional>

#include "services/stages/case_evaluator.h"

namespace zl::services {

/// All stages of one case, its parts by the names that views know them under.
struct Snapshot {
  Snapshot(std::shared_ptr<CaseEvaluator> by, Evaluated evaluated, std::shared_ptr<const FilingReview> reviewed);
  Snapshot(const Snapshot&) = delete;
  Snapshot& operator=(const Snapshot&) = delete;
  ~Snapshot();

  std::shared_ptr<CaseEvaluator> evaluator;  ///< what made it: for values of cases like this one
  std::shared_ptr<const Ground> ground;
  std::shared_ptr<const Resources> resources;
  std::shared_ptr<const Evidence> evidence;
  std::shared_ptr<const Market> market;
  std::shared_ptr<const Standardised> filed;
  std::shared_ptr<const FilingReview> review;
  std::shared_ptr<const model::HistoryTable> history;  ///< adjusted: drivers and forecast stand on it
  std::shared_ptr<const model::HistoryTable> asFiled;  ///< the same table without an adjustment
  std::shared_ptr<const GivenFigures> givenFigures;
  const std::map<std::string, GivenFigure>& givens;
  const CrossCheck& crossCheck;
  std::shared_ptr<const Evaluation> evaluation;

  /// What monitors find. Made when first asked for and then kept: figures do not wait for it, and nobody asks while
  /// something is being dragged. From any thread.
  [[nodiscard]] const std::vector<Finding>& findings() const;

  /// What a finding says to who reads it: its text and, where it asks for that, what is not decided and moves the value
  /// most, looked for once. From any thread.
  [[nodiscard]] std::string textOf(const Finding& finding) const;
  /// Monitor and text: what lists and searches show of a finding.
  [[nodiscard]] std::string wordsOf(const Finding& finding) const { return finding.monitor + ": " + textOf(finding); }

  [[nodiscard]] const Case& caseOf() const { return evaluation->caseOf(); }
  [[nodiscard]] Sources sources() const { return {evidence, market}; }
  [[nodiscard]] const model::Model& model() const { return evaluation->model(); }
  [[nodiscard]] const GivenFigure& given(model::Role role) const { return givenOf(model(), givens, role); }
  [[nodiscard]] const Company& company() const { return evidence->company; }
  [[nodiscard]] const std::map<CellOfLine, Shift>& shifts() const { return ground->history->shifts; }
  [[nodiscard]] const std::optional<Error>& ownRowsFault() const { return ground->ownRowsFault; }
  [[nodiscard]] const std::vector<FiscalYear>& years() const { return filed->statements.years(); }
  [[nodiscard]] std::string periodOf(int column) const;  ///< "2025", "2026E"
  [[nodiscard]] const store::StoredDocument* document(std::int64_t id) const;

 private:
  mutable std::once_flag judged_;
  mutable std::vector<Finding> findings_;
  mutable std::once_flag ranked_;
  mutable std::string undecided_;
};

}  // namespace zl::services
