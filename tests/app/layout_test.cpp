// Figures in every grid of every page are whole, and no text in a chart lies over another or is cut: for the demo, for
// strangers of the corpus, for a company of 10^14 yen and one of 200 thousand dollars, in a small and a large window
// and in letters of 150 %. Widths are measured here from the text in the font, not taken from what the grids measured.

#include <gmock/gmock.h>

#include <QButtonGroup>
#include <QComboBox>
#include <QHeaderView>
#include <QScrollBar>
#include <QStyle>
#include <QStyleOptionComboBox>
#include <array>
#include <set>

#include "app/look/tabular.h"
#include "app/look/theme.h"
#include "services/sessions/session.h"
#include "tests/support/chart_texts.h"
#include "tests/support/files.h"
#include "tests/support/grid_texts.h"
#include "tests/support/source_folder.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

/// A small firm's three years, with each figure `times` as much, in `heading`.
std::string firm(const std::string& heading, const std::string& noughts) {
  const std::pair<const char*, std::array<int, 3>> kRows[] = {
      {"Revenue", {214300, 198120, 176044}},
      {"Cost of sales", {-121900, -115300, -104210}},
      {"Operating expenses", {-61250, -58020, -52170}},
      {"Operating income", {31150, 24800, 19664}},
      {"Interest expense", {-2100, -2300, -2450}},
      {"Income before income taxes", {29050, 22500, 17214}},
      {"Income tax expense", {-6100, -4725, -3615}},
      {"Net income", {22950, 17775, 13599}},
      {"Cash and cash equivalents", {41200, 30150, 22480}},
      {"Accounts receivable", {18700, 17900, 16020}},
      {"Property and equipment, net", {96000, 91400, 88100}},
      {"Total assets", {155900, 139450, 126600}},
      {"Accounts payable", {12300, 11800, 10900}},
      {"Long-term debt", {38000, 41000, 44000}},
      {"Total liabilities", {50300, 52800, 54900}},
      {"Total equity", {105600, 86650, 71700}},
      {"Net cash from operating activities", {29000, 23900, 19000}},
      {"Purchases of property and equipment", {-14950, -13230, -12000}},
      {"Repayment of debt", {-3000, -3000, -3000}},
      {"Net change in cash", {11050, 7670, 4000}}};
  std::string text = heading + ";2025;2024;2023\n";
  for (const auto& [label, figures] : kRows) {
    text += label;
    for (const int figure : figures) text += ";" + std::to_string(figure) + noughts;
    text += "\n";
  }
  return text + "Shares outstanding;10000;10000;10000\n";
}

/// Whole, however many there are.
std::string joined(const std::set<std::string>& words) {
  std::string all;
  for (const std::string& w : words) all += w + "\n";
  return all;
}

class Layout : public WindowFixture {
 protected:
  void SetUp() override {
    DemoBook::SetUp();
    start();
  }
  void TearDown() override { applyTheme(*qApp, ThemeChoice::Light); }

  void look(const QString& book, const std::string& name) {
    ASSERT_TRUE(window_->openBook(book)) << name;
    waitForPages();
    for (const QSize size : {QSize(1280, 800), QSize(1920, 1080)}) {
      window_->resize(size);
      const std::string where = name + ", " + std::to_string(size.width());
      for (const Qt::Key page : kPageKeys) {
        go(page);
        if (besideTrace_) openTrace();
        lookAtPage(where);
        turn(where);
      }
    }
  }

  /// Every view that a page has behind words or in a list.
  void turn(const std::string& where) {
    for (QPushButton* word : window_->findChildren<QPushButton*>()) {
      if (!word->isVisible() || !word->objectName().startsWith(QLatin1String("sub.")) || word->isChecked()) continue;
      word->click();
      lookAtPage(where + ", " + word->text().toStdString());
    }
    for (const char* name : {"historyShow", "statementBox", "filingsShow", "marketTable", "recordLists", "otherWay"}) {
      auto* views = find<QComboBox>(name);
      if (!views->isVisible()) continue;
      const int stood = views->currentIndex();
      for (int i = 0; i < views->count(); ++i) {
        views->setCurrentIndex(i);
        lookAtPage(where + ", " + views->itemText(i).toStdString());
      }
      views->setCurrentIndex(stood);
    }
  }

