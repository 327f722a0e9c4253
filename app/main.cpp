#include <QComboBox>
#include <QCommandLineParser>
#include <QTextStream>
#include <QTimer>
#include <algorithm>
#include <cstdio>
#include <exception>
#include <optional>

#include "app/frame/application.h"
#include "app/frame/main_window.h"
#include "app/frame/preferences.h"
#include "app/pages/sub_views.h"

namespace {

void declare(QCommandLineParser& parser) {
  parser.setApplicationDescription(QStringLiteral("Forecasts and valuation of companies from filed statements"));
  parser.addHelpOption();
  parser.addVersionOption();
  const QCommandLineOption demo(QStringLiteral("demo"), QStringLiteral("Open the demo book."));
  const QCommandLineOption page(QStringLiteral("page"), QStringLiteral("Open at a page (1 to 9)."),
                                QStringLiteral("number"));
  const QCommandLineOption picture(QStringLiteral("picture"), QStringLiteral("Write a picture of the window and quit."),
                                   QStringLiteral("file"));
  const QCommandLineOption size(QStringLiteral("size"), QStringLiteral("Window size, 1280x800."),
                                QStringLiteral("size"));
  const QCommandLineOption view(QStringLiteral("view"), QStringLiteral("Open the page in its n-th view."),
                                QStringLiteral("number"));
  const QCommandLineOption paper(QStringLiteral("paper"), QStringLiteral("light or dark."), QStringLiteral("paper"));
  parser.addOptions({demo, page, picture, size, paper, view});
  parser.addPositionalArgument(QStringLiteral("book"), QStringLiteral("The book to open."));
  parser.addPositionalArgument(QStringLiteral("files"), QStringLiteral("Files to look at for import."),
                               QStringLiteral("[files...]"));
}

/// What needs no display is answered without one; a window without one is refused in a line.
std::optional<int> answeredWithoutDisplay(int argc, char** argv) {
  const QCoreApplication plain(argc, argv);
  QCommandLineParser parser;
  declare(parser);
  parser.process(plain);  // --help and --version end here
  const bool display = qEnvironmentVariableIsSet("DISPLAY") || qEnvironmentVariableIsSet("WAYLAND_DISPLAY") ||
                       qEnvironmentVariableIsSet("QT_QPA_PLATFORM") ||
                       plain.arguments().contains(QStringLiteral("-platform"));
  if (display) return std::nullopt;
  std::fprintf(stderr,
               "zealous-ledger: there is no display for a window; './run --headless' or 'zledger value BOOK' print "
               "values without one\n");
  return 1;
}

int run(zl::app::Application& application) {
  QCommandLineParser parser;
  declare(parser);
  parser.process(application);
  const auto value = [&](const char* option) { return parser.value(QString::fromLatin1(option)); };
  const auto isSet = [&](const char* option) { return parser.isSet(QString::fromLatin1(option)); };

  const zl::app::Preferences preferred = zl::app::Preferences::kept();
  // Before there is a widget: each would be polished anew. The option is for this run, whatever is preferred.
  zl::app::ThemeChoice paper = preferred.paper;
  if (value("paper") == QLatin1String("dark")) paper = zl::app::ThemeChoice::Dark;
  if (value("paper") == QLatin1String("light")) paper = zl::app::ThemeChoice::Light;
  zl::app::applyTheme(application, paper, preferred.textPercent);
  const auto resources = zl::services::Resources::load();
  if (!resources) {
    QTextStream(stderr) << zl::app::text(resources.error().text()) << Qt::endl;
    return 1;
  }
  zl::app::MainWindow window(*resources, zl::services::Desk::ofThisMachine(), zl::app::Dialogs::native());
  if (!value("size").isEmpty()) {
    const QStringList parts = value("size").split(QLatin1Char('x'));
    if (parts.size() == 2) window.resize(parts[0].toInt(), parts[1].toInt());
  }
  application.setFaultHandler([&window](const QString& fault) {
    window.bench().flushDrafts();
    window.bench().say(fault, true);
  });
  window.show();
  if (isSet("demo")) {
    window.openDemo();
  } else if (!parser.positionalArguments().isEmpty()) {
    window.openBook(parser.positionalArguments().first());
  }
  for (const zl::Error& fault : (*resources)->resting)
    window.bench().say(QObject::tr("A model is not in use: %1").arg(zl::app::text(fault.text())), true);
  if (parser.positionalArguments().size() > 1 && window.bench().isOpen()) {
    window.offer(parser.positionalArguments().mid(1));
  }
  if (isSet("page") && window.bench().isOpen()) {
    window.go(static_cast<zl::Stop>(value("page").toInt() - 1));
  }
  if (isSet("view")) {
    for (auto* views : window.findChildren<zl::app::SubViews*>()) {
      if (views->isVisible()) views->showAt(value("view").toInt() - 1);
    }
    for (const char* box : {"historyShow", "filingsShow", "statementBox"}) {
      auto* views = window.findChild<QComboBox*>(QString::fromLatin1(box));
      if (views != nullptr && views->isVisible())
        views->setCurrentIndex(std::clamp(value("view").toInt() - 1, 0, views->count() - 1));
    }
  }
  if (isSet("picture")) {
    // Two turns of the loop: layouts settle on the first.
    QTimer::singleShot(400, &window, [&] {
      const bool saved = window.grab().save(value("picture"));
      QApplication::exit(saved ? 0 : 1);
    });
  }
  const int status = QApplication::exec();
  application.setFaultHandler({});
  return status;
}

}  // namespace

int main(int argc, char** argv) {
  QCoreApplication::setOrganizationName(QStringLiteral("zealous-ledger"));
  QCoreApplication::setApplicationName(QStringLiteral("zealous-ledger"));
  QCoreApplication::setApplicationVersion(QStringLiteral(ZEALOUS_LEDGER_VERSION));
  try {
    if (const std::optional<int> status = answeredWithoutDisplay(argc, argv)) return *status;
    zl::app::Application application(argc, argv);
    QApplication::setDesktopFileName(QStringLiteral("zealous-ledger"));
    application.watchSignals();
    return run(application);
  } catch (const std::exception& e) {
    std::fprintf(stderr, "zealous-ledger: a fault in the program ends it (%s); what was shown as done is stored\n",
                 e.what());
    return 1;
  }
}
