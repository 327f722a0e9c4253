#include <gmock/gmock.h>

#include <QSettings>
#include <QStandardPaths>

#include "app/frame/application.h"
#include "app/look/theme.h"
#include "tests/support/demo_book.h"

int main(int argc, char** argv) {
  // No screen and none of the user's own settings.
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QStandardPaths::setTestModeEnabled(true);
  const zl::test::TemporaryFolder settings;
  QSettings::setDefaultFormat(QSettings::IniFormat);
  QSettings::setPath(QSettings::IniFormat, QSettings::UserScope, QString::fromStdString(settings.file("settings")));
  zl::app::Application application(argc, argv);
  QApplication::setOrganizationName(QStringLiteral("zealous-ledger-test"));
  QApplication::setApplicationName(QStringLiteral("zealous-ledger-test"));
  zl::app::applyTheme(application, zl::app::ThemeChoice::Light);
  testing::InitGoogleMock(&argc, argv);
  return RUN_ALL_TESTS();
}
