#pragma once
// A desk with a fixed clock, and the demo book built once per program.

#include <gtest/gtest.h>

#include <filesystem>

#include "services/sessions/demo.h"
#include "tests/support/temporary_folder.h"

namespace zl::test {

inline services::Desk testDesk() {
  return {"tester", [] { return std::string("2026-05-01T12:00:00Z"); }, [] { return makeDate(2026, 5, 1); },
          store::Book::kPatience};
}

/// A fresh copy of the demo book for each test.
class DemoBook : public testing::Test {
 protected:
  void SetUp() override {
    static const TemporaryFolder shared;
    static const std::string original = [] {
      const auto resources = services::Resources::load();
      EXPECT_TRUE(resources);
      const Status made = services::makeDemoBook(shared.file("demo.zledger"), *resources, testDesk());
      EXPECT_TRUE(made) << (made ? "" : made.error().text());
      return shared.file("demo.zledger");
    }();
    resources_ = *services::Resources::load();
    std::filesystem::copy_file(original, book());
  }
  [[nodiscard]] std::string book() const { return folder_.file("book.zledger"); }
  [[nodiscard]] std::unique_ptr<services::Session> open() const {
    auto session = services::Session::open(book(), "", resources_, testDesk());
    EXPECT_TRUE(session) << (session ? "" : session.error().text());
    return std::move(*session);
  }

  TemporaryFolder folder_;
  std::shared_ptr<const services::Resources> resources_;
};

}  // namespace zl::test
