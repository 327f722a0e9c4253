// Economic profit, flows to shareholders, direct value, dated target, claims and rates by choice, on a company that
// stands still or grows steadily. Expected: worked by hand or by closed forms, as said beside each.

#include <cmath>

#include "tests/support/standing_still.h"

namespace zl {
namespace {

class FurtherMethods : public StandingStill {
 protected:
  static double year(const Evaluation& e, const char* row, int y) {
    const Figure f = e.figure(row, e.layout().historyYears + y, 1);
    EXPECT_TRUE(f.hasValue()) << row << y << ": " << f.reason();
    return f.valueOr(0);
  }
  /// Growth, debt with interest, working capital that moves: nothing about it is simple.
  void grow() {
    assume("revenue_growth", 0.06);
    assume("beta", 0.4);
    assume("cost_of_debt", 0.05);
    assume("borrowing_rate", 0.05);
    assume("capex_ratio", 0.08);
    choose("terminal_growth", 0.02);
    choose("return_weight", 0.4);
    m_.filed["borrowings_long"] = test::figures({300, 300});
    m_.filed["equity"] = m_.filed["total_equity"] = test::figures({300, 300});
    m_.filed["total_liabilities"] = test::figures({350, 350});
  }
};

TEST_F(FurtherMethods, EconomicProfitIsTheCashFlowValueUnderEveryTimingAndRule) {
  grow();
  for (const double stub : {1.0, 0.37}) {
    for (const int passed : {0, 1}) {
      for (const int middle : {0, 1}) {
        for (const int rule : {0, 1, 2}) {
          for (const int exit : {0, 1}) {
            m_.givens["stub"] = Figure::of(stub);
            m_.givens["years_passed"] = Figure::of(passed);
            choose("mid_year", middle);
            choose("terminal_rule", rule);
            choose("terminal_choice", exit);
            const Evaluation e = m_.evaluate();
            const double value = constant(e, "enterprise_value");
            EXPECT_NEAR(constant(e, "economic_profit_gap"), 0, 1e-9 * value)
                << stub << " " << passed << " " << middle << " " << rule << " " << exit;
            EXPECT_GT(std::fabs(constant(e, "economic_profit_beyond")), 1) << "nothing was added up";
          }
        }
      }
    }
  }
}

TEST_F(FurtherMethods, CapitalThatEarnsItsCostMakesNoEconomicProfit) {
  // NOPAT 150 on capital of 600; at 25 % nothing is left, and the firm is worth its capital.
  assume("risk_free", 0.25);
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(year(e, "economic_profit", 2), 0, 1e-9);
  EXPECT_NEAR(constant(e, "enterprise_by_profit"), 600, 1e-6);
}

TEST_F(FurtherMethods, AtItsOwnWeightsTheFirmLessDebtIsWhatShareholdersGet) {
  grow();
  choose("use_target_weights", 3);
  const Evaluation e = m_.evaluate();
  // Backward over the years with D the weight of the next year times the firm's value (year-end timing):
  // E(t-1) = (FCFF - k_d (1 - t) D(t-1) + D(t) - D(t-1) + E(t)) / (1 + k_e).
  const int years = 5;
  const auto weight = [&](int y) { return year(e, "year_debt_weight", std::min(y, years - 1)); };
  double firm = constant(e, "growth_terminal");
  double debt = weight(years) * firm;
  double equity = firm - debt;
  for (int y = years - 1; y >= 0; --y) {
    firm = (firm + year(e, "fcff", y)) / (1 + year(e, "wacc", y));
    const double opening = weight(y) * firm;
    equity =
        (year(e, "fcff", y) - 0.05 * 0.75 * opening + debt - opening + equity) / (1 + year(e, "cost_of_equity", y));
    debt = opening;
    EXPECT_NEAR(equity, firm - debt, 1e-6 * firm) << y;
    EXPECT_NEAR(firm, year(e, "opening_firm_value", y), 1e-6 * firm) << y;
  }
  EXPECT_NEAR(firm, constant(e, "enterprise_value"), 1e-6 * firm);
  // The weight is the debt over debt and the equity that the model finds: 300 / (300 + E).
  EXPECT_NEAR(weight(0), 300 / (300 + constant(e, "equity_value")), 1e-8);
}

TEST_F(FurtherMethods, WithoutDebtBothFlowsAreWorthTheSame) {
  EXPECT_NEAR(constant(m_.evaluate(), "value_by_flows"), 150, 1e-6);
  assume("revenue_growth", 0.03);
  assume("payout", 0);  // else a revolver pays for the growth
  choose("terminal_growth", 0.01);
  choose("mid_year", 1);
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(constant(e, "value_by_flows"), constant(e, "value_per_share"), 1e-6);
}

TEST_F(FurtherMethods, WeightsMoveToTheTarget) {
  grow();
  choose("target_debt_weight", 0.4);
  choose("weights_glide_years", 4);
  const Evaluation e = m_.evaluate();
  const double now = constant(e, "debt_weight");  // 300 / (1,000 + 300)
  EXPECT_NEAR(now, 300.0 / 1300, 1e-9);
  EXPECT_NEAR(year(e, "year_debt_weight", 1), now + (0.4 - now) * 0.5, 1e-12);
  EXPECT_NEAR(year(e, "year_debt_weight", 4), 0.4, 1e-12);
  choose("weights_glide_years", 0);
  choose("use_target_weights", 2);
  m_.filed["cash"] = test::figures({120, 120});
  m_.filed["total_assets"] = test::figures({770, 770});
  m_.filed["equity"] = m_.filed["total_equity"] = test::figures({420, 420});
  EXPECT_NEAR(constant(m_.evaluate(), "debt_weight"), 180.0 / 1180, 1e-9) << "less cash";
}

TEST_F(FurtherMethods, LeasesAndQuotedDebtHaveRatesAndWeightsOfTheirOwn) {
  grow();
  m_.filed["right_of_use"] = m_.filed["lease_liabilities"] = test::figures({100, 100});
  m_.filed["total_assets"] = test::figures({750, 750});
  m_.filed["total_liabilities"] = test::figures({450, 450});
  choose("lease_rate", 0.09);
  // 300 of debt at 5 % and 100 of leases at 9 %: 6 %.
  EXPECT_NEAR(year(m_.evaluate(), "debt_and_lease_cost", 0), 0.06, 1e-12);
  choose("debt_price", 0.8);
  EXPECT_NEAR(constant(m_.evaluate(), "debt_weight"), 320.0 / 1320, 1e-12) << "of 1,000 of equity";
}

TEST_F(FurtherMethods, StockPayAddedBackIsWorthWhatItIsAsACost) {
  grow();
  m_.filed["stock_pay"] = test::figures({40, 40});
  assume("stock_pay_ratio", 0.04);
  for (const int middle : {0, 1}) {
    for (const int rule : {0, 1, 2}) {
      choose("mid_year", middle);
      choose("terminal_rule", rule);
      choose("stock_pay_as_cost", 1);
      const Evaluation cost = m_.evaluate();
      choose("stock_pay_as_cost", 0);
      const Evaluation back = m_.evaluate();
      EXPECT_GT(constant(back, "enterprise_growth"), constant(cost, "enterprise_growth") + 100);
      for (const char* value : {"value_growth", "value_by_profit", "value_by_flows", "direct_value"})
        EXPECT_NEAR(constant(back, value), constant(cost, value), 1e-9 * constant(cost, value)) << value << rule;
      // Issued at the price of 100 in place of the value: a part of the claim more.
      EXPECT_NEAR(constant(back, "staff_under_value"),
                  constant(back, "staff_claim") * (constant(back, "going_value") / 100 - 1) / 10, 1e-9);
    }
  }
}

TEST_F(FurtherMethods, HurdlesAndReleveredBeta) {
  grow();
  assume("risk_free", 0.04);
  assume("equity_premium", 0.05);
  assume("unlevered_beta", 0.9);
  choose("beta_choice", 1);
  choose("use_target_weights", 1);
  choose("target_debt_weight", 0.2);
  // 0.9 (1 + 0.75 x 0.2 / 0.8) = 1.06875; 4 % + that x 5 % = 9.34375 %
  const Evaluation relevered = m_.evaluate();
  EXPECT_NEAR(year(relevered, "levered_beta", 0), 1.06875, 1e-12);
  EXPECT_NEAR(year(relevered, "wacc", 0), 0.8 * 0.0934375 + 0.2 * 0.05 * 0.75, 1e-12);
  choose("hurdle", 0.12);
  choose("hurdle_choice", 1);
  const Evaluation equity = m_.evaluate();
  EXPECT_NEAR(year(equity, "wacc", 0), 0.8 * 0.12 + 0.2 * 0.0375, 1e-12) << "it is weighted with debt";
  EXPECT_NEAR(year(equity, "part_hurdle", 0), 0.8 * (0.12 - 0.0934375), 1e-12);
  choose("hurdle_choice", 2);
  const Evaluation firm = m_.evaluate();
  EXPECT_NEAR(year(firm, "wacc", 3), 0.12, 1e-15);
  EXPECT_NEAR(year(firm, "cost_of_equity", 3), 0.0934375, 1e-12) << "shareholders' rate stays";
}

TEST_F(FurtherMethods, DilutionAtTheValueIsItsFixedPoint) {
  m_.givens["options"] = Figure::of(2);
  m_.givens["option_strike"] = Figure::of(60);
  choose("dilution_choice", 1);
  // V = 1,500 / (10 + 2 (1 - 60/V)), so 10 V + 2 V - 120 = 1,500 and V = 135.
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(constant(e, "value_per_share"), 135, 1e-6);
  // A convertible of 5 shares for 500: each worth more than 100, so it is shares: V = (1,500 + 120) / 17.
  m_.givens["convertible_shares"] = Figure::of(5);
  m_.givens["convertible_face"] = Figure::of(400);
  m_.filed["borrowings_long"] = test::figures({400, 400});
  m_.filed["equity"] = m_.filed["total_equity"] = test::figures({200, 200});
  m_.filed["total_liabilities"] = test::figures({450, 450});
  choose("use_target_weights", 1);
  choose("target_debt_weight", 0);
  EXPECT_NEAR(constant(m_.evaluate(), "value_per_share"), (1500 + 120) / 17.0, 1e-6);
}

TEST_F(FurtherMethods, ExitMultiplesOfWhatIsChosen) {
  choose("terminal_choice", 1);
  choose("exit_multiple", 7.5);
  const std::pair<int, double> kAmounts[] = {{0, 250}, {1, 200}, {2, 150}, {3, 150}};
  for (const auto& [metric, amount] : kAmounts) {
    choose("exit_metric", metric);
    const Evaluation e = m_.evaluate();
    EXPECT_NEAR(constant(e, "exit_terminal"), 7.5 * amount, 1e-6) << metric;
    EXPECT_NEAR(constant(e, "implied_multiple"), 1500 / amount, 1e-6) << metric;
  }
  // A multiple of price gives equity: 200 of debt is added to 10 times earnings before it is the firm's.
  m_.filed["borrowings_long"] = test::figures({200, 200});
  m_.filed["equity"] = m_.filed["total_equity"] = test::figures({400, 400});
  m_.filed["total_liabilities"] = test::figures({250, 250});
  choose("exit_multiple", 10);
  EXPECT_NEAR(constant(m_.evaluate(), "exit_terminal"), 1500 + 200, 1e-6);
}

TEST_F(FurtherMethods, TheModelRunOneYearFurther) {
  choose("terminal_rule", 2);
  EXPECT_NEAR(constant(m_.evaluate(), "enterprise_growth"), 1500, 1e-6) << "it stands still there, too";
  choose("terminal_growth", 0.02);
  // Revenue 1,020: EBITDA 255, depreciation 50 of opening assets, NOPAT 153.75; capex 51, working capital grows by 2.
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(constant(e, "terminal_flow"), 153.75 + 50 - 51 - 2, 1e-9);
  EXPECT_NEAR(constant(e, "growth_terminal"), 150.75 / 0.08, 1e-6);
  EXPECT_NEAR(e.figure("revenue", e.layout().columns(), 1).value(), 1020, 1e-9);
  EXPECT_EQ(e.layout().forecastYears, 5) << "no year is added to the forecast";
}

TEST_F(FurtherMethods, DirectValueInStages) {
  choose("direct_base", 4);
  choose("direct_amount", 100);
  choose("direct_growth", 0.08);
  choose("direct_years", 4);
  choose("direct_later_growth", 0.10);  // the required return itself: each of these years is worth as much
  choose("direct_later_years", 3);
  choose("direct_lasting_growth", 0.02);
  double flow = 100, value = 0, discount = 1;
  for (int y = 0; y < 7; ++y) {
    flow *= y < 4 ? 1.08 : 1.10;
    discount *= 1.1;
    value += flow / discount;
  }
  value += flow * 1.02 / 0.08 / discount;
  EXPECT_NEAR(constant(m_.evaluate(), "direct_value"), value / 10, 1e-9);
  // Where new equity earns the required return growth adds nothing: next year's 150 x 1.02 over 10 % is all.
  choose("direct_base", 2);
  choose("direct_return", 0.10);
  for (const char* growth : {"direct_growth", "direct_later_growth", "direct_lasting_growth"}) choose(growth, 0.02);
  EXPECT_NEAR(constant(m_.evaluate(), "direct_value"), 153, 1e-7);
  choose("direct_lasting_growth", 0.11);
  EXPECT_THAT(m_.evaluate().constant("direct_value", 1).reason(), testing::HasSubstr("does not exceed growth"));
}

TEST_F(FurtherMethods, DatedTargetFailureAndClaims) {
  // 150 today at 10 %, with 15 a share paid each year: 165 - 15, then 165 - 15 again.
  choose("target_years", 2);
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(constant(e, "target_value"), 150 * 1.21 - 15 * 1.1 - 15, 1e-6);
  EXPECT_NEAR(constant(e, "target_return"), (150 + 30) / 100.0 - 1, 1e-8);
  choose("failure_probability", 0.2);
  choose("recovery", 30);
  EXPECT_NEAR(constant(m_.evaluate(), "value_per_share"), 0.8 * 150 + 0.2 * 30, 1e-6);
  choose("failure_probability", 0);
  // Minorities earn 5: at ten times that 50, at book 40, as typed 70.
  m_.filed["minorities"] = test::figures({40, 40});
  m_.filed["minority_income"] = test::figures({5, 5});
  m_.filed["equity"] = test::figures({560, 560});
  EXPECT_NEAR(constant(m_.evaluate(), "minorities_value"), 40, 1e-12) << "no multiple is known";
  m_.givens["peers_price_to_earnings_median"] = Figure::of(10);
  EXPECT_NEAR(constant(m_.evaluate(), "minorities_value"), 50, 1e-12);
  choose("minorities_typed", 70);
  EXPECT_NEAR(constant(m_.evaluate(), "minorities_value"), 70, 1e-12);
  choose("minorities_choice", 1);
  EXPECT_NEAR(constant(m_.evaluate(), "minorities_value"), 40, 1e-12);
}

TEST_F(FurtherMethods, TheGapOfTheTwoFlowsHasItsCauses) {
  // 300 of debt that stays, at 5 %, in a firm that stands still: at its own weights the two ways agree.
  grow();
  assume("revenue_growth", 0);
  assume("capex_ratio", 0.05);
  choose("terminal_growth", 0);
  choose("use_target_weights", 3);
  assume("payout", 1);
  const Evaluation same = m_.evaluate();
  const double whole = constant(same, "enterprise_value");
  EXPECT_NEAR(constant(same, "shareholder_gap"), 0, 1e-6 * whole);
  EXPECT_NEAR(constant(same, "shareholder_weights_gap"), 0, 1e-6 * whole);
  // Borrowing at 7 % instead: 300 x 2 % x 0.75 = 4.5 a year for ever at the cost of equity. The firm's value knows
  // nothing of it.
  assume("borrowing_rate", 0.07);
  const Evaluation dear = m_.evaluate();
  const double equityRate = year(dear, "cost_of_equity", 0);
  EXPECT_NEAR(constant(dear, "enterprise_value"), whole, 1e-6 * whole);
  EXPECT_NEAR(constant(dear, "shareholder_gap"), 4.5 / equityRate, 1e-5 * whole);
  EXPECT_NEAR(constant(dear, "shareholder_rate_gap"), 4.5 / equityRate, 1e-6);
  EXPECT_NEAR(constant(dear, "shareholder_averaging"), 0, 1e-6);
  EXPECT_NEAR(constant(dear, "shareholder_weights_gap"), 0, 1e-5 * whole);
  // Debt that grows pays on its average: half a year's growth of interest more.
  assume("borrowing_rate", 0.05);
  assume("debt_growth", 0.1);
  const Evaluation growing = m_.evaluate();
  double averaging = 0;
  for (int y = 0; y < 5; ++y)
    averaging += 0.05 * 0.5 * 0.1 * 300 * std::pow(1.1, y) * 0.75 * year(growing, "equity_factor", y);
  EXPECT_NEAR(constant(growing, "shareholder_averaging"), averaging, 1e-6);
  EXPECT_NEAR(constant(growing, "shareholder_gap"),
              averaging + constant(growing, "shareholder_rate_gap") + constant(growing, "shareholder_timing_gap") +
                  constant(growing, "shareholder_weights_gap"),
              1e-9 * whole);
  EXPECT_GT(std::fabs(constant(growing, "shareholder_weights_gap")), 1) << "debt grows and the flow does not";
  // Half a year earlier, at the WACC and at the cost of equity.
  assume("debt_growth", 0);
  choose("mid_year", 1);
  choose("use_target_weights", 1);
  choose("target_debt_weight", 300 / whole);
  const Evaluation middle = m_.evaluate();
  const double wacc = year(middle, "wacc", 0);
  EXPECT_NEAR(constant(middle, "shareholder_timing_gap"),
              (whole - 300) * (1 - std::sqrt(1 + equityRate)) - whole * (1 - std::sqrt(1 + wacc)), 1e-4 * whole);
  EXPECT_NEAR(constant(middle, "shareholder_weights_gap"), 0, 1e-5 * whole);
}

TEST_F(FurtherMethods, GrowthThatIsRealTakesInflationOnce) {
  assume("revenue_growth", 0.02);
  choose("terminal_growth", 0.01);
  choose("growth_basis", 1);
  EXPECT_FALSE(m_.evaluate().constant("value_per_share", 1).hasValue()) << "no inflation is known";
  m_.givens["inflation"] = Figure::of(0.03);
  const Evaluation real = m_.evaluate();
  EXPECT_NEAR(year(real, "revenue", 0), 1000 * 1.02 * 1.03, 1e-9);
  EXPECT_NEAR(constant(real, "lasting_growth"), 1.01 * 1.03 - 1, 1e-15);
  // The same growth said in money is the same company.
  choose("growth_basis", 0);
  assume("revenue_growth", 1.02 * 1.03 - 1);
  choose("terminal_growth", 1.01 * 1.03 - 1);
  EXPECT_NEAR(constant(m_.evaluate(), "value_per_share"), constant(real, "value_per_share"), 1e-9);
}

TEST_F(FurtherMethods, AMultipleSeenWithResearchAsACostIsRescaled) {
  m_.filed["research_expense"] = test::figures({60, 60});
  assume("research_ratio", 0.06);
  choose("terminal_choice", 1);
  choose("exit_multiple", 8);
  const double cost = constant(m_.evaluate(), "exit_terminal");  // 8 x 250
  EXPECT_NEAR(cost, 2000, 1e-6);
  choose("research_life", 3);
  const Evaluation capital = m_.evaluate();
  EXPECT_NEAR(constant(capital, "exit_amount"), 310, 1e-6) << "EBITDA before research";
  EXPECT_NEAR(constant(capital, "exit_terminal"), cost, 1e-6) << "8 x 250 / 310 of 310";
  choose("exit_basis", 1);
  EXPECT_NEAR(constant(m_.evaluate(), "exit_terminal"), 8 * 310, 1e-6) << "stated on the chosen basis";
}

TEST_F(FurtherMethods, WhatAssociatesMinoritiesAndPreferredAreWorth) {
  m_.filed["associates"] = test::figures({80, 80});
  m_.filed["minorities"] = test::figures({40, 40});
  m_.filed["preferred"] = test::figures({50, 50});
  m_.filed["total_assets"] = test::figures({730, 730});
  m_.filed["total_equity"] = test::figures({680, 680});
  m_.filed["equity"] = test::figures({590, 590});
  assume("associate_return", 9.0 / 80);
  EXPECT_NEAR(constant(m_.evaluate(), "associates_value"), 80, 1e-12) << "no multiple is known: book";
  m_.givens["peers_price_to_earnings_median"] = Figure::of(12);
  const Evaluation income = m_.evaluate();
  EXPECT_NEAR(constant(income, "associates_value"), 9 * 12, 1e-12);
  EXPECT_NEAR(constant(income, "associates_effect"), (108 - 80) / 10.0, 1e-12);
  choose("associates_market", 500);
  choose("associates_holding", 0.3);
  choose("minorities_market", 400);
  choose("minorities_holding", 0.25);
  choose("preferred_price", 0.9);
  const Evaluation quoted = m_.evaluate();
  EXPECT_NEAR(constant(quoted, "associates_value"), 150, 1e-12) << "30 % of 500";
  EXPECT_NEAR(constant(quoted, "minorities_value"), 100, 1e-12) << "25 % of 400";
  EXPECT_NEAR(constant(quoted, "minorities_effect"), -6, 1e-12);
  EXPECT_NEAR(constant(quoted, "other_claims"), 100 + 45, 1e-12);
  EXPECT_NEAR(constant(quoted, "preferred_weight"), 45.0 / 1045, 1e-12) << "of 1,000 of equity";
  choose("associates_choice", 1);
  EXPECT_NEAR(constant(m_.evaluate(), "associates_value"), 80, 1e-12);
}

TEST_F(FurtherMethods, DirectValueBeginsWithWhatIsExpectedAndTargetsAreRounded) {
  choose("direct_base", 4);
  choose("direct_amount", 100);
  choose("direct_growth", 0.05);
  choose("direct_years", 5);
  choose("direct_later_years", 0);
  choose("direct_lasting_growth", 0.02);
  choose("direct_start", 1);
  m_.givens["expected_cash_1"] = Figure::of(120);
  m_.givens["expected_cash_2"] = Figure::of(90);
  // Nobody says what the third year brings: 90 grown by 5 %, and so on.
  const double flows[] = {120, 90, 94.5, 94.5 * 1.05, 94.5 * 1.05 * 1.05};
  double value = 0, discount = 1;
  for (const double flow : flows) value += flow / (discount *= 1.1);
  value += flows[4] * 1.02 / 0.08 / discount;
  EXPECT_NEAR(constant(m_.evaluate(), "direct_value"), value / 10, 1e-9);
  choose("direct_years", 1);
  EXPECT_NEAR(constant(m_.evaluate(), "direct_value"), (120 / 1.1 + 120 * 1.02 / 0.08 / 1.1) / 10, 1e-9);
  // 165 - 15 = 150 a year on; in steps of 40 that is 160.
  EXPECT_NEAR(constant(m_.evaluate(), "target_rounded"), 150, 1e-6) << "not rounded until a step is chosen";
  choose("target_step", 40);
  EXPECT_NEAR(constant(m_.evaluate(), "target_rounded"), 160, 1e-9);
  EXPECT_NEAR(constant(m_.evaluate(), "target_value"), 150, 1e-6);
}

}  // namespace
}  // namespace zl
