// Traces by kind of source, and each monitor speaking and keeping silent.

#include <functional>
#include <set>

#include "core/monitor/finding.h"
#include "core/monitor/market_monitors.h"
#include "core/outlook/trace.h"
#include "tests/support/model_support.h"

namespace zl {
namespace {

/// Two filed years of a small company on standard lines, with facts behind them.
struct Filed {
  std::vector<Fact> facts;
  StandardStatements statements;

  explicit Filed(const std::map<std::string, std::pair<double, double>>& lines) {
    std::string rules = "goodwill? = x:Goodwill\n";
    for (const auto& [line, figures] : lines) {
      rules += line + " = x:" + line + "\n";
      const bool balance = line == "stock";
      for (int year : {2023, 2024}) {
        Fact f;
        f.concept_name = "x:" + line;
        f.unit = "EUR";
        f.text = std::to_string(static_cast<int>(year == 2023 ? figures.first : figures.second));
        f.document = 1;
        f.place = "line " + std::to_string(facts.size() + 1);
        f.period.end = makeDate(year, 12, 31);
        if (!balance) f.period.start = makeDate(year, 1, 1);
        facts.push_back(f);
      }
    }
    statements = StandardStatements::build(facts, *MappingRules::parse(rules, "rules"), "EUR");
  }
};

class TraceTest : public testing::Test {
 protected:
  TraceTest() : filed_({{"sales", {80, 100}}, {"stock", {10, 12}}}) {
    m_.model = test::modelOf(R"(
driver growth "Growth" ratio rate
  history sales / sales[-1] - 1
  default last
driver margin "Margin" ratio rate
  default 0.2
input share "Share" ratio constant
  default 0.5
given price "Price" quote constant
row sales "Sales" money flow
  history filed
  forecast sales[-1] * (1 + growth)
  help "What was sold."
row stock "Stock" money balance
  history filed
  forecast stock[-1]
row goodwill "Goodwill" money balance
  history filed
  forecast goodwill[-1]
row missing "Missing" money flow
  history filed
  forecast 0
row profit "Profit" money flow
  forecast sales * margin * share
row mean "Mean stock" money flow
  history avg(stock)
  forecast avg(stock)
row all "All" money constant
  value total(profit)
)");
    for (const char* line : {"sales", "stock", "goodwill", "missing"}) {
      m_.filed[line] = {filed_.statements.at(line, 0).figure, filed_.statements.at(line, 1).figure};
    }
    m_.givens = {{"price", Figure::of(7)}};
    Path own;
    own.level = 0.3;
    m_.theCase.scenarios[1].drivers["margin"] = {own, {"because", "me", "2026-01-01"}};
  }

  TraceStep step(const char* row, int column, int scenario = 0) {
    evaluation_.emplace(m_.evaluate());
    return trace(*evaluation_, filed_.statements, {m_.model.find(row), column}, scenario);
  }

