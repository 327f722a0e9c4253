#include "app/grid/ledger_model.h"

#include <algorithm>
#include <cmath>

#include "app/look/amounts.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"

namespace zl::app {

void LedgerModel::fill(QStringList headers, std::vector<LedgerRow> rows, bool withTrend) {
  const bool sameShape = headers == headers_ && rows.size() == rows_.size() && withTrend == withTrend_;
  if (!sameShape) beginResetModel();
  toPaint_ = sameShape ? rowsUnlike(rows) : std::nullopt;
  const AmountsLook amounts = amounts_;
  headers_ = std::move(headers);
  rows_ = std::move(rows);
  withTrend_ = withTrend;
  chooseDecimals();
  if (amounts_ != amounts || flaggedAnew_) toPaint_ = std::pair(0, rowCount() - 1);
  flaggedAnew_ = false;
  if (!sameShape) {
    endResetModel();
  } else if (!rows_.empty()) {
    Q_EMIT dataChanged(index(0, 0), index(rowCount() - 1, columnCount() - 1));
  }
}

std::optional<std::pair<int, int>> LedgerModel::rowsUnlike(const std::vector<LedgerRow>& next) const {
  const auto looksAs = [](const LedgerRow& a, const LedgerRow& b) {
    const RowLook &rowA = a, &rowB = b;
    return rowA == rowB && std::equal(a.cells.begin(), a.cells.end(), b.cells.begin(), b.cells.end(),
                                      [](const CellLook& x, const CellLook& y) { return x == y; });
  };
  std::optional<std::pair<int, int>> unlike;
  for (size_t r = 0; r < next.size(); ++r) {
    if (looksAs(rows_[r], next[r])) continue;
    if (!unlike) unlike.emplace(static_cast<int>(r), 0);
    unlike->second = static_cast<int>(r);
  }
  return unlike;
}

void LedgerModel::setFlagged(std::vector<bool> columns) {
  if (columns == flagged_) return;
  flaggedAnew_ = true;
  flagged_ = std::move(columns);
  headingsChanged();
}

void LedgerModel::setHeading(QString& heading, const QString& words) {
  if (heading == words) return;
  heading = words;
  headingsChanged();
}

void LedgerModel::headingsChanged() {
  if (columnCount() > 0) Q_EMIT headerDataChanged(Qt::Horizontal, 0, columnCount() - 1);
}

void LedgerModel::chooseDecimals() {
  const auto largest = [&](Kind kind) {
    double most = 0;
    for (const LedgerRow& row : rows_) {
      if (row.kind != kind) continue;
      for (const LedgerCell& cell : row.cells) {
        if (!cell.words) most = std::max(most, std::fabs(cell.figure.valueOr(0)));
      }
    }
    return most;
  };
  amounts_ = {amountPower(), shownDecimals(largest(Kind::Money)), amountDecimals(largest(Kind::Shares))};
}

const LedgerCell* LedgerModel::cellAt(const QModelIndex& index) const {
  if (!index.isValid()) return nullptr;
  const LedgerRow& row = rows_[static_cast<size_t>(index.row())];
  const int at = index.column() - firstColumn();
  if (at < 0 || at >= static_cast<int>(row.cells.size())) return nullptr;
  return &row.cells[static_cast<size_t>(at)];
}

bool LedgerModel::isFlagged(int column) const {
  const int at = column - firstColumn();
  return at >= 0 && at < static_cast<int>(flagged_.size()) && flagged_[static_cast<size_t>(at)];
}

QString LedgerModel::plainText(const QModelIndex& index) const {
  if (const LedgerCell* cell = cellAt(index)) {
    if (cell->words) return *cell->words;
    return cell->figure.hasValue() ? text(plainNumber(cell->figure.value())) : QString();
  }
  return index.column() == 0 ? rows_[static_cast<size_t>(index.row())].label : QString();
}

int LedgerModel::rowCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : static_cast<int>(rows_.size());
}

int LedgerModel::columnCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : firstColumn() + static_cast<int>(headers_.size());
}

