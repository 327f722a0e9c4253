#include "app/pages/market_panel.h"

#include <QClipboard>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/filing/minor_unit.h"
#include "core/quantity/number_text.h"

namespace zl::app {

/// A column as the grid heads it and as the reader of tables knows it; amounts are shown in millions.
struct MarketPanel::Table {
  struct Column {
    QString label;
    QString read;
    bool words = false;
    bool needed = false;
    bool amount = false;
  };
  QString key, label, hint;
  std::vector<Column> columns;
  std::vector<size_t> names;  ///< columns that say which row is meant
  std::vector<int> widths;    ///< of the first columns
};

const std::vector<MarketPanel::Table>& MarketPanel::tables() {
  static const std::vector<Table> kTables = {
      {QStringLiteral("prices"),
       tr("Prices"),
       tr("a table copied from a page is understood: a day and a close are enough"),
       {{tr("day"), QStringLiteral("date"), true, true},
        {tr("close"), QStringLiteral("close"), false, true},
        {tr("source"), QStringLiteral("source"), true}},
       {0},
       {110, 110, 420}},
      {QStringLiteral("rates"),
       tr("Rates"),
       tr("risk-free EUR, equity premium EUR, spot EUR/GBP; 2.6% or units of the second currency"),
       {{tr("rate"), QStringLiteral("rate"), true, true},
        {tr("day"), QStringLiteral("date"), true},
        {tr("figure"), QStringLiteral("figure"), false, true},
        {tr("source"), QStringLiteral("source"), true}},
       {0, 1},
       {240, 110, 110, 420}},
      {QStringLiteral("peers"),
       tr("Peers"),
       tr("a name, a price, shares or a market value, and a few figures begin one; amounts in millions"),
       {{tr("name"), QStringLiteral("name"), true, true},
        {tr("price"), QStringLiteral("price")},
        {tr("unit"), QStringLiteral("price unit"), true},
        {tr("day"), QStringLiteral("date"), true},
        {tr("currency"), QStringLiteral("currency"), true},
        {tr("shares m"), QStringLiteral("shares (millions)"), false, false, true},
        {tr("revenue m"), QStringLiteral("revenue (millions)"), false, false, true},
        {tr("EBITDA m"), QStringLiteral("ebitda (millions)"), false, false, true},
        {tr("net income m"), QStringLiteral("net income (millions)"), false, false, true},
        {tr("debt m"), QStringLiteral("debt (millions)"), false, false, true},
        {tr("cash m"), QStringLiteral("cash (millions)"), false, false, true},
        {tr("year end"), QStringLiteral("year end"), true}},
       {0},
       {190}},
      {QStringLiteral("estimates"),
       tr("Estimates and guidance"),
       tr("by line and year; 'by' is analysts or company; amounts in millions"),
       {{tr("line"), QStringLiteral("item"), true, true},
        {tr("year"), QStringLiteral("year"), false, true},
        {tr("low"), QStringLiteral("low (millions)"), false, false, true},
        {tr("mean"), QStringLiteral("mean (millions)"), false, true, true},
        {tr("high"), QStringLiteral("high (millions)"), false, false, true},
        {tr("count"), QStringLiteral("count")},
        {tr("day"), QStringLiteral("date"), true},
        {tr("source"), QStringLiteral("source"), true},
        {tr("by"), QStringLiteral("by"), true}},
       {0, 1, 6},
       {190}}};
  return kTables;
}

namespace {

constexpr size_t kMostShown = 400;  // of the newest; older ones are in the book

QString number(const Figure& f, double scale = 1) {
  return f.hasValue() ? text(plainNumber(f.value() / scale)) : QString();
}

QString day(Date date) {
  return text(dateText(date));
}

std::vector<std::vector<QString>> priceRows(const services::Snapshot& s) {
  std::vector<std::vector<QString>> rows;
  for (auto p = s.market->prices.rbegin(); p != s.market->prices.rend() && rows.size() < kMostShown; ++p) {
    const store::StoredDocument* document = p->document == 0 ? nullptr : s.document(p->document);
    rows.push_back({day(p->date), text(plainNumber(p->close)),
                    document != nullptr ? text(document->document.name) : text(p->source)});
  }
  return rows;
}

std::vector<std::vector<QString>> rateRows(const services::Snapshot& s) {
  std::vector<std::vector<QString>> rows;
  for (const MarketRate& r : s.market->rates) {
    const bool fraction = std::fabs(r.figure) < 1 && !text(r.name).startsWith(QLatin1String("spot"));
    rows.push_back({text(r.name), day(r.date),
                    fraction ? text(plainNumber(std::round(r.figure * 1e10) / 1e8)) + QLatin1Char('%')
                             : text(plainNumber(r.figure)),
                    text(r.source)});
  }
  return rows;
}

/// What the price is quoted in, as it is typed: GBX for pence of GBP.
QString unitOfPrice(const Peer& p) {
  for (const char* unit : {"GBX", "ZAC", "ILA", "USX"}) {
    const std::optional<Listing> listing = listingOfUnit(unit);
    if (listing && listing->currency == p.priceCurrency && listing->minorPerMajor == p.minorPerMajor)
      return QString::fromLatin1(unit);
  }
  return text(p.priceCurrency);
}

std::vector<std::vector<QString>> peerRows(const services::Snapshot& s) {
  constexpr double kMillion = 1e6;
  std::vector<std::vector<QString>> rows;
  for (const Peer& p : s.market->peers) {
    const PeerYear last = p.years.empty() ? PeerYear{} : p.years.back();
    rows.push_back({text(p.name), number(p.price), unitOfPrice(p), day(p.priceDate), text(p.currency),
                    number(p.shares, kMillion), number(last.revenue, kMillion), number(last.ebitda, kMillion),
                    number(last.netIncome, kMillion), number(p.debt, kMillion), number(p.cash, kMillion),
                    p.years.empty() ? QString() : day(last.end)});
  }
  return rows;
}

std::vector<std::vector<QString>> estimateRows(const services::Snapshot& s) {
  std::vector<std::vector<QString>> rows;
  for (const Estimate& e : s.market->estimates) {
    const model::RowId row = s.model().find(e.item);
    const bool amount = row.known() && (s.model()[row].kind == Kind::Money || s.model()[row].kind == Kind::Shares);
    const auto figure = [&](const std::optional<double>& x) {
      return x ? text(plainNumber(amount ? *x / 1e6 : *x)) : QString();
    };
    rows.push_back({text(e.item), QString::number(e.year), figure(e.low), figure(e.mean), figure(e.high),
                    e.count > 0 ? QString::number(e.count) : QString(), day(e.date), text(e.source),
                    e.by == EstimateBy::Company ? QStringLiteral("company") : QStringLiteral("analysts")});
  }
  return rows;
}

/// A cell that parts no others.
QString cellOf(const QString& words) {
  QString cell = words;
  return cell.replace(QLatin1Char('\t'), QLatin1Char(' ')).replace(QLatin1Char('\n'), QLatin1Char(' '));
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
  for (const Table& t : tables()) which_->addItem(t.label, t.key);
  bar->addWidget(which_);
  auto* paste = new QPushButton(tr("&Paste a table"), this);
  paste->setObjectName(QStringLiteral("pasteMarket"));
  bar->addWidget(paste);
  hint_ = new PlainLabel(this);
  hint_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  bar->addWidget(hint_, 1);
  layout->addLayout(bar);
  layout->addWidget(grid_, 1);
  connect(which_, &QComboBox::currentIndexChanged, this, [this] {
    fresh_.clear();
    if (bench_.isOpen()) refresh();
  });
  connect(paste, &QPushButton::clicked, this, &MarketPanel::pasteWhole);
  connect(&grid_->ledger(), &LedgerModel::typed, this, &MarketPanel::typeCell, Qt::QueuedConnection);
  connect(grid_, &LedgerView::pasted, this, &MarketPanel::paste);
  connect(&bench_, &Workbench::opened, this, [this] { fresh_.clear(); });
}

const MarketPanel::Table& MarketPanel::table() const {
  return tables().at(static_cast<size_t>(which_->currentIndex()));
}

std::vector<std::vector<QString>> MarketPanel::rowsOf(const Table& of) const {
  const services::Snapshot& s = bench_.settled();
  if (of.key == QLatin1String("prices")) return priceRows(s);
  if (of.key == QLatin1String("rates")) return rateRows(s);
  return of.key == QLatin1String("peers") ? peerRows(s) : estimateRows(s);
}

void MarketPanel::refresh() {
  const Table& of = table();
  hint_->setText(of.hint);
  QStringList headers;
  for (const Table::Column& column : of.columns) headers << column.label;
  if (of.key == QLatin1String("prices"))
    headers[1] = tr("close, %1").arg(text(bench_.settled().company().listing.unit));
  std::vector<std::vector<QString>> all = rowsOf(of);
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
      row.cells.push_back(std::move(cell));
    }
    rows.push_back(std::move(row));
  }
  grid_->setColumns(of.widths);
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
  const Table& of = table();
  const auto c = static_cast<size_t>(column);
  std::vector<QString> columns;
  std::vector<QString> cells;
  if (row > 0) {
    const std::vector<QString> stands = rowsOf(of).at(static_cast<size_t>(row - 1));
    const bool whole = of.key == QLatin1String("estimates");  // read as rows
    for (size_t i = 0; i < of.columns.size(); ++i) {
      const bool names = std::find(of.names.begin(), of.names.end(), i) != of.names.end();
      const bool needed = of.columns[i].needed || whole;
      if (i != c && !names && !needed) continue;
      columns.push_back(of.columns[i].read);
      cells.push_back(i == c ? typed : stands[i]);
    }
    if (of.key == QLatin1String("peers") && columns.size() < 2) {  // another name
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
    constexpr size_t kPeerCells = 4;  // a name, a price, shares and a figure
    if (!enough || (of.key == QLatin1String("peers") && said < kPeerCells)) return refresh();
    fresh_.clear();
  }
  send(columns, {cells}, tr("Type %1: %2").arg(of.label.toLower(), cells.front()));
}

/// Cells without headings stand under those of the grid.
void MarketPanel::paste(int, int column, const QList<QStringList>& cells) {
  const Table& of = table();
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
  bench_.typeTable(tr("%1, pasted").arg(table().label.toLower()), cells, tr("Paste %1").arg(table().label.toLower()));
}

}  // namespace zl::app
