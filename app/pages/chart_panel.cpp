#include "app/pages/chart_panel.h"

#include <QApplication>
#include <QClipboard>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>
#include <algorithm>
#include <set>

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "services/views/driver_evidence.h"

namespace zl::app {
namespace {

constexpr size_t kMostLines = 6;
constexpr size_t kMostUnits = 2;

}  // namespace

ChartPanel::ChartPanel(Workbench& bench, QWidget* parent) : QWidget(parent), bench_(bench) {
  setObjectName(QStringLiteral("chartPanel"));
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(8, 4, 8, 0);
  layout->setSpacing(2);
  auto* bar = new QHBoxLayout;
  mode_ = new QComboBox(this);
  mode_->setObjectName(QStringLiteral("boardMode"));
  mode_->setAccessibleName(tr("How the board is drawn"));
  mode_->addItems({tr("over time"), tr("second against first")});
  auto* label = new PlainLabel(tr("&Board"), this);
  label->setBuddy(mode_);
  split_ = new QComboBox(this);
  split_->setObjectName(QStringLiteral("boardSplit"));
  auto* splitLabel = new PlainLabel(tr("&regimes"), this);
  splitLabel->setBuddy(split_);
  const auto button = [&](const QString& words, const char* name) {
    auto* b = new QPushButton(words, this);
    b->setObjectName(QString::fromLatin1(name));
    return b;
  };
  copy_ = button(tr("Copy picture"), "boardCopy");
  save_ = button(tr("Save…"), "boardSave");
  clear_ = button(tr("Clear"), "boardClear");
  bar->addWidget(label);
  bar->addWidget(mode_);
  bar->addSpacing(10);
  bar->addWidget(splitLabel);
  bar->addWidget(split_);
  bar->addStretch();
  for (QPushButton* b : {copy_, save_, clear_}) bar->addWidget(b);
  layout->addLayout(bar);
  board_ = new LineBoard(this);
  layout->addWidget(board_, 1);
  const auto redraw = [this] {
    if (bench_.isOpen()) refresh(reading_);
  };
  connect(mode_, &QComboBox::currentIndexChanged, this, redraw);
  connect(mode_, &QComboBox::currentIndexChanged, this, [this](int mode) {
    if (mode == 1 && shown_.size() != 2)
      bench_.say(tr("Two against each other needs two lines on the board; the first two are used"));
  });
  connect(split_, &QComboBox::currentIndexChanged, this, redraw);
  connect(copy_, &QPushButton::clicked, this, &ChartPanel::copy);
  connect(save_, &QPushButton::clicked, this, &ChartPanel::save);
  connect(clear_, &QPushButton::clicked, this, [this, redraw] {
    shown_.clear();
    redraw();
  });
}

void ChartPanel::toggle(const std::string& row) {
  const auto found = std::find(shown_.begin(), shown_.end(), row);
  if (found != shown_.end()) {
    shown_.erase(found);
  } else {
    std::vector<std::string> next = shown_;
    next.push_back(row);
    std::set<QString> units;
    for (const std::string& name : next) {
      const model::RowId index = bench_.now().evaluation->model().find(name);
      units.insert(unitOf(bench_.now(), bench_.now().evaluation->model()[index].kind));
    }
    if (next.size() > kMostLines || units.size() > kMostUnits) {
      bench_.say(tr("The board takes six lines in two units; take one off first (Enter on its row, or Clear)"), true);
      return;
    }
    shown_ = std::move(next);
  }
  refresh(reading_);
}

BoardLine ChartPanel::lineOf(const services::Snapshot& s, model::RowId row) const {
  const model::Row& r = s.evaluation->model()[row];
  return {text(r.name), text(r.label), unitOf(s, r.kind), r.kind,
          services::figuresIn(s, row, services::HistoryView::Amounts, reading_)};
}

void ChartPanel::refillYears() {
  const auto& years = bench_.now().years();
  if (split_->count() == static_cast<int>(years.size())) return;
  const QSignalBlocker quiet(split_);
  split_->clear();
  split_->addItem(tr("one"), -1);
  for (size_t i = 1; i < years.size(); ++i) {
    split_->addItem(tr("from %1").arg(years[i].label()), static_cast<int>(i));
  }
}

void ChartPanel::refresh(services::Reading reading) {
  reading_ = reading;
  const services::Snapshot& s = bench_.now();
  refillYears();
  // A line of the analyst's own may have been dropped since, or another book opened.
  if (std::exchange(fresh_, false)) {
    for (const model::ViewRow& row : s.model().view("charted")) shown_.push_back(s.model()[row.row].name);
  }
  std::erase_if(shown_, [&](const std::string& name) { return !s.evaluation->model().find(name).known(); });
  LineBoardContent content;
  content.periods = periodHeaders(s, 0, s.evaluation->layout().historyYears);
  content.exceptional = services::exceptionalColumns(s);
  for (const std::string& name : shown_) content.lines.push_back(lineOf(s, s.evaluation->model().find(name)));
  for (const CompanyEvent& event : s.company().events) {
    const bool concerns = event.line.empty() || std::find(shown_.begin(), shown_.end(), event.line) != shown_.end();
    for (size_t c = 0; concerns && c < s.years().size(); ++c) {
      const bool inYear = event.on <= s.years()[c].end && event.on > addYears(s.years()[c].end, -1);
      if (inYear) content.events.push_back({static_cast<int>(c), text(event.what)});
    }
  }
  content.against = mode_->currentIndex() == 1;
  content.split = split_->currentData().toInt();
  split_->setEnabled(content.against);
  for (QPushButton* b : {copy_, save_, clear_}) b->setEnabled(!shown_.empty());
  board_->setContent(std::move(content));
}

void ChartPanel::copy() const {
  QApplication::clipboard()->setImage(board_->picture());
  bench_.say(tr("The chart is on the clipboard as a picture"));
}

void ChartPanel::save() {
  const QString path = saveDialog_ ? saveDialog_(this) : QString();
  if (path.isEmpty()) return;
  const QString fault = board_->save(path);
  bench_.say(fault.isEmpty() ? tr("Saved the chart to %1").arg(path) : fault, !fault.isEmpty());
}

}  // namespace zl::app
