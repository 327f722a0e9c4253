// Texts within charts, measured by a paint device that records what is drawn: none lies over another, none is cut, and
// each can be read against what is beneath it, in both papers, for the demo and for strangers of the corpus.

#include <gmock/gmock.h>

#include <set>

#include "app/charts/line_board.h"
#include "app/charts/telling_chart.h"
#include "app/frame/value_rail.h"
#include "app/look/theme.h"
#include "services/sessions/session.h"
#include "tests/support/files.h"
#include "tests/support/source_folder.h"
#include "tests/support/text_recorder.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

bool isDrawn(const QWidget* w) {
  return qobject_cast<const TellingChart*>(w) != nullptr || qobject_cast<const PathBoard*>(w) != nullptr ||
         qobject_cast<const LineBoard*>(w) != nullptr || qobject_cast<const ValueRail*>(w) != nullptr;
}

/// Two texts lie over each other, not merely beside.
bool overlap(const DrawnText& a, const DrawnText& b, double stretch) {
  constexpr double kTouch = 1.5;  // letters lean over their box by as much
  QRectF wide = a.rect;
  wide.setWidth(wide.width() * stretch);
  const QRectF both = wide.intersected(b.rect);
  return both.width() > kTouch && both.height() > kTouch + a.rect.height() / 4;
}

class DrawnTexts : public WindowFixture {
 protected:
  void TearDown() override { applyTheme(*qApp, ThemeChoice::Light); }

  void lookAtCharts(const std::string& where, double stretch = 1) {
    for (QWidget* chart : window_->findChildren<QWidget*>()) {
      if (!chart->isVisible() || !isDrawn(chart)) continue;
      const std::string name = where + ", " + chart->objectName().toStdString();
      const std::vector<DrawnText> texts = textsDrawnBy(*chart);
      for (size_t i = 0; i < texts.size(); ++i) {
        ++texts_;
        if (!texts[i].clip.adjusted(-1, -2, 1, 2).contains(texts[i].rect))
          faults_.insert(name + ": cut '" + texts[i].text.toStdString() + "'");
        for (size_t k = i + 1; k < texts.size(); ++k) {
          if (overlap(texts[i], texts[k], stretch))
            faults_.insert(name + ": '" + texts[i].text.toStdString() + "' over '" + texts[k].text.toStdString() + "'");
        }
      }
    }
  }

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
  int texts_ = 0;
};

TEST_F(DrawnTexts, NoneInAnyChartLiesOverAnotherOrIsCut) {
  for (const QSize size : {QSize(1280, 800), QSize(1920, 1080)}) {
    window_->resize(size);
    eachPage([&](const std::string& where) { lookAtCharts(where); }, "demo " + std::to_string(size.width()));
  }
  window_->resize(1280, 800);
  for (const char* file : {"us-by-function.csv", "japanese.csv"}) {
    const std::string book = folder_.file(std::string(file) + ".zledger");
    const auto stored = services::Session::import(
        book, "co", {{file, test::fileText(test::sourceFolder() + "/tests/corpus/strangers/" + file)}}, resources_,
        test::testDesk());
    ASSERT_TRUE(stored) << stored.error().text();
    ASSERT_TRUE(window_->openBook(text(book)));
    eachPage([&](const std::string& where) { lookAtCharts(where); }, file);
  }
  EXPECT_THAT(faults_, testing::IsEmpty());
  EXPECT_GT(texts_, 500);
}

TEST_F(DrawnTexts, LabelsWiderByAThirdWouldBeNoticed) {
  go(Qt::Key_4);
  lookAtCharts("demo", 3);
  EXPECT_THAT(faults_, testing::Not(testing::IsEmpty()));
}

TEST_F(DrawnTexts, EveryTextCanBeReadInBothPapers) {
  for (const ThemeChoice paper : {ThemeChoice::Light, ThemeChoice::Dark}) {
    applyTheme(*qApp, paper);
    Q_EMIT bench().changed();  // as choosing another paper does
    QCoreApplication::processEvents();
    eachPage([&](const std::string& where) { lookAtContrast(where); }, paper == ThemeChoice::Dark ? "dark" : "light");
  }
  EXPECT_THAT(faint_, testing::IsEmpty());
}

}  // namespace
}  // namespace zl::app
