// Linkbases, and where they put a filer's own concepts.

#include "exchange/xbrl/linkbase.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "exchange/content.h"

namespace zl::exchange {
namespace {

using testing::HasSubstr;

std::string linkbase(const std::string& links) {
  return "<link:linkbase xmlns:link=\"http://www.xbrl.org/2003/linkbase\" "
         "xmlns:xlink=\"http://www.w3.org/1999/xlink\">" +
         links + "</link:linkbase>";
}

std::string loc(const std::string& label, const std::string& id) {
  return "<link:loc xlink:label=\"" + label + "\" xlink:href=\"https://filer.example/x.xsd#" + id + "\"/>";
}

std::string arc(const std::string& kind, const std::string& from, const std::string& to, const std::string& more = "") {
  return "<link:" + kind + "Arc xlink:from=\"" + from + "\" xlink:to=\"" + to + "\" " + more + "/>";
}

TEST(Linkbase, ArcsWithWeightsAndLabelsInEnglishFirst) {
  const std::string text = linkbase(
      "<link:calculationLink>" + loc("p", "ifrs-full_ProfitLossFromOperatingActivities") + loc("c", "vsh_RecallCosts") +
      loc("odd", "noUnderscore") + arc("calculation", "p", "c", "weight=\"-1.0\"") + arc("calculation", "p", "odd") +
      arc("calculation", "c", "p", "use=\"prohibited\"") + "</link:calculationLink><link:presentationLink>" +
      loc("p", "ifrs-full_CurrentAssetsAbstract") + loc("c", "vsh_Deposits") + arc("presentation", "p", "c") +
      "</link:presentationLink><link:labelLink>" + loc("c", "vsh_Deposits") +
      "<link:label xlink:label=\"t\" xml:lang=\"de\">Anzahlungen</link:label><link:label xlink:label=\"t\" "
      "xml:lang=\"en\"> Deposits paid "
      "</link:label><link:label xlink:label=\"t\" xml:lang=\"en\" "
      "xlink:role=\"http://www.xbrl.org/2003/role/terseLabel\">Dep.</link:label>" +
      arc("label", "c", "t") + "</link:labelLink><link:definitionLink>" + loc("w", "ifrs-full_OtherExpenseByNature") +
      loc("n", "vsh_RecallCosts") +
      arc("definition", "w", "n", "xlink:arcrole=\"http://www.esma.europa.eu/xbrl/esef/arcrole/wider-narrower\"") +
      arc("definition", "n", "w", "xlink:arcrole=\"http://xbrl.org/int/dim/arcrole/domain-member\"") +
      "</link:definitionLink>");
  const auto network = readLinkbase(text, "l.xml");
  ASSERT_TRUE(network) << network.error().text();
  EXPECT_EQ(network->arcs,
            (std::vector<ConceptArc>{{"ifrs-full:ProfitLossFromOperatingActivities", "vsh:RecallCosts", -1, true},
                                     {"ifrs-full:CurrentAssetsAbstract", "vsh:Deposits", 1, false}}));
  EXPECT_EQ(network->labels.at("vsh:Deposits"), "Deposits paid");
  EXPECT_EQ(network->anchors,
            (std::map<std::string, std::string>{{"vsh:RecallCosts", "ifrs-full:OtherExpenseByNature"}}));
  EXPECT_EQ(*recognise("<?xml version=\"1.0\"?>" + text, "l"), ContentKind::Linkbase);
  EXPECT_THAT(readLinkbase(linkbase(""), "l").error().what, HasSubstr("holds no calculation"));
  EXPECT_THAT(readLinkbase("<a/>", "l").error().what, HasSubstr("not a linkbase"));
  EXPECT_THAT(readLinkbase(text.substr(0, 300), "l").error().what, HasSubstr("the XML is broken"));
}

}  // namespace
}  // namespace zl::exchange
