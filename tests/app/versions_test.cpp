// Named versions in the window: kept, compared, walked between, undone, reopened; the command line
// says the same.

#include <gmock/gmock.h>

#include <QAction>
#include <QComboBox>
#include <nlohmann/json.hpp>
#include <sstream>

#include "app/charts/walk_chart.h"
#include "cli/run.h"
#include "core/quantity/number_text.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

class VersionsWindow : public WindowFixture {
 protected:
  /// Types a driver's level for base on Outlook, by keys.
  void shape(const QString& driver, const QString& level) {
    go(Qt::Key_4);
    place(find<LedgerView>("drivers"), driver, 0);
    auto* shape = find<QComboBox>("shapeBox");
    if (shape->currentText() != QLatin1String("hold")) {
      shape->setFocus();
      press(shape, Qt::Key_Home);
      QTest::keyClick(shape, Qt::Key_Return);
    }
    auto* field = find<QLineEdit>("level");
    field->setFocus();
    field->selectAll();
    QTest::keyClicks(field, level);
    press(field, Qt::Key_Return);
  }
  void keepAs(const QString& name) {
    press(window_.get(), Qt::Key_K, Qt::ControlModifier | Qt::ShiftModifier);
    auto* field = find<QLineEdit>("versionName");
    ASSERT_EQ(QApplication::focusWidget(), field);
    QTest::keyClicks(field, name);
    press(field, Qt::Key_Return);
    ASSERT_EQ(status(), QStringLiteral("Kept as '%1'").arg(name));
  }
  std::string zledger(const std::vector<std::string>& arguments) {
    std::ostringstream out, err;
    EXPECT_EQ(cli::run(arguments, out, err, test::testDesk()), 0) << err.str();
    return out.str();
  }
};

