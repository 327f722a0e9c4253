// History as it is read: views, trends, adjustments, what moved profit and what cash was used for.

#include "services/views/history_figures.h"
#include "services/stories/trace_text.h"

#include <gmock/gmock.h>

#include "services/reports/report.h"
#include "services/views/interim_table.h"
#include "tests/support/demo_book.h"

namespace zl::services {
namespace {

using test::DemoBook;

class History : public DemoBook {
 protected:
  void SetUp() override {
    DemoBook::SetUp();
    session_ = open();
  }
  [[nodiscard]] const Snapshot& now() const { return *session_->now(); }
  [[nodiscard]] model::RowId row(const char* name) const { return now().evaluation->model().find(name); }
  std::unique_ptr<Session> session_;
};

TEST_F(History, ViewsFollowFromTheFiledFigures) {
  const auto view = [&](const char* line, HistoryView v) { return figuresIn(now(), row(line), v, Reading::AsFiled); };
  // From the filed revenues 412,000, 432,600 and 449,904 thousand.
  EXPECT_TRUE(view("revenue", HistoryView::Growth)[0].isAbsent());
  EXPECT_NEAR(view("revenue", HistoryView::Growth)[1].value(), 432600.0 / 412000 - 1, 1e-12);
  EXPECT_NEAR(view("revenue", HistoryView::GrowthTwoYears)[2].value(), 449904.0 / 412000 - 1, 1e-12);
  EXPECT_DOUBLE_EQ(view("revenue", HistoryView::Change)[1].value(), 20600000);
  EXPECT_NEAR(view("cost_of_sales", HistoryView::ShareOfRevenue)[0].value(), 0.57, 1e-12);
  EXPECT_NEAR(view("revenue", HistoryView::PerShare)[0].value(), 412000.0 / 60860, 1e-9);
  const model::Model& m = now().evaluation->model();
  EXPECT_FALSE(kindIn(HistoryView::Growth, m[row("ebit_margin")]));
  EXPECT_FALSE(kindIn(HistoryView::ShareOfRevenue, m[row("shares")]));
}

TEST_F(History, AnAdjustmentStandsBesideWhatWasFiledAndMovesTheOutlook) {
  const double filedEbit = now().asFiled->at(row("ebit"), 11).value();
  const double ratio = now().evaluation->figure("cost_of_sales_ratio", 11, 1).value();
  const double revenue = now().asFiled->at(row("revenue"), 11).value();
  EXPECT_EQ(now().history, now().asFiled) << "nothing adjusted, one table";
  const CaseEdit edit = setAdjustment(now().caseOf(), now().evaluation->model(), "cost_of_sales", 2025, 424100000,
                                      424100000 - 10e6, session_->said("recall stock scrapped"));
  ASSERT_TRUE(session_->apply(edit));
  EXPECT_DOUBLE_EQ(now().history->at(row("ebit"), 11).value(), filedEbit + 10e6);
  EXPECT_DOUBLE_EQ(now().asFiled->at(row("ebit"), 11).value(), filedEbit);
  EXPECT_DOUBLE_EQ(now().filed->statements.at("ebit", 11).figure.value(), filedEbit);
  EXPECT_NE(figuresIn(now(), row("ebit_margin"), HistoryView::Amounts, Reading::Adjusted)[11],
            figuresIn(now(), row("ebit_margin"), HistoryView::Amounts, Reading::AsFiled)[11]);
  // Equal to the cent: the marginal rate of the case on ten million.
  const double rate = now().evaluation->constant("marginal_tax", 1).value();
  EXPECT_NEAR(now().history->at(row("net_income"), 11).value() - now().asFiled->at(row("net_income"), 11).value(),
              10e6 * (1 - rate), 1e-6);
  // What a driver starts from moves with it: cost of sales less ten million, over the filed revenue.
  EXPECT_NEAR(now().evaluation->figure("cost_of_sales_ratio", 11, 1).value(), ratio - 10e6 / revenue, 1e-12);
  EXPECT_THAT(besideFiled(now(), row("ebit"), 11), testing::Contains(testing::HasSubstr("adjusted by 10.0")));
  EXPECT_THAT(traceText(now(), {row("cost_of_sales"), 11}, 1, 0), testing::HasSubstr("recall stock scrapped"));
  // It survives the file and goes back like any edit.
  session_ = open();
  EXPECT_EQ(now().caseOf().adjustments.size(), 1u);
  ASSERT_TRUE(session_->undo());
  EXPECT_DOUBLE_EQ(now().history->at(row("ebit"), 11).value(), filedEbit);
  const CaseEdit none =
      setAdjustment(now().caseOf(), now().evaluation->model(), "ebit", 2025, filedEbit, filedEbit, {});
  EXPECT_TRUE(none.after.adjustments.empty()) << "a figure equal to the filed one is no adjustment";
}

TEST_F(History, StepsOfTheProfitWalkAddUp) {
  const std::vector<ProfitStep> steps = profitWalk(now(), Reading::AsFiled);
  const std::vector<Figure> money = figuresIn(now(), row("net_income_common"), HistoryView::Change, Reading::AsFiled);
  const std::vector<Figure> share = figuresIn(now(), row("earnings_per_share"), HistoryView::Change, Reading::AsFiled);
  for (size_t year = 1; year < money.size(); ++year) {
    double moved = 0;
    double perShare = 0;
    for (const ProfitStep& step : steps) {
      moved += step.money[year].value();
      perShare += step.perShare[year].value();
    }
    EXPECT_NEAR(moved, money[year].value(), 1);
    EXPECT_NEAR(perShare, share[year].value(), 1e-9);
  }
  EXPECT_GT(steps.back().perShare[5].value(), 0) << "2019 bought shares back: fewer of them lifted earnings per share";
}

TEST_F(History, UsesOfCashAddUpToWhatWasGenerated) {
  const std::vector<CashUse> uses = usesOfCash(now());
  const std::vector<HistorySpan> spans = spansOf(now());
  ASSERT_EQ(spans.size(), 4u);
  ASSERT_EQ(uses.back().row, row("cash_generated"));
  for (size_t span = 0; span < spans.size(); ++span) {
    double sum = 0;
    for (size_t u = 0; u + 1 < uses.size(); ++u) sum += uses[u].sums[span].value();
    EXPECT_NEAR(sum, uses.back().sums[span].value(), 1);
  }
  // Ten years of filed operating cash flow, added by hand from the statements' rows.
  double filed = 0;
  for (int c = 2; c < 12; ++c) filed += now().asFiled->at(row("operating_cash_flow"), c).value();
  EXPECT_NEAR(uses.back().sums[3].value(), filed, 1);
}

TEST_F(History, WindowsAreKeptWithTheirReasonAndMarkTheirEnds) {
  ASSERT_TRUE(session_->apply(keepWindow(now().caseOf(), {2016, 2021, "before the recall"})));
  ASSERT_TRUE(session_->apply(keepWindow(now().caseOf(), {2016, 2021, "before the recall, again"})));
  ASSERT_EQ(now().caseOf().windows.size(), 1u) << "one window per pair of ends";
  const std::vector<HistorySpan> spans = spansOf(now());
  EXPECT_EQ(spans.back().label, "2016\u201321");
  EXPECT_EQ(spans.back().reason, "before the recall, again");
  const RowTrends trends = trendsOf(now(), row("revenue"), Reading::AsFiled);
  EXPECT_NEAR(trends.spans.back().compound.value(), std::pow(682574.0 / 449904, 0.2) - 1, 1e-4);
  EXPECT_THAT(trends.spans.front().marks, testing::Contains(testing::HasSubstr("2025 is flagged exceptional")));
  EXPECT_EQ(trends.all.count, 10);
  EXPECT_EQ(trends.included.count, 8) << "2024 and 2025 are flagged";
  ASSERT_TRUE(session_->apply(dropWindow(now().caseOf(), 2016, 2021)));
  EXPECT_TRUE(now().caseOf().windows.empty());
}

TEST_F(History, MonitorsSayWhatCouldMislead) {
  const auto says = [&](const char* monitor) {
    std::vector<std::string> texts;
    for (const Finding& f : now().findings()) {
      if (f.monitor == monitor) texts.push_back(f.text);
    }
    return texts;
  };
  using testing::HasSubstr;
  EXPECT_THAT(says("base year under its median"),
              testing::Contains(HasSubstr("EBIT after exceptional items of the base year is 2.0 m")));
  // EBIT's boom and fall lie in the years that are flagged: without the flags its mean rate is far from what it grew
  // by.
  EXPECT_TRUE(says("mean growth is not compound growth").empty());
  for (const int year : {2024, 2025}) ASSERT_TRUE(session_->apply(setExceptional(now().caseOf(), year, std::nullopt)));
  EXPECT_THAT(says("mean growth is not compound growth"),
              testing::Contains(HasSubstr("the mean of 10 regular yearly")));
  for (int i = 0; i < 2; ++i) ASSERT_TRUE(session_->undo());
  EXPECT_TRUE(says("window ends in an exceptional year").empty());
  ASSERT_TRUE(session_->apply(keepWindow(now().caseOf(), {2020, 2025, "since the boom"})));
  EXPECT_THAT(says("window ends in an exceptional year"), testing::ElementsAre(HasSubstr("stands on 2025")));
  ASSERT_TRUE(session_->apply(setAdjustment(now().caseOf(), now().evaluation->model(), "exceptional_items", 2025,
                                            34300000, 0.0, session_->said("closure"))));
  EXPECT_THAT(says("adjusted figure in use"),
              testing::ElementsAre(HasSubstr("Exceptional items 2025 is adjusted by (34.3) m: closure")));
}

TEST_F(History, ASplitRestatesTheCountsAndShowsBoth) {
  std::string record = *readFile(resources_->folder + "/demo/company.json");
  record.insert(record.rfind('}'), R"(, "splits": [{"on": "2021-03-01", "now": 2, "before": 1}])");
  const std::string file = folder_.file("company.json");
  ASSERT_TRUE(writeFile(file, record));
  const double before = now().asFiled->at(row("shares"), 0).value();
  const double later = now().asFiled->at(row("shares"), 11).value();
  const auto files = readFile(file);
  ASSERT_TRUE(session_->importFiles({{"company.json", *files}}));
  EXPECT_DOUBLE_EQ(now().history->at(row("shares"), 0).value(), 2 * before);
  EXPECT_DOUBLE_EQ(now().history->at(row("shares"), 11).value(), later) << "reported after the split";
  EXPECT_THAT(besideFiled(now(), row("shares"), 0), testing::ElementsAre(testing::HasSubstr("filed 60.9")));
  EXPECT_TRUE(besideFiled(now(), row("shares"), 11).empty());
}

TEST_F(History, TheReviewReadsTheChosenReading) {
  const auto margin = [&](Reading reading) {
    for (const QualityResult& r : qualityReview(now(), reading)) {
      if (now().resources->tests[r.test].name == "margin_drift") return r.figure.value();
    }
    ADD_FAILURE() << "no such test";
    return 0.0;
  };
  EXPECT_DOUBLE_EQ(margin(Reading::Adjusted), margin(Reading::AsFiled));
  ASSERT_TRUE(session_->apply(setAdjustment(now().caseOf(), now().evaluation->model(), "exceptional_items", 2025,
                                            34300000, 0.0, session_->said("closure"))));
  // 34.3 of 723.7 million of revenue, taken out of the last year's cost.
  EXPECT_NEAR(margin(Reading::Adjusted) - margin(Reading::AsFiled), 34.3 / 723.7, 1e-4);
}

TEST_F(History, QuartersAreReadInEveryView) {
  for (const Basis basis : {Basis::Quarters, Basis::Trailing}) {
    const InterimTable t = interimTable(now(), basis);
    size_t revenue = 0;
    while (t.rows[revenue].row != row("revenue")) ++revenue;
    const std::vector<Figure>& own = t.rows[revenue].figures;
    const auto view = [&](HistoryView v) { return t.figuresIn(revenue, v, now().evaluation->model()); };
    EXPECT_EQ(view(HistoryView::Amounts), own);
    for (size_t c = 0; c < own.size(); ++c) {
      const bool hasYear = c >= 4 && own[c].hasValue() && own[c - 4].hasValue();
      const bool hasTwo = c >= 8 && own[c].hasValue() && own[c - 8].hasValue();
      ASSERT_EQ(view(HistoryView::Growth)[c].hasValue(), hasYear) << c;
      ASSERT_EQ(view(HistoryView::Change)[c].hasValue(), hasYear) << c;
      ASSERT_EQ(view(HistoryView::GrowthTwoYears)[c].hasValue(), hasTwo) << c;
      if (hasYear) {
        EXPECT_NEAR(view(HistoryView::Growth)[c].value(), own[c].value() / own[c - 4].value() - 1, 1e-12);
        EXPECT_NEAR(view(HistoryView::Change)[c].value(), own[c].value() - own[c - 4].value(), 1e-3);
      }
      if (hasTwo) {
        EXPECT_NEAR(view(HistoryView::GrowthTwoYears)[c].value(), own[c].value() / own[c - 8].value() - 1, 1e-12);
      }
      if (own[c].hasValue()) {
        EXPECT_DOUBLE_EQ(view(HistoryView::ShareOfRevenue)[c].value(), 1);
      }
    }
  }
}

TEST_F(History, AnAdjustedYearLeavesTheOthersAndTheBalancesAlone) {
  const auto before = session_->now();
  ASSERT_TRUE(session_->apply(setAdjustment(now().caseOf(), now().evaluation->model(), "revenue", 2020,
                                            before->asFiled->at(row("revenue"), 6).value(), 6e8,
                                            session_->said("an order booked early"))));
  int moved = 0;
  for (size_t r = 0; r < now().evaluation->model().rows.size(); ++r) {
    const model::Row& m = now().evaluation->model().rows[r];
    if (!m.historyFiled) continue;
    for (int c = 0; c < static_cast<int>(now().years().size()); ++c) {
      const Figure& was = before->asFiled->at(model::RowId(r), c);
      EXPECT_EQ(now().asFiled->at(model::RowId(r), c), was) << m.name;
      if (now().history->at(model::RowId(r), c) == was) continue;
      ++moved;
      EXPECT_EQ(c, 6) << m.name << " moved in another year";
      EXPECT_EQ(m.timing, model::Timing::Flow) << m.name << " is a balance";
      EXPECT_FALSE(besideFiled(now(), model::RowId(r), c).empty()) << m.name << " moved without a word";
    }
  }
  EXPECT_EQ(moved, 5) << "revenue, EBIT, profit before tax, tax and net income";
}

TEST_F(History, TwelveMonthsPerShareStandOnAverageCounts) {
  const auto figures = [&](const char* name, std::optional<HistoryView> view) {
    const InterimTable t = interimTable(now(), Basis::Trailing);
    const auto at = std::find_if(t.rows.begin(), t.rows.end(), [&](const auto& r) { return r.row == row(name); });
    const auto index = static_cast<size_t>(at - t.rows.begin());
    return view ? t.figuresIn(index, *view, now().evaluation->model()) : t.rows[index].figures;
  };
  EXPECT_FALSE(figures("revenue", HistoryView::PerShare).back().hasValue()) << "the quarters' counts are not filed";
  const std::string counts =
      "concept,label,start,end,unit,decimals,value\n"
      "ifrs-full:NumberOfSharesOutstanding,,,2025-03-31,shares,0,60000000\n"
      "ifrs-full:NumberOfSharesOutstanding,,,2025-06-30,shares,0,60400000\n"
      "ifrs-full:NumberOfSharesOutstanding,,,2025-09-30,shares,0,61000000\n";
  ASSERT_TRUE(session_->importFiles({{"counts.csv", counts}}));
  const double opening = now().asFiled->at(row("shares"), 10).value();
  const double closing = now().asFiled->at(row("shares"), 11).value();
  // The mean of four quarters' averages of opening and closing counts.
  const double mean = (opening / 2 + 60e6 + 60.4e6 + 61e6 + closing / 2) / 4;
  EXPECT_NEAR(figures("revenue", HistoryView::PerShare).back().value(),
              figures("revenue", std::nullopt).back().value() / mean, 1e-9);
}

}  // namespace
}  // namespace zl::services
