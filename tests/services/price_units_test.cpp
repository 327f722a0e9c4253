// What a price table's closes are in, held against the listing. 4.20 pounds are 420 pence.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "services/intake/importer.h"
#include "tests/support/plain_company.h"

namespace zl::services {
namespace {

using test::PlainCompany;
using test::testDesk;
using testing::Contains;
using testing::HasSubstr;
using testing::Not;

class PriceUnits : public testing::Test {
 protected:
  const std::shared_ptr<const Resources> resources_ = *Resources::load();
  const test::TemporaryFolder folder_;
  const std::string book_ = folder_.file("made.zledger");
  const PlainCompany pounds_{.currency = "GBP", .size = 1e6};

  static ImportFile closes(const char* unit, double close, const char* day = "2025-04-30") {
    const std::string column = *unit == 0 ? "" : ",unit";
    const std::string cell = *unit == 0 ? "" : "," + std::string(unit);
    return {"closes.csv", "date,close" + column + "\n" + day + "," + std::to_string(close) + cell + "\n"};
  }
  /// Quoted in pence.
  [[nodiscard]] ImportFile record(std::string unit = "GBX", std::string currency = "GBP", int minor = 100) const {
    return {"record.json",
            R"({"format":"zealous-ledger-company","version":1,"id":"dyer","name":"Dyer","currency":"GBP",)"
            R"("listing":{"unit":")" +
                unit + R"(","currency":")" + currency + R"(","minor_per_major":)" + std::to_string(minor) +
                R"(,"shares_per_listed":1},"shares":10})"};
  }
  [[nodiscard]] Result<Session::ImportResult> import(std::vector<ImportFile> files, bool withFacts = true) const {
    if (withFacts) files.insert(files.begin(), ImportFile{"facts.csv", pounds_.facts()});
    return Session::import(book_, "dyer", files, resources_, testDesk());
  }
  [[nodiscard]] std::shared_ptr<const Snapshot> now() const {
    return (*Session::open(book_, "dyer", resources_, testDesk()))->now();
  }
};

TEST_F(PriceUnits, AreReadIntoTheListings) {
  for (const auto& [unit, close] : {std::pair("GBP", 4.2), {"GBX", 420.0}, {"GBp", 420.0}, {"", 420.0}}) {
    std::filesystem::remove(book_);
    const auto stored = import({record(), closes(unit, close)});
    ASSERT_TRUE(stored) << stored.error().text();
    EXPECT_NEAR(now()->market->prices.back().close, 420, 1e-9) << unit;
    const auto unsaid = Contains(HasSubstr("does not say what its closes are in: taken to be GBX"));
    if (*unit == 0) {
      EXPECT_THAT(stored->warnings, unsaid);
    } else {
      EXPECT_THAT(stored->warnings, Not(unsaid)) << unit;
    }
  }
}

TEST_F(PriceUnits, SayWhatACompanyWithoutARecordIsListedIn) {
  ASSERT_TRUE(import({closes("USD", 5.3)}));
  EXPECT_EQ(now()->company().listing, (Listing{"USD", "USD", 1, 1}));
  EXPECT_EQ(now()->company().currency, "GBP");
  std::filesystem::remove(book_);
  ASSERT_TRUE(import({closes("GBX", 420)}));
  EXPECT_EQ(now()->company().listing, (Listing{"GBX", "GBP", 100, 1}));
}

TEST_F(PriceUnits, OfAnotherCurrencyAreRefusedAndNothingIsStored) {
  const auto refused = import({record(), closes("USD", 5.3)});
  ASSERT_FALSE(refused);
  EXPECT_THAT(refused.error().text(), HasSubstr("closes are in USD, the listing is in GBX"));
  EXPECT_FALSE(std::filesystem::exists(book_));
  EXPECT_THAT(import({record(), closes("pence", 420)}).error().text(), HasSubstr("'pence' is no unit"));
  // One among the files of a folder stops none of the others.
  ImportFile inFolder = closes("USD", 5.3);
  inFolder.found = true;
  const auto stored = import({record(), inFolder});
  ASSERT_TRUE(stored) << stored.error().text();
  EXPECT_THAT(stored->warnings, Contains(HasSubstr("passed over: the closes are in USD")));
  EXPECT_TRUE(now()->market->prices.empty());
}

TEST_F(PriceUnits, ThatLookLikeAnotherAreAskedAbout) {
  ASSERT_TRUE(import({record(), closes("GBX", 420)}));
  const auto asked = Contains(HasSubstr("about 100 times less than those of the book"));
  EXPECT_THAT(import({closes("", 4.4, "2025-06-30")}, false)->warnings, asked);
  EXPECT_THAT(import({closes("", 440, "2025-07-31")}, false)->warnings, Not(asked));
  EXPECT_THAT(import({closes("", 3.9, "2031-07-31")}, false)->warnings, Not(asked)) << "years later it may have fallen";
}

TEST_F(PriceUnits, OfAListingThatHasChangedRestAndAreTold) {
  ASSERT_TRUE(import({record(), closes("GBX", 420)}));
  ASSERT_TRUE(import({record("EUR", "EUR", 1)}, false));
  EXPECT_TRUE(now()->market->prices.empty());
  std::vector<std::string> told;
  const auto shown = now();
  for (const Finding& f : shown->findings()) told.push_back(f.text);
  EXPECT_THAT(told, Contains(HasSubstr("No close of closes.csv (GBX) is used: the listing is in EUR")));
}

}  // namespace
}  // namespace zl::services
