// Inline XBRL: facts as a person reads them on a page, to exact decimals. Expected values follow
// from the rules of Inline XBRL 1.1 and its transformation registries.

#include "exchange/xbrl/inline.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "exchange/content.h"
#include "exchange/xbrl/transformations.h"

namespace zl::exchange {
namespace {

using testing::HasSubstr;

const std::string kContexts =
    "<xbrli:context id=\"y\"><xbrli:entity><xbrli:identifier scheme=\"s\">7</xbrli:identifier></xbrli:entity>"
    "<xbrli:period><xbrli:startDate>2024-01-01</xbrli:startDate><xbrli:endDate>2024-12-31</xbrli:endDate>"
    "</xbrli:period></xbrli:context><xbrli:unit id=\"e\"><xbrli:measure>iso4217:EUR</xbrli:measure></xbrli:unit>";

std::string page(const std::string& body, const std::string& resources = kContexts, const std::string& hidden = "") {
  return "<?xml version=\"1.0\"?>\n<!DOCTYPE html>\n<html xmlns=\"http://www.w3.org/1999/xhtml\" "
         "xmlns:ix=\"http://www.xbrl.org/2013/inlineXBRL\" xmlns:xbrli=\"http://www.xbrl.org/2003/instance\" "
         "xmlns:i=\"http://xbrl.ifrs.org/taxonomy/2024-03-27/ifrs-full\" "
         "xmlns:xsi=\"http://www.w3.org/2001/XMLSchema-instance\"><body><div "
         "style=\"display:none\"><ix:header><ix:hidden>" +
         hidden + "</ix:hidden><ix:resources>" + resources + "</ix:resources></ix:header></div>\n" + body +
         "</body></html>";
}

std::string number(const std::string& attributes, const std::string& displayed) {
  return "<ix:nonFraction name=\"i:Revenue\" contextRef=\"y\" unitRef=\"e\" " + attributes + ">" + displayed +
         "</ix:nonFraction>";
}

Result<Filing> readOne(const std::string& content) {
  const std::vector<NamedContent> documents{{"page.xhtml", content}};
  Result<std::vector<Filing>> filings = readInlineXbrl(documents);
  if (!filings) return tl::unexpected(filings.error());
  return filings->at(0);
}

struct Displayed {
  const char* attributes;
  const char* displayed;
  const char* text;  ///< of the fact; empty: refused or set aside
};

class Numbers : public testing::TestWithParam<Displayed> {};

TEST_P(Numbers, ScaleSignAndFormat) {
  const auto filing = readOne(page("<p>" + number(GetParam().attributes, GetParam().displayed) + "</p>"));
  const std::string expected = GetParam().text;
  ASSERT_EQ(filing.has_value() && !filing->facts.empty(), !expected.empty()) << GetParam().displayed;
  if (expected.empty()) return;
  EXPECT_EQ(filing->facts[0].text, expected);
  EXPECT_EQ(filing->facts[0].concept_name, "ifrs-full:Revenue");
  EXPECT_EQ(filing->facts[0].unit, "EUR");
  EXPECT_EQ(filing->facts[0].period.text(), "2024-01-01/2024-12-31");
}

INSTANTIATE_TEST_SUITE_P(
    Rules, Numbers,
    testing::Values(Displayed{"decimals=\"0\"", "1234", "1234"}, Displayed{"decimals=\"0\"", " 12.50 ", "12.50"},
                    Displayed{"decimals=\"0\"", "1,234", ""},  // separators need a format
                    Displayed{"scale=\"6\" format=\"ixt:num-dot-decimal\"", "1,234.5", "1234500000"},
                    Displayed{"scale=\"3\" sign=\"-\" format=\"ixt:num-dot-decimal\"", "1,234", "-1234000"},
                    Displayed{"scale=\"-2\" format=\"ixt:num-dot-decimal\"", "12.5", "0.125"},
                    Displayed{"scale=\"-2\"", "5", "0.05"},
                    Displayed{"scale=\"0\" format=\"ixt:num-comma-decimal\"", "1.234,50", "1234.50"},
                    Displayed{"format=\"ixt:numspacecomma\"", "1 234,5", "1234.5"},
                    Displayed{"format=\"ixt:num-comma-decimal\"",
                              "1\xC2\xA0"
                              "234",
                              "1234"},
                    Displayed{"format=\"ixt:num-dot-decimal-apos\"", "1'234'567.8", "1234567.8"},
                    Displayed{"scale=\"6\" format=\"ixt:fixed-zero\"", "nothing", "0"},
                    Displayed{"scale=\"6\" format=\"ixt:zerodash\"", "\xE2\x80\x93", "0"},
                    Displayed{"format=\"ixt:num-unit-decimal\"", "5 euros 7 cents", "5.07"},
                    Displayed{"format=\"x:numwordsen\"", "two hundred and three thousand forty", "203040"},
                    Displayed{"format=\"x:numwordsen\"", "None", "0"}, Displayed{"format=\"x:numwordsen\"", "many", ""},
                    Displayed{"format=\"ixt:num-dot-decimal\"", "1.2.3", ""},
                    Displayed{"format=\"ixt:num-dot-decimal\"", "(12)", ""},
                    Displayed{"format=\"ixt:num-dot-decimal\"", "", ""}, Displayed{"scale=\"99\"", "1", ""},
                    Displayed{"scale=\"x\"", "1", ""}, Displayed{"sign=\"+\"", "1", ""},
                    Displayed{"format=\"x:unheard\"", "1", ""}, Displayed{"decimals=\"two\"", "1", ""},
                    Displayed{"decimals=\"0\"", "<b>1</b>2<ix:exclude>99</ix:exclude><i>3</i>", "123"}));

TEST(InlineFacts, NestedHiddenNilAndOfOtherTargets) {
  const auto filing = readOne(page(number("scale=\"3\" decimals=\"-3\" id=\"f1\"",
                                          "<ix:nonFraction name=\"x:Sales\" contextRef=\"y\" unitRef=\"e\" scale=\"3\" "
                                          "decimals=\"INF\">7</ix:nonFraction>") +
                                       "\n" + number("xsi:nil=\"true\"", "") + number("target=\"other\"", "5") +
                                       "<ix:fraction name=\"x:R\" contextRef=\"y\" unitRef=\"e\"/>" +
                                       number("format=\"x:unheard\"", "5"),
                                   kContexts, number("decimals=\"2\"", "0.25")));
  ASSERT_TRUE(filing) << filing.error().text();
  ASSERT_EQ(filing->facts.size(), 4u);
  EXPECT_EQ(filing->facts[0].text, "0.25") << "hidden facts count";
  EXPECT_EQ(filing->facts[1].text, "7000");
  EXPECT_EQ(filing->facts[1].decimals, -3);
  EXPECT_EQ(filing->facts[1].place, "line 4, element 'f1'");
  EXPECT_EQ(filing->facts[2].concept_name, "x:Sales");
  EXPECT_EQ(filing->facts[2].text, "7000");
  EXPECT_TRUE(filing->facts[2].exact);
  EXPECT_TRUE(filing->facts[3].nil);
  EXPECT_THAT(filing->warnings,
              testing::UnorderedElementsAre(HasSubstr("1 fractions"), HasSubstr("1 facts of another target"),
                                            HasSubstr("1 facts of an unknown format ('unheard')")));
  EXPECT_EQ(dateText(*filing->document.periodEnd), "2024-12-31");
}

TEST(InlineSets, ShareContextsAndContinueTexts) {
  const std::string front = page(
      "<ix:nonNumeric name=\"d:EntityRegistrantName\" contextRef=\"y\" continuedAt=\"more\">Vessing</ix:nonNumeric>"
      "<ix:nonNumeric name=\"d:DocumentPeriodEndDate\" contextRef=\"y\" format=\"ixt:date-day-monthname-year-en\">"
      "31st December 2024</ix:nonNumeric>");
  const std::string back =
      page(number("decimals=\"0\"", "5") + "<ix:continuation id=\"more\">holt plc</ix:continuation>", "");
  const std::vector<NamedContent> set{{"front.xhtml", front}, {"back.xhtml", back}};
  const auto filings = readInlineXbrl(set);
  ASSERT_TRUE(filings) << filings.error().text();
  EXPECT_TRUE(filings->at(0).facts.empty());
  EXPECT_EQ(filings->at(0).about.filerName, "Vessingholt plc");
  EXPECT_EQ(dateText(*filings->at(0).about.periodEnd), "2024-12-31");
  ASSERT_EQ(filings->at(1).facts.size(), 1u);
  EXPECT_EQ(filings->at(1).facts[0].text, "5");
  EXPECT_EQ(filings->at(1).about.filer, "7");
  EXPECT_THAT(readOne(back).error().text(), HasSubstr("names a context 'y' that no file given defines"));
}

TEST(InlineSets, ThatContradictThemselvesAreRefused) {
  std::string other = kContexts;
  other.replace(other.find("2024-12-31"), 10, "2024-06-30");
  const std::string a = page("");
  const std::string b = page("", other);
  const std::string c = page(number("decimals=\"0\"", "5"), "");
  const std::vector<NamedContent> set{{"a", a}, {"b", b}, {"c", c}};
  EXPECT_THAT(readInlineXbrl(set).error().text(), HasSubstr("'y' is defined differently by two of the files"));
}

TEST(InlineFaults, AreNamedWithTheirPlace) {
  const std::string nameless = "<ix:nonFraction contextRef=\"y\" unitRef=\"e\">5</ix:nonFraction>";
  const std::pair<std::string, const char*> kFaults[] = {
      {page(number("decimals=\"0\"", "5"), kContexts.substr(0, kContexts.find("<xbrli:unit"))), "names a unit 'e'"},
      {page(nameless), "a fact has no name"},
      {page("<ix:nonNumeric name=\"d:EntityRegistrantName\" continuedAt=\"c\">x</ix:nonNumeric>"
            "<ix:continuation id=\"c\" continuedAt=\"c\"/>"),
       "leads back to itself"},
      {page("<ix:nonNumeric name=\"d:EntityRegistrantName\" continuedAt=\"c\">x</ix:nonNumeric>"), "continues at 'c'"},
      {"<!DOCTYPE html [<!ENTITY a \"b\">]>" + page("").substr(38), "declares a document type"},
      {page(number("decimals=\"0\"", "5")).substr(0, 400), "the XML is broken"}};
  for (const auto& [content, message] : kFaults) {
    const auto filing = readOne(content);
    ASSERT_FALSE(filing) << message;
    EXPECT_THAT(filing.error().text(), testing::AllOf(HasSubstr(message), HasSubstr("page.xhtml, line"))) << message;
  }
  // Beside facts that can be used each is named, and they come in.
  const auto most = readOne(page(number("decimals=\"0\"", "5") + nameless));
  ASSERT_TRUE(most) << most.error().text();
  EXPECT_EQ(most->facts.size(), 1u);
  EXPECT_THAT(most->warnings, testing::ElementsAre(HasSubstr("a fact has no name; it was set aside")));
  std::string deep = "1";
  for (int i = 0; i < 100; ++i) deep = number("decimals=\"0\"", deep);
  EXPECT_THAT(readOne(page(deep)).error().what, HasSubstr("more than 32 deep"));
  EXPECT_EQ(*recognise(page(""), "p"), ContentKind::InlineXbrl);
}

struct Day {
  const char* format;
  const char* displayed;
  const char* date;
};

TEST(Dates, OfTheRegistries) {
  const Day kDays[] = {{"", "2024-03-31", "2024-03-31"},
                       {"date-day-month-year", "31.03.2024", "2024-03-31"},
                       {"date-month-day-year", "03/31/24", "2024-03-31"},
                       {"date-year-month-day", "2024 03 31", "2024-03-31"},
                       {"datemonthdayyearen", "March 31, 2024", "2024-03-31"},
                       {"dateslasheu", "31/03/2024", "2024-03-31"},
                       {"datelongus", "March 31, 2024", "2024-03-31"},
                       {"date-day-month-year", "31.02.2024", ""},
                       {"date-day-month-year", "someday", ""},
                       {"date-day-month", "31.03", ""},
                       {"unheard", "31.03.2024", ""}};
  for (const Day& d : kDays) {
    const std::optional<Date> date = transformDate(d.format, d.displayed);
    EXPECT_EQ(date ? dateText(*date) : "", d.date) << d.format << ' ' << d.displayed;
  }
}

TEST(ScaledText, MovesThePointExactly) {
  EXPECT_EQ(scaledText("1.25", 1), "12.5");
  EXPECT_EQ(scaledText("1.25", 4), "12500");
  EXPECT_EQ(scaledText("1.25", -3), "0.00125");
  EXPECT_EQ(scaledText("0", 6), "0");
  EXPECT_EQ(scaledText("123456789012345678901234567890.1", 1), "1234567890123456789012345678901");
}

}  // namespace
}  // namespace zl::exchange
