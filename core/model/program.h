#pragma once
// What is evaluated: a model compiled for one horizon into a flat tape of instructions over
// slots. Immutable; a change of text or horizon compiles a new one.

#include <cmath>
#include <cstdint>
#include <string>
#include <vector>

#include "core/model/syntax.h"
#include "core/quantity/error.h"

namespace zl::model {

/// Columns 0..historyYears-1 are filed years (the last one is the base year), the next
/// forecastYears columns are projected. Constant rows use column 0.
struct Layout {
  int historyYears = 0;
  int forecastYears = 0;
  [[nodiscard]] int columns() const { return historyYears + forecastYears; }
  /// With the year beyond the last forecast one: column columns().
  [[nodiscard]] int width() const { return columns() + 1; }
  [[nodiscard]] int baseColumn() const { return historyYears - 1; }
  [[nodiscard]] bool isForecast(int column) const { return column >= historyYears; }
  friend bool operator==(const Layout&, const Layout&) = default;
};

struct Cell {
  RowId row;
  int column = 0;
  friend bool operator==(const Cell&, const Cell&) = default;
  friend auto operator<=>(const Cell&, const Cell&) = default;
};

enum class Code : std::uint8_t {
  Add,
  Subtract,
  Multiply,
  Divide,
  Power,
  Negate,
  Abs,
  Round,
  Min,
  Max,
  Less,
  LessEqual,
  Greater,
  GreaterEqual,
  Equal,
  And,
  Or,
  Select,
  Guard,
  Known,
  Copy,
  Skip
};

/// dst = code(a, b, c); all four are slots. Skip writes nothing: it passes over the next b
/// instructions, the long first branch of an if(), when no lane of the block takes that branch.
struct Instruction {
  Code code;
  std::uint32_t dst, a, b, c;
};

/// A circular group: instructions [begin, end) repeat until the fed-back cells settle.
struct Circle {
  size_t begin, end;
  struct Feedback {
    std::uint32_t guess;     ///< slot read by the group: last round's figure
    std::uint32_t computed;  ///< slot the round writes
    bool money;              ///< settles against the largest balance; any other figure against its own size
  };
  std::vector<Feedback> feedback;
  std::vector<std::uint32_t> balances;  ///< their largest size sets the scale of the tolerance
  std::string rows;                     ///< the rows involved, for messages
  bool byChoice = false;                ///< closed by a choice alone: open where nobody has taken it
};

/// a to the power b. One for the tape and the interpreter: most exponents are a whole year or half of one.
inline double power(double a, double b) {
  return b == 1.0 ? a : b == 0.5 ? std::sqrt(a) : std::pow(a, b);
}

struct InputCell {
  Cell cell;
  std::uint32_t slot;
};

struct Program {
  Layout layout;
  std::vector<Instruction> tape;
  std::vector<Circle> circles;       ///< in tape order, never nested
  std::vector<InputCell> inputs;     ///< to be filled per lane before a run
  std::vector<double> constants;     ///< literals; slot = firstConstant + index
  std::uint32_t firstTemporary = 0;  ///< slots from here on serve one cell after another
  std::uint32_t firstConstant = 0;
  std::uint32_t slots = 0;
  std::vector<std::int32_t> slotOfCell;  ///< row * width + column -> slot, -1 when not present
  std::vector<Cell> computed;            ///< cells the tape writes, in order of evaluation

  [[nodiscard]] std::int32_t slot(Cell cell) const {
    return slotOfCell[cell.row.at() * static_cast<size_t>(layout.width()) + static_cast<size_t>(cell.column)];
  }
};

/// Compiles a checked model. Fails when the horizon is empty or absurd (over 60 columns).
Result<Program> compile(const Model& model, Layout layout);

/// The rule that computes a cell, or nullptr where the cell is filed, assumed or given.
const Expr* ruleOf(const Row& row, const Layout& layout, int column);

/// The cells an expression reads when computed at `column` (total() expands to all its years).
std::vector<Cell> cellsRead(const Model& model, const Layout& layout, const Expr& expr, int column);
/// Those of them that it reads whatever a choice stands on: without the branches of an if() that asks for one.
std::vector<Cell> cellsAlwaysRead(const Model& model, const Layout& layout, const Expr& expr, int column);

/// Whether a row's history is a rate of change: it sets a figure against the same row's of a year before,
/// as x / x[-1] - 1 does, so that what is exceptional in one year shows in two.
bool comparesYears(const Row& row);

/// The cell a reference names at `column`; column -1 means before the first year known.
Cell cellOf(const Model& model, const Layout& layout, const Expr& ref, int column);

}  // namespace zl::model
