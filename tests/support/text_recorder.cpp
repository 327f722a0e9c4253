#include "tests/support/text_recorder.h"

#include <QPaintEngine>
#include <QPainter>
#include <algorithm>
#include <cmath>
#include <map>

namespace zl::app {
namespace {

class Recorder : public QPaintEngine {
 public:
  Recorder() : QPaintEngine(AllFeatures) {}
  bool begin(QPaintDevice*) override { return true; }
  bool end() override { return true; }
  void updateState(const QPaintEngineState&) override {}
  void drawPixmap(const QRectF&, const QPixmap&, const QRectF&) override {}
  void drawPolygon(const QPointF*, int, PolygonDrawMode) override {}
  void drawPath(const QPainterPath&) override {}
  [[nodiscard]] Type type() const override { return User; }

  void drawTextItem(const QPointF& at, const QTextItem& item) override {
    if (item.text().trimmed().isEmpty()) return;
    const QTransform to = painter()->combinedTransform();
    DrawnText drawn;
    drawn.text = item.text();
    drawn.rect = to.mapRect(QRectF(at.x(), at.y() - item.ascent(), item.width(), item.ascent() + item.descent()));
    drawn.clip = painter()->hasClipping() ? to.mapRect(painter()->clipBoundingRect()) : QRectF();
    drawn.colour = painter()->pen().color();
    texts.push_back(std::move(drawn));
  }

  std::vector<DrawnText> texts;
};

class RecordingDevice : public QPaintDevice {
 public:
  explicit RecordingDevice(const QWidget& of) : size_(of.size()), dpi_(of.logicalDpiX()) {}
  [[nodiscard]] QPaintEngine* paintEngine() const override { return &engine; }
  mutable Recorder engine;

 protected:
  [[nodiscard]] int metric(PaintDeviceMetric which) const override {
    switch (which) {
      case PdmWidth:
        return size_.width();
      case PdmHeight:
        return size_.height();
      case PdmDevicePixelRatio:
        return 1;
      case PdmDevicePixelRatioScaled:
        return static_cast<int>(devicePixelRatioFScale());
      case PdmDepth:
        return 32;
      case PdmNumColors:
        return 1 << 24;
      case PdmWidthMM:
        return size_.width() * 254 / (dpi_ * 10);
      case PdmHeightMM:
        return size_.height() * 254 / (dpi_ * 10);
      default:
        return dpi_;
    }
  }

 private:
  QSize size_;
  int dpi_;
};

/// Relative luminance, WCAG 2.1.
double luminance(const QColor& c) {
  const auto linear = [](double x) { return x <= 0.04045 ? x / 12.92 : std::pow((x + 0.055) / 1.055, 2.4); };
  return 0.2126 * linear(c.redF()) + 0.7152 * linear(c.greenF()) + 0.0722 * linear(c.blueF());
}

}  // namespace

std::vector<DrawnText> textsDrawnBy(QWidget& widget) {
  RecordingDevice device(widget);
  widget.render(&device, {}, {}, QWidget::RenderFlags());
  const QRectF whole(widget.rect());
  for (DrawnText& t : device.engine.texts) t.clip = t.clip.isNull() ? whole : t.clip.intersected(whole);
  return std::move(device.engine.texts);
}

double contrastOf(const DrawnText& drawn, const QImage& picture) {
  // A little wider than the text, so that no thick letter is taken for what it stands on.
  const QRect beneath = drawn.rect.adjusted(-6, -2, 6, 2).toAlignedRect().intersected(picture.rect());
  std::map<QRgb, int> counts;
  for (int y = beneath.top(); y <= beneath.bottom(); ++y) {
    for (int x = beneath.left(); x <= beneath.right(); ++x) ++counts[picture.pixel(x, y)];
  }
  const auto most =
      std::max_element(counts.begin(), counts.end(), [](const auto& a, const auto& b) { return a.second < b.second; });
  if (most == counts.end()) return 21;  // nothing of it is seen
  const QColor ground(most->first);
  const double a = drawn.colour.alphaF();
  const QColor ink = QColor::fromRgbF(static_cast<float>(drawn.colour.redF() * a + ground.redF() * (1 - a)),
                                      static_cast<float>(drawn.colour.greenF() * a + ground.greenF() * (1 - a)),
                                      static_cast<float>(drawn.colour.blueF() * a + ground.blueF() * (1 - a)));
  const double high = std::max(luminance(ink), luminance(ground));
  const double low = std::min(luminance(ink), luminance(ground));
  return (high + 0.05) / (low + 0.05);
}

}  // namespace zl::app
