#include "app/pages/market_panel.h"

#include <QClipboard>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "services/stories/company_stories.h"

namespace zl::app {
namespace {

/// A cell that parts no others.
QString cellOf(const QString& words) {
  QString cell = words;
  return cell.replace(QLatin1Char('\t'), QLatin1Char(' ')).replace(QLatin1Char('\n'), QLatin1Char(' '));
}

/// Days and levels as pages have them, of one series: each line gets its name. Empty where neither says whose they are.
std::optional<QString> withSeriesName(const QString& cells, const QString& name) {
  QStringList lines = cells.split(QLatin1Char('\n'), Qt::SkipEmptyParts);
  const QString head = lines.front().section(QLatin1Char('\t'), 0, 0).trimmed().toLower();
  for (const char* own : {"series", "index", "security", "benchmark"}) {
    if (head == QLatin1String(own)) return cells;
  }
  if (name.trimmed().isEmpty()) return std::nullopt;
  const auto hasDigit = [](const QString& line) {
    return std::any_of(line.begin(), line.end(), [](QChar c) { return c.isDigit(); });
  };
  const bool headed = !hasDigit(lines.front());
  if (!headed) lines.prepend(QStringLiteral("date\tlevel"));
  lines.front().prepend(QStringLiteral("series\t"));
  for (qsizetype i = 1; i < lines.size(); ++i) lines[i].prepend(cellOf(name.trimmed()) + QLatin1Char('\t'));
  return lines.join(QLatin1Char('\n'));
}

}  // namespace

MarketPanel::MarketPanel(Workbench& bench, LedgerView* grid, QWidget* parent)
    : QWidget(parent), bench_(bench), grid_(grid) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(8, 0, 8, 0);
  which_ = new QComboBox(this);
  which_->setObjectName(QStringLiteral("marketTable"));
  which_->setAccessibleName(tr("Table of the market"));
  for (const MarketRows& t : marketTables()) which_->addItem(t.label, t.key);
  bar->addWidget(which_);
  auto* paste = new QPushButton(tr("&Paste a table"), this);
  paste->setObjectName(QStringLiteral("pasteMarket"));
  bar->addWidget(paste);
  hint_ = new PlainLabel(this);
  hint_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  bar->addWidget(hint_, 1);
  layout->addLayout(bar);
  layout->addWidget(grid_, 1);
  series_ = new QLineEdit(this);
  series_->setObjectName(QStringLiteral("seriesName"));
  series_->setPlaceholderText(tr("name of a pasted series"));
  series_->setAccessibleName(tr("Name of a pasted series"));
  bar->insertWidget(1, series_);
  connect(which_, &QComboBox::currentIndexChanged, this, [this] {
    fresh_.clear();
    if (bench_.isOpen()) refresh();
  });
  connect(paste, &QPushButton::clicked, this, &MarketPanel::pasteWhole);
  connect(&grid_->ledger(), &LedgerModel::typed, this, &MarketPanel::typeCell, Qt::QueuedConnection);
  connect(grid_, &LedgerView::pasted, this, &MarketPanel::paste);
  connect(&bench_, &Workbench::opened, this, [this] { fresh_.clear(); });
}

MarketRows MarketPanel::table() const {
  return marketTable(static_cast<size_t>(which_->currentIndex()), bench_.settled());
}

void MarketPanel::refresh() {
  const MarketRows of = table();
  hint_->setText(of.hint);
  series_->setVisible(of.table == MarketRows::Table::Series);
  const std::map<int, QStringList> choices = marketChoices(of, bench_.settled());
  QStringList headers;
  for (const MarketColumn& column : of.columns) headers << column.label;
  if (of.table == MarketRows::Table::Prices)
    headers[1] = tr("close, %1").arg(text(bench_.settled().company().listing.unit));
  std::vector<std::vector<QString>> all = marketRowsOf(of, bench_.settled());
  fresh_.resize(of.columns.size());
  all.insert(all.begin(), fresh_);
  std::vector<LedgerRow> rows;
  for (size_t r = 0; r < all.size(); ++r) {
    LedgerRow row;
    row.label = r == 0 ? QStringLiteral("+") : QString::number(r);
    row.key = row.label;
    for (size_t c = 0; c < of.columns.size(); ++c) {
      LedgerCell cell;
      cell.words = all[r][c];
      cell.left = of.columns[c].words;
      cell.ink = Ink::Plain;
      cell.tip = all[r][c];
      cell.editable = true;
      cell.story = [title = (of.label + QStringLiteral(", ") + of.columns[c].label).toStdString(),
                    figure = all[r][c].toStdString(), row = all[r].front().toStdString(),
                    source = all[r].back().toStdString()](const services::Snapshot&) {
        return services::tableStory(title + " of " + row, figure, source);
      };
      cell.chooses = choices.count(static_cast<int>(c)) > 0;
      row.cells.push_back(std::move(cell));
    }
    rows.push_back(std::move(row));
  }
  grid_->setColumns(of.widths);
  grid_->ledger().setColumnChoices(choices);
  grid_->ledger().fill(headers, std::move(rows));
}

