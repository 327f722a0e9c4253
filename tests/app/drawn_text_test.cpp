// Every text that is drawn can be read against what is beneath it, in both papers, for the demo and a stranger,
// measured from the window's pixels. (That none lies over another and none is cut is asked in layout_test.)

#include <gmock/gmock.h>

#include <set>

#include "app/look/theme.h"
#include "services/sessions/session.h"
#include "tests/support/chart_texts.h"
#include "tests/support/files.h"
#include "tests/support/grid_texts.h"
#include "tests/support/source_folder.h"
#include "tests/support/text_recorder.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

class DrawnTexts : public WindowFixture {
 protected:
  void TearDown() override { applyTheme(*qApp, ThemeChoice::Light); }

  void lookAtContrast(const std::string& where) {
    const QImage window = window_->grab().toImage();
    for (QWidget* w : window_->findChildren<QWidget*>()) {
      const bool shows = isDrawn(w) || qobject_cast<QLabel*>(w) != nullptr ||
                         qobject_cast<QAbstractButton*>(w) != nullptr ||
                         w->objectName() == QLatin1String("qt_scrollarea_viewport");
      if (!w->isVisible() || !shows || !w->isEnabled() || w->width() < 4) continue;
      // As the window shows it: what lies beneath is its parents'.
      const QImage picture = window.copy(QRect(w->mapTo(window_.get(), QPoint(0, 0)), w->size()));
      const QRegion seen = w->visibleRegion();
      for (const DrawnText& text : textsDrawnBy(*w)) {
        // The one letter that a key is told by is drawn apart from its word, whose contrast is looked at.
        if (text.text.size() < 2 && qobject_cast<QAbstractButton*>(w) != nullptr) continue;
        // What is scrolled out of sight is not in the picture.
        if (!seen.boundingRect().contains(text.rect.toAlignedRect())) continue;
        const double contrast = contrastOf(text, picture);
        if (contrast < 4.5 && text.clip.intersects(text.rect)) {
          faint_.insert(where + ", " + w->objectName().toStdString() + " of " + w->metaObject()->className() + ": '" +
                        text.text.left(30).toStdString() + "' " + std::to_string(contrast));
        }
      }
    }
  }

  void eachPage(const std::function<void(const std::string&)>& look, const std::string& name) {
    for (const Qt::Key page : kPageKeys) {
      go(page);
      QCoreApplication::processEvents();
      const std::string where = name + ", page " + std::to_string(page - Qt::Key_0);
      look(where);
      for (QPushButton* word : window_->findChildren<QPushButton*>()) {
        if (!word->isVisible() || !word->objectName().startsWith(QLatin1String("sub.")) || word->isChecked()) continue;
        word->click();
        QCoreApplication::processEvents();
        look(where + ", " + word->text().toStdString());
      }
    }
  }

  std::set<std::string> faults_, faint_;
};

TEST_F(DrawnTexts, LabelsWiderByThreeTenthsWouldBeNoticed) {
  constexpr double kWider = 1.3;
  std::set<std::string> inGrids;
  eachPage(
      [&](const std::string& where) {
        chartFaults(*window_, where, faults_, false, kWider);
        for (LedgerView* grid : window_->findChildren<LedgerView*>()) {
          if (grid->isVisible()) gridFaults(*grid, where, inGrids, true, kWider);
        }
      },
      "demo");
  EXPECT_THAT(faults_, testing::Not(testing::IsEmpty()));
  EXPECT_GT(inGrids.size(), 20U);
}

TEST_F(DrawnTexts, EveryTextCanBeReadInBothPapers) {
  const std::string book = folder_.file("stranger.zledger");
  const auto stored = services::Session::import(
      book, "co", {{"uk-turned.csv", test::fileText(test::sourceFolder() + "/tests/corpus/strangers/uk-turned.csv")}},
      resources_, test::testDesk());
  ASSERT_TRUE(stored) << stored.error().text();
  const QString stranger = text(book);
  for (const ThemeChoice paper : {ThemeChoice::Light, ThemeChoice::Dark}) {
    applyTheme(*qApp, paper);
    Q_EMIT bench().changed();  // as choosing another paper does
    QCoreApplication::processEvents();
    const std::string name = paper == ThemeChoice::Dark ? "dark" : "light";
    ASSERT_TRUE(window_->openBook(path()));
    eachPage([&](const std::string& where) { lookAtContrast(where); }, name);
    ASSERT_TRUE(window_->openBook(stranger));
    eachPage([&](const std::string& where) { lookAtContrast(where); }, name + ", a stranger");
  }
  EXPECT_THAT(faint_, testing::IsEmpty());
}

}  // namespace
}  // namespace zl::app
