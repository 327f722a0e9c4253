#pragma once
// A company of a few lines whose statements tie, of any size, currency and growth: a stranger to the demo.

#include <cmath>
#include <string>
#include <tuple>
#include <vector>

#include "services/sessions/session.h"
#include "tests/support/demo_book.h"

namespace zl::test {

struct PlainCompany {
  std::string currency = "USD";
  double size = 1;    ///< the first year's revenue is a thousand times this
  double growth = 1;  ///< each year's figures over those before
  int firstYear = 2023;
  int years = 2;
  double price = 12;

  /// Standard lines as a fact table.
  [[nodiscard]] std::string facts() const {
    std::string csv = "concept,label,start,end,unit,decimals,value\n";
    double scale = size;
    for (int year = firstYear; year < firstYear + years; ++year, scale *= growth) {
      const std::string end = std::to_string(year) + "-12-31";
      for (const auto& [line, amount, balance] : {std::tuple("revenue", 1000, false),
                                                  {"cost_of_sales", 600, false},
                                                  {"operating_expenses", 200, false},
                                                  {"depreciation", 50, false},
                                                  {"ebit", 150, false},
                                                  {"interest_expense", 0, false},
                                                  {"pretax_profit", 150, false},
                                                  {"tax", 40, false},
                                                  {"net_income", 110, false},
                                                  {"cash", 100, true},
                                                  {"receivables", 100, true},
                                                  {"plant", 500, true},
                                                  {"total_assets", 700, true},
                                                  {"payables", 100, true},
                                                  {"total_liabilities", 100, true},
                                                  {"equity", 600, true},
                                                  {"total_equity", 600, true},
                                                  {"operating_cash_flow", 160, false},
                                                  {"plant_bought", 50, false},
                                                  {"dividends", 110, false},
                                                  {"net_cash_movement", 0, false}}) {
        csv += std::string(line) + ",," + (balance ? "" : std::to_string(year) + "-01-01") + "," + end + "," +
               currency + ",0," + std::to_string(std::llround(amount * scale)) + "\n";
      }
      csv += "shares,,," + end + ",shares,0,10\n";
    }
    return csv;
  }
  [[nodiscard]] std::string prices() const {
    return "date,close\n" + std::to_string(firstYear + years) + "-03-31," + std::to_string(price) + "\n";
  }
  /// A record that gives it a name, listed in its own currency.
  [[nodiscard]] std::string record(const std::string& id, const std::string& name) const {
    return R"({"format":"zealous-ledger-company","version":1,"id":")" + id + R"(","name":")" + name +
           R"(","currency":")" + currency + R"(","listing":{"unit":")" + currency + R"(","currency":")" + currency +
           R"(","minor_per_major":1,"shares_per_listed":1},"shares":10})";
  }
  [[nodiscard]] std::vector<services::ImportFile> files() const { return {{"f.csv", facts()}, {"p.csv", prices()}}; }
};

/// Puts the company with a record of its own into a book.
inline void addCompany(const std::string& book, const std::shared_ptr<const services::Resources>& resources,
                       const std::string& id, const std::string& name, const PlainCompany& company) {
  std::vector<services::ImportFile> files = company.files();
  files.push_back({"record.json", company.record(id, name)});
  const auto added = services::Session::import(book, id, files, resources, testDesk());
  ASSERT_TRUE(added) << added.error().text();
}

/// Stores a case that nobody can read, the way no session does it.
inline void spoilCase(const std::string& book, const std::string& company) {
  auto stored = store::Book::open(book);
  ASSERT_TRUE(stored);
  store::Edit edit;
  edit.entry = {0, company, "2026-01-01", "x", "Import bad", "[]", "[]", {}, store::JournalEntry::State::Done};
  edit.caseText = R"({"not":"a case"})";
  ASSERT_TRUE(stored->append(edit, *stored->head(company)));
}

}  // namespace zl::test
