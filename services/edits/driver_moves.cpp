#include "services/edits/driver_moves.h"

#include <algorithm>
#include <numeric>

namespace zl::services {
namespace {

const Scenario& scenarioAt(const Snapshot& s, int scenario) {
  return s.caseOf().scenarios[static_cast<size_t>(scenario)];
}

const model::Row& rowAt(const Snapshot& s, model::RowId row) {
  return s.evaluation->model()[row];
}

Figure lastActual(const Snapshot& s, model::RowId row) {
  return s.history->at(row, s.evaluation->layout().baseColumn());
}

std::string reasonOf(const Snapshot& s, int scenario, const std::string& row) {
  const Assumption* before = s.caseOf().driver(scenarioAt(s, scenario), row);
  return before == nullptr ? std::string() : before->said.reason;
}

/// The figure in which each stage ends.
std::vector<std::optional<double>> byStage(const std::vector<Figure>& current, const std::vector<int>& stages) {
  std::vector<std::optional<double>> list;
  int end = 0;
  for (size_t k = 0; k < std::max<size_t>(1, stages.size()); ++k) {
    end = stages.empty() ? static_cast<int>(current.size()) : end + stages[k];
    const Figure& f = current[static_cast<size_t>(end - 1)];
    list.push_back(f.hasValue() ? std::optional(f.value()) : std::nullopt);
  }
  return list;
}

}  // namespace

std::vector<Figure> forecastOf(const Snapshot& s, int scenario, model::RowId row) {
  std::vector<Figure> figures;
  const model::Layout& layout = s.evaluation->layout();
  for (int c = layout.historyYears; c < layout.columns(); ++c) {
    figures.push_back(s.evaluation->figure(row, c, scenario));
  }
  return figures;
}

PathGround groundOf(const Snapshot& s, int scenario, model::RowId row) {
  PathGround ground{lastActual(s, row), s.caseOf().horizon, s.caseOf().stages, {}};
  if (scenarioAt(s, scenario).id != kBase) ground.base = forecastOf(s, s.caseOf().indexOf(kBase), row);
  return ground;
}

CaseEdit moveDriver(const Snapshot& s, int scenario, model::RowId row, Grip grip, int year, double figure,
                    Provenance said) {
  const model::Row& driver = rowAt(s, row);
  const Scenario& sc = scenarioAt(s, scenario);
  Path path = moved(pathInForce(driver, s.caseOf(), sc, lastActual(s, row)), groundOf(s, scenario, row),
                    forecastOf(s, scenario, row), grip, year, figure);
  if (driver.range && path.shape != Shape::Cycle) {
    for (std::optional<double>& x : path.typed) {
      if (x) x = std::clamp(*x, driver.range->low, driver.range->high);
    }
  }
  if (driver.range && path.level) path.level = std::clamp(*path.level, driver.range->low, driver.range->high);
  if (said.reason.empty()) said.reason = reasonOf(s, scenario, driver.name);
  return setDriver(s.caseOf(), s.evaluation->model(), sc.id, driver.name, path, said);
}

Path shaped(const Snapshot& s, int scenario, model::RowId row, const ShapeWish& wish) {
  const std::vector<Figure> current = forecastOf(s, scenario, row);
  const PathGround ground = groundOf(s, scenario, row);
  const Path before = pathInForce(rowAt(s, row), s.caseOf(), scenarioAt(s, scenario), lastActual(s, row));
  Path path = wish.path;
  const std::optional<double> end = current.back().hasValue() ? std::optional(current.back().value()) : std::nullopt;
  if (!wish.level) {
    const bool keeps = path.shape == Shape::Hold && before.shape == Shape::Hold;
    path.level = keeps || before.level ? before.level : end;
  }
  if (!wish.list) path.typed = before.shape == path.shape ? before.typed : std::vector<std::optional<double>>{};
  switch (path.shape) {
    case Shape::Typed:
      path = Path{};
      path.shape = Shape::Typed;
      for (const Figure& f : current) path.typed.push_back(f.hasValue() ? std::optional(f.value()) : std::nullopt);
      break;
    case Shape::Steps:
      if (path.typed.empty()) path.typed = byStage(current, ground.stages);
      path.level.reset();
      break;
    case Shape::Hold:
      path.from = path.to = 0;
      break;
    case Shape::Glide:
      if (path.to <= path.from) path.to = 0;
      break;
    case Shape::Fade:
      path.from = std::max(path.from, 1);
      path.to = 0;
      break;
    case Shape::Recovery:
      path.from = 0;
      break;
    case Shape::Cycle:
      if (path.typed.empty()) path.typed = {0.0};
      break;
    case Shape::Follow:
      if (!wish.distance) {
        const bool known = end && !ground.base.empty() && ground.base.back().hasValue();
        path.distance = before.shape == Shape::Follow ? before.distance : known ? *end - ground.base.back().value() : 0;
      }
      path.level.reset();
      break;
  }
  return path;
}

CaseEdit shapeDrivers(const Snapshot& s, int scenario, const std::vector<model::RowId>& rows, const ShapeWish& wish,
                      const Provenance& said) {
  CaseEdit edit{s.caseOf(), ""};
  const std::string id = scenarioAt(s, scenario).id;
  for (const model::RowId row : rows) {
    const std::string& name = rowAt(s, row).name;
    Provenance own = said;
    if (own.reason.empty()) own.reason = reasonOf(s, scenario, name);
    edit = setDriver(edit.after, s.evaluation->model(), id, name, shaped(s, scenario, row, wish), own);
  }
  if (rows.size() > 1) {
    edit.label = "Shape " + std::to_string(rows.size()) + " drivers: " + shapeWord(wish.path.shape) + " (" +
                 scenarioAt(s, scenario).label + ")";
  }
  return edit;
}

}  // namespace zl::services
