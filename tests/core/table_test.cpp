// Tables of figures as people lay them out: headings, numbers, labels, signs, to exact facts.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <sstream>

#include "core/table/gathered.h"
#include "core/table/reading.h"
#include "tests/support/kit_texts.h"
#include "tests/support/sheet_text.h"

namespace zl {
namespace {

using test::sheetOf;
using testing::Contains;
using testing::HasSubstr;

struct Heading {
  const char* text;
  const char* end;  ///< in a company whose years end in March; empty: no heading
  int months = 12;
};

class Headings : public testing::TestWithParam<Heading> {};

TEST_P(Headings, NameAPeriodOrNothing) {
  const std::optional<PeriodHeading> heading = periodHeading(GetParam().text);
  ASSERT_EQ(heading.has_value(), GetParam().end[0] != 0) << GetParam().text;
  if (!heading) return;
  EXPECT_EQ(dateText(heading->endIn({3})), GetParam().end) << GetParam().text;
  EXPECT_EQ(heading->months, GetParam().months) << GetParam().text;
}

INSTANTIATE_TEST_SUITE_P(
    Texts, Headings,
    testing::Values(
        Heading{"2024", "2024-03-31"}, Heading{" FY24 ", "2024-03-31"}, Heading{"FY2024A", "2024-03-31"},
        Heading{"2023/24", "2024-03-31"}, Heading{"31 Dec 2024", "2024-12-31"},
        Heading{"December 31, 2024", "2024-12-31"}, Heading{"31.12.2024", "2024-12-31"},
        Heading{"12/31/2024", "2024-12-31"}, Heading{"30/06/24", "2024-06-30"}, Heading{"06/30/2024", "2024-06-30"},
        Heading{"2024-12-31", "2024-12-31"}, Heading{"Dec-24", "2024-12-31"},
        Heading{"Year ended 31st March 2024", "2024-03-31"}, Heading{"Feb 2024", "2024-02-29"},
        Heading{"Q3 2024", "2023-12-31", 3}, Heading{"1Q24", "2023-06-30", 3}, Heading{"H1 24", "2023-09-30", 6},
        Heading{"9M 2024", "2023-12-31", 9}, Heading{"6 months 2024", "2023-09-30", 6}, Heading{"2025E", "2025-03-31"},
        Heading{"Note", ""}, Heading{"Change %", ""}, Heading{"12", ""}, Heading{"2024 revenue", ""},
        Heading{"31.02.2024", ""}, Heading{"", ""}, Heading{"1,250", ""}, Heading{"Q5 2024", ""}, Heading{"24", ""},
        Heading{"99999999999999999999", ""}, Heading{"52 weeks ended 1 February 2025", "2025-02-01"},
        Heading{"53 weeks ended 3 February 2024 (restated)", "2024-02-03"},
        Heading{"26 weeks ended 3 August 2024", "2024-08-03", 6}, Heading{"13 weeks to 4 May 2024", "2024-05-04", 3},
        Heading{"Fiscal year ended September 30, 2025", "2025-09-30"},
        Heading{"Three months ended 31 March 2024 (unaudited)", "2024-03-31", 3},
        Heading{"Nine months ended September 30, 2024", "2024-09-30", 9},
        Heading{"Third quarter 2024", "2023-12-31", 3}, Heading{"CY2023", "2023-03-31"},
        Heading{"12/2023", "2023-12-31"}, Heading{"2024 (1)", "2024-03-31"}, Heading{"13/2023", ""},
        Heading{"three cheers 2024", ""}, Heading{"Quarter ended 31 March 2024", "2024-03-31", 3},
        Heading{"1st half 2024", "2023-09-30", 6}, Heading{"FY18 (Mar 2018)", "2018-03-31"},
        Heading{"31 Mar 2018 (FY18)", "2018-03-31"}, Heading{"2023-24", "2024-03-31"}, Heading{"1999-00", "2000-03-31"},
        Heading{"2023-13", ""}, Heading{"FY3/2024", "2024-03-31"}, Heading{"FY3/24", "2024-03-31"},
        Heading{"FY12/24", "2024-12-31"}, Heading{"FY23/24", "2024-03-31"}, Heading{"FY2024/3", "2024-03-31"},
        Heading{"2024/12", "2024-12-31"}, Heading{"2011/12", "2012-03-31"}, Heading{"2024/26", ""}));

// The same in other languages: what their reports print above columns.
INSTANTIATE_TEST_SUITE_P(
    OtherLanguages, Headings,
    testing::Values(
        Heading{"31. Dezember 2024", "2024-12-31"}, Heading{"Gesch\u00E4ftsjahr zum 31. M\u00E4rz 2024", "2024-03-31"},
        Heading{"1. Halbjahr 2024", "2023-09-30", 6}, Heading{"Drittes Quartal 2024", "2023-12-31", 3},
        Heading{"1. Oktober 2023 bis 30. September 2024", "2024-09-30"}, Heading{"6 Monate 2024", "2023-09-30", 6},
        Heading{"Exercice clos le 31 d\u00E9cembre 2024", "2024-12-31"}, Heading{"31 ao\u00FBt 2024", "2024-08-31"},
        Heading{"du 1er avril 2023 au 31 mars 2024", "2024-03-31"}, Heading{"T3 2024", "2023-12-31", 3},
        Heading{"1er semestre 2024", "2023-09-30", 6}, Heading{"31 de diciembre de 2024", "2024-12-31"},
        Heading{"Ejercicio terminado el 30 de junio de 2024", "2024-06-30"}, Heading{"A\u00F1o 2024", "2024-03-31"},
        Heading{"al 31 dicembre 2024", "2024-12-31"}, Heading{"Esercizio chiuso al 30 giugno 2024", "2024-06-30"},
        Heading{"Nove mesi 2024", "2023-12-31", 9}, Heading{"31 mei 2024", "2024-05-31"},
        Heading{"Boekjaar 2024", "2024-03-31"}, Heading{"Hel\u00E5r 2024", "2024-03-31"},
        Heading{"31 maj 2024", "2024-05-31"}, Heading{"31 de dezembro de 2024", "2024-12-31"},
        Heading{"Exerc\u00EDcio findo em 31 de mar\u00E7o de 2024", "2024-03-31"},
        Heading{"31. marts 2024", "2024-03-31"}, Heading{"Regnskaps\u00E5ret 2024", "2024-03-31"},
        Heading{"52 Wochen bis 28. Januar 2024", "2024-01-28"}, Heading{"Umsatz 2024", ""},
        Heading{"Variation 2024", ""}, Heading{"30 f\u00E9vrier 2024", ""}));

TEST(Headings, ForecastsAreMarked) {
  EXPECT_TRUE(periodHeading("2025E")->forecast);
  EXPECT_TRUE(periodHeading("FY26 forecast")->forecast);
  EXPECT_FALSE(periodHeading("2025A")->forecast);
}

TEST(DisplayedNumbers, AreReadAsShown) {
  const std::tuple<const char*, char, const char*> kNumbers[] = {{"1,234.5", '.', "1234.5"},
                                                                 {"(350)", '.', "-350"},
                                                                 {"350-", '.', "-350"},
                                                                 {"-1 250", '.', "-1250"},
                                                                 {"\xE2\x88\x92"
                                                                  "12",
                                                                  '.', "-12"},
                                                                 {"1.234,50", ',', "1234.50"},
                                                                 {"1 250,5", ',', "1250.5"},
                                                                 {"\xE2\x82\xAC 12", '.', "12"},
                                                                 {"$(1,234)", '.', "-1234"},
                                                                 {".5", '.', "0.5"},
                                                                 {"12.5 %", '.', "12.5"},
                                                                 {"1'000", '.', "1000"},
                                                                 {"1,10,073", '.', "110073"},
                                                                 {"(12,34,56,789.5)", '.', "-123456789.5"},
                                                                 {"1,10,07", '.', ""},
                                                                 {"123,45,678", '.', ""},
                                                                 {"R$ 1.234,5", ',', "1234.5"},
                                                                 {"CHF 1'250", '.', "1250"},
                                                                 {"1,23", '.', ""},
                                                                 {"1,2345", '.', ""},
                                                                 {"12a", '.', ""},
                                                                 {"", '.', ""},
                                                                 {"--5", '.', ""},
                                                                 {"1.2.3", '.', ""},
                                                                 {"NaN", '.', ""},
                                                                 {"1e5", '.', ""}};
  for (const auto& [text, mark, plain] : kNumbers) {
    const auto number = displayedNumber(text, mark);
    EXPECT_EQ(number ? number->plain : "", plain) << text;
  }
  EXPECT_TRUE(displayedNumber("12.5 %", '.')->percent);
  EXPECT_EQ(decimalMarkOf({"1.234", "1.234,5", "7"}), ',');
  EXPECT_EQ(decimalMarkOf({"1,234", "7"}), '.');
  for (const char* nothing : {"-", "\xE2\x80\x93", "n/a", "n.m.", ""}) EXPECT_TRUE(saysNothing(nothing)) << nothing;
  EXPECT_FALSE(saysNothing("0"));
}

TEST(UnitHeadings, CurrencyAndScale) {
  const std::tuple<const char*, const char*, int> kUnits[] = {{"EUR m", "EUR", 6},
                                                              {"\xC2\xA3'000", "GBP", 3},
                                                              {"in thousands of US dollars", "USD", 3},
                                                              {"$ million", "USD", 6},
                                                              {"(JPY bn)", "JPY", 9},
                                                              {"All figures in millions", "", 6},
                                                              {"en milliers d'euros", "EUR", 3},
                                                              {"TEUR", "EUR", 3},
                                                              {"MSEK", "SEK", 6},
                                                              {"EURm", "EUR", 6},
                                                              {"in USDbn", "USD", 9},
                                                              {"Museum", "", -1},
                                                              {"IDR million", "IDR", 6},
                                                              {"in Millionen Euro", "EUR", 6},
                                                              {"\xE2\x82\xB9 in crore", "INR", 7},
                                                              {"Rs. in lakhs", "INR", 5},
                                                              {"HK$ million", "HKD", 6},
                                                              {"A$m", "AUD", 6},
                                                              {"US$ thousand", "USD", 3},
                                                              {"R$ mil", "BRL", 3},
                                                              {"em milh\u00F5es de reais", "BRL", 6},
                                                              {"\xE2\x82\xAC mln", "EUR", 6},
                                                              {"NOK 1000", "NOK", 3},
                                                              {"beløp i 1 000 NOK", "NOK", 3},
                                                              {"EUR 1.000", "EUR", 3},
                                                              {"USD 1,000,000", "USD", 6},
                                                              {"1000000 JPY", "JPY", 6},
                                                              {"Store 1000", "", -1},
                                                              {"Revenue", "", -1},
                                                              {"m", "", -1}};
  for (const auto& [text, currency, scale] : kUnits) {
    const UnitHeading unit = unitHeading(text);
    EXPECT_EQ(unit.currency, currency) << text;
    EXPECT_EQ(unit.scale.value_or(-1), scale) << text;
  }
}

const test::KitTexts& kit() {
  static const test::KitTexts texts;
  return texts;
}
const LabelRules& labels() {
  return kit().labels;
}
PlacingRules rules() {
  return {kit().labels, kit().lines, kit().parts};
}

TEST(Labels, NameLinesExactlyNearlyOrNot) {
  const std::tuple<const char*, const char*, bool> kLabels[] = {
      {"Net sales", "revenue", true},
      {"Operating profit / (loss)", "ebit", true},
      {"Shareholders\xE2\x80\x99 equity", "equity", true},
      {"Depreciation & amortization", "depreciation", true},
      {"Purchase of property, plant and equipment", "plant_bought", true},
      {"Total net sales revenue", "revenue", false},
      {"Cost of merchandise goods sold", "cost_of_sales", false},
      {"Weather", "", false},
      {"12", "", false}};
  for (const auto& [label, line, certain] : kLabels) {
    const LabelRule* exactly = labels().exactly(label);
    const std::vector<LabelRules::Near> near = labels().near(label);
    EXPECT_EQ(exactly != nullptr, certain) << label;
    EXPECT_EQ(exactly != nullptr ? exactly->line : near.empty() ? "" : near.front().rule->line, line) << label;
  }
  EXPECT_THAT(LabelRules::parse("revenue sales", "f").error().text(), HasSubstr("f, line 1"));
  EXPECT_FALSE(LabelRules::parse("= sales", "f"));
}

const char* const kStatement =
    "Vessingholt plc\n"
    "Consolidated figures in EUR million\n"
    "|Note|31.12.2024|31.12.2023|Change\n"
    "Net sales|3|1,250.5|1,180.0|6.0 %\n"
    "Cost of goods sold||(700.2)|(660.0)|\n"
    "Gross profit||550.3|520.0|\n"
    "Income tax||(20.1)|5.0|\n"
    "Net income||-|12.5|\n"
    "Assets\n"
    "Inventories||88.0|90.0|\n"
    "Weather reserve||1.0|1.0|\n"
    "Shares outstanding (thousand)||12,500|12,500|\n";

TEST(Reading, ColumnsOfTheWholeStandBesideThoseOfItsParts) {
  // A statement in three columns a year: what is before exceptional items and these are no year of the company.
  const auto reading = guessTable(
      sheetOf("|Note|Before exceptional items 2025 £m|Exceptional items 2025 £m|Total 2025 £m|Total 2024 £m\n"
              "Sales|2|912|0|912|870\nTax|6|28|(3)|25|24\n"),
      rules(), {});
  ASSERT_TRUE(reading) << reading.error().text();
  std::vector<std::string> years;
  for (const TableColumn& column : reading->columns) {
    if (column.included) years.push_back(column.heading);
  }
  EXPECT_THAT(years, testing::ElementsAre("Total 2025 £m", "Total 2024 £m"));
}

TEST(Reading, GuessesColumnsUnitsLinesAndSigns) {
  const Sheet sheet = sheetOf(kStatement);
  const auto reading = guessTable(sheet, rules(), {});
  ASSERT_TRUE(reading) << reading.error().text();
  EXPECT_EQ(reading->headerRow, 2);
  EXPECT_EQ(reading->labelColumn, 0);
  EXPECT_EQ(reading->currency, "EUR");
  EXPECT_EQ(reading->scale, 6);
  ASSERT_EQ(reading->columns.size(), 2u);
  EXPECT_EQ(dateText(reading->columns[1].end), "2023-12-31");
  std::map<std::string, const TableLine*> lines;
  for (const TableLine& line : reading->lines) lines[line.label] = &line;
  EXPECT_EQ(lines["Net sales"]->choice.line, "revenue");
  EXPECT_EQ(lines["Cost of goods sold"]->choice.weight, -1) << "costs are printed as negatives";
  EXPECT_EQ(lines["Income tax"]->choice.weight, -1) << "tax follows the habit of its statement";
  EXPECT_EQ(lines["Net income"]->choice.weight, 1);
  EXPECT_EQ(lines["Gross profit"]->choice.line, "");
  EXPECT_TRUE(lines["Weather reserve"]->balance) << "it stands among balances";
  EXPECT_EQ(lines["Shares outstanding (thousand)"]->scale, 3);

  const auto facts = factsOf(sheet, *reading);
  ASSERT_TRUE(facts) << facts.error().text();
  const auto fact = [&](const std::string& label, int year) {
    return *std::find_if(facts->begin(), facts->end(),
                         [&](const Fact& f) { return f.label == label && yearOf(f.period.end) == year; });
  };
  EXPECT_EQ(fact("Net sales", 2024).text, "1250500000");
  EXPECT_EQ(fact("Net sales", 2024).decimals, -5) << "one decimal of a million";
  EXPECT_EQ(fact("Net sales", 2024).period.text(), "2024-01-01/2024-12-31");
  EXPECT_EQ(fact("Net sales", 2024).place, "cell C4");
  EXPECT_EQ(fact("Cost of goods sold", 2023).text, "-660000000") << "as filed, whatever its line makes of it";
  EXPECT_EQ(fact("Inventories", 2024).period.text(), "2024-12-31");
  EXPECT_EQ(fact("Shares outstanding (thousand)", 2024).text, "12500000");
  EXPECT_EQ(fact("Shares outstanding (thousand)", 2024).unit, "shares");
  EXPECT_EQ(std::count_if(facts->begin(), facts->end(), [](const Fact& f) { return f.label == "Net income"; }), 1)
      << "a dash is no figure";

  // What the reading says becomes standard lines.
  const StandardStatements s =
      StandardStatements::build(*facts, MappingRules::parse("revenue = a\ncost_of_sales = b\ntax = c\n", "r").value(),
                                "EUR", choicesOf(*reading));
  EXPECT_DOUBLE_EQ(s.at("cost_of_sales", 1).figure.value(), 700.2e6);
  EXPECT_DOUBLE_EQ(s.at("tax", 0).figure.value(), -5e6);
}

TEST(Reading, ACurrencyAloneOverTheLabelsJoinsNoYear) {
  // Marks of figures stand in cells of their own all over web tables; over the labels one is the table's.
  const Sheet sheet = gathered(sheetOf("USD|2025|2024|2023\nSales|30|20|10\nTax|$|3|2\n"));
  const auto reading = guessTable(sheet, rules(), {});
  ASSERT_TRUE(reading) << reading.error().text();
  EXPECT_EQ(reading->currency, "USD");
  ASSERT_EQ(reading->columns.size(), 3u);
  for (const TableColumn& column : reading->columns) EXPECT_TRUE(column.included) << column.heading;
  EXPECT_EQ(reading->columns.front().heading, "2025");
}

TEST(Reading, HeadingsStandOverAsManyColumnsOfFiguresElsewhere) {
  // Signs in cells of their own shift figures to the right of headings that span none; a pasted first row may lack the
  // cell over the labels. Figures are those of the years in their order.
  for (const char* text :
       {"EUR m|2025|2024|2023\nSales|$|30|$|20|$|10\nTax||3||2||1\n", "2025|2024|2023\nSales|30|20|10\nTax|3|2|1\n"}) {
    const auto reading = guessTable(gathered(sheetOf(text)), rules(), {});
    ASSERT_TRUE(reading) << text << reading.error().text();
    ASSERT_EQ(reading->columns.size(), 3U) << text;
    const Sheet sheet = gathered(sheetOf(text));
    std::string read;
    for (const TableColumn& column : reading->columns)
      read += column.heading + "=" + sheet.at(2, column.column)->text + " ";
    EXPECT_EQ(read, "2025=3 2024=2 2023=1 ") << text;
  }
}

TEST(Reading, HeadingsWithoutFiguresKeepTheirPlaceBesideNotes) {
  // As many columns of figures (notes and one year) as years: the notes are headed by themselves.
  const Sheet sheet = gathered(sheetOf("EUR m|Note|2025|2024\nSales|3|30|\nTax|4|3|\n"));
  const auto reading = guessTable(sheet, rules(), {});
  ASSERT_TRUE(reading) << reading.error().text();
  ASSERT_FALSE(reading->columns.empty());
  EXPECT_EQ(reading->columns.front().heading, "2025");
  EXPECT_EQ(sheet.at(1, reading->columns.front().column)->text, "30");
}

TEST(Reading, RememberedChoicesAndCorrectionsWin) {
  const Sheet sheet = sheetOf(kStatement);
  TableHints hints;
  hints.remembered["label:Net sales"] = {"other_income", -1, "as chosen before"};
  hints.fixedScale = 3;
  hints.fixedCurrency = "GBP";
  auto reading = guessTable(sheet, rules(), hints);
  ASSERT_TRUE(reading);
  EXPECT_EQ(reading->lines[0].choice.line, "other_income");
  EXPECT_EQ(reading->lines[0].match, TableLine::Match::Remembered);
  EXPECT_EQ(reading->scale, 3);
  EXPECT_EQ(reading->currency, "GBP");
  setLine(*reading, 0, {"cash", 1, "by hand"}, labels());
  EXPECT_TRUE(reading->lines[0].balance) << "timing follows the line";
  reading->columns[0].included = false;
  const auto facts = factsOf(sheet, *reading);
  ASSERT_TRUE(facts);
  for (const Fact& f : *facts) EXPECT_EQ(yearOf(f.period.end), 2023);
}

TEST(Reading, YearsDownTheSide) {
  const Sheet sheet =
      sheetOf("GBP'000|Turnover|Operating profit|Stocks\nFY22|1.000|90|10\nFY23|1.100,5|95|12\nFY24|1.200|99|14\n");
  TableHints hints;
  hints.fiscal = FiscalEnd{6};
  const auto reading = guessTable(sheet, rules(), hints);
  ASSERT_TRUE(reading) << reading.error().text();
  EXPECT_TRUE(reading->yearsDown);
  EXPECT_EQ(reading->columns.size(), 3u);
  EXPECT_EQ(reading->decimalMark, ',');
  const auto facts = factsOf(sheet, *reading);
  ASSERT_TRUE(facts);
  EXPECT_EQ(facts->at(1).text, "1100500");
  EXPECT_EQ(facts->at(1).place, "cell B3");
  EXPECT_EQ(facts->at(1).period.text(), "2022-07-01/2023-06-30");
}

TEST(Reading, AHeadingChosenByHandKeepsItsDirection) {
  const Sheet sheet = sheetOf("EUR m|note|Turnover|Stocks\nFY22|a|1|10\nFY23|b|2|12\n");
  TableHints hints;
  hints.yearsDown = true;
  hints.headerRow = 0;
  const auto down = guessTable(sheet, rules(), hints);
  ASSERT_TRUE(down) << down.error().text();
  EXPECT_TRUE(down->yearsDown);
  EXPECT_EQ(down->columns.size(), 2u);
  hints.yearsDown = false;
  EXPECT_FALSE(guessTable(sheet, rules(), hints)) << "the first row names no years";
}

TEST(Reading, CostsInPowersOfTenAreNegativeToo) {
  Sheet sheet = sheetOf("EUR|2024|2023\nIncome|1|1\nCost of sales|0|0\n");
  for (SheetCell& cell : sheet.rows[2].cells) {
    if (cell.column > 0) cell = {cell.row, cell.column, SheetCell::Kind::Number, "-1.5E3"};
  }
  const auto reading = guessTable(sheet, rules(), {});
  ASSERT_TRUE(reading);
  EXPECT_EQ(reading->lines.back().choice.weight, -1);
  const auto facts = factsOf(sheet, *reading);
  ASSERT_TRUE(facts);
  EXPECT_EQ(facts->back().text, "-1500");
}

TEST(Reading, DoubtsAreSaid) {
  const auto reading = guessTable(sheetOf("|2024|2024|2025E\nSales|1|2|3\nSales|4|5|6\n"), rules(), {});
  ASSERT_TRUE(reading);
  EXPECT_THAT(reading->doubts, Contains(HasSubstr("names no scale")));
  EXPECT_THAT(reading->doubts, Contains(HasSubstr("names no currency")));
  EXPECT_THAT(reading->doubts, Contains(HasSubstr("end on 12-31")));
  EXPECT_EQ(reading->columns[1].doubt, "a second column for 2024-12-31");
  EXPECT_EQ(reading->columns[2].doubt, "marked as a forecast");
  EXPECT_EQ(reading->lines[1].concept_name, "label:Sales (2)");
  EXPECT_THAT(reading->lines[1].choice.reason, HasSubstr("an earlier row is revenue already"));
  EXPECT_THAT(guessTable(sheetOf("a|b\nc|d\n"), rules(), {}).error().text(), HasSubstr("no row names years"));
  EXPECT_FALSE(guessTable(Sheet{}, rules(), {}));
  const Sheet broken = sheetOf("EUR m|2024|2023\nSales|1|2\nTax|x1|3\n");
  std::vector<std::string> passedOver;
  const auto rest = factsOf(broken, *guessTable(broken, rules(), {}), &passedOver);
  ASSERT_TRUE(rest);
  EXPECT_EQ(rest->size(), 3u) << "one bad cell stops nothing";
  EXPECT_THAT(passedOver, testing::ElementsAre(HasSubstr("cell B3: 'x1' is no figure")));
}

TEST(Reading, AColumnWhoseHeadingIsNoPeriodIsNamedAndCanBeGivenOne) {
  const Sheet sheet = sheetOf("EUR m|2024|Prior year|Note\nSales|10|9|1\nTax|1|2|4\nNet profit|9|7|5\n");
  auto reading = guessTable(sheet, rules(), {});
  ASSERT_TRUE(reading);
  ASSERT_EQ(reading->columns.size(), 3u);
  EXPECT_EQ(reading->columns[1].heading, "Prior year");
  EXPECT_FALSE(reading->columns[1].included);
  EXPECT_THAT(reading->doubts, testing::Contains(HasSubstr("the column 'Prior year' is left out")));
  EXPECT_THAT(reading->doubts, testing::Not(testing::Contains(HasSubstr("'Note'"))));
  EXPECT_EQ(factsOf(sheet, *reading)->size(), 3u);
  ASSERT_TRUE(setPeriod(*reading, 1, " 12 to 2023-12-31 "));
  EXPECT_EQ(factsOf(sheet, *reading)->size(), 6u);
  EXPECT_EQ(dateText(reading->columns[1].end), "2023-12-31");
  ASSERT_TRUE(setPeriod(*reading, 1, "H1 2023"));
  EXPECT_EQ(reading->columns[1].months, 6);
  for (const char* none : {"soon", "13 to 2024-12-31", "x to 2024-12-31", "12 to", "0 to 2024-12-31"}) {
    EXPECT_THAT(setPeriod(*reading, 1, none).error().text(), HasSubstr("is no period")) << none;
    EXPECT_EQ(reading->columns[1].months, 6) << "refused, and as it was";
  }
  ASSERT_TRUE(setPeriod(*reading, 1, ""));
  EXPECT_FALSE(reading->columns[1].included);
}

TEST(Choices, MoveConceptsBetweenLines) {
  const auto rules = MappingRules::parse("a = X + Y? | Z\nb? = W\n", "r").value();
  std::vector<Fact> facts;
  for (const auto& [name, text] : std::initializer_list<std::pair<const char*, const char*>>{
           {"X", "10"}, {"Y", "3"}, {"Z", "7"}, {"W", "1"}, {"V", "100"}}) {
    Fact f;
    f.concept_name = name;
    f.text = text;
    f.unit = "EUR";
    f.period = {makeDate(2024, 1, 1), makeDate(2024, 12, 31)};
    facts.push_back(f);
  }
  const auto figures = [&](const LineChoices& choices) {
    const StandardStatements s = StandardStatements::build(facts, rules, "EUR", choices);
    return std::pair(s.at("a", 0).figure.value(), s.at("b", 0).figure.value());
  };
  EXPECT_EQ(figures({}), std::pair(13.0, 1.0));
  EXPECT_EQ(figures({{"V", {"a", 1, ""}}}), std::pair(113.0, 1.0)) << "adds to what the line holds";
  EXPECT_EQ(figures({{"Y", {"b", -1, ""}}}), std::pair(10.0, -2.0)) << "leaves the rule it stood in";
  EXPECT_EQ(figures({{"X", {"", 1, "doubtful"}}}), std::pair(7.0, 1.0)) << "the next alternative takes over";
  EXPECT_EQ(figures({{"X", {"a", -1, ""}}}), std::pair(-7.0, 1.0)) << "the same line with the other sign";
  const StandardStatements s = StandardStatements::build(facts, rules, "EUR", {{"X", {"", 1, "doubtful"}}});
  EXPECT_EQ(s.unmapped().size(), 2u);
  EXPECT_EQ(s.unmapped()[0].reason, "doubtful");
}

}  // namespace
}  // namespace zl
