// Exit return, dividends, growth multiple and excess return on book, on a company that stands still: earnings of 150
// and as much in dividends on ten shares, book of 600, a cost of equity of 10 %. Expected: worked by hand beside each.

#include <cmath>
#include <random>

#include "core/valuation/yearly_return.h"
#include "tests/support/standing_still.h"

namespace zl {
namespace {

using testing::HasSubstr;

class CrossMethods : public StandingStill {
 protected:
  std::string whyNot(const char* row) { return m_.evaluate().constant(row, 1).reason(); }
  void type(const std::string& row, const std::vector<double>& years) {
    Path path;
    path.shape = Shape::Typed;
    for (const double figure : years) path.typed.emplace_back(figure);
    m_.theCase.scenarios[1].drivers[row] = {path, {}};
  }
  /// Of one a year over five years at 10 %.
  const double annuity_ = (1 - std::pow(1.1, -5)) / 0.1;
};

TEST_F(CrossMethods, ExitReturn) {
  const Evaluation e = m_.evaluate();  // 14 times earnings of 15 a share after five years, 15 paid in each
  EXPECT_NEAR(constant(e, "exit_price"), 210, 1e-6);
  EXPECT_NEAR(constant(e, "exit_price_to_pay"), 15 * annuity_ + 210 / std::pow(1.1, 5), 1e-6);
  EXPECT_NEAR(constant(e, "exit_total_return"), (210 + 75) / 100.0 - 1, 1e-8);
  EXPECT_NEAR(constant(e, "exit_justified"), 10, 1e-9) << "all is paid out and nothing grows: 1 / 10 %";
  choose("exit_required", 0.2);
  choose("exit_year", 2);
  EXPECT_NEAR(constant(m_.evaluate(), "exit_price_to_pay"), 15 / 1.2 + (15 + 210) / 1.44, 1e-6);
  choose("exit_return_by", 1);
  EXPECT_NEAR(constant(m_.evaluate(), "exit_price"), 15 * 1.05 * 1.05 * 14, 1e-6);
  // As paths: a tenth, then a fifth; 9 times in the first year, 11 in the second, 20 in the third.
  type("exit_return_growth", {0.1, 0.2});
  type("exit_return_multiple", {9, 11, 20});
  EXPECT_NEAR(constant(m_.evaluate(), "exit_price"), 15 * 1.1 * 1.2 * 11, 1e-6);
  EXPECT_NEAR(constant(m_.evaluate(), "exit_growth_yearly"), std::sqrt(1.1 * 1.2) - 1, 1e-12);
  choose("exit_year", 1);
  EXPECT_NEAR(constant(m_.evaluate(), "exit_price"), 15 * 1.1 * 9, 1e-6);
  choose("exit_return_by", 0);
  choose("exit_year", 6);
  EXPECT_THAT(whyNot("exit_price_to_pay"), HasSubstr("beyond the forecast"));
  // Of EBITDA the firm is worth 8 x 250; 200 of debt comes before shareholders.
  choose("exit_year", 5);
  choose("exit_return_of", 3);
  assume("exit_return_multiple", 8);
  m_.filed["borrowings_long"] = test::figures({200, 200});
  m_.filed["equity"] = m_.filed["total_equity"] = test::figures({400, 400});
  m_.filed["total_liabilities"] = test::figures({250, 250});
  EXPECT_NEAR(constant(m_.evaluate(), "exit_price"), (2000 - 200) / 10.0, 1e-6);
  assume("exit_return_multiple", 0.5);
  EXPECT_NEAR(constant(m_.evaluate(), "exit_price"), 0, 1e-12) << "never below nought";
}

TEST_F(CrossMethods, TheOwnPastMultiple) {
  EXPECT_THAT(whyNot("past_value"), HasSubstr("no own past multiple"));
  choose("past_multiple", 12);  // of earnings of 15 a share
  choose("past_multiple_low", 10);
  EXPECT_NEAR(constant(m_.evaluate(), "past_value"), 180, 1e-9);
  EXPECT_NEAR(constant(m_.evaluate(), "past_value_low"), 150, 1e-9);
  EXPECT_THAT(whyNot("past_value_high"), HasSubstr("no high end"));
  choose("past_of", 2);  // of book of 60 a share
  EXPECT_NEAR(constant(m_.evaluate(), "past_value"), 720, 1e-9);
  choose("past_of", 5);  // 12 x EBITDA of 250 is the firm's; 200 of debt comes before shareholders
  m_.filed["borrowings_long"] = test::figures({200, 200});
  m_.filed["equity"] = m_.filed["total_equity"] = test::figures({400, 400});
  m_.filed["total_liabilities"] = test::figures({250, 250});
  EXPECT_NEAR(constant(m_.evaluate(), "past_value"), (12 * 250 - 200) / 10.0, 1e-9);
}

TEST_F(CrossMethods, GroupsOfMethodsAddUpToTheBlend) {
  EXPECT_THAT(whyNot("value_of_intrinsic"), HasSubstr("no method of the group has a weight"));
  choose("weight_perpetual", 0.3);
  choose("weight_dividends", 0.2);
  choose("weight_past", 0.5);
  choose("past_multiple", 12);  // 180 a share
  const Evaluation e = m_.evaluate();
  const double dividends = constant(e, "dividend_value"), perpetual = constant(e, "value_growth");
  EXPECT_NEAR(constant(e, "weight_of_intrinsic"), 0.5, 1e-12);
  EXPECT_NEAR(constant(e, "value_of_intrinsic"), (0.3 * perpetual + 0.2 * dividends) / 0.5, 1e-9);
  EXPECT_NEAR(constant(e, "value_of_multiples"), 180, 1e-9);
  EXPECT_NEAR(constant(e, "blended_value"),
              0.5 * constant(e, "value_of_intrinsic") + 0.5 * constant(e, "value_of_multiples"), 1e-9);
}

TEST_F(CrossMethods, ANormalYearTakesTheAnalystsMarginBeforeTheMean) {
  m_.givens["regular_net_margin"] = Figure::of(0.2);
  m_.givens["peers_price_to_earnings_normal_median"] = Figure::of(10);
  const double revenue = m_.filed["revenue"].back().value();
  EXPECT_NEAR(constant(m_.evaluate(), "by_price_to_earnings_normal_median"), 10 * 0.2 * revenue / 10, 1e-9);
  choose("normal_net_margin", 0.05);
  EXPECT_NEAR(constant(m_.evaluate(), "by_price_to_earnings_normal_median"), 10 * 0.05 * revenue / 10, 1e-9);
  choose("normal_net_margin", -0.05);
  EXPECT_THAT(whyNot("by_price_to_earnings_normal_median"), HasSubstr("normal year not positive"));
}

TEST_F(CrossMethods, Dividends) {
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(constant(e, "dividend_value"), 15 * 1.02 / 0.08, 1e-9);
  EXPECT_NEAR(constant(e, "dividend_yield"), 0.15, 1e-12);
  double staged = 0, paid = 15, discount = 1;
  for (int t = 0; t < 5; ++t) staged += (paid *= 1.05) / (discount *= 1.1);
  staged += paid * 1.02 / 0.08 / discount;
  EXPECT_NEAR(constant(e, "dividend_staged_value"), staged, 1e-9);
  EXPECT_NEAR(constant(e, "dividend_fading_value"), 15 * (1.02 + 2.5 * 0.03) / 0.08, 1e-9);
  choose("dividend_first_growth", 0.02);
  for (const char* rule : {"dividend_staged_value", "dividend_fading_value"})
    EXPECT_NEAR(constant(m_.evaluate(), rule), 15 * 1.02 / 0.08, 1e-9) << "one growth: one value, " << rule;
  choose("dividend_lasting_growth", 0.1);
  EXPECT_THAT(whyNot("dividend_value"), HasSubstr("does not exceed growth"));
  choose("dividend_lasting_growth", 0.02);
  m_.filed["dividends"] = test::figures({0, 0});
  EXPECT_THAT(whyNot("dividend_value"), HasSubstr("no dividend"));
}

TEST_F(CrossMethods, GrowthMultipleSwingsWithTheYield) {
  EXPECT_FALSE(m_.evaluate().constant("growth_multiple_value", 1).hasValue()) << "no yield is known";
  m_.givens["high_grade_yield"] = Figure::of(0.055);
  const Evaluation e = m_.evaluate();  // 15 x (8.5 + 2 x 5) x 4.4 / 5.5
  EXPECT_NEAR(constant(e, "growth_multiple_value"), 222, 1e-9);
  EXPECT_NEAR(constant(e, "growth_multiple_up"), 15 * 18.5 * 4.4 / 6.5, 1e-9);
  EXPECT_NEAR(constant(e, "growth_multiple_down"), 15 * 18.5 * 4.4 / 4.5, 1e-9);
  EXPECT_NEAR(constant(e, "earnings_yield_spread"), 0.15 - 0.055, 1e-12);
  choose("bond_yield_typed", 0.044);
  EXPECT_NEAR(constant(m_.evaluate(), "growth_multiple_value"), 15 * 18.5, 1e-9) << "typed";
  choose("growth_multiple_growth", -0.05);
  EXPECT_THAT(whyNot("growth_multiple_value"), HasSubstr("multiple is not positive"));
}

TEST_F(CrossMethods, ExcessReturnOnBook) {
  // 150 less 10 % of 600 is 90 a year; for ever it is 900, and 600 + 900 is what the cash is worth.
  EXPECT_NEAR(constant(m_.evaluate(), "excess_book_value"), (600 + 90 * annuity_) / 10, 1e-6);
  choose("book_terminal", 1);
  EXPECT_NEAR(constant(m_.evaluate(), "excess_book_value"), 150, 1e-6);
  EXPECT_NEAR(constant(m_.evaluate(), "value_per_share"), 150, 1e-6);
  choose("book_terminal", 2);
  EXPECT_NEAR(constant(m_.evaluate(), "book_beyond"), 90 * 0.6 / (1.1 - 0.6) / std::pow(1.1, 5), 1e-6);
}

TEST_F(CrossMethods, JustifiedMultiplesOverTwoStages) {
  // Year by year: payout of 60 % on earnings that grow by 8 %, then 1 - g / ROE of them for ever at 2 %.
  choose("justified_growth", 0.08);
  choose("justified_payout", 0.6);
  choose("justified_return", 0.16);
  choose("terminal_growth", 0.02);
  double earnings = 1, value = 0, discount = 1;
  for (int t = 1; t <= 5; ++t) {
    if (t > 1) earnings *= 1.08;
    value += 0.6 * earnings / (discount *= 1.1);
  }
  value += earnings * 1.02 * (1 - 0.02 / 0.16) / (0.1 - 0.02) / discount;
  EXPECT_NEAR(constant(m_.evaluate(), "justified_price_earnings"), value, 1e-12);
  // One growth and the payout that it leaves: the steady state (1 - g / ROE) / (k - g), of the firm alike.
  choose("justified_growth", 0.02);
  choose("justified_payout", 1 - 0.02 / 0.16);
  const Evaluation steady = m_.evaluate();
  EXPECT_NEAR(constant(steady, "justified_price_earnings"), (1 - 0.02 / 0.16) / 0.08, 1e-12);
  EXPECT_NEAR(constant(steady, "justified_ev_nopat"), (1 - 0.02 / 0.16) / 0.08, 1e-9)
      << "no debt: the WACC is 10 %, too";
}

TEST_F(CrossMethods, ABlendIsTheSumOfWeightsTimesValues) {
  const double cash = constant(m_.evaluate(), "value_per_share");
  EXPECT_THAT(whyNot("blended_value"), HasSubstr("add up to 100 %"));
  choose("weight_perpetual", 0.5);
  choose("weight_book", 0.3);
  choose("weight_dividends", 0.2);
  const Evaluation e = m_.evaluate();
  EXPECT_NEAR(constant(e, "blended_value"), 0.5 * 150 + 0.3 * (600 + 90 * annuity_) / 10 + 0.2 * 15 * 1.02 / 0.08,
              1e-6);
  EXPECT_NEAR(constant(e, "value_per_share"), cash, 1e-12) << "the headline stays until another is chosen";
  choose("headline", 1);
  choose("further_margin", 0.5);
  const Evaluation chosen = m_.evaluate();
  EXPECT_NEAR(constant(chosen, "value_per_share"), constant(e, "blended_value"), 1e-12);
  EXPECT_NEAR(constant(chosen, "buy_below_further"), constant(e, "blended_value") / 2, 1e-12);
  m_.filed["dividends"] = test::figures({0, 0});
  EXPECT_THAT(whyNot("value_per_share"), HasSubstr("Dividends has a weight and no value"));
}

TEST(YearlyReturn, SolvesWhatItIsDefinedBy) {
  EXPECT_NEAR(yearlyReturn(Figure::of(100), {10, 10, 10}, Figure::of(100), 3).value(), 0.1, 1e-12);
  EXPECT_NEAR(yearlyReturn(Figure::of(100), {}, Figure::of(81), 2).value(), -0.1, 1e-12);
  EXPECT_TRUE(yearlyReturn(Figure::of(100), {}, Figure::of(0), 2).isNotMeaningful()) << "nothing comes back";
  EXPECT_TRUE(yearlyReturn(Figure::of(0), {}, Figure::of(10), 2).isNotMeaningful());
  EXPECT_EQ(yearlyReturn(Figure::of(1), {}, Figure::absent("no exit"), 2).reason(), "no exit");
}

TEST(ReturnSplit, AddsUpAndNamesWhatMoves) {
  const PriceParts now{1000, 100, 10, 50};
  PriceParts then = now;
  then.revenue = 2000;
  then.amount = 200;
  then.price = 100;
  const ReturnSplit byRevenue = splitReturn(now, then, 0);
  EXPECT_NEAR(byRevenue.revenue.value(), 1, 1e-12) << "all of the doubling";
  for (const Figure* none : {&byRevenue.margin, &byRevenue.count, &byRevenue.multiple, &byRevenue.dividends})
    EXPECT_NEAR(none->value(), 0, 1e-12);
  std::mt19937 random(18);
  std::uniform_real_distribution<double> some(0.2, 4);
  for (int i = 0; i < 200; ++i) {
    const PriceParts a{some(random), some(random), some(random), some(random)};
    const PriceParts b{some(random), some(random), some(random), some(random)};
    const double paid = some(random) / 4;
    const ReturnSplit s = splitReturn(a, b, paid);
    EXPECT_NEAR(s.revenue.value() + s.margin.value() + s.count.value() + s.multiple.value() + s.dividends.value(),
                (b.price + paid) / a.price - 1, 1e-9);
  }
  then.amount = -5;
  EXPECT_TRUE(splitReturn(now, then, 0).revenue.isNotMeaningful());
}

}  // namespace
}  // namespace zl
