#include <fmt/core.h>

#include "core/quantity/number_text.h"
#include "exchange/json/reader.h"
#include "services/text/text_cells.h"
#include "services/views/scenario_view.h"

namespace zl::services {
namespace {

std::string withUnit(const std::string& label, Kind kind, const Snapshot& s) {
  const std::string unit = unitText(kind, s.company().currency, s.company().listing.unit);
  return unit.empty() ? label : label + ", " + unit;
}

Figure valueOrReason(const Result<Figure>& value) {
  return value ? *value : Figure::notMeaningful(value.error().text());
}

}  // namespace

Json scenariosJson(const Snapshot& s) {
  Json lines = Json::array();
  for (const ScenarioLine& line : scenarioLines(s)) {
    Json cells = Json::object();
    for (size_t i = 0; i < line.cells.size(); ++i) {
      const ScenarioCell& cell = line.cells[i];
      Json item{{"figure", figureJson(cell.figure)}, {"own", cell.own}};
      if (!cell.words.empty()) item[line.driver ? "path" : "option"] = cell.words;
      if (!cell.reason.empty()) item["reason"] = cell.reason;
      cells[s.caseOf().scenarios[i].id] = std::move(item);
    }
    Json references = Json::object();
    for (size_t i = 0; i < line.references.size(); ++i) {
      references[referenceWords(kReferences[i])] = figureJson(line.references[i]);
    }
    lines.push_back({{"row", line.row},
                     {"label", line.label},
                     {"differs", line.differs},
                     {"scenarios", std::move(cells)},
                     {"references", std::move(references)}});
  }
  Json values = Json::object();
  for (const Reference reference : kReferences) {
    values[referenceWords(reference)] = figureJson(valueOrReason(referenceValue(s, reference)));
  }
  return {{"rows", std::move(lines)}, {"reference_values", std::move(values)}};
}

std::string scenariosText(const Snapshot& s) {
  std::string out = fmt::format("{:<64}", "In the last forecast year; * says so itself");
  for (const Scenario& scenario : s.caseOf().scenarios) out += fmt::format("{:>14}", scenario.label);
  for (const Reference reference : kReferences) out += fmt::format("{:>14}", referenceWords(reference));
  out += fmt::format("\n{:<64}", withUnit("Value per share", Kind::Quote, s));
  for (int i = 0; i < s.evaluation->scenarios(); ++i) {
    out += fmt::format("{:>14}", shownOrDash(s.evaluation->constant(model::Role::ValuePerShare, i), Kind::Quote));
  }
  for (const Reference reference : kReferences) {
    out += fmt::format("{:>14}", shownOrDash(valueOrReason(referenceValue(s, reference)), Kind::Quote));
  }
  out += '\n';
  for (const ScenarioLine& line : scenarioLines(s)) {
    if (!line.differs) continue;
    out += fmt::format("{:<64}", withUnit(line.label, line.kind, s));
    for (const ScenarioCell& cell : line.cells) {
      out += fmt::format("{:>14}", shownOrDash(cell.figure, line.kind) + (cell.own ? " *" : "  "));
    }
    for (const Figure& f : line.references) out += fmt::format("{:>14}", shownOrDash(f, line.kind));
    out += '\n';
  }
  return out;
}

std::string cautionText(const SumOfCaution& sum, const Snapshot& s) {
  std::string out = fmt::format("{:<60}{:>12}{:>12}{:>16}\n", "Base's choices against neutral ones", "chosen",
                                "neutral", "effect, " + s.company().listing.unit);
  for (const CautionLine& line : sum.lines) {
    out += fmt::format("{:<60}{:>12}{:>12}{:>16}\n", withUnit(line.label, line.kind, s),
                       shownOrDash(line.chosen, line.kind), shownOrDash(line.neutral, line.kind),
                       shownOrDash(line.effect, Kind::Quote));
  }
  return out + fmt::format("{:<84}{:>16}\n{:<84}{:>16}\n", "Sum, each taken alone", shownOrDash(sum.alone, Kind::Quote),
                           "All together", shownOrDash(sum.together, Kind::Quote));
}

Json cautionJson(const SumOfCaution& sum) {
  Json lines = Json::array();
  for (const CautionLine& line : sum.lines) {
    lines.push_back({{"row", line.row},
                     {"label", line.label},
                     {"chosen", figureJson(line.chosen)},
                     {"neutral", figureJson(line.neutral)},
                     {"effect", figureJson(line.effect)}});
  }
  return {{"choices", std::move(lines)}, {"alone", figureJson(sum.alone)}, {"together", figureJson(sum.together)}};
}

}  // namespace zl::services
