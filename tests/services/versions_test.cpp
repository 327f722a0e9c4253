// Named versions of the demo: kept, compared, walked between, gone back to.

#include <algorithm>
#include <cmath>
#include <numeric>

#include "services/views/builds.h"
#include "services/views/compare.h"
#include "services/views/own_rows.h"
#include "tests/support/demo_book.h"
#include "tests/support/files.h"

namespace zl::services {
namespace {

using test::DemoBook;

class Versions : public DemoBook {
 protected:
  void SetUp() override {
    DemoBook::SetUp();
    session_ = open();
  }
  const model::Model& model() const { return session_->now()->evaluation->model(); }
  double raw(const Snapshot& s) const { return s.evaluation->constant("raw_value", s.caseOf().indexOf(kBase)).value(); }

  Case with(const Case& c, const std::string& driver, double level) const {
    Path path;
    path.level = level;
    return setDriver(c, model(), kBase, driver, path, {"tried", "tester", ""}).after;
  }
  void put(Case c, const std::string& label) {
    const Status s = session_->apply({std::move(c), label});
    ASSERT_TRUE(s) << s.error().text();
  }
  Side side(const std::string& name) {
    auto s = sideOf(*session_, name);
    EXPECT_TRUE(s) << (s ? "" : s.error().text());
    return *s;
  }