  Filed filed_;
  test::SmallModel m_;
  std::optional<Evaluation> evaluation_;
};

TEST_F(TraceTest, DerivedFiguresShowRuleValuesAndInputs) {
  const TraceStep s = step("sales", 2);
  EXPECT_EQ(s.source, TraceStep::Source::Derived);
  EXPECT_EQ(s.self.period, "2025E");
  EXPECT_EQ(s.formula, "sales[-1] * (1 + growth)");
  EXPECT_EQ(s.formulaWithValues, "0.0 * (1 + 25.0%)");  // money shows in millions
  ASSERT_EQ(s.inputs.size(), 2u);
  EXPECT_EQ(s.inputs[0].period, "2024");
  EXPECT_EQ(s.inputs[1].label, "Growth");
  EXPECT_EQ(s.help, "What was sold.");
  std::set<std::string> dependents;
  for (const TraceLink& l : s.dependents) dependents.insert(l.label + l.period);
  EXPECT_EQ(dependents, (std::set<std::string>{"Sales2026E", "Profit2025E"}));
}

TEST_F(TraceTest, FiledFiguresNameTheirFacts) {
  const TraceStep s = step("sales", 1);
  EXPECT_EQ(s.source, TraceStep::Source::Filed);
  ASSERT_EQ(s.facts.size(), 1u);
  EXPECT_EQ(filed_.facts[s.facts[0].fact].text, "100");
  EXPECT_TRUE(s.formula.empty());
}

TEST_F(TraceTest, WhatNobodyFiledIsToldApart) {
  EXPECT_EQ(step("goodwill", 1).source, TraceStep::Source::NoneReported);
  EXPECT_EQ(step("missing", 1).source, TraceStep::Source::NotFiled);
  EXPECT_TRUE(step("missing", 1).self.figure.isAbsent());
}

TEST_F(TraceTest, AssumptionsSayWhoseTheyAre) {
  const TraceStep inherited = step("margin", 2, 0);
  EXPECT_EQ(inherited.source, TraceStep::Source::Assumed);
  EXPECT_EQ(inherited.inheritedFrom, "Base") << "worst follows base";
  ASSERT_NE(inherited.assumption, nullptr);
  EXPECT_EQ(inherited.assumption->said.reason, "because");
  EXPECT_EQ(step("share", 0).source, TraceStep::Source::Preset);
  EXPECT_EQ(step("price", 0).source, TraceStep::Source::Given);
  const TraceStep preset = step("growth", 2);
  EXPECT_EQ(preset.source, TraceStep::Source::Preset);
  ASSERT_EQ(preset.inputs.size(), 1u) << "it holds the last actual and stands on it";
  EXPECT_EQ(preset.inputs[0].period, "2024");
}

TEST_F(TraceTest, WhatACellReadsAndWhatHangsOnItAreOneRelation) {
  evaluation_.emplace(m_.evaluate());
  const auto at = [&](model::Cell cell) { return trace(*evaluation_, filed_.statements, cell, 1); };
  std::set<std::pair<std::string, std::string>> reads, hangs;
  const auto name = [](const TraceLink& l) { return l.label + " " + l.period; };
  for (size_t r = 0; r < m_.model.rows.size(); ++r) {
    const bool constant = m_.model.rows[r].timing == model::Timing::Constant;
    for (int c = 0; c < (constant ? 1 : evaluation_->layout().columns()); ++c) {
      const TraceStep s = at({model::RowId(r), c});
      for (const TraceLink& l : s.inputs) reads.emplace(name(s.self), name(l));
      for (const TraceLink& l : s.dependents) hangs.emplace(name(l), name(s.self));
    }
  }
  EXPECT_EQ(reads, hangs);
  EXPECT_EQ(hangs.count({"Mean stock 2024", "Stock 2023"}), 1u) << "history hangs on history";
}

TEST_F(TraceTest, AveragesAndTotalsReachAllTheirYears) {
  EXPECT_EQ(step("mean", 1).inputs.size(), 2u);
  EXPECT_EQ(step("mean", 1).formulaWithValues, "avg(0.0, 0.0)");
  const TraceStep all = step("all", 0);
  EXPECT_EQ(all.inputs.size(), 3u);
  EXPECT_EQ(all.formulaWithValues, "total(profit)");
  EXPECT_EQ(all.self.period, "");
}

class MonitorTest : public testing::Test {
 protected:
  MonitorTest() {
    m_ = test::companyWith(5, {{"revenue", 1000},
                               {"cost_of_sales", 500},
                               {"operating_expenses", 250},
                               {"depreciation", 50},
                               {"ebit", 200},
                               {"pretax_profit", 200},
                               {"tax", 50},
                               {"net_income", 150},
                               {"receivables", 100},
                               {"plant", 500},
                               {"cash", 50},
                               {"total_assets", 650},
                               {"payables", 50},
                               {"total_liabilities", 50},
                               {"equity", 600},
                               {"total_equity", 600},
                               {"operating_cash_flow", 200},
                               {"plant_bought", 50},
                               {"dividends", 150},
                               {"shares", 10}});
    assume("risk_free", 0.08);
    assume("beta", 0);
    choose("terminal_growth", 0.02);
    m_.theCase.limits["returns do not fade"] = 0.3;  // it earns 27 % on its capital, for the years looked at
  }

