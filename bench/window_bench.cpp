// The window on a company of forty filed years and fifteen projected ones: a drag to its painted frame, the pass that
// measures and lays out what is shown; and the time and memory from a start to the first useful picture of the demo.

#include <benchmark/benchmark.h>
#include <sys/wait.h>
#include <unistd.h>

#include <QCoreApplication>
#include <cstdio>
#include <cstdlib>

#include "app/frame/main_window.h"
#include "bench/drag.h"
#include "bench/first_paint.h"
#include "services/sessions/demo.h"
#include "services/sessions/session.h"
#include "tests/support/temporary_folder.h"

namespace zl::bench {
namespace {

const test::TemporaryFolder& folder() {
  static const test::TemporaryFolder kept;
  return kept;
}

/// A firm that grows by three in a hundred a year; amounts in millions.
std::string fortyYears() {
  const std::pair<const char*, double> kRows[] = {{"Revenue", 2100},
                                                  {"Cost of sales", -1200},
                                                  {"Operating expenses", -610},
                                                  {"Operating income", 290},
                                                  {"Interest expense", -20},
                                                  {"Income before income taxes", 270},
                                                  {"Income tax expense", -70},
                                                  {"Net income", 200},
                                                  {"Cash and cash equivalents", 400},
                                                  {"Accounts receivable", 190},
                                                  {"Property and equipment, net", 960},
                                                  {"Total assets", 1550},
                                                  {"Accounts payable", 120},
                                                  {"Long-term debt", 380},
                                                  {"Total liabilities", 500},
                                                  {"Total equity", 1050},
                                                  {"Net cash from operating activities", 290},
                                                  {"Purchases of property and equipment", -150}};
  std::string text = "USD million";
  for (int year = 2025; year > 1985; --year) text += ";" + std::to_string(year);
  text += "\n";
  for (const auto& [label, figure] : kRows) {
    text += label;
    double x = figure;
    for (int year = 2025; year > 1985; --year, x /= 1.03)
      text += ";" + std::to_string(static_cast<long>(x * 100) / 100.0);
    text += "\n";
  }
  return text + "Shares outstanding" + [] {
    std::string counts;
    for (int year = 2025; year > 1985; --year) counts += ";100";
    return counts;
  }() + "\n";
}

std::unique_ptr<app::MainWindow> largeWindow() {
  const std::string path = folder().file("large.zledger");
  const auto resources = services::Resources::load();
  const auto desk = services::Desk::ofThisMachine();
  if (!std::filesystem::exists(path)) {
    if (!services::Session::import(path, "co", {{"large.csv", fortyYears()}}, *resources, desk)) std::abort();
    auto session = services::Session::open(path, "", *resources, desk);
    if (!session || (*session)->now()->years().size() < 40) std::abort();
    if (!(*session)->apply(services::setHorizon((*session)->now()->caseOf(), 15))) std::abort();
  }
  auto window = std::make_unique<app::MainWindow>(*resources, desk, app::Dialogs{});
  window->resize(1280, 800);
  window->show();
  if (!window->openBook(QString::fromStdString(path))) std::abort();
  waitForPages(*window);
  window->bench().goTo(Stop::Outlook);
  QCoreApplication::processEvents();
  return window;
}

void dragLarge(benchmark::State& state) {
  const std::unique_ptr<app::MainWindow> window = largeWindow();
  drag(state, *window);
}
BENCHMARK(dragLarge)->Name("drag, 40 filed and 15 projected years")->Unit(benchmark::kMillisecond)->UseRealTime();

/// Every grid shown measures its columns anew and its layout settles; nothing is painted.
void layoutPass(benchmark::State& state) {
  const std::unique_ptr<app::MainWindow> window = largeWindow();
  window->setUpdatesEnabled(false);
  int width = 1280;
  for (auto _ : state) {
    width = width == 1280 ? 1290 : 1280;
    window->resize(width, 800);
    QCoreApplication::processEvents();
  }
}
BENCHMARK(layoutPass)->Name("layout of the window")->Unit(benchmark::kMillisecond)->UseRealTime();

/// A peer's multiple taken in or out by its key, stored, and the page painted.
void inOrOut(benchmark::State& state) {
  const std::string path = folder().file("peers.zledger");
  const auto resources = services::Resources::load();
  const auto desk = services::Desk::ofThisMachine();
  if (!std::filesystem::exists(path) && !services::makeDemoBook(path, *resources, desk)) std::abort();
  app::MainWindow window(*resources, desk, app::Dialogs{});
  window.resize(1280, 800);
  window.show();
  if (!window.openBook(QString::fromStdString(path))) std::abort();
  waitForPages(window);
  window.bench().goTo(Stop::Peers);
  QCoreApplication::processEvents();
  auto* peers = window.findChild<app::LedgerView*>(QStringLiteral("peers"));
  peers->setFocus();
  peers->setCurrentIndex(peers->ledger().index(0, peers->ledger().firstColumn() + 2));
  for (auto _ : state) {
    for (const QEvent::Type type : {QEvent::KeyPress, QEvent::KeyRelease}) {
      QKeyEvent key(type, Qt::Key_Space, Qt::NoModifier, QStringLiteral(" "));
      QCoreApplication::sendEvent(peers, &key);
    }
    QCoreApplication::processEvents();
  }
  if (window.bench().now().caseOf().peers.empty()) std::abort();
}
BENCHMARK(inOrOut)->Name("a peer in or out, to the painted frame")->Unit(benchmark::kMillisecond)->UseRealTime();

/// A program of its own that opens the demo's book and paints it once.
void firstPaint(benchmark::State& state) {
  const std::string path = folder().file("first.zledger");
  if (!std::filesystem::exists(path) &&
      !services::makeDemoBook(path, *services::Resources::load(), services::Desk::ofThisMachine()))
    std::abort();
  double megabytes = 0;
  for (auto _ : state) {
    int ends[2];
    if (pipe(ends) != 0) std::abort();
    const pid_t child = fork();
    if (child == 0) {
      dup2(ends[1], STDOUT_FILENO);
      execl("/proc/self/exe", "bench", kFirstPaint, path.c_str(), nullptr);
      _exit(127);
    }
    close(ends[1]);
    int status = 0;
    char told[64] = {};
    if (read(ends[0], told, sizeof told - 1) <= 0) std::abort();
    if (waitpid(child, &status, 0) != child || status != 0) std::abort();
    close(ends[0]);
    megabytes = std::strtod(told, nullptr);
  }
  state.counters["MB"] = megabytes;
}
BENCHMARK(firstPaint)->Name("start to the first picture")->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(5);

}  // namespace

int paintOnce(const std::string& path) {
  app::MainWindow window(*services::Resources::load(), services::Desk::ofThisMachine(), app::Dialogs{});
  window.resize(1280, 800);
  window.show();
  if (!window.openBook(QString::fromStdString(path))) return 1;
  QCoreApplication::processEvents();
  window.grab();
  std::FILE* status = std::fopen("/proc/self/status", "r");
  char line[256];
  long kib = 0;
  while (status != nullptr && std::fgets(line, sizeof line, status) != nullptr) std::sscanf(line, "VmHWM: %ld", &kib);
  if (status != nullptr) std::fclose(status);
  std::printf("%.1f\n", static_cast<double>(kib) / 1024);
  std::fflush(stdout);
  return 0;
}

}  // namespace zl::bench
