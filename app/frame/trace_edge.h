#pragma once
// The edge of the window where the trace is folded away: a click or a key opens it.

#include <QAbstractButton>

namespace zl::app {

class TraceEdge : public QAbstractButton {
 public:
  explicit TraceEdge(QWidget* parent = nullptr);
  [[nodiscard]] QSize sizeHint() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;
};

}  // namespace zl::app
