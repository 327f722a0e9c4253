#include "app/look/theme.h"

#include <QFontDatabase>
#include <QPalette>
#include <QPolygonF>
#include <QStyleHints>

#include "app/look/ledger_style.h"
#include "core/text/utf8.h"

namespace zl::app {
namespace {

Theme lightTheme() {
  Theme t;
  t.paper = QColor(0xFB, 0xF9, 0xF4);
  t.panel = QColor(0xF3, 0xEF, 0xE6);
  t.ink = QColor(0x22, 0x25, 0x2B);
  t.quiet = QColor(0x5E, 0x61, 0x68);
  t.assumed = QColor(0x8A, 0x5C, 0x08);
  t.rule = QColor(0xEB, 0xE6, 0xDA);
  t.wideRule = QColor(0xCF, 0xC7, 0xB5);
  t.accent = QColor(0x14, 0x77, 0x6F);
  t.price = QColor(0xA8, 0x38, 0x28);
  t.selection = QColor(0xDD, 0xEA, 0xE6);
  t.fault = QColor(0xA8, 0x38, 0x28);
  t.chosenBand = QColor(0xF1, 0xE9, 0xD2);
  t.worst = QColor(0x6B, 0x5B, 0x95);
  t.base = QColor(0x14, 0x77, 0x6F);
  t.best = QColor(0x5A, 0x6B, 0x16);
  return t;
}

Theme darkTheme() {
  Theme t;
  t.dark = true;
  t.paper = QColor(0x1D, 0x1E, 0x21);
  t.panel = QColor(0x25, 0x26, 0x2A);
  t.ink = QColor(0xE9, 0xE5, 0xDB);
  t.quiet = QColor(0xA8, 0xA6, 0x9E);
  t.assumed = QColor(0xDB, 0xA8, 0x4A);
  t.rule = QColor(0x2C, 0x2D, 0x32);
  t.wideRule = QColor(0x45, 0x47, 0x4E);
  t.accent = QColor(0x4F, 0xB9, 0xAD);
  t.price = QColor(0xE5, 0x80, 0x6C);
  t.selection = QColor(0x2B, 0x40, 0x3E);
  t.fault = QColor(0xE5, 0x80, 0x6C);
  t.chosenBand = QColor(0x35, 0x31, 0x24);
  t.worst = QColor(0xAC, 0x9E, 0xD6);
  t.base = QColor(0x4F, 0xB9, 0xAD);
  t.best = QColor(0xB1, 0xC4, 0x5E);
  return t;
}

Theme& current() {
  static Theme t = lightTheme();
  return t;
}

}  // namespace

const Theme& theme() {
  return current();
}

QColor Theme::scenario(const QString& id) const {
  if (id == QLatin1String("worst")) return worst;
  if (id == QLatin1String("base")) return base;
  if (id == QLatin1String("best")) return best;
  return quiet;
}

void applyTheme(QApplication& application, ThemeChoice choice, int textPercent) {
  static const bool systemDark = application.palette().color(QPalette::Window).lightness() < 128;
  const bool dark = choice == ThemeChoice::Dark || (choice == ThemeChoice::System && systemDark);
  current() = dark ? darkTheme() : lightTheme();
  const Theme& t = theme();
  QApplication::setStyle(new LedgerStyle);
  QPalette p;
  p.setColor(QPalette::Window, t.panel);
  p.setColor(QPalette::Base, t.paper);
  p.setColor(QPalette::AlternateBase, t.panel);
  p.setColor(QPalette::Text, t.ink);
  p.setColor(QPalette::WindowText, t.ink);
  p.setColor(QPalette::Button, t.panel);
  p.setColor(QPalette::ButtonText, t.ink);
  p.setColor(QPalette::ToolTipBase, t.paper);
  p.setColor(QPalette::ToolTipText, t.ink);
  p.setColor(QPalette::Highlight, t.accent);
  p.setColor(QPalette::HighlightedText, t.paper);
  p.setColor(QPalette::PlaceholderText, t.quiet);
  p.setColor(QPalette::Link, t.accent);
  p.setColor(QPalette::Mid, t.wideRule);
  p.setColor(QPalette::Light, t.paper);
  p.setColor(QPalette::Dark, t.wideRule);
  for (QPalette::ColorRole role : {QPalette::Text, QPalette::WindowText, QPalette::ButtonText}) {
    p.setColor(QPalette::Disabled, role, t.quiet);
  }
  // A list that is not being worked in shows its place quietly.
  p.setColor(QPalette::Inactive, QPalette::Highlight, t.selection);
  p.setColor(QPalette::Inactive, QPalette::HighlightedText, t.ink);
  QApplication::setPalette(p);
  QFont font(QStringLiteral("Inter"));
  font.setPointSizeF(9.5 * textPercent / 100);
  // Kerning and ligatures are looked up for each text anew, which is a fifth of a window's time; scripts that cannot be
  // read without shaping are shaped all the same.
  font.setStyleStrategy(QFont::PreferNoShaping);
  QApplication::setFont(font);
}

void drawScenarioMark(QPainter& painter, const QString& id, QPointF c, double size, bool filled) {
  QPolygonF shape;
  const double h = size / 2;
  if (id == QLatin1String("worst")) {
    shape << QPointF(c.x() - h, c.y() - h) << QPointF(c.x() + h, c.y() - h) << QPointF(c.x(), c.y() + h);
  } else if (id == QLatin1String("base")) {
    shape << QPointF(c.x(), c.y() - h) << QPointF(c.x() + h, c.y()) << QPointF(c.x(), c.y() + h)
          << QPointF(c.x() - h, c.y());
  } else if (id == QLatin1String("best")) {
    shape << QPointF(c.x() - h, c.y() + h) << QPointF(c.x() + h, c.y() + h) << QPointF(c.x(), c.y() - h);
  } else {
    shape << QPointF(c.x() - h, c.y() - h) << QPointF(c.x() + h, c.y() - h) << QPointF(c.x() + h, c.y() + h)
          << QPointF(c.x() - h, c.y() + h);
  }
  const QColor color = theme().scenario(id);
  painter.setPen(QPen(color, 1.4));
  painter.setBrush(filled ? QBrush(color) : QBrush(theme().paper));
  painter.drawPolygon(shape);
}

QString text(const std::string& s) {
  std::string shown = harmless(s, true);
  return QString::fromUtf8(shown.data(), static_cast<qsizetype>(shown.size()));
}

QString counted(int count, const QString& one, const QString& many) {
  return QString::number(count) + QLatin1Char(' ') + (count == 1 ? one : many);
}

}  // namespace zl::app
