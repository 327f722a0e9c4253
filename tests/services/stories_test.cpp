// What a story quotes makes the figure it tells: figures are worked out again here from the cells that
// a story names, or from the demo's own documents.

#include <gmock/gmock.h>

#include <cmath>
#include <numeric>

#include "services/stories/company_stories.h"
#include "services/stories/evidence_stories.h"
#include "services/stories/history_stories.h"
#include "services/stories/outlook_stories.h"
#include "services/stories/peer_stories.h"
#include "services/stories/version_stories.h"
#include "services/views/driver_evidence.h"
#include "tests/support/demo_book.h"
#include "tests/support/next_year.h"

namespace zl::services {
namespace {

using testing::Contains;
using testing::ElementsAre;
using testing::HasSubstr;
using testing::IsEmpty;
using testing::Not;

class Stories : public test::DemoBook {
 protected:
  void SetUp() override {
    DemoBook::SetUp();
    session_ = open();
  }
  [[nodiscard]] const Snapshot& now() const { return *session_->now(); }
  [[nodiscard]] const model::Model& m() const { return now().evaluation->model(); }
  [[nodiscard]] model::RowId row(const char* name) const { return m().find(name); }
  [[nodiscard]] int base() const { return now().evaluation->layout().baseColumn(); }
  [[nodiscard]] Provenance said() const { return {"for the test", "tester", "2026-05-01T12:00:00Z"}; }

  /// The figure that a story quotes, by its place among them.
  static double quoted(const Story& story, size_t at) { return story.reads.at(at).figure.value(); }
  static double sum(const Story& story, size_t from, size_t to) {
    double total = 0;
    for (size_t i = from; i < to; ++i) total += quoted(story, i);
    return total;
  }
  static std::vector<std::string> periods(const Story& story) {
    std::vector<std::string> list;
    for (const TraceLink& link : story.reads) list.push_back(link.period);
    return list;
  }

