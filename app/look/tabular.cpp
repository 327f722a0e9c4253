#include "app/look/tabular.h"

#include <QGlyphRun>
#include <QGuiApplication>
#include <QPaintEngine>
#include <QRawFont>
#include <QScreen>
#include <algorithm>
#include <array>
#include <deque>
#include <utility>

namespace zl::app {
namespace {

bool isDigit(QChar c) {
  return c >= QLatin1Char('0') && c <= QLatin1Char('9');
}

/// What figures are made of, measured once a font.
struct Glyphs {
  QFont font;
  QFontMetricsF metrics;
  QRawFont raw;
  std::array<quint32, 128> index{};  ///< 0 for what the font's own file does not have
  std::array<double, 128> advance{};
  double digit = 0;

  explicit Glyphs(const QFont& f) : font(f), metrics(f), raw(QRawFont::fromFont(f)) {
    for (char16_t c = u' '; c < 127; ++c) {
      advance[c] = metrics.horizontalAdvance(QChar(c));
      const QList<quint32> found = raw.glyphIndexesForString(QString(QChar(c)));
      if (found.size() == 1) index[c] = found.front();
      if (isDigit(QChar(c))) digit = std::max(digit, advance[c]);
    }
  }

  [[nodiscard]] double advanceOf(QChar c) const {
    return c.unicode() < 128 ? advance[c.unicode()] : metrics.horizontalAdvance(c);
  }
  [[nodiscard]] double cellOf(QChar c) const { return isDigit(c) ? digit : advanceOf(c); }
  [[nodiscard]] double widthOf(const QString& text) const {
    double width = 0;
    for (QChar c : text) width += cellOf(c);
    return width;
  }
};

/// A window shows a handful of fonts; the least used goes when there are more.
const Glyphs& glyphsOf(const QFont& font) {
  constexpr size_t kKept = 12;
  thread_local std::deque<Glyphs> kept;
  const auto found = std::find_if(kept.begin(), kept.end(), [&](const Glyphs& g) { return g.font == font; });
  if (found == kept.end()) {
    if (kept.size() == kKept) kept.pop_back();
    kept.emplace_front(font);
  } else if (found != kept.begin()) {
    std::swap(*found, kept.front());
  }
  return kept.front();
}

/// Pixels take glyphs at once; a printer, a drawing or whatever else records what is drawn is given text.
bool takesGlyphs(const QPainter& painter) {
  const QFont& font = painter.font();
  const QScreen* screen = QGuiApplication::primaryScreen();
  return painter.paintEngine()->type() == QPaintEngine::Raster && !font.strikeOut() && !font.underline() &&
         screen != nullptr && painter.device()->logicalDpiY() == qRound(screen->logicalDotsPerInchY());
}

}  // namespace

double tabularWidth(const QFont& font, const QString& text) {
  return glyphsOf(font).widthOf(text);
}

void drawTabular(QPainter& painter, const QRectF& rect, const QString& text, Qt::Alignment alignment) {
  const Glyphs& glyphs = glyphsOf(painter.font());
  double x = rect.left();
  if (alignment & Qt::AlignRight) x = rect.right() - glyphs.widthOf(text);
  if (alignment & Qt::AlignHCenter) x = rect.center().x() - glyphs.widthOf(text) / 2;
  const double y = rect.center().y() + (glyphs.metrics.ascent() - glyphs.metrics.descent()) / 2;
  const bool whole = takesGlyphs(painter);
  QList<quint32> indexes;
  QList<QPointF> places;
  for (QChar c : text) {
    const double natural = glyphs.advanceOf(c);
    const double cell = glyphs.cellOf(c);
    const QPointF at(x + (cell - natural) / 2, y);
    if (whole && c.unicode() < 128 && glyphs.index[c.unicode()] != 0) {
      indexes << glyphs.index[c.unicode()];
      places << at;
    } else {
      painter.drawText(at, QString(c));
    }
    x += cell;
  }
  if (indexes.isEmpty()) return;
  QGlyphRun run;
  run.setRawFont(glyphs.raw);
  run.setGlyphIndexes(indexes);
  run.setPositions(places);
  painter.drawGlyphRun({}, run);
}

}  // namespace zl::app
