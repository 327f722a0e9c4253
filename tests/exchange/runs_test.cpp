// A text cut into runs: put together again they are what is in the outermost element, each parses by itself, and its
// children are those of the tree of the whole, which the XML library makes. Texts that are not in order are left to it.

#include "exchange/xml/runs.h"

#include <gtest/gtest.h>

#include "exchange/xml/document.h"

namespace zl::exchange::xml {
namespace {

constexpr const char* kTricky =
    "\xEF\xBB\xBF<?xml version='1.0'?>\n<!-- <a> --><x:r a='1>2' b=\"it's\">text <a/><b c='/>'>1</b >"
    "<!-- </x:r> --><c><c><c/></c></c><![CDATA[ </x:r> ]]><d>\xC3\xA9</d><?p </x:r> ?><e   /></x:r>\n<!-- end -->\n";

std::vector<std::string> childrenOf(pugi::xml_node parent) {
  std::vector<std::string> names;
  for (const pugi::xml_node node : parent.children()) {
    if (node.type() == pugi::node_element) names.push_back(std::string(node.name()) + "=" + node.child_value());
  }
  return names;
}

TEST(Runs, OfAnySizeHoldTheSameChildren) {
  const auto whole = parse(kTricky, "t", Doctype::Refused);
  ASSERT_TRUE(whole) << whole.error().text();
  const std::vector<std::string> expected = childrenOf((*whole)->tree.document_element());
  ASSERT_EQ(expected.size(), 5u);
  for (const size_t size : {1u, 5u, 20u, 50u, 1000u}) {
    const std::optional<Runs> runs = runsOf(kTricky, size);
    ASSERT_TRUE(runs) << size;
    EXPECT_EQ(runs->name, "x:r");
    std::vector<std::string> found;
    std::string together(runs->startTag);
    pugi::xml_document tree;
    for (const std::string_view run : runs->inner) {
      together += run;
      EXPECT_TRUE(run.size() >= size || run.data() == runs->inner.back().data()) << run;
      ASSERT_TRUE(parseRun(run, tree)) << run;
      for (std::string& name : childrenOf(tree)) found.push_back(std::move(name));
    }
    EXPECT_EQ(found, expected) << size;
    EXPECT_NE(std::string_view(kTricky).find(together + "</x:r>"), std::string_view::npos) << together;
  }
  EXPECT_EQ(runsOf(kTricky, 1)->inner.size(), 8u) << "texts, comments and sections end a run as elements do";
}

TEST(Runs, AreNotMadeOfWhatIsNotInOrder) {
  for (const char* text : {"", "r", "<r>", "<r/>", "<r></q>", "<r></r><r></r>", "<r></r>text", "text<r></r>", "</r>",
                           "<r><a></r>", "<r></a></r>", "<!DOCTYPE r><r></r>", "<r><!-- </r>", "<r><![CDATA[</r>",
                           "<r><?p </r>", "<r a='></r>", "<r <a></r>", "<r>\xFF</r>"}) {
    EXPECT_FALSE(runsOf(text, 1)) << text;
  }
}

}  // namespace
}  // namespace zl::exchange::xml
