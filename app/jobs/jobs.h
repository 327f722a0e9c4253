#pragma once
// Work off the window's thread, in one place: each job has a key, a title, progress and a stop. A job of a
// key takes the place of the one before it, whose result is dropped; so is that of one that was stopped.
// In: work that knows nothing of the window and what to do with its result. Out: that, on the window's
// thread, and the list of what runs.

#include <QObject>
#include <QString>
#include <atomic>
#include <functional>
#include <memory>
#include <thread>
#include <vector>

#include "exchange/stop_check.h"

namespace zl::app {

/// What a job is given: whether it is still wanted, and where to tell how far it is. Progress of 0 of 0 says
/// that nobody can tell.
struct JobContext {
  exchange::StopCheck stopped;
  std::function<void(int done, int total, const QString& what)> progress;
};

class Jobs : public QObject {
  Q_OBJECT

 public:
  explicit Jobs(QObject* parent = nullptr) : QObject(parent) {}
  /// Stops everything and waits for it.
  ~Jobs() override;

  using Then = std::function<void()>;
  /// Runs on a thread of its own and gives what is to be done with the result on the window's thread.
  using Work = std::function<Then(const JobContext&)>;

  /// A job without a title is never shown. What is thrown out of the work is said by failed().
  void start(const QString& key, const QString& title, Work work);
  /// Runs work that must be done before anything else is and comes back when it is: opening, storing, stepping. The
  /// window goes on painting and takes no input meanwhile; work that is over at once is never seen. What is thrown out
  /// of the work is thrown here. Such work cannot be stopped half-way.
  void untilDone(const QString& title, const std::function<void()>& work);
  [[nodiscard]] bool isBusy() const { return busy_; }
  /// Nobody wants the job any more; its result is dropped.
  void stop(const QString& key);
  [[nodiscard]] bool isRunning(const QString& key) const;

  struct Shown {
    QString key, title, what;
    int done = 0, total = 0;
    bool stoppable = true;
  };
  /// The jobs with a title that run, the oldest first.
  [[nodiscard]] std::vector<Shown> running() const;

 Q_SIGNALS:
  void changed();
  void failed(const QString& key, const QString& words);

 private:
  struct Job {
    Shown shown;
    std::shared_ptr<std::atomic<bool>> stop = std::make_shared<std::atomic<bool>>(false);
    std::jthread thread;
  };
  void finish(const Job* job, const Then& then, const QString& fault);

  bool busy_ = false;                       ///< with work that is waited for
  std::vector<std::unique_ptr<Job>> jobs_;  ///< those that nobody wants any more among them, until they end
};

}  // namespace zl::app
