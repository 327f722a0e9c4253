// Several companies in one book: the list at the head of the route, keys, what is remembered, and work on
// two of them in turn.

#include <gmock/gmock.h>

#include <QComboBox>
#include <QTreeWidget>
#include <fstream>

#include "app/frame/unshown_panel.h"
#include "tests/support/plain_company.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

using testing::HasSubstr;

class Companies : public WindowFixture {
 protected:
  void SetUp() override {
    DemoBook::SetUp();
    const test::PlainCompany mills;
    test::addCompany(book(), resources_, "umber-mills", "Umber Mills Inc.", mills);
    test::addCompany(book(), resources_, "kagerou", "Kagerou Kaiun KK", {"JPY", 4e9, 1.1, 2020, 5, 88e9});
    start();
    ASSERT_TRUE(window_->openBook(path())) << status().toStdString();
  }
  std::string shown() { return find<QLabel>("companyName")->text().toStdString(); }
};

TEST_F(Companies, AListWithKeysGoesFromOneToAnother) {
  EXPECT_EQ(shown(), "Vessingholt N.V.") << "the one that the book opens with, not the first by name";
  EXPECT_EQ(find<QPushButton>("companySwitch")->text(), QStringLiteral("4 of 4 companies…"));
  go(Qt::Key_4);
  press(window_.get(), Qt::Key_PageUp, Qt::AltModifier);
  EXPECT_EQ(shown(), "Umber Mills Inc.");
  EXPECT_TRUE(find<QWidget>("OutlookPage")->isVisible()) << "the page stays";
  EXPECT_THAT(window_->windowTitle().toStdString(), HasSubstr("Umber Mills Inc."));
  press(window_.get(), Qt::Key_PageDown, Qt::AltModifier);
  press(window_.get(), Qt::Key_PageDown, Qt::AltModifier);
  EXPECT_EQ(shown(), "Kagerou Kaiun KK") << "around the end";
  press(window_.get(), Qt::Key_0, Qt::AltModifier);
  auto* words = window_->findChild<QLineEdit*>(QStringLiteral("companyWords"));
  ASSERT_TRUE(words->isVisible());
  QTest::keyClicks(words, QStringLiteral("MILL"));
  QTest::keyClick(words, Qt::Key_Return);
  EXPECT_FALSE(words->isVisible());
  EXPECT_EQ(shown(), "Umber Mills Inc.");
  press(window_.get(), Qt::Key_0, Qt::AltModifier);
  auto* names = window_->findChild<QTreeWidget*>(QStringLiteral("companyNames"));
  ASSERT_TRUE(QTest::qWaitFor([&] { return !names->topLevelItem(3)->text(1).isEmpty(); }, kLongest))
      << "valued beside the work";
  EXPECT_THAT(names->topLevelItem(3)->text(2).toStdString(), HasSubstr(" GBX"));
  QTest::keyClick(words, Qt::Key_Down);
  QTest::keyClick(words, Qt::Key_Escape);
  EXPECT_EQ(shown(), "Umber Mills Inc.") << "Escape goes nowhere";
}

