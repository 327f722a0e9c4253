// The demo's interim reports in three formats, and the faults that are planted beside it.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "services/reports/report.h"
#include "services/views/interim_table.h"
#include "tests/support/demo_book.h"
#include "tests/support/files.h"

namespace zl::services {
namespace {

using test::DemoBook;
using test::demoFile;
using testing::HasSubstr;

Figure at(const InterimTable& table, const Snapshot& s, const char* row, const std::string& period) {
  const model::RowId index = s.evaluation->model().find(row);
  const auto column = std::find(table.periods.begin(), table.periods.end(), period);
  for (const InterimRow& r : table.rows) {
    if (r.row == index && column != table.periods.end())
      return r.figures[static_cast<size_t>(column - table.periods.begin())];
  }
  return Figure::absent("not in the table");
}

TEST_F(DemoBook, QuartersOfAYearAddUpToIt) {
  const auto session = open();
  const Snapshot& s = *session->now();
  const InterimTable quarters = interimTable(s, Basis::Quarters);
  ASSERT_EQ(quarters.periods.size(), 15u) << "from the end of the first half of 2022";
  EXPECT_FALSE(at(quarters, s, "revenue", "Q2 2022").hasValue()) << "a half-year is not two quarters";
  for (const char* row : {"revenue", "cost_of_sales", "operating_expenses", "ebit", "net_income", "gross_profit"}) {
    for (int year = 2023; year <= 2025; ++year) {
      Figure sum = Figure::of(0.0);
      for (int q = 1; q <= 4; ++q)
        sum = sum + at(quarters, s, row, "Q" + std::to_string(q) + " " + std::to_string(year));
      const Figure whole = s.history->at(s.evaluation->model().find(row), year - 2014);
      ASSERT_TRUE(sum.hasValue()) << row << year << sum.reason();
      EXPECT_NEAR(sum.value(), whole.value(), 1.0) << row << ' ' << year;
    }
  }
  EXPECT_FALSE(at(quarters, s, "receivable_days", "Q2 2024").hasValue()) << "days mean nothing on one quarter's flow";
}

TEST_F(DemoBook, TrailingTwelveMonthsEndInTheYearItself) {
  const auto session = open();
  const Snapshot& s = *session->now();
  const InterimTable trailing = interimTable(s, Basis::Trailing);
  for (const char* row : {"revenue", "ebit", "ebitda", "receivable_days", "gross_margin"}) {
    const model::RowId index = s.evaluation->model().find(row);
    ASSERT_TRUE(index.known()) << row;
    EXPECT_NEAR(at(trailing, s, row, "Q4 2024").value(), s.history->at(index, 10).value(), 1e-6) << row;
  }
  // 2023 as a year, plus nine months of 2024, less nine months of 2023, from the quarters.
  const InterimTable quarters = interimTable(s, Basis::Quarters);
  double sum = 0;
  for (const char* q : {"Q4 2023", "Q1 2024", "Q2 2024", "Q3 2024"}) sum += at(quarters, s, "revenue", q).value();
  EXPECT_NEAR(at(trailing, s, "revenue", "Q3 2024").value(), sum, 1.0);
  EXPECT_FALSE(at(trailing, s, "revenue", "Q1 2023").hasValue()) << "no quarters of 2022 are filed";
  // As filed: 2022 restated 778,145, plus the first half of 2023 373,042, less that of 2022 368,642 thousand.
  EXPECT_DOUBLE_EQ(at(trailing, s, "revenue", "Q2 2023").value(), 782545e3);
  const auto row = std::find_if(trailing.rows.begin(), trailing.rows.end(),
                                [&](const InterimRow& r) { return r.row == s.evaluation->model().find("revenue"); });
  ASSERT_NE(row, trailing.rows.end());
  const auto revenue = static_cast<size_t>(row - trailing.rows.begin());
  // At a year end the trailing growth is the year's own.
  const std::vector<Figure> growth = trailing.figuresIn(revenue, HistoryView::Growth, s.evaluation->model());
  EXPECT_NEAR(growth.at(10).value(), s.history->at(row->row, 10).value() / s.history->at(row->row, 9).value() - 1,
              1e-12);
  EXPECT_FALSE(growth.at(4).hasValue()) << "the twelve months a year before Q2 2023 need the half-year of 2021";
  EXPECT_DOUBLE_EQ(trailing.figuresIn(revenue, HistoryView::ShareOfRevenue, s.evaluation->model()).at(10).value(), 1.0);
  EXPECT_THAT(interimText(s, Basis::Trailing), HasSubstr("row,label,unit,Q2 2022,"));
  EXPECT_EQ(interimJson(s, Basis::Quarters)["periods"].size(), 15u);
}

struct Planted {
  const char* file;
  const char* monitor;
  const char* says;
  Severity severity = Severity::Fault;
};

class PlantedFaults : public DemoBook, public testing::WithParamInterface<Planted> {};

TEST_P(PlantedFaults, AreCaught) {
  const auto session = open();
  const auto count = [&] {
    const auto& findings = session->now()->findings();
    return std::count_if(findings.begin(), findings.end(),
                         [](const Finding& f) { return f.monitor == GetParam().monitor; });
  };
  EXPECT_EQ(count(), 0) << "the demo itself has no such fault";
  const std::string name = GetParam().file;
  ASSERT_TRUE(session->importFiles({{name, demoFile("faults/" + name)}}));
  const auto& findings = session->now()->findings();
  const auto found =
      std::find_if(findings.begin(), findings.end(), [](const Finding& f) { return f.monitor == GetParam().monitor; });
  ASSERT_NE(found, findings.end());
  EXPECT_EQ(found->severity, GetParam().severity);
  EXPECT_EQ(found->stop, Stop::Filings);
  EXPECT_THAT(found->text, HasSubstr(GetParam().says));
  ASSERT_TRUE(session->undo());
  EXPECT_EQ(count(), 0) << "undone with the import";
}

INSTANTIATE_TEST_SUITE_P(
    Files, PlantedFaults,
    testing::Values(Planted{"wrong-date.csv", "column under the wrong date",
                            "wrong-date.csv reports for 2017-12-31 what other filings report for 2016-12-31"},
                    Planted{"scale-slip.csv", "scale slip",
                            "ifrs-full:Revenue 2025 is about 1,000 times less than its neighbours"},
                    Planted{"parts.json", "segments do not add up",
                            "ifrs-full:Revenue 2019 by Segments: off by -7,000,000 from the whole", Severity::Warning},
                    Planted{"currency.csv", "currency mix", "1 facts are in another currency", Severity::Warning},
                    Planted{"duplicate.csv", "duplicate facts disagree", "ifrs-full:Inventories 2018-12-31"}));

}  // namespace
}  // namespace zl::services
