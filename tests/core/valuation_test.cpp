// The shipped model against closed forms: a company that stands still is a perpetuity.

#include <cmath>

#include "core/valuation/implied_growth.h"
#include "tests/support/standing_still.h"

namespace zl {
namespace {

TEST_F(StandingStill, IsWorthItsPerpetuity) {
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(e.figure("fcff", 4, 1).value(), 150, 1e-9);
  EXPECT_NEAR(constant(e, "enterprise_growth"), 1500, 1e-6);    // 150 / 0.10
  EXPECT_NEAR(constant(e, "value_per_share"), 150, 1e-7);       // 1,500 / 10 shares
  EXPECT_NEAR(constant(e, "upside"), 0.5, 1e-9);                // 150 / 100 - 1
  EXPECT_NEAR(constant(e, "margin_of_safety"), 1.0 / 3, 1e-9);  // 1 - 100 / 150
  EXPECT_NEAR(constant(e, "price_above_value"), -1.0 / 3, 1e-9);
  EXPECT_NEAR(constant(e, "buy_below"), 105, 1e-7);  // 150 * (1 - 0.3)
}

TEST_F(StandingStill, MidYearFlowsAreWorthHalfAYearMore) {
  choose("mid_year", 1);
  EXPECT_NEAR(constant(m_.evaluate(), "enterprise_growth"), 1500 * std::sqrt(1.1), 1e-6);
}

TEST_F(StandingStill, AStubCountsOnlyWhatIsStillToCome) {
  m_.givens["stub"] = Figure::of(0.25);
  const Evaluation e = m_.evaluate();
  // A quarter of the first flow at the end of a quarter year, then 1,500 from there on; the three
  // quarters earned before the date are cash.
  const double factor = std::pow(1.1, -0.25);
  EXPECT_NEAR(constant(e, "enterprise_growth"), (150 * 0.25 + 1500) * factor, 1e-6);
  EXPECT_NEAR(constant(e, "net_debt_dated"), -150 * 0.75, 1e-9);
}

TEST_F(StandingStill, AYearThatEndedUnfiledIsCashAndIsNotDiscounted) {
  m_.givens["years_passed"] = Figure::of(1);
  m_.givens["stub"] = Figure::of(0.25);
  const Evaluation e = m_.evaluate();
  // The date lies three quarters into the second forecast year: the first year's 150 and 112.5 of the second are cash,
  // a quarter of the second's flow and the perpetuity after it are still to come.
  const double factor = std::pow(1.1, -0.25);
  EXPECT_NEAR(constant(e, "enterprise_growth"), (150 * 0.25 + 1500) * factor, 1e-6);
  EXPECT_NEAR(constant(e, "net_debt_dated"), -150 - 150 * 0.75, 1e-9);
}

/// The same company renting: 20 of its 250 operating expenses are the rent of operating leases with a liability of 80.
class Renting : public StandingStill {
 protected:
  void SetUp() override {
    StandingStill::SetUp();
    m_.filed["right_of_use"] = m_.filed["lease_liabilities"] = test::figures({80, 80});
    m_.filed["lease_cost"] = test::figures({20, 20});
    m_.filed["total_assets"] = test::figures({730, 730});
    m_.filed["total_liabilities"] = test::figures({130, 130});
    choose("lease_regime", 1);
    assume("borrowing_rate", 0.05);  // the liability implies interest of 4; 16 of the rent run it off
    assume("lease_repayment_rate", 0.2);
    assume("new_lease_ratio", 0.016);
  }
};

TEST_F(Renting, RentIsNeverChargedTogetherWithItsLiability) {
  choose("leases_as_debt", 0);
  const Evaluation rent = m_.evaluate();
  // As without any lease: rent was paid before EBIT, and nothing of the liability is owed besides.
  EXPECT_NEAR(constant(rent, "enterprise_growth"), 1500, 1e-6);
  EXPECT_NEAR(constant(rent, "net_debt_dated"), 0, 1e-9);
  EXPECT_NEAR(rent.figure("basis_ebitda", 3, 1).value(), 250, 1e-9);
  EXPECT_NEAR(rent.figure("depreciation_rate", 1, 1).value(), 0.1, 1e-12) << "of plant alone";
  EXPECT_NEAR(rent.figure("balance_gap", 4, 1).value(), 0, 1e-9);

  choose("leases_as_debt", 1);
  const Evaluation debt = m_.evaluate();
  // EBITDA 250 + 20, depreciation 50 + 16, EBIT 200 + 4; NOPAT 204 x 0.75, and 16 of new leases replace what ran off.
  EXPECT_NEAR(debt.figure("basis_ebitda", 3, 1).value(), 270, 1e-9);
  EXPECT_NEAR(debt.figure("basis_ebit", 3, 1).value(), 204, 1e-9);
  EXPECT_NEAR(debt.figure("fcff", 3, 1).value(), 204 * 0.75 + 66 - 50 - 16, 1e-9);
  EXPECT_NEAR(debt.figure("fcff_gap", 3, 1).value(), 0, 1e-9);
  EXPECT_NEAR(debt.figure("counted_interest", 3, 1).value(), 4, 1e-9);
  EXPECT_NEAR(constant(debt, "net_debt_dated"), 80, 1e-9);
  EXPECT_NEAR(debt.figure("basis_ebitda", 1, 1).value(), 270, 1e-9) << "history takes the filed rent";
}

TEST_F(StandingStill, GrowthAtTheDiscountRateAddsNoValue) {
  // Return on new capital = WACC: value driver gives NOPAT_{N+1} (1 - g/W) / (W - g) = NOPAT_{N+1}/W.
  choose("terminal_growth", 0.03);
  EXPECT_NEAR(constant(m_.evaluate(), "growth_terminal"), 150 * 1.03 / 0.10, 1e-6);
  choose("terminal_rule", 1);  // the simple rule, Gordon: 150 * 1.03 / (0.10 - 0.03)
  EXPECT_NEAR(constant(m_.evaluate(), "growth_terminal"), 150 * 1.03 / 0.07, 1e-6);
}

TEST_F(StandingStill, ARateNotAboveGrowthHasNoPerpetuity) {
  choose("terminal_growth", 0.10);
  const Evaluation e = m_.evaluate();
  for (const char* row : {"growth_terminal", "value_per_share", "upside", "buy_below"}) {
    EXPECT_EQ(e.constant(row, 1).reason(), "the discount rate does not exceed growth") << row;
  }
  EXPECT_TRUE(e.constant("value_exit", 1).hasValue());  // the other method stands
  EXPECT_THAT(weightedValue(e, model::Role::ValuePerShare).reason(), testing::HasSubstr("has no value"));
}

TEST_F(StandingStill, MultiplesAndGrowthImplyEachOther) {
  choose("exit_multiple", 6);  // 6 * 250 = 1,500: exactly the perpetuity without growth
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(constant(e, "implied_multiple"), 6, 1e-9);
  EXPECT_NEAR(constant(e, "implied_growth_simple"), 0, 1e-9);
  EXPECT_NEAR(constant(e, "value_exit"), 150, 1e-7);
}

TEST_F(StandingStill, NegativeEquityValueIsNoughtWithItsShortfallBeside) {
  m_.filed["pension_deficit"] = test::figures({3000, 3000});
  const Evaluation e = m_.evaluate();
  EXPECT_DOUBLE_EQ(constant(e, "value_per_share"), 0);
  EXPECT_NEAR(constant(e, "raw_value"), (1500 - 3000 * 0.75) / 10, 1e-6);
  EXPECT_NEAR(constant(e, "shortfall"), 75, 1e-6);
  EXPECT_TRUE(e.constant("margin_of_safety", 1).isNotMeaningful());
  EXPECT_NEAR(constant(e, "upside"), -1, 1e-12);
}

TEST_F(StandingStill, DilutionByTreasuryStockAndConversion) {
  m_.givens["options"] = Figure::of(2);
  m_.givens["option_strike"] = Figure::of(75);  // 2 * (1 - 75/100) = 0.5 shares
  m_.givens["convertible_shares"] = Figure::of(1);
  m_.givens["convertible_face"] = Figure::of(90);  // 90 a share, the price is 100: in the money
  EXPECT_NEAR(constant(m_.evaluate(), "diluted_shares"), 11.5, 1e-12);
  m_.givens["convertible_face"] = Figure::of(110);
  m_.givens["option_strike"] = Figure::of(120);
  EXPECT_NEAR(constant(m_.evaluate(), "diluted_shares"), 10, 1e-12);
}

TEST_F(StandingStill, EachTrancheAndConvertibleCountsByItself) {
  m_.givens["options"] = Figure::of(2);
  m_.givens["option_strike"] = Figure::of(75);  // 0.5 shares
  m_.givens["options_2"] = Figure::of(4);
  m_.givens["option_strike_2"] = Figure::of(300);  // under water: a mean strike of 225 would have taken the 0.5 away
  m_.givens["options_6"] = Figure::of(1);
  m_.givens["option_strike_6"] = Figure::of(60);  // 0.4
  m_.givens["convertible_shares_2"] = Figure::of(2);
  m_.givens["convertible_face_2"] = Figure::of(150);  // 75 a share: in the money
  m_.givens["convertible_shares_3"] = Figure::of(1);
  m_.givens["convertible_face_3"] = Figure::of(130);  // 130 a share: not
  m_.givens["convertible_shares_4"] = Figure::of(1);
  m_.givens["convertible_face_4"] = Figure::of(80);
  m_.filed["borrowings_long"] = test::figures({280, 280});
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(constant(e, "option_shares"), 0.9, 1e-12);
  EXPECT_NEAR(constant(e, "diluted_shares"), 10 + 0.9 + 2 + 1, 1e-12);
  EXPECT_NEAR(constant(e, "debt_claims"), 280 - 150 - 80, 1e-9) << "what becomes shares is no debt";
}

TEST_F(StandingStill, LossesAreCarriedForwardAndUsedOnce) {
  m_.filed["tax_losses"] = test::figures({0, 300});
  const Evaluation e = m_.evaluate();
  // 200 of profit a year against 300 of losses: 200 used, then 100, then none.
  EXPECT_NEAR(e.figure("tax", 2, 1).value(), 0, 1e-9);
  EXPECT_NEAR(e.figure("tax", 3, 1).value(), 0.25 * 100, 1e-9);
  EXPECT_NEAR(e.figure("tax", 4, 1).value(), 0.25 * 200, 1e-9);
  EXPECT_NEAR(e.figure("tax_losses", 4, 1).value(), 0, 1e-9);
}

TEST_F(StandingStill, QuotesConvertToTheListingsMinorUnit) {
  m_.givens["quote_rate"] = Figure::of(0.86 * 100);
  m_.givens["price"] = Figure::of(8600);
  EXPECT_NEAR(constant(m_.evaluate(), "value_per_share"), 150 * 86, 1e-5);
}

TEST(ImpliedGrowth, SatisfiesTheRuleItInverts) {
  const struct {
    double nopat, wacc, onNew, terminal;
    size_t roots;
  } kCases[] = {
      {150, 0.10, 0.10, 1545, 1},  // 150 * 1.03 / 0.10 at g = 3 %
      {150, 0.10, 0.20, 2000, 1},
      {150, 0.10, 0.05, 1400, 2},  // -3000 g^2 - 1450 g + 10 = 0: 0.7 % and -49 %, both reported
      {150, 0.10, 0.10, 0.0, 0},   // a worthless exit: only g = -100 %, outside the range
      {-50, 0.10, 0.10, 1000, 0},
      {150, 0.10, -0.1, 1000, 0},  // a negative return on new capital means nothing
  };
  for (const auto& c : kCases) {
    const std::vector<double> roots = impliedGrowth(c.nopat, c.wacc, c.onNew, c.terminal);
    EXPECT_EQ(roots.size(), c.roots) << c.terminal;
    for (double g : roots) {
      EXPECT_GT(g, -1);
      EXPECT_LT(g, c.wacc);
      EXPECT_NEAR(c.nopat * (1 + g) * (1 - g / c.onNew) / (c.wacc - g), c.terminal, 1e-6 * std::fabs(c.terminal));
    }
  }
  EXPECT_NEAR(impliedGrowth(150, 0.10, 0.10, 1545).front(), 0.03, 1e-12);
}

}  // namespace
}  // namespace zl