TEST_F(Companies, PricesArriveWhileTwoAreWorkedOnInTurn) {
  const auto fetch = [&](const char* company, double price, const char* fetched) {
    auto other = services::Session::open(book(), company, resources_, test::testDesk());
    ASSERT_TRUE(other);
    const Date day = (*other)->now()->caseOf().valuationDate;
    ASSERT_TRUE((*other)->observe({{0, {}, "price", day, price, {}, "the desk", fetched}}));
  };
  const auto price = [&] { return bench().now().given(model::Role::Price).figure.value(); };
  ASSERT_TRUE(bench().openCompany(QStringLiteral("umber-mills")));
  bench().apply(services::setHorizon(bench().settled().caseOf(), 8));
  go(Qt::Key_6);
  auto* walk = find<LedgerView>("walk");
  place(walk, QStringLiteral("price"), 1);
  const QModelIndex at = walk->currentIndex();
  const auto filed = bench().now().filed;
  fetch("umber-mills", 13, "2026-05-02T08:00:00Z");
  fetch("kagerou", 91e9, "2026-05-02T08:00:00Z");
  bench().lookForOthers();
  EXPECT_EQ(price(), 13);
  EXPECT_THAT(status().toStdString(), HasSubstr("Figures of the market have come in; the price is 13"));
  EXPECT_EQ(bench().now().filed, filed) << "no filing was read again";
  EXPECT_EQ(walk->currentIndex(), at) << "nobody is moved from where he works";
  EXPECT_EQ(at.data().toString(), QStringLiteral("13.00"));
  ASSERT_TRUE(bench().openCompany(QStringLiteral("kagerou")));
  EXPECT_EQ(price(), 91e9) << "it came in while the other one was open";
  auto* stands = find<QComboBox>("priceStands");
  EXPECT_EQ(stands->currentIndex(), 0);
  stands->setFocus();
  QTest::keyClick(stands, Qt::Key_End);  // pinned as it is
  fetch("kagerou", 92e9, "2026-05-03T08:00:00Z");
  bench().lookForOthers();
  EXPECT_EQ(price(), 91e9) << "pinned";
  press(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(price(), 92e9) << "the pin is taken back, the fetched price stays";
  EXPECT_EQ(stands->currentIndex(), 0);
}

TEST_F(Companies, TheFindBoxReachesThem) {
  auto* box = find<QLineEdit>("find");
  box->setFocus();
  box->setText(QStringLiteral("Company: Vessingholt N.V."));
  press(box, Qt::Key_Return);
  EXPECT_EQ(shown(), "Vessingholt N.V.");
}

TEST_F(Companies, EachIsWorkedOnByItselfAndTheLastOneIsRemembered) {
  ASSERT_TRUE(bench().openCompany(QStringLiteral("kagerou")));
  ASSERT_TRUE(bench().apply(services::setHorizon(bench().settled().caseOf(), 6)));
  ASSERT_TRUE(bench().openCompany(QStringLiteral("vessingholt")));
  EXPECT_EQ(bench().settled().caseOf().horizon, 10);
  ASSERT_TRUE(bench().apply(services::setHorizon(bench().settled().caseOf(), 7)));
  bench().undo();
  ASSERT_TRUE(bench().openCompany(QStringLiteral("kagerou")));
  EXPECT_EQ(bench().settled().caseOf().horizon, 6) << "another company's undo is not this one's";
  ASSERT_TRUE(bench().openCompany(QStringLiteral("umber-mills")));
  window_.reset();
  start();
  ASSERT_TRUE(window_->openBook(path()));
  EXPECT_EQ(shown(), "Umber Mills Inc.");
}

TEST_F(Companies, AFurtherOneComesIntoTheOpenBook) {
  const std::string facts = folder_.file("g.csv");
  std::ofstream(facts) << test::PlainCompany{"CHF", 250, 0.97, 2019, 6, 40}.facts();
  chosenFiles_ = {text(facts)};
  window_->findChild<QAction*>(QStringLiteral("anotherCompanyAction"))->trigger();
  waitForReading();
  QTest::mouseClick(find<QPushButton>("first.acceptImport"), Qt::LeftButton);
  EXPECT_EQ(bench().companyId(), "fresh") << status().toStdString();
  EXPECT_EQ(find<QPushButton>("companySwitch")->text(), QStringLiteral("1 of 5 companies…"));
  EXPECT_EQ(bench().path().toStdString(), std::filesystem::absolute(book()).string());
  // Another one of that name is another company.
  window_->findChild<QAction*>(QStringLiteral("anotherCompanyAction"))->trigger();
  waitForReading();
  QTest::mouseClick(find<QPushButton>("first.acceptImport"), Qt::LeftButton);
  EXPECT_EQ(bench().companyId(), "fresh-2") << status().toStdString();
}

TEST_F(Companies, OneThatCannotBeShownLeavesTheOthers) {
  test::spoilCase(book(), "umber-mills");
  EXPECT_FALSE(bench().openCompany(QStringLiteral("umber-mills")));
  EXPECT_TRUE(find<UnshownPanel>("unshownPanel")->isVisible());
  QTest::mouseClick(find<QPushButton>("anotherCompany"), Qt::LeftButton);
  EXPECT_EQ(shown(), "Vessingholt N.V.");
  EXPECT_FALSE(find<UnshownPanel>("unshownPanel")->isVisible());
}

TEST_F(Companies, TheBookOpensWithTheOneThatWasMadeItsFirst) {
  ASSERT_TRUE(bench().openCompany(QStringLiteral("kagerou")));
  find<QAction>("makeHome")->trigger();
  EXPECT_THAT(status().toStdString(), HasSubstr("The book opens with Kagerou Kaiun KK"));
  const auto session = services::Session::open(book(), "", resources_, test::testDesk());
  ASSERT_TRUE(session);
  EXPECT_EQ((*session)->companyId(), "kagerou");
  bench().undo();
  EXPECT_EQ((*services::Session::open(book(), "", resources_, test::testDesk()))->companyId(), "vessingholt");
}

TEST_F(WindowFixture, ABookOfOneCompanyShowsItsNameAlone) {
  const std::string one = folder_.file("one.zledger");
  test::addCompany(one, resources_, "umber-mills", "Umber Mills Inc.", {});
  ASSERT_TRUE(window_->openBook(text(one)));
  EXPECT_FALSE(find<QPushButton>("companySwitch")->isVisible());
  press(window_.get(), Qt::Key_0, Qt::AltModifier);
  EXPECT_FALSE(window_->findChild<QLineEdit*>(QStringLiteral("companyWords"))->isVisible());
}

}  // namespace
}  // namespace zl::app
