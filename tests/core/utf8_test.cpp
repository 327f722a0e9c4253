// Text from outside: UTF-8 by RFC 3629, and what may be shown of it.

#include "core/text/utf8.h"

#include <gtest/gtest.h>

namespace zl {
namespace {

TEST(Utf8, FindsTheFirstBadByte) {
  // From RFC 3629, section 4: the ranges of well-formed sequences, and bytes just outside them.
  const struct {
    std::string text;
    std::size_t bad;
  } cases[] = {{"plain", std::string::npos},
               {"\xC3\xA9\xE2\x82\xAC\xF0\x9F\x98\x80", std::string::npos},
               {"\xF4\x8F\xBF\xBF", std::string::npos},
               {"ab\xFF", 2},
               {"a\xC3", 1},
               {"a\xE2\x28\xA1", 1},
               {"\xC0\xAF", 0},          // an overlong slash
               {"x\xE0\x9F\xBF", 1},     // overlong
               {"\xED\xA0\x80", 0},      // a surrogate
               {"\xF4\x90\x80\x80", 0},  // beyond U+10FFFF
               {"\xF0\x8F\xBF\xBF", 0}};
  for (const auto& c : cases) EXPECT_EQ(firstBadUtf8(c.text), c.bad) << c.text;
}

TEST(Utf8, MakesTextOfAnyBytes) {
  EXPECT_EQ(asUtf8("caf\xE9"), "caf\xEF\xBF\xBD");
  std::string bytes;
  for (int i = 0; i < 256; ++i) bytes += static_cast<char>(i);
  EXPECT_TRUE(isUtf8(asUtf8(bytes)));
}

TEST(Utf8, ShortensBetweenCharacters) {
  EXPECT_EQ(shortened("abc", 3), "abc");
  EXPECT_EQ(shortened("a\xC3\xA9z", 2), "a…");
  EXPECT_EQ(shortened(std::string(50000, '7'), 40).size(), 40u + std::string("…").size());
}

TEST(Utf8, WhatIsShownSteersNothing) {
  EXPECT_EQ(harmless("a\x1B[2Jb"), "a\xEF\xBF\xBD[2Jb") << "an escape would clear a terminal";
  EXPECT_EQ(harmless("a\nb\tc"),
            "a\xEF\xBF\xBD"
            "b\xEF\xBF\xBD"
            "c");
  EXPECT_EQ(harmless("a\nb\tc", true), "a\nb\tc");
  EXPECT_EQ(harmless("1\xE2\x80\xAE"
                     "2"),
            "1\xEF\xBF\xBD"
            "2")
      << "U+202E turns the digits after it round";
  EXPECT_EQ(harmless("\xC2\x9B"), "\xEF\xBF\xBD") << "the one-byte form of an escape sequence";
  EXPECT_EQ(harmless("Ünïcode 数字"), "Ünïcode 数字");
}

}  // namespace
}  // namespace zl
