#include "app/import_job.h"

#include <new>

#include "app/look/theme.h"

namespace zl::app {

using services::ImportFile;
using services::ImportPreview;

ImportJob::~ImportJob() {
  stop();  // the threads are joined by their own ends
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
  if (stop_) stop_->store(true);
  stop_.reset();
}

void ImportJob::run(std::function<Result<Files>()> files, services::ImportContext context) {
  stop();
  stop_ = std::make_shared<std::atomic<bool>>(false);
  const std::shared_ptr<std::atomic<bool>> stopped = stop_;
  context.stopped = exchange::StopCheck([stopped] { return stopped->load(); });
  context.progress = [this, stopped](size_t done, size_t total, const std::string& name) {
    QMetaObject::invokeMethod(
        this,
        [this, stopped, done, total, name] {
          if (!*stopped) Q_EMIT progressed(static_cast<int>(done), static_cast<int>(total), text(name));
        },
        Qt::QueuedConnection);
  };
  threads_.emplace_back([this, stopped, files = std::move(files), context = std::move(context)] {
    // Nothing may leave a thread but a value.
    const auto readAll = [&]() -> Result<std::vector<ImportPreview>> {
      try {
        const Result<Files> read = files();
        if (!read) return tl::unexpected(read.error());
        return services::preview(*read, context);
      } catch (const std::bad_alloc&) {
        return fail(ErrorKind::TooLarge, "there is not enough memory to read this; nothing is stored", {},
                    "Import fewer files at once");
      } catch (const std::exception& e) {
        return fail(ErrorKind::Internal, "a fault in the program: " + std::string(e.what()) + "; nothing is stored", {},
                    "Please report it");
      }
    };
    auto result = std::make_shared<Result<std::vector<ImportPreview>>>(readAll());
    QMetaObject::invokeMethod(
        this,
        [this, stopped, result] {
          if (*stopped) return;  // nobody wants it any more
          stop_.reset();
          threads_.clear();
          if (*result) {
            Q_EMIT finished(std::move(**result));
          } else {
            Q_EMIT failed(text(result->error().text()));
          }
        },
        Qt::QueuedConnection);
  });
}

}  // namespace zl::app
