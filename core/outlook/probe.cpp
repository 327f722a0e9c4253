#include "core/outlook/probe.h"

#include <algorithm>
#include <functional>
#include <iterator>
#include <set>

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

using Figures = std::vector<std::vector<Figure>>;  // by variant, then by cell

std::vector<model::Cell> knownOf(const std::vector<model::Cell>& cells) {
  std::vector<model::Cell> known;
  std::copy_if(cells.begin(), cells.end(), std::back_inserter(known),
               [](model::Cell cell) { return cell.row.known(); });
  return known;
}

/// `program` is a part that has the cells wanted.
Figures probeUpon(const model::Model& m, const model::Program& program, const OwnFigure& own,
                  const std::vector<Variant>& variants, const std::vector<model::Cell>& wanted) {
  const auto lanes = static_cast<int>(variants.size());
  Figures told(variants.size(), std::vector<Figure>(wanted.size()));
  std::vector<std::uint32_t> slots;
  std::vector<size_t> cellOf;  // by slot
  for (size_t i = 0; i < wanted.size(); ++i) {
    const std::int32_t slot = wanted[i].row.known() ? program.slot(wanted[i]) : -1;
    if (slot < 0) continue;
    slots.push_back(static_cast<std::uint32_t>(slot));
    cellOf.push_back(i);
  }
  if (lanes == 0 || slots.empty()) return told;
  model::LaneInputs inputs(program, lanes);
  std::map<model::RowId, std::vector<int>> lanesOf;  // that say otherwise of a row
  for (int lane = 0; lane < lanes; ++lane) {
    for (const auto& [row, figures] : variants[static_cast<size_t>(lane)]) lanesOf[row].push_back(lane);
  }
  for (size_t i = 0; i < program.inputs.size(); ++i) {
    const model::Cell cell = program.inputs[i].cell;
    inputs.setAll(i, own(cell));
    const model::Declared declared = m[cell.row].declared;
    const bool path = declared == model::Declared::Driver;
    if (declared == model::Declared::Row || (path && !program.layout.isForecast(cell.column))) continue;
    const auto other = lanesOf.find(cell.row);
    if (other == lanesOf.end()) continue;
    const auto year = static_cast<size_t>(path ? cell.column - program.layout.historyYears : 0);
    for (const int lane : other->second)
      inputs.set(i, lane, variants[static_cast<size_t>(lane)].at(cell.row).at(year).orNaN());
  }
  const model::LaneResults results = model::evaluate(program, inputs, slots);
  for (int lane = 0; lane < lanes; ++lane) {
    for (size_t i = 0; i < slots.size(); ++i)
      told[static_cast<size_t>(lane)][cellOf[i]] = Figure::of(results.at(i, lane));
  }
  return told;
}

std::vector<Figure> firstOfEach(Figures figures) {
  std::vector<Figure> firsts;
  firsts.reserve(figures.size());
  for (std::vector<Figure>& cells : figures) firsts.push_back(std::move(cells.front()));
  return firsts;
}

std::vector<Figure> probeIn(const Evaluation& e, int scenario, const std::vector<Variant>& variants,
                            model::RowId wanted, const std::set<model::RowId>& moved) {
  if (!wanted.known()) return std::vector<Figure>(variants.size());
  const std::vector<model::Cell> cells{{wanted, 0}};
  return firstOfEach(probeUpon(
      e.model(), e.compiled()->partFor(cells, moved), [&](model::Cell cell) { return e.orNaN(cell, scenario); },
      variants, cells));
}

}  // namespace

std::vector<Figure> probe(const Evaluation& e, int scenario, const std::vector<Variant>& variants,
                          model::RowId wanted) {
  return probeIn(e, scenario, variants, wanted, {});
}

std::vector<Figure> probeReached(const Evaluation& e, int scenario, const std::vector<Variant>& variants,
                                 model::RowId wanted) {
  std::set<model::RowId> moved;
  for (const Variant& variant : variants) {
    for (const auto& [row, figures] : variant) moved.insert(row);
  }
  return probeIn(e, scenario, variants, wanted, moved);
}

std::vector<Figure> probe(const ProbeGround& ground, const std::vector<Variant>& variants, model::RowId wanted) {
  return firstOfEach(probe(ground, variants, std::vector<model::Cell>{{wanted, 0}}));
}

std::vector<std::vector<Figure>> probe(const ProbeGround& ground, const std::vector<Variant>& variants,
                                       const std::vector<model::Cell>& wanted) {
  std::vector<std::vector<Figure>> own(ground.compiled.model.rows.size());  // by row, where it was asked for
  const model::Layout& layout = ground.compiled.program.layout;
  const std::vector<model::Cell> known = knownOf(wanted);
  if (known.empty()) return Figures(variants.size(), std::vector<Figure>(wanted.size()));
  return probeUpon(
      ground.compiled.model, ground.compiled.partFor(known),
      [&](model::Cell cell) {
        const model::Declared declared = ground.compiled.model[cell.row].declared;
        const bool path = declared == model::Declared::Driver;
        if (declared == model::Declared::Row || (path && !layout.isForecast(cell.column)))
          return ground.history.at(cell.row, cell.column).orNaN();
        std::vector<Figure>& figures = own[cell.row.at()];
        if (figures.empty()) figures = figuresOfRow(ground, cell.row);
        return figures[static_cast<size_t>(path ? cell.column - layout.historyYears : 0)].orNaN();
      },
      variants, wanted);
}

}  // namespace zl
