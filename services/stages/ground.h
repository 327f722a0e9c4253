#pragma once
// The second stage: what every scenario of a case stands on. The model with the analyst's own lines and
// rows, the standard statements, the compiled program, and history as filed and as adjusted.

#include <map>
#include <memory>
#include <optional>

#include "core/outlook/adjusted.h"
#include "core/outlook/evaluation.h"
#include "services/stages/filed.h"

namespace zl::services {

/// An input of the base case that history rules may read: chosen, else the model's own; absent for no row.
Figure assumedInput(const model::Model& m, const Case& c, model::RowId row);

/// History under the model: drivers and the forecast stand on the adjusted one.
struct ToldHistory {
  std::shared_ptr<const model::HistoryTable> adjusted;
  std::shared_ptr<const model::HistoryTable> asFiled;  ///< the same table without an adjustment
  std::map<CellOfLine, Shift> shifts;                  ///< what the adjustments move
};

/// `layout` over the years of `filed`.
std::shared_ptr<const ToldHistory> tellHistory(const Resources& resources, const Standardised& filed, const Case& c,
                                               const model::Layout& layout);

struct Ground {
  std::shared_ptr<const Resources> resources;  ///< the shipped ones with the case's own lines and rows
  /// Why the case's own rows are not in use: they do not fit the model that ships now. Empty where they are.
  std::optional<Error> ownRowsFault;
  std::shared_ptr<const Evidence> evidence;
  std::shared_ptr<const Standardised> filed;
  std::shared_ptr<const CompiledModel> compiled;
  std::shared_ptr<const ToldHistory> history;

  [[nodiscard]] const std::vector<FiscalYear>& years() const { return filed->statements.years(); }
};

}  // namespace zl::services
