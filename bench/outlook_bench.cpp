// The outlook while it is worked on: a drag from the hand's move to the painted frame, a value walk
// over twelve parts, and undo in a book with ten thousand entries behind it.

#include <benchmark/benchmark.h>

#include <QApplication>
#include <cstdlib>
#include <string>

#include "app/frame/main_window.h"
#include "bench/drag.h"
#include "services/sessions/demo.h"
#include "services/views/compare.h"
#include "tests/support/temporary_folder.h"

namespace zl::bench {
namespace {

using services::Session;

constexpr int kEntries = 10000;

/// A fresh demo book that goes away with the program.
std::string demoBook(const std::string& name) {
  static const test::TemporaryFolder folder;
  const std::string path = folder.file(name);
  const auto resources = services::Resources::load();
  if (!resources || !services::makeDemoBook(path, *resources, services::Desk::ofThisMachine())) std::abort();
  return path;
}

std::unique_ptr<Session> open(const std::string& path) {
  auto session = Session::open(path, "", *services::Resources::load(), services::Desk::ofThisMachine());
  if (!session) std::abort();
  return std::move(*session);
}

void walkTwelve(benchmark::State& state) {
  static const std::unique_ptr<Session> session = open(demoBook("walk.zledger"));
  const services::Snapshot& s = *session->now();
  Case c = s.caseOf();
  int changed = 0;
  for (const model::Row& row : s.evaluation->model().rows) {
    if (row.declared != model::Declared::Driver || changed == kMostWalkParts) continue;
    const model::RowId index = s.evaluation->model().find(row.name);
    const Figure last = s.evaluation->figure(index, s.evaluation->layout().columns() - 1, 1);
    zl::Path path;
    path.level = last.valueOr(0.05) * 1.02 + 1e-4;
    c = services::setDriver(c, s.evaluation->model(), kBase, row.name, path, {}).after;
    ++changed;
  }
  const auto after = session->preview(c);
  if (!after) std::abort();
  for (auto _ : state) {
    const auto walk = services::walkBetween({"a", session->now()}, {"b", *after}, kBase, true);
    if (!walk || walk->steps.size() != static_cast<size_t>(kMostWalkParts) || !walk->gap.empty()) std::abort();
  }
}
BENCHMARK(walkTwelve)->Name("value walk over 12 parts")->Unit(benchmark::kMillisecond)->UseRealTime();

void undoAmongMany(benchmark::State& state) {
  static const std::unique_ptr<Session> session = [] {
    const std::string path = demoBook("undo.zledger");
    auto book = store::Book::open(path);
    if (!book) std::abort();
    std::int64_t head = *book->head("vessingholt");
    for (int i = 0; i < kEntries; ++i) {
      store::Edit edit;
      edit.entry = {0,
                    "vessingholt",
                    "2026-05-01T09:00:00Z",
                    "bench",
                    "Entry " + std::to_string(i),
                    "[]",
                    "[]",
                    {},
                    store::JournalEntry::State::Done};
      head = *book->append(edit, head);
    }
    return open(path);
  }();
  double level = 0.01;
  for (auto _ : state) {
    state.PauseTiming();
    zl::Path path;
    path.level = level += 1e-6;
    if (!session->apply(services::setDriver(session->now()->caseOf(), session->now()->evaluation->model(), kBase,
                                            "revenue_growth", path, {}))) {
      std::abort();
    }
    state.ResumeTiming();
    if (!session->undo()) std::abort();
  }
}
BENCHMARK(undoAmongMany)
    ->Name("undo among 10,000 entries")
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime()
    ->Iterations(50);

void dragFrame(benchmark::State& state) {
  static const std::string path = demoBook("drag.zledger");
  app::MainWindow window(*services::Resources::load(), services::Desk::ofThisMachine(), {});
  window.resize(1280, 800);
  window.show();
  if (!window.openBook(QString::fromStdString(path))) std::abort();
  drag(state, window);
}
BENCHMARK(dragFrame)->Name("drag, from move to painted frame")->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
}  // namespace zl::bench
