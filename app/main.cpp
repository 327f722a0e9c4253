#include <QComboBox>
#include <QCommandLineParser>
#include <QSettings>
#include <QTextStream>
#include <QTimer>
#include <algorithm>
#include <cstdio>
#include <exception>

#include "app/frame/application.h"
#include "app/frame/main_window.h"

namespace {

int run(zl::app::Application& application) {
  QCommandLineParser parser;
  parser.setApplicationDescription(QStringLiteral("Forecasts and valuation of companies from filed statements"));
  parser.addHelpOption();
  const QCommandLineOption demo(QStringLiteral("demo"), QStringLiteral("Open the demo book."));
  const QCommandLineOption page(QStringLiteral("page"), QStringLiteral("Open at a page (1 to 9)."),
                                QStringLiteral("number"));
  const QCommandLineOption picture(QStringLiteral("picture"), QStringLiteral("Write a picture of the window and quit."),
                                   QStringLiteral("file"));
  const QCommandLineOption size(QStringLiteral("size"), QStringLiteral("Window size, 1280x800."),
                                QStringLiteral("size"));
  const QCommandLineOption view(QStringLiteral("view"),
                                QStringLiteral("Open Filings, History, Outlook or Verdict in its n-th view."),
                                QStringLiteral("number"));
  const QCommandLineOption paper(QStringLiteral("paper"), QStringLiteral("light or dark."), QStringLiteral("paper"));
  parser.addOptions({demo, page, picture, size, paper, view});
  parser.addPositionalArgument(QStringLiteral("book"), QStringLiteral("The book to open."));
  parser.addPositionalArgument(QStringLiteral("files"), QStringLiteral("Files to look at for import."),
                               QStringLiteral("[files...]"));
  parser.process(application);

  auto choice = static_cast<zl::app::ThemeChoice>(QSettings().value(QStringLiteral("theme"), 0).toInt());
  if (parser.value(paper) == QLatin1String("dark")) choice = zl::app::ThemeChoice::Dark;
  if (parser.value(paper) == QLatin1String("light")) choice = zl::app::ThemeChoice::Light;
  zl::app::applyTheme(application, choice);
  const auto resources = zl::services::Resources::load();
  if (!resources) {
    QTextStream(stderr) << zl::app::text(resources.error().text()) << Qt::endl;
    return 1;
  }
  zl::app::MainWindow window(*resources, zl::services::Desk::ofThisMachine(), zl::app::Dialogs::native());
  if (!parser.value(size).isEmpty()) {
    const QStringList parts = parser.value(size).split(QLatin1Char('x'));
    if (parts.size() == 2) window.resize(parts[0].toInt(), parts[1].toInt());
  }
  application.setFaultHandler([&window](const QString& fault) {
    window.bench().flushDrafts();
    window.bench().say(fault, true);
  });
  window.show();
  if (parser.isSet(demo)) {
    window.openDemo();
  } else if (!parser.positionalArguments().isEmpty()) {
    window.openBook(parser.positionalArguments().first());
  }
  for (const zl::Error& fault : (*resources)->resting)
    window.bench().say(QObject::tr("A model is not in use: %1").arg(zl::app::text(fault.text())), true);
  if (parser.positionalArguments().size() > 1 && window.bench().isOpen()) {
    window.offer(parser.positionalArguments().mid(1));
  }
  if (parser.isSet(page) && window.bench().isOpen()) {
    window.go(static_cast<zl::Stop>(parser.value(page).toInt() - 1));
  }
  if (parser.isSet(view)) {
    for (const char* box : {"historyShow", "filingsShow", "verdictView", "statementBox"}) {
      auto* views = window.findChild<QComboBox*>(QString::fromLatin1(box));
      if (views->isVisible()) views->setCurrentIndex(std::clamp(parser.value(view).toInt() - 1, 0, views->count() - 1));
    }
  }
  if (parser.isSet(picture)) {
    // Two turns of the loop: layouts settle on the first.
    QTimer::singleShot(400, &window, [&] {
      const bool saved = window.grab().save(parser.value(picture));
      QApplication::exit(saved ? 0 : 1);
    });
  }
  const int status = QApplication::exec();
  application.setFaultHandler({});
  return status;
}

}  // namespace

int main(int argc, char** argv) {
  try {
    zl::app::Application application(argc, argv);
    QApplication::setOrganizationName(QStringLiteral("zealous-ledger"));
    QApplication::setApplicationName(QStringLiteral("zealous-ledger"));
    QApplication::setDesktopFileName(QStringLiteral("zealous-ledger"));
    application.watchSignals();
    return run(application);
  } catch (const std::exception& e) {
    std::fprintf(stderr, "zealous-ledger: a fault in the program ends it (%s); what was shown as done is stored\n",
                 e.what());
    return 1;
  }
}
