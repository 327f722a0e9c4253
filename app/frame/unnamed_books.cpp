#include "app/frame/unnamed_books.h"

#include <QDir>
#include <QFileInfo>
#include <QStandardPaths>

namespace zl::app {
namespace {

QString folder() {
  return QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + QStringLiteral("/unnamed");
}

}  // namespace

QString newUnnamedBook(const QString& companyId) {
  QDir().mkpath(folder());
  QString path = folder() + QLatin1Char('/') + companyId + QStringLiteral(".zledger");
  for (int n = 2; QFileInfo::exists(path); ++n)
    path = folder() + QStringLiteral("/%1 %2.zledger").arg(companyId).arg(n);
  return path;
}

bool isUnnamed(const QString& path) {
  return QFileInfo(path).absolutePath() == QFileInfo(folder()).absoluteFilePath();
}

}  // namespace zl::app
