// What would tie of an import before it is stored, the one change that mends it, and figures in another scale. The
// statements are of plain companies that tie by themselves (tests/support/plain_company.h), in crowns and yen.

#include "services/intake/judged.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "services/edits/edits.h"
#include "tests/support/plain_company.h"

namespace zl::services {
namespace {

using test::PlainCompany;
using test::testDesk;
using testing::Contains;
using testing::HasSubstr;
using testing::Not;
using testing::StartsWith;

/// The income of a dyer in thousands of crowns: 800 - 480 - 180 - 20 + 12 = 132, and 700 - 430 - 160 - 20 + 15 = 105.
constexpr const char* kDyer =
    "SEK thousand;2025;2024\nNet sales;800;700\nCost of sales;(480);(430)\nOperating "
    "expenses;(180);(160)\nDepreciation;(20);(20)\n"
    "Returned deposits;12;15\nOperating profit;132;105\n";

class Judged : public testing::Test {
 protected:
  const std::shared_ptr<const Resources> resources_ = *Resources::load();
  const test::TemporaryFolder folder_;
  const std::string book_ = folder_.file("made.zledger");

  [[nodiscard]] ImportContext context() const { return {"dyer", resources_, "2026-03-01T00:00:00Z", {}}; }
  [[nodiscard]] ImportPreview previewOf(const std::string& name, const std::string& content,
                                        const ImportContext& context) const {
    auto previews = preview({{name, content}}, context);
    EXPECT_TRUE(previews) << previews.error().text();
    return std::move(previews->front());
  }
  [[nodiscard]] std::unique_ptr<Session> bringIn(ImportPreview p) const {
    const auto stored = Session::bringIn(book_, "dyer", {std::move(p)}, resources_, testDesk());
    EXPECT_TRUE(stored) << stored.error().text();
    auto session = Session::open(book_, "dyer", resources_, testDesk());
    EXPECT_TRUE(session) << session.error().text();
    return std::move(*session);
  }
};

/// A miller who files "long-term liabilities" and no word of a loan, in thousands of kroner.
TEST_F(Judged, InterestThatNothingBearsIsTold) {
  constexpr const char* kMiller =
      "NOK 1000;2025;2024\nDriftsinntekter;900000;800000\nVarekostnad;500000;450000\nAnnen "
      "driftskostnad;250000;230000\n"
      "Driftsresultat;150000;120000\nFinanskostnader;12000;11000\nResultat f\u00F8r "
      "skattekostnad;138000;109000\nSkattekostnad;30000;24000\n"
      "\u00C5rsresultat;108000;85000\nKundefordringer;140000;130000\nBankinnskudd;60000;50000\nVarige "
      "driftsmidler;500000;480000\n"
      "Sum eiendeler;700000;660000\nLeverand\u00F8rgjeld;90000;80000\nLangsiktig "
      "gjeld;210000;230000\nEgenkapital;400000;350000\n"
      "Sum egenkapital og gjeld;700000;660000\n";
  const auto told = [](const Session& session) {
    std::vector<std::string> texts;
    for (const Finding& f : session.now()->findings()) {
      if (f.monitor == "interest without debt") texts.push_back(f.text);
    }
    return texts;
  };
  const auto session = bringIn(previewOf("miller.csv", kMiller, context()));
  EXPECT_DOUBLE_EQ(session->now()->evaluation->figure("cash", 1, 0).value(), 60e6) << "the table names its thousands";
  EXPECT_THAT(told(*session), testing::ElementsAre(HasSubstr("Interest of 12.0 m is filed")));
  const Case& c = session->now()->caseOf();
  ASSERT_TRUE(session->apply(setLineChoice(c, session->now()->model(), "label:Langsiktig gjeld",
                                           LineChoice{"borrowings_long", 1, "a bank's loan"})));
  EXPECT_DOUBLE_EQ(session->now()->evaluation->figure("debt", 1, 0).value(), 210e6);
  EXPECT_THAT(told(*session), testing::IsEmpty());
}

TEST_F(Judged, ATablesRowGoesWhereItsTiesAskForIt) {
  ImportContext wrong = context();
  wrong.hints.remembered["label:Returned deposits"] = {"operating_expenses", 1, "a slip"};
  ImportPreview p = previewOf("dyer.csv", kDyer, wrong);
  EXPECT_EQ(p.notHolding, 2);
  EXPECT_THAT(p.failing,
              testing::ElementsAre("EBIT from its parts would fail in 2024, 2025, the last time by (0.024) m"));
  ASSERT_TRUE(p.repair);
  EXPECT_EQ(p.repair->concept_name, "label:Returned deposits");
  EXPECT_THAT(repairText(p, resources_->model), HasSubstr("would mend 2 ties"));
  ASSERT_TRUE(takeRepair(p, wrong));
  EXPECT_TRUE(p.failing.empty());
  EXPECT_FALSE(p.repair);
  EXPECT_EQ(takeRepair(p, wrong).error().kind, ErrorKind::NotFound);
  const auto session = bringIn(std::move(p));
  for (const Finding& f : session->now()->findings()) EXPECT_NE(f.stop, Stop::Filings) << f.text;
  EXPECT_TRUE(session->importContext().hints.remembered.at("label:Returned deposits").byHand) << "for the next table";
}

TEST_F(Judged, ARowSetAsideByHandStaysAsideInThisTableAndTheNext) {
  ImportPreview p = previewOf("dyer.csv", std::string(kDyer) + "Trade receivables;90;80\n", context());
  setLine(p.readings[0].reading, 6, {}, resources_->labels);
  ASSERT_TRUE(applyReadings(p, context()));
  const auto session = bringIn(std::move(p));
  EXPECT_NE(session->now()->filed->statements.at("receivables", 1).origin, Origin::Filed);
  const ImportPreview next =
      previewOf("next.csv", "SEK thousand;2026\nNet sales;900\nTrade receivables;95\n", session->importContext());
  EXPECT_TRUE(next.readings[0].reading.lines[1].choice.line.empty());
  EXPECT_EQ(choicesOf(next.readings[0].reading).count("label:Trade receivables"), 1u);
}

TEST_F(Judged, ATaggedFilingsConceptIsMendedAndTheChoiceIsKept) {
  PlainCompany yen;
  yen.currency = "JPY";
  yen.size = 1e6;
  ImportContext wrong = context();
  wrong.hints.remembered["receivables"] = {"", 1, "a slip", true};
  ImportPreview p = previewOf("yen.csv", yen.facts(), wrong);
  ASSERT_TRUE(p.repair) << p.failing.size();
  EXPECT_EQ(p.repair->concept_name, "receivables");
  while (p.repair) ASSERT_TRUE(takeRepair(p, wrong));
  EXPECT_TRUE(p.failing.empty());
  const auto session = bringIn(std::move(p));
  ASSERT_EQ(session->now()->filed->choices.count("receivables"), 1u);
  EXPECT_TRUE(session->importContext().hints.remembered.at("receivables").byHand) << "for the next filing";
  for (const Finding& f : session->now()->findings()) EXPECT_THAT(f.monitor, Not(StartsWith("tie"))) << f.text;
}

TEST_F(Judged, AnotherScaleThanTheBooksIsAskedAbout) {
  const auto session = bringIn(previewOf("first.csv", PlainCompany{.size = 1000}.facts(), context()));
  const ImportContext known = session->importContext();
  const PlainCompany later{.size = 1.1, .firstYear = 2025};
  const auto warned = Contains(HasSubstr("1,000 times less than those of the book"));
  EXPECT_THAT(previewOf("later.csv", later.facts(), known).warnings, warned);
  EXPECT_THAT(previewOf("right.csv", PlainCompany{.size = 1100, .firstYear = 2025}.facts(), known).warnings,
              Not(Contains(HasSubstr("another scale?"))));

  // A table whose scale is corrected is no longer doubted.
  const std::string table =
      "in USD;2025\nRevenue;1100\nCost of sales;660\nOperating expenses;220\nOperating profit;165\nInventories;80\n"
      "Trade receivables;110\nTotal assets;770\nTotal equity;660\n";
  ImportPreview p = previewOf("table.csv", table, known);
  EXPECT_THAT(p.warnings, Contains(HasSubstr("another scale?")));
  TableHints fixed = known.hints;
  fixed.fixedScale = 3;
  ASSERT_TRUE(guessAgain(p, 0, fixed, known));
  EXPECT_THAT(p.warnings, Not(Contains(HasSubstr("another scale?"))));

  // Two files of one import, with nothing in the book.
  const auto both = preview({{"a.csv", PlainCompany{.size = 1000}.facts()}, {"b.csv", later.facts()}}, context());
  ASSERT_TRUE(both);
  EXPECT_THAT(both->at(1).warnings, Contains(HasSubstr("times less than those of a.csv")));
}

}  // namespace
}  // namespace zl::services
