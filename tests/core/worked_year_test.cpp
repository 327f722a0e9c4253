// One forecast year of the shipped model worked by hand, line by line, on a company with every
// line in use. All figures in millions; the arithmetic stands beside each expectation.

#include "tests/support/model_support.h"

namespace zl {
namespace {

class WorkedYear : public testing::Test {
 protected:
  void SetUp() override {
    // The base year's balance sheet: assets 1,140 = liabilities 540 + equity 600.
    m_ = test::companyWith(3, {{"revenue", 1000},
                               {"cost_of_sales", 600},
                               {"operating_expenses", 200},
                               {"depreciation", 60},
                               {"ebit", 140},
                               {"interest_expense", 12},
                               {"interest_income", 2},
                               {"pretax_profit", 130},
                               {"tax", 30},
                               {"net_income", 100},
                               {"minority_income", 5},
                               {"cash", 100},
                               {"receivables", 150},
                               {"inventory", 120},
                               {"other_current_assets", 30},
                               {"plant", 400},
                               {"right_of_use", 60},
                               {"intangibles", 40},
                               {"goodwill", 150},
                               {"associates", 50},
                               {"other_noncurrent_assets", 40},
                               {"total_assets", 1140},
                               {"payables", 90},
                               {"other_current_liabilities", 70},
                               {"borrowings_current", 50},
                               {"borrowings_long", 200},
                               {"lease_liabilities", 60},
                               {"pension_deficit", 40},
                               {"other_noncurrent_liabilities", 30},
                               {"total_liabilities", 540},
                               {"equity", 550},
                               {"minorities", 30},
                               {"preferred", 20},
                               {"total_equity", 600},
                               {"tax_losses", 25},
                               {"shares", 10}});
    const std::pair<const char*, double> kDrivers[] = {
        {"revenue_growth", 0.10},
        {"cost_of_sales_ratio", 0.60},
        {"operating_expense_ratio", 0.20},
        {"exceptional_ratio", 0.01},
        {"tax_rate", 0.25},
        {"capex_ratio", 0.06},
        {"intangible_share", 0.10},
        {"new_lease_ratio", 0.01},
        {"depreciation_rate", 0.12},
        {"acquisition_ratio", 0.02},
        {"receivable_days", 54.75},
        {"inventory_days", 73},
        {"payable_days", 54.75},
        {"other_current_asset_ratio", 0.03},
        {"other_current_liability_ratio", 0.07},
        {"borrowing_rate", 0},
        {"cash_yield", 0},
        {"debt_growth", 0.04},
        {"lease_repayment_rate", 0.2},
        {"minimum_cash_ratio", 0},
        {"other_income_ratio", 0.004},
        {"minority_share", 0.05},
        {"payout", 0.5},
        {"buyback_payout", 0.1},
        {"price_growth", 0.05},
        {"stock_pay_ratio", 0.005},
        {"preferred_rate", 0.05},
        {"cost_of_debt", 0.04},
    };
    for (const auto& [row, level] : kDrivers) assume(row, level);
  }

  void assume(const std::string& row, double level) {
    Path path;
    path.level = level;
    m_.theCase.scenarios[1].drivers[row] = {path, {}};
  }
  void choose(const std::string& row, double figure) { m_.theCase.scenarios[1].inputs[row] = {figure, {}, {}}; }
  double year(const Evaluation& e, const char* row, int column = 2) {
    const Figure f = e.figure(row, column, 1);
    EXPECT_TRUE(f.hasValue()) << row << ": " << f.reason();
    return f.valueOr(0);
  }

