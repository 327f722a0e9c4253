// What a file can cost: work grows with its size and not faster, what is beyond a limit is refused by
// name, and a reading can be ended inside a file. Work is counted by how often a reader asks whether it
// is still wanted, every few thousand steps, so that no clock is needed.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "exchange/csv/tables.h"
#include "exchange/json/reader.h"
#include "exchange/oim/xbrl_csv.h"
#include "exchange/oim/xbrl_json.h"
#include "exchange/workbook/workbook.h"
#include "exchange/xbrl/inline.h"
#include "exchange/xbrl/instance.h"
#include "exchange/xbrl/linkbase.h"
#include "tests/support/archive_maker.h"

namespace zl::exchange {
namespace {

using testing::HasSubstr;

constexpr const char* kNamespaces =
    "xmlns:xbrli='http://www.xbrl.org/2003/instance' xmlns:iso4217='http://www.xbrl.org/2003/iso4217' xmlns:e='urn:e' "
    "xmlns:ix='http://www.xbrl.org/2013/inlineXBRL'";
constexpr const char* kYearContext =
    "<xbrli:context id='c'><xbrli:entity><xbrli:identifier scheme='s'>E</xbrli:identifier></xbrli:entity><xbrli:period>"
    "<xbrli:startDate>2024-01-01</xbrli:startDate><xbrli:endDate>2024-12-31</xbrli:endDate></xbrli:period>"
    "</xbrli:context><xbrli:unit id='u'><xbrli:measure>iso4217:EUR</xbrli:measure></xbrli:unit>";

std::string digits(int i) {
  return std::to_string(i);
}

std::string largeInstance(int facts) {
  std::string text = std::string("<xbrli:xbrl ") + kNamespaces + ">" + kYearContext;
  for (int i = 0; i < facts; ++i)
    text += "<e:x" + digits(i) + " contextRef='c' unitRef='u' decimals='0'>1</e:x" + digits(i) + ">\n";
  return text + "</xbrli:xbrl>";
}

std::string largePage(const std::string& body) {
  return std::string("<html xmlns='http://www.w3.org/1999/xhtml' ") + kNamespaces + "><body><ix:header><ix:resources>" +
         kYearContext + "</ix:resources></ix:header>" + body + "</body></html>";
}

std::string inlineFacts(int facts) {
  std::string body;
  for (int i = 0; i < facts; ++i) {
    body += "<p><ix:nonFraction name='e:x" + digits(i) +
            "' contextRef='c' unitRef='u' decimals='0'>1</ix:nonFraction></p>\n";
  }
  return largePage(body);
}

std::string json(int facts) {
  std::string text =
      "{\"documentInfo\":{\"documentType\":\"https://xbrl.org/2021/"
      "xbrl-json\",\"namespaces\":{\"e\":\"urn:e\"}},\"facts\":{";
  for (int i = 0; i < facts; ++i) {
    text += (i > 0 ? ",\"f" : "\"f") + digits(i) +
            "\":{\"value\":\"1\",\"decimals\":0,\"dimensions\":{\"concept\":\"e:x\",\"entity\":\"s:E\",\"period\":"
            "\"2024-01-01T00:00:00/2025-01-01T00:00:00\",\"unit\":\"iso4217:EUR\"}}";
  }
  return text + "}}";
}

std::string table(int rows) {
  std::string text = "concept,label,start,end,unit,decimals,value\n";
  for (int i = 0; i < rows; ++i) text += "e:x" + digits(i) + ",,2024-01-01,2024-12-31,EUR,0,1\n";
  return text;
}

std::string arcs(int count) {
  std::string text =
      "<linkbase xmlns='http://www.xbrl.org/2003/linkbase' xmlns:xlink='http://www.w3.org/1999/xlink'>"
      "<calculationLink>";
  for (int i = 0; i < count; ++i) {
    text += "<loc xlink:href='e.xsd#e_x" + digits(i) + "' xlink:label='l" + digits(i) +
            "'/><calculationArc xlink:from='l0' "
            "xlink:to='l" +
            digits(i) + "'/>";
  }
  return text + "</calculationLink></linkbase>";
}

struct Reader {
  const char* name;
  std::string (*make)(int size);
  Status (*read)(const std::string& content, const StopCheck& stopped);
};

template <class T>
Status statusOf(const Result<T>& result) {
  return result ? Status() : tl::unexpected(result.error());
}

const Reader kReaders[] = {
    {"instance", largeInstance,
     [](const std::string& c, const StopCheck& s) { return statusOf(readXbrlInstance(c, "f", s)); }},
    {"inline", inlineFacts,
     [](const std::string& c, const StopCheck& s) {
       const std::vector<NamedContent> set{{"f", c}};
       return statusOf(readInlineXbrl(set, s));
     }},
    {"xbrl json", json, [](const std::string& c, const StopCheck& s) { return statusOf(readXbrlJson(c, "f", s)); }},
    {"fact table", table, [](const std::string& c, const StopCheck& s) { return statusOf(readFactTable(c, "f", s)); }},
    {"linkbase", arcs, [](const std::string& c, const StopCheck& s) { return statusOf(readLinkbase(c, "f", s)); }},
    {"delimited", table, [](const std::string& c, const StopCheck& s) { return statusOf(readDelimited(c, "f", s)); }},
    {"xbrl csv",
     [](int rows) {
       std::string text = "p,v\n";
       for (int i = 0; i < rows; ++i) text += "2024,1\n";
       return text;
     },
     [](const std::string& c, const StopCheck& s) {
       const std::vector<NamedContent> tables{{"t.csv", c}};
       return statusOf(readXbrlCsv(
           {"m",
            "{\"documentInfo\":{\"documentType\":\"https://xbrl.org/2021/xbrl-csv\"},\"tableTemplates\":{\"t\":{"
            "\"columns\":{\"p\":{},\"v\":{\"dimensions\":{\"concept\":\"e:x\",\"period\":\"$p\",\"unit\":\"iso4217:"
            "EUR\"},"
            "\"decimals\":0}}}},\"tables\":{\"t\":{\"url\":\"t.csv\"}}}"},
           tables, s));
     }},
};

TEST(Cost, WorkGrowsWithTheFileAndNotFaster) {
  constexpr int kSmall = 20'000;
  for (const Reader& reader : kReaders) {
    const auto asked = [&](int size) {
      int times = 0;
      const Status read = reader.read(reader.make(size), StopCheck([&] {
                                        ++times;
                                        return false;
                                      }));
      EXPECT_TRUE(read) << reader.name << ": " << read.error().text();
      return times;
    };
    const int once = asked(kSmall);
    EXPECT_GT(once, 2) << reader.name << " is asked inside the file";
    // Four times the file is four times the work; a reader that went through what it has again for each
    // new piece would do sixteen times as much.
    EXPECT_LE(asked(4 * kSmall), 5 * once) << reader.name;
  }
}

TEST(Cost, AReadingEndsInsideAFile) {
  for (const Reader& reader : kReaders) {
    int times = 0;
    const Status read = reader.read(reader.make(20'000), StopCheck([&] { return ++times == 2; }));
    ASSERT_FALSE(read) << reader.name;
    EXPECT_EQ(read.error().kind, ErrorKind::Cancelled) << reader.name;
    EXPECT_EQ(times, 2) << reader.name << " ends at once";
  }
}

TEST(Cost, WhatIsBeyondALimitIsRefusedByName) {
  // 3,000 locators of one label from and to: nine million arcs out of a small file.
  std::string product =
      "<linkbase xmlns='http://www.xbrl.org/2003/linkbase' xmlns:xlink='http://www.w3.org/1999/xlink'>"
      "<calculationLink>";
  for (int i = 0; i < 3000; ++i) product += "<loc xlink:href='e.xsd#e_x" + digits(i) + "' xlink:label='l'/>";
  product += "<calculationArc xlink:from='l' xlink:to='l'/></calculationLink></linkbase>";
  const auto network = readLinkbase(product, "f");
  ASSERT_FALSE(network);
  EXPECT_EQ(network.error().kind, ErrorKind::TooLarge);
  EXPECT_THAT(network.error().what, HasSubstr("500,000 arcs"));

  // A text that continues 100,000 times, each time with nothing.
  std::string body = "<ix:nonNumeric name='dei:EntityRegistrantName' contextRef='c' continuedAt='k0'></ix:nonNumeric>";
  for (int i = 0; i < 100'000; ++i) {
    body += "<ix:continuation id='k" + digits(i) + "' continuedAt='k" + digits(i + 1) + "'></ix:continuation>";
  }
  const std::string continued = largePage(body);
  const std::vector<NamedContent> set{{"f", continued}};
  const auto filings = readInlineXbrl(set);
  ASSERT_FALSE(filings);
  EXPECT_THAT(filings.error().what, HasSubstr("continue more often"));

  const auto deep = parseJson(std::string(70, '[') + std::string(70, ']'), "f");
  ASSERT_FALSE(deep);
  EXPECT_THAT(deep.error().what, HasSubstr("64 deep"));
  const auto twice = parseJson("{\"a\": {\"b\": 1, \"b\": 2}}", "f");
  ASSERT_FALSE(twice);
  EXPECT_THAT(twice.error().what, HasSubstr("'b' stands twice"));
}

TEST(Cost, DeepPagesAreWalkedOnce) {
  // 20,000 elements inside one another, a fact in each: counting the way up for each would be 200 million steps.
  constexpr int kDeep = 20'000;
  std::string body;
  for (int i = 0; i < kDeep; ++i) {
    body += "<div><ix:nonFraction name='e:x' contextRef='c' unitRef='u' decimals='0'>1</ix:nonFraction>";
  }
  for (int i = 0; i < kDeep; ++i) body += "</div>";
  const std::string deep = largePage(body);
  const std::vector<NamedContent> set{{"f", deep}};
  const auto filings = readInlineXbrl(set);
  ASSERT_TRUE(filings) << filings.error().text();
  EXPECT_EQ(filings->front().facts.size(), static_cast<size_t>(kDeep));
  std::string nested;
  for (int i = 0; i < 40; ++i) nested += "<ix:nonFraction name='e:x' contextRef='c' unitRef='u' decimals='0'>";
  nested += "1";
  for (int i = 0; i < 40; ++i) nested += "</ix:nonFraction>";
  const std::string inside = largePage(nested);
  const std::vector<NamedContent> nestedSet{{"f", inside}};
  const auto refused = readInlineXbrl(nestedSet);
  ASSERT_FALSE(refused);
  EXPECT_THAT(refused.error().what, HasSubstr("32 deep"));
}

// The library's own events for values read in order, so what is built is compared with what it builds itself.
TEST(JsonText, IsReadAsTheLibraryReadsIt) {
  for (const char* text :
       {"{}", "[]", "null", "true", "-0", "1e3", "18446744073709551615", "-9223372036854775808", "\"\\ud83d\\ude00\"",
        "{\"a\":[1,[2,{\"b\":[]}],{}],\"c\":{\"d\":null,\"e\":[[],[{}]]}}", "[[[[1]]],[],{\"x\":[{\"y\":{}}]}]"}) {
    const auto read = parseJson(text, "f");
    ASSERT_TRUE(read) << text;
    EXPECT_EQ(*read, Json::parse(text)) << text;
  }
  for (const char* text : {"", "{", "[1,]", "{\"a\"}", "01", "1e999", "\"\\ud800\"", "nul", "[1] 2", "\"\xFF\""}) {
    EXPECT_FALSE(parseJson(text, "f")) << text;
  }
}

TEST(JsonText, WhatSteersATerminalIsEscapedAndNothingIsLost) {
  const Json json = {{"name",
                      "a\x1B[2J\u009b\u202e\u2066\x7F"
                      "é数"}};
  const std::string text = textOf(json);
  EXPECT_EQ(text, "{\"name\":\"a\\u001b[2J\\u009b\\u202e\\u2066\\u007fé数\"}");
  EXPECT_EQ(Json::parse(text), json);
  EXPECT_EQ(textOf(Json("caf\xE9")), "\"caf\xEF\xBF\xBD\"") << "what is no text does not end the program";
}

}  // namespace
}  // namespace zl::exchange
