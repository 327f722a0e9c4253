#pragma once
// Analysts' estimates of a company's lines, dated, and what they say of the model's drivers.

#include <optional>
#include <string>
#include <vector>

#include "core/model/interpret.h"
#include "core/period/date.h"
#include "core/quantity/figure.h"

namespace zl {

enum class EstimateBy { Analysts, Company };

/// One line of a dated snapshot, the analysts' or the company's guidance. Amounts are in reporting currency, in the
/// line's usual direction.
struct Estimate {
  std::string item;  ///< a row of the model by name: "revenue", "capex"
  int year = 0;      ///< fiscal year
  std::optional<double> low, high;
  double mean = 0;
  int count = 0;  ///< analysts; 0: not said
  Date date{};    ///< of the snapshot
  std::string source;
  EstimateBy by = EstimateBy::Analysts;
};

/// The latest snapshot at or before a date of every item and year that one side estimates.
std::vector<Estimate> latestEstimates(const std::vector<Estimate>& all, Date date,
                                      EstimateBy by = EstimateBy::Analysts);

enum class EstimateEnd { Low, Mean, High };

/// What estimates say of the model's rows in forecast years: estimated rows as they are, others by
/// their own history rules applied to the estimates. Rows that need anything that nobody estimates
/// have no figure there.
class Consensus {
 public:
  /// `estimates` as of one date; `baseYear` is the fiscal year of the last history column. The model
  /// and the history must outlive it.
  Consensus(const model::Model& m, const model::HistoryTable& history, int baseYear,
            const std::vector<Estimate>& estimates, std::function<Figure(model::RowId)> assumed);

  /// Every estimate at the same end. An item without that end counts with its mean.
  [[nodiscard]] Figure at(model::RowId row, int column, EstimateEnd end) const;

  struct Spread {
    Figure low, mean, high;
    int count = 0;  ///< the fewest analysts behind an item it needs; 0: not said
  };
  /// The lowest and the highest figure that the ends of the year's own estimates, in any combination,
  /// give; other years' estimates count with their means.
  [[nodiscard]] Spread spread(model::RowId row, int column) const;
  /// The estimates that a figure stands on, those of other years that its rule reads included.
  [[nodiscard]] std::vector<Estimate> behind(model::RowId row, int column) const;
  [[nodiscard]] bool empty() const { return estimates_.empty(); }

 private:
  using Choose = std::function<double(const Estimate&)>;
  [[nodiscard]] Figure figure(model::Cell cell, const Choose& choose, std::vector<const Estimate*>* used,
                              int depth) const;
  [[nodiscard]] const Estimate* estimate(model::Cell cell) const;

  const model::Model& model_;
  const model::HistoryTable& history_;
  int baseYear_;
  std::vector<Estimate> estimates_;
  std::function<Figure(model::RowId)> assumed_;
};

}  // namespace zl
