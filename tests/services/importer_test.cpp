// Files of every kind through the importer, and the resources that ship.

#include "services/intake/importer.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <cstdlib>
#include <fstream>

#include "tests/support/demo_book.h"
#include "tests/support/files.h"
#include "tests/support/plain_company.h"

namespace zl::services {
namespace {

using exchange::ContentKind;
using test::demoFile;
using test::TemporaryFolder;

const std::shared_ptr<const Resources>& shipped() {
  static const auto resources = *Resources::load();
  return resources;
}

/// One file by itself.
Result<ImportPreview> previewOne(const ImportFile& file, const std::string& company = "vessingholt") {
  auto previews = preview({file}, {company, shipped(), "now", {}});
  if (!previews) return tl::unexpected(previews.error());
  return previews->at(0);
}

TEST(Preview, CountsWhatWouldComeIn) {
  const auto p = previewOne({"annual-2024.xbrl", demoFile("filings/annual-2024.xbrl")});
  ASSERT_TRUE(p) << p.error().text();
  EXPECT_EQ(p->kind, ContentKind::XbrlInstance);
  EXPECT_EQ(p->segments, 8);
  EXPECT_EQ(p->unmapped, 3);
  EXPECT_EQ(p->mapped + p->unmapped + p->segments, static_cast<int>(p->incoming.facts.size()));
  EXPECT_EQ(dateText(*p->incoming.document.periodEnd), "2024-12-31");
  EXPECT_EQ(p->incoming.document.importedAt, "now");
}

TEST(Preview, TablesAreCheckedBeforeTheyAreKept) {
  const std::pair<const char*, ContentKind> kTables[] = {{"prices.csv", ContentKind::PriceTable},
                                                         {"peers.csv", ContentKind::PeerTable},
                                                         {"rates.csv", ContentKind::RateTable},
                                                         {"estimates.csv", ContentKind::EstimateTable},
                                                         {"company.json", ContentKind::CompanyRecord}};
  for (const auto& [file, kind] : kTables) {
    const auto p = previewOne({file, demoFile(file)});
    ASSERT_TRUE(p) << file << p.error().text();
    EXPECT_EQ(p->kind, kind);
    EXPECT_TRUE(p->incoming.facts.empty());
    EXPECT_EQ(p->incoming.company, kind == ContentKind::RateTable ? "" : "vessingholt") << "rates are the whole book's";
  }
  EXPECT_THAT(previewOne({"company.json", demoFile("company.json")}, "other").error().what,
              testing::HasSubstr("the record is of 'vessingholt', not of 'other'"));
  EXPECT_THAT(previewOne({"case.json", demoFile("case.json")}).error().what,
              testing::HasSubstr("a case is applied, not imported"));
  EXPECT_FALSE(previewOne({"prices.csv", "date,close\n2025-01-01,zero\n"}));
}

Fact shareFact(const char* unit, const char* text) {
  Fact f;
  f.concept_name = "shares";
  f.unit = unit;
  f.text = text;
  f.period.end = makeDate(2024, 12, 31);
  return f;
}

TEST(DerivedRecord, SaysWhatTheFactsSayAndNothingMore) {
  std::vector<Fact> facts;
  EXPECT_THAT(derivedRecord("x", "", facts).error().what, testing::HasSubstr("name no currency"));
  Fact revenue = shareFact("CHF", "100");
  revenue.concept_name = "revenue";
  revenue.period.start = makeDate(2024, 1, 1);
  facts.push_back(revenue);
  const auto record = derivedRecord("x", "Invented AG", facts);
  ASSERT_TRUE(record);
  EXPECT_EQ(record->name, "Invented AG");
  EXPECT_EQ(record->currency, "CHF");
  EXPECT_EQ(record->listing, (Listing{"CHF", "CHF", 1, 1}));
  EXPECT_EQ(record->shares, 0) << "the count is the filings' own, year by year";
}

TEST(Resources, FaultsInShippedTextsAreNamed) {
  const TemporaryFolder folder;
  EXPECT_EQ(Resources::loadFrom(folder.file("")).error().kind, ErrorKind::NotFound);
  std::filesystem::create_directories(folder.file("kits/standard"));
  const auto write = [&](const char* name, const std::string& text) { std::ofstream(folder.file(name)) << text; };
  write("kits/standard/model", "model m \"M\" 1\nrow r \"R\" ratio rate\n forecast nowhere\n");
  write("kits/standard/rules", "a = b\n");
  write("kits/standard/ties", "tie t \"T\" a = b\n");
  write("kits/standard/labels", "");
  write("kits/standard/parts", "");
  write("kits/standard/tests", "");
  write("kits/standard/placeholders", "as_of 2026-01-01\n");
  EXPECT_THAT(Resources::loadFrom(folder.file("")).error().text(), testing::HasSubstr("kits/standard/model, line 3"));
  write("kits/standard/model", "model m \"M\" 1\nrow r \"R\" ratio rate\n forecast 1\n");
  EXPECT_TRUE(Resources::loadFrom(folder.file("")));
  write("kits/standard/placeholders", "currency EUR\n");
  EXPECT_THAT(Resources::loadFrom(folder.file("")).error().text(), testing::HasSubstr("kits/standard/placeholders"));
  write("kits/standard/placeholders", "as_of 2026-01-01\n");
  write("kits/standard/proposals", "nobody: level 1\n");
  EXPECT_THAT(Resources::loadFrom(folder.file("")).error().text(),
              testing::HasSubstr("kits/standard/proposals, line 1"));
  write("kits/standard/proposals", "");
  write("kits/standard/rules", "a b\n");
  EXPECT_THAT(Resources::loadFrom(folder.file("")).error().text(), testing::HasSubstr("kits/standard/rules, line 1"));
  write("kits/standard/rules", "a = b\n");
  write("kits/standard/tests", "group \"G\"\ntest t \"T\" nowhere last over 1 at least 1\n");
  EXPECT_THAT(Resources::loadFrom(folder.file("")).error().text(), testing::HasSubstr("history does not know"));
  write("kits/standard/ties", "tie\n");
  EXPECT_THAT(Resources::loadFrom(folder.file("")).error().text(), testing::HasSubstr("kits/standard/ties, line 1"));
}

TEST(Resources, AModelFileWithAFaultRestsAndKeepsNothingFromStarting) {
  const TemporaryFolder folder;
  std::filesystem::copy(test::sourceFolder() + "/kits", folder.file("kits"), std::filesystem::copy_options::recursive);
  for (const char* kit : {"kits/broken", "kits/twice", "kits/badly_built", "kits/of_texts_without_a_model"})
    std::filesystem::create_directories(folder.file(kit));
  std::ofstream(folder.file("kits/broken/model")) << "model broken \"B\" 1 extends standard\nrow x\n";
  std::ofstream(folder.file("kits/twice/model")) << "model quick \"Again\" 1 extends standard\n";
  std::ofstream(folder.file("kits/badly_built/model")) << "model built \"Built\" 1 extends standard\n";
  std::ofstream(folder.file("kits/badly_built/builds")) << "# builds\n[a part\nrow x\n";
  const auto resources = Resources::loadFrom(folder.file(""));
  ASSERT_TRUE(resources) << resources.error().text();
  std::vector<std::string> names;
  for (const ShippedModel& m : (*resources)->models) names.push_back(m.name);
  EXPECT_THAT(names, testing::ElementsAre("standard", "quick"));
  std::vector<std::string> faults;
  for (const Error& fault : (*resources)->resting) faults.push_back(fault.text());
  EXPECT_THAT(faults, testing::UnorderedElementsAre(testing::HasSubstr("kits/broken/model, line 3"),
                                                    testing::HasSubstr("kits/badly_built/builds, line 2"),
                                                    testing::HasSubstr("there is a model 'quick' already")));
  Case c = newCase("x", makeDate(2025, 1, 1));
  c.model = "broken";
  EXPECT_THAT(withOwn(*resources, c).error().text(), testing::HasSubstr("kits/broken/model, line 3"));
}

TEST(Files, AreReadWholeAndReplacedWhole) {
  const TemporaryFolder folder;
  const std::string path = folder.file("a.json");
  ASSERT_TRUE(writeFile(path, "one"));
  ASSERT_TRUE(writeFile(path, std::string("two\0three", 9)));
  EXPECT_EQ(*readFile(path), std::string("two\0three", 9));
  EXPECT_FALSE(std::filesystem::exists(path + ".part"));
  EXPECT_EQ(writeFile(folder.file("none/a.json"), "x").error().kind, ErrorKind::Storage);
  EXPECT_EQ(readFile(folder.file("")).error().kind, ErrorKind::WrongKind);
  EXPECT_EQ(readFile(folder.file("none")).error().kind, ErrorKind::NotFound);
}

TEST(DemoFiles, ComeFromTheGeneratorByteForByte) {
  const std::string generator = ZEALOUS_DEMO_GENERATOR;
  const TemporaryFolder folder;
  ASSERT_EQ(std::system(("'" + generator + "' '" + folder.file("demo") + "'").c_str()), 0);
  int compared = 0;
  for (const auto& entry : std::filesystem::recursive_directory_iterator(folder.file("demo"))) {
    if (!entry.is_regular_file()) continue;
    const std::string name = std::filesystem::relative(entry.path(), folder.file("demo")).string();
    std::ifstream in(entry.path(), std::ios::binary);
    EXPECT_TRUE((std::string(std::istreambuf_iterator<char>(in), {}) == demoFile(name)))
        << name << " differs: run the target demo-files";
    ++compared;
  }
  EXPECT_EQ(compared, 36);
}

class MarketTables : public test::DemoBook {
 protected:
  void bring(Session& session, const char* name, const std::string& content) {
    const auto done = session.importFiles({{name, content}});
    ASSERT_TRUE(done) << done.error().text();
  }
};

TEST_F(MarketTables, AShortTableHidesNothingOfALongOne) {
  auto session = open();
  const auto before = session->now();
  const double value = before->evaluation->constant("value_per_share", 1).value();
  bring(*session, "one-rate.csv", "rate,date,figure,source\nspot CHF/NOK,2026-04-01,12.1,typed\n");
  EXPECT_EQ(session->now()->evaluation->constant("value_per_share", 1).value(), value) << "no rate it stands on";
  bring(*session, "one-price.csv", "date,close\n2025-03-15,700\n");
  EXPECT_EQ(session->now()->market->prices.front().date, before->market->prices.front().date);
  EXPECT_EQ(session->now()->market->prices.size(), before->market->prices.size() + 1);
  bring(*session, "one-peer.csv",
        "peer,name,currency,price,price_currency,minor_per_major,price_date,shares,year_end,revenue,ebitda,net_income\n"
        "newcomer,Newcomer,EUR,10,EUR,1,2026-04-01,1000,2025-12-31,5000,900,400\n");
  EXPECT_EQ(session->now()->market->peers.size(), before->market->peers.size() + 1);
  ASSERT_TRUE(session->undo());
  ASSERT_TRUE(session->undo());
  EXPECT_EQ(session->now()->market->prices.size(), before->market->prices.size()) << "taken back as a whole";
}

TEST_F(MarketTables, ARateBroughtInForOneCompanyLeavesAnothersValue) {
  const std::string other = R"({"format":"zealous-ledger-company","version":1,"id":"mills","name":"Mills",)"
                            R"("currency":"USD","listing":{"unit":"USD","currency":"USD","minor_per_major":1,)"
                            R"("shares_per_listed":1},"shares":10})";
  const double value = open()->now()->evaluation->constant("value_per_share", 1).value();
  const auto added = Session::import(book(), "mills",
                                     {{"f.csv", test::PlainCompany{}.facts()},
                                      {"record.json", other},
                                      {"r.csv", "rate,date,figure,source\nspot USD/CHF,2024-12-31,0.9,typed\n"}},
                                     resources_, test::testDesk());
  ASSERT_TRUE(added) << added.error().text();
  const auto session = Session::open(book(), "vessingholt", resources_, test::testDesk());
  EXPECT_EQ((*session)->now()->evaluation->constant("value_per_share", 1).value(), value);
}

TEST_F(MarketTables, TheSameTableTakesEffectAgainAfterAnotherTookItsPlace) {
  auto session = open();
  const std::string mine = "date,close\n2026-04-29,700\n";
  bring(*session, "mine.csv", mine);
  bring(*session, "theirs.csv", "date,close\n2026-04-29,650\n");
  EXPECT_EQ(closeAt(session->now()->market->prices, makeDate(2026, 4, 29))->close, 650);
  bring(*session, "mine.csv", mine);
  EXPECT_EQ(closeAt(session->now()->market->prices, makeDate(2026, 4, 29))->close, 700);
  const auto again = session->importFiles({{"mine.csv", mine}});
  ASSERT_TRUE(again);
  EXPECT_THAT(again->warnings, testing::ElementsAre(testing::HasSubstr("already in the book")));
}

TEST(Merging, TwoCompaniesShareABookAndItsRates) {
  const TemporaryFolder folder;
  const auto resources = *Resources::load();
  const std::string book = folder.file("b.zledger");
  std::string record = demoFile("company.json");
  const std::vector<ImportFile> first{
      {"company.json", record}, {"rates.csv", demoFile("rates.csv")}, {"a.xbrl", demoFile("filings/annual-2025.xbrl")}};
  ASSERT_TRUE(Session::import(book, "vessingholt", first, resources, test::testDesk()));
  record.replace(record.find("\"vessingholt\""), 13, "\"second\"");
  const std::vector<ImportFile> second{{"company.json", record}, {"a.xbrl", demoFile("filings/annual-2025.xbrl")}};
  ASSERT_TRUE(Session::import(book, "second", second, resources, test::testDesk()));
  EXPECT_THAT(Session::open(book, "", resources, test::testDesk()).error().what,
              testing::HasSubstr("several companies: vessingholt, second"));
  const auto session = Session::open(book, "second", resources, test::testDesk());
  ASSERT_TRUE(session) << session.error().text();
  EXPECT_FALSE((*session)->now()->market->rates.empty());
  EXPECT_TRUE((*session)->now()->givens.at("price").figure.isAbsent());
  EXPECT_THAT((*session)->now()->evaluation->constant("value_per_share", 1).reason(), testing::HasSubstr("no price"));
}

}  // namespace
}  // namespace zl::services
