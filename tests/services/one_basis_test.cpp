// One basis: what a switch is said to do is what it does, and peers move with the subject.

#include "services/views/one_basis.h"
#include "services/reports/report.h"

#include <gmock/gmock.h>

#include "services/views/history_figures.h"
#include "tests/support/demo_book.h"

namespace zl::services {
namespace {

using test::DemoBook;
using testing::HasSubstr;

class OneBasis : public DemoBook {
 protected:
  void SetUp() override {
    DemoBook::SetUp();
    session_ = open();
  }
  [[nodiscard]] const Snapshot& now() const { return *session_->now(); }
  [[nodiscard]] static const BasisMeasure& measure(const BasisView& view, const std::string& row) {
    return *std::find_if(view.measures.begin(), view.measures.end(),
                         [&](const BasisMeasure& m) { return m.row == row; });
  }
  std::unique_ptr<Session> session_;
};

TEST_F(OneBasis, EachSwitchDoesWhatTheTableSaysItWould) {
  const BasisView before = basisView(now(), 1);
  for (size_t i = 0; i < before.switches.size(); ++i) {
    const BasisSwitch& choice = before.switches[i];
    SCOPED_TRACE(choice.input);
    ASSERT_TRUE(session_->apply(setInput(now().caseOf(), now().evaluation->model(), kBase, choice.input, choice.other,
                                         session_->said("to see"))));
    const BasisView after = basisView(now(), 1);
    for (size_t m = 0; m < before.measures.size(); ++m) {
      EXPECT_EQ(after.measures[m].now, before.measures[m].other[i]) << before.measures[m].label;
      EXPECT_EQ(after.measures[m].other[i], before.measures[m].now) << "and back";
    }
    EXPECT_TRUE(std::any_of(now().findings().begin(), now().findings().end(),
                            [](const Finding& f) { return f.monitor == "another basis in use"; }));
    ASSERT_TRUE(session_->undo());
  }
}

TEST_F(OneBasis, MovesWhatItMustAndNothingElse) {
  const BasisView view = basisView(now(), 1);
  const auto change = [&](const char* row, size_t which) {
    const BasisMeasure& m = measure(view, row);
    return m.other[which].value() - m.now.value();
  };
  const double stockPay = now().asFiled->at(now().evaluation->model().find("stock_pay"), 11).value();
  EXPECT_DOUBLE_EQ(change("basis_ebitda", 1), stockPay);
  EXPECT_DOUBLE_EQ(change("simple_fcf", 1), stockPay);
  EXPECT_GT(change("value_per_share", 1), 0);
  EXPECT_LT(change("basis_ebitda", 0), 0) << "rent is a cost";
  EXPECT_LT(change("net_debt_dated", 0), 0) << "and its liability no claim";
  EXPECT_NEAR(change("fcff", 2), 0, 1e-6) << "capital or cost, research is paid once";
  EXPECT_GT(change("invested_capital", 2), 0);
  EXPECT_DOUBLE_EQ(change("net_debt", 2), 0);
  EXPECT_THAT(basisText(now(), 1),
              HasSubstr("measure,row,at,now,Leases: rent,Stock pay: added back,Research: over 5 years"));
  EXPECT_EQ(basisJson(now(), 1).size(), view.measures.size());
}

TEST_F(OneBasis, PeersStandBesideTheQualityTests) {
  const auto& tests = now().resources->tests;
  const auto named = [&](const char* name) {
    return *std::find_if(tests.begin(), tests.end(), [&](const QualityTest& t) { return t.name == name; });
  };
  const PeerSpread leverage = peersBeside(now(), named("leverage"));
  EXPECT_EQ(leverage.count, static_cast<int>(now().market->peers.size()));
  EXPECT_LE(leverage.low.value(), leverage.median.value());
  EXPECT_LE(leverage.median.value(), leverage.high.value());
  EXPECT_EQ(peersBeside(now(), named("revenue_growth")).count, 0) << "one year says nothing of ten";
  EXPECT_EQ(peersBeside(now(), named("inventories")).count, 0) << "no table tells it";
  ASSERT_TRUE(session_->apply(setInput(now().caseOf(), now().evaluation->model(), kBase, "leases_as_debt", 0, {})));
  EXPECT_LT(peersBeside(now(), named("leverage")).median.value(), leverage.median.value());
}

TEST_F(OneBasis, FactsInPenceSayWhatTheyWereFiledAs) {
  const std::string table =
      "concept,label,start,end,unit,decimals,value\n"
      "ifrs-full:AdministrativeExpense,,2018-01-01,2018-12-31,GBX,0,123456\n";
  ASSERT_TRUE(session_->importFiles({{"pence.csv", table}}));
  const auto& inMinor = now().evidence->inMinor;
  ASSERT_EQ(inMinor.size(), 1u);
  const size_t fact = inMinor.begin()->first;
  EXPECT_EQ(now().evidence->facts[fact].unit, "GBP");
  EXPECT_EQ(now().evidence->facts[fact].text, "1234.56");
  EXPECT_EQ(now().evidence->asWritten(fact).text, "123456");
  EXPECT_THAT(findingsText(now()), HasSubstr("1 facts are filed in a minor unit (GBX)"));
  EXPECT_THAT(factsText(now()), HasSubstr("2018-12-31,GBX,123456,"));
}

}  // namespace
}  // namespace zl::services
