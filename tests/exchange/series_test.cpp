// Tables of series, and how they add up. Expected: read off the tables.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "core/capital/series.h"
#include "exchange/content.h"
#include "exchange/csv/tables.h"

namespace zl::exchange {
namespace {

using testing::Contains;
using testing::HasSubstr;

TEST(SeriesTables, LevelsOfAnyNumberAscendByDay) {
  const std::string table =
      "series,date,level,unit,dividend,source\n"
      "Broad 100,2026-04-30,1204.5,EUR,,page\n"
      "orrel,2026-04-29,31.2,EUR,0.45,\n"
      "Broad 100,2026-04-29,1190,EUR,,\n"
      "Broad 100,2026-04-28,0,EUR,,\n"     // no level
      "Broad 100,2026-04-27,1180,USD,,\n"  // another unit than above
      "orrel,2026-04-28,30,EUR,,\n"
      "orrel,2026-04-28,31,EUR,,\n";  // the day is contradicted
  EXPECT_EQ(recognise(table, "s.csv").value(), ContentKind::SeriesTable);
  const auto read = readSeries(table, "s.csv");
  ASSERT_TRUE(read);
  ASSERT_EQ(read->rows.size(), 2U);
  EXPECT_EQ(read->rows[0].points.size(), 2U);
  EXPECT_EQ(read->rows[0].points.front().level, 1190);
  ASSERT_EQ(read->rows[1].points.size(), 1U);
  EXPECT_EQ(read->rows[1].points.front().dividend, 0.45);
  EXPECT_THAT(read->warnings, Contains(HasSubstr("two levels of 'orrel' are given for 2026-04-28")));
  EXPECT_FALSE(readSeries("series,date,level\nx,2026-04-30,none\n", "s.csv"));
}

TEST(SeriesTables, ALaterTableAddsAndStandsOver) {
  const auto day = [](unsigned d) { return makeDate(2026, 4, d); };
  std::vector<MarketSeries> all = {{"Broad 100", "", {{day(1), 100}, {day(2), 101}}}};
  mergeSeries(all, {{"broad 100", "EUR", {{day(2), 102}, {day(3), 103}}}, {"Narrow 10", "EUR", {{day(1), 5}}}});
  ASSERT_EQ(all.size(), 2U);
  const MarketSeries* broad = seriesNamed(all, "BROAD 100");
  ASSERT_NE(broad, nullptr);
  EXPECT_EQ(broad->unit, "EUR");
  ASSERT_EQ(broad->points.size(), 3U);
  EXPECT_EQ(broad->points[1].level, 102);
  mergeSeries(all, {{"Broad 100", "USD", {{day(4), 110}}}});
  EXPECT_EQ(seriesNamed(all, "Broad 100")->points.size(), 1U) << "levels in two currencies are no series";
}

}  // namespace
}  // namespace zl::exchange
