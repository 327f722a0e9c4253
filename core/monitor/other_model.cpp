#include "core/monitor/other_model.h"

#include <utility>

namespace zl {

OnOtherModel onOtherModel(std::string title, const ProbeGround& ground) {
  const model::Model& m = ground.compiled.model;
  const model::Layout& layout = ground.compiled.program.layout;
  const int last = layout.columns() - 1;
  std::vector<model::Cell> cells{{m.find(model::Role::ValueBeforeFloor), 0}, {m.find(model::Role::Revenue), last}};
  for (const model::ViewRow& shown : m.view("flow_parts")) cells.push_back({shown.row, last});
  const std::vector<Figure> figures = probe(ground, {Variant{}}, cells).front();
  OnOtherModel other{std::move(title), figures[0], layout.columns(), {}};
  for (size_t i = 2; i < cells.size(); ++i) other.flowShares[m[cells[i].row].name] = figures[i] / figures[1];
  return other;
}

}  // namespace zl
