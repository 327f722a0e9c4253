#include <gtest/gtest.h>

#include <cmath>
#include <limits>

#include "core/quantity/decimal.h"
#include "core/quantity/figure.h"
#include "core/quantity/number_text.h"

namespace zl {
namespace {

TEST(Figure, GapsDecideAndNeverBecomeNumbers) {
  const Figure value = Figure::of(2);
  const Figure absent = Figure::absent("none");
  const Figure odd = Figure::notMeaningful("odd");
  // Any not-meaningful operand wins over an absent one, on either side.
  for (const Figure& f : {value + odd, odd + value, absent + odd, odd * absent, odd / value, -odd}) {
    EXPECT_TRUE(f.isNotMeaningful());
    EXPECT_EQ(f.reason(), "odd");
  }
  for (const Figure& f : {value + absent, absent - value, absent / value}) EXPECT_TRUE(f.isAbsent());
  EXPECT_EQ((value / Figure::of(0)).reason(), "division by zero");
  EXPECT_TRUE(Figure::of(std::numeric_limits<double>::infinity()).isNotMeaningful());
  EXPECT_TRUE((Figure::of(1e308) * Figure::of(10)).isNotMeaningful());
  EXPECT_DOUBLE_EQ((value - Figure::of(5)).value(), -3);
}

TEST(Decimal, IsExactWhereDoublesAreNot) {
  const Decimal sum = *Decimal::parse("0.1") + *Decimal::parse("0.2");
  EXPECT_TRUE(sum == *Decimal::parse("0.3"));  // false in doubles
  EXPECT_EQ((*Decimal::parse("1e3") - *Decimal::parse("0.001")).text(), "999.999");
  EXPECT_EQ(Decimal::halfUnit(3).text(), "500");     // half a thousand
  EXPECT_EQ(Decimal::halfUnit(-2).text(), "0.005");  // half a cent
  EXPECT_TRUE(*Decimal::parse("-5") < *Decimal::parse("-4.99"));
}

TEST(Decimal, RefusesWhatIsNoNumberOrTooLarge) {
  for (const char* bad :
       {"", "-", ".", "1.2.3", "1,000", " 1", "1 ", "0x10", "NaN", "INF", "1e", "1e999999999", "--1"}) {
    EXPECT_FALSE(Decimal::parse(bad)) << bad;
  }
  EXPECT_FALSE(Decimal::parse(std::string(100000, '9')));
  EXPECT_TRUE(Decimal::parse("+7.50E2"));
}

TEST(NumberText, ReadsWhatPeopleType) {
  const struct {
    const char* text;
    double number;
  } kCases[] = {{"12.5%", 0.125},
                {"1.2bn", 1.2e9},
                {"350m", 350e6},
                {"3k", 3000},
                {"(350)", -350},
                {"-350", -350},
                {"\xE2\x88\x92"
                 "350",
                 -350},
                {"1,250.5", 1250.5},
                {"1 250,5", 1250.5},
                {"1.250,5", 1250.5},
                {"1,250", 1250},
                {"12,5", 12.5},
                {"0,125", 0.125},
                {"1'000'000", 1e6},
                {"7.5x", 7.5},
                {"+4", 4}};
  for (const auto& c : kCases) {
    const auto got = typedNumber(c.text);
    ASSERT_TRUE(got) << c.text;
    EXPECT_NEAR(*got, c.number, 1e-9 * std::max(1.0, std::fabs(c.number))) << c.text;
  }
  for (const char* bad :
       {"", "abc", "1.2.3", "1,2,3", "12,34,5", "(-3)", "%", "1..2", "1e5", "nan", "--2", "1,25,000"}) {
    EXPECT_FALSE(typedNumber(bad)) << bad;
  }
}

TEST(NumberText, ABareNumberIsInTheShownUnit) {
  EXPECT_DOUBLE_EQ(*typedFigure("12.5", Kind::Ratio), 0.125);
  EXPECT_DOUBLE_EQ(*typedFigure("350", Kind::Money), 350e6);
  EXPECT_DOUBLE_EQ(*typedFigure("350k", Kind::Money), 350e3);
  EXPECT_DOUBLE_EQ(*typedFigure("61", Kind::Days), 61);
}

TEST(NumberText, ShowsGapsAsWhatTheyAre) {
  EXPECT_EQ(figureText(Figure::absent(), Kind::Money), "");
  EXPECT_EQ(figureText(Figure::notMeaningful("x"), Kind::Ratio), "\xC2\xB7");
  EXPECT_EQ(figureText(Figure::of(-1234567890.0), Kind::Money), "(1,234.6)");
  EXPECT_EQ(figureText(Figure::of(-0.00001), Kind::Ratio), "0.0");  // no negative nought
  EXPECT_EQ(groupedNumber(-1234.5, 1, false),
            "\xE2\x88\x92"
            "1,234.5");
}

}  // namespace
}  // namespace zl
