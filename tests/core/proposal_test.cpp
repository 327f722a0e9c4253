// The first outlook's rules on histories of a few figures. Every expected figure is worked out by hand from what
// docs/formats/proposals.md says of the rule; none comes from the code.

#include "core/proposal/propose.h"

#include "core/proposal/placeholders.h"
#include "core/proposal/proposal_rules.h"
#include "tests/support/model_support.h"

namespace zl {
namespace {

using testing::HasSubstr;
using From = Provenance::From;

constexpr const char* kModel = R"(
driver sales_growth "Growth" ratio rate
  history guard(sales[-1] > 0, sales / sales[-1] - 1, "none")
  default last
driver cost_share "Costs" ratio rate
  history sales_cost / sales
  range 0 to 3
  default last
driver wear_rate "Wear" ratio rate
  history guard(assets[-1] > 0, worn / assets[-1], "none")
  default last
driver invest_share "Investment" ratio rate
  history invested / sales
  default last
driver days "Days" days rate
  history owed / sales * 365 days
  default last
driver rate_driver "Rate" ratio rate
  default 0.03
input long_run "Long-run growth" ratio constant
  range -0.1 to 0.15
  default 0.02
choice weights "Weights"
  option market "market"
  option target "target"
row sales "Sales" money flow
  history filed
  forecast sales[-1] * (1 + sales_growth)
row sales_cost "Costs" money flow
  history filed
  forecast sales * cost_share
row worn "Wear" money flow
  history filed
  forecast assets[-1] * wear_rate
row assets "Assets" money balance
  history filed
  forecast assets[-1] * (1 - wear_rate) + sales * invest_share
row invested "Invested" money flow
  history filed
  forecast sales * invest_share
row owed "Owed" money balance
  history filed
  forecast sales * days / 365 days
row profit "Profit" money flow
  history filed
  forecast sales - sales_cost - worn
row value "Value" money constant
  value final(profit) * 10
)";

/// A case proposed upon a history that a test gives by row.
class Proposing {
 public:
  std::map<std::string, std::vector<double>> filed;
  std::vector<bool> irregular;
  std::map<std::string, double> bookRates;
  std::string currency = "EUR";
  int horizon = 5;
  Case theCase = newCase("x", makeDate(2025, 1, 1));

  Case of(const std::string& rules) {
    const auto years = static_cast<int>(filed.begin()->second.size());
    theCase.horizon = horizon;
    const model::Layout layout{years, horizon};
    model_ = test::modelOf(kModel);
    history_ = std::make_unique<model::HistoryTable>(
        model_, layout,
        [&](const std::string& row, int c) {
          const auto found = filed.find(row);
          return found == filed.end() ? Figure::absent() : Figure::of(found->second[static_cast<size_t>(c)]);
        },
        [](model::RowId) { return Figure::absent(); });
    std::vector<int> labels;
    for (int y = 0; y < years; ++y) labels.push_back(2025 - years + y);
    if (irregular.empty()) irregular.assign(static_cast<size_t>(years), false);
    const auto table = Placeholders::parse(
        "as_of 2026-01-01\ncurrency EUR risk-free 3%, growth 2%, tax 25%, spot 1.1\n"
        "currency GBP spot 1.3\ncountry DE tax 30%\n",
        "table");
    EXPECT_TRUE(table) << table.error().text();
    const auto parsed = parseProposalRules(rules, "rules");
    EXPECT_TRUE(parsed) << parsed.error().text();
    EXPECT_TRUE(checkProposalRules(*parsed, model_));
    const auto compiled = *compileModel(model_, layout);
    ProposalGround ground{model_, *history_, labels, irregular, currency, "", *table};
    ground.bookRate = [&](const std::string& name) -> std::optional<KnownRate> {
      const auto found = bookRates.find(name);
      return found == bookRates.end() ? std::nullopt : std::optional(KnownRate{found->second, "book"});
    };
    ground.peersMedian = [](const std::string&) { return Figure::absent(); };
    ground.probe = [&](const Case& c, const std::vector<Variant>& variants, model::RowId row) {
      return probe({*compiled, *history_, c, c.base(), {}}, variants, row);
    };
    return proposedScenarios(proposed(theCase, *parsed, ground), *parsed, ground);
  }

