// Text in cells that other programs read.

#include "core/text/cells.h"

#include <gtest/gtest.h>

namespace zl {
namespace {

TEST(Cells, NoTextBeginsAFormulaAndNumbersStayThemselves) {
  const std::pair<const char*, const char*> cases[] = {{"=HYPERLINK(\"x\")", " =HYPERLINK(\"x\")"},
                                                       {"+1+cmd|' /C calc'!A0", " +1+cmd|' /C calc'!A0"},
                                                       {"-2+3+x", " -2+3+x"},
                                                       {"@SUM(A1)", " @SUM(A1)"},
                                                       {"＝1+1", " ＝1+1"},
                                                       {"\t=1", " =1"},
                                                       {"-", " -"},
                                                       {"-350", "-350"},
                                                       {"+12.5%", "+12.5%"},
                                                       {"-1,250.5", "-1,250.5"},
                                                       {"Revenue\nnet", "Revenue net"},
                                                       {"", ""}};
  for (const auto& [given, shown] : cases) EXPECT_EQ(cellText(given), shown);
}

}  // namespace
}  // namespace zl
