#include "app/jobs/jobs.h"

#include <QCoreApplication>
#include <QEvent>
#include <QEventLoop>
#include <algorithm>
#include <chrono>
#include <exception>
#include <new>
#include <semaphore>

namespace zl::app {

namespace {

constexpr std::chrono::milliseconds kAtOnce(30);  ///< work that is over by then needs no loop of events

/// Keeps keys and clicks from the window while something is waited for; what was typed blind would act on what is
/// no more.
class InputGate : public QObject {
 public:
  InputGate() { QCoreApplication::instance()->installEventFilter(this); }

 protected:
  bool eventFilter(QObject*, QEvent* event) override {
    switch (event->type()) {
      case QEvent::KeyPress:
      case QEvent::KeyRelease:
      case QEvent::Shortcut:
      case QEvent::ShortcutOverride:
      case QEvent::MouseButtonPress:
      case QEvent::MouseButtonRelease:
      case QEvent::MouseButtonDblClick:
      case QEvent::Wheel:
      case QEvent::ContextMenu:
      case QEvent::DragEnter:
      case QEvent::Drop:
      case QEvent::TouchBegin:
        return true;
      case QEvent::Close:
        event->ignore();
        return true;
      default:
        return false;
    }
  }
};

}  // namespace

void Jobs::untilDone(const QString& title, const std::function<void()>& work) {
  if (busy_) return work();  // a part of what is waited for already
  busy_ = true;
  std::exception_ptr fault;
  std::binary_semaphore over(0);
  QEventLoop loop;
  auto made = std::make_unique<Job>();
  Job* job = made.get();
  job->shown.title = title;
  job->shown.stoppable = false;
  job->thread = std::jthread([&] {
    try {
      work();
    } catch (...) {  // nothing may leave a thread but a value: it is thrown again where it was asked for
      fault = std::current_exception();
    }
    over.release();
    QMetaObject::invokeMethod(&loop, &QEventLoop::quit, Qt::QueuedConnection);
  });
  if (!over.try_acquire_for(kAtOnce)) {
    jobs_.push_back(std::move(made));
    Q_EMIT changed();
    const InputGate gate;
    loop.exec();
    const auto at = std::find_if(jobs_.begin(), jobs_.end(), [&](const auto& j) { return j.get() == job; });
    made = std::move(*at);
    jobs_.erase(at);
  }
  made->thread.join();
  busy_ = false;
  Q_EMIT changed();
  if (fault) std::rethrow_exception(fault);
}

Jobs::~Jobs() {
  for (const auto& job : jobs_) job->stop->store(true);
}

void Jobs::start(const QString& key, const QString& title, Work work) {
  stop(key);
  jobs_.push_back(std::make_unique<Job>());
  Job* job = jobs_.back().get();
  job->shown = {key, title, {}, 0, 0, true};
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
