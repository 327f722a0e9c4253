#include "app/jobs/job_strip.h"

#include <QHBoxLayout>

#include "app/look/plain_text.h"

namespace zl::app {
namespace {

constexpr int kShownAfter = 300;  // milliseconds
constexpr int kBarWidth = 120;

}  // namespace

JobStrip::JobStrip(Jobs& jobs, QWidget* parent) : QWidget(parent), jobs_(jobs) {
  setObjectName(QStringLiteral("jobStrip"));
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 8, 0);
  layout->setSpacing(6);
  words_ = new PlainLabel(this);
  words_->setObjectName(QStringLiteral("jobWords"));
  layout->addWidget(words_);
  bar_ = new QProgressBar(this);
  bar_->setTextVisible(false);
  bar_->setFixedSize(kBarWidth, 6);
  layout->addWidget(bar_);
  stop_ = new QPushButton(tr("Stop"), this);
  stop_->setObjectName(QStringLiteral("stopJob"));
  stop_->setFlat(true);
  layout->addWidget(stop_);
  connect(stop_, &QPushButton::clicked, this, [this] { jobs_.stop(key_); });
  after_.setSingleShot(true);
  after_.setInterval(kShownAfter);
  connect(&after_, &QTimer::timeout, this, &JobStrip::fill);
  connect(&jobs_, &Jobs::changed, this, &JobStrip::refresh);
  hide();
}

void JobStrip::refresh() {
  if (isVisible() || jobs_.running().empty()) return fill();
  if (!after_.isActive()) after_.start();
}

void JobStrip::fill() {
  const std::vector<Jobs::Shown> list = jobs_.running();
  setVisible(!list.empty());
  if (list.empty()) return after_.stop();
  const Jobs::Shown& job = list.front();
  key_ = job.key;
  QString words = job.what.isEmpty() ? job.title : tr("%1: %2").arg(job.title, job.what);
  if (list.size() > 1) words += tr(" (and %1 more)").arg(list.size() - 1);
  words_->setText(words_->fontMetrics().elidedText(words, Qt::ElideMiddle, 420));
  words_->setToolTip(tipText(words));
  bar_->setRange(0, job.total);
  bar_->setValue(job.done);
  stop_->setVisible(job.stoppable);
  stop_->setAccessibleName(tr("Stop: %1").arg(job.title));
}

}  // namespace zl::app
