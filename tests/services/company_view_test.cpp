// Orientation figures of the demo, tied to what was filed.

#include "services/views/company_view.h"

#include <gmock/gmock.h>

#include "exchange/json/company_json.h"
#include "services/views/history_figures.h"
#include "tests/support/demo_book.h"

namespace zl::services {
namespace {

using test::DemoBook;

TEST_F(DemoBook, PartsAddUpToTheCompany) {
  const auto session = open();
  const Snapshot& s = *session->now();
  const std::vector<SegmentView> views = segmentViews(s);
  ASSERT_EQ(views.size(), 2u);
  EXPECT_EQ(views[0].axis, "Segments") << "the cut with profits comes first";
  EXPECT_THAT(views[0].members, testing::ElementsAre("Machines", "Service and Parts"));
  EXPECT_EQ(views[1].members.size(), 4u);
  for (const SegmentView& view : views) {
    double sum = 0;
    for (const std::vector<Figure>& member : view.revenue) sum += member[11].value();
    EXPECT_NEAR(sum, s.asFiled->at(s.evaluation->model().find("revenue"), 11).value(), 1);
    EXPECT_TRUE(view.revenue[0][0].isAbsent()) << "2014 was filed without parts";
  }
  const MarginChange& change = views[0].change[11];
  EXPECT_NEAR(change.mix.value() + change.within.value(), change.total.value(), 1e-12);
  const model::RowId margin = s.evaluation->model().find("ebit_margin");
  EXPECT_NEAR(change.total.value(), s.asFiled->at(margin, 11).value() - s.asFiled->at(margin, 10).value(), 1e-12);
  EXPECT_FALSE(views[1].change[11].total.hasValue()) << "regions file no profit";
}

TEST_F(DemoBook, TheMarketsViewStandsOnTheBridge) {
  const auto session = open();
  const Snapshot& s = *session->now();
  const MarketView m = marketView(s);
  EXPECT_DOUBLE_EQ(m.price.last.value(), 742);
  // The equity bridge backwards: enterprise value less the claims is what the market pays for the shares.
  const double claims = s.evaluation->constant("net_debt_dated", 1).value() +
                        s.evaluation->constant("other_claims", 1).value() -
                        s.evaluation->figure("associates", 11, 1).value();
  EXPECT_NEAR(m.enterpriseValue.value() - claims, m.marketEquity.value(), 1e-3);
  EXPECT_FALSE(m.priceToEarnings.hasValue()) << "a loss has no multiple";
  EXPECT_EQ(m.priceToEarnings.reason(), "net income is not positive");
  EXPECT_LT(m.freeCashYield.value(), 0);
}

TEST_F(DemoBook, BoughtGrowthIsNotOrganic) {
  const auto session = open();
  const Snapshot& s = *session->now();
  const std::vector<Figure> organic = services::organicGrowth(s);
  const std::vector<Figure> all =
      figuresIn(s, s.evaluation->model().find("revenue"), HistoryView::Growth, Reading::AsFiled);
  EXPECT_LT(organic[7].value(), all[7].value()) << "2021 bought a business";
  EXPECT_DOUBLE_EQ(organic[5].value(), all[5].value());
  EXPECT_NEAR(returnOnDeal(s.company().deals.front()).value(), 1150.0 / 18400, 1e-12);
  const DueView due = debtDue(s);
  double sum = 0;
  for (size_t i = 0; i < due.years.size(); ++i) sum += due.fixed[i].value() + due.floating[i].value();
  EXPECT_DOUBLE_EQ(sum, s.evaluation->figure("debt", 11, 1).value()) << "the record names all debt filed";
}

TEST_F(DemoBook, TheRecordRoundTripsAndRefusesNonsense) {
  const auto session = open();
  const exchange::Json json = exchange::toJson(session->now()->company());
  const auto again = exchange::companyFromJson(json, "record");
  ASSERT_TRUE(again) << again.error().text();
  EXPECT_EQ(*again, session->now()->company());
  struct Bad {
    const char* member;
    const char* value;
    const char* says;
  };
  for (const Bad& bad : std::initializer_list<Bad>{
           {"splits", R"([{"on": "2021-02-30", "now": 2, "before": 1}])", "splits/0"},
           {"splits", R"([{"on": "2021-02-03", "now": 0, "before": 1}])", "must be positive"},
           {"share_classes", R"([{"name": "A", "shares": 1, "votes": -1}])", "negative"},
           {"events", R"({"on": "2021-01-01"})", "must be a list"},
           {"debt_due", R"([{"year": 2027, "amount": 5}])", "floating"},
           {"deals", R"([{"on": "2021-01-01", "what": "x", "price": 1, "paid": 2}])", "paid"},
           {"operating_figures", R"([{"name": "n", "unit": "u", "years": [{"year": "2020", "figure": 1}]}])",
            "year"}}) {
    exchange::Json broken = json;
    broken[bad.member] = exchange::Json::parse(bad.value);
    const auto refused = exchange::companyFromJson(broken, "record");
    ASSERT_FALSE(refused) << bad.member << bad.value;
    EXPECT_THAT(refused.error().text(), testing::HasSubstr(bad.says));
  }
}

}  // namespace
}  // namespace zl::services
