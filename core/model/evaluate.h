#pragma once
// Runs a program over many lanes at once. A lane is one full set of inputs: a scenario, a step of
// a solver, a trial.
//
//   LaneInputs inputs(program, 3);
//   inputs.setAll(program.inputs[0], 100.0);
//   LaneResults results = evaluate(program, inputs, {slotA, slotB});
//
// A figure without a value is a quiet NaN here; interpret.h says why it has none. The same inputs
// give the same bits whatever the number of lanes, threads or the instruction set.

#include <span>
#include <vector>

#include "core/model/program.h"

namespace zl::model {

class LaneInputs {
 public:
  LaneInputs(const Program& program, int lanes);
  [[nodiscard]] int lanes() const { return lanes_; }
  /// `input` is an index into Program::inputs. Figures not set are absent (NaN).
  void setAll(size_t input, double figure) { uniform_[input] = figure; }
  void set(size_t input, int lane, double figure);
  [[nodiscard]] double at(size_t input, int lane) const;
  [[nodiscard]] bool varies(size_t input) const { return !varying_[input].empty(); }
  /// The lanes' figures of a varying input.
  [[nodiscard]] std::span<const double> lanesOf(size_t input) const { return varying_[input]; }

 private:
  int lanes_;
  std::vector<double> uniform_;
  std::vector<std::vector<double>> varying_;
};

struct LaneResults {
  int lanes = 0;
  std::vector<double> figures;          ///< output * lanes + lane
  std::vector<std::int32_t> unsettled;  ///< per lane: index of the circle that failed, -1 for none
  int rounds = 0;                       ///< the most rounds any circle needed

  [[nodiscard]] double at(size_t output, int lane) const {
    return figures[output * static_cast<size_t>(lanes) + static_cast<size_t>(lane)];
  }
};

/// Circular groups stop when every fed-back figure moves by less than this share of the group's
/// largest balance, or fail after this many rounds.
inline constexpr double kCircleTolerance = 1e-10;
inline constexpr int kCircleRounds = 200;

/// Evaluates all lanes, on all cores when there are many, and keeps the named slots.
LaneResults evaluate(const Program& program, const LaneInputs& inputs, std::span<const std::uint32_t> outputs);

}  // namespace zl::model
