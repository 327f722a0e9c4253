#pragma once
// The real window on a fresh copy of the demo book; dialogs answer what the test has chosen.

#include <gtest/gtest.h>

#include <QAbstractButton>
#include <QApplication>
#include <QComboBox>
#include <QImage>
#include <QLabel>
#include <QLineEdit>
#include <QPrinter>
#include <QPushButton>
#include <QSettings>
#include <QStatusBar>
#include <QTest>
#include <algorithm>
#include <cmath>
#include <set>

#include "app/charts/path_board.h"
#include "app/frame/main_window.h"
#include "app/grid/ledger_view.h"
#include "app/pages/import_panel.h"
#include "tests/support/demo_book.h"
#include "tests/support/files.h"
#include "tests/support/pictures.h"

namespace zl::app {

class WindowFixture : public test::DemoBook {
 protected:
  /// Each test begins as someone new to the machine: what another test left open or chosen is not kept.
  WindowFixture() { QSettings().clear(); }
  void SetUp() override {
    DemoBook::SetUp();
    start();
    ASSERT_TRUE(window_->openBook(path()));
    waitForPages();
  }
  /// Those that are made after the first picture.
  void waitForPages() {
    auto* pages = find<PageStack>("pages");
    ASSERT_TRUE(QTest::qWaitFor([&] { return pages->isWhole(); }, kLongest));
  }

  void start(bool sized = true) {
    Dialogs dialogs;
    dialogs.openBook = [this](QWidget*) { return chosenBook_; };
    dialogs.newBook = [this](QWidget*) { return chosenBook_; };
    dialogs.openFiles = [this](QWidget*) { return chosenFiles_; };
    dialogs.openCase = dialogs.saveCase = [this](QWidget*) { return chosenCase_; };
    dialogs.saveChart = dialogs.saveTable = dialogs.saveDrawing = [this](QWidget*) { return chosenChart_; };
    dialogs.print = [this](QWidget*, QPrinter& printer) {
      printer.setOutputFormat(QPrinter::PdfFormat);
      printer.setOutputFileName(chosenChart_);
      return !chosenChart_.isEmpty();
    };
    dialogs.confirm = [this](QWidget*, const QString& question) {
      asked_ = question;
      return confirms_;
    };
    dialogs.companyName = [](QWidget*) { return QStringLiteral("Fresh"); };
    window_ = std::make_unique<MainWindow>(resources_, test::testDesk(), dialogs);
    if (sized) window_->resize(1280, 800);
    window_->show();
    window_->activateWindow();
    ASSERT_TRUE(QTest::qWaitForWindowActive(window_.get()));
  }

  [[nodiscard]] QString path() const { return text(book()); }
  template <class T>
  T* find(const char* name) {
    T* found = window_->findChild<T*>(QString::fromLatin1(name));
    if (found == nullptr) ADD_FAILURE() << "no control called " << name;
    return found;
  }
  void press(QWidget* w, Qt::Key key, Qt::KeyboardModifiers m = Qt::NoModifier) { QTest::keyClick(w, key, m); }
  void go(Qt::Key number) {
    ASSERT_EQ(QApplication::activeWindow(), window_.get());
    QTest::keyClick(window_.get(), number, Qt::AltModifier);
  }
  /// Another view of the page shown, by its name.
  void turnTo(const char* view) {
    for (QPushButton* word : window_->findChildren<QPushButton*>(QStringLiteral("sub.") + QString::fromLatin1(view))) {
      if (word->isVisible()) return QTest::mouseClick(word, Qt::LeftButton);
    }
    ADD_FAILURE() << "no view called " << view;
  }
  /// Each view of the page shown in turn, its first one last.
  template <class Look>
  void eachView(const Look& look) {
    look();
    QPushButton* first = nullptr;
    for (QPushButton* word : window_->findChildren<QPushButton*>()) {
      if (!word->isVisible() || !word->objectName().startsWith(QLatin1String("sub."))) continue;
      if (word->isChecked()) {
        first = word;
        continue;
      }
      word->click();
      QCoreApplication::processEvents();
      look();
    }
    if (first != nullptr) first->click();
  }
  /// On the page shown, where it is folded away.
  void openTrace() {
    auto* edge = find<QAbstractButton>("traceEdge");
    if (edge->isVisible()) QTest::mouseClick(edge, Qt::LeftButton);
  }
  /// Waits until files offered have been read or refused.
  void waitForReading() {
    for (ImportPanel* panel : window_->findChildren<ImportPanel*>()) {
      ASSERT_TRUE(QTest::qWaitFor([&] { return !panel->isReading(); }, kLongest));
    }
  }
  double base(const char* row = "value_per_share") { return bench().now().evaluation->constant(row, 1).value(); }
  Workbench& bench() { return window_->bench(); }
  QString status() { return window_->statusBar()->currentMessage(); }
  QString railSays() { return find<QWidget>("valueRail")->accessibleDescription(); }
  /// Puts the cursor of a grid on the row of a key and a figure column.
  void place(LedgerView* grid, const QString& key, int column) {
    const auto& rows = grid->ledger().ledgerRows();
    for (size_t r = 0; r < rows.size(); ++r) {
      if (rows[r].key != key) continue;
      grid->setFocus();
      grid->setCurrentIndex(grid->ledger().index(static_cast<int>(r), column + grid->ledger().firstColumn()));
      return;
    }
    ADD_FAILURE() << "no row " << key.toStdString();
  }
  /// Types over the current cell the way a person does and leaves with Enter.
  void typeOver(LedgerView* grid, const QString& figure) {
    QTest::keyClicks(grid, figure.left(1));
    QWidget* editor = QApplication::focusWidget();
    const bool opened = qobject_cast<QLineEdit*>(editor) != nullptr || qobject_cast<QComboBox*>(editor) != nullptr;
    ASSERT_TRUE(opened) << "typing did not open the cell";
    QTest::keyClicks(editor, figure.mid(1));
    QTest::keyClick(editor, Qt::Key_Return);
    // The grid takes the text on the next turn of the loop, a page that refills it on the one after.
    for (int turn = 0; turn < 2; ++turn) QCoreApplication::processEvents();
  }

  static double luminance(const QColor& c) {
    const auto linear = [](double x) { return x <= 0.03928 ? x / 12.92 : std::pow((x + 0.055) / 1.055, 2.4); };
    return 0.2126 * linear(c.redF()) + 0.7152 * linear(c.greenF()) + 0.0722 * linear(c.blueF());
  }
  /// Contrast ratio of WCAG 2.1.
  static double contrast(const QColor& a, const QColor& b) {
    const double x = luminance(a);
    const double y = luminance(b);
    return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
  }

  /// What a machine with other work may take, in ms; who waits in vain for less has not found a fault.
  static constexpr int kLongest = 60'000;
  static constexpr Qt::Key kPageKeys[] = {Qt::Key_1, Qt::Key_2, Qt::Key_3, Qt::Key_4,
                                          Qt::Key_5, Qt::Key_6, Qt::Key_7, Qt::Key_9};
  QString chosenBook_, chosenCase_, chosenChart_, asked_;
  bool confirms_ = true;
  QStringList chosenFiles_;
  std::unique_ptr<MainWindow> window_;
};

}  // namespace zl::app
