#pragma once
// Ledger paper, light and dark. Scenario colours are told apart by mark shape and label as well.

#include <QApplication>
#include <QColor>
#include <QPainter>
#include <QString>

namespace zl::app {

struct Theme {
  bool dark = false;
  QColor paper, panel, ink, quiet, assumed, rule, wideRule, accent, price, selection, fault, chosenBand;
  QColor worst, base, best;

  [[nodiscard]] QColor scenario(const QString& id) const;
};

const Theme& theme();

enum class ThemeChoice { System, Light, Dark };
/// Sets palette, font and style for the whole application; text in per cent of its usual size.
void applyTheme(QApplication& application, ThemeChoice choice, int textPercent = 100);

/// The mark of a scenario: triangle down for worst, diamond for base, triangle up for best,
/// a square for any other.
void drawScenarioMark(QPainter& painter, const QString& id, QPointF centre, double size, bool filled = true);

/// "1 finding", "3 findings": the noun with its count.
QString counted(int count, const QString& one, const QString& many);

/// Text of the layers below as it is shown: it steers nothing (core/text/utf8.h).
QString text(const std::string& s);

}  // namespace zl::app
