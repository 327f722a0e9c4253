// The analyst's own standard lines, and documents shown with a fact marked.

#include <gmock/gmock.h>

#include "services/views/document_view.h"
#include "tests/support/demo_book.h"

namespace zl::services {
namespace {

using test::DemoBook;
using testing::HasSubstr;

TEST_F(DemoBook, AnOwnLineTakesConceptsAndGoesIntoTheForecast) {
  const auto session = open();
  const double before = session->now()->evaluation->constant("value_per_share", 1).value();
  ASSERT_TRUE(session->apply(addOwnLine(session->now()->caseOf(), "Order backlog", false)));
  const model::Model m = session->now()->evaluation->model();
  ASSERT_TRUE(m.find("own_order_backlog").known());
  EXPECT_EQ(session->now()->evaluation->constant("value_per_share", 1).value(), before);
  ASSERT_TRUE(session->apply(setLineChoice(session->now()->caseOf(), m, "vsh:OrderBacklog",
                                           LineChoice{"own_order_backlog", 1, "followed by itself"})));
  const auto backlog = [&](int column) {
    return session->now()->evaluation->figure("own_order_backlog", column, 1).value();
  };
  const auto revenue = [&](int column) { return session->now()->evaluation->figure("revenue", column, 1).value(); };
  EXPECT_NEAR(backlog(11) / revenue(11), 0.31, 1e-4);  // as the generator has it
  EXPECT_NEAR(backlog(14) / revenue(14), backlog(11) / revenue(11), 1e-12) << "its share of revenue is kept";
  // It survives the file; two lines of one name do not collide; dropping one lets its concepts go.
  const auto again = open();
  EXPECT_EQ(again->now()->caseOf().ownLines.size(), 1u);
  const CaseEdit second = addOwnLine(again->now()->caseOf(), "Order backlog", true);
  EXPECT_EQ(second.after.ownLines.back().name, "own_order_backlog_2");
  ASSERT_TRUE(again->apply(dropOwnLine(again->now()->caseOf(), "own_order_backlog")));
  EXPECT_FALSE(again->now()->evaluation->model().find("own_order_backlog").known());
  EXPECT_TRUE(again->now()->caseOf().lines.empty());
  ASSERT_TRUE(again->undo());
  EXPECT_TRUE(again->now()->evaluation->model().find("own_order_backlog").known());
}

TEST_F(DemoBook, AnOwnLineThatCannotBeIsRefused) {
  const auto session = open();
  EXPECT_EQ(addOwnLine(session->now()->caseOf(), "在庫", false).after.ownLines.back().name, "own_line");
  for (const char* label : {"a \"quoted\" one", "\n", ""}) {
    EXPECT_FALSE(session->apply(addOwnLine(session->now()->caseOf(), label, true))) << label;
  }
  Case c = session->now()->caseOf();
  c.ownLines.push_back({"revenue", "Revenue again", true});
  EXPECT_FALSE(session->preview(c));
  EXPECT_TRUE(session->now()->caseOf().ownLines.empty());
}

TEST_F(DemoBook, EveryFactIsFoundInItsDocument) {
  const auto session = open();
  const Snapshot& s = *session->now();
  std::map<std::int64_t, std::string> contents;
  int looked = 0;
  for (size_t i = 0; i < s.evidence->facts.size(); i += 17) {
    const Fact& f = s.evidence->facts[i];
    auto [content, fresh] = contents.try_emplace(f.document);
    if (fresh) content->second = *session->documentContent(f.document);
    const auto view = viewDocument(content->second, s.document(f.document)->document.name, f.place);
    ASSERT_TRUE(view) << view.error().text();
    ASSERT_GE(view->marked, 0) << s.document(f.document)->document.name << ' ' << f.place;
    const std::string digits = f.text.substr(0, 3);  // a scaled or grouped figure shares its first digits
    std::string line;
    for (int l = view->marked; l < std::min(view->marked + 4, static_cast<int>(view->lines.size())); ++l)
      line += view->lines[static_cast<size_t>(l)];
    std::erase_if(line, [](char c) { return c == ',' || c == '.'; });
    EXPECT_THAT(line, HasSubstr(f.text == "0" ? "0" : digits.substr(0, 2))) << f.place;
    ++looked;
  }
  EXPECT_GT(looked, 30);
}

TEST(DocumentView, StaysReadableAroundThePlace) {
  std::string csv = "concept,label,start,end,unit,decimals,value\n";
  for (int i = 2; i <= 9000; ++i) csv += "x:C" + std::to_string(i) + ",,2024-01-01,2024-12-31,EUR,0,1\n";
  const auto view = viewDocument(csv, "big.csv", "line 7000");
  ASSERT_TRUE(view);
  EXPECT_LE(view->lines.size(), static_cast<size_t>(kMostLinesShown));
  EXPECT_THAT(view->lines[static_cast<size_t>(view->marked)], HasSubstr("x:C7000,"));
  EXPECT_EQ(view->firstLine + view->marked, 7000);
  EXPECT_EQ(view->left_out, 9000 - kMostLinesShown);
  EXPECT_EQ(viewDocument(csv, "big.csv", "line 99999")->marked, -1);
  EXPECT_EQ(viewDocument(csv, "big.csv", "nowhere")->marked, -1);
  EXPECT_FALSE(viewDocument("", "empty.csv", "line 1"));
}

}  // namespace
}  // namespace zl::services
