#include <unistd.h>

#include <csignal>
#include <cstring>
#include <iostream>

#include "cli/run.h"

namespace {

/// Says why the program ends. Only calls that are safe inside a signal's handler.
void onSignal(int signal) {
  constexpr const char* kMessage =
      "\nzledger: stopped by a signal; what was stored before is stored, the rest is not\n";
  if (write(STDERR_FILENO, kMessage, std::strlen(kMessage)) < 0) _exit(128 + signal);
  std::signal(signal, SIG_DFL);
  std::raise(signal);
}

}  // namespace

int main(int argc, char** argv) {
  // A reader that went away is told of like a full disk, instead of ending the program without a word.
  std::signal(SIGPIPE, SIG_IGN);
  for (const int signal : {SIGINT, SIGTERM, SIGHUP, SIGSEGV, SIGABRT, SIGBUS, SIGFPE}) std::signal(signal, onSignal);
  return zl::cli::run({argv + 1, argv + argc}, std::cout, std::cerr, zl::services::Desk::ofThisMachine());
}