  void lookAtPage(const std::string& where) {
    settle();
    texts_ += chartFaults(*window_, where, cut_, wide());
    for (LedgerView* grid : window_->findChildren<LedgerView*>()) {
      if (grid->isVisible()) lookAt(*grid, where);
    }
    lookAtLabels(*window_, where);
    const auto* reason = find<QLineEdit>("reason");
    if (reason->isVisible() &&
        reason->width() < reason->fontMetrics().horizontalAdvance(QStringLiteral("Orders on hand last")))
      cut_.insert(where + ": no room for a reason");
    if (besideTrace_ && !wide()) walk(where);
    for (const QComboBox* list : window_->findChildren<QComboBox*>()) {
      if (!list->isVisible() || list->currentText().isEmpty()) continue;
      QStyleOptionComboBox option;
      option.initFrom(list);
      const int room =
          list->style()->subControlRect(QStyle::CC_ComboBox, &option, QStyle::SC_ComboBoxEditField, list).width();
      if (list->fontMetrics().horizontalAdvance(list->currentText()) > room)
        cut_.insert(where + ": the list '" + list->objectName().toStdString() + "' at '" +
                    list->currentText().left(40).toStdString() + "'");
    }
    for (QWidget* control : window_->findChildren<QWidget*>()) {
      const bool inGrid = control->objectName().startsWith(QLatin1String("qt_"));
      if (!control->isVisible() || inGrid || qobject_cast<QComboBox*>(control->parentWidget()) != nullptr ||
          qobject_cast<QAbstractSpinBox*>(control->parentWidget()) != nullptr)
        continue;
      const auto* button = qobject_cast<QAbstractButton*>(control);
      const bool field = qobject_cast<QLineEdit*>(control) != nullptr || qobject_cast<QComboBox*>(control) != nullptr ||
                         qobject_cast<QAbstractSpinBox*>(control) != nullptr ||
                         qobject_cast<LedgerView*>(control) != nullptr;
      if (button == nullptr && !field) continue;
      const QString words = button != nullptr ? button->text() : QString();
      if (control->accessibleName().isEmpty() && words.isEmpty() && !named(control))
        unnamed_.insert(control->objectName().toStdString() + " of " + control->metaObject()->className());
      // Of buttons that are one choice one has the keys, and arrows go to the others.
      const QList<QAbstractButton*> group =
          button != nullptr && button->group() != nullptr ? button->group()->buttons() : QList<QAbstractButton*>();
      const bool among = (button != nullptr && button->autoExclusive()) ||
                         std::any_of(group.begin(), group.end(), [](const QAbstractButton* other) {
                           return (other->focusPolicy() & Qt::TabFocus) != 0;
                         });
      if ((control->focusPolicy() & Qt::TabFocus) == 0 && control->isEnabled() && !among)
        unreachable_.insert(control->objectName().toStdString() + " of " + control->metaObject()->className());
    }
  }
  /// Widths settle on the second turn of the loop; long words in Trace, whose bar takes room from them, on the fifth.
  static void settle() {
    for (int turn = 0; turn < 8; ++turn) QCoreApplication::processEvents();
  }

  void lookAtLabels(const QWidget& within, const std::string& where) {
    for (QLabel* label : within.findChildren<QLabel*>()) {
      if (!label->isVisible() || label->text().isEmpty()) continue;
      // Only in a narrow window may be cut what says so by its policy, and shows itself whole on hover.
      if (!wide() && label->sizePolicy().horizontalPolicy() == QSizePolicy::Ignored) continue;
      const bool cut = label->wordWrap() ? label->heightForWidth(label->width()) > label->height()
                                         : label->width() < label->sizeHint().width();
      if (cut) cut_.insert(where + ": '" + label->text().left(40).toStdString() + "'");
    }
  }

