#include "app/jobs/jobs.h"

#include <algorithm>
#include <new>

namespace zl::app {

Jobs::~Jobs() {
  for (const auto& job : jobs_) job->stop->store(true);
}

void Jobs::start(const QString& key, const QString& title, Work work) {
  stop(key);
  jobs_.push_back(std::make_unique<Job>());
  Job* job = jobs_.back().get();
  job->shown = {key, title, {}, 0, 0};
  JobContext context;
  context.stopped = exchange::StopCheck([stop = job->stop] { return stop->load(); });
  context.progress = [this, job, stop = job->stop](int done, int total, const QString& what) {
    QMetaObject::invokeMethod(
        this,
        [this, job, stop, done, total, what] {
          if (*stop) return;
          job->shown.done = done;
          job->shown.total = total;
          job->shown.what = what;
          Q_EMIT changed();
        },
        Qt::QueuedConnection);
  };
  job->thread = std::jthread([this, job, work = std::move(work), context = std::move(context)] {
    Then then;
    QString fault;
    try {
      then = work(context);
    } catch (const std::bad_alloc&) {  // nothing may leave a thread but a value
      fault = tr("there is not enough memory for this; nothing was changed");
    } catch (const std::exception& e) {
      fault = tr("a fault in the program: %1; nothing was changed").arg(QString::fromUtf8(e.what()));
    }
    QMetaObject::invokeMethod(
        this, [this, job, then, fault] { finish(job, then, fault); }, Qt::QueuedConnection);
  });
  Q_EMIT changed();
}

void Jobs::finish(const Job* job, const Then& then, const QString& fault) {
  const auto at = std::find_if(jobs_.begin(), jobs_.end(), [&](const auto& j) { return j.get() == job; });
  const std::unique_ptr<Job> ended = std::move(*at);  // joined when it goes: its thread has said its last
  jobs_.erase(at);
  const bool wanted = !*ended->stop;
  Q_EMIT changed();
  if (!wanted) return;
  if (!fault.isEmpty()) {
    Q_EMIT failed(ended->shown.key, fault);
  } else if (then) {
    then();
  }
}

void Jobs::stop(const QString& key) {
  bool any = false;
  for (const auto& job : jobs_) {
    if (job->shown.key != key || *job->stop) continue;
    job->stop->store(true);
    any = true;
  }
  if (any) Q_EMIT changed();
}

bool Jobs::isRunning(const QString& key) const {
  return std::any_of(jobs_.begin(), jobs_.end(), [&](const auto& j) { return j->shown.key == key && !*j->stop; });
}

std::vector<Jobs::Shown> Jobs::running() const {
  std::vector<Shown> list;
  for (const auto& job : jobs_) {
    if (!*job->stop && !job->shown.title.isEmpty()) list.push_back(job->shown);
  }
  return list;
}

}  // namespace zl::app
