// From any figure of the window one comes to what it stands on: every cell is traced in the model or
// tells its own story, what is told is the figure that was asked about, and stories are walked on to
// facts by key.

#include <gmock/gmock.h>

#include <QComboBox>
#include <QListWidget>
#include <QRegularExpression>
#include <fstream>

#include "core/quantity/number_text.h"
#include "services/views/published.h"
#include "services/views/roll_forward.h"
#include "tests/support/bare_kits.h"
#include "tests/support/next_year.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

using testing::HasSubstr;

class Told : public WindowFixture {
 protected:
  QComboBox* visibleBox(const char* name) {
    auto* box = window_->findChild<QComboBox*>(QString::fromLatin1(name));
    return box != nullptr && box->isVisible() && box->isEnabled() ? box : nullptr;
  }

  /// Every choice of the boxes named, each with every choice of those after it.
  template <class Look>
  void walkChoices(const std::vector<const char*>& boxes, size_t from, const Look& look) {
    if (from == boxes.size()) return look();
    if (visibleBox(boxes[from]) == nullptr) return walkChoices(boxes, from + 1, look);
    for (int i = 0; visibleBox(boxes[from]) != nullptr && i < visibleBox(boxes[from])->count(); ++i) {
      visibleBox(boxes[from])->setCurrentIndex(i);
      walkChoices(boxes, from + 1, look);
    }
    if (QComboBox* box = visibleBox(boxes[from])) box->setCurrentIndex(0);
  }

  /// What is wrong with a cell; empty where it can be traced.
  QString faultOf(const LedgerRow& row, const LedgerCell& cell) {
    const services::Snapshot& s = bench().now();
    const QString shown = cell.words.value_or(text(figureText(cell.figure, row.kind)));
    if (!cell.source && !cell.story) return QStringLiteral("tells nothing");
    if (!cell.story) {
      const int lane = cell.scenario < 0 ? bench().scenario() : cell.scenario;
      const Figure traced = s.evaluation->figure(cell.source->row, cell.source->column, lane);
      return traced == cell.figure ? QString() : QStringLiteral("is traced to another figure");
    }
    const services::Story story = cell.story(s);
    if (story.title.empty()) return QStringLiteral("has no title");
    if (story.lines.empty() && story.reads.empty()) return QStringLiteral("stands on nothing");
    QString digits = shown;
    digits.remove(QRegularExpression(QStringLiteral("[●○!⚠%]")));
    if (!text(story.figure).contains(digits.trimmed()))
      return QStringLiteral("tells of %1 where %2 stands").arg(text(story.figure), shown);
    return {};
  }

  void lookAtGrids() {
    for (LedgerView* grid : window_->findChildren<LedgerView*>()) {
      // The list of documents names formats ("XBRL 2.1"), no figures.
      if (!grid->isVisible() || grid->objectName() == QLatin1String("documents")) continue;
      for (const LedgerRow& row : grid->ledger().ledgerRows()) {
        int column = 0;
        for (const LedgerCell& cell : row.cells) {
          ++column;
          // Counts and dates need no story; a figure that is told in words does.
          const bool inWords =
              cell.words && !cell.left && cell.words->contains(QRegularExpression(QStringLiteral("\\d\\.\\d")));
          if (!cell.figure.hasValue() && !inWords) continue;
          ++asked_;
          if (const QString fault = faultOf(row, cell); !fault.isEmpty()) {
            faults_.insert(QStringLiteral("%1, %2, column %3: %4")
                               .arg(grid->objectName(), row.label, QString::number(column), fault)
                               .toStdString());
          }
        }
      }
    }
  }

  void walkPages() {
    for (const Qt::Key page : kPageKeys) {
      go(page);
      eachView([this] {
        walkChoices({"historyShow", "historyBasis", "historyReading", "filingsShow", "statementBox", "otherWay"}, 0,
                    [this] { lookAtGrids(); });
      });
    }
    EXPECT_THAT(faults_, testing::IsEmpty());
  }

  void bringIn(const std::string& name, const std::string& content) {
    std::ofstream(folder_.file(name)) << content;
    chosenFiles_ = {text(folder_.file(name))};
    press(window_.get(), Qt::Key_I, Qt::ControlModifier);
    waitForReading();
    QTest::mouseClick(find<QPushButton>("acceptImport"), Qt::LeftButton);
  }