  std::unique_ptr<Session> session_;
};

TEST_F(Stories, ViewsOfAYearAreMadeOfTheCellsTheyName) {
  const auto view = [&](const char* name, HistoryView of) {
    const Figure figure = figuresIn(now(), row(name), of, Reading::Adjusted)[11];
    const Story story = viewStory(now(), row(name), 11, of, Reading::Adjusted, figure);
    return std::pair(story, figure.value());
  };
  struct Case {
    const char* row;
    HistoryView view;
    std::vector<std::string> years;
    double (*again)(double, double);
  };
  const Case cases[] = {
      {"capex", HistoryView::Change, {"2025", "2024"}, [](double a, double b) { return a - b; }},
      {"revenue", HistoryView::Growth, {"2025", "2024"}, [](double a, double b) { return a / b - 1; }},
      {"revenue", HistoryView::GrowthTwoYears, {"2025", "2023"}, [](double a, double b) { return a / b - 1; }},
      {"capex", HistoryView::ShareOfRevenue, {"2025", "2025"}, [](double a, double b) { return a / b; }},
      {"simple_fcf", HistoryView::PerShare, {"2025", "2025"}, [](double a, double b) { return a / b; }},
  };
  for (const Case& c : cases) {
    const auto [story, figure] = view(c.row, c.view);
    EXPECT_EQ(periods(story), c.years) << story.title;
    EXPECT_NEAR(c.again(quoted(story, 0), quoted(story, 1)), figure, 1e-9 * std::max(1.0, std::abs(figure)))
        << story.title;
  }
  // The first year has nothing before it, and says so.
  const Figure none = figuresIn(now(), row("revenue"), HistoryView::Growth, Reading::Adjusted)[0];
  const Story first = viewStory(now(), row("revenue"), 0, HistoryView::Growth, Reading::Adjusted, none);
  EXPECT_EQ(first.figure, "absent");
  EXPECT_EQ(first.lines.front(), none.reason());
}

TEST_F(Stories, AsFiledIsToldByItsFactsAndLinesAsFiled) {
  const char* line = "exceptional_items";
  const double filed = now().asFiled->at(row(line), 11).value();
  ASSERT_TRUE(session_->apply(setAdjustment(now().caseOf(), m(), line, 2025, filed, 1e6, said())));
  const auto told = [&](const char* name) {
    return viewStory(now(), row(name), 11, HistoryView::Amounts, Reading::AsFiled, now().asFiled->at(row(name), 11));
  };
  const Story fact = told(line);
  EXPECT_THAT(fact.lines, Contains(HasSubstr("annual-2025.xbrl")));
  EXPECT_THAT(fact.reads, IsEmpty());
  // EBIT follows the adjustment, and so does its margin: the story quotes both lines as filed.
  const Story derived = told("ebit_margin");
  ASSERT_EQ(derived.reads.size(), 2u);
  const auto profit = static_cast<size_t>(derived.reads[0].cell.row == row("basis_ebit") ? 0 : 1);
  EXPECT_EQ(derived.reads[profit].figure, now().asFiled->at(row("basis_ebit"), 11));
  EXPECT_NE(derived.reads[profit].figure, now().history->at(row("basis_ebit"), 11));
  EXPECT_NEAR(quoted(derived, profit) / quoted(derived, 1 - profit), now().asFiled->at(row("ebit_margin"), 11).value(),
              1e-12);
}

TEST_F(Stories, QuartersPerShareNameTheCountsTheyAverage) {
  const InterimTable table = interimTable(now(), Basis::Trailing);
  const auto revenue =
      std::find_if(table.rows.begin(), table.rows.end(), [&](const InterimRow& r) { return r.row == row("revenue"); });
  ASSERT_NE(revenue, table.rows.end());
  const auto told = [&](HistoryView view) {
    const Figure figure = table.figuresIn(static_cast<size_t>(revenue - table.rows.begin()), view, m()).back();
    return interimViewStory(now(), row("revenue"), table.periods.back(), view, Basis::Trailing, figure).lines;
  };
  // A title of its own for each period quoted: revenue, and the counts at both ends of four quarters.
  const auto named = [&](const std::vector<std::string>& lines, const std::string& what) {
    return std::count_if(lines.begin(), lines.end(), [&](const std::string& l) { return l.starts_with(what); });
  };
  EXPECT_EQ(named(told(HistoryView::PerShare), "Revenue Q"), 1);
  EXPECT_EQ(named(told(HistoryView::PerShare), "Ordinary shares at year end Q"), 5);
  EXPECT_EQ(named(told(HistoryView::Growth), "Revenue Q"), 2);
  EXPECT_THAT(told(HistoryView::Growth), testing::AllOf(Contains(HasSubstr("= 723703000 EUR for 2025")),
                                                        Contains(HasSubstr("= 746086000 EUR for 2024"))));
}

TEST_F(Stories, StatisticsNameTheYearsTheyCount) {
  const Story mean = yearsStory(now(), lastYears(now(), row("roic"), 3), "mean", Figure::of(0.1), Kind::Ratio);
  EXPECT_THAT(periods(mean), ElementsAre("2023", "2024", "2025"));
  EXPECT_THAT(mean.lines, IsEmpty()) << "no year is left out of all years";
  const Story regular = yearsStory(now(), lastYears(now(), row("roic"), 3, Reading::Adjusted, true), "mean",
                                   Figure::of(0.1), Kind::Ratio);
  EXPECT_THAT(regular.lines, ElementsAre("2024 is exceptional and left out", "2025 is exceptional and left out"));
  EXPECT_EQ(lastYears(now(), row("roic"), 99).from, 0) << "history goes no further";

  ASSERT_TRUE(session_->apply(keepWindow(now().caseOf(), {2016, 2021, "before the recall"})));
  const HistorySpan window = spansOf(now()).back();
  const SpanTrend trend = trendsOf(now(), row("revenue"), Reading::Adjusted).spans.back();
  const Story span = spanStory(now(), row("revenue"), window, Reading::Adjusted, trend.compound, Kind::Ratio);
  EXPECT_THAT(periods(span), ElementsAre("2021", "2016"));
  EXPECT_NEAR(std::pow(quoted(span, 0) / quoted(span, 1), 1.0 / 5) - 1, trend.compound.value(), 1e-12);
  EXPECT_THAT(span.lines, Contains(HasSubstr("before the recall")));

  for (const QualityResult& result : qualityReview(now(), Reading::Adjusted)) {
    const QualityTest& test = now().resources->tests[result.test];
    const Story story = qualityStory(now(), test, Reading::Adjusted, result.figure, Kind::Ratio);
    if (test.statistic == QualityTest::Statistic::Last) {
      EXPECT_THAT(periods(story), ElementsAre("2025")) << test.name;
      if (result.figure.hasValue()) {
        EXPECT_EQ(story.reads[0].figure, result.figure) << test.name;
      }
    }
    if (test.statistic == QualityTest::Statistic::Growth && result.figure.hasValue()) {
      const double years = result.count;
      EXPECT_NEAR(std::pow(quoted(story, story.reads.size() - 1) / quoted(story, 0), 1 / years) - 1,
                  result.figure.value(), 1e-12)
          << test.name;
    }
  }
}

TEST_F(Stories, UsesOfCashAndStepsOfProfitAddUpAgain) {
  const std::vector<HistorySpan> spans = spansOf(now());
  for (const CashUse& use : usesOfCash(now())) {
    for (size_t i = 0; i < spans.size(); ++i) {
      const Story total = usesStory(now(), use.row, spans[i], false, use.sums[i]);
      EXPECT_NEAR(sum(total, 0, total.reads.size()), use.sums[i].value(), 1e-3) << total.title;
      const Story share = usesStory(now(), use.row, spans[i], true, use.shares[i]);
      const size_t half = share.reads.size() / 2;
      EXPECT_NEAR(sum(share, 0, half) / sum(share, half, 2 * half), use.shares[i].value(), 1e-12) << share.title;
    }
  }
  for (const ProfitStep& step : profitWalk(now(), Reading::Adjusted)) {
    const bool count = step.row == row("shares");
    const auto tell = [&](bool perShare) {
      return profitStepStory(now(), step.label, step.row, 11, perShare, Reading::Adjusted,
                             perShare ? step.perShare[11] : step.money[11]);
    };
    const Story each = tell(true);
    if (count) {
      EXPECT_NEAR(quoted(each, 0) / quoted(each, 1) - quoted(each, 0) / quoted(each, 2), step.perShare[11].value(),
                  1e-12);
    } else if (step.row.known()) {
      const double change = quoted(each, 0) - quoted(each, 1);
      EXPECT_NEAR(std::abs(change), std::abs(step.money[11].value()), 1e-6) << step.label;
      EXPECT_NEAR(std::abs(change / quoted(each, 2)), std::abs(step.perShare[11].value()), 1e-12) << step.label;
    }
  }
}

TEST_F(Stories, MarketPeersAndRatesAreWorkedOutAgain) {
  const MarketView market = marketView(now());
  const Story multiple =
      marketStory(now(), MarketFigure::EvToEbitda, "EV to EBITDA", market.evToEbitda, Kind::Multiple);
  EXPECT_NEAR(sum(multiple, 0, 2) / quoted(multiple, 2), market.evToEbitda.value(), 1e-12);
  const Story yield =
      marketStory(now(), MarketFigure::FreeCashYield, "Free cash flow yield", market.freeCashYield, Kind::Ratio);
  EXPECT_NEAR(quoted(yield, 0) / quoted(yield, 1), market.freeCashYield.value(), 1e-12);

  const Story out = multipleStory(now(), now().crossCheck.rows.front().id, Multiple::PriceToEarnings);
  EXPECT_THAT(out.lines.back(), HasSubstr("peers.csv"));
  EXPECT_TRUE(multipleStory(now(), "nobody", Multiple::PriceToEarnings).title.empty());

  const int first = now().evaluation->layout().historyYears;
  for (int lane = 0; lane < now().evaluation->scenarios(); ++lane) {
    double rate = 0;
    for (const model::ViewRow& part : now().model().view("rate_stack"))
      rate += now().evaluation->figure(part.row, first, lane).value();
    EXPECT_NEAR(rate, now().evaluation->figure("wacc", first, lane).value(), 1e-12) << "the parts are the whole rate";
  }
}

TEST_F(Stories, DealsDebtAndPartsComeFromTheRecordAndTheFilings) {
  const std::vector<Figure> organic = services::organicGrowth(now());
  const Story bought = organicGrowthStory(now(), 7, organic[7]);
  const double acquired = acquiredRevenue(now().company().deals, now().years())[7];
  EXPECT_GT(acquired, 0) << "2021 bought a business";
  EXPECT_NEAR((quoted(bought, 0) - acquired) / quoted(bought, 1) - 1, organic[7].value(), 1e-12);
  EXPECT_THAT(bought.lines, Contains(HasSubstr("company.json")));
  const Story alone = organicGrowthStory(now(), 5, organic[5]);
  EXPECT_THAT(alone.lines, Not(Contains(HasSubstr("company.json")))) << "2019 bought nothing";

  const Story due = debtDueStory(now(), 2027, true);
  EXPECT_EQ(due.figure, "18.0 EUR m");
  EXPECT_THAT(due.lines, Contains(HasSubstr("term loan: 18.0 EUR m at 4.9 %")));
  const std::vector<SegmentView> views = segmentViews(now());
  EXPECT_THAT(partStory(now(), views[0], 0, 11, PartFigure::Margin).lines,
              ElementsAre(HasSubstr("EBIT over revenue"), HasSubstr("= -37383000 EUR"), HasSubstr("= 492119000 EUR")));
  EXPECT_EQ(partStory(now(), views[0], 0, 0, PartFigure::Revenue).figure, "absent") << "2014 was filed without parts";
}

TEST_F(Stories, EstimatesAndReferencesNameWhatTheyStandOn) {
  const model::RowId growth = row("revenue_growth");
  const Consensus consensus = consensusOf(now());
  const std::vector<Estimate> behind = consensus.behind(growth, base() + 2);
  ASSERT_EQ(behind.size(), 2u) << "a growth rate needs two years";
  EXPECT_NEAR(behind[0].mean / behind[1].mean - 1, consensus.at(growth, base() + 2, EstimateEnd::Mean).value(), 1e-12);
  EXPECT_THAT(consensus.behind(row("tax_rate"), base() + 12), IsEmpty()) << "nobody estimates the tax rate so far out";
  const Story low =
      referenceStory(now(), growth, Reference::ConsensusLow, referenceFigure(now(), growth, Reference::ConsensusLow));
  EXPECT_THAT(low.title, HasSubstr("consensus, low"));
  EXPECT_THAT(low.lines, Contains(HasSubstr("estimates.csv")));
  const Story last =
      referenceStory(now(), growth, Reference::LastYear, referenceFigure(now(), growth, Reference::LastYear));
  ASSERT_EQ(last.reads.size(), 1u);
  EXPECT_EQ(last.reads[0].figure, referenceFigure(now(), growth, Reference::LastYear));
}

TEST_F(Stories, AYearThatCameTrueIsSetAgainstItsForecast) {
  ASSERT_TRUE(session_->apply(publish(now(), "Spring", said())));
  ASSERT_TRUE(session_->importFiles({{"annual-2026.csv", test::nextYear(now(), 1.05)}}));
  for (const ForecastAgainstActual& line : forecastAgainstActual(now())) {
    const Story actual = actualStory(now(), line);
    if (line.actual.hasValue()) {
      EXPECT_THAT(actual.lines, Not(IsEmpty())) << line.label;
    }
    if (line.row != "revenue" && line.row != "ebit_margin") continue;
    EXPECT_THAT(actual.lines, Contains(HasSubstr("annual-2026.csv"))) << line.label;
    const Story gap = gapStory(now(), line, false);
    EXPECT_NEAR(line.actual.value() - quoted(gap, 0), line.gap.value(), 1e-6) << line.label;
  }
  const PublishedSet& set = now().caseOf().published.front();
  for (const PublishedLine& line : publishedBeside(now(), "Spring")) {
    const Story change = publishedStory(now(), line, set, PublishedFigure::Change);
    EXPECT_THAT(change.lines, Contains(HasSubstr("'Spring', published 2026-05-01 by tester")));
    if (!line.change.hasValue()) continue;
    ASSERT_EQ(change.reads.size(), 1u) << line.label;
    EXPECT_NEAR(quoted(change, 0) - line.old.value(), line.change.value(), 1e-9) << line.label;
  }
}

TEST_F(Stories, VersionsAreToldWithinThemselves) {
  Side side{"Before", session_->now()};
  BesideLine line;
  line.row = "revenue";
  line.label = "Revenue";
  line.kind = Kind::Money;
  const auto told = [&](const std::string& period, const std::string& scenario) {
    line.period = period;
    return versionStory(side, line, scenario);
  };
  EXPECT_EQ(told("2025", kBase).figure, "723.7 EUR m");
  EXPECT_THAT(
      told("2026E", kBase).lines,
      ElementsAre("revenue of the year before times (1 plus revenue growth with inflation)", "= 723.7 * (1 + 1.0%)",
                  "Revenue 2025: 723.7 EUR m", "Revenue growth with inflation 2026E: 1.0 %"));
  EXPECT_THAT(told("2026E", "unheard of").lines, ElementsAre("not in this version"));
  EXPECT_THAT(told("2099E", kBase).lines, ElementsAre("the year is not in this version"));
  double weighted = 0;
  for (int i = 0; i < now().evaluation->scenarios(); ++i) {
    weighted += now().caseOf().scenarios[static_cast<size_t>(i)].probability *
                now().evaluation->constant("value_per_share", i).value();
  }
  const Story mean = weightedStory(side, model::Role::ValuePerShare, Figure::of(weighted));
  EXPECT_EQ(mean.figure,
            shownWithUnit(now(), weightedValue(*now().evaluation, model::Role::ValuePerShare), Kind::Quote));
  EXPECT_EQ(mean.lines.size(), 4u);
  // A probability has its journal like any other assumption.
  ASSERT_TRUE(session_->apply(setProbability(now().caseOf(), "worst", 0.2)));
  const Result<AssumptionHistory> history = historyOf(*session_, "worst", kProbability);
  ASSERT_TRUE(history);
  ASSERT_EQ(history->changes.size(), 1u);
  EXPECT_EQ(changeText(history->changes[0]), "25.0 % -> 20.0 %");
  EXPECT_THAT(historyOf(*session_, "best", kProbability)->changes, IsEmpty()) << "the others are as they were";
}

}  // namespace
}  // namespace zl::services
