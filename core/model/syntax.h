#pragma once
// The model as written: rows, their units and timing, and their rules as expression trees.
// This is what the analyst edits; program.h holds what is evaluated. Two objects, because the
// text may be wrong for a while, and a program never is.

#include <optional>
#include <string>
#include <vector>

#include "core/quantity/kind.h"

namespace zl::model {

struct Position {
  int line = 0;
  int column = 0;
  int text = 0;  ///< which of the model's texts
};

using zl::Kind;
enum class Timing { Flow, Balance, Rate, Constant };
/// Row: computed. Driver: a path per scenario. Input: one assumed figure per scenario.
/// Given: supplied by the market, the company record or the calendar.
enum class Role { Row, Driver, Input, Given };

enum class Op {
  Number,
  Ref,
  Negate,
  Add,
  Subtract,
  Multiply,
  Divide,
  Power,
  Less,
  LessEqual,
  Greater,
  GreaterEqual,
  Equal,
  And,
  Or,
  Min,
  Max,
  Abs,
  If,
  Guard,
  Average,
  Total
};

/// Which column a reference reads, relative to the column being computed or to the horizon.
enum class Anchor { Here, Base, First, Final };

struct Expr {
  Op op = Op::Number;
  double number = 0.0;
  bool inDays = false;  ///< a literal written with the unit `days`
  std::string name;     ///< Ref: row name
  int row = -1;         ///< Ref: row index, set by the checker
  int lag = 0;          ///< Ref: 1 for name[-1]
  Anchor anchor = Anchor::Here;
  std::string reason;  ///< Guard: why the result is not meaningful when the condition fails
  std::vector<Expr> args;
  Position at;
};

struct Range {
  double low;
  double high;
};

/// What a driver holds, or an input is, before the analyst has said anything.
struct Default {
  bool last = false;            ///< the last historical figure of the row's own history
  std::optional<double> level;  ///< with `last`: where history has no last figure
};

/// Figures that a row reads by itself, without a standard line: those filed for one concept, of the
/// whole company or (with an axis) of one member of it, or an operating figure of the company record.
struct FactSource {
  std::string concept_name;  ///< or the name of the operating figure
  std::string axis;
  std::string member;
  bool recorded = false;  ///< an operating figure
  friend bool operator==(const FactSource&, const FactSource&) = default;
};

struct Row {
  std::string name;
  std::string label;
  std::string group;
  Role role = Role::Row;
  Kind kind = Kind::Money;
  Timing timing = Timing::Flow;
  bool historyFiled = false;       ///< history comes from the standard line of the same name
  std::optional<FactSource> fact;  ///< with historyFiled: that line is this one's filed facts
  bool projected = true;           ///< false: history only; a forecast year says that the model does not project it
  int amendedBy = 0;               ///< the last of the model's texts that amended it; 0: none did
  std::optional<Expr> history;
  std::optional<Expr> first;  ///< rule for the first forecast year, where it differs
  std::optional<Expr> forecast;
  std::optional<Expr> value;  ///< rule of a constant row
  std::optional<Range> range;
  std::optional<Default> preset;
  std::string help;
  Position at;

  /// Whether filed concepts can be put on this row.
  [[nodiscard]] bool isStandardLine() const { return historyFiled && !fact; }
};

struct Model {
  std::string name;
  std::string title;
  int version = 0;
  std::vector<Row> rows;
  std::vector<std::string> sources;  ///< what its texts are called in messages, by Position::text

  /// Which of the texts declares a row: 0 the first, and so on.
  [[nodiscard]] int textOf(size_t row) const { return rows[row].at.text; }

  /// Index of a row by name, -1 when there is none.
  [[nodiscard]] int find(const std::string& rowName) const;
};

const char* kindWord(Kind kind);
const char* timingWord(Timing timing);
const char* roleWord(Role role);

/// The expression in the model's notation.
std::string expressionText(const Expr& expr);

}  // namespace zl::model
