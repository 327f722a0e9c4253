// Concepts of filings that no rule names: by linkbases, figures and labels. Small filings written for the case at hand;
// the expected figures are sums of theirs.

#include "core/structure/concept_placing.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

namespace zl {
namespace {

using testing::HasSubstr;

class ConceptPlacing : public testing::Test {
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
  LineChoices infer() { return placeConcepts(facts_, rules_, choices_, network_, {labels_, lines_, parts_}, "EUR"); }
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
  LineTree lines_{*parseTies("tie total \"Total\" total = other + sales", "t")};
  LabelRules labels_ = *LabelRules::parse("other = sundry assets\nsales = net sales\n", "l");
};

TEST_F(ConceptPlacing, PartsOfTotalsGoToTheResidualLine) {
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
  EXPECT_EQ(infer().at("x:Deposits"), (LineChoice{"other", 1, "the rest of t:Total"}));
  EXPECT_EQ(figure("other"), 15);
  EXPECT_EQ(figure("opex"), 42) << "an own cost adds, an own income lessens";
  EXPECT_EQ(figure("total"), 100);
}

TEST_F(ConceptPlacing, AnOwnConceptGoesWhereItIsAnchoredAndATotalOfOwnPartsDoesNot) {
  file("t:Total", "100");
  file("t:Sales", "80");
  file("x:Group", "20");
  file("x:Rentals", "12");
  file("x:Bits", "8");
  part("t:Total", "t:Sales");
  part("t:Total", "x:Group");
  part("x:Group", "x:Rentals");
  part("x:Group", "x:Bits");
  EXPECT_EQ(figure("sales"), 80) << "by its total alone it is other";
  network_.anchors = {{"x:Rentals", "t:Sales"}, {"x:Group", "t:Sales"}};
  EXPECT_EQ(infer().at("x:Rentals"), (LineChoice{"sales", 1, "anchored to t:Sales"}));
  EXPECT_EQ(figure("sales"), 92);
  EXPECT_EQ(figure("other"), 8);
}

TEST_F(ConceptPlacing, PartsOfWhatIsFiledAreNotCountedTwice) {
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

TEST_F(ConceptPlacing, PresentationThenLabelsThenNothing) {
  file("t:Total", "100");
  file("x:Deposits", "5");
  file("x:SundryAssets", "7");
  file("x:Unheard", "9");
  file("x:Own", "11", "Net sales");
  part("t:Total", "x:Deposits", 1, false);
  const LineChoices inferred = infer();
  EXPECT_THAT(inferred.at("x:Deposits").reason, HasSubstr("presentation linkbase"));
  EXPECT_EQ(inferred.at("x:SundryAssets"), (LineChoice{"other", 1, "a usual label"}));
  EXPECT_EQ(inferred.at("x:Own").line, "sales");
  EXPECT_EQ(inferred.count("x:Unheard"), 0u);
  file("t:Sales", "200");
  EXPECT_EQ(infer().count("x:Own"), 0u) << "the line is filled; a second figure would double it";
  choices_["x:Deposits"] = {"opex", 1, "by hand"};
  EXPECT_EQ(infer().count("x:Deposits"), 0u) << "what was chosen is not guessed";
}

TEST_F(ConceptPlacing, ATotalThatNothingNamesIsNeverAPart) {
  // "All costs" is a total of costs that are placed; put on a line itself it would double them.
  file("t:Opex", "40");
  file("x:Wages", "25");
  file("x:AllCosts", "65");
  part("t:Profit", "x:AllCosts", -1);
  part("x:AllCosts", "t:Opex");
  part("x:AllCosts", "x:Wages");
  EXPECT_EQ(infer().at("x:AllCosts"), (LineChoice{"", 1, "a total; its parts are placed"}));
  EXPECT_EQ(figure("opex"), 65);
  // Parts that do not give it are details of it: it is placed, and they are not.
  facts_.back().text = "70";
  EXPECT_EQ(infer().at("x:AllCosts").line, "opex");
  EXPECT_EQ(infer().at("x:Wages").line, "");
}

TEST_F(ConceptPlacing, WhatARuleNamesAndDoesNotUseIsAFurtherPart) {
  rules_ = *MappingRules::parse("total = t:Total\nother? = t:Other | t:Prepaid\nsales = t:Sales\n", "r");
  file("t:Total", "100");
  file("t:Other", "10");
  file("t:Prepaid", "4");
  EXPECT_EQ(figure("other"), 10) << "without a tree it may be the same in other words";
  part("t:Total", "t:Other");
  part("t:Total", "t:Prepaid");
  EXPECT_EQ(figure("other"), 14);
  network_.arcs.pop_back();
  part("t:Other", "t:Prepaid");
  EXPECT_EQ(figure("other"), 10) << "a part of what stands on the line is in it";
}

TEST_F(ConceptPlacing, WithoutALinkbaseTheFiguresTell) {
  const auto year = [&](int end, std::initializer_list<std::pair<const char*, const char*>> figures) {
    for (const auto& [name, text] : figures) {
      file(name, text);
      facts_.back().period = {makeDate(end, 1, 1), makeDate(end, 12, 31)};
    }
  };
  // 40,112 + 3,310 + 9,218 = 52,640 and 38,907 + 3,498 + 8,876 = 51,281.
  year(2023, {{"t:Other", "38907"}, {"x:Claims", "3498"}, {"x:Deposits", "8876"}, {"t:Total", "51281"}});
  year(2024, {{"t:Other", "40112"}, {"x:Claims", "3310"}, {"x:Deposits", "9218"}, {"t:Total", "52640"}});
  EXPECT_EQ(infer().at("x:Claims"), (LineChoice{"other", 1, "the rest of t:Total"}));
  EXPECT_EQ(figure("other"), 51281) << "of the first year";
  facts_[1].text = "3600";
  EXPECT_EQ(infer().at("x:Claims").line, "other") << "a known total with a fault in one year is still one";
  facts_[5].text = "3400";
  EXPECT_EQ(infer().count("x:Claims"), 0u) << "one that ties in no year tells nothing";
}

TEST_F(ConceptPlacing, CirclesInALinkbaseEnd) {
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
}  // namespace zl
