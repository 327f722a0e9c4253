// Rows of strangers' statements to standard lines. The companies are invented; every figure was worked out by hand so
// that the statements tie, and the expected lines are what a reader of such statements would say.

#include "core/structure/placing.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <cmath>
#include <map>

#include "core/table/reading.h"
#include "tests/support/kit_texts.h"
#include "tests/support/sheet_text.h"

namespace zl {
namespace {

using testing::Contains;
using testing::HasSubstr;

PlacingRules kitRules() {
  static const test::KitTexts kit;
  return {kit.labels, kit.lines, kit.parts};
}

TableReading readingOf(const std::string& text) {
  const Sheet sheet = test::sheetOf(text);
  const auto reading = guessTable(sheet, kitRules(), {});
  EXPECT_TRUE(reading) << reading.error().text();
  return reading.value_or(TableReading{});
}

/// Line and sign of each row by its label, "-operating_expenses"; "" where it is set aside.
std::map<std::string, std::string> placesIn(const TableReading& reading) {
  std::map<std::string, std::string> places;
  for (const TableLine& line : reading.lines) {
    places[line.concept_name.substr(6)] = (line.choice.weight < 0 ? "-" : "") + line.choice.line;
  }
  return places;
}

void expectAmongPlaces(const TableReading& reading, const std::map<std::string, std::string>& expected) {
  const auto places = placesIn(reading);
  for (const auto& [label, line] : expected) {
    ASSERT_TRUE(places.count(label)) << label;
    EXPECT_EQ(places.at(label), line) << label;
  }
}

void expectPlaces(const TableReading& reading, const std::map<std::string, std::string>& expected) {
  expectAmongPlaces(reading, expected);
  EXPECT_EQ(reading.lines.size(), expected.size());
}

/// What a line's rows sum up to in the first column.
double lineIn(const Sheet& sheet, const TableReading& reading, const std::string& line) {
  double sum = 0;
  for (const TableLine& l : reading.lines) {
    if (l.choice.line != line) continue;
    const SheetCell* cell = sheet.at(l.row, reading.columns[0].column);
    if (cell != nullptr) sum += l.choice.weight * std::stod(displayedNumber(cell->text, '.')->plain);
  }
  return sum;
}

const char* const kByFunction =
    "Thornquay Instruments Inc.\n(in millions of US dollars)\n"
    "|2024|2023|2022\n"
    "Net revenues|4,212|3,988|3,871\n"
    "Cost of revenues|2,417|2,301|2,266\n"
    "Gross margin|1,795|1,687|1,605\n"
    "Operating expenses:\n"
    "Research and development|402|371|355\n"
    "Selling, general and administrative|711|690|668\n"
    "Amortization of acquired technology|48|52|57\n"
    "Gain on sale of facility|(13)|0|0\n"
    "Total operating expenses|1,148|1,113|1,080\n"
    "Income from operations|647|574|525\n"
    "Other income (expense):\n"
    "Interest income|31|18|4\n"
    "Interest expense|(77)|(81)|(69)\n"
    "Other, net|6|(9)|3\n"
    "Total other income (expense), net|(40)|(72)|(62)\n"
    "Income before income taxes|607|502|463\n"
    "Provision for income taxes|131|108|97\n"
    "Net income|476|394|366\n";

TEST(Placing, AStatementByFunction) {
  const TableReading reading = readingOf(kByFunction);
  expectPlaces(reading, {{"Net revenues", "revenue"},
                         {"Cost of revenues", "cost_of_sales"},
                         {"Gross margin", ""},
                         {"Research and development", "operating_expenses"},
                         {"Selling, general and administrative", "operating_expenses"},
                         {"Amortization of acquired technology", "operating_expenses"},
                         {"Gain on sale of facility", "operating_expenses"},
                         {"Total operating expenses", ""},
                         {"Income from operations", "ebit"},
                         {"Interest income", "interest_income"},
                         {"Interest expense", "-interest_expense"},
                         {"Other, net", "other_income"},
                         {"Total other income (expense), net", ""},
                         {"Income before income taxes", "pretax_profit"},
                         {"Provision for income taxes", "tax"},
                         {"Net income", "net_income"}});
  // 402 + 711 + 48 - 13: the gain lessens the costs.
  EXPECT_EQ(lineIn(test::sheetOf(kByFunction), reading, "operating_expenses"), 1148);
  EXPECT_TRUE(std::none_of(reading.doubts.begin(), reading.doubts.end(),
                           [](const std::string& d) { return d.find("add up") != std::string::npos; }));
}

const char* const kBalance =
    "GBP '000|30 June 2024|30 June 2023\n"
    "Current assets\n"
    "Cash|8,114|6,902\n"
    "Trade receivables|21,380|19,766\n"
    "Unbilled work|3,412|2,987\n"
    "Stocks|17,905|18,410\n"
    "Other|1,266|1,401\n"
    "Total current assets|52,077|49,466\n"
    "Plant and equipment|30,118|31,552\n"
    "Goodwill|12,440|12,440\n"
    "Sundry|905|1,116\n"
    "Total assets|95,540|94,574\n"
    "Current liabilities\n"
    "Trade payables|14,208|13,977\n"
    "Overdraft facility|2,015|3,118\n"
    "Other|4,667|4,021\n"
    "Total current liabilities|20,890|21,116\n"
    "Bank loans|18,000|20,000\n"
    "Long-service leave|1,204|1,155\n"
    "Total liabilities|40,094|42,271\n"
    "Share capital|5,000|5,000\n"
    "Retained profits|48,931|45,888\n"
    "Non-controlling interests|1,515|1,415\n"
    "Total equity|55,446|52,303\n"
    "Total equity and liabilities|95,540|94,574\n";

TEST(Placing, ABalanceSheetDropsNothing) {
  const TableReading reading = readingOf(kBalance);
  expectPlaces(reading, {{"Cash", "cash"},
                         {"Trade receivables", "receivables"},
                         {"Unbilled work", "other_current_assets"},
                         {"Stocks", "inventory"},
                         {"Other", "other_current_assets"},
                         {"Total current assets", ""},
                         {"Plant and equipment", "plant"},
                         {"Goodwill", "goodwill"},
                         {"Sundry", "other_noncurrent_assets"},
                         {"Total assets", "total_assets"},
                         {"Trade payables", "payables"},
                         {"Overdraft facility", "other_current_liabilities"},
                         {"Other (2)", "other_current_liabilities"},
                         {"Total current liabilities", ""},
                         {"Bank loans", "borrowings_long"},
                         {"Long-service leave", "other_noncurrent_liabilities"},
                         {"Total liabilities", "total_liabilities"},
                         {"Share capital", "equity"},
                         {"Retained profits", "equity"},
                         {"Non-controlling interests", "minorities"},
                         {"Total equity", "total_equity"},
                         {"Total equity and liabilities", ""}});
  const Sheet sheet = test::sheetOf(kBalance);
  double assets = 0;
  for (const char* line :
       {"cash", "receivables", "inventory", "other_current_assets", "plant", "goodwill", "other_noncurrent_assets"})
    assets += lineIn(sheet, reading, line);
  EXPECT_EQ(assets, 95540);
  EXPECT_EQ(lineIn(sheet, reading, "equity"), 53931);
}

TEST(Placing, EquityThatIsWhatDebtLeavesIsStillEquity) {
  // By either name of it: the whole, and the owners' part.
  for (const auto& [name, line] :
       {std::pair("Total equity", "total_equity"), std::pair("Total stockholders' equity (deficit)", "equity")}) {
    const TableReading reading = readingOf(
        "EUR m|2024|2023|2022\nCash|100|90|80\nPlant and equipment|400|380|360\nTotal assets|500|470|440\n"
        "Accounts payable|20|10|15\nDebt|180|180|165\n" +
        std::string(name) + "|300|280|260\n");
    expectPlaces(reading, {{"Cash", "cash"},
                           {"Plant and equipment", "plant"},
                           {"Total assets", "total_assets"},
                           {"Accounts payable", "payables"},
                           {"Debt", "borrowings_long"},
                           {name, line}});
  }
}

TEST(Placing, ByNatureInGerman) {
  const TableReading reading = readingOf(
      "TEUR|2024|2023|2022\n"
      "Umsatzerl\xC3\xB6se|88.412|81.097|79.950\n"
      "Materialaufwand|-39.204|-36.551|-37.208\n"
      "Personalaufwand|-26.117|-24.880|-23.915\n"
      "Abschreibungen|-6.033|-5.871|-5.660\n"
      "Sonstige betriebliche Aufwendungen|-9.255|-8.402|-8.117\n"
      "Sonstige betriebliche Ertr\xC3\xA4ge|1.118|902|1.340\n"
      "Betriebsergebnis|8.921|6.295|6.390\n"
      "Zinsertr\xC3\xA4ge|144|61|12\n"
      "Zinsaufwendungen|-1.902|-1.744|-1.698\n"
      "Ergebnis vor Steuern|7.163|4.612|4.704\n"
      "Ertragsteuern|-2.149|-1.384|-1.411\n"
      "Jahres\xC3\xBC"
      "berschuss|5.014|3.228|3.293\n");
  expectPlaces(reading, {{"Umsatzerl\xC3\xB6se", "revenue"},
                         {"Materialaufwand", "-cost_of_sales"},
                         {"Personalaufwand", "-operating_expenses"},
                         {"Abschreibungen", "-depreciation"},
                         {"Sonstige betriebliche Aufwendungen", "-operating_expenses"},
                         {"Sonstige betriebliche Ertr\xC3\xA4ge", "-operating_expenses"},
                         {"Betriebsergebnis", "ebit"},
                         {"Zinsertr\xC3\xA4ge", "interest_income"},
                         {"Zinsaufwendungen", "-interest_expense"},
                         {"Ergebnis vor Steuern", "pretax_profit"},
                         {"Ertragsteuern", "-tax"},
                         {"Jahres\xC3\xBC"
                          "berschuss",
                          "net_income"}});
}

TEST(Placing, ACashFlowStatementWithWhatItAddsBack) {
  const TableReading reading = readingOf(
      "USD m|2024|2023|2022\n"
      "Net income|476|394|366\n"
      "Depreciation and amortization|212|208|199\n"
      "Stock-based compensation|61|55|52\n"
      "Changes in working capital|(44)|17|(31)\n"
      "Net cash provided by operating activities|705|674|586\n"
      "Purchases of property and equipment|(251)|(240)|(233)\n"
      "Purchases of marketable securities|(120)|(90)|(75)\n"
      "Net cash used in investing activities|(371)|(330)|(308)\n"
      "Dividends paid|(102)|(96)|(90)\n"
      "Proceeds from long-term debt|150|0|200\n"
      "Repayments of long-term debt|(210)|(60)|(280)\n"
      "Taxes paid on vested shares|(19)|(16)|(14)\n"
      "Net cash used in financing activities|(181)|(172)|(184)\n"
      "Net increase in cash|153|172|94\n"
      "Cash at beginning of year|611|439|345\n"
      "Cash at end of year|764|611|439\n");
  expectPlaces(reading, {{"Net income", "net_income"},
                         {"Depreciation and amortization", "depreciation"},
                         {"Stock-based compensation", "stock_pay"},
                         {"Changes in working capital", ""},
                         {"Net cash provided by operating activities", "operating_cash_flow"},
                         {"Purchases of property and equipment", "-plant_bought"},
                         {"Purchases of marketable securities", "other_cash_flow"},
                         {"Net cash used in investing activities", ""},
                         {"Dividends paid", "-dividends"},
                         {"Proceeds from long-term debt", "net_borrowing"},
                         {"Repayments of long-term debt", "net_borrowing"},
                         {"Taxes paid on vested shares", "other_cash_flow"},
                         {"Net cash used in financing activities", ""},
                         {"Net increase in cash", "net_cash_movement"},
                         {"Cash at beginning of year", ""},
                         {"Cash at end of year", ""}});
}

TEST(Placing, AFigureThatIsOffIsNamedBeforeAnythingIsStored) {
  std::string text = kBalance;
  text.replace(text.find("21,380"), 6, "12,380");  // two digits have changed places
  const TableReading reading = readingOf(text);
  EXPECT_THAT(reading.doubts, Contains(testing::AllOf(HasSubstr("'Total current assets'"), HasSubstr("30 June 2024"))));
}

TEST(CashFlow, IsToldByWhatItStartsFromAndBuysInALanguageThatNobodyHasTaught) {
  // Made-up words but for what the income statement and the balance sheet name, and a movement of cash.
  const TableReading reading = readingOf(
      "Qosh|2024|2023|2022\nRevenue|900|850|800\nCost of sales|(700)|(660)|(625)\nOperating profit|200|190|175\n"
      "Net income|200|190|175\n"
      "Net income|200|190|175\nVarn olt|45|41|38\nTebrin|(15)|(12)|9\nOrun vel sabak|230|219|222\n"
      "Dal property, plant and equipment mir|(80)|(77)|(71)\nOrun vel mirat|(80)|(77)|(71)\n"
      "Keshti|(50)|(47)|(44)\nSorrel|20|(6)|11\nOrun vel dash|(30)|(53)|(33)\n"
      "Net change in cash|120|89|118\n");
  const auto places = placesIn(reading);
  EXPECT_EQ(places.at("Orun vel sabak"), "operating_cash_flow");
  EXPECT_EQ(places.at("Dal property, plant and equipment mir"), "-plant_bought");
  EXPECT_EQ(places.at("Orun vel mirat"), "") << "the same figures again";
  EXPECT_EQ(places.at("Keshti"), "other_cash_flow");
  EXPECT_EQ(places.at("Tebrin"), "") << "a part of cash from operations, which is placed";
}

TEST(CashFlow, WhatStartsElsewhereOrComesInIsNotTakenForIt) {
  // The first section starts from nothing of the income statement, and plant is sold in it: an inflow buys nothing.
  const TableReading reading = readingOf(
      "Qosh|2024|2023|2022\nRevenue|900|850|800\nCost of sales|(700)|(660)|(625)\nOperating profit|200|190|175\n"
      "Net income|200|190|175\n"
      "Zun mir|212|197|181\nVarn olt|45|41|38\nOrun vel sabak|257|238|219\n"
      "Dal property, plant and equipment mir|80|77|71\nMokresh|(33)|(12)|(19)\nOrun vel mirat|47|65|52\n"
      "Keshti|(50)|(47)|(44)\nSorrel|20|(6)|11\nOrun vel dash|(30)|(53)|(33)\n"
      "Net change in cash|274|250|238\n");
  const auto places = placesIn(reading);
  EXPECT_NE(places.at("Orun vel sabak"), "operating_cash_flow");
  EXPECT_THAT(places.at("Dal property, plant and equipment mir"), testing::Not(HasSubstr("plant_bought")));
}

TEST(Parts, UnderAHeadingWithoutAFigureTellOfNoRow) {
  const TableReading reading = readingOf(
      "EUR m|2024|2023|2022\nTrade receivables|120|110|97\nOther current assets|||\nof which tax|30|28|26\n"
      "of which cash|45|41|33\nTotal current assets|195|179|156\n");
  EXPECT_EQ(reading.sums, 1) << "the rows are parts of the total, as nothing else holds them";
}

TEST(Parts, ThatARowTellsOfStandInWords) {
  const auto parts = PartRules::parse("told \"of which\" | \"davon\"\n\"current assets\" = other\n", "p");
  ASSERT_TRUE(parts) << parts.error().text();
  EXPECT_EQ(parts->toldOf(" - of which: Cash (note 7)"), "cash");
  EXPECT_EQ(parts->toldOf("Davon Vorräte"), "vorräte");
  for (const char* none : {"of which", "Current assets", "Cash of which none", "ofwhich cash", ""}) {
    EXPECT_EQ(parts->toldOf(none), "") << none;
  }
  EXPECT_FALSE(PartRules::parse("told of which\n", "p"));
}

TEST(Signs, OfARowOfNoughtsAreNotToldByItsPlace) {
  const TableReading reading = readingOf(
      "Quillwort Therapeutics, Inc. (in thousands of USD)\n|2025|2024|2023\nRevenue|0|0|0\n"
      "Research and development|88,210|71,004|52,330\nGeneral and administrative|24,118|21,662|18,907\n"
      "Total operating expenses|112,328|92,666|71,237\nLoss from operations|(112,328)|(92,666)|(71,237)\n"
      "Interest income|9,204|10,118|6,001\nNet loss|(103,124)|(82,548)|(65,236)\n");
  const auto places = placesIn(reading);
  EXPECT_EQ(places.at("Revenue"), "revenue") << "next year's table remembers it";
  EXPECT_EQ(places.at("Loss from operations"), "ebit");
  EXPECT_EQ(places.at("Net loss"), "net_income");
}

TEST(BalanceSheet, OfNetAssetsAndCreditorsWithoutParts) {
  const TableReading reading = readingOf(
      "Corriedale Mills Limited\nProfit and loss account for the year ended 31 March 2025\n"
      "|2025|2024\n|\xC2\xA3'000|\xC2\xA3'000\nTurnover|14,820|13,960\nCost of sales|(8,910)|(8,470)\n"
      "Gross profit|5,910|5,490\nAdministrative expenses|(4,050)|(3,875)\nOperating profit|1,860|1,615\n"
      "Balance sheet as at 31 March 2025\nFixed assets\nIntangible assets|310|340\nTangible assets|5,120|4,890\n"
      "|5,430|5,230\nCurrent assets\nStocks|2,240|2,110\nDebtors|2,610|2,480\nCash at bank and in hand|940|655\n"
      "|5,790|5,245\nCreditors: amounts falling due within one year|(2,330)|(2,260)\nNet current assets|3,460|2,985\n"
      "Total assets less current liabilities|8,890|8,215\n"
      "Creditors: amounts falling due after more than one year|(1,800)|(2,000)\nProvisions for "
      "liabilities|(214)|(243)\n"
      "Net assets|6,876|5,972\nCapital and reserves\nCalled up share capital|500|500\n"
      "Profit and loss account|6,376|5,472\nShareholders' funds|6,876|5,972\n");
  EXPECT_EQ(dateText(reading.columns.at(0).end), "2025-03-31") << "as the titles say";
  EXPECT_THAT(reading.doubts, testing::Not(Contains(HasSubstr("taken to end"))));
  const auto places = placesIn(reading);
  EXPECT_EQ(places.at("Creditors: amounts falling due within one year"), "-other_current_liabilities");
  EXPECT_EQ(places.at("Creditors: amounts falling due after more than one year"), "-other_noncurrent_liabilities");
  EXPECT_EQ(places.at("Provisions for liabilities"), "-other_noncurrent_liabilities");
  EXPECT_EQ(places.at("Stocks"), "inventory");
}

TEST(BalanceSheet, WhoseSectionsStandBeforeTheirParts) {
  const TableReading reading = readingOf(
      "ZAR million|Note|30 June 2025|30 June 2024\nNon-current assets||21 040|20 310\n"
      "Property, plant and equipment|9|12 300|11 904\nRight-of-use assets|10|3 120|3 201\nGoodwill||4 410|4 410\n"
      "Other||1 210|795\nCurrent assets||15 220|14 402\nInventories||6 610|6 401\n"
      "Trade and other receivables||4 980|4 789\nCash and cash equivalents||3 630|3 212\nTotal assets||36 260|34 712\n"
      "Equity||17 300|16 001\nNon-current liabilities||10 110|10 410\nBorrowings|12|7 010|7 300\n"
      "Lease liabilities|10|3 100|3 110\nCurrent liabilities||8 850|8 301\nTrade and other payables||6 900|6 480\n"
      "Borrowings|12|1 200|1 080\nLease liabilities|10|750|741\nTotal equity and liabilities||36 260|34 712\n");
  // What assets leave when equity and the other debt are taken off is no sum of current liabilities.
  expectAmongPlaces(reading, {{"Total assets", "total_assets"},
                              {"Equity", "total_equity"},
                              {"Current liabilities", ""},
                              {"Trade and other payables", "payables"},
                              {"Borrowings", "borrowings_long"},
                              {"Borrowings (2)", "borrowings_current"},
                              {"Lease liabilities", "lease_liabilities"},
                              {"Lease liabilities (2)", "lease_liabilities"}});
}

TEST(Income, InTheWordsOfASpreadsheet) {
  const TableReading reading = readingOf(
      "USD m|2025|2024|2023\nRevenue|1003|954|911\nCOGS|560|533|511\nSG&A|258|246|236\nD&A|50.5|48|45.5\n"
      "EBIT|134.5|127|118.5\nInterest|11.6|11|10.1\nPretax income|122.9|116|108.4\nTaxes|30.7|29|27.1\n"
      "Net income|92.2|87|81.3\nEPS ($)|1.72|1.49|1.31\nNet debt|930|1,010|1,040\n"
      "Shares (m)|53.6|58.4|62.1\n");
  expectAmongPlaces(reading, {{"COGS", "cost_of_sales"},
                              {"SG&A", "operating_expenses"},
                              {"D&A", "depreciation"},
                              {"Interest", "interest_expense"},
                              {"Pretax income", "pretax_profit"},
                              {"Taxes", "tax"},
                              {"EPS ($)", ""},
                              {"Net debt", ""},  // no flow of debt
                              {"Shares (m)", "shares"}});
}

}  // namespace
}  // namespace zl
