#pragma once
// A point of the path board dragged by the mouse: each turn one move, painted.

#include <benchmark/benchmark.h>

#include <QCoreApplication>
#include <QMouseEvent>
#include <cstdlib>

#include "app/charts/path_board.h"
#include "app/frame/main_window.h"

namespace zl::bench {

/// Pages that are made after the first picture are no part of what is measured.
inline void waitForPages(app::MainWindow& window) {
  const auto* pages = window.findChild<app::PageStack*>();
  while (!pages->isWhole()) QCoreApplication::processEvents();
}

inline void drag(benchmark::State& state, app::MainWindow& window) {
  waitForPages(window);
  window.bench().goTo(Stop::Outlook);
  QCoreApplication::processEvents();
  auto* board = window.findChild<app::PathBoard*>();
  const auto send = [&](QEvent::Type type, QPointF at, Qt::MouseButtons buttons) {
    QMouseEvent event(type, at, board->mapToGlobal(at), Qt::LeftButton, buttons, Qt::NoModifier);
    QCoreApplication::sendEvent(board, &event);
  };
  const QPointF point = board->pointOf(4);
  send(QEvent::MouseButtonPress, point, Qt::LeftButton);
  int moves = 0;
  for (auto _ : state) {
    send(QEvent::MouseMove, point - QPointF(0, 5 + moves++ % 40), Qt::LeftButton);
    QCoreApplication::processEvents();  // repaints what the move has changed
  }
  if (!window.bench().isPreviewing()) std::abort();
  send(QEvent::MouseButtonRelease, point, Qt::NoButton);
}

}  // namespace zl::bench
