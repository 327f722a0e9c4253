#include "app/pages/basis_panel.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "services/stories/company_stories.h"
#include "services/stories/peer_stories.h"

namespace zl::app {
namespace {

constexpr int kLongestResearchLife = 10;  // as the model's own range

}  // namespace

BasisPanel::BasisPanel(Workbench& bench, LedgerView* grid, QWidget* parent)
    : QWidget(parent), bench_(bench), grid_(grid) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(8, 0, 8, 0);
  layout->addLayout(bar);
  const auto add = [&](const QString& words, QWidget* field) {
    auto* label = new PlainLabel(words, this);
    label->setBuddy(field);
    bar->addWidget(label);
    bar->addWidget(field);
    bar->addSpacing(12);
  };
  const auto choice = [&](const char* name, const QString& no, const QString& yes) {
    auto* box = new QComboBox(this);
    box->setObjectName(QString::fromLatin1(name));
    box->addItems({no, yes});
    return box;
  };
  leases_ = choice("leaseBasis", tr("rent, a cost"), tr("debt"));
  add(tr("&Leases are"), leases_);
  pay_ = choice("stockPayBasis", tr("added back"), tr("a cost"));
  add(tr("Stoc&k pay is"), pay_);
  research_ = new QSpinBox(this);
  research_->setObjectName(QStringLiteral("researchBasis"));
  research_->setRange(0, kLongestResearchLife);
  research_->setSpecialValueText(tr("a cost of its year"));
  research_->setSuffix(tr(" years' capital"));
  research_->setKeyboardTracking(false);
  research_->setMinimumWidth(fontMetrics().horizontalAdvance(tr("a cost of its year")) + 48);
  add(tr("Resea&rch is"), research_);
  bar->addStretch();
  grid_->setWidths(76, 0);
  grid_->setColumns({76, 98, 58, 148, 58, 144, 58});
  layout->addWidget(grid_);
  connect(leases_, &QComboBox::activated, this, [this](int index) { take(model::Role::Leases, index); });
  connect(pay_, &QComboBox::activated, this, [this](int index) { take(model::Role::StockPay, index); });
  connect(research_, &QSpinBox::valueChanged, this, [this](int years) { take(model::Role::ResearchLife, years); });
  connect(grid_, &LedgerView::rowActivated, this, [this](int, int column) {
    const int at = (column - 1) / 2;
    if (column < 1 || at >= static_cast<int>(switches_.size())) return;
    take(switches_[static_cast<size_t>(at)].role, switches_[static_cast<size_t>(at)].other);
  });
}

void BasisPanel::take(model::Role role, double figure) {
  const services::Snapshot& s = bench_.settled();
  bench_.apply(services::setInput(s.caseOf(), s.model(), kBase, s.model().nameOf(role), figure, bench_.saidNow({})));
}

QWidget* BasisPanel::fieldOf(model::Role role) const {
  if (role == model::Role::Leases) return leases_;
  return role == model::Role::StockPay ? static_cast<QWidget*>(pay_) : research_;
}

void BasisPanel::refresh() {
  const services::BasisView view = services::basisView(bench_.now(), bench_.scenario());
  switches_ = view.switches;
  const QSignalBlocker quiet(research_);
  // A choice that the model does not have cannot be made.
  for (QWidget* field : std::initializer_list<QWidget*>{leases_, pay_, research_}) field->setEnabled(false);
  for (const services::BasisSwitch& choice : switches_) {
    const int chosen = static_cast<int>(choice.chosen);
    if (choice.role == model::Role::Leases) leases_->setCurrentIndex(chosen);
    if (choice.role == model::Role::StockPay) pay_->setCurrentIndex(chosen);
    if (choice.role == model::Role::ResearchLife) research_->setValue(chosen);
    fieldOf(choice.role)->setEnabled(true);
  }
  fillTable(view);
}

void BasisPanel::fillTable(const services::BasisView& view) {
  const services::Snapshot& s = bench_.now();
  const int base = s.evaluation->layout().baseColumn();
  std::vector<LedgerRow> rows;
  for (const services::BasisMeasure& measure : view.measures) {
    LedgerRow row;
    row.label = text(measure.label) + (measure.baseYear ? QStringLiteral(", ") + text(s.periodOf(base)) : QString());
    row.kind = measure.kind;
    row.unit = measure.kind == Kind::Money ? QString() : unitOf(s, measure.kind);
    const model::RowId index = s.model().find(measure.row);
    row.strong = index == s.model().find(model::Role::ValuePerShare);
    row.cells.push_back(figureCell(measure.now));
    row.cells.back().source = model::Cell{index, base};
    for (size_t i = 0; i < measure.other.size(); ++i) {
      for (const bool change : {false, true}) {
        LedgerCell cell = figureCell(change ? measure.other[i] - measure.now : measure.other[i]);
        cell.quiet = change;
        cell.story = [measure, choice = view.switches[i], change, figure = cell.figure,
                      scenario = bench_.scenario()](const services::Snapshot& of) {
          return services::basisStory(of, measure, choice, change, figure, scenario);
        };
        row.cells.push_back(std::move(cell));
      }
    }
    rows.push_back(std::move(row));
  }
  QStringList headers{tr("as chosen")};
  for (const services::BasisSwitch& choice : view.switches) headers << text(choice.otherWords) << tr("change");
  grid_->ledger().setCorner(cornerOf(s));
  grid_->ledger().fill(headers, std::move(rows));
  grid_->showAll();
}

}  // namespace zl::app
