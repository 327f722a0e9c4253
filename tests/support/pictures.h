#pragma once
// What can be told of a picture without looking at it.

#include <QImage>
#include <set>

namespace zl::app {

/// Different colours among every third pixel: an empty drawing has one or two.
inline int coloursIn(const QImage& picture) {
  std::set<QRgb> seen;
  for (int y = 0; y < picture.height(); y += 3) {
    for (int x = 0; x < picture.width(); x += 3) seen.insert(picture.pixel(x, y));
  }
  return static_cast<int>(seen.size());
}

}  // namespace zl::app