  /// Puts the cursor on the cell of a row by its label and a figure column; what the trace then says.
  std::string ask(const char* grid, const QString& label, int column) {
    auto* view = find<LedgerView>(grid);
    const auto& rows = view->ledger().ledgerRows();
    const auto row = std::find_if(rows.begin(), rows.end(),
                                  [&](const LedgerRow& r) { return r.label.trimmed() == label && !r.heading; });
    if (row == rows.end()) return "no row " + label.toStdString();
    view->setCurrentIndex(
        view->ledger().index(static_cast<int>(row - rows.begin()), view->ledger().firstColumn() + column));
    openTrace();
    view->clearFocus();
    view->setFocus(Qt::TabFocusReason);  // as one comes to it by key
    return find<QLabel>("traceTitle")->text().toStdString() + '\n' + find<QLabel>("traceFigure")->text().toStdString() +
           '\n' + find<QLabel>("traceSource")->text().toStdString() + '\n' + inputs();
  }
  std::string inputs() {
    std::string list;
    auto* shown = find<QListWidget>("traceInputs");
    for (int i = 0; shown->isVisible() && i < shown->count(); ++i) list += shown->item(i)->text().toStdString() + '\n';
    return list;
  }

  std::set<std::string> faults_;
  int asked_ = 0;
};

TEST_F(Told, ChartsAndTheRailAreAskedByKeysAndMouse) {
  const QString keeper = QStringLiteral("Before the spring");
  ASSERT_TRUE(bench().keepVersion(keeper, {}));
  Path path;
  path.level = 0.04;
  ASSERT_TRUE(bench().apply(services::setDriver(bench().now().caseOf(), bench().now().evaluation->model(), kBase,
                                                "revenue_growth", path, bench().saidNow({}))));
  struct Asked {
    Qt::Key page;
    const char* chart;
    int view;  ///< of the Verdict
    int figures;
    std::vector<std::string> tells;  ///< of one figure or another, in the order of keys
  };
  // Two parts in six years; the five years of the company record; four parts above nought and the total in
  // three scenarios; five filed years and ten in three scenarios.
  const Asked asked[] = {
      {Qt::Key_1, "businessBars", -1, 12, {"Machines, revenue 2020", "Service and Parts, revenue 2025"}},
      {Qt::Key_1, "dueBars", -1, 5, {"Debt due in 2026, floating", "Debt due in 2032, fixed"}},
      {Qt::Key_5,
       "rateStack",
       -1,
       15,
       {"Risk-free 2026E · Worst", "Beta × premium 2026E · Worst", "WACC 2026E · Best"}},
      {Qt::Key_6, "flowBars", -1, 35, {"Free cash flow to the firm 2021", "Free cash flow to the firm 2035E · Best"}},
      {Qt::Key_7, "ranges", -1, 19, {"value to EBITDA, low", "value to EBITDA, median", "value to EBITDA, high"}},
      {Qt::Key_9, "ranges", 0, 35, {"perpetual growth"}},
      {Qt::Key_9, "walkChart", 1, 3, {"in 'Before the spring'", "effect on value per share", "in 'now'"}},
      {Qt::Key_9,
       "valueRail",
       -1,
       13,
       {"Value per share · Worst", "Share price", "peers' enterprise value to EBITDA, median"}},
  };
  for (const Asked& each : asked) {
    go(each.page);
    if (each.page == Qt::Key_9 && each.view >= 0) turnTo(each.view == 0 ? "methods" : "versions");
    if (each.page == Qt::Key_6) turnTo("years");
    if (each.page == Qt::Key_7) turnTo("range");
    QCoreApplication::processEvents();
    TellingChart* chart = nullptr;
    for (auto* found : window_->findChildren<TellingChart*>(QString::fromLatin1(each.chart))) {
      if (found->isVisible()) chart = found;
    }
    ASSERT_NE(chart, nullptr) << each.chart;
    chart->grab();  // what is scrolled out of sight has not been drawn yet
    EXPECT_EQ(chart->figureCount(), each.figures) << each.chart;
    chart->setFocus(Qt::TabFocusReason);
    press(chart, Qt::Key_Home);
    std::string told;
    for (int i = 0; i < chart->figureCount(); ++i) {
      told += find<QLabel>("traceTitle")->text().toStdString() + ": " +
              find<QLabel>("traceFigure")->text().toStdString() + '\n';
      press(chart, Qt::Key_Right);
    }
    for (const std::string& words : each.tells) EXPECT_THAT(told, HasSubstr(words)) << each.chart;
  }
}

