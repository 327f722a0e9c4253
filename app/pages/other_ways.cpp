#include "app/pages/other_ways.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

#include "app/look/plain_text.h"

namespace zl::app {

OtherWays::OtherWays(const char* name, Workbench& bench, LedgerView* values, LedgerView* years,
                     std::vector<OtherWay> ways, QWidget* parent, LedgerView* further)
    : QWidget(parent), bench_(bench), ways_(std::move(ways)), values_(values), years_(years), further_(further) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(8, 0, 8, 0);
  choice_ = new QComboBox(this);
  choice_->setObjectName(QString::fromLatin1(name));
  choice_->setAccessibleName(tr("Another way to value"));
  for (const OtherWay& way : ways_) choice_->addItem(way.label, QString::fromLatin1(way.key));
  bar->addWidget(choice_);
  remark_ = new PlainLabel(this);
  remark_->setObjectName(QStringLiteral("otherRemark"));
  remark_->setWordWrap(true);
  bar->addWidget(remark_, 1);
  layout->addLayout(bar);
  values_->setWidths(66, 0);
  layout->addWidget(values_);
  years_->setWidths(64, 0);
  layout->addWidget(years_);
  if (further_ != nullptr) {
    further_->setWidths(64, 0);
    layout->addWidget(further_);
  }
  layout->addStretch();
  connect(choice_, &QComboBox::currentIndexChanged, this, [this] {
    if (bench_.isOpen()) refresh();
  });
}

void OtherWays::show(const QString& key) {
  choice_->setCurrentIndex(std::max(0, choice_->findData(key)));
}

void OtherWays::refresh() {
  const services::Snapshot& s = bench_.now();
  const OtherWay& way = ways_[static_cast<size_t>(choice_->currentIndex())];
  std::vector<LedgerRow> rows = scenarioRows(s, way.values);
  remark_->setText(way.more ? way.more(rows) : QString());
  values_->setVisible(!rows.empty());
  values_->ledger().setCorner(cornerOf(s));
  values_->ledger().fill(scenarioHeaders(s), std::move(rows));
  values_->showAll();
  if (further_ != nullptr) {
    further_->setVisible(way.further && way.further(*further_));
    if (further_->isVisibleTo(this)) further_->showAll();
  }
  years_->setVisible(way.years != nullptr);
  if (way.years == nullptr) return;
  const int filed = s.evaluation->layout().historyYears;
  const int from = std::max(0, filed - 2);  // a few filed years to begin from
  const int to = s.evaluation->layout().columns();
  years_->ledger().setCorner(cornerOf(s));
  years_->ledger().fill(periodHeaders(s, from, to), yearRows(s, way.years, from, to, bench_.scenario()));
  years_->showAll();
}

}  // namespace zl::app
