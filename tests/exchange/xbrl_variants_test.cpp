// The corners of XBRL 2.1 that filers use: precision, units, dimensions, dates, sizes.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <optional>

#include "core/filing/tie.h"
#include "exchange/xbrl/instance.h"

namespace zl::exchange {
namespace {

/// One fact in one context, with whatever the case puts in their places.
std::string document(const std::string& attributes, const std::string& value, const std::string& period,
                     const std::string& unit, const std::string& scenario = "") {
  return "<xbrl xmlns=\"http://www.xbrl.org/2003/instance\" xmlns:a=\"https://filer.example\" "
         "xmlns:g=\"http://fasb.org/us-gaap/2023\" xmlns:xsi=\"http://www.w3.org/2001/XMLSchema-instance\">"
         "<context id=\"c\"><entity><identifier scheme=\"s\">1</identifier></entity><period>" +
         period + "</period>" + scenario + "</context><unit id=\"u\">" + unit +
         "</unit><g:Assets contextRef=\"c\" unitRef=\"u\" " + attributes + ">" + value + "</g:Assets></xbrl>";
}

const std::string kInstant = "<instant>2024-12-31</instant>";
const std::string kEuro = "<measure>iso4217:EUR</measure>";

Fact read(const std::string& text) {
  const auto filing = readXbrlInstance(text, "t");
  EXPECT_TRUE(filing) << (filing ? "" : filing.error().text());
  return filing ? filing->facts.at(0) : Fact{};
}

TEST(Values, AreWholeWhateverCutsThemIntoPieces) {
  for (const char* value :
       {"12<!-- restated -->34", "<![CDATA[12]]>34", "1<?mark up?>2<!-- -->34", " 1234 ", "+1234"}) {
    EXPECT_EQ(read(document("", value, kInstant, kEuro)).figure().valueOr(0), 1234) << value;
  }
  const Fact cut = read(document("", "7", "<instant>2024-<!-- year end -->12-31</instant>",
                                 "<measure>iso4217:<!-- euro -->EUR</measure>"));
  EXPECT_EQ(dateText(cut.period.end), "2024-12-31");
  EXPECT_EQ(cut.unit, "EUR");
}

TEST(Values, ThatAreFractionsAreSetAside) {
  const std::string part = "<numerator>1</numerator><denominator>3</denominator>";
  std::string text = document("", "7", kInstant, kEuro);
  text.insert(text.rfind("</xbrl>"), "<g:Ratio contextRef=\"c\" unitRef=\"u\">" + part + "</g:Ratio>");
  const auto filing = readXbrlInstance(text, "t");
  ASSERT_TRUE(filing) << filing.error().text();
  EXPECT_EQ(filing->facts.size(), 1u);
  EXPECT_THAT(filing->warnings, testing::Contains("1 fraction was set aside"));
}

TEST(Values, ThatCannotBeUsedStopNoOther) {
  std::string text = document("", "7", kInstant, kEuro);
  std::string bad;
  for (const char* fact : {"contextRef=\"c\" unitRef=\"u\">n/a<", "contextRef=\"z\" unitRef=\"u\">1<",
                           "contextRef=\"c\" unitRef=\"q\">1<", "contextRef=\"c\" unitRef=\"u\" decimals=\"x\">1<"}) {
    bad += "<g:Liabilities " + std::string(fact) + "/g:Liabilities>\n";
  }
  text.insert(text.rfind("</xbrl>"), bad);
  const auto filing = readXbrlInstance(text, "t");
  ASSERT_TRUE(filing) << filing.error().text();
  ASSERT_EQ(filing->facts.size(), 1u);
  EXPECT_EQ(filing->facts[0].concept_name, "us-gaap:Assets");
  using testing::HasSubstr;
  EXPECT_THAT(filing->warnings, testing::ElementsAre(HasSubstr("'n/a'"), HasSubstr("context 'z'"),
                                                     HasSubstr("unit 'q'"), HasSubstr("'x'")));
  for (int i = 0; i < 3; ++i) text.insert(text.rfind("</xbrl>"), bad);
  EXPECT_THAT(
      readXbrlInstance(text, "t")->warnings,
      testing::AllOf(testing::SizeIs(6), testing::Contains("11 more facts could not be used and were set aside")));
}

TEST(Values, OfAContextOrUnitWithAFaultAreSetAsideAlone) {
  std::string text = document("", "7", kInstant, kEuro);
  text.insert(
      text.rfind("</xbrl>"),
      "\n<context id=\"bad\"><period><instant>31.12.2024</instant></period></context>"
      "<context id=\"unused\"><period><instant>never</instant></period></context><unit id=\"none\"/>"
      "<g:Cash contextRef=\"bad\" unitRef=\"u\">1</g:Cash><g:Debt contextRef=\"c\" unitRef=\"none\">2</g:Debt>");
  const auto filing = readXbrlInstance(text, "t");
  ASSERT_TRUE(filing) << filing.error().text();
  EXPECT_EQ(filing->facts.size(), 1u);
  using testing::HasSubstr;
  EXPECT_THAT(filing->warnings, testing::ElementsAre(HasSubstr("g:Cash names a context that cannot be used, t, line 2: "
                                                               "'31.12.2024' is not a date"),
                                                     HasSubstr("g:Debt names a unit that cannot be used")));
}

/// A file of more than a megabyte is read in runs; what it says and where stays the same.
TEST(Sizes, OfAnyKindReadAlike) {
  constexpr int kFacts = 30'000;
  std::string facts;
  for (int i = 0; i < kFacts; ++i) {
    facts += i % 1000 == 7 ? "<!-- </xbrl> <g:Assets> -->" : i % 1000 == 8 ? "<?mark <g:x> ?>" : "";
    facts +=
        "<g:Assets contextRef=\"c\" unitRef=\"u\" note=\"a > b\"><![CDATA[" + std::to_string(i) + "]]></g:Assets>\n";
  }
  const std::string whole = document("", "7", kInstant, kEuro);
  const size_t first = whole.find("<context"), last = whole.find("<g:Assets");
  const std::string definitions = whole.substr(first, last - first);
  for (const bool definedLast : {false, true}) {
    const std::string text = whole.substr(0, first) + (definedLast ? "" : definitions) + "\n" + facts +
                             (definedLast ? definitions : "") + "</xbrl>";
    ASSERT_GT(text.size(), size_t{2} << 20);
    const auto filing = readXbrlInstance(text, "t");
    ASSERT_TRUE(filing) << filing.error().text();
    ASSERT_EQ(filing->facts.size(), static_cast<size_t>(kFacts));
    for (int i = 0; i < kFacts; ++i) {
      const Fact& fact = filing->facts[static_cast<size_t>(i)];
      ASSERT_EQ(fact.text, std::to_string(i));
      ASSERT_EQ(fact.place, "line " + std::to_string(i + 2));
    }
    std::string broken = text;
    broken.replace(broken.find("]]></g:Assets>", broken.find("[25000]")), 14, "]]></g:Others>");
    const auto refused = readXbrlInstance(broken, "t");
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().where, "t, line 25002");
  }
}

struct Precision {
  const char* attributes;
  const char* value;
  std::optional<int> decimals;
  bool exact;
};

class Precisions : public testing::TestWithParam<Precision> {};

TEST_P(Precisions, BecomeTheLastExactPlace) {
  const Precision& p = GetParam();
  const Fact f = read(document(p.attributes, p.value, kInstant, kEuro));
  EXPECT_EQ(f.decimals, p.decimals) << p.attributes << ' ' << p.value;
  EXPECT_EQ(f.exact, p.exact);
  EXPECT_EQ(f.text, p.value) << "the text is kept as written";
}

// Decimals = precision - digits before the point; for numbers below one the zeros after the point
// count against it (XBRL 2.1, section 4.6.6).
INSTANTIATE_TEST_SUITE_P(
    Values, Precisions,
    testing::Values(
        Precision{"decimals=\"0\"", "5", 0, false}, Precision{"decimals=\"2\"", "5.25", 2, false},
        Precision{"decimals=\"-6\"", "5000000", -6, false}, Precision{"decimals=\"INF\"", "5.25", std::nullopt, true},
        Precision{"", "5.25", std::nullopt, false}, Precision{"precision=\"INF\"", "5", std::nullopt, true},
        Precision{"precision=\"3\"", "123456", -3, false}, Precision{"precision=\"6\"", "123.456", 3, false},
        Precision{"precision=\"2\"", "0.0123", 3, false}, Precision{"precision=\"4\"", "-99.5", 2, false},
        Precision{"precision=\"0\"", "5", std::nullopt, false}, Precision{"decimals=\"-3\"", "-12000", -3, false}));

struct Unit {
  const char* xml;
  const char* text;
};

class Units : public testing::TestWithParam<Unit> {};

TEST_P(Units, AreNamedShortly) {
  EXPECT_EQ(read(document("decimals=\"0\"", "1", kInstant, GetParam().xml)).unit, GetParam().text);
}

INSTANTIATE_TEST_SUITE_P(Measures, Units,
                         testing::Values(Unit{"<measure>iso4217:EUR</measure>", "EUR"},
                                         Unit{"<measure> iso4217:USD </measure>", "USD"},
                                         Unit{"<measure>xbrli:shares</measure>", "shares"},
                                         Unit{"<measure>pure</measure>", "pure"},
                                         Unit{"<measure>a:kg</measure><measure>a:m</measure>", "kg*m"},
                                         Unit{"<divide><unitNumerator><measure>iso4217:EUR</measure></"
                                              "unitNumerator><unitDenominator><measure>xbrli:shares"
                                              "</measure></unitDenominator></divide>",
                                              "EUR/shares"}));

TEST(Units, WithoutMeasureAreRefused) {
  for (const char* unit : {"", "<divide/>", "<divide><unitNumerator/></divide>"}) {
    const auto filing = readXbrlInstance(document("decimals=\"0\"", "1", kInstant, unit), "t");
    ASSERT_FALSE(filing) << unit;
    EXPECT_THAT(filing.error().what,
                testing::HasSubstr("a unit that cannot be used, t, line 1: a unit has no measure"));
  }
}

struct When {
  const char* xml;
  const char* text;  ///< of the period; empty: refused
};

class Periods : public testing::TestWithParam<When> {};

TEST_P(Periods, AreDaysWhateverTheClockSays) {
  const auto filing = readXbrlInstance(document("decimals=\"0\"", "1", GetParam().xml, kEuro), "t");
  ASSERT_EQ(filing.has_value(), GetParam().text[0] != 0) << GetParam().xml;
  if (filing) {
    EXPECT_EQ(filing->facts[0].period.text(), GetParam().text);
  }
}

INSTANTIATE_TEST_SUITE_P(
    Contexts, Periods,
    testing::Values(When{"<instant>2024-12-31</instant>", "2024-12-31"},
                    When{"<instant> 2024-12-31 </instant>", "2024-12-31"},
                    When{"<instant>2025-01-01T00:00:00</instant>", "2024-12-31"},
                    When{"<instant>2024-12-31T12:00:00</instant>", "2024-12-31"},
                    When{"<instant>2024-12-31Z</instant>", "2024-12-31"},
                    When{"<startDate>2024-01-01</startDate><endDate>2024-12-31</endDate>", "2024-01-01/2024-12-31"},
                    When{"<startDate>2024-01-01T00:00:00</startDate><endDate>2025-01-01T00:00:00</endDate>",
                         "2024-01-01/2024-12-31"},
                    When{"<startDate>2024-01-01</startDate>", ""}, When{"<instant>31.12.2024</instant>", ""},
                    When{"<instant/>", ""}, When{"<instant>2024-12-31x</instant>", ""}, When{"", ""}));

TEST(Dimensions, ExplicitTypedAndInTheScenario) {
  const std::string scenario =
      "<scenario><d:explicitMember xmlns:d=\"http://xbrl.org/2006/xbrldi\" "
      "dimension=\"a:Region\">a:North</d:explicitMember>"
      "<d:typedMember xmlns:d=\"http://xbrl.org/2006/xbrldi\" dimension=\"a:Plant\"><a:name>Mill "
      "7</a:name></d:typedMember></scenario>";
  const Fact f = read(document("decimals=\"0\"", "1", kInstant, kEuro, scenario));
  EXPECT_EQ(f.segments, (std::vector<Segment>{{"a:Region", "a:North"}, {"a:Plant", "Mill 7"}}));
}

TEST(Concepts, OfPublicTaxonomiesKeepTheirUsualPrefix) {
  EXPECT_EQ(read(document("decimals=\"0\"", "1", kInstant, kEuro)).concept_name, "us-gaap:Assets");
}

TEST(Nil, HasNoFigureAndNoText) {
  const Fact f = read(document("xsi:nil=\"true\"", "", kInstant, kEuro));
  EXPECT_TRUE(f.nil);
  EXPECT_TRUE(f.figure().isAbsent());
  Fact zero = read(document("decimals=\"0\"", "0", kInstant, kEuro));
  EXPECT_FALSE(agree(f, zero)) << "nothing filed is not nought";
}

TEST(Encodings, Utf16AndMarksAreRead) {
  const std::string plain = document("decimals=\"0\"", "7", kInstant, kEuro);
  EXPECT_EQ(read("\xEF\xBB\xBF" + plain).text, "7");
  std::string wide("\xFF\xFE", 2);
  for (char c : plain) {
    wide += c;
    wide += '\0';
  }
  EXPECT_EQ(read(wide).text, "7");
}

TEST(Sizes, FiguresTooLongToHoldAreRefused) {
  EXPECT_FALSE(readXbrlInstance(document("decimals=\"0\"", std::string(5000, '9'), kInstant, kEuro), "t"));
  EXPECT_FALSE(readXbrlInstance(document("decimals=\"0\"", "1e400", kInstant, kEuro), "t"));
  EXPECT_FALSE(readXbrlInstance(document("decimals=\"99999999999\"", "1", kInstant, kEuro), "t"));
  EXPECT_EQ(read(document("decimals=\"0\"", std::string(60, '9'), kInstant, kEuro)).text.size(), 60u);
}

TEST(Order, ContextsAndUnitsMayFollowTheFactsThatNameThem) {
  const std::string head = "<xbrl xmlns=\"http://www.xbrl.org/2003/instance\" xmlns:a=\"https://filer.example\">";
  const std::string context = "<context id=\"c\"><entity><identifier scheme=\"s\">1</identifier></entity><period>" +
                              kInstant + "</period></context>";
  const std::string unit = "<unit id=\"u\">" + kEuro + "</unit>";
  const std::string fact = "<a:Sales contextRef=\"c\" unitRef=\"u\" decimals=\"0\">5</a:Sales>";
  const std::string text = "<a:Policy contextRef=\"c\">words</a:Policy>";
  const std::string tuple = "<a:Group>" + fact + "<a:Inner>" + fact + "</a:Inner></a:Group>";
  std::vector<std::string> parts{context, unit, fact, text, tuple};
  std::sort(parts.begin(), parts.end());
  do {
    std::string all = head;
    for (const std::string& part : parts) all += part;
    const auto filing = readXbrlInstance(all + "</xbrl>", "t");
    ASSERT_TRUE(filing) << filing.error().text();
    EXPECT_EQ(filing->facts.size(), 3u) << "one by itself, two in the group";
    for (const Fact& f : filing->facts) EXPECT_EQ(f.unit, "EUR");
    ASSERT_EQ(filing->warnings.size(), 1u);
    EXPECT_THAT(filing->warnings.front(), testing::HasSubstr("1 facts without a unit")) << "counted once";
  } while (std::next_permutation(parts.begin(), parts.end()));
  for (const char* lacking : {"c", "u"}) {
    const auto filing = readXbrlInstance(head + (*lacking == 'c' ? unit : context) + fact + "</xbrl>", "t");
    ASSERT_FALSE(filing);
    EXPECT_THAT(filing.error().text(),
                testing::HasSubstr(std::string("'") + lacking + "' that the file does not define"));
  }
}

TEST(Places, AreTheLinesOfTheFile) {
  std::string all =
      "<xbrl xmlns=\"http://www.xbrl.org/2003/instance\" xmlns:a=\"https://filer.example\">\n"
      "<context id=\"c\"><entity><identifier scheme=\"s\">1</identifier></entity><period>" +
      kInstant + "</period></context><unit id=\"u\">" + kEuro + "</unit>";
  // Gaps of none, few and many lines between one fact and the next.
  int line = 2;
  std::vector<std::string> expected;
  for (const int gap : {1, 0, 3, 40, 0, 1, 15, 16, 17, 2}) {
    all += std::string(static_cast<size_t>(gap), '\n') + "<a:Sales contextRef=\"c\" unitRef=\"u\">5</a:Sales>";
    line += gap;
    expected.push_back("line " + std::to_string(line));
  }
  const auto filing = readXbrlInstance(all + "</xbrl>", "t");
  ASSERT_TRUE(filing) << filing.error().text();
  std::vector<std::string> places;
  for (const Fact& f : filing->facts) places.push_back(f.place);
  EXPECT_EQ(places, expected);
}

}  // namespace
}  // namespace zl::exchange
