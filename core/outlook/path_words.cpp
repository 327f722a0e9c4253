#include "core/outlook/path_words.h"

#include <algorithm>

#include "core/quantity/number_text.h"

namespace zl {
namespace {

std::string words(const std::optional<double>& x, Kind kind) {
  return x ? figureText(Figure::of(*x), kind) : "the last actual";
}

std::string listed(const Path& path, Kind kind) {
  size_t count = path.typed.size();
  // The last one is held anyway; a cycle's turns all count.
  while (path.shape != Shape::Cycle && count > 1 && path.typed[count - 1] == path.typed[count - 2]) --count;
  std::string list;
  for (size_t i = 0; i < count; ++i) {
    list +=
        (i > 0 ? ", " : "") + (path.typed[i] ? figureText(Figure::of(*path.typed[i]), kind) : std::string("as before"));
  }
  return list.empty() ? "nothing" : list;
}

}  // namespace

std::string pathWords(const Path& path, Kind kind) {
  const std::string unit = kind == Kind::Ratio ? " %" : kind == Kind::Days ? " days" : "";
  const std::string level = words(path.level, kind) + (path.level ? unit : "");
  const std::string start = path.start ? "from " + words(path.start, kind) + unit + " " : "";
  switch (path.shape) {
    case Shape::Hold:
      return "holds " + level;
    case Shape::Glide:
      return start + "glides to " + level + (path.to > 0 ? " by year " + std::to_string(path.to) : "") +
             (path.from > 0 ? " after year " + std::to_string(path.from) : "");
    case Shape::Recovery:
      return "recovers to " + level + (path.to > 0 ? " by year " + std::to_string(path.to) : "");
    case Shape::Fade:
      return start + "fades to " + level + " from year " + std::to_string(std::max(path.from, 1)) + ", half-life " +
             plainNumber(path.halfLife) + " y";
    case Shape::Follow:
      return "follows base by " + words(path.distance, kind) + unit + (path.widening ? ", widening" : "");
    case Shape::Cycle:
      return "cycles around " + level + " by " + listed(path, kind) + unit;
    case Shape::Steps:
      return "steps " + listed(path, kind) + unit;
    case Shape::Typed:
      break;
  }
  return "typed " + listed(path, kind) + unit;
}

}  // namespace zl