TEST_F(Told, EveryFigureOfTheDemoBook) {
  walkPages();
  EXPECT_GT(asked_, 10'000);
}

TEST_F(Told, EveryFigureWhereMoreIsKnown) {
  ASSERT_TRUE(bench().keepVersion(QStringLiteral("Before the spring"), {}));
  const Provenance said = bench().saidNow(QStringLiteral("for the test"));
  const model::Model& m = bench().now().evaluation->model();
  ASSERT_TRUE(bench().apply(services::publish(bench().now(), "Spring", said)));
  Path path;
  path.level = 0.04;
  ASSERT_TRUE(bench().apply(services::setDriver(bench().now().caseOf(), m, kBase, "revenue_growth", path, said)));
  const char* line = "exceptional_items";
  const Figure filed = bench().now().asFiled->at(m.find(line), 11);
  ASSERT_TRUE(bench().apply(services::setAdjustment(bench().now().caseOf(), bench().now().evaluation->model(), line,
                                                    2025, filed.value(), 1e6, said)));
  ASSERT_TRUE(bench().apply(services::setLimit(bench().now().caseOf(), "few peers", 5)));
  bringIn("q1.csv",
          "concept,label,start,end,unit,decimals,value\nrevenue,,2026-01-01,2026-03-31,EUR,-3,170000000\n"
          "operating_expenses,,2026-01-01,2026-03-31,EUR,-3,50000000\n");
  walkPages();
}

TEST_F(Told, EveryFigureWhereANewYearIsFiled) {
  bringIn("annual-2026.csv", test::nextYear(bench().now(), 0.9));
  ASSERT_EQ(services::yearsAhead(bench().now()), 1);
  go(Qt::Key_4);
  walkChoices({"statementBox"}, 0, [this] { lookAtGrids(); });
  EXPECT_THAT(faults_, testing::IsEmpty());
}

// Figures are of the demo's documents and tables; what stories compute from them was worked by hand
// from the lines that they quote.
TEST_F(Told, StoriesEndAtFactsRecordsAndTables) {
  struct Asked {
    Qt::Key page;
    const char* grid;
    const char* row;
    int column;
    std::vector<std::string> tells;
  };
  const Asked asked[] = {
      // (526.4 + 105.7 net debt + 9.4 pension and minorities, no associates) / 76.0
      {Qt::Key_1,
       "market",
       "EV to EBITDA",
       0,
       {"8.44 ×", "526.4 EUR m   Market value", "115.1 EUR m   Claims before shareholders, net of associates",
        "76.0 EUR m   EBITDA before exceptional items, chosen basis 2025"}},
      {Qt::Key_1, "market", "Low of 52 weeks", 0, {"595.7 GBX", "on 2025-07-29", "from prices.csv"}},
      {Qt::Key_1,
       "keyFigures",
       "Organic growth",
       0,
       {"(3.0) %", "723.7 EUR m   Revenue 2025", "746.1 EUR m   Revenue 2024"}},
      {Qt::Key_1,
       "keyFigures",
       "EBIT margin",
       1,
       {"9.8 %", "2025 is exceptional and left out", "9.8 %   EBIT margin 2018"}},
      // 39369 / 231584
      {Qt::Key_1,
       "companyParts",
       "Service and Parts, EBIT margin",
       11,
       {"17.0 %", "= 39369000 EUR for 2025-01-01/2025-12-31; annual-2025.xbrl, line 177", "= 231584000 EUR"}},
      // (0.32 - 0.31) x (0.17 + 0.0265), by the parts' facts of 2024 and 2025
      {Qt::Key_1,
       "companyParts",
       "Margin change: mix",
       11,
       {"0.2 %", "Machines 2024: EBIT (13.7) EUR m of revenue 514.8 EUR m", "annual-2024.xbrl, line 176"}},
      {Qt::Key_4, "evidence", "median 3 years", 1, {"2.0 %", "2024 is exceptional", "2.0 %   Revenue growth 2023"}},
      // 761 / 728 - 1
      {Qt::Key_4,
       "evidence",
       "consensus 27E",
       0,
       {"4.5 %", "Revenue 2027: 761.0 EUR m (729.0 to 802.0), 9 analysts, 2026-04-24", "Revenue 2026: 728.0 EUR m"}},
      {Qt::Key_4, "evidence", "peers' median", 0, {"Dunmarrow Scales plc: (3.0) %", "from peers.csv"}},
      // One of the nine regular years, 2023, lies at or below 2.2 %.
      {Qt::Key_4, "evidence", "last year's choice ranks at", 1, {"11.1 %", "2.2 %   Revenue growth 2035E"}},
      {Qt::Key_5, "rates", "risk-free EUR", 0, {"2.8 %", "2026-04-30, demo table", "from rates.csv"}},
      // (22.60 x 18 + 20 + 6 - 64) / 31
      {Qt::Key_7,
       "peers",
       "Ostravelle Triage S.A.",
       2,
       {"11.90 ×", "price 22.60 EUR on 2026-04-30, times 18.0 m shares", "less cash: 64.0",
        "12 of 12 months to 2025-12-31: 31.0", "counts, by the rules"}},
      // 1480 x 92 / (3/12 x 8300 + 9/12 x 8900)
      {Qt::Key_7,
       "peers",
       "Kurosendo Seiki K.K.",
       1,
       {"15.56 ×", "3 of 12 months to 2025-03-31: 8,300.0", "9 of 12 months to 2026-03-31: 8,900.0"}},
      {Qt::Key_7, "peerStatistics", "EV to EBITDA", 3, {"10.29 ×", "Sorrelund Process AB: 10.29 ×"}},
      {Qt::Key_9, "verdictScenarios", "Probability", 1, {"50.0 %", "it has not been changed since"}},
  };
  for (const Asked& each : asked) {
    go(each.page);
    if (std::string(each.grid) == "rates") turnTo("debt");
    if (std::string(each.grid) == "peers") turnTo("set");
    if (std::string(each.grid) == "peerStatistics") turnTo("implied");
    const std::string told = ask(each.grid, QString::fromUtf8(each.row), each.column);
    for (const std::string& words : each.tells) EXPECT_THAT(told, HasSubstr(words)) << each.grid;
  }
}

TEST_F(Told, AStoryIsWalkedOnToTheFactAndBack) {
  go(Qt::Key_3);
  find<QComboBox>("historyShow")->setCurrentIndex(1);
  EXPECT_THAT(
      ask("history", QStringLiteral("Revenue"), 11),
      HasSubstr("Revenue 2025, growth\n(3.0) %\nover the same a year before, less one\n723.7 EUR m   Revenue 2025"));
  auto* inputs = find<QListWidget>("traceInputs");
  inputs->setFocus();
  press(inputs, Qt::Key_Down);
  press(inputs, Qt::Key_Return);
  EXPECT_EQ(find<QLabel>("traceTitle")->text(), QStringLiteral("Revenue 2024"));
  EXPECT_THAT(find<QLabel>("traceSource")->text().toStdString(), HasSubstr("= 746086000 EUR for 2024-01-01"));
  press(QApplication::focusWidget(), Qt::Key_Backspace);
  EXPECT_EQ(find<QLabel>("traceTitle")->text(), QStringLiteral("Revenue 2025, growth"));
  // From the grid by F6; from anywhere to the rail, and from its mark to the mark's page.
  find<LedgerView>("history")->setFocus();
  press(window_.get(), Qt::Key_F6);
  press(QApplication::focusWidget(), Qt::Key_Return);
  EXPECT_EQ(find<QLabel>("traceTitle")->text(), QStringLiteral("Revenue 2025"));
  QCoreApplication::processEvents();  // the rail is drawn
  press(window_.get(), Qt::Key_F6, Qt::ShiftModifier);
  EXPECT_EQ(find<QLabel>("traceTitle")->text(), QStringLiteral("Value per share, dividends · Base")) << "the lowest";
  for (int mark = 0; mark < 2; ++mark) press(QApplication::focusWidget(), Qt::Key_Right);  // past the value by book
  EXPECT_EQ(find<QLabel>("traceTitle")->text(), QStringLiteral("Value per share · Worst"));
  press(QApplication::focusWidget(), Qt::Key_Return);
  EXPECT_TRUE(find<QWidget>("CashvaluePage")->isVisible());
  ask("walk", QStringLiteral("Upside"), 2);
  find<TellingChart>("valueRail")->setFocus();
  press(QApplication::focusWidget(), Qt::Key_End);
  press(QApplication::focusWidget(), Qt::Key_Return);
  EXPECT_EQ(find<QLabel>("traceTitle")->text(), QStringLiteral("Value per share · Best"))
      << "the page that is brought leaves what was asked";
  go(Qt::Key_3);
  ask("history", QStringLiteral("Revenue"), 11);
  press(window_.get(), Qt::Key_F6);
  press(QApplication::focusWidget(), Qt::Key_Down);
  press(QApplication::focusWidget(), Qt::Key_Return);
  // A change may make what was told another figure: the trace returns to the model.
  ASSERT_TRUE(bench().apply(services::setProbability(bench().now().caseOf(), "worst", 0.3)));
  EXPECT_EQ(find<QLabel>("traceTitle")->text(), QStringLiteral("Revenue 2024"));
  press(QApplication::focusWidget(), Qt::Key_Backspace);
  EXPECT_EQ(find<QLabel>("traceTitle")->text(), QStringLiteral("Revenue 2024"));
  go(Qt::Key_9);
  EXPECT_THAT(ask("verdictScenarios", QStringLiteral("Probability"), 0),
              HasSubstr("2026-05-01 tester: 25.0 % -> 30.0 %"));
}

/// A kit that says nothing of its rows: no role, no view, no method. Every page is looked at and asked.
TEST_F(Told, PagesOfAModelThatMeansNothingToTheProgramStandStill) {
  window_.reset();
  resources_ = test::kitsWithoutMeaning(folder_.file("bare"));
  ASSERT_NE(resources_, nullptr);
  start();
  ASSERT_TRUE(window_->openBook(path())) << status().toStdString();
  walkPages();
}

}  // namespace
}  // namespace zl::app
