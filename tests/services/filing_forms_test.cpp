// The forms in which people have filings: packages, folders, saved pages, facts of a company, text in old encodings;
// each from an empty book with nothing else given.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <fstream>

#include "services/sessions/session.h"
#include "services/views/decide.h"
#include "tests/services/stranger_statements.h"
#include "tests/support/archive_maker.h"
#include "tests/support/demo_book.h"
#include "tests/support/temporary_folder.h"

namespace zl::services {
namespace {

using test::archiveOf;
using test::testDesk;
using testing::HasSubstr;

class FilingForms : public testing::Test {
 protected:
  std::string write(const std::string& name, const std::string& content) {
    const std::string path = folder_.file(name);
    std::ofstream(path, std::ios::binary) << content;
    return path;
  }

  /// A book made of files alone.
  Result<std::unique_ptr<Session>> bookOf(const std::vector<std::string>& paths) {
    Result<std::vector<ImportFile>> files = readFiles(paths);
    if (!files) return tl::unexpected(files.error());
    const std::string book = folder_.file("b" + std::to_string(++books_) + ".zledger");
    const auto imported = Session::import(book, "x", *files, resources_, testDesk());
    if (!imported) return tl::unexpected(imported.error());
    warnings_ = imported->warnings;
    return Session::open(book, "x", resources_, testDesk());
  }

  double filed(const Session& session, const char* line) {
    const StandardStatements& statements = session.now()->filed->statements;
    return statements.at(line, static_cast<int>(statements.years().size()) - 1).figure.valueOr(-1);
  }

  static std::string instance() {
    std::string facts;
    for (const auto& [year, revenue] : {std::pair(2023, 900), {2024, 1000}}) {
      const std::string y = std::to_string(year);
      facts += "<xbrli:context id=\"d" + y +
               "\"><xbrli:entity><xbrli:identifier scheme=\"s\">L</xbrli:identifier></xbrli:entity>"
               "<xbrli:period><xbrli:startDate>" +
               y + "-01-01</xbrli:startDate><xbrli:endDate>" + y +
               "-12-31</xbrli:endDate></xbrli:period></xbrli:context>"
               "<ifrs-full:Revenue contextRef=\"d" +
               y + "\" unitRef=\"u\" decimals=\"0\">" + std::to_string(revenue) +
               "</ifrs-full:Revenue>"
               "<ifrs-full:ProfitLossFromOperatingActivities contextRef=\"d" +
               y + "\" unitRef=\"u\" decimals=\"0\">100</ifrs-full:ProfitLossFromOperatingActivities>";
    }
    return "<?xml version=\"1.0\"?><xbrli:xbrl xmlns:xbrli=\"http://www.xbrl.org/2003/instance\" "
           "xmlns:iso4217=\"http://www.xbrl.org/2003/iso4217\" "
           "xmlns:ifrs-full=\"http://xbrl.ifrs.org/taxonomy/2024-03-27/ifrs-full\">"
           "<xbrli:unit id=\"u\"><xbrli:measure>iso4217:EUR</xbrli:measure></xbrli:unit>" +
           facts + "</xbrli:xbrl>";
  }

