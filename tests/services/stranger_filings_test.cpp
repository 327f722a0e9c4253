// Companies nobody here has seen, as they hand their statements in: packages with linkbases and concepts of their own,
// facts of a company, a workbook from a page. From an empty book with nothing but the files: every line as the
// economics have it (tests/services/stranger_filings.h), every tie, and the value that their table gives.

#include "tests/services/stranger_filings.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <cmath>
#include <fstream>

#include "services/sessions/session.h"
#include "tests/support/temporary_folder.h"

namespace zl::services {
namespace {

using test::Filed;
using testing::HasSubstr;

Desk deskOn(const Date& day) {
  return {"tester", [] { return std::string("2026-05-01T12:00:00Z"); }, [day] { return day; }, store::Book::kPatience};
}

class StrangerFilings : public testing::TestWithParam<Filed> {
 protected:
  std::unique_ptr<Session> bookOf(const std::vector<std::pair<std::string, std::string>>& files, const Date& today) {
    std::vector<std::string> paths;
    for (const auto& [name, content] : files) {
      paths.push_back(folder_.file(name));
      std::ofstream(paths.back(), std::ios::binary) << content;
    }
    const Result<std::vector<ImportFile>> brought = readFiles(paths);
    EXPECT_TRUE(brought) << (brought ? "" : brought.error().text());
    if (!brought) return nullptr;
    const std::string book = folder_.file("b" + std::to_string(++books_) + ".zledger");
    const auto imported = Session::import(book, "x", *brought, resources(), deskOn(today));
    EXPECT_TRUE(imported) << (imported ? "" : imported.error().text());
    if (!imported) return nullptr;
    warnings_ = imported->warnings;
    auto session = Session::open(book, "x", resources(), deskOn(today));
    EXPECT_TRUE(session) << (session ? "" : session.error().text());
    return session ? std::move(*session) : nullptr;
  }
  static const std::shared_ptr<const Resources>& resources() {
    static const std::shared_ptr<const Resources> shipped = *Resources::load();
    return shipped;
  }

  test::TemporaryFolder folder_;
  std::vector<std::string> warnings_;
  int books_ = 0;
};

TEST_P(StrangerFilings, ComeInRightFromAnEmptyBook) {
  for (const std::uint64_t seed : {1, 2, 3}) {
    const test::StrangerFilings f = test::filingsOf(GetParam(), seed);
    SCOPED_TRACE(f.stranger.name + ", seed " + std::to_string(seed));
    // The small filer is valued two months after a year end that it has not filed yet.
    const Date today = makeDate(f.stranger.lastYear + (GetParam() == Filed::SmallFiler ? 2 : 1), 2, 28);
    const auto session = bookOf(f.files, today);
    ASSERT_TRUE(session);
    ASSERT_TRUE(session->now()) << session->fault()->text();
    const Snapshot& s = *session->now();
    if (!f.name.empty()) {
      EXPECT_EQ(s.company().name, f.name);
    }
    EXPECT_EQ(s.company().currency, f.stranger.currency);
    const StandardStatements& statements = s.filed->statements;
    ASSERT_EQ(statements.years().size(), f.stranger.economy.years.size());
    std::map<std::string, std::string> wrong;
    for (const auto& [line, years] : f.stranger.lines) {
      for (size_t column = 0; column < statements.years().size(); ++column) {
        const int year = statements.years()[column].label();
        ASSERT_TRUE(years.count(year)) << year;
        const double unit = line == "shares" ? f.stranger.shareUnit : f.stranger.unit;
        // What functions hold of depreciation is taken out in proportion: to the unit.
        const double allowed = line == "cost_of_sales" || line == "operating_expenses" ? 1.0 : 1e-9;
        const Figure& figure = statements.at(line, static_cast<int>(column)).figure;
        const auto expected = static_cast<double>(years.at(year));
        if (figure.hasValue() && std::abs(figure.value() / unit - expected) <= allowed) continue;
        if (!figure.hasValue() && years.at(year) == 0) continue;
        wrong[line] += std::to_string(year) + ": " +
                       (figure.hasValue() ? std::to_string(figure.value() / unit) : figure.reason()) + " for " +
                       std::to_string(years.at(year)) + "; ";
      }
    }
    EXPECT_THAT(wrong, testing::IsEmpty());
    for (const TieResult& r : s.review->ties) {
      EXPECT_NE(r.state, TieResult::State::Fails)
          << resources()->ties[r.tie].label << " " << r.column << " off by " << r.gap;
    }
    for (const UnmappedConcept& u : statements.unmapped()) {
      EXPECT_NE(u.reason, "") << u.concept_name << " stands on no line";
    }
    if (f.count > 0) {
      EXPECT_EQ(s.given(model::Role::SharesNow).figure.valueOr(-1), f.count);
    }

    const auto value = [](const Snapshot& of) {
      return of.evaluation->constant(model::Role::EnterpriseValue, of.caseOf().indexOf(kBase)).valueOr(-1);
    };
    const auto asTable = bookOf({{f.stranger.name, f.stranger.csv}}, today);
    ASSERT_TRUE(asTable && asTable->now());
    const double scale = GetParam() == Filed::SmallFiler ? 1e-6 : 1;
    EXPECT_NEAR(value(s) / (value(*asTable->now()) * scale), 1, 0.01);
  }
}

class Corrections : public StrangerFilings {};

TEST_P(Corrections, StandWhateverTheyHoldAndWhereverTheyAreInTheList) {
  test::StrangerFilings f = test::filingsOf(GetParam(), 1);
  const std::string end = "2024-09-" + std::to_string(test::lastSaturdayOfSeptember(2024));
  // One balance of the last year end and nothing else: no flow tells the year that it is about.
  f.files.emplace_back(
      "correction.xbrl",
      "<?xml version=\"1.0\"?><xbrli:xbrl xmlns:xbrli=\"http://www.xbrl.org/2003/instance\" "
      "xmlns:iso4217=\"http://www.xbrl.org/2003/iso4217\" xmlns:us-gaap=\"http://fasb.org/us-gaap/2024\">"
      "<xbrli:context id=\"c\"><xbrli:entity><xbrli:identifier scheme=\"s\">fernlake</xbrli:identifier></xbrli:entity>"
      "<xbrli:period><xbrli:instant>" +
          end +
          "</xbrli:instant></xbrli:period></xbrli:context><xbrli:unit id=\"u\"><xbrli:measure>iso4217:USD"
          "</xbrli:measure></xbrli:unit><us-gaap:InventoryNet contextRef=\"c\" unitRef=\"u\" decimals=\"0\">77"
          "</us-gaap:InventoryNet></xbrli:xbrl>");
  const auto session = bookOf(f.files, makeDate(2025, 2, 28));
  ASSERT_TRUE(session && session->now());
  const StandardStatements& statements = session->now()->filed->statements;
  EXPECT_EQ(statements.at("inventory", static_cast<int>(statements.years().size()) - 1).figure.valueOr(-1), 77);
}

INSTANTIATE_TEST_SUITE_P(Forms, Corrections, testing::Values(Filed::UsPackages));
INSTANTIATE_TEST_SUITE_P(Forms, StrangerFilings, testing::ValuesIn(test::kFiled));

}  // namespace
}  // namespace zl::services