  void assume(const std::string& row, double level) {
    Path path;
    path.level = level;
    m_.theCase.scenarios[1].drivers[row] = {path, {}};
  }
  void choose(const std::string& row, double figure) { m_.theCase.scenarios[1].inputs[row] = {figure, {}, {}}; }

  std::set<std::string> heard(const CrossCheck& peers = {}) {
    // These statements only carry the years' labels; the figures come from m_.filed.
    const Filed years({{"sales", {1, 1}}});
    const Evaluation e = m_.evaluate();
    const model::HistoryTable history(
        m_.model, e.layout(), [&](const std::string& row, int c) { return m_.filed.at(row)[static_cast<size_t>(c)]; },
        [](model::RowId) { return Figure::of(0.25); });
    const MarketFindings market = monitorMarket(
        {m_.model, history, e.layout().baseColumn(), m_.theCase, peers, companies_, {}, {}, {}, {}, "EUR"});
    std::set<std::string> names;
    for (const Finding& f : monitor({e, history, years.statements.years(), {}, market, peers, {}, "EUR"})) {
      EXPECT_FALSE(f.text.empty());
      names.insert(f.monitor);
    }
    return names;
  }

  test::SmallModel m_;
  std::vector<Peer> companies_;
};

TEST_F(MonitorTest, ASoundCaseIsQuiet) {
  EXPECT_THAT(heard(), testing::IsEmpty());
}

TEST_F(MonitorTest, EachFaultIsNamed) {
  using testing::Contains;
  using testing::Not;
  m_.theCase.scenarios[0].probability = 0.5;
  EXPECT_THAT(heard(), Contains("probabilities not one"));
  m_.theCase.scenarios[0].probability = 0.25;

  choose("terminal_growth", 0.08);
  EXPECT_THAT(heard(), Contains("discount rate does not exceed growth"));
  choose("terminal_growth", 0.07);
  EXPECT_THAT(heard(),
              testing::AllOf(Contains("rate close to growth"), Not(Contains("growth above the risk-free rate"))));
  assume("beta", 1);
  choose("terminal_growth", 0.085);
  EXPECT_THAT(heard(), Contains("growth above the risk-free rate"));
  assume("beta", 0);
  choose("terminal_growth", 0.02);

  choose("terminal_choice", 1);
  choose("exit_multiple", 30);
  EXPECT_THAT(heard(), Contains("terminal share"));
  choose("exit_multiple", 5);
  EXPECT_THAT(heard(), Not(Contains("terminal share")));
  choose("terminal_choice", 0);

  m_.filed["total_assets"] = test::figures({650, 651});
  EXPECT_THAT(heard(), Not(Contains("balance sheet gap"))) << "the forecast's total is its own sum";
  m_.filed["equity"] = test::figures({600, 590});
  EXPECT_THAT(heard(), Contains("balance sheet gap")) << "a base year that does not balance never will";
  m_.filed["equity"] = test::figures({600, 600});

  m_.filed["pension_deficit"] = test::figures({3000, 3000});
  EXPECT_THAT(heard(), Contains("negative equity value"));
  m_.filed["pension_deficit"] = test::figures({0, 0});

  assume("operating_expense_ratio", 0.6);
  EXPECT_THAT(heard(), testing::AllOf(Contains("revolver drawn"), Contains("negative equity value")));
  assume("operating_expense_ratio", 0.25);

  m_.filed["plant_bought"] = test::figures({50, 500});
  EXPECT_THAT(heard(), Contains("negative base year"));
  m_.filed["plant_bought"] = test::figures({50, 50});

  m_.theCase.exceptional[2024] = "fire";
  EXPECT_THAT(heard(), Contains("exceptional year"));
}

TEST_F(MonitorTest, PeersThatAreFewLargeOrFarOffAreNamed) {
  CrossCheck few;
  few.statistics[Multiple::PriceToEarnings].count = 3;
  EXPECT_THAT(heard(few), testing::Contains("few peers"));
  few.statistics[Multiple::PriceToEarnings].count = 4;
  EXPECT_THAT(heard(few), testing::Not(testing::Contains("few peers")));
  PeerRow large;
  large.name = "Large";
  large.outOfScale = true;
  large.cells[Multiple::PriceToEarnings] = {Figure::of(10), true, false, true, ""};
  large.cells[Multiple::EvToEbitda] = {};
  few.rows.push_back(large);
  EXPECT_THAT(heard(few),
              testing::AllOf(testing::Contains("peer out of scale"), testing::Contains("peer multiple is an outlier")));
  few.rows[0].cells[Multiple::PriceToEarnings].in = false;
  EXPECT_THAT(heard(few), testing::Not(testing::Contains("peer out of scale")))
      << "a peer that does not count may be of any size";
}

/// Four peers of a subject, all sound; each line spoils one of them and names the monitor that speaks.
TEST_F(MonitorTest, PeersOfAnotherDayCurrencyYearOrBasisAreNamed) {
  m_.theCase.valuationDate = makeDate(2026, 4, 30);
  Subject subject;
  subject.id = "own";
  subject.name = "Own Works";
  subject.currency = "EUR";
  subject.target = makeDate(2025, 12, 31);
  subject.revenue = Figure::of(100);
  const auto sound = [&] {
    std::vector<Peer> peers;
    for (const char* id : {"a", "b", "c", "d"}) {
      Peer p;
      p.id = p.name = id;
      p.currency = p.priceCurrency = "EUR";
      p.price = Figure::of(10);
      p.priceDate = m_.theCase.valuationDate;
      p.shares = Figure::of(10);
      for (Figure Peer::*claim : {&Peer::debt, &Peer::preferred, &Peer::minorities, &Peer::pension, &Peer::cash,
                                  &Peer::associates, &Peer::leases})
        p.*claim = Figure::of(0);
      PeerYear year{subject.target, Figure::of(110), Figure::of(20), Figure::of(8)};
      p.years = {year};
      peers.push_back(std::move(p));
    }
    return peers;
  };
  const auto spoken = [&](const std::vector<Peer>& peers) {
    companies_ = peers;
    return heard(crossCheck(subject, peers, {}, {}));
  };
  const std::set<std::string> quiet = spoken(sound());  // what is not of peers
  EXPECT_THAT(quiet, testing::Not(testing::Contains(testing::HasSubstr("peer"))));
  const std::pair<const char*, std::function<void(std::vector<Peer>&)>> kSpoilt[] = {
      {"stale peer price", [](auto& p) { p[1].priceDate = makeDate(2026, 2, 1); }},
      {"stale peer price", [](auto& p) { p[1].priceDate = makeDate(2026, 7, 1); }},
      {"peer currency", [](auto& p) { p[2].priceCurrency = "SEK"; }},
      {"year ends apart",
       [](auto& p) {
         p[0].years.front().end = makeDate(2025, 6, 30);
         p[0].years.push_back({makeDate(2026, 6, 30), Figure::of(120), Figure::of(22), Figure::of(9)});
       }},
      {"peer basis unknown", [](auto& p) { p[3].filesRent = true; }},
      {"subject among peers", [](auto& p) { p[3].name = "own works"; }},
      {"subject among peers", [](auto& p) { p[3].id = "own"; }},
      {"peer out of scale", [](auto& p) { p[0].years[0].revenue = Figure::of(801); }},
      {"a multiple rests on one peer", [](auto& p) { p.resize(1); }},
      {"few peers", [](auto& p) { p.resize(3); }}};
  for (const auto& [monitor, spoil] : kSpoilt) {
    std::vector<Peer> peers = sound();
    spoil(peers);
    EXPECT_EQ(quiet.count(monitor), 0u);
    EXPECT_THAT(spoken(peers), testing::Contains(monitor));
  }
  m_.theCase.limits["stale peer price"] = 400;
  std::vector<Peer> old = sound();
  old[1].priceDate = makeDate(2026, 2, 1);
  EXPECT_EQ(spoken(old), quiet) << "the limit is the analyst's to move";
}

}  // namespace
}  // namespace zl