  std::unique_ptr<Session> session_;
};

TEST_F(Versions, StandBesideTheJournalAndSurviveUndo) {
  const double before = raw(*session_->now());
  ASSERT_TRUE(session_->keepVersion("  As demoed ", "the start"));
  put(with(session_->now()->caseOf(), "revenue_growth", 0.09), "Faster");
  ASSERT_TRUE(session_->keepVersion("Faster", ""));
  const double faster = raw(*session_->now());
  EXPECT_NE(before, faster);
  EXPECT_EQ(session_->keepVersion("Faster", "").error().kind, ErrorKind::Conflict);
  for (const char* bad : {"", "  ", "now"}) EXPECT_FALSE(session_->keepVersion(bad, "")) << bad;

  ASSERT_TRUE(session_->goBackTo("As demoed"));
  EXPECT_EQ(raw(*session_->now()), before);
  EXPECT_EQ(session_->undoLabel(), "Back to version 'As demoed'");
  ASSERT_TRUE(session_->undo());
  EXPECT_EQ(raw(*session_->now()), faster);
  ASSERT_TRUE(session_->undo());
  EXPECT_EQ(raw(*session_->now()), before);

  session_ = open();
  const auto kept = session_->versions();
  ASSERT_TRUE(kept);
  ASSERT_EQ(kept->size(), 2u);
  EXPECT_EQ((*kept)[0].name, "As demoed");
  EXPECT_EQ((*kept)[0].note, "the start");
  EXPECT_EQ((*kept)[1].author, "tester");
  EXPECT_EQ(raw(*side("Faster").snapshot), faster);
  ASSERT_TRUE(session_->setVersionAside("Faster"));
  EXPECT_EQ(session_->version("Faster").error().todo, "There are: As demoed");
  EXPECT_TRUE(session_->keepVersion("Faster", "the name is free again"));
}

TEST_F(Versions, OwnRowsAndTheModelArePartsOfTheirOwn) {
  ASSERT_TRUE(session_->keepVersion("Plain", ""));
  const std::string rows =
      "input new_hall \"New hall\" money constant\n  default 9000000\n"
      "amend capex\n  forecast revenue * capex_ratio + new_hall\n";
  put(setOwnRows(session_->now()->caseOf(), rows, {}).after, "Own rows");
  const double onlyRows = raw(*session_->now());
  put(with(session_->now()->caseOf(), "revenue_growth", 0.06), "Faster");
  ASSERT_TRUE(session_->keepVersion("Hall", ""));
  const auto walk = walkBetween(side("Plain"), side("Hall"), kBase, false);
  ASSERT_TRUE(walk) << walk.error().text();
  ASSERT_EQ(walk->steps.size(), 2u) << "an input that both hold at its preset is no part";
  EXPECT_EQ(walk->steps[1].label, "Model and own rows");
  EXPECT_EQ(walk->steps[1].rows, std::vector<std::string>{"Own rows"});
  EXPECT_NEAR(walk->steps[0].effect + walk->steps[1].effect, walk->to.value() - walk->from.value(), 1e-9);
  // Two parts: each effect is the mean of going first and going last.
  const double start = walk->from.value();
  const double last = walk->to.value();
  const double onlyGrowth = raw(**session_->preview(with(side("Plain").snapshot->caseOf(), "revenue_growth", 0.06)));
  EXPECT_NEAR(walk->steps[1].effect, ((onlyRows - start) + (last - onlyGrowth)) / 2, 1e-9);

  // Built by parts, what was a driver is computed; the walk back and forth is the same but for the sign.
  for (const Build& b : buildsFor(*side("Plain").snapshot)) {
    if (b.label == "Revenue by Segments") put(setOwnRows(session_->now()->caseOf(), b.text, {}).after, b.label);
  }
  put(with(session_->now()->caseOf(), "growth_machines", 0.08), "Machines");
  ASSERT_TRUE(session_->keepVersion("Parts", ""));
  const auto there = walkBetween(side("Plain"), side("Parts"), kBase, false);
  const auto back = walkBetween(side("Parts"), side("Plain"), kBase, false);
  ASSERT_TRUE(there && back) << (there ? back.error().text() : there.error().text());
  double sum = 0;
  for (const WalkStep& step : there->steps) sum += step.effect;
  EXPECT_NEAR(sum, there->to.value() - there->from.value(), 1e-9);
  EXPECT_NEAR(back->to.value() - back->from.value(), -sum, 1e-9);

  put(setModel(session_->now()->caseOf(), resources_->models[1]).after, "Quick");
  ASSERT_TRUE(session_->keepVersion("Quick", ""));
  const auto quick = walkBetween(side("Parts"), side("Quick"), kBase, false);
  ASSERT_TRUE(quick) << quick.error().text();
  ASSERT_TRUE(quick->gap.empty()) << quick->gap;
  sum = 0;
  for (const WalkStep& step : quick->steps) sum += step.effect;
  EXPECT_NEAR(sum, raw(*side("Quick").snapshot) - raw(*side("Parts").snapshot), 1e-9);
}

TEST_F(Versions, WalkIsTheMeanOverAllOrdersOfChange) {
  // The definition, by whole re-evaluations: each of the 3! orders changes one thing after another.
  const Case start = session_->now()->caseOf();
  ASSERT_TRUE(session_->keepVersion("start", ""));
  const std::pair<const char*, double> changes[] = {
      {"revenue_growth", 0.08}, {"operating_expense_ratio", 0.16}, {"capex_ratio", 0.07}};
  std::vector<int> order{0, 1, 2};
  double mean[3] = {};
  do {
    Case c = start;
    double at = raw(**session_->preview(c));
    for (int i : order) {
      c = with(c, changes[i].first, changes[i].second);
      const double next = raw(**session_->preview(c));
      mean[i] += (next - at) / 6;
      at = next;
    }
  } while (std::next_permutation(order.begin(), order.end()));
  Case c = start;
  for (const auto& [driver, level] : changes) c = with(c, driver, level);
  put(c, "All three");
  const Side from = side("start");
  const Side to = side(kNow);
  const auto walk = walkBetween(from, to, kBase, true);
  ASSERT_TRUE(walk) << walk.error().text();
  ASSERT_EQ(walk->steps.size(), 3u) << walkText(*walk, from, to);
  for (size_t i = 0; i < 3; ++i) EXPECT_NEAR(walk->steps[i].effect, mean[i], 1e-7) << walk->steps[i].label;
  EXPECT_EQ(walk->from.value(), raw(*from.snapshot));
  EXPECT_EQ(walk->to.value(), raw(*to.snapshot));

  const auto grouped = walkBetween(from, to, kBase, false);
  ASSERT_TRUE(grouped);
  ASSERT_EQ(grouped->steps.size(), 2u);
  EXPECT_EQ(grouped->steps[0].rows,
            (std::vector<std::string>{"Revenue growth", "Operating expenses, share of revenue"}));
  EXPECT_NEAR(grouped->steps[0].effect + grouped->steps[1].effect, walk->to.value() - walk->from.value(), 1e-7);

  const Comparison beside = compare({from, to});
  ASSERT_EQ(beside.assumptions.size(), 3u);
  EXPECT_EQ(beside.assumptions[0].words[1], "holds 8.0 %");
  EXPECT_EQ(beside.assumptions[0].reasons[1], "tried");
  const auto revenue = rowBeside({from, to}, "revenue", kBase);
  ASSERT_EQ(revenue.size(), 22u);
  EXPECT_EQ(revenue[11].period, "2025");
  EXPECT_EQ(revenue[11].figures[0], revenue[11].figures[1]) << "filed";
  EXPECT_NE(revenue[12].figures[0], revenue[12].figures[1]);
}

TEST_F(Versions, OtherFiguresThanDriversHaveTheirOwnSteps) {
  ASSERT_TRUE(session_->keepVersion("start", ""));
  Case c = session_->now()->caseOf();
  c = setHorizon(c, 7).after;
  c = setInput(c, model(), kBase, "leases_as_debt", 0, {}).after;
  c = setInput(c, model(), kBase, "terminal_growth", 0.015, {}).after;
  c = setProbability(c, "worst", 0.35).after;
  c = setProbability(c, "best", 0.15).after;
  put(c, "Several");
  ASSERT_TRUE(session_->keepVersion("several", ""));
  // A later price is another document; the kept versions still stand on theirs.
  std::string prices = test::demoFile("prices.csv");
  prices += "2026-05-04,690\n";
  const auto imported = session_->importFiles({{"prices-2.csv", prices}});
  ASSERT_TRUE(imported) << imported.error().text();
  put(setValuationDate(session_->now()->caseOf(), makeDate(2026, 5, 4)).after, "Later");
  EXPECT_EQ(session_->now()->givens.at("price").figure.value(), 690);
  EXPECT_EQ(side("start").snapshot->givens.at("price").figure.value(), 742);

  for (const std::string& scenario : {std::string(kBase), std::string("worst"), std::string()}) {
    const Side from = side("start");
    const Side to = side(kNow);
    const auto walk = walkBetween(from, to, scenario, false);
    ASSERT_TRUE(walk) << walk.error().text();
    ASSERT_EQ(walk->gap, "");
    std::vector<std::string> labels;
    double sum = 0;
    for (const WalkStep& step : walk->steps) {
      labels.push_back(step.label);
      sum += step.effect;
    }
    std::vector<std::string> expected{"One basis", "Market and share count", "Calendar", "Horizon"};
    if (scenario != "worst") expected.insert(expected.begin(), "Valuation choices");  // worst has a growth of its own
    if (scenario.empty()) expected.emplace_back("Probabilities");
    EXPECT_EQ(labels, expected) << scenario;
    EXPECT_NEAR(sum, walk->to.value() - walk->from.value(), 1e-7) << scenario;
    if (scenario == kBase) {
      EXPECT_NEAR(walk->from.value(), raw(*from.snapshot), 1e-9);
      EXPECT_NEAR(walk->to.value(), raw(*to.snapshot), 1e-9);
    }
  }
}

}  // namespace
}  // namespace zl::services
