// Damaged files: whatever is done to a good file, a reader answers with facts or one clear
// message, within bounded time and memory, and never falls over. Fixed seeds.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <filesystem>
#include <fstream>

#include "tests/support/archive_maker.h"
#include "tests/support/files.h"
#include "tests/support/readers.h"
#include "tests/support/source_folder.h"

namespace zl::exchange {
namespace {

using test::demoFile;
using test::direct;
using test::inlinePage;
using test::keep;
using test::NamedReader;
using test::table;

class Damage {
 public:
  explicit Damage(unsigned long long seed) : state_(seed) {}

  std::size_t below(std::size_t n) {
    unsigned long long z = (state_ += 0x9E3779B97F4A7C15ull);
    z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9ull;
    z = (z ^ (z >> 27)) * 0x94D049BB133111EBull;
    return static_cast<std::size_t>((z ^ (z >> 31)) % n);
  }

  /// Flips, cuts, doubles or plants bytes.
  std::string on(std::string text) {
    static const char* const kPlants[] = {
        "<", ">", "\"", "&", "\xFF", "NaN", "1e999", "-", ",", "\n", "{", "]", "]]>", "<!--", "99999999999999999999"};
    const std::size_t wounds = 1 + below(4);
    for (std::size_t i = 0; i < wounds && !text.empty(); ++i) {
      const std::size_t at = below(text.size());
      switch (below(4)) {
        case 0:
          text[at] = static_cast<char>(below(256));
          break;
        case 1:
          text.erase(at, 1 + below(40));
          break;
        case 2:
          text.insert(at, text.substr(at, below(60)));
          break;
        default:
          text.insert(at, kPlants[below(std::size(kPlants))]);
          break;
      }
    }
    return text;
  }

