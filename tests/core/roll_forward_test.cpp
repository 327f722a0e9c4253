// A case moved on by years: by hand, shape by shape.

#include "core/outlook/roll_forward.h"

#include "core/outlook/path_words.h"
#include "tests/support/model_support.h"

namespace zl {
namespace {

Path shapedPath(Shape shape, std::vector<std::optional<double>> typed = {}, int from = 0, int to = 0) {
  Path path;
  path.shape = shape;
  path.typed = std::move(typed);
  path.from = from;
  path.to = to;
  return path;
}

TEST(RollForward, KeepsWhatWasTypedWithItsYear) {
  constexpr auto kNone = std::nullopt;
  struct Move {
    Path before;
    int years;
    Path after;
  };
  const Move moves[] = {
      {shapedPath(Shape::Typed, {1.0, kNone, 3.0, 4.0}), 1, shapedPath(Shape::Typed, {1.0, 3.0, 4.0})},
      {shapedPath(Shape::Typed, {1.0, 2.0}), 3, shapedPath(Shape::Typed, {2.0})},
      {shapedPath(Shape::Steps, {8.0, 5.0}), 1, shapedPath(Shape::Steps, {8.0, 5.0})},
      {shapedPath(Shape::Steps, {8.0, 5.0}), 2, shapedPath(Shape::Steps, {5.0})},
      {shapedPath(Shape::Cycle, {1.0, -1.0, 0.0}), 4, shapedPath(Shape::Cycle, {-1.0, 0.0, 1.0})},
      {shapedPath(Shape::Glide, {}, 1, 4), 1, shapedPath(Shape::Glide, {}, 0, 3)},
      {shapedPath(Shape::Glide, {}, 1, 4), 4, shapedPath(Shape::Glide, {}, 0, 1)},
      {shapedPath(Shape::Glide, {}, 2, 0), 1, shapedPath(Shape::Glide, {}, 1, 0)},
      {shapedPath(Shape::Recovery, {}, 0, 3), 1, shapedPath(Shape::Recovery, {}, 0, 2)},
      {shapedPath(Shape::Fade, {}, 3), 1, shapedPath(Shape::Fade, {}, 2)},
      {shapedPath(Shape::Fade, {}, 1), 2, shapedPath(Shape::Fade, {}, 1)},
      {shapedPath(Shape::Follow), 2, shapedPath(Shape::Follow)},
      {shapedPath(Shape::Hold), 2, shapedPath(Shape::Hold)}};
  for (const Move& m : moves) {
    Case c = newCase("x", makeDate(2026, 1, 1));
    c.horizon = 5;
    c.stages = {2, 3};
    c.baseYear = 2025;
    c.scenarios[1].drivers["d"] = {m.before, {"why", "me", "then"}};
    const Case next = rolledForward(c, m.years);
    EXPECT_EQ(next.baseYear, 2025 + m.years);
    EXPECT_EQ(next.horizon, 5);
    EXPECT_EQ(next.scenarios[1].drivers.at("d").path, m.after)
        << shapeWord(m.before.shape) << ' ' << m.years << ": "
        << pathWords(next.scenarios[1].drivers.at("d").path, Kind::Count);
    EXPECT_EQ(next.scenarios[1].drivers.at("d").said.reason, "why");
  }
}

TEST(RollForward, ACalendarYearKeepsItsFigureWhereNoActualMovesIt) {
  // Shapes that do not start from the last actual say the same of a calendar year before and after.
  const Path shapes[] = {shapedPath(Shape::Typed, {0.01, 0.02, 0.03, 0.04, 0.05}),
                         shapedPath(Shape::Steps, {0.08, 0.03}), shapedPath(Shape::Cycle, {0.01, -0.01, 0.0})};
  for (Path path : shapes) {
    path.level = 0.05;
    Case c = newCase("x", makeDate(2026, 1, 1));
    c.horizon = 5;
    c.stages = {2, 3};
    c.scenarios[1].drivers["d"] = {path, {}};
    model::Row row;
    row.name = "d";
    const Figure last = Figure::of(0.5);
    const std::vector<Figure> before = driverFigures(row, c, c.base(), last, 5).figures;
    for (int years = 1; years <= 3; ++years) {
      const Case next = rolledForward(c, years);
      const std::vector<Figure> after = driverFigures(row, next, next.base(), last, 5).figures;
      for (int t = years; t < 5; ++t) {
        EXPECT_EQ(after[static_cast<size_t>(t - years)], before[static_cast<size_t>(t)])
            << shapeWord(path.shape) << " rolled by " << years << ", year " << t + 1;
      }
    }
  }
}

TEST(RollForward, TheStageThatHasBegunGrowsShorterAndTheLastLonger) {
  Case c = newCase("x", makeDate(2026, 1, 1));
  c.stages = {3, 4, 3};
  EXPECT_EQ(rolledForward(c, 1).stages, (std::vector<int>{2, 4, 4}));
  EXPECT_EQ(rolledForward(c, 3).stages, (std::vector<int>{4, 6}));
  EXPECT_EQ(rolledForward(c, 7).stages, std::vector<int>{}) << "one stage is left";
  EXPECT_EQ(rolledForward(c, 12).stages, std::vector<int>{});
  EXPECT_EQ(rolledForward(c, 0), c);
}

}  // namespace
}  // namespace zl
