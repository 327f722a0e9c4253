#include "app/frame/application.h"

#include <fcntl.h>
#include <unistd.h>

#include <QSocketNotifier>
#include <csignal>
#include <cstdio>
#include <cstring>
#include <exception>
#include <new>

#include "app/look/theme.h"

namespace zl::app {
namespace {

int signalPipe[2] = {-1, -1};

void toPipe(int signal) {
  const auto byte = static_cast<char>(signal);
  if (write(signalPipe[1], &byte, 1) < 0) _exit(128 + signal);
}

/// Only calls that are safe inside a signal's handler.
void onCrash(int signal) {
  constexpr const char* kMessage =
      "\nzealous-ledger: a fault in the program ends it; what was shown as done is stored in the book. Please report "
      "it\n";
  if (write(STDERR_FILENO, kMessage, std::strlen(kMessage)) < 0) _exit(128 + signal);
  std::signal(signal, SIG_DFL);
  std::raise(signal);
}

}  // namespace

Application::Application(int& argc, char** argv) : QApplication(argc, argv) {}

bool Application::notify(QObject* receiver, QEvent* event) {
  try {
    return QApplication::notify(receiver, event);
  } catch (const std::bad_alloc&) {
    tell(tr(
        "There is not enough memory for this. What was shown as done is stored; close other programs and try again."));
  } catch (const std::exception& e) {
    tell(tr("A fault in the program: %1. What was shown as done is stored; please report it.")
             .arg(text(std::string(e.what()).substr(0, 300))));
  } catch (...) {
    tell(tr("A fault in the program. What was shown as done is stored; please report it."));
  }
  return false;
}

void Application::tell(const QString& fault) {
  std::fprintf(stderr, "zealous-ledger: %s\n", fault.toUtf8().constData());
  if (!tell_) return;
  try {
    tell_(fault);
  } catch (const std::exception& e) {  // telling needs memory too
    std::fprintf(stderr, "zealous-ledger: %s\n", e.what());
  }
}

void Application::watchSignals() {
  std::signal(SIGPIPE, SIG_IGN);
  for (const int signal : {SIGSEGV, SIGABRT, SIGBUS, SIGFPE, SIGILL}) std::signal(signal, onCrash);
  if (pipe2(signalPipe, O_CLOEXEC | O_NONBLOCK) != 0) return;
  signals_ = new QSocketNotifier(signalPipe[0], QSocketNotifier::Read, this);
  connect(signals_, &QSocketNotifier::activated, this, [] {
    char byte = 0;
    if (read(signalPipe[0], &byte, 1) != 1) return;
    std::fprintf(stderr, "zealous-ledger: asked to end by signal %d; what was shown as done is stored\n", byte);
    closeAllWindows();
    quit();
  });
  for (const int signal : {SIGINT, SIGTERM, SIGHUP}) std::signal(signal, toPipe);
}

}  // namespace zl::app
