// What a user prefers, hints of the demo, and empty parts that offer what belongs there.

#include <gmock/gmock.h>

#include <QDialog>
#include <QSettings>

#include "app/frame/glossary.h"
#include "app/frame/preferences.h"
#include "app/look/amounts.h"
#include "core/quantity/number_text.h"
#include "services/sessions/session.h"
#include "tests/support/source_folder.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

using testing::HasSubstr;

class Preferring : public WindowFixture {
 protected:
  void TearDown() override {
    window_.reset();
    for (const char* key : {"author", "numberMarks", "parentheses", "theme", "textPercent", "amountPower",
                            "booksFolder", "filesFolder", "noHints"})
      QSettings().remove(QString::fromLatin1(key));
    setNumberStyle({});
    applyTheme(*qApp, ThemeChoice::Light);
  }
  QDialog* openPreferences() {
    find<QAction>("preferencesAction")->trigger();
    return find<QDialog>("preferences");
  }
  void choose(const char* box, int value) {
    auto* list = find<QComboBox>(box);
    list->setCurrentIndex(list->findData(value));
    Q_EMIT list->activated(list->currentIndex());
  }
};

TEST_F(Preferring, FiguresAreWrittenAndReadInTheStyleChosen) {
  openPreferences();
  choose("numberMarks", 2);
  choose("negatives", 0);
  EXPECT_EQ(groupedNumber(-1234567.891, 1), "\u22121\u202F234\u202F567,9");
  EXPECT_EQ(typedNumber("1,250"), 1.25) << "the comma is the decimal mark";
  EXPECT_EQ(typedNumber("1 250,5"), 1250.5);
  EXPECT_EQ(typedNumber("\u22121\u202F234,5"), -1234.5) << "as it is written";
  go(Qt::Key_4);
  EXPECT_TRUE(find<LedgerView>("projected")->ledger().index(0, 1).data().toString().contains(QLatin1Char(',')))
      << "the window follows at once";
  choose("numberMarks", 0);
  choose("negatives", 1);
  EXPECT_EQ(groupedNumber(-1234.5, 1), "(1,234.5)");
  EXPECT_EQ(typedNumber("1,250"), 1250.0);
}

TEST_F(Preferring, EditsCarryTheNamePreferred) {
  openPreferences();
  auto* name = find<QLineEdit>("authorName");
  EXPECT_EQ(name->placeholderText(), QStringLiteral("tester")) << "the account's where nothing is preferred";
  name->setText(QStringLiteral("A. Orrel"));
  Q_EMIT name->editingFinished();
  bench().apply(services::setInput(bench().settled().caseOf(), bench().now().model(), kBase, "terminal_growth", 0.011,
                                   bench().saidNow({})));
  EXPECT_EQ(bench().now().caseOf().input(bench().now().caseOf().base(), "terminal_growth")->said.author, "A. Orrel");
  // Kept for the next start.
  window_.reset();
  start();
  ASSERT_TRUE(window_->openBook(path()));
  EXPECT_EQ(bench().saidNow({}).author, "A. Orrel");
}

TEST_F(Preferring, AmountsTextAndPaperStayAsChosen) {
  openPreferences();
  choose("amountsIn", 3);
  EXPECT_EQ(amountPower(), 3);
  EXPECT_EQ(find<QComboBox>("amountUnit")->currentText(), QStringLiteral("as preferred: thousand"));
  choose("textSize", 125);
  EXPECT_NEAR(QApplication::font().pointSizeF(), 9.5 * 1.25, 0.01);
  choose("paperChoice", 2);
  EXPECT_TRUE(theme().dark);
  const Preferences kept = Preferences::kept();
  EXPECT_EQ(kept.textPercent, 125);
  EXPECT_EQ(kept.amountPower, 3);
  // What somebody wrote there by hand and is no such thing is passed over.
  QSettings().setValue(QStringLiteral("textPercent"), QStringLiteral("huge"));
  QSettings().setValue(QStringLiteral("numberMarks"), 77);
  EXPECT_EQ(Preferences::kept().textPercent, 100);
  EXPECT_EQ(Preferences::kept().numbers.marks, NumberStyle::Marks::CommaPoint);
}

TEST_F(Preferring, TheDemoHasAHintAtEachStopUntilTheyAreDismissed) {
  EXPECT_FALSE(find<QWidget>("hintStrip")->isVisible()) << "a book of one's own has none";
  ASSERT_TRUE(window_->openDemo());
  for (const Qt::Key page : kPageKeys) {
    go(page);
    EXPECT_TRUE(find<QWidget>("hintStrip")->isVisible());
    EXPECT_FALSE(find<QLabel>("hint")->text().isEmpty());
  }
  QTest::mouseClick(find<QPushButton>("noHints"), Qt::LeftButton);
  go(Qt::Key_4);
  EXPECT_FALSE(find<QWidget>("hintStrip")->isVisible());
  window_.reset();
  start();
  ASSERT_TRUE(window_->openDemo());
  EXPECT_FALSE(find<QWidget>("hintStrip")->isVisible()) << "for good";
  window_.reset();
}

TEST_F(Preferring, EmptyPartsOfferWhatBelongsThere) {
  const std::string bare = folder_.file("bare.zledger");
  const std::string table = test::sourceFolder() + "/tests/corpus/filers/norrvale.csv";
  std::ifstream in(table);
  const std::string content((std::istreambuf_iterator<char>(in)), {});
  ASSERT_TRUE(services::Session::import(bare, "norr", {{"norrvale.csv", content}}, resources_, test::testDesk()));
  ASSERT_TRUE(window_->openBook(text(bare)));
  go(Qt::Key_7);
  auto* peers = find<QPushButton>("offer.peers");
  ASSERT_TRUE(peers->isVisible());
  QTest::mouseClick(peers, Qt::LeftButton);
  EXPECT_TRUE(find<LedgerView>("marketRows")->isVisible());
  EXPECT_EQ(find<QComboBox>("marketTable")->currentData().toString(), QStringLiteral("peers"));
  turnTo("overview");
  QTest::mouseClick(find<QPushButton>("offer.prices"), Qt::LeftButton);
  EXPECT_EQ(find<QComboBox>("marketTable")->currentData().toString(), QStringLiteral("prices"));
  turnTo("parts");
  QTest::mouseClick(find<QPushButton>("offer.holders"), Qt::LeftButton);
  EXPECT_EQ(find<QComboBox>("recordLists")->currentData().toString(), QStringLiteral("holders"));
}

}  // namespace
}  // namespace zl::app
