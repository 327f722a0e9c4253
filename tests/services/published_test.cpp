// Own estimates frozen and held against what has become of them; guidance; an interim report
// against the forecast of its year.

#include <gmock/gmock.h>

#include "services/views/driver_evidence.h"
#include "services/views/interim_progress.h"
#include "services/views/published.h"
#include "services/views/roll_forward.h"
#include "tests/support/demo_book.h"
#include "tests/support/next_year.h"

namespace zl::services {
namespace {

using test::DemoBook;
using testing::HasSubstr;

class Published : public DemoBook {
 protected:
  void SetUp() override {
    DemoBook::SetUp();
    session_ = open();
  }
  const Snapshot& now() const { return *session_->now(); }
  void hold(const char* driver, double level) {
    Path path;
    path.level = level;
    ASSERT_TRUE(session_->apply(
        setDriver(now().caseOf(), now().evaluation->model(), kBase, driver, path, session_->said("tried"))));
  }
  const PublishedLine* line(const std::vector<PublishedLine>& lines, const std::string& row, int year) const {
    for (const PublishedLine& l : lines) {
      if (l.row == row && l.year == year) return &l;
    }
    ADD_FAILURE() << "no line " << row << ' ' << year;
    return nullptr;
  }
  std::unique_ptr<Session> session_;
};

TEST_F(Published, FiguresStayAsTheyWereWhileTheOutlookMoves) {
  const int first = now().evaluation->layout().historyYears;
  const double revenue = now().evaluation->figure("revenue", first, 1).value();
  const double value = now().evaluation->constant("value_per_share", 1).value();
  ASSERT_TRUE(session_->apply(publish(now(), "Spring", session_->said("initiation"))));
  EXPECT_FALSE(session_->apply(publish(now(), "Spring", {}))) << "a name is taken once";
  EXPECT_FALSE(session_->apply(publish(now(), "", {})));
  hold("revenue_growth", 0.08);
  session_ = open();
  const std::vector<PublishedLine> lines = publishedBeside(now(), "Spring");
  ASSERT_FALSE(lines.empty());
  EXPECT_EQ(lines[1].label, "Value per share, Base");
  EXPECT_EQ(lines[1].old.value(), value);
  EXPECT_EQ(lines[1].now, now().evaluation->constant("value_per_share", 1));
  const PublishedLine* next = line(lines, "revenue", 2026);
  EXPECT_EQ(next->old.value(), revenue);
  EXPECT_NEAR(next->now.value(), 723.703e6 * 1.08, 1e3);  // the filed revenue of 2025, grown
  EXPECT_NEAR(next->share.value(), next->now.value() / revenue - 1, 1e-12);
  EXPECT_EQ(next->consensus.mean.value(), 728e6);  // demo/estimates.csv
  EXPECT_EQ(next->guidance.low.value(), 715e6);
  EXPECT_EQ(next->guidance.mean.value(), 725e6) << "the middle of the range";
  EXPECT_EQ(next->period, "2026E");
  const PublishedSet kept = now().caseOf().published.front();
  EXPECT_EQ(kept.said.author, "tester");
  EXPECT_EQ(kept.price, 742);
  ASSERT_TRUE(session_->apply(withdraw(now().caseOf(), "Spring")));
  EXPECT_TRUE(publishedBeside(now(), "Spring").empty());
  ASSERT_TRUE(session_->undo());
  EXPECT_EQ(now().caseOf().published.front(), kept);
}

TEST_F(Published, AFiledYearStandsBesideWhatWasPublishedForIt) {
  ASSERT_TRUE(session_->apply(publish(now(), "Spring", {})));
  const double published = line(publishedBeside(now(), "Spring"), "revenue", 2026)->old.value();
  ASSERT_TRUE(session_->importFiles({{"annual-2026.csv", test::nextYear(now(), 1.1)}}));
  ASSERT_TRUE(keepAndRollForward(*session_));
  const std::vector<PublishedLine> lines = publishedBeside(now(), "Spring");
  const PublishedLine* filed = line(lines, "revenue", 2026);
  EXPECT_EQ(filed->period, "2026");
  EXPECT_NEAR(filed->share.value(), 0.1, 1e-5);
  EXPECT_EQ(filed->old.value(), published);
  EXPECT_FALSE(filed->consensus.mean.hasValue()) << "a year that is over is estimated no more";
}

TEST_F(Published, GuidanceStandsBesideTheDriverItSpeaksOf) {
  const DriverEvidence growth = evidenceOf(now(), now().evaluation->model().find("revenue_growth"), 1);
  ASSERT_FALSE(growth.guidance.empty());
  EXPECT_NEAR(growth.guidance[0].mean.value(), 725.0 / 723.703 - 1, 1e-9);
  EXPECT_NEAR(growth.guidance[0].low.value(), 715.0 / 723.703 - 1, 1e-9);
  EXPECT_FALSE(growth.guidance[1].mean.hasValue()) << "nothing is said of 2027";
  EXPECT_NEAR(growth.consensus[0].mean.value(), 728.0 / 723.703 - 1, 1e-9) << "and does not move the analysts'";
  const std::string head = "item,year,low,mean,high,count,date,source,by\n";
  for (const char* bad : {"revenue,2026,1,,2,,2026-04-01,x,analysts\n", "revenue,2026,1,,,,2026-04-01,x,company\n",
                          "revenue,2026,1,1.5,2,,2026-04-01,x,board\n"}) {
    EXPECT_FALSE(session_->importFiles({{"guidance.csv", head + bad}})) << bad;
  }
}

TEST_F(Published, AnInterimReportIsHeldAgainstTheForecastOfItsYear) {
  EXPECT_TRUE(interimProgress(now()).period.empty());
  EXPECT_THAT(interimProgressText(interimProgress(now()), now()), HasSubstr("no interim report of 2026"));
  // A half-year of round figures; the one before is the demo's interim report of 2025.
  const std::string csv =
      "concept,label,start,end,unit,decimals,value\n"
      "revenue,,2026-01-01,2026-06-30,EUR,-3,350000000\n"
      "cost_of_sales,,2026-01-01,2026-06-30,EUR,-3,210000000\n"
      "operating_cash_flow,,2026-01-01,2026-06-30,EUR,-3,-4000000\n"
      "cash,,,2026-06-30,EUR,-3,61000000\n";
  ASSERT_TRUE(session_->importFiles({{"interim-2026-h1.csv", csv}}));
  const InterimProgress p = interimProgress(now());
  EXPECT_EQ(p.period, "Q2 2026");
  const auto find = [&](const std::string& row) -> const InterimLine& {
    const auto at = std::find_if(p.lines.begin(), p.lines.end(), [&](const InterimLine& l) { return l.row == row; });
    EXPECT_NE(at, p.lines.end()) << row;
    return *at;
  };
  const int base = now().evaluation->layout().baseColumn();
  const InterimStatements& interim = *now().review->interim;
  double half2025 = 0;
  for (size_t i = 0; i < interim.quarters().size(); ++i) {
    if (interim.quarters()[i].label() == "Q2 2025")
      half2025 = interim.yearToDate("revenue", static_cast<int>(i)).value();
  }
  ASSERT_GT(half2025, 0) << "the demo files the first half of 2025";
  const double whole2025 = now().history->at(now().evaluation->model().find("revenue"), base).value();
  const double forecast = now().evaluation->figure("revenue", base + 1, 1).value();
  const InterimLine& revenue = find("revenue");
  EXPECT_EQ(revenue.actual.value(), 350e6);
  EXPECT_EQ(revenue.yearBefore.value(), half2025);
  EXPECT_DOUBLE_EQ(revenue.growth.value(), 350e6 / half2025 - 1);
  EXPECT_DOUBLE_EQ(revenue.reached.value(), 350e6 / forecast);
  EXPECT_DOUBLE_EQ(revenue.usual.value(), half2025 / whole2025);
  EXPECT_DOUBLE_EQ(revenue.rest.value(), forecast - 350e6);
  EXPECT_NEAR(revenue.restGrowth.value(), (forecast - 350e6) / (whole2025 - half2025) - 1, 1e-12);
  EXPECT_DOUBLE_EQ(find("cost_of_sales_ratio").actual.value(), 0.6) << "a ratio of flows means the same for a half";
  EXPECT_DOUBLE_EQ(find("gross_profit").actual.value(), 140e6);
  EXPECT_NEAR(find("revenue_growth").actual.value(), 350e6 / half2025 - 1, 1e-12);
  EXPECT_TRUE(find("operating_cash_flow").growth.isNotMeaningful()) << "it turned negative";
  EXPECT_EQ(find("cash").actual.value(), 61e6);
  EXPECT_FALSE(find("cash").reached.hasValue()) << "a balance is not reached in parts";
  for (const char* none : {"receivable_days", "roic", "depreciation_rate", "dividends"}) {
    EXPECT_TRUE(std::none_of(p.lines.begin(), p.lines.end(), [&](const InterimLine& l) { return l.row == none; }))
        << none;
  }
}

}  // namespace
}  // namespace zl::services
