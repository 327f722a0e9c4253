#include "core/outlook/probe.h"

#include <functional>

namespace zl {
namespace {

using OwnFigure = std::function<double(model::Cell)>;

/// The scenario's own figures of a row that is not computed, by forecast year or one.
std::vector<Figure> figuresOfRow(const ProbeGround& g, model::RowId row) {
  const model::Row& r = g.compiled.model[row];
  if (r.declared != model::Declared::Driver) return {constantFigure(r, g.assumptions, g.scenario, g.givens)};
  const model::Layout& layout = g.compiled.program.layout;
  return driverFigures(r, g.assumptions, g.scenario, g.history.at(row, layout.baseColumn()), layout.forecastYears)
      .figures;
}

std::vector<Figure> probeUpon(const CompiledModel& compiled, const OwnFigure& own, const std::vector<Variant>& variants,
                              model::RowId wanted) {
  const auto lanes = static_cast<int>(variants.size());
  if (lanes == 0 || !wanted.known()) return std::vector<Figure>(variants.size());
  const model::Program& program = compiled.partFor(wanted);
  const std::int32_t slot = program.slot({wanted, 0});
  if (slot < 0) return std::vector<Figure>(variants.size());
  model::LaneInputs inputs(program, lanes);
  std::map<model::RowId, std::vector<int>> lanesOf;  // that say otherwise of a row
  for (int lane = 0; lane < lanes; ++lane) {
    for (const auto& [row, figures] : variants[static_cast<size_t>(lane)]) lanesOf[row].push_back(lane);
  }
  for (size_t i = 0; i < program.inputs.size(); ++i) {
    const model::Cell cell = program.inputs[i].cell;
    inputs.setAll(i, own(cell));
    const model::Declared declared = compiled.model[cell.row].declared;
    const bool path = declared == model::Declared::Driver;
    if (declared == model::Declared::Row || (path && !program.layout.isForecast(cell.column))) continue;
    const auto other = lanesOf.find(cell.row);
    if (other == lanesOf.end()) continue;
    const auto year = static_cast<size_t>(path ? cell.column - program.layout.historyYears : 0);
    for (const int lane : other->second)
      inputs.set(i, lane, variants[static_cast<size_t>(lane)].at(cell.row).at(year).orNaN());
  }
  const auto output = static_cast<std::uint32_t>(slot);
  const model::LaneResults results = model::evaluate(program, inputs, {&output, 1});
  std::vector<Figure> figures;
  figures.reserve(variants.size());
  for (int lane = 0; lane < lanes; ++lane) figures.push_back(Figure::of(results.at(0, lane)));
  return figures;
}

}  // namespace

std::vector<Figure> probe(const Evaluation& e, int scenario, const std::vector<Variant>& variants,
                          model::RowId wanted) {
  return probeUpon(
      *e.compiled(), [&](model::Cell cell) { return e.figure(cell.row, cell.column, scenario).orNaN(); }, variants,
      wanted);
}

std::vector<Figure> probe(const ProbeGround& ground, const std::vector<Variant>& variants, model::RowId wanted) {
  std::map<model::RowId, std::vector<Figure>> own;
  const model::Layout& layout = ground.compiled.program.layout;
  return probeUpon(
      ground.compiled,
      [&](model::Cell cell) {
        const model::Declared declared = ground.compiled.model[cell.row].declared;
        const bool path = declared == model::Declared::Driver;
        if (declared == model::Declared::Row || (path && !layout.isForecast(cell.column)))
          return ground.history.at(cell.row, cell.column).orNaN();
        const auto [at, fresh] = own.try_emplace(cell.row);
        if (fresh) at->second = figuresOfRow(ground, cell.row);
        return at->second[static_cast<size_t>(path ? cell.column - layout.historyYears : 0)].orNaN();
      },
      variants, wanted);
}

}  // namespace zl