  /// A driver's figures by forecast year.
  std::vector<double> path(const Case& c, const char* driver, const char* scenario = kBase) const {
    const model::RowId row = model_.find(driver);
    std::vector<double> figures;
    for (const Figure& f : driverFigures(model_[row], c, *c.scenario(scenario),
                                         history_->at(row, history_->layout().baseColumn()), horizon)
                               .figures) {
      figures.push_back(f.valueOr(-99));
    }
    return figures;
  }

 private:
  model::Model model_;
  std::unique_ptr<model::HistoryTable> history_;
};

void expectNear(const std::vector<double>& got, const std::vector<double>& wanted) {
  ASSERT_EQ(got.size(), wanted.size());
  for (size_t i = 0; i < got.size(); ++i) EXPECT_NEAR(got[i], wanted[i], 1e-9) << "year " << i + 1;
}

constexpr const char* kGrowth =
    "long_run: level 2%\n"
    "sales_growth: growth sales, years 4, longest 10 5, cap 2, within -10% 25%, to long_run by 10\n";

TEST(Proposals, GrowthIsTheLowerOfCompoundAndMedianAndFadesInEqualSteps) {
  Proposing p;
  // 10, 10, 10, 4 and 2 %: the median is 10 %; the last four ends grew by 1.04 x 1.02 x 1.10.
  p.filed["sales"] = {100, 110, 121, 133.1, 138.424, 141.19248};
  const double compound = std::cbrt(1.1 * 1.04 * 1.02) - 1;  // 5.28 %
  const Case c = p.of(kGrowth);
  std::vector<double> wanted;
  for (int t = 0; t < 5; ++t) wanted.push_back(compound + (0.02 - compound) * t / 4);
  expectNear(p.path(c, "sales_growth"), wanted);
  EXPECT_EQ(c.base().drivers.at("sales_growth").said.from, From::Proposed);
  EXPECT_THAT(c.base().drivers.at("sales_growth").said.reason, HasSubstr("compound growth since 2021"));
}

TEST(Proposals, MarginalTaxIsTheOneTaxIsReconciledToElseTheCountrys) {
  const auto tax = [](std::map<std::string, std::vector<double>> filed) {
    Proposing p;
    p.filed = std::move(filed);
    return p.of("long_run: country_tax, filed cost_share\n").base().inputs.at("long_run");
  };
  const InputChoice filed = tax({{"sales", {100, 100}}, {"sales_cost", {30, 12}}});  // the shares stand for the rates
  EXPECT_NEAR(filed.figure, 0.12, 1e-12);
  EXPECT_EQ(filed.said.from, From::Proposed);
  EXPECT_THAT(filed.said.reason, HasSubstr("reconciles its tax to, 2024"));
  const InputChoice odd = tax({{"sales", {100, 100}}, {"sales_cost", {30, 90}}});
  EXPECT_NEAR(odd.figure, 0.15, 1e-12) << "90 % is no rate of a country; its 25 % is held at the input's range";
  EXPECT_EQ(odd.said.from, From::Placeholder);
  EXPECT_NEAR(tax({{"sales", {100, 100}}}).figure, 0.15, 1e-12) << "nothing is filed";
}

TEST(Proposals, GrowthIsHeldByTheLongSpanByItsBandAndByNothingElse) {
  Proposing p;
  // Flat for six years, then 20 % three times: the last four ends and the median differ; 1.2^3 over nine years is
  // 6.27 % a year, and the median of nine rates is 0 %.
  p.filed["sales"] = {100, 100, 100, 100, 100, 100, 100, 120, 144, 172.8};
  expectNear({p.path(p.of(kGrowth), "sales_growth").front()}, {0.0});
  // 30 % a year in every year is held at 25 %, and its own long span is no tighter.
  p.filed["sales"] = {100, 130, 169, 219.7, 285.61, 371.293, 482.6809};
  expectNear({p.path(p.of(kGrowth), "sales_growth").front()}, {0.25});
  // A flagged year among the last four ends leaves the median: 10, 10, 10 without the two rates of the flagged year.
  Proposing flagged;
  flagged.filed["sales"] = {100, 110, 121, 133.1, 60, 146.41};
  flagged.irregular = {false, false, false, false, true, false};
  expectNear({flagged.path(flagged.of(kGrowth), "sales_growth").front()}, {0.10});
  // One year alone has no growth: the long run, as a placeholder.
  Proposing young;
  young.filed["sales"] = {100};
  const Case c = young.of(kGrowth);
  expectNear(young.path(c, "sales_growth"), {0.02, 0.02, 0.02, 0.02, 0.02});
  EXPECT_EQ(c.base().drivers.at("sales_growth").said.from, From::Placeholder);
}

TEST(Proposals, CostsGiveTheRegularMarginAfterTheWearThatInvestmentMakes) {
  Proposing p;
  p.filed["sales"] = {100, 100, 100, 100, 100};
  p.filed["profit"] = {10, 12, 14, 11, 13};      // median 12 %
  p.filed["sales_cost"] = {80, 78, 76, 79, 77};  // so that profit is sales less costs less wear of 10
  p.filed["worn"] = {10, 10, 10, 10, 10};
  p.filed["assets"] = {50, 50, 50, 50, 50};
  p.filed["invested"] = {10, 10, 10, 10, 10};
  const Case c = p.of(
      "sales_growth: level 0\n"
      "wear_rate: median 3\n"
      "invest_share: investment sales, median 5, assets assets, wear wear_rate, growth sales_growth\n"
      "cost_share: costs sales, profit profit, over 3, wear wear_rate, assets assets, invested invest_share, growth "
      "sales_growth\n");
  expectNear(p.path(c, "wear_rate"), {0.2, 0.2, 0.2, 0.2, 0.2});
  expectNear(p.path(c, "invest_share"), {0.1, 0.1, 0.1, 0.1, 0.1});  // 50 % of sales x 20 % at no growth
  // Costs go from 77 % to 1 - 12 % - 10 % in three equal steps.
  expectNear(p.path(c, "cost_share"), {0.77 + 0.01 / 3, 0.77 + 0.02 / 3, 0.78, 0.78, 0.78});
}

TEST(Proposals, WhatIsNotFiledApartLiesWithinWhatIs) {
  Proposing p;
  p.filed["sales"] = {100, 100};
  p.filed["profit"] = {10, 10};
  const std::string rules =
      "sales_growth: level 0\nwear_rate: median 3, else_level 10%\n"
      "invest_share: investment sales, median 5, assets assets, wear wear_rate, growth sales_growth\n"
      "cost_share: costs sales, profit profit, over 3, wear wear_rate, assets assets, invested invest_share, growth "
      "sales_growth\n";
  // Nothing but sales and profit: all costs are one, and nothing is known to be invested.
  const Case c = p.of(rules);
  expectNear(p.path(c, "cost_share"), {0.9, 0.9, 0.9, 0.9, 0.9});
  expectNear(p.path(c, "invest_share"), {0, 0, 0, 0, 0});
  EXPECT_EQ(c.base().drivers.at("invest_share").said.from, From::Placeholder);
}

TEST(Proposals, AMarginThatSwingsIsTheMedianOfTenYearsAndATurnedOneItsLastTwo) {
  const auto target = [](std::vector<double> profit) {
    Proposing p;
    p.filed["sales"] = std::vector<double>(profit.size(), 100);
    p.filed["sales_cost"] = std::vector<double>(profit.size(), 90);
    p.filed["profit"] = std::move(profit);
    return p.path(p.of("cost_share: margin sales, profit profit, over 3\n"), "cost_share").back();
  };
  EXPECT_NEAR(target({10, 11, 12, 10, 11}), 0.11, 1e-9);
  // 2 and 20 lie too far apart for five years to speak: the median of all ten is 8 %.
  EXPECT_NEAR(target({8, 8, 8, 8, 8, 2, 20, 4, 18, 7}), 0.08, 1e-9);
  EXPECT_NEAR(target({-9, -6, -3, 4, 6, 8}), 0.07, 1e-9) << "the mean of 6 and 8";
  EXPECT_NEAR(target({5, -3, 6, -2, 7, 4}), 0.045, 1e-9) << "profits before the loss: it swings, it has not turned";
}

TEST(Proposals, RatesComeFromTheBookElseFromThePlaceholdersElseAreAskedFor) {
  Proposing p;
  p.filed["sales"] = {100, 100};
  p.bookRates["risk-free EUR"] = 0.025;
  const std::string rule = "rate_driver: rate risk-free\nlong_run: lower_rate growth, than rate_driver\n";
  Case c = p.of(rule);
  expectNear({p.path(c, "rate_driver").front()}, {0.025});
  EXPECT_EQ(c.base().drivers.at("rate_driver").said.from, From::Proposed);
  p.bookRates.clear();
  c = p.of(rule);
  expectNear({p.path(c, "rate_driver").front()}, {0.03});
  EXPECT_EQ(c.base().drivers.at("rate_driver").said.from, From::Placeholder);
  EXPECT_DOUBLE_EQ(c.base().inputs.at("long_run").figure, 0.02);
  p.bookRates["risk-free EUR"] = 0.01;
  EXPECT_DOUBLE_EQ(p.of(rule).base().inputs.at("long_run").figure, 0.01) << "no growth above the risk-free rate";
  p.bookRates.clear();
  p.currency = "XXA";
  c = p.of(rule);
  expectNear({p.path(c, "rate_driver").front()}, {-99});  // no preset of another currency
  EXPECT_THAT(c.base().drivers.at("rate_driver").said.reason, HasSubstr("no risk-free of XXA is known"));
}

TEST(Proposals, MediansLeaveOutWhatLiesBeyondAndFallBackAsTheySay) {
  Proposing p;
  p.filed["sales"] = {365, 365, 365, 365, 365};
  p.filed["owed"] = {10, 20, 900, 40, 60};
  expectNear({p.path(p.of("days: median 3\n"), "days").front()}, {60});
  expectNear({p.path(p.of("days: median 3, within 0 100\n"), "days").front()}, {40});
  const Case c = p.of("days: median 3, within 0 1, else_level 45\n");
  expectNear({p.path(c, "days").front()}, {45});
  EXPECT_EQ(c.base().drivers.at("days").said.from, From::Placeholder);
}

TEST(Proposals, WhatIsDecidedStaysAndIsReadByWhatFollows) {
  Proposing p;
  p.filed["sales"] = {100, 110, 121};
  p.theCase.scenarios[1].inputs["long_run"] = {0.05, "", {"mine", "me", "2025-01-01"}};
  Case c = p.of(kGrowth);
  EXPECT_DOUBLE_EQ(c.base().inputs.at("long_run").figure, 0.05);
  EXPECT_NEAR(p.path(c, "sales_growth").back(), 0.05, 1e-12);
  const Case stored = decidedOnly(c);
  EXPECT_TRUE(stored.base().drivers.empty());
  EXPECT_EQ(stored.base().inputs.size(), 1u);
  EXPECT_EQ(p.of(kGrowth), c) << "proposing twice changes nothing";
}

TEST(Proposals, WorstAndBestLieApartByQuartilesAndInTheOrderOfTheValue) {
  Proposing p;
  p.filed["sales"] = {100, 104, 110.24, 119.0592, 126.202752, 131.2508621};  // 4, 6, 8, 6, 4 %: quartiles 4 and 6
  p.filed["profit"] = {10, 10, 10, 10, 10, 10};
  p.filed["sales_cost"] = {90, 94, 100.24, 109.0592, 116.202752, 121.2508621};
  for (const char* none : {"worn", "assets", "invested"}) p.filed[none] = {0, 0, 0, 0, 0, 0};
  const std::string rules = std::string(kGrowth) + "cost_share: level 0.9\nwear_rate invest_share: level 0\n" +
                            "sales_growth: apart, fading\n";
  Case c = p.of(rules);
  const std::vector<double> base = p.path(c, "sales_growth");
  // The median is 6 %, the lower quartile 4 %, the upper 6 %: two points below, fading by a fifth a year; nothing
  // above.
  std::vector<double> worst;
  for (int t = 0; t < 5; ++t) worst.push_back(base[static_cast<size_t>(t)] - 0.02 * (1 - t / 5.0));
  expectNear(p.path(c, "sales_growth", kWorst), worst);
  expectNear(p.path(c, "sales_growth", kBest), base);
}

TEST(ProposalRules, FaultsNameTheLineAndWhatIsWrong) {
  const std::pair<const char*, const char*> kFaults[] = {
      {"sales_growth growth sales\n", "expected rows, a colon"},
      {": level 1\n", "expected a row before the colon"},
      {"a: nothing 3\n", "'nothing' is no kind of proposal"},
      {"a: median\n", "'median' takes 1 word"},
      {"a: median three\n", "'three' is no figure"},
      {"a: median 3, by 5\n", "'by' is no setting of 'median'"},
      {"a: median 3, within 1 2, within 1 2\n", "stands there twice"},
      {"a: growth sales\n", "'growth' needs 'years'"},
      {"a: median 3, to b at 5\n", "takes a row, 'by' and a year"},
      {"a: level 1,\n a: level 1, , level 2\n", "expected a setting between the commas"},
  };
  for (const auto& [text, what] : kFaults) {
    const auto rules = parseProposalRules(text, "r");
    ASSERT_FALSE(rules) << text;
    EXPECT_THAT(rules.error().text(), HasSubstr(what)) << text;
    EXPECT_THAT(rules.error().where, HasSubstr("r, line ")) << text;
  }
  const model::Model m = test::modelOf(kModel);
  const std::pair<const char*, const char*> kUnknown[] = {
      {"sales: level 1\n", "'sales' is no driver and no input"},
      {"nobody: level 1\n", "'nobody' is no driver and no input"},
      {"cost_share: margin turnover, profit profit, over 3\n", "no row 'turnover'"},
      {"weights: unpriced book\n", "'weights' has no option 'book'"},
      {"days: median 3, to nowhere by 5\n", "no row 'nowhere'"}};
  for (const auto& [text, what] : kUnknown) {
    const Status checked = checkProposalRules(*parseProposalRules(text, "r"), m);
    ASSERT_FALSE(checked) << text;
    EXPECT_THAT(checked.error().text(), HasSubstr(what)) << text;
  }
}

TEST(Placeholders, ReadFaultsAndCrossRates) {
  const char* kGood =
      "# round\nas_of 2026-01-01\ncurrency EUR risk-free 3%, spot 1.1\ncurrency GBP spot 1.32, tax 25%\n"
      "country DE tax 30%\n";
  const auto table = Placeholders::parse(kGood, "t");
  ASSERT_TRUE(table) << table.error().text();
  EXPECT_EQ(table->rate("EUR", "risk-free"), 0.03);
  EXPECT_EQ(table->rate("EUR", "inflation"), std::nullopt);
  EXPECT_EQ(table->rate("SEK", "risk-free"), std::nullopt);
  EXPECT_EQ(table->tax("DE", "GBP"), 0.30);
  EXPECT_EQ(table->tax("", "GBP"), 0.25);
  EXPECT_EQ(table->tax("FR", "EUR"), std::nullopt);
  EXPECT_NEAR(table->spot("GBP", "EUR").value(), 1.2, 1e-12);
  EXPECT_DOUBLE_EQ(table->spot("SEK", "SEK").value(), 1);
  EXPECT_THAT(table->spot("SEK", "EUR").reason(), HasSubstr("SEK"));
  EXPECT_THAT(table->source(), HasSubstr("2026-01-01"));
  const std::pair<const char*, const char*> kFaults[] = {
      {"currency EUR risk-free 3%\n", "does not say of when"},
      {"as_of yesterday\n", "expected a day"},
      {"as_of 2026-01-01\ncurrency EURO x 1\n", "expected as_of, currency"},
      {"as_of 2026-01-01\ncurrency EUR risk-free\n", "is no rate"},
      {"as_of 2026-01-01\ncurrency EUR spot 0\n", "is no rate"},
      {"as_of 2026-01-01\ncountry DE vat 19%\n", "is no rate"}};
  for (const auto& [text, what] : kFaults) {
    const auto refused = Placeholders::parse(text, "t");
    ASSERT_FALSE(refused) << text;
    EXPECT_THAT(refused.error().text(), HasSubstr(what)) << text;
  }
}

}  // namespace
}  // namespace zl
