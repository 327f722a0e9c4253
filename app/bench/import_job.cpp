#include "app/bench/import_job.h"

#include <memory>
#include <new>

#include "app/look/theme.h"

namespace zl::app {

using services::ImportFile;
using services::ImportPreview;

namespace {

/// The key of the job: one reading at a time.
QString reading() {
  return QStringLiteral("reading");
}

}  // namespace

ImportJob::ImportJob(QObject* parent) : QObject(parent) {
  connect(&jobs_, &Jobs::failed, this, [this](const QString&, const QString& words) { Q_EMIT failed(words); });
}

void ImportJob::start(const QStringList& paths, services::ImportContext context) {
  std::vector<std::string> given;
  for (const QString& path : paths) given.push_back(path.toStdString());
  run([given]() -> Result<Files> { return services::readFiles(given); }, std::move(context));
}

void ImportJob::start(const ImportFile& file, services::ImportContext context) {
  run([file]() -> Result<Files> { return Files{file}; }, std::move(context));
}

void ImportJob::stop() {
  jobs_.stop(reading());
}

bool ImportJob::isRunning() const {
  return jobs_.isRunning(reading());
}

void ImportJob::run(std::function<Result<Files>()> files, services::ImportContext context) {
  // Without a title: the panel that asked shows how far it is.
  jobs_.start(reading(), {}, [this, files = std::move(files), context = std::move(context)](const JobContext& job) {
    services::ImportContext watched = context;
    watched.stopped = job.stopped;
    watched.progress = [this, stopped = job.stopped](size_t done, size_t total, const std::string& name) {
      QMetaObject::invokeMethod(
          this,
          [this, stopped, done, total, name] {
            if (!stopped()) Q_EMIT progressed(static_cast<int>(done), static_cast<int>(total), text(name));
          },
          Qt::QueuedConnection);
    };
    const auto readAll = [&]() -> Result<std::vector<ImportPreview>> {
      try {
        const Result<Files> read = files();
        if (!read) return tl::unexpected(read.error());
        return services::preview(*read, watched);
      } catch (const std::bad_alloc&) {
        return fail(ErrorKind::TooLarge, "there is not enough memory to read this; nothing is stored", {},
                    "Import fewer files at once");
      }
    };
    auto result = std::make_shared<Result<std::vector<ImportPreview>>>(readAll());
    return Jobs::Then([this, result] {
      if (*result) {
        Q_EMIT finished(std::move(**result));
      } else {
        Q_EMIT failed(text(result->error().text()));
      }
    });
  });
}

}  // namespace zl::app
