// Statements written by hand in the manner of filers of ten countries (tests/corpus/filers): signs in cells of their
// own, sections, notes, blank subtotals, one label in two sections, periods as ranges. Expected: the last year's
// standard lines as a person reads them off the file, in its own units, and every tie.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <cmath>

#include "services/sessions/session.h"
#include "tests/support/demo_book.h"
#include "tests/support/source_folder.h"
#include "tests/support/temporary_folder.h"

namespace zl::services {
namespace {

struct Filer {
  const char* file;
  const char* currency;
  int years, lastYear;
  double unit;
  std::map<std::string, double> lines;  ///< of the last year
  double shares;                        ///< -1 where none are filed
};

const Filer kFilers[] = {
    {"norrvale.csv",
     "USD",
     3,
     2025,
     1e6,
     {{"revenue", 9422},
      {"ebit", 2952},
      {"other_income", -28},
      {"tax", 512},
      {"net_income", 2412},
      {"cash", 2215},
      {"associates", 1900},
      {"borrowings_current", 340},
      {"borrowings_long", 1650},
      {"other_current_liabilities", 1290},
      {"total_liabilities", 5150},
      {"total_equity", 3375},
      {"operating_cash_flow", 3032},
      {"plant_bought", 380},
      {"net_borrowing", -60},
      {"dividends", 300},
      {"buybacks", 1972},
      {"stock_pay", 260},
      {"depreciation", 310}},
     601.4e6},
    {"kaminari.csv",
     "JPY",
     3,
     2025,
     1e6,
     {{"revenue", 455872},
      {"ebit", 55780},
      {"interest_expense", 1244},
      {"interest_income", 1951},
      {"other_income", 390},
      {"minority_income", 929},
      {"intangibles", 39020},
      {"borrowings_current", 19880},
      {"borrowings_long", 40220},
      {"lease_liabilities", 15675},
      {"pension_deficit", 11440},
      {"minorities", 7445},
      {"lease_principal", 5105},
      {"net_borrowing", -4915},
      {"dividends", 13220},
      {"minority_dividends", 380},
      {"buybacks", 6135}},
     182.4e6},
    {"holvenbach.csv",
     "CHF",
     3,
     2024,
     1e6,
     {{"revenue", 1284.3},
      {"cost_of_sales", 512.4},
      {"depreciation", 67.5},
      {"ebit", 137.2},
      {"tax", 27.1},
      {"net_income", 100.8},
      {"total_assets", 1067.1},
      {"associates", 18},
      {"intangibles", 41},
      {"total_liabilities", 457.1},
      {"borrowings_long", 180},
      {"operating_cash_flow", 158.3},
      {"disposals", 1.2},
      {"dividends", 43.8}},
     12.5e6},
    {"brackwater.csv",
     "GBP",
     2,
     2025,
     1e6,
     {{"revenue", 1204.6},
      {"exceptional_items", 22.4},
      {"ebit", 133.7},
      {"minority_income", 2.5},
      {"goodwill", 310},
      {"lease_liabilities", 64.8},
      {"borrowings_current", 40},
      {"borrowings_long", 220},
      {"pension_deficit", 31.2},
      {"equity", 633.3},
      {"minorities", 11.5},
      {"operating_cash_flow", 142.3},
      {"lease_principal", 13.5},
      {"dividends", 24},
      {"minority_dividends", 1.2}},
     203.9e6},
    {"pellinor.csv",
     "EUR",
     3,
     2025,
     1e3,
     {{"revenue", 845210},
      {"cost_of_sales", 498220},
      {"ebit", 37679},
      {"interest_expense", 4210},
      {"tax", 9705},
      {"net_income", 23764},
      {"minority_income", 410},
      {"equity", 236220},
      {"minorities", 2410},
      {"borrowings_current", 21000},
      {"borrowings_long", 92000},
      {"lease_liabilities", 21315},
      {"disposals", 510},
      {"net_borrowing", -1000},
      {"lease_principal", 6100},
      {"dividends", 8100},
      {"minority_dividends", 190}},
     15e6},
    {"montalbo.csv",
     "EUR",
     4,
     2024,
     1e3,
     {{"revenue", 218316},
      {"ebit", 28381},
      {"cash", 39256},
      {"borrowings_long", 48815},
      {"operating_cash_flow", 28396},
      {"plant_bought", 13099},
      {"net_borrowing", 957},
      {"dividends", 8033},
      {"net_cash_movement", 8221}},
     -1},
    {"daerim.csv",
     "KRW",
     4,
     2024,
     1e9,
     {{"operating_expenses", 2741},
      {"depreciation", 571},
      {"plant", 3957},
      {"borrowings_long", 2414},
      {"operating_cash_flow", 1468},
      {"plant_bought", 685},
      {"net_borrowing", 47},
      {"dividends", 422}},
     -1},
    {"zandmeer.csv",
     "EUR",
     5,
     2025,
     1e3,
     {{"operating_expenses", 13954},
      {"interest_expense", 552},
      {"interest_income", 115},
      {"net_income", 5342},
      {"receivables", 8721},
      {"payables", 5814},
      {"total_equity", 32857}},
     -1},
    {"harrowgate.csv",
     "GBP",
     2,
     2025,
     1e3,
     {{"revenue", 14820},
      {"operating_expenses", 4050},
      {"ebit", 1860},
      {"interest_expense", 143},
      {"interest_income", 22},
      {"net_income", 1304},
      {"cash", 940},
      {"receivables", 2610},
      {"total_assets", 11220},
      {"other_current_liabilities", 2330},
      {"other_noncurrent_liabilities", 2014},
      {"total_liabilities", 4344},
      {"total_equity", 6876}},
     -1},
    {"marrowcreek.csv",
     "USD",
     3,
     2025,
     1e3,
     {{"revenue", 88412},
      {"ebit", 33191},
      {"plant", 402100},
      {"other_noncurrent_assets", 21570},
      {"borrowings_long", 202000},
      {"other_noncurrent_liabilities", 55000},
      {"total_liabilities", 265700},
      {"total_equity", 170300},
      {"operating_cash_flow", 36420}},
     -1},
    {"tarnwold.csv",  // sections as totals, with "of which" below them
     "EUR",
     3,
     2025,
     1e6,
     {{"ebit", 317},
      {"interest_expense", 47},
      {"other_income", 6},
      {"cash", 212},
      {"other_current_assets", 693},
      {"plant", 802},
      {"other_noncurrent_assets", 508},
      {"payables", 201},
      {"other_current_liabilities", 274},
      {"borrowings_long", 560},
      {"other_noncurrent_liabilities", 160},
      {"depreciation", 118},
      {"operating_cash_flow", 322},
      {"plant_bought", 151},
      {"dividends", 90},
      {"other_cash_flow", -49},
      {"net_cash_movement", 32}},
     -1},
    {"brennlau.csv",  // the same in another language, with minorities and goodwill told
     "EUR",
     3,
     2025,
     1e6,
     {{"ebit", 317},
      {"interest_expense", 47},
      {"other_income", 6},
      {"goodwill", 102},
      {"other_noncurrent_assets", 406},
      {"minorities", 20},
      {"equity", 1000},
      {"total_equity", 1020},
      {"borrowings_long", 560},
      {"other_noncurrent_liabilities", 160}},
     -1},
    {"valserine.csv",  // costs of which depreciation, a result of which interest, equity of which minorities
     "EUR",
     3,
     2025,
     1e6,
     {{"operating_expenses", 613.9},
      {"depreciation", 88.1},
      {"ebit", 494.2},
      {"interest_expense", 58.9},
      {"other_income", 6.6},
      {"minority_income", 12.4},
      {"cash", 275},
      {"minorities", 61},
      {"equity", 1341.6},
      {"total_liabilities", 1549.7}},
     -1},
    {"skarvberg.csv",  // sections without totals, the unit and the currency in one word
     "SEK",
     3,
     2025,
     1e6,
     {{"revenue", 4120},
      {"operating_expenses", 850},
      {"interest_expense", 48},  // what is financial, net, as in the other languages
      {"net_income", 484},
      {"cash", 388},
      {"plant", 1905},
      {"borrowings_long", 950},
      {"payables", 421},
      {"total_liabilities", 1809},
      {"total_equity", 2010}},
     -1},
    {"kavriline.csv",  // crores, digits in pairs, a fiscal year by two names
     "INR",
     3,
     2026,
     1e7,
     {{"revenue", 189010},
      {"cost_of_sales", 98615},
      {"depreciation", 5513},
      {"interest_expense", 1318},
      {"pretax_profit", 37040},
      {"plant", 60957},
      {"total_assets", 180440},
      {"payables", 10848},
      {"borrowings_long", 17927},
      {"total_equity", 151665},
      {"plant_bought", 11341},
      {"net_borrowing", 352},
      {"dividends", 8334}},
     -1},
    {"ostermead.csv",  // no row of liabilities: equity, below nought, is what debt leaves of assets
     "USD",
     3,
     2026,
     1e3,
     {{"revenue", 396739}, {"stock_pay", 47609}, {"payables", 13376}, {"borrowings_long", 394157}, {"equity", -252580}},
     -1},
    {"umvelani.csv",  // sections with figures before their parts, figures with spaces, notes
     "ZAR",
     2,
     2025,
     1e6,
     {{"revenue", 45210},
      {"operating_expenses", 10700},
      {"right_of_use", 3120},
      {"goodwill", 4410},
      {"other_noncurrent_assets", 1210},
      {"payables", 6900},
      {"borrowings_long", 7010},
      {"borrowings_current", 1200},
      {"lease_liabilities", 3850},
      {"total_equity", 17300},
      {"plant_bought", 1620}},
     -1},
    {"orvanemills.html",  // a saved page: signs in cells of their own, headings over fewer columns than its figures
     "USD",
     3,
     2026,
     1e6,
     {{"revenue", 5120.4},
      {"operating_expenses", 1202.5},
      {"tax", 115},
      {"cash", 402},
      {"lease_liabilities", 1020.1},
      {"other_noncurrent_liabilities", 60},
      {"total_liabilities", 2790.8},
      {"equity", 814.7}},
     102.4e6},
    {"harlstead.csv",  // commas in labels and between thousands, and no quotation marks
     "USD",
     3,
     2025,
     1e3,
     {{"revenue", 1204318},
      {"operating_expenses", 220118},
      {"ebit", 282996},
      {"net_income", 203992},
      {"plant", 1322430},
      {"total_assets", 1410550},
      {"borrowings_long", 310000},
      {"total_equity", 1010220}},
     12.5e6},
    {"hollinbay.html",
     "USD",
     3,
     2026,
     1e6,
     {{"revenue", 4654},
      {"inventory", 559},
      {"plant", 1738},
      {"operating_cash_flow", 609},
      {"plant_bought", 279},
      {"net_borrowing", 21},
      {"dividends", 170}},
     -1},
};

class Filers : public testing::TestWithParam<Filer> {};

TEST_P(Filers, AreReadAsAPersonReadsThem) {
  const Filer& filer = GetParam();
  const auto resources = *Resources::load();
  const test::TemporaryFolder folder;
  const auto files = readFiles({test::sourceFolder() + "/tests/corpus/filers/" + filer.file});
  ASSERT_TRUE(files) << files.error().text();
  const auto imported = Session::import(folder.file("b.zledger"), "x", *files, resources, test::testDesk());
  ASSERT_TRUE(imported) << imported.error().text();
  const auto session = Session::open(folder.file("b.zledger"), "x", resources, test::testDesk());
  ASSERT_TRUE(session && (*session)->now());
  const Snapshot& s = *(*session)->now();
  const StandardStatements& statements = s.filed->statements;
  EXPECT_EQ(s.company().currency, filer.currency);
  ASSERT_EQ(std::ssize(statements.years()), filer.years);
  EXPECT_EQ(statements.years().back().label(), filer.lastYear);
  std::map<std::string, std::string> wrong;
  for (const auto& [line, expected] : filer.lines) {
    const Figure& figure = statements.at(line, filer.years - 1).figure;
    if (figure.hasValue() && std::abs(figure.value() / filer.unit - expected) < 1e-6 * std::abs(expected)) continue;
    wrong[line] = figure.hasValue() ? std::to_string(figure.value() / filer.unit) : figure.reason();
  }
  EXPECT_THAT(wrong, testing::IsEmpty());
  EXPECT_EQ(statements.at("shares", filer.years - 1).figure.valueOr(-1), filer.shares);
  for (const TieResult& r : s.review->ties) {
    if (resources->ties[r.tie].roll) continue;  // a roll may have reasons that no line tells
    EXPECT_NE(r.state, TieResult::State::Fails) << resources->ties[r.tie].label << " off by " << r.gap;
  }
  const model::Role worth = filer.shares > 0 ? model::Role::ValuePerShare : model::Role::EnterpriseValue;
  const bool whole = statements.at("operating_cash_flow", filer.years - 1).figure.hasValue();
  if (whole) {
    EXPECT_TRUE(s.evaluation->constant(worth, 1).hasValue());
  }
}

TEST(FilersOfCash, ARowOfNoKnownNameIsFoundByItsMovement) {
  // What the firm calls its cash is in no list of labels; its cash flow statement ends with that row's changes.
  const auto resources = *Resources::load();
  const test::TemporaryFolder folder;
  auto files = *readFiles({test::sourceFolder() + "/tests/corpus/filers/pellinor.csv"});
  std::string& table = files.front().content;
  const std::string usual = "Zahlungsmittel und Zahlungsmittel\u00E4quivalente";
  ASSERT_NE(table.find(usual), std::string::npos);
  table.replace(table.find(usual), usual.size(), "Zentralposten Verbund");
  const auto imported = Session::import(folder.file("b.zledger"), "x", files, resources, test::testDesk());
  ASSERT_TRUE(imported) << imported.error().text();
  const auto session = Session::open(folder.file("b.zledger"), "x", resources, test::testDesk());
  EXPECT_EQ((*session)->now()->filed->statements.at("cash", 2).figure.value(), 44105e3);
  EXPECT_EQ((*session)->now()->filed->choices.at("label:Zentralposten Verbund").reason,
            "it moves as 'Movement of cash on the balance sheet' says");
}

INSTANTIATE_TEST_SUITE_P(ByHand, Filers, testing::ValuesIn(kFilers), [](const auto& of) {
  return std::string(of.param.file).substr(0, std::string(of.param.file).find('.'));
});

}  // namespace
}  // namespace zl::services
