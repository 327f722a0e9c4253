// Rivals of the parts of the rate, betas from series, premiums by region, what a price implies. Expected: the model run
// with the figure in force, series whose beta was made, sums by hand.

#include "services/views/capital_view.h"

#include <gmock/gmock.h>

#include <cmath>

#include "core/quantity/number_text.h"
#include "services/edits/edits.h"
#include "services/edits/record_edits.h"
#include "services/views/cash_view.h"
#include "services/views/company_view.h"
#include "tests/support/demo_book.h"

namespace zl::services {
namespace {

using model::Role;
using testing::Contains;
using testing::HasSubstr;

class CapitalViews : public test::DemoBook {
 protected:
  void SetUp() override {
    DemoBook::SetUp();
    session_ = open();
  }
  const Snapshot& now() { return *session_->now(); }
  Figure value(Role role = Role::ValueBeforeFloor) { return now().evaluation->constant(role, 1); }
  void table(const std::string& text) {
    const auto typed = session_->typeTable("typed", text, "type");
    ASSERT_TRUE(typed) << typed.error().text();
  }
  void apply(const CaseEdit& edit) {
    const Status s = session_->apply(edit);
    ASSERT_TRUE(s) << s.error().text();
  }
  Provenance said() { return session_->said(""); }

  std::unique_ptr<Session> session_;
};

TEST_F(CapitalViews, ARivalsValueIsTheModelsOnceItIsAdopted) {
  int adopted = 0;
  for (const PartRivals& part : rivalsOf(now(), {}, 1)) {
    ASSERT_TRUE(part.rivals.front().stands);
    EXPECT_NEAR(part.rivals.front().value.value(), value().value(), 1e-9);
    for (const Rival& rival : part.rivals) {
      if (rival.stands || !rival.figure.hasValue()) continue;
      apply(adopt(now(), part.row, rival, 1, said()));
      EXPECT_NEAR(value().value(), rival.value.value(), 1e-9 * std::fabs(rival.value.value())) << rival.label;
      const Assumption* held = now().caseOf().driver(now().caseOf().base(), now().model()[part.row].name);
      ASSERT_NE(held, nullptr);
      EXPECT_THAT(held->said.reason, HasSubstr(rival.label)) << "its source is the reason";
      ASSERT_TRUE(session_->undo());
      ++adopted;
    }
  }
  EXPECT_GT(adopted, 12);
}

TEST_F(CapitalViews, TheSharesBetaIsOfItsOwnSeries) {
  const OwnBeta own = ownBeta(now(), {});
  EXPECT_EQ(own.index, "Northmoor 350") << "the one in the listing's currency";
  EXPECT_NEAR(own.fit.n, 156, 1) << "three years of weeks";
  EXPECT_GT(own.fit.beta.value(), own.fit.low.value());
  // The made-up index moves 0.28 times as the share, and as much again 1.55 times by itself: by day the share's beta on
  // it is 1 / (0.28 (1 + 1.55 squared)) = 1.05.
  BetaSettings daily;
  daily.frequency = ReturnFrequency::Daily;
  const OwnBeta byDay = ownBeta(now(), daily);
  EXPECT_NEAR(byDay.fit.beta.value(), 1 / (0.28 * (1 + 1.55 * 1.55)), 4 * byDay.fit.standardError.value());
  BetaSettings monthly;
  monthly.frequency = ReturnFrequency::Monthly;
  monthly.years = 1;
  const OwnBeta few = ownBeta(now(), monthly);
  EXPECT_THAT(few.notes, Contains(HasSubstr("pairs of returns; under 24")));
  BetaSettings unknown;
  unknown.index = "Nowhere 50";
  EXPECT_THAT(ownBeta(now(), unknown).notes, Contains(HasSubstr("no series called 'Nowhere 50'")));
}

TEST_F(CapitalViews, AnIndexInAnotherCurrencyIsReadByTheRatesOfItsDays) {
  const BetaSettings home{"Northmoor 350", ReturnFrequency::Weekly, 1, false};
  const OwnBeta before = ownBeta(now(), home);
  // The same index in a currency that moves: its levels over the rate of the week.
  std::string levels = "series,date,level,unit,dividend,source\n", rates = "rate,date,figure,source\n";
  double rate = 1.2;
  int day = 0;
  for (const SeriesPoint& p : seriesNamed(now().market->series, "Northmoor 350")->points) {
    if (p.date < makeDate(2025, 4, 1)) continue;
    if (day++ % 5 == 0) {
      rate = 1.2 + 0.01 * (day % 7);
      rates += "spot GBP/USD," + dateText(p.date) + "," + std::to_string(rate) + ",x\n";
    }
    char line[96];
    std::snprintf(line, sizeof line, "Northmoor in dollars,%s,%.9g,USD,,x\n", dateText(p.date).c_str(),
                  p.level * std::stod(std::to_string(rate)));
    levels += line;
  }
  table(levels);
  const BetaSettings foreign{"Northmoor in dollars", ReturnFrequency::Weekly, 1, false};
  EXPECT_FALSE(ownBeta(now(), foreign).fit.beta.hasValue()) << "no rate by day";
  EXPECT_THAT(ownBeta(now(), foreign).notes, Contains(HasSubstr("no exchange rate within a week")));
  table(rates);
  const OwnBeta after = ownBeta(now(), foreign);
  EXPECT_EQ(after.fit.n, before.fit.n);
  EXPECT_NEAR(after.fit.beta.value(), before.fit.beta.value(), 1e-6);
}

TEST_F(CapitalViews, PeersAreUnleveredAndRelevered) {
  const PeerBetas all = peerBetas(now(), {}, 1);
  const auto peer = [&](const std::string& id) {
    const auto found = std::find_if(all.peers.begin(), all.peers.end(), [&](const PeerBeta& p) { return p.id == id; });
    return found == all.peers.end() ? PeerBeta{} : *found;
  };
  EXPECT_THAT(peer("sorrelund").how, HasSubstr("Rhenmark Broad")) << "an index of its own currency";
  // (162 + 21) / (18.4 x 44)
  EXPECT_NEAR(peer("sorrelund").debtToEquity.value(), 183 / 809.6, 1e-12);
  EXPECT_NEAR(peer("sorrelund").unlevered.value(), peer("sorrelund").beta.value() / (1 + 0.75 * 183 / 809.6), 1e-12);
  EXPECT_EQ(peer("dunmarrow").beta.value(), 1.02) << "as typed among the rates";
  EXPECT_THAT(peer("quillhaven").beta.reason(), HasSubstr("no series of its closes"));
  EXPECT_EQ(all.count, 4);
  EXPECT_NEAR(all.relevered.value(), all.median.value() * (1 + 0.75 * all.debtToEquity.value()), 1e-12);
  // Its own tax where the record says where it is.
  ASSERT_TRUE(session_->changeRecord(*setList(now().company(), "peers", {{"sorrelund", "", "NL", "", ""}},
                                              RecordNote{"", "t", "2026-05-01T12:00:00Z"})));
  const PeerBetas again = peerBetas(now(), {}, 1);
  EXPECT_NEAR(again.peers.front().unlevered.value(), peer("sorrelund").beta.value() / (1 + 0.742 * 183 / 809.6), 1e-12);
}

TEST_F(CapitalViews, ThePremiumIsWeightedByTheSalesOfRegions) {
  const CountryPremium found = premiumOfSales(now());
  double weighted = 0, mapped = 0;
  const std::map<std::string, double> premiums = {
      {"Western Europe", 0.004}, {"Eastern Europe", 0.023}, {"Americas", 0.018}};
  for (const SegmentView& view : segmentViews(now())) {
    for (size_t m = 0; m < view.members.size(); ++m) {
      const auto premium = premiums.find(view.members[m]);
      if (premium == premiums.end()) continue;
      weighted += view.revenue[m].back().value() * premium->second;
      mapped += view.revenue[m].back().value();
    }
  }
  ASSERT_GT(mapped, 0);
  EXPECT_NEAR(found.premium.value(), weighted / mapped, 1e-12);
  EXPECT_EQ(found.unmapped, 1) << "Asia and Pacific is named and counts at the mean of the others";
}

TEST_F(CapitalViews, SpreadsHoldFromTheirCoverOn) {
  const std::vector<Spread> spreads = spreadsAt(now().market->rates, now().caseOf().valuationDate);
  const auto at = [&](double cover) { return spreadFor(Figure::of(cover), spreads).spread.value(); };
  EXPECT_EQ(at(12), 0.007);
  EXPECT_EQ(at(10), 0.007);
  EXPECT_EQ(at(9.99), 0.011);
  EXPECT_EQ(at(0.5), 0.065);
  EXPECT_EQ(at(-3), 0.12);
  EXPECT_EQ(at(-5000), 0.12) << "below the last row the last row's";
  EXPECT_EQ(spreadFor(Figure::notMeaningful("no interest"), spreads).spread.reason(), "no interest");
  EXPECT_TRUE(spreadsAt(now().market->rates, makeDate(2025, 12, 31)).empty()) << "they were not known yet";
  // (44 x 5.2 % + 18 x 4.9 % + 52 x 1.75 % + 100 x 3.6 % + 34 x 4.1 %) / 248
  EXPECT_NEAR(rateOfTranches(now()).value(), 9.074e6 / 248e6, 1e-12);
  // 1.0415 x 1.02 / 1.024 - 1
  EXPECT_NEAR(inCurrency(Figure::of(0.0415), Figure::of(0.024), Figure::of(0.02)).value(), 1.0415 * 1.02 / 1.024 - 1,
              1e-15);
}

TEST_F(CapitalViews, AtTheCostOfEquityThatThePriceImpliesTheFlowsAreWorthThePrice) {
  const std::vector<double> implied = impliedCostOfEquity(now(), 1);
  ASSERT_EQ(implied.size(), 1U);
  const Case& c = now().caseOf();
  apply(setInput(c, now().model(), kBase, "hurdle", implied.front(), said()));
  apply(setInput(now().caseOf(), now().model(), kBase, "hurdle_choice", 1, said()));
  EXPECT_NEAR(now().evaluation->constant("value_by_flows", 1).value(), now().given(Role::Price).figure.value(), 1e-6);
  const HurdleValues at = valuesAtHurdle(now(), 1);
  const auto shareholders =
      std::find(at.methods.begin(), at.methods.end(), "Flows to shareholders") - at.methods.begin();
  EXPECT_NEAR(at.values[static_cast<size_t>(shareholders)][1].value(), now().given(Role::Price).figure.value(), 1e-6);
}

TEST_F(CapitalViews, TheTargetsYearlyReturnSolvesItsPrice) {
  apply(setInput(now().caseOf(), now().model(), kBase, "target_years", 3, said()));
  const DatedTarget target = datedTarget(now(), 1);
  ASSERT_TRUE(target.yearly.hasValue()) << target.yearly.reason();
  double worth = target.value.value() / std::pow(1 + target.yearly.value(), 3);
  for (int t = 1; t <= 3; ++t)
    worth += now().evaluation->figure("target_dividends", 11 + t, 1).value() / std::pow(1 + target.yearly.value(), t);
  EXPECT_NEAR(worth, now().given(Role::Price).figure.value(), 1e-6);
  const CashHead head = cashHead(now());
  EXPECT_EQ(head.values.size(), 3U);
  EXPECT_FALSE(head.driver.empty());
}

TEST_F(CapitalViews, MonitorsTellWhatTheOtherChoiceWouldGive) {
  const auto text = [&](const std::string& monitor) {
    for (const Finding& f : now().findings()) {
      if (f.monitor == monitor) return f.text;
    }
    return std::string("none");
  };
  // 900,000 options at 980 are worth something at the value and nothing at the price: under 1 % of the value.
  EXPECT_THAT(text("choices that move little"), HasSubstr("dilution beyond the price"));
  ASSERT_TRUE(session_->changeRecord(*setList(now().company(), "option_tranches", {{"9m", "980", "GBX", "", ""}},
                                              RecordNote{"", "t", "2026-05-01T12:00:00Z"})));
  const std::string dilution = text("dilution beyond the price");
  apply(setInput(now().caseOf(), now().model(), kBase, "dilution_choice", 1, said()));
  EXPECT_THAT(dilution, HasSubstr("would be " + figureText(value(), Kind::Quote)));
  ASSERT_TRUE(session_->undo());
  Path path;
  path.level = 0.01;
  apply(setDriver(now().caseOf(), now().model(), kBase, "cost_of_debt", path, said()));
  EXPECT_THAT(text("cost of debt under the risk-free rate"), HasSubstr("debt costs 1.0 %"));
  EXPECT_EQ(text("economic profit gap"), "none");
}

}  // namespace
}  // namespace zl::services
