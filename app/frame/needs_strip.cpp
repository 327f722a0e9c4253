#include "app/frame/needs_strip.h"

#include <QHBoxLayout>

#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"

namespace zl::app {

using services::Need;

NeedsStrip::NeedsStrip(Workbench& bench, QWidget* parent) : QWidget(parent), bench_(bench) {
  setObjectName(QStringLiteral("needsStrip"));
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(12, 4, 12, 4);
  words_ = new PlainLabel(this);
  words_->setObjectName(QStringLiteral("needWords"));
  layout->addWidget(words_);
  field_ = new QLineEdit(this);
  field_->setObjectName(QStringLiteral("needField"));
  field_->setMaximumWidth(160);
  layout->addWidget(field_);
  go_ = new QPushButton(this);
  go_->setObjectName(QStringLiteral("needGo"));
  layout->addWidget(go_);
  rest_ = new PlainLabel(this);
  rest_->setObjectName(QStringLiteral("needRest"));
  rest_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  layout->addWidget(rest_, 1);
  connect(field_, &QLineEdit::returnPressed, this, &NeedsStrip::take);
  connect(go_, &QPushButton::clicked, this, &NeedsStrip::goThere);
  connect(&bench_, &Workbench::changed, this, &NeedsStrip::refresh);
  connect(&bench_, &Workbench::shown, this, &NeedsStrip::refresh);
  hide();
}

void NeedsStrip::refresh() {
  if (bench_.isPreviewing()) return;
  needs_ = bench_.isOpen() ? services::stillNeeded(bench_.settled()) : std::vector<Need>{};
  setVisible(!needs_.empty());
  if (needs_.empty()) return;
  const Need& first = needs_.front();
  const bool value =
      bench_.settled()
          .evaluation->constant(model::Role::ValuePerShare, std::max(0, bench_.settled().caseOf().indexOf(kBase)))
          .hasValue();
  words_->setText((value ? tr("To hold the value against: %1") : tr("For a first value: %1")).arg(text(first.words)));
  words_->setToolTip(tipText(text(first.reason)));
  field_->setVisible(first.isTyped() && bench_.readOnly().isEmpty());
  field_->setAccessibleName(text(first.words));
  field_->setPlaceholderText(first.what == Need::What::Shares ? tr("such as 120m") : tr("type it, Enter"));
  go_->setVisible(!first.isTyped());
  go_->setText(first.what == Need::What::Line   ? tr("Choose its &row")
               : first.what == Need::What::Date ? tr("&Set it")
                                                : tr("&Look at it"));
  QStringList more;
  for (size_t i = 1; i < needs_.size(); ++i) more << text(needs_[i].words);
  rest_->setText(more.isEmpty() ? QString() : tr("then %1").arg(more.join(QStringLiteral(", "))));
  rest_->setToolTip(tipText(rest_->text()));
}

void NeedsStrip::take() {
  if (needs_.empty()) return;
  const Need need = needs_.front();
  const QString typed = field_->text().trimmed();
  bool done = false;
  if (need.what == Need::What::Shares) {
    done = bench_.changeRecord(
        services::setField(bench_.settled().company(), "shares", typed.toStdString(), bench_.notedNow({})));
  } else {
    const std::optional<double> figure = typedNumber(typed.toStdString());
    if (!figure) {
      bench_.say(tr("'%1' is no number for %2; write 742.5").arg(typed.left(40), text(need.words)), true);
      return;
    }
    done = bench_.typeFigure(text(need.series), *figure, {});
  }
  if (done) field_->clear();
}

void NeedsStrip::goThere() {
  if (needs_.empty()) return;
  const Need need = needs_.front();
  bench_.goTo(need.stop);
  if (need.cell.row.known()) bench_.focus(need.cell, std::max(0, bench_.settled().caseOf().indexOf(kBase)));
}

}  // namespace zl::app
