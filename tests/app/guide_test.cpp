// docs/guide.md, walked: what it says is done here by the same keys and fields, on a stranger.

#include <gmock/gmock.h>

#include <QClipboard>
#include <QFile>
#include <fstream>
#include <sstream>

#include "app/frame/unnamed_books.h"
#include "tests/support/source_folder.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

using testing::HasSubstr;

class Guide : public WindowFixture {
 protected:
  void SetUp() override {
    DemoBook::SetUp();
    start();
  }
  void type(const char* field, const QString& words) {
    auto* line = find<QLineEdit>(field);
    ASSERT_TRUE(line->isVisible()) << field;
    line->setFocus();
    QTest::keyClicks(line, words);
    press(line, Qt::Key_Return);
  }
};

TEST_F(Guide, LeadsFromNothingToAVerdict) {
  // 1. Begin: a name, copied cells, Enter; Enter on what is offered.
  std::ifstream file(test::sourceFolder() + "/tests/corpus/filers/kaminari.csv");
  std::ostringstream cells;
  cells << file.rdbuf();
  QGuiApplication::clipboard()->setText(text(cells.str()));
  type("startName", QStringLiteral("Kaminari Seimitsu"));
  waitForReading();
  auto* accept = find<QPushButton>("first.acceptImport");
  accept->setFocus();
  press(accept, Qt::Key_Space);
  ASSERT_TRUE(bench().isOpen()) << status().toStdString();
  const QString begun = bench().path();

  // 2. What is missing is the price.
  EXPECT_THAT(find<QLabel>("needWords")->text().toStdString(), HasSubstr("the price in JPY"));
  type("needField", QStringLiteral("4120"));
  EXPECT_FALSE(find<QWidget>("needsStrip")->isVisible());
  EXPECT_THAT(railSays().toStdString(), testing::AllOf(HasSubstr("Base"), HasSubstr("price 4,120.0")));

  // 3. The record and the market, by Ctrl+Tab.
  go(Qt::Key_1);
  press(window_.get(), Qt::Key_Tab, Qt::ControlModifier);
  auto* fields = find<LedgerView>("recordFields");
  place(fields, QStringLiteral("country"), 0);
  typeOver(fields, QStringLiteral("JP"));
  EXPECT_EQ(bench().now().company().country, "JP");
  press(window_.get(), Qt::Key_Tab, Qt::ControlModifier);
  QGuiApplication::clipboard()->setText(QStringLiteral(
      "Company\tMarket cap\tNet debt\tSales\tEBITDA\tNet profit\nOgawara Seiki\t310bn\t20bn\t295bn\t41bn\t21bn\n"
      "Tsubaki Kohan\t120bn\t0\t160bn\t19bn\t8bn\nHidaka Optics\t95bn\t(12bn)\t70bn\t15bn\t7bn\n"));
  QTest::mouseClick(find<QPushButton>("pasteMarket"), Qt::LeftButton);
  ASSERT_EQ(bench().now().market->peers.size(), 3u) << status().toStdString();

  // 4. Every tie holds, and Filings says so.
  go(Qt::Key_2);
  EXPECT_THAT(find<QLabel>("tiesTitle")->text().toStdString(), HasSubstr("all hold"));

  // 5. Decide next.
  press(window_.get(), Qt::Key_D, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_TRUE(find<QWidget>("OutlookPage")->isVisible());

  // 6. and 7. Rate, value, peers, verdict, and the state under a name.
  go(Qt::Key_5);
  press(window_.get(), Qt::Key_Tab, Qt::ControlModifier);
  auto* rivals = find<LedgerView>("rivals");
  ASSERT_TRUE(rivals->isVisible());
  const auto& lines = rivals->ledger().ledgerRows();
  const auto other = std::find_if(lines.begin(), lines.end(), [](const LedgerRow& r) {
    return r.label.startsWith(QLatin1String("interest over average debt")) && r.cells.at(0).figure.hasValue();
  });
  ASSERT_NE(other, lines.end());
  const std::string adopted = other->label.toStdString();
  rivals->setFocus();
  rivals->setCurrentIndex(rivals->ledger().index(static_cast<int>(other - lines.begin()), 1));
  press(rivals, Qt::Key_Return);
  const Case& c = bench().now().caseOf();
  EXPECT_THAT(c.driver(c.base(), "cost_of_debt")->said.reason, HasSubstr(adopted));
  for (const Qt::Key page : {Qt::Key_6, Qt::Key_7}) go(page);
  go(Qt::Key_9);
  EXPECT_THAT(find<QLabel>("verdictSentence")->text().toStdString(), HasSubstr("4,120.0"));
  EXPECT_TRUE(bench().now().crossCheck.statistics.at(Multiple::EvToEbitda).median.hasValue());
  chosenBook_ = text(folder_.file("kaminari.zledger"));
  press(window_.get(), Qt::Key_S, Qt::ControlModifier);
  EXPECT_EQ(bench().path(), chosenBook_);
  EXPECT_FALSE(QFile::exists(begun));
}

TEST_F(Guide, NamesPicturesThatAreThere) {
  std::ifstream file(test::sourceFolder() + "/docs/guide.md");
  int pictures = 0;
  for (std::string line; std::getline(file, line);) {
    const size_t at = line.find("](screenshots/");
    if (at == std::string::npos) continue;
    const std::string name = line.substr(at + 2, line.find(')', at) - at - 2);
    EXPECT_TRUE(QFile::exists(text(test::sourceFolder() + "/docs/" + name))) << name;
    ++pictures;
  }
  EXPECT_GE(pictures, 6);
}

}  // namespace
}  // namespace zl::app
