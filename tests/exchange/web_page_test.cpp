// Tables of saved pages, laid out as filers lay them out: signs in cells of their own, headings that span, notes in
// raised print. What a cell should hold is what a browser shows in it.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "exchange/content.h"
#include "exchange/workbook/workbook.h"

namespace zl::exchange {
namespace {

using testing::HasSubstr;

/// Rows as "label|cell|cell", by column.
std::vector<std::string> rowsOf(const Sheet& sheet) {
  std::vector<std::string> rows;
  for (const SheetRow& row : sheet.rows) {
    std::string text;
    for (size_t i = 0; i < row.cells.size(); ++i)
      text += (text.empty() ? "" : "|") + row.cells[i].text + "@" + std::to_string(row.columns[i]);
    rows.push_back(std::move(text));
  }
  return rows;
}

TEST(WebTables, FiguresStandUnderTheHeadingThatSpansThem) {
  const auto book = readTables(R"(<!DOCTYPE html><HTML><body><h1>Report</h1>
    <table><tr><td>&nbsp;</td><td colspan=3>2024</td><td></td><td colspan=3>2023<sup>(1)</sup></td></tr>
    <tr><td>Net&nbsp;sales</td><td>$</td><td>1,250</td><td></td><td></td><td>$</td><td>1,100</td><td></td></tr>
    <tr><td>Loss from<br>sales</td><td></td><td>(30</td><td>)</td><td></td><td>(</td><td>20</td><td>)</td></tr>
    <tr style="display: none"><td>Hidden</td><td></td><td>9</td></tr></table></body>)",
                               ContentKind::WebPage, "p.html");
  ASSERT_TRUE(book) << book.error().text();
  ASSERT_EQ(book->sheets.size(), 1u);
  EXPECT_THAT(rowsOf(book->sheets[0]),
              testing::ElementsAre("Report@0", "2024@1|2023@5", "Net sales@0|$1,250@1|$1,100@5",
                                   "Loss from sales@0|(30)@1|(20)@5"));
  EXPECT_THAT(book->warnings, testing::Contains(HasSubstr("does not display")));
}

TEST(WebTables, EveryTableIsASheetAndWhatHasNoFiguresIsNone) {
  const auto book = readWebTables(
      "<table><tr><td>menu</td></tr><tr><td><table><tr><td>a</td><td>1</td><td>2</td></tr></table></td></tr></table>"
      "<table><caption>EUR m</caption><tr><th>b</th><td>3</td><td>4</td></tr></table>",
      "p");
  ASSERT_TRUE(book);
  ASSERT_EQ(book->sheets.size(), 2u);
  EXPECT_EQ(book->sheets[0].name, "table 1");
  EXPECT_THAT(rowsOf(book->sheets[1]), testing::ElementsAre("EUR m@0", "b@0|3@1|4@2"));
}

TEST(WebTables, WhatStandsBeforeATableIsItsTitle) {
  const std::string prose(300, 'x');
  const auto book = readWebTables(
      "<div>Hollin Bay</div><p>" + prose +
          "</p><p>(in <b>millions</b>)</p>"
          "<table><tr><td>a</td><td>1</td><td>2</td></tr></table><p>In thousands</p>"
          "<table><tr><td>December 31,</td></tr></table><table><tr><td>b</td><td>3</td><td>4</td></tr></table>"
          "<table><tr><td>In "
          "euro</td></tr><tr><td><table><tr><td>c</td><td>5</td><td>6</td></tr></table></td></tr></table>",
      "p");
  ASSERT_TRUE(book) << book.error().text();
  ASSERT_EQ(book->sheets.size(), 3u);
  EXPECT_THAT(rowsOf(book->sheets[0]), testing::ElementsAre("Hollin Bay@0", "(in millions)@0", "a@0|1@1|2@2"));
  EXPECT_THAT(rowsOf(book->sheets[1]), testing::ElementsAre("In thousands@0", "December 31,@0", "b@0|3@1|4@2"));
  EXPECT_THAT(rowsOf(book->sheets[2]), testing::ElementsAre("In euro@0", "c@0|5@1|6@2"));
}

TEST(WebTables, BrokenAndHostilePagesAreReadOrRefusedAndNeverRun) {
  EXPECT_THAT(readWebTables("<html><table><tr><td>x</td></tr></table>", "p").error().text(),
              HasSubstr("no table with figures"));
  EXPECT_TRUE(readWebTables("<table><tr><td>a<td>1<td>2<tr><td>b<td>3", "p"));
  std::string deep;
  for (int i = 0; i < 3000; ++i) deep += "<table><tr><td>";
  EXPECT_FALSE(readWebTables(deep + "1</td><td>2", "p"));
  EXPECT_FALSE(readWebTables("<table><tr><td colspan=\"999999999\">1</td><td colspan='-5'>2</td></tr></table>", "p")
                   .value_or(Workbook{})
                   .sheets.empty());
  EXPECT_THAT(
      rowsOf(readWebTables("<table><tr><td>a<script>document.write(9)</script></td><td>1</td><td>2</td></tr>", "p")
                 ->sheets[0]),
      testing::ElementsAre("a@0|1@1|2@2"));
}

TEST(Recognise, TellsPagesPackagesAndCompanyFacts) {
  EXPECT_EQ(*recognise("<!doctype html><p>x<TABLE><tr>", "p"), ContentKind::WebPage);
  EXPECT_EQ(*recognise(R"({"entityName":"X","facts":{"dei":{"A":{"units":{}}}}})", "p"), ContentKind::CompanyFacts);
  EXPECT_FALSE(isPackage("plain"));
}

}  // namespace
}  // namespace zl::exchange
