// Commas that no quotation marks hold together: what a hand-made table means by them, and where it is left as it is.
// Expected rows are read off the texts by hand.

#include <gmock/gmock.h>

#include "exchange/workbook/workbook.h"

namespace zl::exchange {
namespace {

/// Cells of a row parted by bars, rows by line ends.
std::string laidOut(const std::string& text) {
  const Result<Workbook> book = readDelimited(text, "t.csv");
  if (!book) return book.error().text();
  std::string all;
  for (const SheetRow& row : book->sheets[0].rows) {
    for (size_t i = 0; i < row.cells.size(); ++i) all += (i > 0 ? "|" : "") + row.cells[i].text;
    all += "\n";
  }
  return all;
}

struct Case {
  const char* what;
  std::string in, out;
};

TEST(Unquoted, CommasInLabelsAndThousands) {
  const std::string years = "USD,2025,2024\n";
  const std::vector<Case> cases = {
      {"a label of three words", years + "Cash,5,4\nProperty, plant and equipment,210,200\n",
       "USD|2025|2024\nCash|5|4\nProperty, plant and equipment|210|200\n"},
      {"a label before a column of notes",
       "USD,Note,2025,2024\nCash,,5,4\nPlant, net,3,210,200\nSelling, general, other,,9,8\n",
       "USD|Note|2025|2024\nCash|5|4\nPlant, net|3|210|200\nSelling, general, other|9|8\n"},
      {"thousands and millions beside plain figures",
       years + "Revenue,1,204,318,1,130,077\nCost,(701,200),(668,051)\nTax,-31.5,-26\nProfit,93,004.5,-\nCash,12,7\n",
       "USD|2025|2024\nRevenue|1,204,318|1,130,077\nCost|(701,200)|(668,051)\nTax|-31.5|-26\n"
       "Profit|93,004.5|-\nCash|12|7\n"},
      {"years of one size rather than digits of any",
       "USD,2025,2024,2023\nRevenue,1,204,318,1,130,077,998,204\nEBIT,282,996,252,022,217,764\n"
       "Assets,1,204,318,998,204,950,118\nCash,88,120,-,60,114\n",
       "USD|2025|2024|2023\nRevenue|1,204,318|1,130,077|998,204\nEBIT|282,996|252,022|217,764\n"
       "Assets|1,204,318|998,204|950,118\nCash|88,120|-|60,114\n"},
      {"in one row among plain ones", years + "Revenue,1,204,998\nCost,701,668\nTax,31,26\n",
       "USD|2025|2024\nRevenue|1,204|998\nCost|701|668\nTax|31|26\n"},
      {"years far apart are not read", years + "Revenue,1,204,5\nCost,701,668\n",
       "USD|2025|2024\nRevenue|1 , 204 , 5\nCost|701|668\n"},
      {"a remark in one row takes nothing from others", years + "Revenue,1,204,998\nCost,701,668,restated\nTax,31,26\n",
       "USD|2025|2024\nRevenue|1,204|998\nCost|701|668|restated\nTax|31|26\n"},
      {"both in one row", years + "Revenue,1,204,1,130\nPlant, land, net,7,012,6,680\nProfit,5,192,4,620\n",
       "USD|2025|2024\nRevenue|1,204|1,130\nPlant, land, net|7,012|6,680\nProfit|5,192|4,620\n"},
      {"in the title before the headings, too",
       "Harl Ltd, USD m,2025,2024\nRevenue,1,204,1,130\nCost,7,012,6,680\nProfit,5,192,4,620\n",
       "Harl Ltd, USD m|2025|2024\nRevenue|1,204|1,130\nCost|7,012|6,680\nProfit|5,192|4,620\n"},
      {"of two readings none: its digits are no figure",
       years + "Revenue,1,204,1,130\nCost,7,012,6,680\nProfit,5,192,4,620\nDebt,204,130,198\n",
       "USD|2025|2024\nRevenue|1,204|1,130\nCost|7,012|6,680\nProfit|5,192|4,620\nDebt|204 , 130 , 198\n"},
      {"a column without a heading stays", years + "Revenue,100,900,800\nCost,60,500,400\nTax,12,100,100\n",
       "USD|2025|2024\nRevenue|100|900|800\nCost|60|500|400\nTax|12|100|100\n"},
      {"remarks behind the figures stay",
       years + "Revenue,100,900,restated\nCost,60,500,see note\nTax,12,100,estimated\n",
       "USD|2025|2024\nRevenue|100|900|restated\nCost|60|500|see note\nTax|12|100|estimated\n"},
      {"names of peers against what most rows have",
       "Name,Price,Currency\nAldermoss,12.5,EUR\nBryncote, Inc.,8,USD\nCorrandale,3,GBP\n",
       "Name|Price|Currency\nAldermoss|12.5|EUR\nBryncote, Inc.|8|USD\nCorrandale|3|GBP\n"},
      {"figures of peers are of any size: none is read",
       "Name,Price,Value,Revenue\nAldermoss, Inc.,41.2,4,120,3,310\nBryncote,18.05,902,560\n",
       "Name|Price|Value|Revenue\nAldermoss|Inc. , 41.2 , 4 , 120 , 3 , 310\nBryncote|18.05|902|560\n"},
      {"nor where all have as many cells too many",
       "Name,Price,Value,Revenue\nAldermoss,41,4,120,3,310\nBryncote,18,1,902,2,560\nCorrandale,5,2,233,2,004\n",
       "Name|Price|Value|Revenue\nAldermoss|41 , 4 , 120 , 3 , 310\nBryncote|18 , 1 , 902 , 2 , 560\n"
       "Corrandale|5 , 2 , 233 , 2 , 004\n"},
      {"nor beside short names and units",
       "Company,Ticker,Price,Value ($m),Revenue LTM\nAldermoss, Inc.,ALM,41.20,4,120,3,310\nCorrandale "
       "PLC,CRD,305p,2,233,901\n",
       "Company|Ticker|Price|Value ($m)|Revenue LTM\nAldermoss|Inc. , ALM , 41.20 , 4 , 120 , 3 , 310\n"
       "Corrandale PLC|CRD , 305p , 2 , 233 , 901\n"},
      {"remarks of peers stay", "Name,Price,Value,Revenue\nAldermoss,41.2,120,310,new\nBryncote,18.05,902,560\n",
       "Name|Price|Value|Revenue\nAldermoss|41.2|120|310|new\nBryncote|18.05|902|560\n"},
      {"in quotation marks nothing is put together", years + "\"Plant, net\",\"1,204\",\"1,130\"\n",
       "USD|2025|2024\nPlant, net|1,204|1,130\n"},
      {"semicolons part cells, so commas are decimal", "EUR;2025;2024\nUmsatz;1,5;1,2\n",
       "EUR|2025|2024\nUmsatz|1,5|1,2\n"}};
  for (const Case& c : cases) EXPECT_EQ(laidOut(c.in), c.out) << c.what;
}

TEST(Unquoted, WhatWasDoneIsTold) {
  const Result<Workbook> book = readDelimited(
      "USD,2025,2024\nRevenue,1,204,1,130\nCost,7,012,6,680\nPlant, net,9,8\nDebt,204,130,198\n", "t.csv");
  ASSERT_TRUE(book) << book.error().text();
  EXPECT_THAT(
      book->warnings,
      testing::ElementsAre(
          "line 4 ('Plant, net'): commas stand outside quotation marks; what they part is read as one label",
          "line 2 ('Revenue') and 1 more: commas stand outside quotation marks; they are read as parting thousands",
          "line 5 ('Debt'): commas stand outside quotation marks; its figures can be parted in several ways and "
          "are not read: put them in quotation marks"));
}

}  // namespace
}  // namespace zl::exchange
