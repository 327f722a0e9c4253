#pragma once
// How the platform's controls are drawn on ledger paper. A style of its own, not a style sheet: a sheet would be
// matched against each of a window's thousand widgets whenever one is made, moved or painted.

#include <QProxyStyle>

namespace zl::app {

/// Headings as a line of quiet words over a rule, splitters as a rule, lists on the ground that they lie on.
class LedgerStyle : public QProxyStyle {
  Q_OBJECT

 public:
  LedgerStyle();
  void polish(QWidget* widget) override;
  using QProxyStyle::polish;
  void drawControl(ControlElement element, const QStyleOption* option, QPainter* painter,
                   const QWidget* widget) const override;
  [[nodiscard]] int pixelMetric(PixelMetric metric, const QStyleOption* option, const QWidget* widget) const override;
};

}  // namespace zl::app
