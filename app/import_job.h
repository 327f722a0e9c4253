#pragma once
// Reads files off the interface thread, tells how far it is, and can be stopped. Stores nothing.

#include <QObject>
#include <QString>
#include <QStringList>
#include <atomic>
#include <memory>
#include <thread>
#include <vector>

#include "services/importer.h"

namespace zl::app {

class ImportJob : public QObject {
  Q_OBJECT

 public:
  explicit ImportJob(QObject* parent = nullptr) : QObject(parent) {}
  ~ImportJob() override;

  /// Reads files and folders; what was being read before is dropped. `resources` outlives the job.
  void start(const QStringList& paths, services::ImportContext context);
  /// Reads text as if it were a file: cells pasted from another program.
  void start(const services::ImportFile& file, services::ImportContext context);
  void stop();
  [[nodiscard]] bool isRunning() const { return stop_ != nullptr; }

 Q_SIGNALS:
  void progressed(int done, int total, const QString& name);
  void failed(const QString& message);
  void finished(std::vector<zl::services::ImportPreview> previews);

 private:
  using Files = std::vector<services::ImportFile>;
  void run(std::function<Result<Files>()> files, services::ImportContext context);

  std::shared_ptr<std::atomic<bool>> stop_;  ///< of the reading that is wanted; older ones drop their result
  std::vector<std::jthread> threads_;
};

}  // namespace zl::app
