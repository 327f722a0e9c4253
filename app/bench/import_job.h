#pragma once
// Reads files off the interface thread, tells how far it is, and can be stopped. Stores nothing.

#include <QObject>
#include <QString>
#include <QStringList>
#include <functional>
#include <vector>

#include "app/jobs/jobs.h"
#include "services/intake/importer.h"

namespace zl::app {

class ImportJob : public QObject {
  Q_OBJECT

 public:
  explicit ImportJob(QObject* parent = nullptr);

  /// Reads files and folders; what was being read before is dropped. `resources` outlives the job.
  void start(const QStringList& paths, services::ImportContext context);
  /// Reads text as if it were a file: cells pasted from another program.
  void start(const services::ImportFile& file, services::ImportContext context);
  void stop();
  [[nodiscard]] bool isRunning() const;

 Q_SIGNALS:
  void progressed(int done, int total, const QString& name);
  void failed(const QString& message);
  void finished(std::vector<zl::services::ImportPreview> previews);

 private:
  using Files = std::vector<services::ImportFile>;
  void run(std::function<Result<Files>()> files, services::ImportContext context);

  Jobs jobs_;
};

}  // namespace zl::app
