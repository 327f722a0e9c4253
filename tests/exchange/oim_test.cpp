// xBRL-JSON and xBRL-CSV, and the periods and units they share. Expected values follow from the
// Open Information Model 1.0; week dates from ISO 8601.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "exchange/content.h"
#include "exchange/oim/dimensions.h"
#include "exchange/oim/xbrl_csv.h"
#include "exchange/oim/xbrl_json.h"

namespace zl::exchange {
namespace {

using testing::HasSubstr;

TEST(OimPeriods, LongAndShortForms) {
  const std::pair<const char*, const char*> kPeriods[] = {
      {"2024-01-01T00:00:00/2025-01-01T00:00:00", "2024-01-01/2024-12-31"},
      {"2025-01-01T00:00:00", "2024-12-31"},
      {"2024", "2024-01-01/2024-12-31"},
      {"2024@end", "2024-12-31"},
      {"2024@start", "2023-12-31"},
      {"2024-02", "2024-02-01/2024-02-29"},
      {"2024-12", "2024-12-01/2024-12-31"},
      {"2024-02-29", "2024-02-29/2024-02-29"},
      {"2024Q1", "2024-01-01/2024-03-31"},
      {"2024Q4@end", "2024-12-31"},
      {"2024H2", "2024-07-01/2024-12-31"},
      {"2020W53", "2020-12-28/2021-01-03"},
      {"2024W01", "2024-01-01/2024-01-07"},
      {"2024-01-05..2024-03-02", "2024-01-05/2024-03-02"},
      {"2024Q5", ""},
      {"2024-13", ""},
      {"2024-02-30", ""},
      {"2024-03-02..2024-01-05", ""},
      {"2024@middle", ""},
      {"2025-01-01T00:00:00/2024-01-01T00:00:00", ""},
      {"", ""},
      {"forever", ""}};
  for (const auto& [text, expected] : kPeriods) {
    const std::optional<Period> period = oimPeriod(text);
    EXPECT_EQ(period ? period->text() : "", expected) << text;
  }
}

TEST(OimUnits, AreNamedShortly) {
  EXPECT_EQ(oimUnit("iso4217:EUR"), "EUR");
  EXPECT_EQ(oimUnit("iso4217:EUR/xbrli:shares"), "EUR/shares");
  EXPECT_EQ(oimUnit("(a:kg*a:m)/a:s"), "kg*m/s");
  EXPECT_EQ(oimUnit("/xbrli:shares"), "");
  EXPECT_EQ(oimUnit(""), "");
}

std::string report(const std::string& facts) {
  return R"({"documentInfo":{"documentType":"https://xbrl.org/2021/xbrl-json","namespaces":
    {"f":"https://xbrl.ifrs.org/taxonomy/2024-03-27/ifrs-full","iso4217":"http://www.xbrl.org/2003/iso4217"}},"facts":{)" +
         facts + "}}";
}

std::string fact(const std::string& members, const std::string& dimensions = "") {
  return R"("f1":{)" + members + R"(,"dimensions":{"concept":"f:Revenue","entity":"lei:XX",
    "period":"2024-01-01T00:00:00/2025-01-01T00:00:00")" +
         dimensions + "}}";
}

const std::string kInEuro = R"(,"unit":"iso4217:EUR")";

TEST(XbrlJson, FactsWithTheirDimensions) {
  const auto filing = readXbrlJson(
      report(
          fact(R"("value":"1250000","decimals":-3)", kInEuro + R"(,"x:Region":"x:North")") +
          R"(,"nil":{"value":null,"decimals":0,"dimensions":{"concept":"f:Assets","period":"2025-01-01T00:00:00","unit":"iso4217:EUR"}},
                "exact":{"value":"0.5","dimensions":{"concept":"x:Share","period":"2025-01-01T00:00:00","unit":"xbrli:pure"}},
                "text":{"value":"policy","dimensions":{"concept":"x:Policy","period":"2025-01-01T00:00:00"}})"),
      "r.json");
  ASSERT_TRUE(filing) << filing.error().text();
  ASSERT_EQ(filing->facts.size(), 3u);
  const auto named = [&](const char* name) {
    return *std::find_if(filing->facts.begin(), filing->facts.end(),
                         [&](const Fact& f) { return f.concept_name == name; });
  };
  const Fact revenue = named("ifrs-full:Revenue");
  EXPECT_EQ(revenue.text, "1250000");
  EXPECT_EQ(revenue.decimals, -3);
  EXPECT_EQ(revenue.unit, "EUR");
  EXPECT_EQ(revenue.period.text(), "2024-01-01/2024-12-31");
  EXPECT_EQ(revenue.segments, (std::vector<Segment>{{"x:Region", "x:North"}}));
  EXPECT_EQ(revenue.place, "fact 'f1'");
  EXPECT_TRUE(named("ifrs-full:Assets").nil);
  EXPECT_EQ(named("ifrs-full:Assets").period.text(), "2024-12-31");
  EXPECT_TRUE(named("x:Share").exact);
  EXPECT_EQ(filing->about.filer, "XX");
  EXPECT_THAT(filing->warnings, testing::ElementsAre(HasSubstr("1 facts without unit and decimals are text")));
}