TEST_F(VersionsWindow, TwoVersionsComparedWalkedUndoneAndReopened) {
  const double first = base();
  const QString beginning = bench().undoLabel();
  EXPECT_FALSE(find<QPushButton>("goBack")->isEnabled());
  keepAs(QStringLiteral("Cautious"));
  shape(QStringLiteral("revenue_growth"), QStringLiteral("7"));
  shape(QStringLiteral("operating_expense_ratio"), QStringLiteral("17"));
  shape(QStringLiteral("capex_ratio"), QStringLiteral("6"));
  const double bold = base();
  EXPECT_NE(first, bold);
  keepAs(QStringLiteral("Bold"));

  auto* list = find<LedgerView>("versions");
  ASSERT_EQ(list->ledger().rowCount(), 3);
  EXPECT_EQ(list->ledger().ledgerRows()[1].key, QStringLiteral("Bold"));
  find<QComboBox>("walkFrom")->setFocus();
  press(find<QComboBox>("walkFrom"), Qt::Key_Home);
  ASSERT_EQ(find<QComboBox>("walkFrom")->currentText(), QStringLiteral("Cautious"));
  find<QComboBox>("walkTo")->setFocus();
  press(find<QComboBox>("walkTo"), Qt::Key_Up);
  ASSERT_EQ(find<QComboBox>("walkTo")->currentText(), QStringLiteral("Bold"));

  // What is written adds up as it is written.
  const QStringList written = find<WalkChart>("walkChart")->accessibleDescription().split(QStringLiteral("; "));
  ASSERT_EQ(written.size(), 4) << "two ends, two groups";
  EXPECT_THAT(written[1].toStdString(), testing::StartsWith("Growth and margins +"));
  const auto figure = [](const QString& words) {
    return *typedNumber(words.section(QLatin1Char(' '), -1).remove(QLatin1Char('+')).toStdString());
  };
  EXPECT_NEAR(figure(written[0]), first, 0.005);
  EXPECT_NEAR(figure(written[3]), bold, 0.005);
  EXPECT_NEAR(figure(written[0]) + figure(written[1]) + figure(written[2]), figure(written[3]), 1e-9);

  // Side by side: the three drivers with their paths, and the years.
  const auto& beside = find<LedgerView>("versionsBeside")->ledger().ledgerRows();
  ASSERT_GT(beside.size(), 3u);
  EXPECT_EQ(beside[1].label, QStringLiteral("Revenue growth"));
  EXPECT_EQ(beside[1].cells[1].words, QStringLiteral("holds 7.0 %"));
  EXPECT_TRUE(beside[4].heading) << "three drivers differ";
  EXPECT_EQ(find<LedgerView>("versionsByYear")->ledger().ledgerRows()[0].label, QStringLiteral("Revenue, EUR m"));

  // A figure of a version is traced in that version.
  auto* besideGrid = find<LedgerView>("versionsBeside");
  besideGrid->setFocus();
  besideGrid->setCurrentIndex(besideGrid->ledger().index(3, besideGrid->ledger().firstColumn() + 1));
  EXPECT_THAT(find<QLabel>("traceTitle")->text().toStdString(), testing::HasSubstr("in 'Bold'"));
  EXPECT_THAT(find<QLabel>("traceSource")->text().toStdString(), testing::HasSubstr("assumed in Base by tester"));

  // A third one beside them: the present state, ticked by key.
  place(list, QStringLiteral("now"), 0);
  press(list, Qt::Key_Space);
  EXPECT_EQ(find<LedgerView>("versionsBeside")->ledger().ledgerRows()[1].cells.size(), 3u);

  // The command line tells the same.
  const auto walk = nlohmann::json::parse(zledger({"walk", book(), "Cautious", "Bold", "--json"}));
  EXPECT_NEAR(walk["steps"][0]["effect"].get<double>(), figure(written[1]), 0.011);
  const auto compared = nlohmann::json::parse(zledger({"compare", book(), "Cautious", "Bold", "--json"}));
  EXPECT_DOUBLE_EQ(compared["values"][1]["sides"]["Bold"]["figure"].get<double>(), bold);
  EXPECT_THAT(zledger({"trace", book(), "capex_ratio", "--year", "2027"}), testing::HasSubstr("6.0"));

  // Back to the first, then undo everything; the versions stay.
  place(list, QStringLiteral("Cautious"), 0);
  QTest::mouseClick(find<QPushButton>("goBack"), Qt::LeftButton);
  EXPECT_DOUBLE_EQ(base(), first);
  int edits = 0;
  for (; bench().undoLabel() != beginning && edits < 20; ++edits) press(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_DOUBLE_EQ(base(), first);
  EXPECT_GE(edits, 4);
  for (int i = 1; i < edits; ++i) find<QAction>("redo")->trigger();
  EXPECT_DOUBLE_EQ(base(), bold);

  // Reopened, everything is there: the versions, and the state that was left.
  window_.reset();
  start();
  ASSERT_TRUE(window_->openBook(path()));
  EXPECT_DOUBLE_EQ(base(), bold);
  turnTo("versions");
  EXPECT_EQ(find<LedgerView>("versions")->ledger().rowCount(), 3);
  const auto value = nlohmann::json::parse(zledger({"value", book(), "--json"}));
  EXPECT_DOUBLE_EQ(value["scenarios"][1]["figures"]["value_per_share"].get<double>(), bold);
}

TEST_F(VersionsWindow, SaysWhatBelongsThereAndRefusesANameTwice) {
  turnTo("versions");
  EXPECT_TRUE(find<QLabel>("noVersions")->isVisible());
  EXPECT_FALSE(find<QPushButton>("keepVersion")->isEnabled());
  keepAs(QStringLiteral("One"));
  EXPECT_FALSE(find<QLabel>("noVersions")->isVisible());
  EXPECT_EQ(find<QLabel>("walkSentence")->text(), QStringLiteral("The two are the same."));
  QTest::keyClicks(find<QLineEdit>("versionName"), QStringLiteral("One"));
  press(find<QLineEdit>("versionName"), Qt::Key_Return);
  EXPECT_THAT(status().toStdString(), testing::HasSubstr("already a version 'One'"));
  EXPECT_EQ(find<QLineEdit>("versionName")->text(), QStringLiteral("One")) << "what was typed stays";
  place(find<LedgerView>("versions"), QStringLiteral("One"), 0);
  QTest::mouseClick(find<QPushButton>("dropVersion"), Qt::LeftButton);
  EXPECT_TRUE(find<QLabel>("noVersions")->isVisible());
}

}  // namespace
}  // namespace zl::app
