#include <fmt/core.h>

#include <algorithm>

#include "core/quantity/number_text.h"
#include "exchange/json/reader.h"
#include "services/text/text_cells.h"
#include "services/views/compare.h"

namespace zl::services {
namespace {

/// The rows of the statements that a comparison shows by year.
std::vector<std::string> comparedRows(const std::vector<Side>& sides) {
  const model::Model& m = sides.front().snapshot->model();
  std::vector<std::string> names;
  for (const model::ViewRow& shown : m.view("compared_years")) names.push_back(m[shown.row].name);
  return names;
}

Json lineJson(const BesideLine& line, const std::vector<std::string>& names) {
  Json sides = Json::object();
  for (size_t i = 0; i < names.size(); ++i) {
    Json side{{"figure", figureJson(line.figures[i])}};
    if (i < line.words.size() && !line.words[i].empty()) side["path"] = line.words[i];
    if (i < line.reasons.size() && !line.reasons[i].empty()) side["reason"] = line.reasons[i];
    sides[names[i]] = std::move(side);
  }
  Json json{{"label", line.label}, {"sides", std::move(sides)}};
  if (!line.row.empty()) json["row"] = line.row;
  if (!line.scenario.empty()) json["scenario"] = line.scenario;
  if (!line.period.empty()) json["year"] = line.period;
  return json;
}

std::string labelOf(const BesideLine& line, const Snapshot& s, const std::string& listing) {
  const std::string unit = unitText(line.kind, s.company().currency, listing);
  const Scenario* scenario = s.caseOf().scenario(line.scenario);
  return line.label + (unit.empty() ? "" : ", " + unit) + (scenario == nullptr ? "" : " (" + scenario->label + ")");
}

/// A figure per share to two decimals with its sign, as steps of a walk are written.
std::string signedText(double x) {
  return (x < 0 ? "" : "+") + groupedNumber(x, 2, false);
}

}  // namespace

Json comparisonJson(const Comparison& c, const std::vector<Side>& sides, const std::string& scenario) {
  Json values = Json::array();
  for (const BesideLine& line : c.values) values.push_back(lineJson(line, c.names));
  Json assumptions = Json::array();
  for (const BesideLine& line : c.assumptions) assumptions.push_back(lineJson(line, c.names));
  Json statements = Json::array();
  for (const std::string& row : comparedRows(sides)) {
    for (const BesideLine& line : rowBeside(sides, row, scenario)) statements.push_back(lineJson(line, c.names));
  }
  return {{"versions", c.names},
          {"listing_unit", c.unit},
          {"values", std::move(values)},
          {"assumptions", std::move(assumptions)},
          {"statements", std::move(statements)}};
}

std::string comparisonText(const Comparison& c, const std::vector<Side>& sides, const std::string& scenario) {
  const Snapshot& first = *sides.front().snapshot;
  std::string out;
  const auto heading = [&](const std::string& title) {
    out += fmt::format("{:<58}", title);
    for (const std::string& name : c.names) out += fmt::format("{:>18}", name);
    out += '\n';
  };
  const auto write = [&](const BesideLine& line, const std::string& label) {
    out += fmt::format("  {:<56}", label);
    for (const Figure& f : line.figures) out += fmt::format("{:>18}", shownOrDash(f, line.kind));
    out += '\n';
  };
  heading("Value");
  for (const BesideLine& line : c.values) write(line, labelOf(line, first, c.unit));
  out += '\n';
  heading(c.assumptions.empty() ? "Assumptions: all the same" : "Assumptions that differ, in the last year");
  for (const BesideLine& line : c.assumptions) {
    write(line, labelOf(line, first, c.unit));
    for (size_t i = 0; i < line.words.size(); ++i) {
      if (line.words[i].empty()) continue;
      out += fmt::format("      {}: {}{}\n", c.names[i], line.words[i],
                         line.reasons[i].empty() ? "" : " (" + line.reasons[i] + ")");
    }
  }
  const Scenario* shownScenario = first.caseOf().scenario(scenario);
  out += '\n';
  heading("By year, " + (shownScenario == nullptr ? scenario : shownScenario->label));
  for (const std::string& row : comparedRows(sides)) {
    for (const BesideLine& line : rowBeside(sides, row, scenario)) {
      if (std::adjacent_find(line.figures.begin(), line.figures.end(), std::not_equal_to<>()) == line.figures.end()) {
        continue;
      }
      BesideLine plain = line;
      plain.scenario.clear();
      write(line, labelOf(plain, first, c.unit) + " " + line.period);
    }
  }
  return out;
}

Json walkJson(const ValueWalk& walk, const Side& from, const Side& to) {
  Json steps = Json::array();
  if (walk.gap.empty()) {
    for (const WalkStep& step : walk.steps) {
      steps.push_back({{"part", step.label}, {"rows", step.rows}, {"effect", step.effect}});
    }
  }
  Json json{{"from", {{"version", from.name}, {"raw_value", figureJson(walk.from)}}},
            {"to", {{"version", to.name}, {"raw_value", figureJson(walk.to)}}},
            {"listing_unit", from.snapshot->company().listing.unit},
            {"mixtures", walk.mixtures},
            {"steps", std::move(steps)}};
  if (!walk.gap.empty()) json["not_meaningful"] = walk.gap;
  return json;
}

std::string walkText(const ValueWalk& walk, const Side& from, const Side& to) {
  const std::string& unit = from.snapshot->company().listing.unit;
  const auto value = [](const Figure& f) { return f.hasValue() ? groupedNumber(f.value(), 2, false) : "n.m."; };
  std::string out =
      fmt::format("Value per share before the floor, {}\n{:<44}{:>14}\n", unit, from.name, value(walk.from));
  if (walk.gap.empty()) {
    const std::vector<double> effects = effectsThatAddUp(walk, 2);
    for (size_t i = 0; i < effects.size(); ++i) {
      std::string rows;
      for (const std::string& row : walk.steps[i].rows) rows += (rows.empty() ? "" : "; ") + row;
      out += fmt::format("  {:<42}{:>14}   {}\n", walk.steps[i].label, signedText(effects[i]), rows);
    }
  } else {
    out += "  not meaningful: " + walk.gap + '\n';
  }
  return out + fmt::format("{:<44}{:>14}\n", to.name, value(walk.to));
}

}  // namespace zl::services
