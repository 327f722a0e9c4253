#include "app/pages/import_panel.h"

#include <QHBoxLayout>
#include <QVBoxLayout>
#include <algorithm>

#include "app/grid/ledger_rows.h"
#include "app/grid/line_choice.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "app/pages/page.h"
#include "services/intake/judged.h"

namespace zl::app {

using services::ImportPreview;

namespace {

constexpr int kLineColumn = 0;
constexpr int kWhyColumn = 1;
constexpr int kFirstFigure = 3;  ///< columns of the table from the first after the label

/// "31 hold, 2 fail"; nothing where nothing is tied.
QString tiesText(const ImportPreview& p) {
  if (p.holding == 0 && p.failing.empty()) return {};
  const QString holding = ImportPanel::tr("%1 hold").arg(p.holding);
  return p.failing.empty() ? holding : holding + ImportPanel::tr(", %1 fail").arg(p.notHolding);
}

QString failingText(const ImportPreview& p) {
  QStringList list;
  for (const std::string& tie : p.failing) list << text(tie);
  return list.join(QLatin1Char('\n'));
}

}  // namespace

ImportPanel::ImportPanel(QWidget* parent) : QWidget(parent) {
  setAutoFillBackground(true);
  setBackgroundRole(QPalette::Window);
  auto* layout = new QVBoxLayout(this);
  layout->setSpacing(4);
  title_ = sectionLabel({}, this);
  layout->addWidget(title_);
  progress_ = new QProgressBar(this);
  progress_->setObjectName(QStringLiteral("importProgress"));
  progress_->setTextVisible(false);
  progress_->setMaximumHeight(6);
  layout->addWidget(progress_);
  files_ = new LedgerView(this);
  files_->setObjectName(QStringLiteral("importPreview"));
  files_->setAccessibleName(tr("What would come in"));
  files_->setWidths(96, 0);
  files_->setColumns({130, 98, 78, 106, 98, 104, 90});
  layout->addWidget(files_);
  layout->addLayout(makeMending());
  tablePart_ = makeTablePart();
  layout->addWidget(tablePart_, 1);
  auto* buttons = new QHBoxLayout;
  buttons->addStretch();
  leave_ = new QPushButton(tr("&Leave out"), this);
  leave_->setObjectName(QStringLiteral("cancelImport"));
  accept_ = new QPushButton(tr("&Bring in"), this);
  accept_->setObjectName(QStringLiteral("acceptImport"));
  accept_->setDefault(true);
  buttons->addWidget(leave_);
  buttons->addWidget(accept_);
  layout->addLayout(buttons);
  connect(leave_, &QPushButton::clicked, this, &ImportPanel::close);
  connect(accept_, &QPushButton::clicked, this, [this] {
    if (Status s = services::readyToStore(previews_); !s) {
      Q_EMIT failed(text(s.error().text()));
      return;
    }
    std::vector<ImportPreview> taken = std::move(previews_);
    close();
    Q_EMIT accepted(std::move(taken));
  });
  connect(&job_, &ImportJob::progressed, this, [this](int done, int total, const QString& name) {
    progress_->setRange(0, total);
    progress_->setValue(done);
    title_->setText(tr("Reading %1 of %2: %3").arg(done + 1).arg(total).arg(name));
  });
  connect(&job_, &ImportJob::failed, this, [this](const QString& message) {
    close();
    Q_EMIT failed(message);
  });
  connect(&job_, &ImportJob::finished, this, &ImportPanel::show);
  hide();
}

QLayout* ImportPanel::makeMending() {
  auto* bar = new QHBoxLayout;
  mending_ = new PlainLabel(this);
  mending_->setObjectName(QStringLiteral("importMending"));
  mending_->setWordWrap(true);
  mend_ = new QPushButton(tr("&Mend"), this);
  mend_->setObjectName(QStringLiteral("importMend"));
  mending_->setBuddy(mend_);
  bar->addWidget(mending_, 1);
  bar->addWidget(mend_);
  connect(mend_, &QPushButton::clicked, this, [this] {
    const std::optional<size_t> file = toMend();
    if (!file) return;
    ImportPreview changed = previews_[*file];
    if (Status s = services::takeRepair(changed, *context_); !s) {
      Q_EMIT failed(text(s.error().text()));
      return;
    }
    previews_[*file] = std::move(changed);
    showFiles();
    if (!tables_.empty()) showTable();
  });
  return bar;
}

std::optional<size_t> ImportPanel::toMend() const {
  size_t file = 0;
  size_t reading = 0;
  if (tableAt(file, reading) && previews_[file].repair) return file;
  const auto mendable =
      std::find_if(previews_.begin(), previews_.end(), [](const ImportPreview& p) { return p.repair.has_value(); });
  if (mendable == previews_.end()) return std::nullopt;
  return static_cast<size_t>(mendable - previews_.begin());
}

void ImportPanel::showMending() {
  const std::optional<size_t> file = toMend();
  mending_->setVisible(file.has_value());
  mend_->setVisible(file.has_value());
  if (!file) return;
  const ImportPreview& p = previews_[*file];
  const QString words = text(services::repairText(p, context_->resources->model));
  mending_->setText(previews_.size() == 1 ? words : text(p.name) + QStringLiteral(": ") + words);
}

QWidget* ImportPanel::makeTablePart() {
  auto* part = new QWidget(this);
  auto* layout = new QVBoxLayout(part);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(4);
  auto* bar = new QHBoxLayout;
  which_ = new QComboBox(part);
  which_->setObjectName(QStringLiteral("importTable"));
  which_->setAccessibleName(tr("Table"));
  included_ = new QCheckBox(tr("&comes in"), part);
  included_->setObjectName(QStringLiteral("importIncluded"));
  currency_ = new QLineEdit(part);
  currency_->setObjectName(QStringLiteral("importCurrency"));
  currency_->setAccessibleName(tr("Currency"));
  currency_->setMaximumWidth(56);
  currency_->setMaxLength(3);
  scale_ = new QComboBox(part);
  scale_->setObjectName(QStringLiteral("importScale"));
  scale_->setAccessibleName(tr("Scale of the figures"));
  scale_->addItem(tr("as they stand"), 0);
  scale_->addItem(tr("in thousands"), 3);
  scale_->addItem(tr("in millions"), 6);
  scale_->addItem(tr("in billions"), 9);
  header_ = new QSpinBox(part);
  header_->setObjectName(QStringLiteral("importHeader"));
  header_->setAccessibleName(tr("Row with the years"));
  header_->setRange(1, 1000000);
  bar->addWidget(which_);
  bar->addWidget(included_);
  bar->addSpacing(16);
  bar->addWidget(new PlainLabel(tr("figures in"), part));
  bar->addWidget(currency_);
  bar->addWidget(scale_);
  bar->addSpacing(16);
  headerLabel_ = new PlainLabel(part);
  bar->addWidget(headerLabel_);
  bar->addWidget(header_);
  bar->addStretch();
  layout->addLayout(bar);
  doubts_ = new PlainLabel(part);
  doubts_->setObjectName(QStringLiteral("importDoubts"));
  doubts_->setWordWrap(true);
  layout->addWidget(doubts_);
  table_ = new LedgerView(part);
  table_->setObjectName(QStringLiteral("importReading"));
  table_->setAccessibleName(tr("How the table would be read"));
  table_->setWidths(98, 0);
  table_->setColumns({180, 130, 170});
  layout->addWidget(table_, 1);
  connect(which_, &QComboBox::currentIndexChanged, this, [this] {
    if (!filling_) showTable();
  });
  connect(included_, &QCheckBox::toggled, this, [this](bool on) {
    size_t file = 0;
    size_t reading = 0;
    if (filling_ || !tableAt(file, reading)) return;
    ImportPreview changed = previews_[file];
    changed.readings[reading].included = on;
    take(changed, file);
  });
  connect(currency_, &QLineEdit::editingFinished, this, [this] {
    const std::string code = currency_->text().trimmed().toUpper().toStdString();
    guessAgain([&](TableHints& hints) { hints.fixedCurrency = code; });
  });
  connect(scale_, &QComboBox::activated, this, [this] {
    const int power = scale_->currentData().toInt();
    guessAgain([&](TableHints& hints) { hints.fixedScale = power; });
  });
  connect(header_, &QSpinBox::editingFinished, this, [this] {
    const int row = header_->value() - 1;
    guessAgain([&](TableHints& hints) { hints.headerRow = row; });
  });
  connect(&table_->ledger(), &LedgerModel::typed, this, &ImportPanel::typeCell);
  return part;
}

void ImportPanel::begin(const services::ImportContext& context) {
  context_.emplace(context);
  previews_.clear();
  title_->setText(tr("Reading…"));
  progress_->setRange(0, 0);
  progress_->show();
  files_->hide();
  tablePart_->hide();
  mending_->hide();
  mend_->hide();
  accept_->hide();
  leave_->setText(tr("&Stop"));
  QWidget::show();
}

void ImportPanel::read(const QStringList& paths, const services::ImportContext& context) {
  begin(context);
  job_.start(paths, context);
}

void ImportPanel::read(const services::ImportFile& file, const services::ImportContext& context) {
  begin(context);
  job_.start(file, context);
}

void ImportPanel::close() {
  job_.stop();
  previews_.clear();
  hide();
  Q_EMIT tableShown(false);
  Q_EMIT closed();
}

void ImportPanel::show(std::vector<ImportPreview> previews) {
  previews_ = std::move(previews);
  progress_->hide();
  files_->show();
  leave_->setText(tr("&Leave out"));
  accept_->show();
  tables_.clear();
  filling_ = true;
  which_->clear();
  for (size_t f = 0; f < previews_.size(); ++f) {
    const ImportPreview& p = previews_[f];
    for (size_t r = 0; r < p.readings.size(); ++r) {
      tables_.emplace_back(f, r);
      const Sheet& sheet = p.workbook->sheets[static_cast<size_t>(p.readings[r].sheet)];
      which_->addItem(sheet.name.empty() ? text(p.name) : text(p.name) + QStringLiteral(": ") + text(sheet.name));
    }
  }
  filling_ = false;
  tablePart_->setVisible(!tables_.empty());
  Q_EMIT tableShown(!tables_.empty());
  showFiles();
  if (!tables_.empty()) showTable();
  (tables_.empty() ? static_cast<QWidget*>(accept_) : table_)->setFocus();
}

void ImportPanel::showFiles() {
  std::vector<LedgerRow> rows;
  for (const ImportPreview& p : previews_) {
    LedgerRow row;
    row.label = text(p.name);
    QStringList remarks;
    if (!p.filer.filerName.empty()) remarks << tr("filed by %1").arg(text(p.filer.filerName));
    for (const std::string& warning : p.warnings) remarks << text(warning);
    const auto count = [](int n) {
      LedgerCell cell = wordsCell(QString::number(n));
      cell.left = false;
      return cell;
    };
    row.cells = {wordsCell(p.passedOver ? tr("passed over") : text(p.incoming.document.kind)),
                 count(p.mapped),
                 count(p.unmapped),
                 count(p.segments),
                 wordsCell(p.incoming.document.periodEnd ? text(dateText(*p.incoming.document.periodEnd)) : QString()),
                 wordsCell(tiesText(p), failingText(p)),
                 wordsCell(remarks.join(QStringLiteral("; ")))};
    rows.push_back(std::move(row));
  }
  title_->setText(tr("%1 would come in; nothing is stored yet")
                      .arg(counted(static_cast<int>(previews_.size()), tr("file"), tr("files"))));
  files_->ledger().fill(
      {tr("kind"), tr("facts mapped"), tr("unmapped"), tr("with segments"), tr("year to"), tr("ties"), tr("remarks")},
      std::move(rows));
  files_->showAll();
  files_->setMaximumHeight(std::min(files_->minimumHeight(), 180));
  files_->setMinimumHeight(std::min(files_->minimumHeight(), 180));
  showMending();
}

bool ImportPanel::tableAt(size_t& file, size_t& reading) const {
  const int index = which_->currentIndex();
  if (index < 0 || index >= static_cast<int>(tables_.size()) || previews_.empty()) return false;
  file = tables_[static_cast<size_t>(index)].first;
  reading = tables_[static_cast<size_t>(index)].second;
  return true;
}

void ImportPanel::showTable() {
  size_t file = 0;
  size_t at = 0;
  if (!tableAt(file, at)) return;
  const ImportPreview& p = previews_[file];
  showMending();
  const services::SheetReading& s = p.readings[at];
  const TableReading& reading = s.reading;
  const model::Model& m = context_->resources->model;
  filling_ = true;
  included_->setChecked(s.included);
  currency_->setText(text(reading.currency));
  scale_->setCurrentIndex(std::max(0, scale_->findData(reading.scale)));
  const Sheet& sheet = p.workbook->sheets[static_cast<size_t>(s.sheet)];
  header_->setRange(1, std::max(1, reading.yearsDown ? sheet.columns : static_cast<int>(sheet.rows.size())));
  header_->setValue(reading.headerRow + 1);
  headerLabel_->setText(reading.yearsDown ? tr("years stand in column") : tr("years stand in row"));
  filling_ = false;
  QStringList doubts;
  for (const std::string& doubt : reading.doubts) doubts << text(doubt);
  constexpr size_t kMostTies = 4;
  for (size_t i = 0; i < std::min(kMostTies, p.failing.size()); ++i) doubts << text(p.failing[i]);
  if (p.failing.size() > kMostTies) {
    doubts << tr("%1 more ties would fail").arg(p.failing.size() - kMostTies);
  }
  doubts_->setText(doubts.isEmpty() ? QString() : tr("Look at first: %1.").arg(doubts.join(QStringLiteral("; "))));
  doubts_->setVisible(!doubts.isEmpty());

  std::map<std::pair<std::string, Date>, const Fact*> facts;
  for (const Fact& f : p.incoming.facts) facts[{f.concept_name, f.period.end}] = &f;
  QStringList headers{tr("goes to line"), tr("part of"), tr("because")};
  LedgerRow periods;
  periods.label = tr("Year, or months to a day");
  periods.cells = {wordsCell({}), wordsCell({}), wordsCell({})};
  for (const TableColumn& column : reading.columns) {
    headers << text(column.heading);
    const QString day = column.end == Date{} ? QString() : text(dateText(column.end));
    const QString how = tr("The year to this day; 6 to %1 for half a year; nothing to leave the column out").arg(day);
    LedgerCell cell = wordsCell(column.months == 12 ? day : QStringLiteral("%1 to %2").arg(column.months).arg(day),
                                column.doubt.empty() ? how : text(column.doubt));
    cell.left = false;
    cell.editable = true;
    cell.ink = Ink::Assumed;
    cell.struck = !column.included;
    periods.cells.push_back(std::move(cell));
  }
  std::vector<LedgerRow> rows{std::move(periods)};
  for (const TableLine& line : reading.lines) {
    LedgerRow row;
    row.label = text(line.label);
    row.kind = line.shares ? Kind::Shares : Kind::Money;
    LedgerCell to = wordsCell(lineLabel(m, line.choice),
                              tr("Type a line, − before it for the other sign, or nothing to set the row aside"));
    to.editable = true;
    to.chooses = true;
    to.ink = Ink::Assumed;
    to.quiet = line.match == TableLine::Match::Close || line.match == TableLine::Match::Rest;
    row.cells = {std::move(to), wordsCell(line.total ? text(reading.lines[*line.total].label) : QString()),
                 wordsCell(text(line.choice.reason))};
    for (const TableColumn& column : reading.columns) {
      LedgerCell cell;
      cell.ink = Ink::Filed;
      const auto fact = facts.find({line.concept_name, column.end});
      if (column.included && fact != facts.end()) {
        cell.figure = fact->second->figure();
        cell.tip = text(fact->second->text + " " + fact->second->unit + ", " + fact->second->place);
      }
      row.cells.push_back(std::move(cell));
    }
    rows.push_back(std::move(row));
  }
  const bool interim = std::any_of(reading.columns.begin(), reading.columns.end(),
                                   [](const TableColumn& column) { return column.months != 12; });
  table_->setWidths(interim ? 124 : 98, 0);
  table_->ledger().setChoices(lineLabels(m));
  table_->ledger().setCorner(tr("%1 m, as read").arg(text(reading.currency)));
  table_->ledger().fill(headers, std::move(rows));
}

void ImportPanel::guessAgain(const std::function<void(TableHints&)>& fix) {
  size_t file = 0;
  size_t at = 0;
  if (filling_ || !tableAt(file, at)) return;
  const TableReading& before = previews_[file].readings[at].reading;
  // What was fixed or chosen before stays.
  TableHints hints = context_->hints;
  hints.fixedCurrency = before.currency;
  hints.fixedScale = before.scale;
  hints.headerRow = before.headerRow;
  hints.yearsDown = before.yearsDown;
  for (const TableLine& line : before.lines) {
    if (line.match == TableLine::Match::Remembered || line.choice.byHand)
      hints.remembered[line.concept_name] = line.choice;
  }
  fix(hints);
  if (hints.fixedCurrency == before.currency && hints.fixedScale == before.scale && hints.headerRow == before.headerRow)
    return;
  ImportPreview changed = previews_[file];
  if (Status s = services::guessAgain(changed, at, hints, *context_); !s) {
    Q_EMIT failed(text(s.error().text()));
    showTable();
    return;
  }
  previews_[file] = std::move(changed);
  showFiles();
  showTable();
}

void ImportPanel::take(const ImportPreview& given, size_t file) {
  ImportPreview changed = given;
  if (Status s = services::applyReadings(changed, *context_); !s) {
    Q_EMIT failed(text(s.error().text()));
  } else {
    previews_[file] = std::move(changed);
  }
  showFiles();
  showTable();
}

void ImportPanel::typeCell(int row, int column, const QString& typed) {
  size_t file = 0;
  size_t at = 0;
  if (!tableAt(file, at)) return;
  ImportPreview changed = previews_[file];
  TableReading& reading = changed.readings[at].reading;
  if (row == 0) {
    typePeriod(reading, column - kFirstFigure, typed);
  } else if (column == kLineColumn) {
    typeLine(reading, static_cast<size_t>(row - 1), typed);
  }
  take(changed, file);
}

void ImportPanel::typePeriod(TableReading& reading, int column, const QString& typed) {
  if (column < 0 || column >= static_cast<int>(reading.columns.size())) return;
  const Status set = setPeriod(reading, static_cast<size_t>(column), typed.toStdString());
  if (!set) Q_EMIT failed(text(set.error().text()));
}

void ImportPanel::typeLine(TableReading& reading, size_t line, const QString& typed) {
  const std::optional<LineChoice> choice = typedLine(context_->resources->model, typed);
  if (!choice) {
    Q_EMIT failed(tr("There is no standard line '%1'").arg(typed.trimmed().left(40)));
    return;
  }
  setLine(reading, line, *choice, context_->resources->labels);
}

}  // namespace zl::app
