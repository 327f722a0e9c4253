// What stands on the screen after an edit. A grid paints only the rows that look otherwise; expected is the picture
// that painting everything anew gives, on every page and view.

#include <QScreen>

#include "services/edits/edits.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

class Painted : public WindowFixture {
 protected:
  void SetUp() override {
    flash_ = QApplication::cursorFlashTime();
    QApplication::setCursorFlashTime(0);  // a blinking cursor is no difference
    WindowFixture::SetUp();
  }
  void TearDown() override { QApplication::setCursorFlashTime(flash_); }

  /// What is shown and not what would be painted if it were asked for now.
  QImage onScreen() {
    for (int turn = 0; turn < 4; ++turn) QCoreApplication::processEvents();
    return window_->screen()->grabWindow(window_->winId()).toImage();
  }
  QImage paintedAnew() {
    for (QWidget* widget : window_->findChildren<QWidget*>()) widget->update();
    return onScreen();
  }

  int flash_ = 0;
};

TEST_F(Painted, AfterEveryEditTheScreenIsWhatPaintingAllAnewGives) {
  const Provenance said{"tried", "tester", "2026-05-01T12:00:00Z"};
  const auto base = [&]() -> const services::Snapshot& { return bench().now(); };
  double level = 0.02;
  const std::vector<std::function<void()>> edits{
      [&] {
        Path path;
        path.level = level += 0.003;
        bench().apply(services::setDriver(base().caseOf(), base().model(), "base", "revenue_growth", path, said));
      },
      [&] { bench().apply(services::setExceptional(base().caseOf(), 2020, "closed for a quarter")); },
      [&] {
        const PeerRow& peer = base().crossCheck.rows.front();
        const Multiple m = base().crossCheck.multiples.front();
        bench().apply(services::setPeerChoice(base().caseOf(), peerChoiceKey(peer.id, m), "in or out",
                                              PeerChoice{!peer.cells.at(m).in, "tried"}));
      },
      [&] { bench().undo(); },
      [&] {
        auto* unit = find<QComboBox>("amountUnit");
        unit->setCurrentIndex((unit->currentIndex() + 1) % unit->count());
        Q_EMIT unit->activated(unit->currentIndex());
      }};
  int views = 0, changed = 0;
  for (const Qt::Key key : kPageKeys) {
    go(key);
    eachView([&] {
      for (const auto& edit : edits) {
        const QImage before = onScreen();
        edit();
        const QImage shown = onScreen();
        ASSERT_GT(coloursIn(shown), 4) << "a screen that cannot be read shows nothing";
        changed += shown == before ? 0 : 1;
        const QImage anew = paintedAnew();
        EXPECT_TRUE(shown == anew) << "page " << static_cast<int>(key) - Qt::Key_0 << ", view " << views;
      }
      ++views;
    });
  }
  EXPECT_GT(views, 25);
  EXPECT_GT(changed, 2 * views) << "edits that change no picture prove nothing";
}

}  // namespace
}  // namespace zl::app