 private:
  unsigned long long state_;
};

class Hostile : public testing::TestWithParam<NamedReader> {};

TEST_P(Hostile, DamageIsReadOrRefusedClearly) {
  const NamedReader& reader = GetParam();
  const std::string good = demoFile(reader.demoFile);
  Error error;
  ASSERT_EQ(reader.read(good, error), nullptr) << error.text();
  Damage damage(2026);
  const int rounds = good.size() > 20000 ? 400 : 600;
  int refused = 0;
  for (int i = 0; i < rounds; ++i) {
    const std::string bad = damage.on(good);
    if (reader.read(bad, error) == nullptr) continue;
    ++refused;
    EXPECT_FALSE(error.what.empty());
    EXPECT_NE(error.kind, ErrorKind::Internal) << error.text();
    EXPECT_LT(error.text().size(), 1000u) << "a message a person can read";
  }
  EXPECT_GT(refused, rounds / 20) << "damage that is never noticed is no test";
}

TEST_P(Hostile, TruncationAtEveryHundredth) {
  const NamedReader& reader = GetParam();
  const std::string good = demoFile(reader.demoFile);
  Error error;
  for (std::size_t percent = 0; percent < 100; ++percent) {
    const Error* fault = reader.read(good.substr(0, good.size() * percent / 100), error);
    if (fault != nullptr) {
      EXPECT_FALSE(fault->what.empty()) << percent;
    }
  }
}

TEST_P(Hostile, NonsenseIsRefused) {
  const NamedReader& reader = GetParam();
  Error error;
  for (const std::string& text :
       {std::string(), std::string(" "), std::string("\0\0\0", 3), std::string(100000, 'a'), std::string(100000, '<'),
        std::string(100000, '{'), std::string(100000, '"'), std::string(100000, ','), std::string("\xFF\xFE<\0", 4)}) {
    EXPECT_NE(reader.read(text, error), nullptr) << text.substr(0, 10);
  }
}

INSTANTIATE_TEST_SUITE_P(Readers, Hostile, testing::ValuesIn([] {
                           std::vector<NamedReader> list;
                           for (const NamedReader& r : test::readers()) {
                             // Guessing a table refuses what is no table of figures only by its layout.
                             if (*r.demoFile != 0 && std::string(r.name) != "Delimited") list.push_back(r);
                           }
                           return list;
                         }()),
                         [](const auto& c) { return std::string(c.param.name); });

/// What once was found to hurt, and what is known to: replayed through every reader.
TEST(Corpus, EveryStoredFileIsAnsweredByEveryReader) {
  int files = 0;
  for (const auto& entry : std::filesystem::recursive_directory_iterator(test::sourceFolder() + "/tests/corpus")) {
    if (!entry.is_regular_file()) continue;
    std::ifstream in(entry.path(), std::ios::binary);
    const std::string content{std::istreambuf_iterator<char>(in), {}};
    ++files;
    for (const NamedReader& reader : test::readers()) {
      Error error;
      if (reader.read(content, error) == nullptr) continue;
      EXPECT_FALSE(error.what.empty()) << reader.name << ' ' << entry.path();
      EXPECT_NE(error.kind, ErrorKind::Internal) << reader.name << ' ' << entry.path() << ' ' << error.text();
      EXPECT_LT(error.text().size(), 1000u) << reader.name << ' ' << entry.path();
    }
  }
  EXPECT_GE(files, 20) << "an empty corpus proves nothing";
}

/// Readers without a file in the demo, on files laid out here.
TEST(Hostile, DamagedPartsOfWorkbooksAndReports) {
  const std::string ods =
      "<table:table><table:table-row><table:table-cell/><table:table-cell office:value-type=\"float\" "
      "office:value=\"2024\"/>"
      "</table:table-row><table:table-row "
      "table:number-rows-repeated=\"2\"><table:table-cell><text:p>Revenue</text:p></table:table-cell>"
      "<table:table-cell office:value-type=\"float\" office:value=\"12.5\"/></table:table-row></table:table>";
  const std::string meta =
      R"({"documentInfo":{"documentType":"https://xbrl.org/2021/xbrl-csv"},"dimensions":{"period":"$y","unit":"a:EUR"},)"
      R"("tableTemplates":{"t":{"columns":{"y":{},"v":{"dimensions":{"concept":"c:A"},"decimals":0}}}},"tables":{"t":{"url":"t.csv"}}})";
  const std::string links =
      "<l:linkbase xmlns:l=\"http://www.xbrl.org/2003/linkbase\"><l:calculationLink><l:loc l:label=\"a\" "
      "l:href=\"x#p_A\"/>"
      "<l:calculationArc l:from=\"a\" l:to=\"a\"/></l:calculationLink></l:linkbase>";
  const std::string sheet =
      "<row r=\"1\"><c r=\"B1\"><v>2024</v></c></row><row r=\"2\"><c r=\"A2\" t=\"inlineStr\"><is><t>Revenue</t>"
      "</is></c><c r=\"B2\"><v>5</v></c></row>";
  Damage damage(99);
  Error error;
  int refused = 0;
  constexpr int kRounds = 500;
  for (int i = 0; i < kRounds; ++i) {
    test::XlsxParts parts;
    parts.sheetData = damage.on(sheet);
    const std::vector<NamedContent> tables{{"t.csv", "y,v\n2024,5\n"}};
    const std::string badMeta = damage.on(meta);
    const std::string badTable = damage.on("y,v\n2024,5\n2023,6\n");
    const std::vector<NamedContent> badTables{{"t.csv", badTable}};
    const Error* faults[] = {
        table<readXlsx>(parts.bytes(), error),
        table<readOds>(test::odsOf(damage.on(ods)), error),
        keep(readXbrlCsv({"m", badMeta}, tables), error),
        keep(readXbrlCsv({"m", meta}, badTables), error),
        keep(readLinkbase(damage.on(links), "l"), error),
        table<readDelimited>(damage.on("EUR m;2024;2023\nRevenue;1,5;1,2\nIncome tax;(0,2);-\n"), error)};
    for (const Error* fault : faults) {
      if (fault == nullptr) continue;
      ++refused;
      EXPECT_NE(error.kind, ErrorKind::Internal) << error.text();
      EXPECT_LT(error.text().size(), 1000u);
    }
  }
  EXPECT_GT(refused, kRounds) << "damage that is never noticed is no test";
}

TEST(Hostile, SizesAreBounded) {
  Error error;
  // A million columns, ten megabytes in one cell, deep nesting, formulas where text is meant.
  EXPECT_NE(table<readDelimited>("2024" + std::string(1000000, ';') + "\nRevenue;5\n", error), nullptr);
  EXPECT_THAT(error.text(), testing::HasSubstr("4,096 columns"));
  EXPECT_NE(table<readDelimited>("EUR;2024\n" + std::string(10u << 20, 'x') + ";5\n", error), nullptr);
  EXPECT_THAT(error.text(), testing::HasSubstr("65,536 is the limit"));
  std::string deep = "<html xmlns=\"http://www.w3.org/1999/xhtml\">";
  for (int i = 0; i < 200000; ++i) deep += "<p>";
  for (int i = 0; i < 200000; ++i) deep += "</p>";
  EXPECT_EQ(inlinePage(deep + "</html>", error), nullptr) << "depth alone is no fault, and no crash";
  std::string json(100000, '[');
  EXPECT_NE(direct<readXbrlJson>(json, error), nullptr);
  const auto sheet = readDelimited("EUR m\t2024\n=cmd()\t5\nRevenue\t=1+1\n", "f");
  ASSERT_TRUE(sheet);
  EXPECT_EQ(sheet->sheets[0].rows[1].cells[0].text, "=cmd()") << "a formula is text and is never run";
}

TEST(Recognise, NeverFallsOverOnDamage) {
  Damage damage(7);
  const std::string files[] = {demoFile("filings/annual-2024.xbrl"), demoFile("peers.csv"), demoFile("case.json")};
  for (int i = 0; i < 300; ++i) {
    const auto kind = recognise(damage.on(files[i % 3]).substr(0, 3000), "f");
    if (!kind) {
      EXPECT_FALSE(kind.error().todo.empty()) << "a refusal says what to do";
    }
  }
}

TEST(Recognise, TellsEveryKindOfDemoFile) {
  const std::pair<const char*, ContentKind> kFiles[] = {{"filings/annual-2024.xbrl", ContentKind::XbrlInstance},
                                                        {"filings/interim-2024-q1.xhtml", ContentKind::InlineXbrl},
                                                        {"filings/interim-2023-q1.json", ContentKind::XbrlJson},
                                                        {"filings/interim-2025.xlsx", ContentKind::Workbook},
                                                        {"filings/annual-2016.csv", ContentKind::FactTable},
                                                        {"prices.csv", ContentKind::PriceTable},
                                                        {"peers.csv", ContentKind::PeerTable},
                                                        {"rates.csv", ContentKind::RateTable},
                                                        {"estimates.csv", ContentKind::EstimateTable},
                                                        {"company.json", ContentKind::CompanyRecord},
                                                        {"case.json", ContentKind::CaseText}};
  for (const auto& [file, kind] : kFiles) {
    const auto found = recognise(demoFile(file), file);
    ASSERT_TRUE(found) << file;
    EXPECT_EQ(*found, kind) << file;
  }
}

TEST(Digest, TellsContentsApart) {
  EXPECT_EQ(digestOf("abc"), digestOf("abc"));
  EXPECT_NE(digestOf("abc"), digestOf("abd"));
  EXPECT_NE(digestOf(""), digestOf(std::string(1, '\0')));
  // FNV-1a of "a", from the algorithm's published test vectors: 0xaf63dc4c8601ec8c.
  EXPECT_EQ(digestOf("a"), std::to_string(0xaf63dc4c8601ec8cull) + "-1");
}

}  // namespace
}  // namespace zl::exchange
