#pragma once
// How the cells of a ledger are drawn and edited: labels with their unit, figures under figures, marks beside them.

#include <QStyledItemDelegate>

#include "app/grid/ledger_model.h"

namespace zl::app {

/// What is drawn beside a figure has room of its own: the notch of an assumption before it, the closing parenthesis
/// and the space to the next column after it.
struct CellSpace {
  static constexpr int kNotch = 8;
  static constexpr int kGap = 5;
  static constexpr int kLabelLeft = 8;
  static constexpr int kLabelRight = 6;
  static constexpr int kScenarioMark = 16;
  /// What a label's column has besides the label.
  static int besideLabel(const LedgerRow& row) {
    return kLabelLeft + kLabelRight + (row.scenario.isEmpty() ? 0 : kScenarioMark);
  }
};

class LedgerDelegate : public QStyledItemDelegate {
  Q_OBJECT

 public:
  explicit LedgerDelegate(const LedgerModel& model, QObject* parent = nullptr)
      : QStyledItemDelegate(parent), model_(model) {}
  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override;
  QWidget* createEditor(QWidget* parent, const QStyleOptionViewItem& option, const QModelIndex& index) const override;

 private:
  void paintHeading(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index,
                    const LedgerRow& row) const;
  void paintLabel(QPainter* painter, const QRect& rect, const LedgerRow& row) const;
  void paintScale(QPainter* painter, const QRect& rect, const ScaleMark& scale) const;
  void paintTrend(QPainter* painter, const QRect& rect, const LedgerRow& row) const;
  void paintCell(QPainter* painter, const QRect& rect, const LedgerRow& row, const LedgerCell& cell,
                 const QString& shown) const;

  const LedgerModel& model_;
};

}  // namespace zl::app
