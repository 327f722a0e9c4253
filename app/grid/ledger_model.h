#pragma once
// Rows and cells as a ledger shows them. Filled by a page from a snapshot; computes nothing and
// writes nothing: a typed text goes out as a signal.

#include <QAbstractTableModel>
#include <QStringList>
#include <map>
#include <optional>
#include <utility>
#include <vector>

#include "app/telling/told_figure.h"
#include "core/quantity/figure.h"
#include "core/quantity/kind.h"

namespace zl::app {

/// Proposed: counted until the analyst decides; a hollow notch.
enum class Ink { Filed, Derived, Assumed, Proposed, Plain };

/// What is painted of a cell.
struct CellLook {
  Figure figure;
  Ink ink = Ink::Derived;
  bool editable = false;
  std::optional<QString> words;  ///< shown instead of the figure
  bool quiet = false;            ///< inherited rather than own
  bool struck = false;           ///< left out
  bool left = false;             ///< words that read from the left: reasons, remarks
  bool chooses = false;          ///< editing offers the model's choices
  bool adjusted = false;         ///< stands beside another filed figure: a short bar above it
  bool doubted = false;          ///< an end of the span may mislead: a dagger after it
  friend bool operator==(const CellLook&, const CellLook&) = default;
};

struct LedgerCell : ToldFigure, CellLook {
  QString tip;
};

/// A figure on its own scale beside a threshold, drawn in the trend column.
struct ScaleMark {
  double low = 0, high = 1;
  double threshold = 0;
  std::optional<double> figure;
  bool atLeast = true;
  bool bar = false;  ///< a bar from `low` to the figure, with no threshold
  friend bool operator==(const ScaleMark&, const ScaleMark&) = default;
};

/// What is painted of a row besides its cells.
struct RowLook {
  QString label;
  QString unit;
  Kind kind = Kind::Money;
  bool heading = false;
  bool strong = false;
  QString scenario;                     ///< draws the scenario's mark before the label
  std::vector<Figure> trend;            ///< small line in the trend column
  std::optional<ScaleMark> scale = {};  ///< drawn there instead
  friend bool operator==(const RowLook&, const RowLook&) = default;
};

struct LedgerRow : RowLook {
  QString key;  ///< for the page: row name, peer id
  std::vector<LedgerCell> cells;
  QStringList choices;  ///< what a cell of this row that chooses offers, in the order of its figures
};

class LedgerModel : public QAbstractTableModel {
  Q_OBJECT

 public:
  explicit LedgerModel(QObject* parent = nullptr) : QAbstractTableModel(parent) {}

  /// Columns: label, then the trend when `withTrend`, then one per header. Keeps the view's place
  /// when the shape is unchanged.
  void fill(QStringList headers, std::vector<LedgerRow> rows, bool withTrend = false);
  /// What stands over the labels: the unit of every row that names none.
  void setCorner(const QString& words) { setHeading(corner_, words); }
  void setTrendTitle(const QString& words) { setHeading(trendTitle_, words); }
  /// What editing a cell that chooses offers, where its row does not say.
  void setChoices(QStringList choices) { choices_ = std::move(choices); }
  /// The same for a column, counted from the first figure.
  void setColumnChoices(std::map<int, QStringList> choices) { columnChoices_ = std::move(choices); }
  /// Of a cell: its row's, else its column's, else the model's.
  [[nodiscard]] const QStringList& choicesAt(const QModelIndex& index) const;
  void setFlagged(std::vector<bool> columns);
  /// From the first to the last row that the last fill() made look otherwise; nothing where none does.
  [[nodiscard]] const std::optional<std::pair<int, int>>& rowsToPaint() const { return toPaint_; }

  [[nodiscard]] const std::vector<LedgerRow>& ledgerRows() const { return rows_; }
  [[nodiscard]] int firstColumn() const { return withTrend_ ? 2 : 1; }
  [[nodiscard]] bool hasTrend() const { return withTrend_; }
  /// The cell of an index, nullptr for labels, trends and headings.
  [[nodiscard]] const LedgerCell* cellAt(const QModelIndex& index) const;
  [[nodiscard]] bool isFlagged(int column) const;
  [[nodiscard]] bool readsFromLeft(int column) const;
  /// As it is copied: full precision, plain.
  [[nodiscard]] QString plainText(const QModelIndex& index) const;

  [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override;
  [[nodiscard]] int columnCount(const QModelIndex& parent = {}) const override;
  [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
  [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
  [[nodiscard]] Qt::ItemFlags flags(const QModelIndex& index) const override;
  bool setData(const QModelIndex& index, const QVariant& value, int role) override;

 Q_SIGNALS:
  /// Column counts from the first figure.
  void typed(int row, int column, const QString& text);

 private:
  /// How all amounts and counts here are written.
  struct AmountsLook {
    int power = 6;
    int moneyDecimals = 1, sharesDecimals = 1;
    friend bool operator==(const AmountsLook&, const AmountsLook&) = default;
  };

  void chooseDecimals();
  void setHeading(QString& heading, const QString& words);
  void headingsChanged();
  [[nodiscard]] std::optional<std::pair<int, int>> rowsUnlike(const std::vector<LedgerRow>& next) const;

  QString corner_;
  QString trendTitle_ = tr("trend");
  QStringList headers_;
  QStringList choices_;
  std::map<int, QStringList> columnChoices_;
  std::vector<LedgerRow> rows_;
  std::vector<bool> flagged_;
  bool flaggedAnew_ = false;  ///< since the last fill()
  std::optional<std::pair<int, int>> toPaint_;
  bool withTrend_ = false;
  AmountsLook amounts_;
};

}  // namespace zl::app
