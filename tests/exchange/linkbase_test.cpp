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
      arc("label", "c", "t") + "</link:labelLink>");
  const auto network = readLinkbase(text, "l.xml");
  ASSERT_TRUE(network) << network.error().text();
  EXPECT_EQ(network->arcs,
            (std::vector<ConceptArc>{{"ifrs-full:ProfitLossFromOperatingActivities", "vsh:RecallCosts", -1, true},
                                     {"ifrs-full:CurrentAssetsAbstract", "vsh:Deposits", 1, false}}));
  EXPECT_EQ(network->labels.at("vsh:Deposits"), "Deposits paid");
  EXPECT_EQ(*recognise("<?xml version=\"1.0\"?>" + text, "l"), ContentKind::Linkbase);
  EXPECT_THAT(readLinkbase(linkbase(""), "l").error().what, HasSubstr("holds no calculation"));
  EXPECT_THAT(readLinkbase("<a/>", "l").error().what, HasSubstr("not a linkbase"));
  EXPECT_THAT(readLinkbase(text.substr(0, 300), "l").error().what, HasSubstr("the XML is broken"));
}

class Placing : public testing::Test {
 protected:
  void file(const std::string& concept_name, const char* text, const std::string& label = "") {
    Fact f;
    f.concept_name = concept_name;
    f.label = label;
    f.text = text;
    f.unit = "EUR";
    f.period = {makeDate(2024, 1, 1), makeDate(2024, 12, 31)};
    facts_.push_back(f);
  }
  void part(const std::string& parent, const std::string& child, int weight = 1, bool calculation = true) {
    network_.arcs.push_back({parent, child, weight, calculation});
  }
  LineChoices infer() { return inferChoices(facts_, rules_, choices_, network_, parts_, labels_, "EUR"); }
  double figure(const char* line) {
    LineChoices all = infer();
    all.insert(choices_.begin(), choices_.end());
    return StandardStatements::build(facts_, rules_, "EUR", all).at(line, 0).figure.valueOr(-1);
  }

  std::vector<Fact> facts_;
  LineChoices choices_;
  ConceptNetwork network_;
  MappingRules rules_ =
      *MappingRules::parse("total = t:Total\nopex = t:Opex\nother? = t:Other\nsales = t:Sales\n", "r");
  PartRules parts_ = *PartRules::parse("t:Total = other\nt:Profit = -opex # costs lessen profit\n", "p");
  LabelRules labels_ = *LabelRules::parse("other = sundry assets\nsales = net sales\n", "l");
};

TEST_F(Placing, PartsOfTotalsGoToTheResidualLine) {
  file("t:Total", "100");
  file("t:Other", "10");
  file("x:Deposits", "5");
  file("x:Recall", "3");
  file("x:Refund", "1");
  file("t:Opex", "40");
  part("t:Total", "x:Group");
  part("x:Group", "x:Deposits");
  part("t:Profit", "x:Recall", -1);
  part("t:Profit", "x:Refund", 1);
  EXPECT_EQ(infer().at("x:Deposits"), (LineChoice{"other", 1, "a part of t:Total in its calculation linkbase"}));
  EXPECT_EQ(figure("other"), 15);
  EXPECT_EQ(figure("opex"), 42) << "an own cost adds, an own income lessens";
  EXPECT_EQ(figure("total"), 100);
}

TEST_F(Placing, PartsOfWhatIsFiledAreNotCountedTwice) {
  file("t:Opex", "40");
  file("x:Wages", "25");
  file("x:Overtime", "4");
  part("t:Opex", "x:Wages");
  part("x:Wages", "x:Overtime");
  EXPECT_EQ(infer().at("x:Wages").line, "");
  EXPECT_THAT(infer().at("x:Wages").reason, HasSubstr("a part of t:Opex, which stands on opex already"));
  EXPECT_THAT(infer().at("x:Overtime").reason, HasSubstr("a part of x:Wages, which is filed"));
  EXPECT_EQ(figure("opex"), 40);
  facts_.erase(facts_.begin());
  EXPECT_EQ(figure("opex"), 25) << "without the total its parts make the line";
}

TEST_F(Placing, PresentationThenLabelsThenNothing) {
  file("t:Total", "100");
  file("x:Deposits", "5");
  file("x:SundryAssets", "7");
  file("x:Unheard", "9");
  file("x:Own", "11", "Net sales");
  part("t:Total", "x:Deposits", 1, false);
  const LineChoices inferred = infer();
  EXPECT_THAT(inferred.at("x:Deposits").reason, HasSubstr("presentation linkbase"));
  EXPECT_EQ(inferred.at("x:SundryAssets"), (LineChoice{"other", 1, "its label 'Sundry Assets' is a usual one"}));
  EXPECT_EQ(inferred.at("x:Own").line, "sales");
  EXPECT_EQ(inferred.count("x:Unheard"), 0u);
  file("t:Sales", "200");
  EXPECT_EQ(infer().count("x:Own"), 0u) << "the line is filled; a second figure would double it";
  choices_["x:Deposits"] = {"opex", 1, "by hand"};
  EXPECT_EQ(infer().count("x:Deposits"), 0u) << "what was chosen is not guessed";
}

TEST_F(Placing, CirclesInALinkbaseEnd) {
  file("t:Total", "100");
  file("x:A", "1");
  part("x:B", "x:A");
  part("x:C", "x:B");
  part("x:B", "x:C");
  EXPECT_EQ(infer().count("x:A"), 0u);
  EXPECT_FALSE(PartRules::parse("t:Total", "p"));
  EXPECT_THAT(PartRules::parse("a = b\n= c", "p").error().text(), HasSubstr("p, line 2"));
}

}  // namespace
}  // namespace zl::exchange
