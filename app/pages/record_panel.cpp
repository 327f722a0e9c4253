#include "app/pages/record_panel.h"

#include <QHBoxLayout>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>
#include <utility>

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "app/pages/page.h"
#include "core/quantity/number_text.h"
#include "services/stories/company_stories.h"
#include "services/views/listing_view.h"

namespace zl::app {

using services::RecordField;
using services::RecordRow;

namespace {

/// Counts and amounts with their thousands parted, which is read back as it is.
QString shown(const std::string& typed, RecordField::Kind kind) {
  const bool count = kind == RecordField::Kind::Shares || kind == RecordField::Kind::Amount;
  const std::optional<double> number = count ? typedNumber(typed) : std::nullopt;
  const bool whole = number && *number == std::floor(*number);
  return text(whole ? groupedNumber(*number, 0, false) : typed);
}

LedgerCell typedCell(const QString& words, const QString& tip, bool left) {
  LedgerCell cell;
  cell.words = words;
  cell.tip = tip;
  cell.editable = true;
  cell.left = left;
  cell.ink = Ink::Plain;
  return cell;
}

bool isWords(RecordField::Kind kind) {
  return kind == RecordField::Kind::Text || kind == RecordField::Kind::Day || kind == RecordField::Kind::YesNo;
}

}  // namespace

RecordPanel::RecordPanel(Workbench& bench, LedgerView* fields, LedgerView* list, LedgerView* listings, QWidget* parent)
    : QWidget(parent), bench_(bench), fields_(fields), listView_(list), listings_(listings) {
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  fields_->setColumns({220, 120});
  layout->addWidget(fields_, 5);
  auto* right = new QVBoxLayout;
  right->addWidget(sectionLabel(tr("Listings: value and price in each; Enter values another"), this));
  right->addWidget(listings_);
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(8, 4, 8, 0);
  which_ = new QComboBox(this);
  which_->setObjectName(QStringLiteral("recordLists"));
  which_->setAccessibleName(tr("List of the record"));
  for (const services::RecordList& l : services::recordLists()) which_->addItem(text(l.label), text(l.key));
  bar->addWidget(which_);
  hint_ = new PlainLabel(this);
  hint_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  bar->addWidget(hint_, 1);
  auto* remove = new QPushButton(tr("&Remove the row"), this);
  remove->setObjectName(QStringLiteral("removeRecordRow"));
  bar->addWidget(remove);
  right->addLayout(bar);
  right->addWidget(listView_, 1);
  layout->addLayout(right, 6);
  connect(which_, &QComboBox::currentIndexChanged, this, [this] {
    fresh_.clear();
    if (bench_.isOpen()) refreshList();
  });
  connect(&fields_->ledger(), &LedgerModel::typed, this, &RecordPanel::typeField, Qt::QueuedConnection);
  connect(&listView_->ledger(), &LedgerModel::typed, this, &RecordPanel::typeCell, Qt::QueuedConnection);
  connect(listView_, &LedgerView::pasted, this, &RecordPanel::pasteRows);
  connect(remove, &QPushButton::clicked, this, &RecordPanel::removeRow);
  connect(listings_, &LedgerView::rowActivated, this, [this](int row, int) { valueListing(row); });
  connect(&bench_, &Workbench::opened, this, [this] { fresh_.clear(); });
}

const services::RecordList& RecordPanel::list() const {
  return *services::recordList(which_->currentData().toString().toStdString());
}

void RecordPanel::refresh() {
  refreshFields();
  refreshList();
  refreshListings();
}

void RecordPanel::refreshFields() {
  const Company& c = bench_.settled().company();
  std::vector<LedgerRow> rows;
  for (const RecordField& field : services::recordFields()) {
    LedgerRow row;
    row.label = text(field.label);
    row.key = text(field.key);
    const auto said = c.said.find(field.key.substr(0, field.key.find('.')));
    const bool known = said != c.said.end();
    const QString who =
        known ? tr("%1, %2").arg(text(said->second.author), text(said->second.at.substr(0, 10))) : QString();
    row.cells = {typedCell(shown(services::fieldText(c, field), field.kind), text(field.hint), true),
                 typedCell(known ? text(said->second.reason) : QString(),
                           who.isEmpty() ? tr("Why, or where it is from") : who, true)};
    rows.push_back(std::move(row));
  }
  fields_->ledger().fill({tr("as it is"), tr("why, where from")}, std::move(rows));
}

void RecordPanel::refreshList() {
  const services::RecordList& l = list();
  hint_->setText(text(l.hint));
  QStringList headers;
  for (const RecordField& column : l.columns) headers << text(column.label);
  std::vector<RecordRow> all = services::listTexts(bench_.settled().company(), l);
  all.push_back(fresh_);
  std::vector<LedgerRow> rows;
  for (size_t r = 0; r < all.size(); ++r) {
    LedgerRow row;
    row.label = r + 1 == all.size() ? QStringLiteral("+") : QString::number(r + 1);
    row.key = row.label;
    for (size_t c = 0; c < l.columns.size(); ++c) {
      const RecordField& column = l.columns[c];
      LedgerCell cell = typedCell(c < all[r].size() ? shown(all[r][c], column.kind) : QString(), text(column.hint),
                                  isWords(column.kind));
      cell.story = [title = l.label + ", " + column.label,
                    figure = cell.words->toStdString()](const services::Snapshot& of) {
        return services::tableStory(title, figure, "from the company record, " + of.evidence->companySource);
      };
      row.cells.push_back(std::move(cell));
    }
    rows.push_back(std::move(row));
  }
  listView_->ledger().fill(headers, std::move(rows));
}

void RecordPanel::refreshListings() {
  const services::Snapshot& s = bench_.settled();
  std::vector<LedgerRow> rows;
  for (const services::ListingLine& line : services::listingLines(s)) {
    LedgerRow row;
    row.label = text(line.listing.unit);
    row.kind = Kind::Quote;
    row.strong = rows.empty();
    const auto told = [&, listing = line.listing](const Figure& figure, int scenario) {
      LedgerCell cell = figureCell(figure);
      cell.story = [listing, figure, scenario](const services::Snapshot& of) {
        return services::listingStory(of, listing, figure, scenario);
      };
      return cell;
    };
    row.cells.push_back(told(line.price, -1));
    for (size_t k = 0; k < line.values.size(); ++k) row.cells.push_back(told(line.values[k], static_cast<int>(k)));
    rows.push_back(std::move(row));
  }
  QStringList headers = {tr("price")};
  headers += scenarioHeaders(s);
  listings_->ledger().setCorner(tr("per security"));
  listings_->ledger().fill(headers, std::move(rows));
  listings_->showAll();
}

void RecordPanel::typeField(int row, int column, const QString& typed) {
  const RecordField& field = services::recordFields().at(static_cast<size_t>(row));
  const Company& c = bench_.settled().company();
  const auto said = c.said.find(field.key.substr(0, field.key.find('.')));
  const std::string before = said == c.said.end() ? std::string() : said->second.reason;
  const bool why = column == 1;
  const std::string value = why ? services::fieldText(c, field) : typed.toStdString();
  bench_.changeRecord(services::setField(c, field.key, value, bench_.notedNow(why ? typed.trimmed() : text(before))));
}

void RecordPanel::storeRows(const std::vector<RecordRow>& rows) {
  if (bench_.changeRecord(services::setList(bench_.settled().company(), list().key, rows, bench_.notedNow({})))) return;
  refreshList();  // what was refused is shown as it stands
}

void RecordPanel::typeCell(int row, int column, const QString& typed) {
  const services::RecordList& l = list();
  std::vector<RecordRow> rows = services::listTexts(bench_.settled().company(), l);
  const auto at = static_cast<size_t>(row);
  if (at < rows.size()) {
    rows[at][static_cast<size_t>(column)] = typed.toStdString();
    return storeRows(rows);
  }
  fresh_.resize(l.columns.size());
  fresh_[static_cast<size_t>(column)] = typed.trimmed().toStdString();
  bool whole = true;
  for (size_t c = 0; c < l.columns.size(); ++c) whole = whole && (!l.columns[c].needed || !fresh_[c].empty());
  if (!whole) return refreshList();
  rows.push_back(fresh_);
  const RecordRow kept = std::exchange(fresh_, {});
  if (!bench_.changeRecord(services::setList(bench_.settled().company(), l.key, rows, bench_.notedNow({})))) {
    fresh_ = kept;
    refreshList();
  }
}

/// One edit for all of them. A row that cannot be is named, and stops no other.
void RecordPanel::pasteRows(int row, int column, const QList<QStringList>& cells) {
  const services::RecordList& l = list();
  const Company& company = bench_.settled().company();
  std::vector<RecordRow> rows = services::listTexts(company, l);
  QStringList refused;
  for (qsizetype i = 0; i < cells.size(); ++i) {
    std::vector<RecordRow> tried = rows;
    const size_t at = std::min(static_cast<size_t>(row + i), rows.size());
    if (at == tried.size()) tried.emplace_back(l.columns.size());
    for (qsizetype k = 0; k < cells[i].size(); ++k) {
      const size_t c = static_cast<size_t>(column + k);
      if (c < l.columns.size()) tried[at][c] = cells[i][k].trimmed().toStdString();
    }
    const Result<services::RecordEdit> edit = services::setList(company, l.key, tried, bench_.notedNow({}));
    if (edit) {
      rows = std::move(tried);
    } else {
      refused << tr("line %1: %2").arg(i + 1).arg(text(edit.error().what));
    }
  }
  if (refused.size() < cells.size()) storeRows(rows);
  if (!refused.isEmpty()) bench_.say(tr("Not taken: %1").arg(refused.join(QStringLiteral("; "))), true);
}

void RecordPanel::removeRow() {
  std::vector<RecordRow> rows = services::listTexts(bench_.settled().company(), list());
  const int row = listView_->currentIndex().row();
  if (row < 0 || row >= static_cast<int>(rows.size())) {
    bench_.say(tr("Choose a row of the list first"), true);
    return;
  }
  rows.erase(rows.begin() + row);
  storeRows(rows);
}

void RecordPanel::valueListing(int row) {
  const services::Snapshot& s = bench_.settled();
  const auto further = static_cast<size_t>(row - 1);
  if (row < 1 || further >= s.company().furtherListings.size()) return;
  bench_.changeRecord(services::valueListing(
      s.company(), further, services::rateTo(s, s.company().furtherListings[further]), bench_.notedNow({})));
}

}  // namespace zl::app
