#pragma once
// The model as written: rows, their units and timing, and their rules as expression trees.
// This is what the analyst edits; program.h holds what is evaluated. Two objects, because the
// text may be wrong for a while, and a program never is.

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "core/model/ids.h"
#include "core/model/roles.h"
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
enum class Declared { Row, Driver, Input, Given };

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
  Is,  ///< a choice stands on the option `name`: args are the choice and the option's number
  And,
  Or,
  Min,
  Max,
  Abs,
  Round,  ///< to the nearest whole number, halves away from nought
  If,
  Guard,
  Known,  ///< the first where it has a value, else the second
  Average,
  Total,
  Sum,      ///< over whole numbers: args are its terms written out, `pattern` the term as it was written
  Counter,  ///< in a pattern: the number that runs
};

/// Which column a reference reads, relative to the column being computed or to the horizon.
/// Beyond: the year after the last forecast one, which only constants look at.
enum class Anchor { Here, Base, First, Second, Third, Final, Beyond };

struct Expr {
  Op op = Op::Number;
  double number = 0.0;
  std::optional<Kind> unit;  ///< of a literal that is written with one: 365 days, 5 money
  std::string name;          ///< Ref: row name; Is: option; Sum, Counter and a Ref that looks back by it: what runs
  RowId row;                 ///< Ref: set by the checker
  int lag = 0;               ///< Ref: 1 for name[-1]
  Anchor anchor = Anchor::Here;
  std::string reason;    ///< Guard: why the result is not meaningful when the condition fails
  std::string counter;   ///< in a pattern, Ref: looks back by what is called so
  int from = 0, to = 0;  ///< Sum
  std::vector<Expr> args;
  std::vector<Expr> pattern;
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

/// One of the things a choice can be. Cases hold its name; the program counts options from 0.
struct Option {
  std::string name;
  std::string label;
};

/// What a row has to do with peers: the measure of theirs that it is set beside, or (a given) the statistic of
/// their multiple that it is.
struct PeerTie {
  std::string measure;
  std::string statistic;  ///< empty for a row beside a measure
  friend bool operator==(const PeerTie&, const PeerTie&) = default;
};

/// What a given is of the analysts' estimates: the mean for a row, so many years after the last filed one.
struct EstimateTie {
  std::string item;  ///< a row of the model
  int ahead = 1;
};

/// What a given is of the filed years that are regular: the mean of one row over another.
struct RegularTie {
  std::string part, whole;  ///< rows of the model that have a history
};

/// A multiple of peers as a text declares it: what it is of, and of which twelve months.
struct PeerMultiple {
  enum class Of { Trailing, ThisYear, NextYear, YearAfter, NormalYear };
  std::string name;   ///< "ev_to_sales"
  std::string label;  ///< "EV to sales"
  std::string what;   ///< "sales"
  bool ofFirm = false;
  Of of = Of::Trailing;
  std::string row;  ///< the subject's own figure
};

/// What a given is of a list of the company record: `record option_tranches 2 strike`.
struct RecordTie {
  std::string list;
  int place = 0;  ///< from 1
  std::string field;
  friend bool operator==(const RecordTie&, const RecordTie&) = default;
};

struct Row {
  std::string name;
  std::string label;
  std::string group;
  Declared declared = Declared::Row;
  Kind kind = Kind::Money;
  Timing timing = Timing::Flow;
  bool historyFiled = false;       ///< history comes from the standard line of the same name
  std::optional<FactSource> fact;  ///< with historyFiled: that line is this one's filed facts
  bool projected = true;           ///< false: history only; a forecast year says that the model does not project it
  int amendedBy = 0;               ///< the last of the model's texts that amended it; 0: none did
  std::optional<Expr> history;
  std::optional<Expr> first;  ///< rule for the first forecast year, where it differs
  std::optional<Expr> forecast;
  std::optional<Expr> value;   ///< rule of a constant row
  std::optional<Expr> beyond;  ///< driver: its figure of the year after the last; without one the last year's holds
  std::optional<Range> range;
  std::optional<Default> preset;
  std::vector<Option> options;  ///< of a choice, which is an input that stands on one of them
  std::string quoted;  ///< driver or given: the rate of the book that speaks of it, CUR for the reporting currency
  std::optional<PeerTie> peers;
  std::optional<RecordTie> record;
  std::optional<EstimateTie> estimate;
  std::optional<RegularTie> regular;
  std::string help;
  Position at;

