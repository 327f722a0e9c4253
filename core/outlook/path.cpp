#include "core/outlook/path.h"

#include <algorithm>
#include <cmath>

namespace zl {
namespace {

Figure stated(const std::optional<double>& number, const Figure& otherwise) {
  return number ? Figure::of(*number) : otherwise;
}

}  // namespace

int stageOf(const std::vector<int>& stages, int year) {
  int end = 0;
  for (size_t k = 0; k < stages.size(); ++k) {
    end += stages[k];
    if (year <= end) return static_cast<int>(k);
  }
  return std::max(0, static_cast<int>(stages.size()) - 1);
}

std::vector<Figure> figuresOf(const Path& path, const PathGround& ground) {
  const int years = ground.years;
  const Figure& last = ground.lastActual;
  std::vector<Figure> x(static_cast<size_t>(years));
  const Figure start = stated(path.start, last);
  const Figure level = stated(path.level, start);
  Figure before = start;
  const int from = path.shape == Shape::Recovery ? 0 : path.from;
  const int end = path.to > 0 ? path.to : years;
  for (int t = 1; t <= years; ++t) {
    Figure now;
    switch (path.shape) {
      case Shape::Hold:
        now = level;
        break;
      case Shape::Typed:
      case Shape::Steps: {
        const auto i = static_cast<size_t>(path.shape == Shape::Typed ? t - 1 : stageOf(ground.stages, t));
        now = i < path.typed.size() ? stated(path.typed[i], before) : before;
        break;
      }
      case Shape::Glide:
      case Shape::Recovery:
        if (t <= from) {
          now = start;
        } else if (t >= end) {
          now = level;
        } else {
          const double share = static_cast<double>(t - from) / (end - from);
          now = start + (level - start) * Figure::of(share);
        }
        break;
      case Shape::Fade:
        now = t < from ? start : level + (before - level) * Figure::of(std::pow(0.5, 1.0 / path.halfLife));
        break;
      case Shape::Cycle: {
        const auto i = path.typed.empty() ? 0 : static_cast<size_t>(t - 1) % path.typed.size();
        now = level + Figure::of(path.typed.empty() ? 0 : path.typed[i].value_or(0));
        break;
      }
      case Shape::Follow: {
        const auto i = static_cast<size_t>(t - 1);
        const double share = path.widening ? static_cast<double>(t) / years : 1;
        now = (i < ground.base.size() ? ground.base[i] : Figure::absent("base has no figure")) +
              Figure::of(path.distance * share);
        break;
      }
    }
    x[static_cast<size_t>(t - 1)] = now;
    before = now;
  }
  return x;
}

std::string faultOf(const Path& path, int years, bool inBase) {
  const auto bad = [](const std::optional<double>& x) { return x && !std::isfinite(*x); };
  const Shape shape = path.shape;
  if (bad(path.level) || bad(path.start) || !std::isfinite(path.distance)) return "a level is not a finite number";
  if (shape == Shape::Glide || shape == Shape::Fade || shape == Shape::Recovery) {
    if (!path.level) return "a glide, a fade or a recovery needs a level to go to";
    if (path.from < 0 || path.from > years) {
      return "year " + std::to_string(path.from) + " lies outside 0 to " + std::to_string(years);
    }
  }
  const int from = shape == Shape::Recovery ? 0 : path.from;
  if ((shape == Shape::Glide || shape == Shape::Recovery) && path.to != 0 && (path.to <= from || path.to > years)) {
    return "a glide must end after year " + std::to_string(from) + " and by year " + std::to_string(years);
  }
  if (shape == Shape::Fade && !(path.halfLife > 0 && std::isfinite(path.halfLife))) {
    return "the half-life must be above 0 years";
  }
  if (shape == Shape::Cycle && path.typed.empty()) return "a cycle needs at least one deviation";
  if (shape == Shape::Follow && inBase) return "base cannot follow itself";
  for (const std::optional<double>& x : path.typed) {
    if (bad(x)) return "a typed year is not a finite number";
  }
  return {};
}

namespace {
constexpr std::pair<Shape, const char*> kShapes[] = {
    {Shape::Hold, "hold"},   {Shape::Typed, "typed"},       {Shape::Glide, "glide"}, {Shape::Fade, "fade"},
    {Shape::Steps, "steps"}, {Shape::Recovery, "recovery"}, {Shape::Cycle, "cycle"}, {Shape::Follow, "follow"}};
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