const QStringList& LedgerModel::choicesAt(const QModelIndex& index) const {
  const QStringList& own = rows_[static_cast<size_t>(index.row())].choices;
  if (!own.isEmpty()) return own;
  const auto column = columnChoices_.find(index.column() - firstColumn());
  return column == columnChoices_.end() ? choices_ : column->second;
}

QVariant LedgerModel::data(const QModelIndex& index, int role) const {
  const LedgerRow& row = rows_[static_cast<size_t>(index.row())];
  const LedgerCell* cell = cellAt(index);
  switch (role) {
    case Qt::DisplayRole:
      if (index.column() == 0) return row.unit.isEmpty() ? row.label : row.label + QStringLiteral(", ") + row.unit;
      if (cell == nullptr) return {};
      if (cell->words) return *cell->words;
      return shownText(cell->figure, row.kind,
                       row.kind == Kind::Shares ? amounts_.sharesDecimals : amounts_.moneyDecimals) +
             (cell->doubted ? QStringLiteral("†") : QString());
    case Qt::EditRole:
      if (cell != nullptr && cell->chooses && !choicesAt(index).isEmpty()) return cell->words.value_or(QString());
      if (cell != nullptr && cell->editable && cell->words && !cell->figure.hasValue()) return *cell->words;
      if (cell == nullptr || !cell->figure.hasValue()) return QString();
      return text(plainNumber(cell->figure.value() / shownUnit(row.kind)));
    case Qt::ToolTipRole:
      if (index.column() == 0) return tipText(row.label);
      if (cell == nullptr) return {};
      if (!cell->tip.isEmpty()) return tipText(cell->tip);
      return cell->figure.hasValue() ? QString() : tipText(text(cell->figure.reason()));
    case Qt::AccessibleTextRole:
      if (cell == nullptr) return row.label;
      return row.label + QLatin1Char(' ') + headers_.value(index.column() - firstColumn()) + QStringLiteral(": ") +
             (cell->figure.hasValue() || cell->words ? data(index, Qt::DisplayRole).toString()
                                                     : text(cell->figure.reason())) +
             (cell->adjusted ? tr(", adjusted") : QString()) + (cell->doubted ? tr(", doubtful end") : QString());
    case Qt::TextAlignmentRole:
      return QVariant::fromValue(index.column() == 0 ? Qt::AlignLeft | Qt::AlignVCenter
                                                     : Qt::AlignRight | Qt::AlignVCenter);
    default:
      return {};
  }
}

bool LedgerModel::readsFromLeft(int column) const {
  for (int row = 0; row < rowCount(); ++row) {
    if (const LedgerCell* cell = cellAt(index(row, column))) return cell->left;
  }
  return false;
}

QVariant LedgerModel::headerData(int section, Qt::Orientation orientation, int role) const {
  if (orientation != Qt::Horizontal) return {};
  if (role == Qt::TextAlignmentRole) {
    return QVariant::fromValue(section == 0 || readsFromLeft(section) ? Qt::AlignLeft | Qt::AlignVCenter
                                                                      : Qt::AlignRight | Qt::AlignVCenter);
  }
  if (role != Qt::DisplayRole) return {};
  const int at = section - firstColumn();
  if (at < 0) return section == 1 ? trendTitle_ : corner_;
  return headers_.value(at) + (isFlagged(section) ? QStringLiteral(" ⚑") : QString());
}

Qt::ItemFlags LedgerModel::flags(const QModelIndex& index) const {
  if (!index.isValid()) return Qt::NoItemFlags;
  Qt::ItemFlags flags = Qt::ItemIsEnabled | Qt::ItemIsSelectable;
  const LedgerCell* cell = cellAt(index);
  if (cell != nullptr && cell->editable) flags |= Qt::ItemIsEditable;
  return flags;
}

bool LedgerModel::setData(const QModelIndex& index, const QVariant& value, int role) {
  const LedgerCell* cell = cellAt(index);
  if (role != Qt::EditRole || cell == nullptr || !cell->editable) return false;
  Q_EMIT typed(index.row(), index.column() - firstColumn(), value.toString());
  return true;
}

}  // namespace zl::app