TEST(XbrlJson, FaultsAreNamedWithTheirFact) {
  const std::pair<std::string, const char*> kFaults[] = {
      {report(fact(R"("value":"1,5","decimals":0)", kInEuro)),
       "fact 'f1': the fact ifrs-full:Revenue has the value '1,5'"},
      {report(fact(R"("value":5,"decimals":0)", kInEuro)), "a value must be text or null"},
      {report(fact(R"("value":"NaN","decimals":0)", kInEuro)), "not a decimal number"},
      {report(fact(R"("value":"5","decimals":1.5)", kInEuro)), "decimals must be a whole number"},
      {report(fact(R"("decimals":0)", kInEuro)), "needs a value and dimensions"},
      {report(R"("f1":5)"), "a fact must be an object"},
      {report(R"("f1":{"value":"5","decimals":0,"dimensions":{"concept":"f:A","period":"soon","unit":"a:b"}})"),
       "'soon' is not a period"},
      {report(R"("f1":{"value":"5","decimals":0,"dimensions":{"concept":"f:A","unit":"a:b"}})"), "has no period"},
      {report(R"("f1":{"value":"5","decimals":0,"dimensions":{"period":"2024","unit":"a:b"}})"), "names no concept"},
      {report(""), "holds no numeric facts"},
      {report(fact(R"("value":"1","value":"2","decimals":0)", kInEuro)), "'value' stands twice"},
      {R"({"documentInfo":{"documentType":"https://xbrl.org/2021/xbrl-json"}})", "'facts' is missing"},
      {R"({"documentInfo":{"documentType":"other"}})", "not xBRL-JSON"}};
  for (const auto& [content, message] : kFaults) {
    const auto filing = readXbrlJson(content, "r.json");
    ASSERT_FALSE(filing) << message;
    EXPECT_THAT(filing.error().text(), HasSubstr(message));
  }
  EXPECT_EQ(*recognise(report(""), "r"), ContentKind::XbrlJson);
}

TEST(XbrlJson, AFactThatCannotBeUsedStopsNoOther) {
  const auto filing = readXbrlJson(
      report(fact(R"("value":"5","decimals":0)", kInEuro) + R"(,"f2":5,"f3":{"value":"n/a","decimals":0,)" +
             R"("dimensions":{"concept":"f:A","period":"2024","unit":"a:b"}})"),
      "r.json");
  ASSERT_TRUE(filing) << filing.error().text();
  EXPECT_EQ(filing->facts.size(), 1u);
  EXPECT_THAT(filing->warnings, testing::ElementsAre(HasSubstr("fact 'f2': a fact must be an object; it was set aside"),
                                                     HasSubstr("'n/a', which is not a decimal number")));
}

std::string description(const std::string& extra = "", const std::string& columns = "") {
  return R"({"documentInfo":{"documentType":"https://xbrl.org/2021/xbrl-csv","namespaces":
    {"f":"https://xbrl.ifrs.org/taxonomy/2024-03-27/ifrs-full"}},)" +
         extra +
         R"("dimensions":{"entity":"lei:XX","period":"$year"},"decimals":-3,"parameters":{"money":"iso4217:EUR"},
    "tableTemplates":{"t":{"rowIdColumn":"row","columns":{"row":{},"line":{},"year":{},"place":{},
      "amount":{"dimensions":{"concept":"$line","unit":"$money","x:Region":"$place"}},
      "staff":{"dimensions":{"concept":"x:Staff","period":"$year@end"},"decimals":0})" +
         columns + R"(}}},"tables":{"t":{"url":"sub/table.csv"}}})";
}

const std::string kTable =
    "row,line,year,place,amount,staff\n"
    "1,f:Revenue,2024,#none,1250000,#none\n"
    "2,f:Assets,2024,x:North,#nil,250\n";

Result<Filing> readCsv(const std::string& meta, const std::string& table) {
  const std::vector<NamedContent> tables{{"table.csv", table}};
  return readXbrlCsv({"report.json", meta}, tables);
}

TEST(XbrlCsv, CellsTakeDimensionsFromColumnsRowsAndParameters) {
  const auto filing = readCsv(description(), kTable);
  ASSERT_TRUE(filing) << filing.error().text();
  ASSERT_EQ(filing->facts.size(), 3u);
  const Fact& revenue = filing->facts[0];
  EXPECT_EQ(revenue.concept_name, "ifrs-full:Revenue");
  EXPECT_EQ(revenue.text, "1250000");
  EXPECT_EQ(revenue.decimals, -3);
  EXPECT_EQ(revenue.unit, "EUR");
  EXPECT_EQ(revenue.period.text(), "2024-01-01/2024-12-31");
  EXPECT_TRUE(revenue.segments.empty());
  EXPECT_EQ(revenue.place, "table.csv, line 2, row '1', column 'amount'");
  EXPECT_TRUE(filing->facts[1].nil);
  EXPECT_EQ(filing->facts[1].segments, (std::vector<Segment>{{"x:Region", "x:North"}}));
  const Fact& staff = filing->facts[2];
  EXPECT_EQ(staff.period.text(), "2024-12-31");
  EXPECT_EQ(staff.text, "250");
  EXPECT_EQ(staff.unit, "pure");
  EXPECT_EQ(staff.decimals, 0);
  EXPECT_EQ(xbrlCsvTables(description()), std::vector<std::string>{"table.csv"});
}

TEST(XbrlCsv, ACellOrRowThatCannotBeUsedStopsNoOther) {
  const auto filing = readCsv(description(), kTable + "3,f:Sales,2024,,n/a,7\n4,f:Sales,2024,,1,2,3\n");
  ASSERT_TRUE(filing) << filing.error().text();
  EXPECT_EQ(filing->facts.size(), 4u) << "the other cell of the row of line 4 counts";
  EXPECT_THAT(filing->warnings,
              testing::UnorderedElementsAre(HasSubstr("line 4, column 'amount': 'n/a' is not a decimal"),
                                            HasSubstr("line 5: the row has 7 cells"),
                                            HasSubstr("line 5: the row has 7 cells")));
}

TEST(XbrlCsv, WhatIsNotBuiltOrBrokenIsNamed) {
  const std::tuple<std::string, std::string, const char*> kFaults[] = {
      {description(), "row,line,year,place,amount\n1,f:Revenue,2024,,abc\n",
       "line 2, column 'amount': 'abc' is not a decimal"},
      {description(), "row,line,year,place,amount\n1,,2024,,5\n", "names no concept"},
      {description(), "row,line,year,place,amount\n1,f:A,late,,5\n", "'late' is not a period"},
      {description(), "row,line,place,amount\n1,f:A,,5\n", "'$year' names neither a column nor a parameter"},
      {description("", R"(,"p":{"propertyGroups":{}})"), kTable, "property groups"},
      {description(R"("tables":{"t":{"url":"missing.csv"}},)"), kTable, "stands twice"},
      {description(), "row,line\n", "no numeric facts"},
      {description(), "row,line,year,place,amount\n1,\"f:A\n", "never closed"},
      {R"({"documentInfo":{"documentType":"https://xbrl.org/2021/xbrl-csv","extends":["a"]}})", kTable, "extend"},
      {R"({"documentInfo":{"documentType":"https://xbrl.org/2021/xbrl-csv"},"tables":{"a":{"url":"x"}}})", kTable,
       "the template 'a' is not described"},
      {R"({"documentInfo":{"documentType":"https://xbrl.org/2021/xbrl-csv"},"tables":{"a":{"template":5}}})", kTable,
       "another type"}};
  for (const auto& [meta, table, message] : kFaults) {
    const auto filing = readCsv(meta, table);
    ASSERT_FALSE(filing) << message;
    EXPECT_THAT(filing.error().text(), HasSubstr(message));
  }
  const auto alone = readXbrlCsv({"report.json", description()}, {});
  EXPECT_THAT(alone.error().text(), HasSubstr("the table's file 'table.csv' was not given along"));
}

}  // namespace
}  // namespace zl::exchange
