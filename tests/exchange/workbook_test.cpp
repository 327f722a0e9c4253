// Workbooks: cells with their kinds and places, from another library's writer and laid out by hand;
// bombs, tricks and damage refused.

#include "exchange/workbook/workbook.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>
#include <xlsxwriter.h>

#include <cstdio>
#include <fstream>

#include "exchange/content.h"
#include "exchange/workbook/archive.h"
#include "tests/support/archive_maker.h"
#include "tests/support/temporary_folder.h"

namespace zl::exchange {
namespace {

using test::archiveOf;
using test::odsOf;
using test::XlsxParts;
using testing::HasSubstr;
using Kind = SheetCell::Kind;

/// "A1=text B2#12.5 C3@2024-12-31": every cell with its place and kind.
std::string cellsOf(const Sheet& sheet) {
  std::string all;
  for (const SheetRow& row : sheet.rows) {
    for (const SheetCell& cell : row.cells) {
      std::string place = cellPlace(Sheet{}, cell).substr(5);
      all += (all.empty() ? "" : " ") + place +
             (cell.kind == Kind::Text     ? "="
              : cell.kind == Kind::Number ? "#"
                                          : "@") +
             cell.text;
    }
  }
  return all;
}

TEST(Xlsx, WrittenByAnotherLibrary) {
  const test::TemporaryFolder folder;
  const std::string path = folder.file("made.xlsx");
  lxw_workbook* book = workbook_new(path.c_str());
  lxw_format* dates = workbook_add_format(book);
  format_set_num_format(dates, "dd/mm/yyyy");
  lxw_worksheet* sheet = workbook_add_worksheet(book, "Income & cash");
  worksheet_write_string(sheet, 1, 1, "Net sales", nullptr);
  worksheet_write_number(sheet, 1, 2, 0.1, nullptr);
  worksheet_write_number(sheet, 1, 27, -1234567.25, nullptr);
  lxw_datetime day = {2024, 12, 31, 0, 0, 0.0};
  worksheet_write_datetime(sheet, 2, 0, &day, dates);
  worksheet_write_formula_num(sheet, 3, 0, "=1+1", nullptr, 2);
  worksheet_write_boolean(sheet, 3, 1, 1, nullptr);
  workbook_add_worksheet(book, "Empty");
  ASSERT_EQ(workbook_close(book), LXW_NO_ERROR);
  std::ifstream in(path, std::ios::binary);
  const std::string bytes(std::istreambuf_iterator<char>(in), {});
  EXPECT_EQ(*recognise(bytes, "b"), ContentKind::Workbook);
  const auto read = readXlsx(bytes, "b.xlsx");
  ASSERT_TRUE(read) << read.error().text();
  ASSERT_EQ(read->sheets.size(), 2u);
  EXPECT_EQ(read->sheets[0].name, "Income & cash");
  EXPECT_EQ(cellsOf(read->sheets[0]), "B2=Net sales C2#0.1 AB2#-1234567.25 A3@2024-12-31 A4#2 B4=TRUE");
}

TEST(Xlsx, LaidOutByHand) {
  XlsxParts parts;
  parts.strings = "<si><t>plain</t></si><si><r><t>rich </t></r><r><t>text</t></r><rPh><t>x</t></rPh></si>";
  parts.sheetData =
      "<row><c t=\"s\"><v>0</v></c><c t=\"s\"><v>1</v></c></row>"
      "<row r=\"5\"><c r=\"B5\" s=\"1\"><v>45657</v></c><c r=\"D5\" "
      "s=\"2\"><v>45657.75</v></c><c><v>1.5E3</v></c></row>"
      "<row r=\"6\"><c r=\"A6\" t=\"inlineStr\"><is><t> inline </t></is></c><c r=\"B6\" "
      "t=\"str\"><f>A1</f><v>made</v></c>"
      "<c r=\"C6\"><f>1/0</f></c><c r=\"D6\" t=\"e\"><v>#DIV/0!</v></c><c "
      "r=\"E6\"><v>0.10000000000000001</v></c></row>";
  const auto read = readXlsx(parts.bytes(), "b.xlsx");
  ASSERT_TRUE(read) << read.error().text();
  // Day 45657 counted from 30 December 1899 is 31 December 2024.
  EXPECT_EQ(cellsOf(read->sheets[0]),
            "A1=plain B1=rich text B5@2024-12-31 D5@2024-12-31 E5#1.5E3 A6=inline B6=made D6=#DIV/0! E6#0.1");
  EXPECT_THAT(read->warnings, testing::ElementsAre(HasSubstr("1 formulas have no stored value")));
}

TEST(Xlsx, FaultsAreNamedWithTheirPart) {
  const auto with = [](const std::string& data) {
    XlsxParts parts;
    parts.sheetData = data;
    return parts.bytes();
  };
  XlsxParts outside;
  outside.target = "../../../etc/passwd";
  XlsxParts bomb;
  bomb.strings = "<si><t>" + std::string(20u << 20, 'a') + "</t></si>";
  const std::pair<std::string, const char*> kFaults[] = {
      {with("<row><c t=\"s\"><v>7</v></c></row>"), "names a text that is not there"},
      {with("<row r=\"2\"/><row r=\"1\"/>"), "the rows do not ascend"},
      {with("<row r=\"1\"><c r=\"B1\"><v>1</v></c><c r=\"A1\"><v>1</v></c></row>"), "'A1' is not the next cell"},
      {with("<row r=\"1\"><c r=\"XFE1\"><v>1</v></c></row>"), "is not the next cell"},
      {with("<row r=\"9999999\"/>"), "do not ascend"},
      {with("<row><c t=\"inlineStr\"><is><t>" + std::string(70000, 'x') + "</t></is></c></row>"), "over 65,536 bytes"},
      {with("<row"), "the XML is broken"},
      {outside.bytes(), "a relationship leaves the package"},
      {bomb.bytes(), "unpacks to more than is read"},
      {archiveOf({{"a", "b"}}), "this archive is no workbook"},
      {archiveOf({{"_rels/.rels", "<Relationships/>"}}), "names no workbook"},
      {with("").substr(0, 900), "the archive is broken"},
      {"PK\x03\x04", "the archive is broken"}};
  for (const auto& [bytes, message] : kFaults) {
    const auto read = readXlsx(bytes, "b.xlsx");
    ASSERT_FALSE(read) << message;
    EXPECT_THAT(read.error().text(), HasSubstr(message));
  }
  test::Parts doctype = XlsxParts{}.parts();
  doctype[5].second = "<!DOCTYPE a [<!ENTITY b SYSTEM \"file:///etc/passwd\">]><worksheet>&b;</worksheet>";
  EXPECT_THAT(readXlsx(archiveOf(doctype), "b").error().text(), HasSubstr("declares a document type"));
}

TEST(Xlsx, WhatIsHiddenIsLeftOutAndABadNumberIsText) {
  test::Parts parts = XlsxParts{}.parts();
  parts[5].second =
      "<worksheet><cols><col min=\"2\" max=\"2\" hidden=\"1\"/></cols><sheetData>"
      "<row><c><v>1</v></c><c><v>2</v></c><c><v>1.4E-11</v></c></row>"
      "<row hidden=\"1\"><c><v>9</v></c></row><row><c><v>NaN</v></c><c/><c><v>0.30000000000000004</v></c></row>"
      "</sheetData></worksheet>";
  const auto read = readXlsx(archiveOf(parts), "b.xlsx");
  ASSERT_TRUE(read) << read.error().text();
  const Sheet& sheet = read->sheets.at(0);
  ASSERT_EQ(sheet.rows.size(), 2u);
  EXPECT_EQ(sheet.at(0, 1), nullptr);
  EXPECT_EQ(sheet.at(0, 2)->text, "0") << "what arithmetic leaves";
  EXPECT_EQ(sheet.at(1, 0)->kind, SheetCell::Kind::Text);
  EXPECT_EQ(sheet.at(1, 2)->text, "0.30000000000000004") << "a number of its own: nothing else is so near";
  EXPECT_THAT(read->warnings, testing::ElementsAre(HasSubstr("1 hidden row and 1 hidden column were left out")));
}

TEST(Ods, WhatIsHiddenIsLeftOut) {
  const auto read = readOds(
      odsOf("<table:table table:name=\"S\"><table:table-column table:number-columns-repeated=\"2\"/>"
            "<table:table-column table:visibility=\"collapse\"/>"
            "<table:table-row><table:table-cell office:value-type=\"float\" office:value=\"1\"/><table:table-cell/>"
            "<table:table-cell office:value-type=\"float\" office:value=\"3\"/></table:table-row>"
            "<table:table-row table:visibility=\"filter\" table:number-rows-repeated=\"4\"><table:table-cell "
            "office:value-type=\"float\" office:value=\"7\"/></table:table-row>"
            "<table:table-row><table:table-cell office:value-type=\"float\" office:value=\"x\"/></table:table-row>"
            "</table:table>"),
      "b.ods");
  ASSERT_TRUE(read) << read.error().text();
  ASSERT_EQ(read->sheets.at(0).rows.size(), 2u);
  EXPECT_EQ(read->sheets[0].rows[0].cells.size(), 1u);
  EXPECT_EQ(read->sheets[0].rows[1].cells[0].text, "x");
  EXPECT_EQ(read->sheets[0].rows[1].cells[0].row, 5) << "cells know where they stand";
  EXPECT_THAT(read->warnings, testing::ElementsAre(HasSubstr("4 hidden rows and 1 hidden column")));
}

TEST(Tables, SignsInCellsOfTheirOwnGoToTheirFigures) {
  // As pasted from a page: the heading stands over the sign, the figure beside it, brackets apart.
  const auto read = readTables(
      ";2024;;;2023;;\n;\xC2\xA3;;;\xC2\xA3;;\nSales;\xC2\xA3;1,250;;\xC2\xA3;1,100;\nLoss;;(30;);;(20;)\nNet;;12;;;11;"
      "\n",
      ContentKind::PlainTable, "t.csv");
  ASSERT_TRUE(read) << read.error().text();
  const Sheet& sheet = read->sheets.at(0);
  const auto text = [&](int row, int column) {
    const SheetCell* cell = sheet.at(row, column);
    return cell == nullptr ? std::string() : cell->text;
  };
  EXPECT_EQ(text(1, 1), "\xC2\xA3") << "a unit of its own stays";
  EXPECT_EQ(text(2, 1),
            "\xC2\xA3"
            "1,250");
  EXPECT_EQ(text(2, 4),
            "\xC2\xA3"
            "1,100");
  EXPECT_EQ(text(3, 1), "(30)");
  EXPECT_EQ(text(4, 4), "11");
  EXPECT_EQ(sheet.at(4, 4)->column, 5) << "and still says where it was written";
}

TEST(Ods, CellsRepeatsAndGroups) {
  const std::string bytes = odsOf(
      "<table:table table:name=\"S\"><table:table-column/>"
      "<table:table-header-rows><table:table-row><table:table-cell/><table:table-cell office:value-type=\"date\" "
      "office:date-value=\"2024-12-31T00:00:00\"><text:p>31.12.24</text:p></table:table-cell></table:table-row></"
      "table:table-header-rows>"
      "<table:table-row table:number-rows-repeated=\"3\"><table:table-cell "
      "table:number-columns-repeated=\"16000\"/></table:table-row>"
      "<table:table-row table:number-rows-repeated=\"2\"><table:table-cell office:value-type=\"string\"><text:p>Net "
      "<text:span>sales</text:span></text:p></table:table-cell>"
      "<table:table-cell office:value-type=\"float\" office:value=\"12.5\" "
      "table:number-columns-repeated=\"2\"><text:p>12,5</text:p></table:table-cell></table:table-row>"
      "<table:table-row table:number-rows-repeated=\"1048000\"><table:table-cell "
      "table:number-columns-repeated=\"16384\"/></table:table-row></table:table>");
  EXPECT_EQ(*recognise(bytes, "b"), ContentKind::OpenSheet);
  const auto read = readOds(bytes, "b.ods");
  ASSERT_TRUE(read) << read.error().text();
  EXPECT_EQ(cellsOf(read->sheets.at(0)), "B1@2024-12-31 A5=Net sales B5#12.5 C5#12.5 A6=Net sales B6#12.5 C6#12.5");
}

TEST(Ods, BombsAndDamageAreRefused) {
  const auto row = [](const std::string& attributes) {
    return "<table:table><table:table-row " + attributes +
           "><table:table-cell office:value-type=\"float\" office:value=\"1\" table:number-columns-repeated=\"16000\"/>"
           "</table:table-row></table:table>";
  };
  EXPECT_THAT(readOds(odsOf(row("table:number-rows-repeated=\"1000000\"")), "b").error().text(),
              HasSubstr("more cells than are read"));
  EXPECT_THAT(readOds(odsOf(row("table:number-rows-repeated=\"-5\"")), "b").error().text(),
              HasSubstr("no number of repeats"));
  EXPECT_THAT(readOds(archiveOf({{"content.xml", "<a/>"}}), "b").error().text(), HasSubstr("no spreadsheet"));
  EXPECT_THAT(readOds(archiveOf({{"other.xml", "<a/>"}}), "b").error().text(), HasSubstr("the part is missing"));
  std::string groups;
  for (int i = 0; i < 50; ++i) groups += "<table:table-row-group>";
  for (int i = 0; i < 50; ++i) groups += "</table:table-row-group>";
  EXPECT_THAT(readOds(odsOf("<table:table>" + groups + "</table:table>"), "b").error().text(),
              HasSubstr("more than 16 deep"));
}

TEST(Delimited, TabsSemicolonsAndCommas) {
  EXPECT_EQ(cellsOf(readDelimited("a\t1,5\n\n b \t2\n", "p")->sheets[0]), "A1=a B1=1,5 A3=b B3=2");
  EXPECT_EQ(cellsOf(readDelimited("a;1,5\r\nb;2\r\n", "p")->sheets[0]), "A1=a B1=1,5 A2=b B2=2");
  EXPECT_EQ(cellsOf(readDelimited("a,\"1,5\"\nb\n", "p")->sheets[0]), "A1=a B1=1,5 A2=b");
  EXPECT_THAT(readDelimited("a\tb\xFF\n", "p").error().text(), HasSubstr("not UTF-8"));
  EXPECT_FALSE(readDelimited("\n\n", "p"));
  EXPECT_EQ(*recognise("Sales,2024\nRevenue,5\n", "t"), ContentKind::PlainTable);
}

TEST(Parts, StayInsideTheArchive) {
  EXPECT_EQ(resolvePart("xl", "worksheets/a.xml"), "xl/worksheets/a.xml");
  EXPECT_EQ(resolvePart("xl", "/xl/a.xml"), "xl/a.xml");
  EXPECT_EQ(resolvePart("xl", "../a.xml"), "a.xml");
  EXPECT_EQ(resolvePart("xl", "../../a.xml"), "");
}

}  // namespace
}  // namespace zl::exchange
