#pragma once
// All figures of one case: every row, every year, every scenario. A pure function of the case,
// the filed history and the market's givens.

#include <map>
#include <memory>
#include <mutex>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/model/evaluate.h"
#include "core/model/interpret.h"
#include "core/outlook/case.h"

namespace zl {

/// A model with its program for one horizon; shared by everything that evaluates it.
struct CompiledModel {
  CompiledModel(model::Model m, model::Program p) : model(std::move(m)), program(std::move(p)) {}

  const model::Model model;
  const model::Program program;

  /// The part of the program that cells stand on; where rows are `moved`, of what these reach (see sliceFor). Made when
  /// first asked for. From any thread.
  [[nodiscard]] const model::Program& partFor(const std::vector<model::Cell>& cells,
                                              const std::set<model::RowId>& moved = {}) const;
  /// Of a constant row.
  [[nodiscard]] const model::Program& partFor(model::RowId row) const { return partFor({{row, 0}}); }

 private:
  mutable std::mutex guard_;
  using Part = std::pair<std::vector<model::Cell>, std::set<model::RowId>>;  // wanted, moved
  mutable std::map<Part, model::Program> parts_;
};

Result<std::shared_ptr<const CompiledModel>> compileModel(const model::Model& m, model::Layout l);

/// What the market, the record and the calendar say, by row name; a row without an entry is absent.
using Givens = std::map<std::string, Figure>;

class Evaluation {
 public:
  Evaluation(std::shared_ptr<const CompiledModel> compiled, std::shared_ptr<const model::HistoryTable> history, Case c,
             const Givens& givens);

  [[nodiscard]] const Case& caseOf() const { return case_; }
  [[nodiscard]] const std::shared_ptr<const CompiledModel>& compiled() const { return compiled_; }
  [[nodiscard]] const model::Model& model() const { return compiled_->model; }
  [[nodiscard]] const model::Layout& layout() const { return compiled_->program.layout; }
  [[nodiscard]] const model::Program& program() const { return compiled_->program; }
  [[nodiscard]] int scenarios() const { return static_cast<int>(case_.scenarios.size()); }

  /// A figure with its reason where it has none. Constant rows ignore the column.
  [[nodiscard]] Figure figure(model::RowId row, int column, int scenario) const;
  /// Its number without a reason, which takes no time to find: not a number where it has none.
  [[nodiscard]] double orNaN(model::Cell cell, int scenario) const;
  /// Of a row that somebody named; absent where the model has none of that name.
  [[nodiscard]] Figure figure(const std::string& row, int column, int scenario) const;
  [[nodiscard]] Figure constant(const std::string& row, int scenario) const { return figure(row, 0, scenario); }
  /// Of the row that plays a role; absent, and says which, in a model without it.
  [[nodiscard]] Figure figure(model::Role role, int column, int scenario) const;
  /// A constant row's figure.
  [[nodiscard]] Figure constant(model::RowId row, int scenario) const { return figure(row, 0, scenario); }
  [[nodiscard]] Figure constant(model::Role role, int scenario) const { return figure(role, 0, scenario); }
  /// Whether a choice stands on an option of that name; false in a model that does not offer it.
  [[nodiscard]] bool stands(model::Role choice, const char* option, int scenario) const;
  /// The method that gives the headline's value in a scenario; null in a model that names none.
  [[nodiscard]] const model::Method* leadingMethod(int scenario) const;
  /// Rounds the circular groups needed; negative `unsettled` entries mean that all settled.
  [[nodiscard]] int rounds() const { return lanes_.rounds; }
  [[nodiscard]] bool settled(int scenario) const { return lanes_.unsettled[static_cast<size_t>(scenario)] < 0; }
  [[nodiscard]] std::string unsettledRows(int scenario) const;
  /// Whether a driver's path was held at the end of its range in this forecast year.
  [[nodiscard]] bool clipped(model::Cell cell, int scenario) const;

 private:
  /// Why computed cells of one scenario have no number: made when the first one is asked for, since most lanes are
  /// asked for one figure only.
  struct Reasons {
    std::once_flag once;
    std::map<model::Cell, Figure> of;
  };

  [[nodiscard]] const std::map<model::Cell, Figure>& reasonsOf(int scenario) const;
  [[nodiscard]] std::map<model::Cell, Figure> explain(int scenario) const;
  void placeInputs(const Givens& givens);
  /// What a scenario says of every driver and input, in the order of inputAt_.
  [[nodiscard]] std::vector<Figure> inputsOf(const Scenario& s);
  /// The given, the choice or the forecast year of a driver at a cell; null for all other cells.
  [[nodiscard]] const Figure* input(model::Cell cell, int scenario) const;
  [[nodiscard]] std::optional<Figure> number(model::Cell cell, int scenario) const;

  std::shared_ptr<const CompiledModel> compiled_;
  std::shared_ptr<const model::HistoryTable> history_;
  Case case_;
  model::LaneResults lanes_;
  std::vector<std::int32_t> inputAt_;           ///< by row: where its figures begin in givens_ or inputs_, -1: computed
  std::size_t inputCells_ = 0;                  ///< of drivers and inputs in one scenario
  std::vector<Figure> givens_;                  ///< the same in every scenario
  std::vector<std::vector<Figure>> inputs_;     ///< per scenario: drivers and inputs
  std::vector<std::set<model::Cell>> clipped_;  ///< per scenario
  std::vector<std::unique_ptr<Reasons>> reasons_;  ///< per scenario
};

/// The path that a driver follows in a scenario: assumed, else the model's preset, which holds the
/// last actual where it says so and there is one.
Path pathInForce(const model::Row& driver, const Case& c, const Scenario& s, const Figure& lastActual);

/// A given, or an input of a scenario: chosen, else the model's own.
Figure constantFigure(const model::Row& row, const Case& c, const Scenario& s, const Givens& givens);

/// A driver's figures by forecast year, as the model reads them.
struct DriverFigures {
  std::vector<Figure> figures;
  std::vector<bool> clipped;  ///< the path went beyond the driver's range there and was held at it
};

/// `lastActual` is the driver's own last figure in history, `years` the forecast years.
DriverFigures driverFigures(const model::Row& driver, const Case& c, const Scenario& s, const Figure& lastActual,
                            int years);

/// Sum of probability times value; not meaningful when the probabilities do not sum to one or a
/// scenario has no value (naming it).
Figure weightedValue(const Evaluation& e, model::RowId row);
Figure weightedValue(const Evaluation& e, model::Role role);

}  // namespace zl
