#include "core/outlook/path.h"

#include <cmath>

namespace zl {
namespace {

Figure stated(const std::optional<double>& number, const Figure& otherwise) {
  return number ? Figure::of(*number) : otherwise;
}

}  // namespace

std::vector<Figure> figuresOf(const Path& path, const Figure& lastActual, int years) {
  std::vector<Figure> x(static_cast<size_t>(years));
  const Figure start = stated(path.start, lastActual);
  const Figure level = stated(path.level, lastActual);
  Figure before = path.shape == Shape::Typed ? lastActual : start;
  const int end = path.to > 0 ? path.to : years;
  for (int t = 1; t <= years; ++t) {
    Figure now;
    switch (path.shape) {
      case Shape::Hold:
        now = level;
        break;
      case Shape::Typed: {
        const auto i = static_cast<size_t>(t - 1);
        now = i < path.typed.size() ? stated(path.typed[i], before) : before;
        break;
      }
      case Shape::Glide:
        if (t <= path.from) {
          now = start;
        } else if (t >= end) {
          now = level;
        } else {
          const double share = static_cast<double>(t - path.from) / (end - path.from);
          now = start + (level - start) * Figure::of(share);
        }
        break;
      case Shape::Fade:
        now = t < path.from ? start : level + (before - level) * Figure::of(std::pow(0.5, 1.0 / path.halfLife));
        break;
    }
    x[static_cast<size_t>(t - 1)] = now;
    before = now;
  }
  return x;
}

std::string faultOf(const Path& path, int years) {
  const auto bad = [](const std::optional<double>& x) { return x && !std::isfinite(*x); };
  if (bad(path.level) || bad(path.start)) return "a level is not a finite number";
  if (path.shape == Shape::Glide || path.shape == Shape::Fade) {
    if (!path.level) return "a glide or a fade needs a level to go to";
    if (path.from < 0 || path.from > years) {
      return "year " + std::to_string(path.from) + " lies outside 0 to " + std::to_string(years);
    }
  }
  if (path.shape == Shape::Glide && path.to != 0 && (path.to <= path.from || path.to > years)) {
    return "a glide must end after year " + std::to_string(path.from) + " and by year " + std::to_string(years);
  }
  if (path.shape == Shape::Fade && !(path.halfLife > 0 && std::isfinite(path.halfLife))) {
    return "the half-life must be above 0 years";
  }
  for (const std::optional<double>& x : path.typed) {
    if (bad(x)) return "a typed year is not a finite number";
  }
  return {};
}

namespace {
constexpr std::pair<Shape, const char*> kShapes[] = {
    {Shape::Hold, "hold"}, {Shape::Typed, "typed"}, {Shape::Glide, "glide"}, {Shape::Fade, "fade"}};
}

const char* shapeWord(Shape shape) {
  for (const auto& [s, word] : kShapes) {
    if (s == shape) return word;
  }
  return "?";
}

std::optional<Shape> shapeOf(const std::string& word) {
  for (const auto& [s, text] : kShapes) {
    if (word == text) return s;
  }
  return std::nullopt;
}

}  // namespace zl