  test::SmallModel m_;
};

TEST_F(WorkedYear, IncomeStatement) {
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(year(e, "revenue"), 1100, 1e-9);
  EXPECT_NEAR(year(e, "cost_of_sales"), 660, 1e-9);
  EXPECT_NEAR(year(e, "ebitda"), 220, 1e-9);       // 1,100 - 660 - 220
  EXPECT_NEAR(year(e, "depreciation"), 60, 1e-9);  // 12 % of 400 + 60 + 40
  EXPECT_NEAR(year(e, "ebit"), 149, 1e-9);         // 220 - 60 - 11
  EXPECT_NEAR(year(e, "other_income"), 4.4, 1e-9);
  EXPECT_NEAR(year(e, "pretax_profit"), 153.4, 1e-9);
  EXPECT_NEAR(year(e, "losses_used"), 25, 1e-9);
  EXPECT_NEAR(year(e, "tax"), 32.1, 1e-9);  // 25 % of 153.4 - 25
  EXPECT_NEAR(year(e, "net_income"), 121.3, 1e-9);
  EXPECT_NEAR(year(e, "minority_income"), 6.065, 1e-9);
  EXPECT_NEAR(year(e, "preferred_dividends"), 1, 1e-9);
  EXPECT_NEAR(year(e, "net_income_common"), 114.235, 1e-9);
  EXPECT_NEAR(year(e, "tax_losses"), 0, 1e-9);
}

TEST_F(WorkedYear, CashFlowStatement) {
  const Evaluation e = m_.evaluate();
  // Working capital: 165 + 132 + 33 - 99 - 77 = 154, before 150 + 120 + 30 - 90 - 70 = 140.
  EXPECT_NEAR(year(e, "working_capital_increase"), 14, 1e-9);
  EXPECT_NEAR(year(e, "operating_cash_flow"), 172.8, 1e-9);  // 121.3 + 60 + 5.5 - 14
  EXPECT_NEAR(year(e, "capex"), 66, 1e-9);
  EXPECT_NEAR(year(e, "plant_bought"), 59.4, 1e-9);
  EXPECT_NEAR(year(e, "acquisitions"), 22, 1e-9);
  EXPECT_NEAR(year(e, "net_borrowing"), 10, 1e-9);  // 4 % of 250
  EXPECT_NEAR(year(e, "lease_principal"), 12, 1e-9);
  EXPECT_NEAR(year(e, "dividends"), 57.1175, 1e-9);
  EXPECT_NEAR(year(e, "minority_dividends"), 3.0325, 1e-9);
  EXPECT_NEAR(year(e, "buybacks"), 11.4235, 1e-9);
  // 172.8 - 66 - 22 + 10 - 12 - 57.1175 - 3.0325 - 1 - 11.4235
  EXPECT_NEAR(year(e, "net_cash_movement"), 10.2265, 1e-9);
}

TEST_F(WorkedYear, BalanceSheet) {
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(year(e, "cash"), 110.2265, 1e-9);
  EXPECT_NEAR(year(e, "receivables"), 165, 1e-9);  // 54.75 / 365 of 1,100
  EXPECT_NEAR(year(e, "inventory"), 132, 1e-9);    // a fifth of 660
  EXPECT_NEAR(year(e, "payables"), 99, 1e-9);
  EXPECT_NEAR(year(e, "plant"), 411.4, 1e-9);        // 400 * 0.88 + 59.4
  EXPECT_NEAR(year(e, "right_of_use"), 63.8, 1e-9);  // 60 * 0.88 + 11
  EXPECT_NEAR(year(e, "intangibles"), 41.8, 1e-9);   // 40 * 0.88 + 6.6
  EXPECT_NEAR(year(e, "goodwill"), 172, 1e-9);
  EXPECT_NEAR(year(e, "debt"), 260, 1e-9);
  EXPECT_NEAR(year(e, "lease_liabilities"), 59, 1e-9);  // 60 + 11 - 12
  EXPECT_NEAR(year(e, "equity"), 601.194, 1e-9);        // 550 + 114.235 - 57.1175 - 11.4235 + 5.5
  EXPECT_NEAR(year(e, "minorities"), 33.0325, 1e-9);
  EXPECT_NEAR(year(e, "total_assets"), 1219.2265, 1e-9);
  EXPECT_NEAR(year(e, "total_liabilities"), 565, 1e-9);
  EXPECT_NEAR(year(e, "balance_gap"), 0, 1e-9);
}

TEST_F(WorkedYear, FreeCashFlowAndCapital) {
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(year(e, "operating_tax"), 31, 1e-9);  // 25 % of 149 - 25
  EXPECT_NEAR(year(e, "nopat"), 118, 1e-9);
  EXPECT_NEAR(year(e, "fcff"), 65, 1e-9);  // 118 + 60 - 66 - 11 - 14 - 22
  EXPECT_NEAR(year(e, "fcff_from_cash_flow"), 65, 1e-9);
  EXPECT_NEAR(year(e, "reinvestment"), 31, 1e-9) << "what was paid for businesses is no reinvestment unless so chosen";
  choose("reinvestment_choice", 1);
  const Evaluation with = m_.evaluate();
  EXPECT_NEAR(year(with, "reinvestment"), 53, 1e-9);
  EXPECT_NEAR(year(with, "fcff"), 65, 1e-9) << "free cash flow is after it either way";
  // Other: 40 - 30 - 40 * 25 % = 0. 140 + 500 + 150 = 790 before; 154 + 517 + 172 = 843 after.
  EXPECT_NEAR(year(e, "invested_capital", 1), 790, 1e-9);
  EXPECT_NEAR(year(e, "invested_capital"), 843, 1e-9);
  EXPECT_NEAR(year(e, "financing_capital", 1), 790, 1e-9);  // 250 + 60 + 30 + 20 + 550 + 30 - 100 - 50
  EXPECT_NEAR(year(e, "financing_capital"), 843, 1e-9);
  EXPECT_NEAR(year(e, "roic"), 118 / 816.5, 1e-12);
}

TEST_F(WorkedYear, BothSidesOfInvestedCapitalAgreeInEveryYear) {
  const Evaluation e = m_.evaluate();
  for (int c = 0; c < 5; ++c) EXPECT_NEAR(year(e, "invested_capital", c), year(e, "financing_capital", c), 1e-8) << c;
}

TEST_F(WorkedYear, LeasesAsRentLeaveProfitCapitalAndClaims) {
  assume("borrowing_rate", 0.05);
  choose("leases_as_debt", 0);
  const Evaluation e = m_.evaluate();
  // Principal 12 and 5 % of (60 + 59) / 2 are paid; 12 % of 60 would have been depreciated.
  EXPECT_NEAR(year(e, "rent"), 14.975, 1e-9);
  EXPECT_NEAR(year(e, "basis_ebitda"), 205.025, 1e-9);    // 220 - 14.975
  EXPECT_NEAR(year(e, "basis_ebit"), 141.225, 1e-9);      // 149 - 14.975 + 7.2
  EXPECT_NEAR(year(e, "operating_tax"), 29.05625, 1e-9);  // 25 % of 141.225 - 25
  EXPECT_NEAR(year(e, "nopat"), 112.16875, 1e-9);
  EXPECT_NEAR(year(e, "fcff"), 62.96875, 1e-9);  // 112.16875 + 52.8 - 66 - 14 - 22, no new leases
  EXPECT_NEAR(year(e, "fcff_gap"), 0, 1e-9);
  EXPECT_NEAR(year(e, "counted_interest"), year(e, "interest_expense") - 2.975, 1e-9);
  EXPECT_NEAR(year(e, "net_debt", 1), 150, 1e-9);                  // 250 - 100
  EXPECT_NEAR(year(e, "invested_capital", 1), 730, 1e-9);          // 790 less 60 of right-of-use assets
  EXPECT_NEAR(year(e, "debt_to_capital", 1), 250.0 / 800, 1e-12);  // the asset equals the liability: equity stays
  EXPECT_NEAR(e.constant("debt_claims", 1).value(), 250, 1e-9);
  // The filed year: gross interest shared by balances, 12 * 60 / 310; no lease principal is filed.
  EXPECT_NEAR(year(e, "rent", 1), 12.0 * 60 / 310, 1e-9);
  EXPECT_NEAR(year(e, "basis_ebit", 1), 140 - 12.0 * 60 / 310 + 60.0 * 60 / 500, 1e-9);
  EXPECT_NEAR(year(e, "interest_cover", 1), year(e, "basis_ebit", 1) / (12 - 12.0 * 60 / 310), 1e-9);
}

TEST_F(WorkedYear, StockPayAddedBackRaisesEveryFreeCashFlow) {
  choose("stock_pay_as_cost", 0);
  const Evaluation e = m_.evaluate();
  // 5.5 of stock pay; tax is on profit as filed.
  EXPECT_NEAR(year(e, "basis_ebitda"), 225.5, 1e-9);
  EXPECT_NEAR(year(e, "operating_tax"), 31, 1e-9);
  EXPECT_NEAR(year(e, "nopat"), 123.5, 1e-9);
  EXPECT_NEAR(year(e, "fcff"), 70.5, 1e-9);
  EXPECT_NEAR(year(e, "fcff_gap"), 0, 1e-9);
  EXPECT_NEAR(year(e, "simple_fcf"), 172.8 - 66 - 12, 1e-9);
  EXPECT_NEAR(year(e, "walk_free"), year(e, "simple_fcf"), 1e-9);
}

TEST_F(WorkedYear, ResearchAsCapitalMovesProfitAndCapitalButNoCash) {
  m_.filed["research_expense"] = {Figure::of(30), Figure::of(40)};
  assume("research_ratio", 0.04);  // 44 of 1,100
  choose("research_life", 2);
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(year(e, "research_written_off"), 35, 1e-9);  // halves of 40 and 30
  EXPECT_NEAR(year(e, "research_asset"), 64, 1e-9);        // 44 + half of 40
  EXPECT_NEAR(year(e, "research_asset", 1), 55, 1e-9);     // 40 + half of 30
  EXPECT_NEAR(year(e, "nopat"), 127, 1e-9);                // 118 + 44 - 35
  EXPECT_NEAR(year(e, "fcff"), 65, 1e-9) << "cash is cash";
  EXPECT_NEAR(year(e, "fcff_gap"), 0, 1e-9);
  EXPECT_NEAR(year(e, "invested_capital"), 843 + 64, 1e-9);
  EXPECT_NEAR(year(e, "financing_capital"), 843 + 64, 1e-9);
  EXPECT_NEAR(year(e, "roic"), 127 / ((790 + 55 + 843 + 64) / 2.0), 1e-12);
  EXPECT_TRUE(e.figure("research_written_off", 1, 1).isAbsent()) << "the year before the first is not filed";
}

TEST_F(WorkedYear, EveryBasisReconcilesInEveryYear) {
  m_.filed["research_expense"] = {Figure::of(30), Figure::of(40)};
  assume("borrowing_rate", 0.05);
  for (const double leases : {0.0, 1.0}) {
    for (const double pay : {0.0, 1.0}) {
      for (const double life : {0.0, 1.0, 1.5}) {
        SCOPED_TRACE(testing::Message() << leases << ' ' << pay << ' ' << life);
        choose("leases_as_debt", leases);
        choose("stock_pay_as_cost", pay);
        choose("research_life", life);
        const Evaluation e = m_.evaluate();
        for (int c = 2; c < 5; ++c) {
          EXPECT_NEAR(year(e, "fcff_gap", c), 0, 1e-9);
          EXPECT_NEAR(year(e, "invested_capital", c), year(e, "financing_capital", c), 1e-8);
          // What research adds to capital is what the asset grows by, whatever the life.
          if (c == 2) continue;
          EXPECT_NEAR(year(e, "research_asset", c) - year(e, "research_asset", c - 1),
                      year(e, "capitalised_research", c) - year(e, "research_written_off", c), 1e-9);
        }
      }
    }
  }
}

TEST_F(WorkedYear, RatiosOfTheLastFiledYear) {
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(year(e, "gross_margin", 1), 0.40, 1e-12);
  EXPECT_NEAR(year(e, "ebitda_margin", 1), 0.20, 1e-12);
  EXPECT_NEAR(year(e, "net_margin", 1), 0.095, 1e-12);  // 100 - 5 over 1,000
  EXPECT_NEAR(year(e, "roe", 1), 95.0 / 550, 1e-12);
  EXPECT_NEAR(year(e, "interest_cover", 1), 140.0 / 12, 1e-12);
  EXPECT_NEAR(year(e, "debt_to_capital", 1), 310.0 / 860, 1e-12);
  EXPECT_NEAR(year(e, "net_debt_to_ebitda", 1), 210.0 / 200, 1e-12);
  EXPECT_NEAR(year(e, "average_receivable_days", 1), 54.75, 1e-12);
  EXPECT_NEAR(year(e, "cash_cycle", 1), 54.75 + 73 - 54.75, 1e-9);
  EXPECT_NEAR(year(e, "sales_to_capital", 1), 1000.0 / 790, 1e-12);
  EXPECT_TRUE(e.figure("roe", 0, 1).isAbsent()) << "the oldest year has no opening balance";
  EXPECT_TRUE(e.figure("cost_of_debt", 0, 1).isAbsent());
  EXPECT_NEAR(year(e, "cost_of_debt", 1), 12.0 / 310, 1e-12);
}

TEST_F(WorkedYear, CostOfCapitalAtMarketAndAtTargetWeights) {
  assume("risk_free", 0.03);
  assume("beta", 1.2);
  assume("equity_premium", 0.05);
  assume("country_premium", 0.02);
  assume("country_exposure", 0.5);
  assume("size_addition", 0.01);
  choose("cost_of_preferred", 0.06);
  Evaluation e = m_.evaluate();
  EXPECT_NEAR(year(e, "cost_of_equity"), 0.11, 1e-12);  // 3 + 1.2 * 5 + 0.5 * 2 + 1 per cent
  // Equity 100 * 10 = 1,000, debt and leases 310, preferred 20: together 1,330.
  EXPECT_NEAR(year(e, "wacc"), (0.11 * 1000 + 0.04 * 0.75 * 310 + 0.06 * 20) / 1330, 1e-12);
  choose("use_target_weights", 1);
  choose("target_debt_weight", 0.3);
  e = m_.evaluate();
  EXPECT_NEAR(year(e, "wacc"), 0.11 * 0.7 + 0.03 * 0.3, 1e-12);
}

TEST_F(WorkedYear, OperatingCashIsWorkingCapitalEverywhere) {
  choose("operating_cash_share", 0.05);
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(year(e, "spare_cash", 1), 50, 1e-9);
  EXPECT_NEAR(year(e, "net_debt", 1), 260, 1e-9);  // 310 - 50
  EXPECT_NEAR(year(e, "fcff"), 60, 1e-9);          // 65 less 5 % of 100 more revenue
  EXPECT_NEAR(year(e, "fcff_gap"), 0, 1e-9);
  EXPECT_NEAR(year(e, "invested_capital"), year(e, "financing_capital"), 1e-9);
}

TEST_F(WorkedYear, TheBridgeCountsEveryClaimOnce) {
  const Evaluation e = m_.evaluate();
  const auto constant = [&](const char* row) { return e.constant(row, 1).value(); };
  // Valued at the balance sheet date: net debt 210, pension after tax 30, minorities 30, preferred 20.
  EXPECT_NEAR(constant("net_debt_dated"), 210, 1e-9);
  EXPECT_NEAR(constant("other_claims"), 80, 1e-9);
  EXPECT_NEAR(constant("equity_value"), constant("enterprise_value") - 210 + 50 - 80, 1e-6);
}

TEST_F(WorkedYear, BuybacksRetireSharesAtTheProjectedPrice) {
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(year(e, "projected_price"), 105, 1e-9);
  EXPECT_NEAR(year(e, "shares"), 10 - 11.4235 / 105, 1e-9);
  EXPECT_NEAR(year(e, "shares", 3), year(e, "shares") - year(e, "buybacks", 3) / 110.25, 1e-9);
  EXPECT_NEAR(year(e, "earnings_per_share"), 114.235 / year(e, "shares"), 1e-9);
}

TEST_F(WorkedYear, CapexIsSplitIntoUpkeepAndGrowth) {
  Evaluation e = m_.evaluate();
  EXPECT_NEAR(year(e, "upkeep_capex"), 52.8, 1e-9);  // depreciation of 60 less 12 % of leases of 60
  EXPECT_NEAR(year(e, "growth_capex"), 13.2, 1e-9);  // 66 - 52.8
  choose("capex_choice", 1);
  assume("upkeep_ratio", 0.9);
  assume("growth_capex_ratio", 0.3);
  e = m_.evaluate();
  EXPECT_NEAR(year(e, "capex"), 77.52, 1e-9);  // 0.9 * 52.8 + 0.3 * 100
  EXPECT_NEAR(year(e, "upkeep_capex"), 47.52, 1e-9);
  EXPECT_NEAR(year(e, "growth_capex"), 30, 1e-9);
  EXPECT_NEAR(year(e, "plant"), 421.768, 1e-9);  // 352 + 0.9 * 77.52
  EXPECT_NEAR(year(e, "balance_gap"), 0, 1e-9);
}

TEST_F(WorkedYear, TheTaxRateGlidesToTheMarginalOne) {
  choose("marginal_tax", 0.35);
  choose("tax_glide_years", 2);
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(year(e, "applied_tax_rate"), 0.30, 1e-12);
  EXPECT_NEAR(year(e, "applied_tax_rate", 3), 0.35, 1e-12);
  EXPECT_NEAR(year(e, "applied_tax_rate", 4), 0.35, 1e-12) << "and stays there";
  EXPECT_NEAR(year(e, "tax"), 38.52, 1e-9);           // 30 % of 153.4 - 25
  EXPECT_NEAR(year(e, "operating_tax"), 37.2, 1e-9);  // 30 % of 149 - 25
  EXPECT_NEAR(year(e, "fcff_gap"), 0, 1e-9);
}

TEST_F(WorkedYear, DividendsMayBeAnAmountAShare) {
  m_.filed["dividends"] = test::figures({40, 40});
  choose("dividend_choice", 1);
  assume("dividend_growth", 0.1);
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(year(e, "declared_dividend", 1), 4, 1e-9);  // 40 on ten shares
  EXPECT_NEAR(year(e, "dividends"), 44, 1e-9);
  EXPECT_NEAR(year(e, "dividends", 3), 4.84 * year(e, "shares"), 1e-9) << "on the shares as the year begins";
  EXPECT_NEAR(year(e, "balance_gap", 3), 0, 1e-9);
}

TEST_F(WorkedYear, BuybacksMayBeAScheduleOfAmounts) {
  choose("buyback_choice", 1);
  assume("buyback_amount", 21);
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(year(e, "buybacks"), 21, 1e-9);
  EXPECT_NEAR(year(e, "shares"), 9.8, 1e-9);  // 21 at 105 a share
  EXPECT_NEAR(year(e, "balance_gap"), 0, 1e-9);
}

TEST_F(WorkedYear, AssociatesEarnAfterTheirOwnTaxAndKeepWhatTheyDoNotPay) {
  assume("associate_return", 0.08);
  assume("associate_payout", 0.5);
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(year(e, "associate_income"), 4, 1e-9);  // 8 % of 50
  EXPECT_NEAR(year(e, "pretax_profit"), 157.4, 1e-9);
  EXPECT_NEAR(year(e, "tax"), 32.1, 1e-9) << "as without them";
  EXPECT_NEAR(year(e, "associates"), 52, 1e-9);
  EXPECT_NEAR(year(e, "operating_cash_flow"), 174.8, 1e-9);  // 172.8 and what is paid out of the 4
  EXPECT_NEAR(year(e, "fcff"), 65, 1e-9) << "they are no operation";
  for (const char* gap : {"fcff_gap", "balance_gap", "cash_gap"}) EXPECT_NEAR(year(e, gap), 0, 1e-9) << gap;
}

TEST_F(WorkedYear, APriceOfAcquisitionsBuysIntangiblesAndGoodwill) {
  assume("acquired_intangible_share", 0.25);
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(year(e, "goodwill"), 166.5, 1e-9);    // 150 + 22 * 0.75
  EXPECT_NEAR(year(e, "intangibles"), 47.3, 1e-9);  // 41.8 + 5.5
  EXPECT_NEAR(year(e, "acquired_intangibles"), 5.5, 1e-9);
  EXPECT_NEAR(year(e, "depreciation", 3), 0.12 * (411.4 + 63.8 + 47.3), 1e-9) << "written off with the others";
  EXPECT_NEAR(year(e, "balance_gap"), 0, 1e-9);
}

TEST_F(WorkedYear, ARevolverFillsWhatIsMissingAndIsRepaidFirst) {
  assume("operating_expense_ratio", 0.42);
  assume("payout", 0);
  Evaluation e = m_.evaluate();
  EXPECT_NEAR(year(e, "cash"), 0, 1e-6);
  EXPECT_GT(year(e, "revolver"), 0);
  EXPECT_NEAR(year(e, "balance_gap"), 0, 1e-6);
  Path better;
  better.shape = Shape::Typed;
  better.typed = {0.42, 0.10};
  m_.theCase.scenarios[1].drivers["operating_expense_ratio"].path = better;
  e = m_.evaluate();
  EXPECT_GT(year(e, "revolver", 2), 0);
  EXPECT_NEAR(year(e, "revolver", 3), 0, 1e-6);
  EXPECT_GT(year(e, "cash", 3), 0);
}

TEST_F(WorkedYear, NoDividendOrTaxIsProjectedFromALoss) {
  assume("operating_expense_ratio", 0.45);
  const Evaluation e = m_.evaluate();
  EXPECT_LT(year(e, "net_income"), 0);
  EXPECT_DOUBLE_EQ(year(e, "tax"), 0);
  EXPECT_DOUBLE_EQ(year(e, "dividends"), 0);
  EXPECT_DOUBLE_EQ(year(e, "buybacks"), 0);
  EXPECT_NEAR(year(e, "tax_losses"), 25 - year(e, "pretax_profit"), 1e-9) << "the loss joins the pool";
}

/// Each driver moves value the way it must; the sign is what economics says, not what we computed.
struct Direction {
  const char* driver;
  double low, high;
  int sign;  ///< of the change in value when the driver rises
};

class ValueMoves : public WorkedYear, public testing::WithParamInterface<Direction> {};

TEST_P(ValueMoves, TheRightWay) {
  const Direction& d = GetParam();
  assume("revenue_growth", 0.02);
  assume("risk_free", 0.06);
  assume(d.driver, d.low);
  const double low = m_.evaluate().constant("raw_value", 1).value();
  assume(d.driver, d.high);
  const double high = m_.evaluate().constant("raw_value", 1).value();
  EXPECT_GT((high - low) * d.sign, 0) << d.driver;
}

INSTANTIATE_TEST_SUITE_P(
    Drivers, ValueMoves,
    testing::Values(Direction{"cost_of_sales_ratio", 0.55, 0.6, -1},
                    Direction{"operating_expense_ratio", 0.18, 0.2, -1}, Direction{"exceptional_ratio", 0, 0.02, -1},
                    Direction{"tax_rate", 0.2, 0.3, -1}, Direction{"capex_ratio", 0.05, 0.07, -1},
                    Direction{"new_lease_ratio", 0, 0.02, -1}, Direction{"acquisition_ratio", 0, 0.02, -1},
                    Direction{"receivable_days", 50, 70, -1}, Direction{"inventory_days", 60, 90, -1},
                    Direction{"payable_days", 40, 60, 1}, Direction{"risk_free", 0.05, 0.07, -1},
                    Direction{"beta", 0.8, 1.2, -1}, Direction{"equity_premium", 0.04, 0.06, -1},
                    Direction{"country_premium", 0.01, 0.03, -1}, Direction{"size_addition", 0, 0.01, -1},
                    Direction{"cost_of_debt", 0.03, 0.06, -1}),
    [](const auto& c) { return std::string(c.param.driver); });

}  // namespace
}  // namespace zl
