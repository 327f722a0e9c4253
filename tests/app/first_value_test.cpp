// From nothing to a first value: a name, a paste of statements, a price. Actions of a person (a paste, a typed field, a
// key, a click) are counted.

#include <gmock/gmock.h>

#include <QClipboard>
#include <QFile>
#include <fstream>
#include <sstream>

#include <nlohmann/json.hpp>

#include "app/frame/unnamed_books.h"
#include "cli/run.h"
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

  /// Cells under the headings of Company's tables, as they are copied elsewhere.
  void pasteMarket(const char* table, const QString& cells) {
    go(Qt::Key_1);
    QTest::mouseClick(find<QPushButton>("sub.market"), Qt::LeftButton);
    auto* box = find<QComboBox>("marketTable");
    box->setCurrentIndex(box->findData(QString::fromLatin1(table)));
    QGuiApplication::clipboard()->setText(cells);
    QTest::mouseClick(find<QPushButton>("pasteMarket"), Qt::LeftButton);
  }
  /// The same company by the commands: its table and verbs. Then both say the same of every scenario and peer's
  /// multiple.
  void expectTheSameByVerbs(const char* filer, const std::vector<std::vector<std::string>>& verbs) {
    const std::string other = folder_.file("verbs.zledger");
    const auto run = [&](std::vector<std::string> words) {
      words.insert(words.begin() + 1, other);
      std::ostringstream out, err;
      EXPECT_EQ(zl::cli::run(words, out, err, test::testDesk()), 0) << words.front() << ": " << err.str();
      return out.str();
    };
    const std::string table = test::sourceFolder() + "/tests/corpus/filers/" + filer;
    run({"import", "--company", bench().companyId(), table, "--accept"});
    for (const auto& verb : verbs) run(verb);
    const auto there = nlohmann::json::parse(run({"value", "--json"}));
    const services::Snapshot& s = bench().now();
    ASSERT_EQ(there["scenarios"].size(), 3U);
    for (size_t k = 0; k < 3; ++k) {
      const auto& scenario = there["scenarios"][k];
      EXPECT_DOUBLE_EQ(scenario["figures"]["value_per_share"].get<double>(),
                       s.evaluation->constant("value_per_share", static_cast<int>(k)).value());
    }
    EXPECT_EQ(there["price"], s.given(model::Role::Price).figure.value());
    EXPECT_DOUBLE_EQ(there["cross_check"]["price-earnings"]["median"].get<double>(),
                     s.crossCheck.statistics.at(Multiple::PriceToEarnings).median.value());
    EXPECT_TRUE(s.evaluation->constant("by_earnings_median", 1).hasValue());
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
  pasteMarket("peers", QStringLiteral("Company\tPrice\tShares m\tRevenue m\tEBITDA m\tNet income m\tDebt m\tCash m\n"
                                      "Calder Mills\t31\t220\t4200\t610\t290\t900\t200\n"
                                      "Oststrand Tools\t12\t90\t800\t95\t41\t150\t20\n"));
  ASSERT_EQ(bench().now().market->peers.size(), 2U) << status().toStdString();
  expectTheSameByVerbs("norrvale.csv",
                       {{"price", "55.2"},
                        {"peer", "Calder Mills", "--price", "31", "--shares", "220m", "--revenue", "4.2bn", "--ebitda",
                         "610m", "--net-income", "290m", "--debt", "900m", "--cash", "200m"},
                        {"peer", "Oststrand Tools", "--price", "12", "--shares", "90m", "--revenue", "800m", "--ebitda",
                         "95m", "--net-income", "41m", "--debt", "150m", "--cash", "20m"}});

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
  pasteMarket("peers",
              QStringLiteral("Peer\tMarket cap\tSales\tNet profit\tCurrency\nHalden Werke\t1.4bn\t2.1bn\t88m\tEUR\n"));
  ASSERT_EQ(bench().now().market->peers.size(), 1U) << status().toStdString();
  expectTheSameByVerbs("brennlau.csv", {{"company", "shares", "42m"},
                                        {"price", "31.5"},
                                        {"peer", "Halden Werke", "--market-value", "1.4bn", "--revenue", "2.1bn",
                                         "--net-income", "88m"}});
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