void MarketPanel::send(const std::vector<QString>& columns, const std::vector<std::vector<QString>>& rows,
                       const QString& label) {
  QStringList lines = {QStringList(columns.begin(), columns.end()).join(QLatin1Char('\t'))};
  for (const std::vector<QString>& row : rows) {
    QStringList cells;
    for (const QString& cell : row) cells << cellOf(cell);
    lines << cells.join(QLatin1Char('\t'));
  }
  if (!bench_.typeTable(tr("%1, typed").arg(table().label.toLower()), lines.join(QLatin1Char('\n')), label)) refresh();
}

/// A cell of a row there is changes that figure alone; the row on top comes in once it says enough.
void MarketPanel::typeCell(int row, int column, const QString& typed) {
  const MarketRows of = table();
  const auto c = static_cast<size_t>(column);
  std::vector<QString> columns;
  std::vector<QString> cells;
  if (row > 0) {
    const std::vector<QString> stands = marketRowsOf(of, bench_.settled()).at(static_cast<size_t>(row - 1));
    const bool whole = of.table == MarketRows::Table::Estimates;  // read as rows
    for (size_t i = 0; i < of.columns.size(); ++i) {
      const bool names = std::find(of.names.begin(), of.names.end(), i) != of.names.end();
      const bool needed = of.columns[i].needed || whole;
      if (i != c && !names && !needed) continue;
      columns.push_back(of.columns[i].read);
      cells.push_back(i == c ? typed : stands[i]);
    }
    if (of.table == MarketRows::Table::Peers && columns.size() < 2) {  // another name
      bench_.say(tr("A peer is known by its name; type the other one on top"), true);
      return refresh();
    }
  } else {
    fresh_.resize(of.columns.size());
    fresh_[c] = typed.trimmed();
    size_t said = 0;
    bool enough = true;
    for (size_t i = 0; i < of.columns.size(); ++i) {
      said += fresh_[i].isEmpty() ? 0 : 1;
      enough = enough && (!of.columns[i].needed || !fresh_[i].isEmpty());
      if (fresh_[i].isEmpty()) continue;
      columns.push_back(of.columns[i].read);
      cells.push_back(fresh_[i]);
    }
    if (!enough || said < of.enough) return refresh();
    fresh_.clear();
  }
  send(columns, {cells}, tr("Type %1: %2").arg(of.label.toLower(), cells.front()));
}

/// Cells without headings stand under those of the grid.
void MarketPanel::paste(int, int column, const QList<QStringList>& cells) {
  const MarketRows of = table();
  std::vector<QString> columns;
  const qsizetype width = std::max_element(cells.begin(), cells.end(), [](const QStringList& a, const QStringList& b) {
                            return a.size() < b.size();
                          })->size();
  for (qsizetype i = column; i < column + width && i < static_cast<qsizetype>(of.columns.size()); ++i)
    columns.push_back(of.columns[static_cast<size_t>(i)].read);
  const bool headed = std::none_of(cells.front().begin(), cells.front().end(), [](const QString& cell) {
    return std::any_of(cell.begin(), cell.end(), [](QChar c) { return c.isDigit(); });
  });
  std::vector<std::vector<QString>> rows;
  for (const QStringList& line : cells) rows.emplace_back(line.begin(), line.end());
  if (headed && cells.size() > 1) {
    columns = rows.front();
    rows.erase(rows.begin());
  }
  send(columns, rows, tr("Paste %1").arg(of.label.toLower()));
}

void MarketPanel::pasteWhole() {
  const QString cells = QGuiApplication::clipboard()->text();
  if (cells.trimmed().isEmpty()) {
    bench_.say(tr("The clipboard holds no cells; copy them in the other program first"), true);
    return;
  }
  const std::optional<QString> named =
      table().table == MarketRows::Table::Series ? withSeriesName(cells, series_->text()) : cells;
  if (!named) {
    bench_.say(tr("The cells do not say whose levels they are: type the name beside 'Paste a table' first"), true);
    series_->setFocus();
    return;
  }
  bench_.typeTable(tr("%1, pasted").arg(table().label.toLower()), *named, tr("Paste %1").arg(table().label.toLower()));
}

}  // namespace zl::app