  test::TemporaryFolder folder_;
  std::shared_ptr<const Resources> resources_ = *Resources::load();
  std::vector<std::string> warnings_;
  int books_ = 0;
};

TEST_F(FilingForms, AReportPackageIsItsReports) {
  const std::string package = write("annual.xbri", archiveOf({{"r/META-INF/reportPackage.json", "{}"},
                                                              {"r/META-INF/taxonomyPackage.xml", "<x/>"},
                                                              {"r/reports/report.xbrl", instance()},
                                                              {"r/t/schema.xsd", "<?xml version=\"1.0\"?><schema/>"}}));
  const auto session = bookOf({package});
  ASSERT_TRUE(session) << session.error().text();
  EXPECT_EQ(filed(**session, "revenue"), 1000);
  EXPECT_THAT(warnings_, testing::Contains(HasSubstr("schema.xsd: passed over")));
  const std::string empty = write("nothing.zip", archiveOf({{"a/readme.txt", "no report"}}));
  EXPECT_THAT(bookOf({empty}).error().text(), HasSubstr("holds no report that can be read"));
  EXPECT_THAT(bookOf({write("cut.zip", archiveOf({{"a", instance()}}).substr(0, 60))}).error().text(),
              HasSubstr("cut.zip"));
}

TEST_F(FilingForms, ASavedPageAndOldEncodingsComeInAsTheTableTheyShow) {
  const test::Stranger german = test::strangerOf(test::Shape::GermanCyclical, 5);
  const double revenue = static_cast<double>(german.economy.years.back().revenue) * german.unit;
  std::string page = "<html><body><table>";
  std::string latin;
  std::string wide = "\xFF\xFE";
  std::istringstream lines(german.csv);
  for (std::string line; std::getline(lines, line);) {
    page += "<tr>";
    std::istringstream cells(line);
    for (std::string cell; std::getline(cells, cell, ';');) page += "<td>" + cell + "</td>";
    page += "</tr>";
    for (size_t i = 0; i < line.size(); ++i) {  // two-byte letters of UTF-8 are one byte, or one unit, there
      const auto c = static_cast<unsigned char>(line[i]);
      const unsigned code = c < 0x80 ? c : ((c & 0x1Fu) << 6) | (static_cast<unsigned char>(line[++i]) & 0x3Fu);
      latin += static_cast<char>(code);
      wide += static_cast<char>(code & 0xFF);
      wide += static_cast<char>(code >> 8);
    }
    latin += '\n';
    wide += std::string("\n\0", 2);
  }
  for (const auto& [name, content] : {std::pair("page.html", page), {"latin.csv", latin}, {"wide.csv", wide}}) {
    const auto session = bookOf({write(name, content)});
    ASSERT_TRUE(session) << name << ": " << session.error().text();
    EXPECT_EQ(filed(**session, "revenue"), revenue) << name;
    EXPECT_GT(filed(**session, "inventory"), 0) << name << ": a label with an umlaut";
  }
  EXPECT_THAT(warnings_, testing::Contains(HasSubstr("read as UTF-16")));
}

TEST_F(FilingForms, FactsOfACompanyGiveNameStatementsAndCount) {
  std::string facts;
  const auto flow = [&](const char* name, int a, int b) {
    std::string amounts;
    for (const auto& [year, amount] : {std::pair(2023, a), {2024, b}}) {
      const std::string y = std::to_string(year);
      amounts += (amounts.empty() ? "" : ",") +
                 ("{\"start\":\"" + y + "-01-01\",\"end\":\"" + y + "-12-31\",\"val\":" + std::to_string(amount) +
                  "000000,\"form\":\"10-K\",\"filed\":\"2025-02-01\"}");
    }
    facts += std::string(facts.empty() ? "" : ",") + "\"" + name + "\":{\"units\":{\"USD\":[" + amounts + "]}}";
  };
  flow("Revenues", 900, 1000);
  flow("OperatingIncomeLoss", 90, 110);
  const auto session = bookOf({write(
      "facts.json",
      "{\"entityName\":\"Invented Tools Inc.\",\"facts\":{\"dei\":{\"EntityCommonStockSharesOutstanding\":{\"units\":{"
      "\"shares\":[{\"end\":\"2025-01-20\",\"val\":5000000,\"form\":\"10-K\",\"filed\":\"2025-02-01\"}]}}},"
      "\"us-gaap\":{" +
          facts + "}}}")});
  ASSERT_TRUE(session) << session.error().text();
  const Snapshot& s = *(*session)->now();
  EXPECT_EQ(s.company().name, "Invented Tools Inc.");
  EXPECT_EQ(filed(**session, "revenue"), 1e9);
  EXPECT_EQ(s.given(model::Role::SharesNow).figure, Figure::of(5e6));
  EXPECT_THAT(s.given(model::Role::SharesNow).source, HasSubstr("cover page, 2025-01-20"));
}

TEST_F(FilingForms, AStrangerIsValuedAtOnceAndEveryDecisionLeavesTheList) {
  const test::Stranger us = test::strangerOf(test::Shape::UsByFunction, 4);
  auto opened = bookOf({write(us.name, us.csv)});
  ASSERT_TRUE(opened) << opened.error().text();
  Session& session = **opened;
  const auto before = session.now();
  EXPECT_TRUE(before->caseOf().proposes);
  EXPECT_TRUE(before->evaluation->stands(model::Role::Leases, "rent", 1)) << "operating leases are rent";
  EXPECT_EQ(before->evaluation->figure("counted_leases", before->evaluation->layout().baseColumn(), 1).valueOr(-1), 0);
  const double value = before->evaluation->constant(model::Role::ValuePerShare, 1).value();
  const DecideNext open = decideNext(*before);
  ASSERT_FALSE(open.list.empty());
  EXPECT_TRUE(open.list.front().placeholder) << "placeholders that move the value come first";
  bool placeholders = true;
  double last = 1e300;
  for (const Undecided& u : open.list) {
    if (placeholders && !(u.placeholder && u.effect.valueOr(0) > 0)) last = 1e300;
    placeholders = placeholders && u.placeholder && u.effect.valueOr(0) > 0;
    EXPECT_LE(u.effect.valueOr(0), last) << before->model()[u.row].name;
    last = u.effect.valueOr(0);
  }
  // Confirming keeps the value, is stored, and takes it off the list.
  ASSERT_TRUE(session.apply(confirm(*before, open.list.front().row, session.said("as the market has it"))));
  const auto after = session.now();
  EXPECT_NEAR(after->evaluation->constant(model::Role::ValuePerShare, 1).value(), value, 1e-9 * value);
  EXPECT_EQ(decideNext(*after).list.size() + 1, open.list.size());
  const std::string name = before->model()[open.list.front().row].name;
  EXPECT_EQ(after->caseOf().base().drivers.at(name).said.reason, "as the market has it");
  ASSERT_TRUE(session.undo());
  EXPECT_EQ(session.now()->caseOf(), before->caseOf());
  EXPECT_THAT(before->findings(), testing::Contains(testing::Field(&Finding::monitor, "placeholders in use")));
}

}  // namespace
}  // namespace zl::services
