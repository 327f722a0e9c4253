#include "core/outlook/probe.h"

namespace zl {
namespace {

/// The scenario's own figures of a row that is not computed, by forecast year or one.
std::vector<Figure> figuresOfRow(const ProbeGround& g, model::RowId row) {
  const model::Row& r = g.compiled.model[row];
  if (r.declared != model::Declared::Driver) return {constantFigure(r, g.assumptions, g.scenario, g.givens)};
  const model::Layout& layout = g.compiled.program.layout;
  return driverFigures(r, g.assumptions, g.scenario, g.history.at(row, layout.baseColumn()), layout.forecastYears)
      .figures;
}

}  // namespace

std::vector<Figure> probe(const ProbeGround& ground, const std::vector<Variant>& variants, model::RowId wanted) {
  const model::Program& program = ground.compiled.program;
  const auto lanes = static_cast<int>(variants.size());
  const std::int32_t slot = wanted.known() ? program.slot({wanted, 0}) : -1;
  if (lanes == 0 || slot < 0) return std::vector<Figure>(variants.size());
  model::LaneInputs inputs(program, lanes);
  std::map<model::RowId, std::vector<Figure>> own;
  for (size_t i = 0; i < program.inputs.size(); ++i) {
    const model::Cell cell = program.inputs[i].cell;
    const model::Declared declared = ground.compiled.model[cell.row].declared;
    const bool path = declared == model::Declared::Driver;
    if (declared == model::Declared::Row || (path && !program.layout.isForecast(cell.column))) {
      inputs.setAll(i, ground.history.at(cell.row, cell.column).orNaN());
      continue;
    }
    const auto year = static_cast<size_t>(path ? cell.column - program.layout.historyYears : 0);
    const auto [at, fresh] = own.try_emplace(cell.row);
    if (fresh) at->second = figuresOfRow(ground, cell.row);
    inputs.setAll(i, at->second[year].orNaN());
    for (int lane = 0; lane < lanes; ++lane) {
      const auto other = variants[static_cast<size_t>(lane)].find(cell.row);
      if (other != variants[static_cast<size_t>(lane)].end()) inputs.set(i, lane, other->second.at(year).orNaN());
    }
  }
  const std::uint32_t output = static_cast<std::uint32_t>(slot);
  const model::LaneResults results = model::evaluate(program, inputs, {&output, 1});
  std::vector<Figure> figures;
  figures.reserve(variants.size());
  for (int lane = 0; lane < lanes; ++lane) figures.push_back(Figure::of(results.at(0, lane)));
  return figures;
}

}  // namespace zl
