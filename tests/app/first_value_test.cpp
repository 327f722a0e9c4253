// From nothing to a first value: a name, a paste of statements, a price. Actions of a person (a paste, a typed field, a
// key, a click) are counted.

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

class FirstValue : public WindowFixture {
 protected:
  void SetUp() override {
    DemoBook::SetUp();
    start();
    resetActions();
  }
  void TearDown() override {
    const QString begun = bench().path();
    window_.reset();
    if (isUnnamed(begun)) QFile::remove(begun);
  }
  void resetActions() { actions_ = 0; }

  /// The cells of a filer's table as another program copies them.
  static QString cellsOf(const char* filer, char mark) {
    std::ifstream file(test::sourceFolder() + "/tests/corpus/filers/" + filer);
    std::ostringstream all;
    all << file.rdbuf();
    QString cells;
    bool quoted = false;
    for (const QChar c : text(all.str())) {
      if (c == QLatin1Char('"')) {
        quoted = !quoted;
      } else {
        cells += c == QLatin1Char(mark) && !quoted ? QLatin1Char('\t') : c;
      }
    }
    return cells;
  }
  void type(QWidget* field, const QString& words) {
    ++actions_;
    ASSERT_TRUE(field->isVisible()) << field->objectName().toStdString();
    field->setFocus();
    QTest::keyClicks(field, words);
  }
  void enter(QWidget* field) {
    ++actions_;
    press(field, Qt::Key_Return);
  }
  void click(QAbstractButton* button) {
    ++actions_;
    ASSERT_TRUE(button->isVisible()) << button->objectName().toStdString();
    QTest::mouseClick(button, Qt::LeftButton);
  }
  void begin(const QString& name, const QString& cells) {
    type(find<QLineEdit>("startName"), name);
    QGuiApplication::clipboard()->setText(cells);
    click(find<QPushButton>("startPaste"));
    waitForReading();
    click(find<QPushButton>("first.acceptImport"));
    ASSERT_TRUE(bench().isOpen()) << status().toStdString();
  }
  std::string need() { return find<QLabel>("needWords")->text().toStdString(); }
  /// Types what the strip asks for until it asks for nothing.
  void answer(const std::map<std::string, const char*>& answers) {
    for (int round = 0; round < 6 && find<QWidget>("needsStrip")->isVisible(); ++round) {
      const std::string asked = need();
      bool known = false;
      for (const auto& [words, figure] : answers) {
        if (asked.find(words) == std::string::npos) continue;
        known = true;
        type(find<QLineEdit>("needField"), QString::fromLatin1(figure));
        enter(find<QLineEdit>("needField"));
      }
      ASSERT_TRUE(known) << asked;
    }
  }
  void expectThreeValues() {
    EXPECT_FALSE(find<QWidget>("needsStrip")->isVisible()) << need();
    for (int k = 0; k < 3; ++k) EXPECT_TRUE(bench().now().evaluation->constant("value_per_share", k).hasValue()) << k;
    EXPECT_TRUE(bench().now().given(model::Role::Price).figure.hasValue());
    EXPECT_LE(actions_, 12);
  }

  int actions_ = 0;
};

TEST_F(FirstValue, OfAFilerWhoseSharesAreFiled) {
  begin(QStringLiteral("Norrvale Instruments"), cellsOf("norrvale.csv", ','));
  EXPECT_EQ(bench().now().company().name, "Norrvale Instruments");
  EXPECT_EQ(bench().companyId(), "norrvale-instruments");
  EXPECT_TRUE(isUnnamed(bench().path()));
  EXPECT_THAT(need(), HasSubstr("the price in USD"));
  answer({{"price in USD", "55.2"}});
  expectThreeValues();

  // It is named when there is something worth keeping, and what was undone can still be.
  chosenBook_ = text(folder_.file("named.zledger"));
  const QString unnamed = bench().path();
  find<QAction>("nameBookAction")->trigger();
  EXPECT_EQ(bench().path(), chosenBook_);
  EXPECT_FALSE(QFileInfo::exists(unnamed)) << "it was moved, not copied";
  EXPECT_FALSE(isUnnamed(bench().path()));
  find<QAction>("undo")->trigger();
  EXPECT_THAT(need(), HasSubstr("the price in USD")) << "undo takes the price back";
  chosenBook_ = text(book());
  find<QAction>("nameBookAction")->trigger();
  EXPECT_EQ(bench().path(), text(folder_.file("named.zledger"))) << "nothing is written over";
  EXPECT_THAT(status().toStdString(), HasSubstr("already a file of this name"));
}

TEST_F(FirstValue, OfOneThatFilesNoCountOfShares) {
  begin(QStringLiteral("Brennlau AG"), cellsOf("brennlau.csv", ';'));
  EXPECT_THAT(need(), HasSubstr("shares")) << find<QLabel>("needRest")->text().toStdString();
  type(find<QLineEdit>("needField"), QStringLiteral("many"));
  enter(find<QLineEdit>("needField"));
  EXPECT_THAT(need(), HasSubstr("shares")) << "what is no number changes nothing";
  EXPECT_THAT(status().toStdString(), HasSubstr("is no number"));
  find<QLineEdit>("needField")->clear();
  answer({{"shares", "42m"}, {"price in", "31.5"}});
  expectThreeValues();
  EXPECT_EQ(bench().now().company().shares, 42e6);
}

TEST_F(FirstValue, NothingToPasteIsSaid) {
  QGuiApplication::clipboard()->clear();
  click(find<QPushButton>("startPaste"));
  EXPECT_THAT(status().toStdString(), HasSubstr("The clipboard holds no cells"));
  QGuiApplication::clipboard()->setText(QStringLiteral("good morning"));
  click(find<QPushButton>("startPaste"));
  waitForReading();
  EXPECT_TRUE(find<QWidget>("startPanel")->isVisible());
  EXPECT_FALSE(bench().isOpen());
}

}  // namespace
}  // namespace zl::app
