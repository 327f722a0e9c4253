// Full recalculation of three scenarios, and 10,000 lanes of random drivers against the same
// arithmetic written by hand.

#include <benchmark/benchmark.h>

#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <functional>

#include "bench/hand_written_model.h"
#include "services/sessions/demo.h"
#include "services/views/builds.h"
#include "services/views/own_rows.h"
#include "tests/support/temporary_folder.h"

namespace zl::bench {
namespace {

using services::Session;

std::unique_ptr<Session> freshDemo() {
  const test::TemporaryFolder folder;
  const std::string path = folder.file("bench.zledger");
  const auto resources = services::Resources::load();
  const auto desk = services::Desk::ofThisMachine();
  if (!resources || !services::makeDemoBook(path, *resources, desk)) std::abort();
  auto opened = Session::open(path, "", *resources, desk);
  if (!opened) std::abort();
  return std::move(*opened);
}

const std::unique_ptr<Session>& demo() {
  static const std::unique_ptr<Session> session = freshDemo();
  return session;
}

/// Fifteen years, with debt by tranche among the analyst's own rows: over 330 rows.
const std::unique_ptr<Session>& large() {
  static const std::unique_ptr<Session> session = [] {
    std::unique_ptr<Session> s = freshDemo();
    if (!s->apply(services::setHorizon(s->now()->caseOf(), 15))) std::abort();
    for (const services::Build& build : services::buildsFor(*s->now())) {
      if (build.label != "Debt by tranche") continue;
      if (!s->apply(services::setOwnRows(s->now()->caseOf(), build.text, {}))) std::abort();
    }
    if (s->now()->evaluation->model().rows.size() < 330) std::abort();
    return s;
  }();
  return session;
}

void recalculateIn(benchmark::State& state, Session& session, bool findings) {
  double level = 0.02;
  for (auto _ : state) {
    zl::Path path;
    path.level = level += 1e-6;
    const auto edit = services::setDriver(session.now()->caseOf(), session.now()->evaluation->model(), "base",
                                          "revenue_growth", path, {});
    auto next = session.preview(edit.after);
    if (!next || (findings && (*next)->findings().empty())) std::abort();
    benchmark::DoNotOptimize(next);
  }
}

void recalculate(benchmark::State& state) {
  recalculateIn(state, *demo(), false);
}
BENCHMARK(recalculate)->Name("edit to all figures, three scenarios")->Unit(benchmark::kMicrosecond);

void recalculateAndJudge(benchmark::State& state) {
  recalculateIn(state, *demo(), true);
}
BENCHMARK(recalculateAndJudge)->Name("edit to all figures and findings")->Unit(benchmark::kMicrosecond);

void recalculateLarge(benchmark::State& state) {
  recalculateIn(state, *large(), false);
}
BENCHMARK(recalculateLarge)->Name("edit, 330 rows and 15 years")->Unit(benchmark::kMicrosecond);

/// Parsed, checked, compiled, standardised and valued anew: what a pause while writing own rows costs.
void checkText(benchmark::State& state) {
  const services::Snapshot& s = *demo()->now();
  const std::vector<services::Build> builds = services::buildsFor(s);
  if (builds.empty()) std::abort();
  for (auto _ : state) {
    services::OwnRowsCheck check = services::checkOwnRows(s, builds.front().text);
    if (check.fault) std::abort();
    benchmark::DoNotOptimize(check);
  }
}
BENCHMARK(checkText)->Name("own rows checked")->Unit(benchmark::kMillisecond);

void otherHorizon(benchmark::State& state) {
  Session& session = *demo();
  int years = 3;
  for (auto _ : state) {
    years = years == 15 ? 3 : years + 1;
    auto next = session.preview(services::setHorizon(session.now()->caseOf(), years).after);
    benchmark::DoNotOptimize(next);
  }
}
BENCHMARK(otherHorizon)->Name("another horizon")->Unit(benchmark::kMillisecond);

constexpr int kTrials = 10000;

struct Trials {
  const model::Model* m;
  const model::Program* program;
  model::LaneInputs inputs;
  std::vector<Trial> byHand;
  Start start;
  std::uint32_t slot;
};

double noise(unsigned long long& state) {
  unsigned long long z = (state += 0x9E3779B97F4A7C15ull);
  z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9ull;
  z = (z ^ (z >> 27)) * 0x94D049BB133111EBull;
  return static_cast<double>((z ^ (z >> 31)) >> 11) * 0x1p-53 - 0.5;
}

using DriverField = bench::Path Trial::*;
using InputField = double Trial::*;
using StartField = double Start::*;

#define ZL_FIELD(type, name) \
  { #name, &type::name }
const std::map<std::string, DriverField>& drivers() {
  static const std::map<std::string, DriverField> fields{ZL_FIELD(Trial, revenue_growth),
                                                         ZL_FIELD(Trial, cost_of_sales_ratio),
                                                         ZL_FIELD(Trial, operating_expense_ratio),
                                                         ZL_FIELD(Trial, exceptional_ratio),
                                                         ZL_FIELD(Trial, tax_rate),
                                                         ZL_FIELD(Trial, capex_ratio),
                                                         ZL_FIELD(Trial, intangible_share),
                                                         ZL_FIELD(Trial, new_lease_ratio),
                                                         ZL_FIELD(Trial, depreciation_rate),
                                                         ZL_FIELD(Trial, acquisition_ratio),
                                                         ZL_FIELD(Trial, receivable_days),
                                                         ZL_FIELD(Trial, inventory_days),
                                                         ZL_FIELD(Trial, payable_days),
                                                         ZL_FIELD(Trial, other_current_asset_ratio),
                                                         ZL_FIELD(Trial, other_current_liability_ratio),
                                                         ZL_FIELD(Trial, borrowing_rate),
                                                         ZL_FIELD(Trial, cash_yield),
                                                         ZL_FIELD(Trial, debt_growth),
                                                         ZL_FIELD(Trial, lease_repayment_rate),
                                                         ZL_FIELD(Trial, minimum_cash_ratio),
                                                         ZL_FIELD(Trial, other_income_ratio),
                                                         ZL_FIELD(Trial, minority_share),
                                                         ZL_FIELD(Trial, payout),
                                                         ZL_FIELD(Trial, buyback_payout),
                                                         ZL_FIELD(Trial, stock_pay_ratio),
                                                         ZL_FIELD(Trial, preferred_rate),
                                                         ZL_FIELD(Trial, risk_free),
                                                         ZL_FIELD(Trial, beta),
                                                         ZL_FIELD(Trial, equity_premium),
                                                         ZL_FIELD(Trial, country_premium),
                                                         ZL_FIELD(Trial, country_exposure),
                                                         ZL_FIELD(Trial, size_addition),
                                                         ZL_FIELD(Trial, cost_of_debt)};
  return fields;
}
const std::map<std::string, InputField>& constants() {
  static const std::map<std::string, InputField> fields{
      ZL_FIELD(Trial, marginal_tax),       ZL_FIELD(Trial, use_target_weights),   ZL_FIELD(Trial, target_debt_weight),
      ZL_FIELD(Trial, cost_of_preferred),  ZL_FIELD(Trial, terminal_growth),      ZL_FIELD(Trial, return_weight),
      ZL_FIELD(Trial, terminal_rule),      ZL_FIELD(Trial, exit_multiple),        ZL_FIELD(Trial, terminal_choice),
      ZL_FIELD(Trial, mid_year),           ZL_FIELD(Trial, operating_cash_share), ZL_FIELD(Trial, loss_limit),
      ZL_FIELD(Trial, distributions_since)};
  return fields;
}
const std::map<std::string, StartField>& starts() {
  static const std::map<std::string, StartField> fields{ZL_FIELD(Start, revenue),
                                                        ZL_FIELD(Start, cash),
                                                        ZL_FIELD(Start, receivables),
                                                        ZL_FIELD(Start, inventory),
                                                        ZL_FIELD(Start, other_current_assets),
                                                        ZL_FIELD(Start, plant),
                                                        ZL_FIELD(Start, right_of_use),
                                                        ZL_FIELD(Start, intangibles),
                                                        ZL_FIELD(Start, goodwill),
                                                        ZL_FIELD(Start, associates),
                                                        ZL_FIELD(Start, other_noncurrent_assets),
                                                        ZL_FIELD(Start, payables),
                                                        ZL_FIELD(Start, other_current_liabilities),
                                                        ZL_FIELD(Start, borrowings_current),
                                                        ZL_FIELD(Start, borrowings_long),
                                                        ZL_FIELD(Start, lease_liabilities),
                                                        ZL_FIELD(Start, pension_deficit),
                                                        ZL_FIELD(Start, other_noncurrent_liabilities),
                                                        ZL_FIELD(Start, equity),
                                                        ZL_FIELD(Start, minorities),
                                                        ZL_FIELD(Start, preferred),
                                                        ZL_FIELD(Start, tax_losses),
                                                        ZL_FIELD(Start, price),
                                                        ZL_FIELD(Start, quote_rate),
                                                        ZL_FIELD(Start, shares_now),
                                                        ZL_FIELD(Start, options),
                                                        ZL_FIELD(Start, option_strike),
                                                        ZL_FIELD(Start, unvested_shares),
                                                        ZL_FIELD(Start, convertible_shares),
                                                        ZL_FIELD(Start, convertible_face),
                                                        ZL_FIELD(Start, stub)};
  return fields;
}
#undef ZL_FIELD

/// Every driver of the demo's base case with its own noise in every trial and year.
const Trials& trials() {
  static const Trials built = [] {
    const Evaluation& e = *demo()->now()->evaluation;
    Trials t{&e.model(), &e.program(), model::LaneInputs(e.program(), kTrials), std::vector<Trial>(kTrials), {}, 0};
    const int base = e.layout().baseColumn();
    for (const auto& [name, field] : starts()) {
      t.start.*field = e.figure(name, base, 1).value();
    }
    unsigned long long state = 11;
    for (size_t i = 0; i < t.program->inputs.size(); ++i) {
      const model::Cell cell = t.program->inputs[i].cell;
      const model::Row& row = (*t.m)[cell.row];
      const double middle = e.figure(cell.row, cell.column, 1).orNaN();
      const auto driver = drivers().find(row.name);
      if (driver == drivers().end() || cell.column <= base) {
        t.inputs.setAll(i, middle);
        continue;
      }
      for (int lane = 0; lane < kTrials; ++lane) {
        const double x = middle * (1 + 0.2 * noise(state));
        t.inputs.set(i, lane, x);
        (t.byHand[static_cast<size_t>(lane)].*(driver->second))[static_cast<size_t>(cell.column - base - 1)] = x;
      }
    }
    for (const auto& [name, field] : constants()) {
      for (Trial& trial : t.byHand) trial.*field = e.constant(name, 1).value();
    }
    t.slot = static_cast<std::uint32_t>(t.program->slot({t.m->find("value_per_share"), 0}));
    // Two writings of one model: if they disagree, the race between them means nothing.
    const model::LaneResults r = model::evaluate(*t.program, t.inputs, {{t.slot}});
    for (int lane = 0; lane < kTrials; ++lane) {
      const double hand = valuePerShare(t.start, t.byHand[static_cast<size_t>(lane)]);
      if (!(std::fabs(hand - r.at(0, lane)) <= 1e-7 * std::fabs(hand))) {
        std::fprintf(stderr, "trial %d: by hand %.10g, compiled %.10g\n", lane, hand, r.at(0, lane));
        std::abort();
      }
    }
    return t;
  }();
  return built;
}

void compiledTrials(benchmark::State& state) {
  const Trials& t = trials();
  for (auto _ : state) {
    const model::LaneResults r = model::evaluate(*t.program, t.inputs, {{t.slot}});
    benchmark::DoNotOptimize(r.figures.data());
  }
}
BENCHMARK(compiledTrials)->Name("10,000 lanes, compiled, all cores")->Unit(benchmark::kMillisecond)->UseRealTime();

void compiledOneCore(benchmark::State& state) {
  const Trials& t = trials();
  model::LaneInputs few(*t.program, 64);
  for (size_t i = 0; i < t.program->inputs.size(); ++i) {
    for (int lane = 0; lane < 64; ++lane) few.set(i, lane, t.inputs.at(i, lane));
  }
  for (auto _ : state) {
    const model::LaneResults r = model::evaluate(*t.program, few, {{t.slot}});
    benchmark::DoNotOptimize(r.figures.data());
  }
  state.counters["trials"] = 64;
}
BENCHMARK(compiledOneCore)->Name("64 lanes, compiled, one core")->Unit(benchmark::kMicrosecond)->UseRealTime();

void handOneCore(benchmark::State& state) {
  const Trials& t = trials();
  for (auto _ : state) {
    double sum = 0;
    for (int lane = 0; lane < 64; ++lane) sum += valuePerShare(t.start, t.byHand[static_cast<size_t>(lane)]);
    benchmark::DoNotOptimize(sum);
  }
  state.counters["trials"] = 64;
}
BENCHMARK(handOneCore)->Name("64 trials, by hand, one core")->Unit(benchmark::kMicrosecond)->UseRealTime();

}  // namespace
}  // namespace zl::bench