  /// What Trace says of every seventh row of each grid in view is whole.
  void walk(const std::string& where) {
    auto* trace = find<QWidget>("trace");
    for (LedgerView* grid : window_->findChildren<LedgerView*>()) {
      if (!grid->isVisible()) continue;
      grid->setFocus(Qt::TabFocusReason);
      for (int r = 0; r < grid->ledger().rowCount(); r += 7) {
        grid->setCurrentIndex(grid->ledger().index(r, grid->ledger().firstColumn()));
        settle();
        lookAtLabels(*trace, where + ", Trace");
        for (const char* name : {"traceInputs", "traceDependents"}) {
          auto* list = find<QListWidget>(name);
          for (int i = 0; list->isVisible() && i < list->count(); ++i) {
            const QRect room = list->visualItemRect(list->item(i));
            const QString line = list->item(i)->text();
            const QRect needed =
                list->fontMetrics().boundingRect(QRect(0, 0, room.width() - 6, 10'000), Qt::TextWordWrap, line);
            ++traced_;
            if (needed.height() > room.height() || needed.width() > room.width() || room.bottom() > list->height())
              cut_.insert(where + ", Trace: '" + line.left(60).toStdString() + "'");
          }
        }
      }
      grid->horizontalScrollBar()->setValue(0);
    }
  }
  /// In letters half as large again a window of 1920 is as wide as one of 1280; Trace takes from a page what it shows.
  bool wide() {
    const auto* trace = find<QWidget>("trace");
    const int width = window_->width() - (trace->isVisible() ? trace->width() : 0);
    return width * usual_.pointSizeF() / QApplication::font().pointSizeF() >= 1280;
  }
  /// Whether a label is its buddy.
  bool named(const QWidget* control) {
    const QList<QLabel*> labels = window_->findChildren<QLabel*>();
    return std::any_of(labels.begin(), labels.end(), [&](const QLabel* l) { return l->buddy() == control; });
  }

  void lookAt(LedgerView& grid, const std::string& where) {
    LedgerModel& model = grid.ledger();
    texts_ += gridFaults(grid, where, cut_, wide());
    QFont strong = grid.font();
    strong.setBold(true);
    const int first = model.firstColumn();
    const QFontMetricsF headings(grid.horizontalHeader()->font());
    for (int c = first; c < model.columnCount(); ++c) {
      const QString heading = model.headerData(c, Qt::Horizontal, Qt::DisplayRole).toString();
      if (headings.horizontalAdvance(heading) + 4 > grid.columnWidth(c))
        cut_.insert(where + ": the heading " + heading.toStdString());
      for (int r = 0; r < model.rowCount(); ++r) {
        const LedgerCell* cell = model.cellAt(model.index(r, c));
        if (cell == nullptr || cell->words || !cell->figure.hasValue()) continue;
        ++figures_;
        const QString shown = model.index(r, c).data().toString();
        const double width =
            tabularWidth(model.ledgerRows()[static_cast<size_t>(r)].strong ? strong : grid.font(), shown);
        if (width + 8 > grid.columnWidth(c)) cut_.insert(where + ": " + shown.toStdString());
      }
    }
    const bool all = grid.horizontalHeader()->length() <= grid.viewport()->width();
    EXPECT_TRUE(all || grid.horizontalScrollBar()->maximum() > 0) << where << ": what does not fit can be scrolled to";
  }

  [[nodiscard]] QString imported(const std::string& file, const std::string& content) {
    const std::string book = folder_.file(file + ".zledger");
    const auto stored = services::Session::import(book, "co", {{file, content}}, resources_, test::testDesk());
    EXPECT_TRUE(stored) << stored.error().text();
    return text(book);
  }

  const QFont usual_ = QApplication::font();
  std::set<std::string> cut_, unnamed_, unreachable_;
  int figures_ = 0, texts_ = 0, traced_ = 0;
  bool besideTrace_ = false;
};

TEST_F(Layout, FiguresAreWholeForAnyCompanyInAnyWindow) {
  look(path(), "demo");
  int strangers = 0;
  for (const auto& entry : std::filesystem::directory_iterator(test::sourceFolder() + "/tests/corpus/strangers")) {
    const std::string file = entry.path().filename().string();
    if (entry.path().extension() != ".csv") continue;
    look(imported(file, test::fileText(entry.path().string())), file);
    ++strangers;
  }
  EXPECT_GE(strangers, 5);
  look(imported("yen.csv", firm("JPY million", "000")), "10^14 yen");
  look(imported("small.csv", firm("USD", "")), "200 thousand dollars");
  EXPECT_EQ(joined(cut_), "");
  EXPECT_GT(figures_, 10'000);
  EXPECT_GT(texts_, 5'000);
}

TEST_F(Layout, FiguresAreWholeWithFewAndManyYears) {
  for (const int years : {3, 15}) {
    ASSERT_TRUE(window_->openBook(path()));
    ASSERT_TRUE(bench().apply(services::setHorizon(bench().settled().caseOf(), years))) << status().toStdString();
    look(path(), "demo, " + std::to_string(years) + " years");
  }
  EXPECT_EQ(joined(cut_), "");
}

TEST_F(Layout, FiguresAreWholeInLargeLetters) {
  const std::string corpus = test::sourceFolder() + "/tests/corpus/strangers/";
  const QString stranger = imported("uk-turned.csv", test::fileText(corpus + "uk-turned.csv"));
  const QString yen = imported("yen.csv", firm("JPY million", "000"));
  for (const double times : {1.5, 2.0}) {
    applyTheme(*qApp, ThemeChoice::Light, static_cast<int>(100 * times));  // as the preferences do
    look(path(), "demo, letters x " + std::to_string(times));
    look(stranger, "a stranger, letters x " + std::to_string(times));
    look(yen, "10^14 yen, letters x " + std::to_string(times));
  }
  EXPECT_EQ(joined(cut_), "");
}

TEST_F(Layout, WhatTraceSaysIsWholeAndSoIsThePageBesideIt) {
  besideTrace_ = true;
  look(path(), "demo");
  const std::string corpus = test::sourceFolder() + "/tests/corpus/strangers/";
  look(imported("uk-turned.csv", test::fileText(corpus + "uk-turned.csv")), "a stranger");
  EXPECT_EQ(joined(cut_), "");
  EXPECT_GT(traced_, 1'000);
}

TEST_F(Layout, EveryControlHasANameAndIsReachedByTab) {
  look(path(), "demo");
  EXPECT_THAT(unnamed_, testing::IsEmpty());
  EXPECT_THAT(unreachable_, testing::IsEmpty());
}

}  // namespace
}  // namespace zl::app