  [[nodiscard]] bool isChoice() const { return !options.empty(); }
  /// The number of an option, -1 when there is none of that name.
  [[nodiscard]] int option(const std::string& optionName) const;

  /// Whether filed concepts can be put on this row.
  [[nodiscard]] bool isStandardLine() const { return historyFiled && !fact; }
};

/// A line of a view.
struct ViewRow {
  RowId row;
  bool total = false;     ///< closes a block
  bool optional = false;  ///< left out while it has nothing but noughts to show
  bool minus = false;     ///< is taken off in what the view sums
};

/// Rows that are looked at together, in order. What a table shows is said here, not in the code that shows it.
struct View {
  std::string name;
  std::string title;
  std::vector<ViewRow> rows;
  Position at;
};

/// A way to value a share.
struct Method {
  enum class Flow { None, Firm, Shareholders };
  std::string name;
  std::string label;
  std::string mark;         ///< a short name, for a mark on an axis
  RowId value;              ///< row: value per share in the listing's unit
  RowId low, high;          ///< rows: the ends of its range where it has one by itself
  RowId share;              ///< row: what of it lies beyond the forecast years
  Flow whose = Flow::None;  ///< whose cash it discounts
  RowId flow, rate;         ///< rows: the cash, and the rate that belongs to it
  RowId choice;             ///< it is the headline's method while that choice stands on the option
  int option = -1;
  Position at;
};

struct Model {
  // Made in one place: each of these is a page of code wherever it is made.
  Model();
  Model(const Model&);
  Model(Model&&) noexcept;
  Model& operator=(const Model&);
  Model& operator=(Model&&) noexcept;
  ~Model();

  std::string name;
  std::string title;
  int version = 0;
  std::vector<Row> rows;
  std::vector<std::string> statements;  ///< groups that are shown as statements, in their order
  std::vector<View> views;
  std::vector<Method> methods;
  std::vector<PeerMultiple> multiples;  ///< that texts declare, in their order
  std::array<RowId, kRoles> roles{};    ///< row by role; names nothing where the model has none
  std::vector<std::string> sources;     ///< what its texts are called in messages, by Position::text

  /// Which of the texts declares a row: 0 the first, and so on.
  [[nodiscard]] int textOf(size_t row) const { return rows[row].at.text; }

  /// The row of a name; names nothing when there is none.
  [[nodiscard]] RowId find(const std::string& rowName) const;
  [[nodiscard]] const Row& operator[](RowId id) const { return rows[id.at()]; }
  [[nodiscard]] Row& operator[](RowId id) { return rows[id.at()]; }
  /// The row that plays a role; names nothing when there is none.
  [[nodiscard]] RowId find(Role role) const { return roles[static_cast<size_t>(role)]; }
  /// Null where the model has no such row.
  [[nodiscard]] const Row* row(Role role) const;
  /// What the row that plays a role is called; empty where there is none.
  [[nodiscard]] const std::string& nameOf(Role role) const;
  /// Rows of a view; none where the model does not have it.
  [[nodiscard]] const std::vector<ViewRow>& view(const std::string& viewName) const;
  [[nodiscard]] bool shows(const std::string& viewName, const std::string& rowName) const;
  [[nodiscard]] bool isTotal(RowId row) const;
  /// The given that is a statistic of peers' multiple, or the row that says what the statistic implies; names nothing
  /// where there is none.
  [[nodiscard]] RowId peerRow(Declared declared, const std::string& measure, const std::string& statistic) const;

  /// What rests in this model, for want of a row that the program could ask: one sentence a role.
  [[nodiscard]] std::vector<std::string> restingFeatures() const;
};

/// What a figure of a row is shown as where it stands for an option: the option's label; empty otherwise.
std::string optionLabel(const Row& row, double figure);

const char* kindWord(Kind kind);
const char* timingWord(Timing timing);
const char* declaredWord(Declared declared);

/// The expression in the model's notation.
std::string expressionText(const Expr& expr);

}  // namespace zl::model
