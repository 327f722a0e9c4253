// Damaged files: whatever is done to a good file, a reader answers with facts or one clear
// message, within bounded time and memory, and never falls over. Fixed seeds.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <functional>

#include "exchange/content.h"
#include "exchange/csv/tables.h"
#include "exchange/json/case_json.h"
#include "exchange/json/company_json.h"
#include "exchange/xbrl/instance.h"
#include "tests/support/files.h"

namespace zl::exchange {
namespace {

using test::demoFile;

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

struct Reader {
  const char* name;
  const char* file;
  int rounds;
  std::function<const Error*(const std::string&, Error&)> read;  ///< nullptr: read without a fault
};

template <class T>
const Error* keep(const Result<T>& result, Error& error) {
  if (result) return nullptr;
  error = result.error();
  return &error;
}

class Hostile : public testing::TestWithParam<Reader> {};

TEST_P(Hostile, DamageIsReadOrRefusedClearly) {
  const Reader& reader = GetParam();
  const std::string good = demoFile(reader.file);
  Error error;
  ASSERT_EQ(reader.read(good, error), nullptr) << error.text();
  Damage damage(2026);
  int refused = 0;
  for (int i = 0; i < reader.rounds; ++i) {
    const std::string bad = damage.on(good);
    if (reader.read(bad, error) == nullptr) continue;
    ++refused;
    EXPECT_FALSE(error.what.empty());
    EXPECT_NE(error.kind, ErrorKind::Internal) << error.text();
    EXPECT_LT(error.text().size(), 1000u) << "a message a person can read";
  }
  EXPECT_GT(refused, reader.rounds / 20) << "damage that is never noticed is no test";
}

TEST_P(Hostile, TruncationAtEveryHundredth) {
  const Reader& reader = GetParam();
  const std::string good = demoFile(reader.file);
  Error error;
  for (std::size_t percent = 0; percent < 100; ++percent) {
    const Error* fault = reader.read(good.substr(0, good.size() * percent / 100), error);
    if (fault != nullptr) {
      EXPECT_FALSE(fault->what.empty()) << percent;
    }
  }
}

TEST_P(Hostile, NonsenseIsRefused) {
  const Reader& reader = GetParam();
  Error error;
  for (const std::string& text :
       {std::string(), std::string(" "), std::string("\0\0\0", 3), std::string(100000, 'a'), std::string(100000, '<'),
        std::string(100000, '{'), std::string(100000, '"'), std::string(100000, ','), std::string("\xFF\xFE<\0", 4)}) {
    EXPECT_NE(reader.read(text, error), nullptr) << text.substr(0, 10);
  }
}

template <auto Read>
const Error* direct(const std::string& content, Error& error) {
  return keep(Read(content, "f"), error);
}

template <auto Read>
const Error* throughJson(const std::string& content, Error& error) {
  const auto json = parseJson(content, "f");
  if (!json) return keep(json, error);
  return keep(Read(*json, "f"), error);
}

INSTANTIATE_TEST_SUITE_P(Readers, Hostile,
                         testing::Values(Reader{"Xbrl", "filings/annual-2024.xbrl", 400, direct<readXbrlInstance>},
                                         Reader{"Facts", "filings/annual-2016.csv", 600, direct<readFactTable>},
                                         Reader{"Prices", "prices.csv", 60, direct<readPrices>},
                                         Reader{"Peers", "peers.csv", 600, direct<readPeers>},
                                         Reader{"Rates", "rates.csv", 600, direct<readRates>},
                                         Reader{"Case", "case.json", 600, throughJson<caseFromJson>},
                                         Reader{"Company", "company.json", 600, throughJson<companyFromJson>}),
                         [](const auto& c) { return std::string(c.param.name); });

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
                                                        {"filings/annual-2016.csv", ContentKind::FactTable},
                                                        {"prices.csv", ContentKind::PriceTable},
                                                        {"peers.csv", ContentKind::PeerTable},
                                                        {"rates.csv", ContentKind::RateTable},
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

TEST(Utf8, FindsTheFirstBadByte) {
  EXPECT_EQ(firstBadUtf8("plain"), std::string_view::npos);
  EXPECT_EQ(firstBadUtf8("\xC3\xA9\xE2\x82\xAC\xF0\x9F\x98\x80"), std::string_view::npos);
  EXPECT_EQ(firstBadUtf8("ab\xFF"), 2u);
  EXPECT_EQ(firstBadUtf8("a\xC3"), 1u);
  EXPECT_EQ(firstBadUtf8("a\xE2\x28\xA1"), 1u);
}

}  // namespace
}  // namespace zl::exchange
