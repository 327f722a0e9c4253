// XBRL 2.1 instances: good ones, and bad ones named by their fault.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <fstream>
#include <sstream>

#include "exchange/content.h"
#include "exchange/xbrl/instance.h"

namespace zl::exchange {
namespace {

std::string instance(const std::string& body, const std::string& prolog = "") {
  return "<?xml version=\"1.0\"?>\n" + prolog +
         "<x:xbrl xmlns:x=\"http://www.xbrl.org/2003/instance\" xmlns:iso4217=\"http://www.xbrl.org/2003/iso4217\"\n"
         " xmlns:i=\"https://xbrl.ifrs.org/taxonomy/2022/ifrs-full\" "
         "xmlns:xsi=\"http://www.w3.org/2001/XMLSchema-instance\""
         " xmlns:own=\"https://filer.example\">\n"
         "<x:context id=\"d\"><x:entity><x:identifier scheme=\"s\">1</x:identifier></x:entity>"
         "<x:period><x:startDate>2024-01-01</x:startDate><x:endDate>2024-12-31</x:endDate></x:period></x:context>\n"
         "<x:context id=\"b\"><x:entity/><x:period><x:instant>2025-01-01T00:00:00</x:instant></x:period></x:context>\n"
         "<x:context id=\"s\"><x:entity><x:segment><own:m "
         "dimension=\"i:Axis\">own:Machines</own:m></x:segment></x:entity>"
         "<x:period><x:startDate>2024-01-01</x:startDate><x:endDate>2024-12-31</x:endDate></x:period></x:context>\n"
         "<x:context id=\"f\"><x:entity/><x:period><x:forever/></x:period></x:context>\n"
         "<x:unit id=\"e\"><x:measure>iso4217:EUR</x:measure></x:unit>\n"
         "<x:unit id=\"ps\"><x:divide><x:unitNumerator><x:measure>iso4217:EUR</x:measure></x:unitNumerator>"
         "<x:unitDenominator><x:measure>x:shares</x:measure></x:unitDenominator></x:divide></x:unit>\n" +
         body + "\n</x:xbrl>\n";
}

/// The one fact stands in a context of this content, on line 10.
std::string inContext(const std::string& content) {
  return instance("<x:context id=\"z\">" + content +
                  "</x:context>\n<i:Revenue contextRef=\"z\" unitRef=\"e\">1</i:Revenue>");
}

TEST(XbrlInstance, ReadsFactsWithEverythingTheyCarry) {
  const auto filing = readXbrlInstance(
      instance(
          "<i:Revenue contextRef=\"d\" unitRef=\"e\" decimals=\"-3\">1234000</i:Revenue>\n"
          "<i:Assets contextRef=\"b\" unitRef=\"e\" decimals=\"INF\">99.50</i:Assets>\n"
          "<i:Revenue contextRef=\"s\" unitRef=\"e\" precision=\"4\">1000000</i:Revenue>\n"
          "<own:PerShare contextRef=\"d\" unitRef=\"ps\" precision=\"3\">0.0123</own:PerShare>\n"
          "<i:Goodwill contextRef=\"b\" unitRef=\"e\" xsi:nil=\"true\"/>\n"
          "<own:Remark contextRef=\"d\">words</own:Remark>\n"
          "<own:Ever contextRef=\"f\" unitRef=\"e\" decimals=\"0\">1</own:Ever>\n"
          "<own:tuple><i:CostOfSales contextRef=\"d\" unitRef=\"e\" decimals=\"0\">-5</i:CostOfSales></own:tuple>"),
      "t.xbrl");
  ASSERT_TRUE(filing) << filing.error().text();
  const std::vector<Fact>& f = filing->facts;
  ASSERT_EQ(f.size(), 6u);
  EXPECT_EQ(f[0].concept_name, "ifrs-full:Revenue");  // whatever prefix the file chose
  EXPECT_EQ(f[0].decimals, -3);
  EXPECT_EQ(f[0].period.text(), "2024-01-01/2024-12-31");
  EXPECT_EQ(f[0].place, "line 10");
  EXPECT_EQ(f[1].period.text(), "2024-12-31");  // midnight belongs to the day before
  EXPECT_TRUE(f[1].exact);
  EXPECT_EQ(f[1].text, "99.50");
  EXPECT_EQ(f[2].segments, (std::vector<Segment>{{"ifrs-full:Axis", "own:Machines"}}));
  EXPECT_EQ(f[2].decimals, -3);  // 4 digits of a figure with 7 before the point (XBRL 2.1, 4.6.6)
  EXPECT_EQ(f[3].unit, "EUR/shares");
  EXPECT_EQ(f[3].decimals, 4);  // 0.0123: three digits from the second place after the point
  EXPECT_TRUE(f[4].nil);
  EXPECT_EQ(f[5].text, "-5");  // the leaf of a tuple
  EXPECT_THAT(filing->warnings, testing::ElementsAre(testing::HasSubstr("1 facts without a unit")));
  EXPECT_EQ(dateText(*filing->document.periodEnd), "2024-12-31");
}

struct BadInstance {
  const char* name;
  std::string text;
  ErrorKind kind;
  const char* what;
  const char* where;
};

class XbrlRefusals : public testing::TestWithParam<BadInstance> {};

TEST_P(XbrlRefusals, SayWhatAndWhere) {
  const auto filing = readXbrlInstance(GetParam().text, "t.xbrl");
  ASSERT_FALSE(filing);
  EXPECT_EQ(filing.error().kind, GetParam().kind);
  EXPECT_THAT(filing.error().what, testing::HasSubstr(GetParam().what));
  EXPECT_THAT(filing.error().where, testing::HasSubstr(GetParam().where));
}

const std::string kBomb =
    "<!DOCTYPE x [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY b \"&a;&a;&a;&a;&a;&a;&a;&a;\"><!ENTITY c "
    "\"&b;&b;&b;&b;&b;&b;&b;&b;\">]>\n";
const std::string kOutside = "<!DOCTYPE x SYSTEM \"file:///etc/passwd\">\n";

INSTANTIATE_TEST_SUITE_P(
    Cases, XbrlRefusals,
    testing::Values(
        BadInstance{"Truncated", instance("<i:Revenue contextRef=\"d\"").substr(0, 1500), ErrorKind::BadInput,
                    "the XML is broken", "line"},
        BadInstance{"Empty", "", ErrorKind::BadInput, "the XML is broken", "t.xbrl"},
        BadInstance{"EntityBomb", instance("", kBomb), ErrorKind::BadInput, "declares a document type", "line 2"},
        BadInstance{"ExternalEntity", instance("", kOutside), ErrorKind::BadInput, "declares a document type",
                    "line 2"},
        BadInstance{"OtherXml", "<html><body/></html>", ErrorKind::WrongKind, "outermost element is <html>", "t.xbrl"},
        BadInstance{"NoFacts", instance(""), ErrorKind::BadInput, "no numeric facts", "t.xbrl"},
        BadInstance{"NoSuchContext", instance("<i:Revenue contextRef=\"q\" unitRef=\"e\">1</i:Revenue>"),
                    ErrorKind::BadInput, "names a context 'q'", "line 10"},
        BadInstance{"NoSuchUnit", instance("<i:Revenue contextRef=\"d\" unitRef=\"q\">1</i:Revenue>"),
                    ErrorKind::BadInput, "names a unit 'q'", "line 10"},
        BadInstance{"NotANumber", instance("<i:Revenue contextRef=\"d\" unitRef=\"e\">12,5</i:Revenue>"),
                    ErrorKind::BadInput, "'12,5', which is not a decimal", "line 10"},
        BadInstance{"NaN", instance("<i:Revenue contextRef=\"d\" unitRef=\"e\">NaN</i:Revenue>"), ErrorKind::BadInput,
                    "not a decimal number", "line 10"},
        BadInstance{"BadDecimals",
                    instance("<i:Revenue contextRef=\"d\" unitRef=\"e\" decimals=\"many\">1</i:Revenue>"),
                    ErrorKind::BadInput, "'many' is no number of decimals", "line 10"},
        BadInstance{"BadDate", inContext("<x:period><x:instant>2024-02-30</x:instant></x:period>"), ErrorKind::BadInput,
                    "cannot be used, t.xbrl, line 10: '2024-02-30' is not a date", "line 11"},
        BadInstance{"BackwardPeriod",
                    inContext("<x:period><x:startDate>2024-02-03</x:startDate><x:endDate>2023-02-03</x:endDate>"
                              "</x:period>"),
                    ErrorKind::BadInput, "ends before it starts", "line 11"},
        BadInstance{"NoPeriod", inContext("<x:entity/>"), ErrorKind::BadInput, "no period", "line 11"}),
    [](const auto& c) { return c.param.name; });

TEST(XbrlInstance, EveryTruncationIsRefusedOrRead) {
  const std::string whole = instance("<i:Revenue contextRef=\"d\" unitRef=\"e\" decimals=\"-3\">1234000</i:Revenue>");
  for (size_t percent = 0; percent < 100; ++percent) {
    EXPECT_FALSE(readXbrlInstance(whole.substr(0, whole.size() * percent / 100), "t")) << percent;
  }
  EXPECT_TRUE(readXbrlInstance(whole, "t"));
}

TEST(XbrlInstance, DeepNestingStaysWithinBounds) {
  std::string deep;
  for (int i = 0; i < 50000; ++i) deep += "<own:t>";
  deep += "<i:Revenue contextRef=\"d\" unitRef=\"e\">1</i:Revenue>";
  for (int i = 0; i < 50000; ++i) deep += "</own:t>";
  const auto filing = readXbrlInstance(instance(deep), "t");
  ASSERT_FALSE(filing);  // beyond the depth that tuples may have there are no facts
  EXPECT_THAT(filing.error().what, testing::HasSubstr("no numeric facts"));
}

TEST(Recognise, JudgesByContent) {
  const std::pair<const char*, const char*> kWrong[] = {
      {"PK\x03\x04zip", "an archive that is no workbook"},
      {"%PDF-1.7", "a PDF"},
      {"<html/>", "a web page without a table"},
      {"<svg/>", "XML of another kind"},
      {"{\"a\":1}", "neither a filed report, a company record nor a case"},
      {"hello\nworld", "neither a documented CSV layout nor a table of figures"}};
  for (const auto& [text, found] : kWrong) {
    const auto kind = recognise(text, "f");
    ASSERT_FALSE(kind) << text;
    EXPECT_EQ(kind.error().kind, ErrorKind::WrongKind) << text;
    EXPECT_THAT(kind.error().what, testing::HasSubstr(found));
  }
  EXPECT_EQ(recognise("  \n ", "f").error().what, "the file is empty");
  EXPECT_EQ(*recognise(instance(""), "f"), ContentKind::XbrlInstance);
  EXPECT_EQ(*recognise("\xEF\xBB\xBF"
                       "date,close\n",
                       "f"),
            ContentKind::PriceTable);
}

}  // namespace
}  // namespace zl::exchange
