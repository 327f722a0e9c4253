// A price that arrives, until every figure of the company stands on it; beside an edit of a driver, which costs the
// same stages, and beside reading the company anew, which is what a price cost before the market stood apart.

#include <benchmark/benchmark.h>

#include <cstdlib>

#include "services/intake/gather.h"
#include "services/intake/market.h"
#include "services/sessions/demo.h"
#include "services/sessions/session.h"
#include "tests/support/demo_book.h"

namespace zl::bench {
namespace {

struct Demo {
  test::TemporaryFolder folder;
  std::shared_ptr<const services::Resources> resources = *services::Resources::load();
  std::unique_ptr<services::Session> session;

  Demo() {
    const std::string path = folder.file("demo.zledger");
    if (!services::makeDemoBook(path, resources, test::testDesk())) std::abort();
    session = std::move(*services::Session::open(path, "", resources, test::testDesk()));
  }
};

Demo& demo() {
  static Demo one;
  return one;
}

void price(benchmark::State& state) {
  const services::Snapshot& s = *demo().session->now();
  double figure = 400;
  std::int64_t id = 0;
  for (auto _ : state) {
    const store::Observation o{++id,           s.company().id,           "price", s.caseOf().valuationDate,
                               figure += 0.01, s.company().listing.unit, "desk",  "2026-05-01T12:00:00Z"};
    const auto market = services::withObservations(*s.market, {o}, s.company().listing.unit);
    const auto next = s.evaluator->show({s.evidence, market}, s.caseOf());
    if (!next || (*next)->given(model::Role::Price).figure.value() != figure) std::abort();
  }
}
BENCHMARK(price)->Name("a new price, all figures")->Unit(benchmark::kMicrosecond);

void anew(benchmark::State& state) {
  services::Session& session = *demo().session;
  store::Book book = session.book();
  const Case c = session.now()->caseOf();
  for (auto _ : state) {
    const auto sources = services::gather(book, session.companyId());
    if (!sources || !session.evaluator()->show(*sources, c)) std::abort();
  }
}
BENCHMARK(anew)->Name("the same by reading the company anew")->Unit(benchmark::kMicrosecond);

}  // namespace
}  // namespace zl::bench
