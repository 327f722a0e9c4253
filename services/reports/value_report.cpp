#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <utility>

#include "core/quantity/number_text.h"
#include "exchange/json/reader.h"
#include "services/reports/report.h"
#include "services/views/method_figures.h"
#include "services/views/still_needed.h"

namespace zl::services {

using model::Role;

namespace {

/// A choice by its option's name, anything else as a figure.
Json rowJson(const model::Row& row, const Figure& figure) {
  const bool stands = row.isChoice() && !model::optionLabel(row, figure.valueOr(-1)).empty();
  return stands ? Json(row.options[static_cast<size_t>(figure.value())].name) : figureJson(figure);
}

Json crossCheckJson(const Snapshot& s) {
  Json json = Json::object();
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  for (const auto& [multiple, st] : s.crossCheck.statistics) {
    const Multiple m = multiple;
    const auto implied = [&](const char* statistic) {
      return figureJson(impliedByPeers(*s.evaluation, m, statistic, base));
    };
    json[multipleId(m)] = {{"count", st.count},
                           {"low", figureJson(st.low)},
                           {"lower_quartile", figureJson(st.lowerQuartile)},
                           {"median", figureJson(st.median)},
                           {"mean", figureJson(st.mean)},
                           {"harmonic_mean", figureJson(st.harmonicMean)},
                           {"upper_quartile", figureJson(st.upperQuartile)},
                           {"high", figureJson(st.high)},
                           {"implied_per_share",
                            {{"low", implied("low")},
                             {"median", implied("median")},
                             {"mean", implied("mean")},
                             {"high", implied("high")}}}};
  }
  return json;
}

Json neededJson(const Snapshot& s) {
  Json list = Json::array();
  for (const Need& need : stillNeeded(s)) list.push_back({{"what", need.words}, {"reason", need.reason}});
  return list;
}

}  // namespace

Json valueJson(const Snapshot& s) {
  const Evaluation& e = *s.evaluation;
  Json scenarios = Json::array();
  for (int i = 0; i < e.scenarios(); ++i) {
    const Scenario& scenario = s.caseOf().scenarios[static_cast<size_t>(i)];
    Json figures = Json::object();
    for (const model::ViewRow& shown : e.model().view("value")) {
      const model::Row& row = e.model()[shown.row];
      figures[row.name] = rowJson(row, e.constant(shown.row, i));
    }
    Json methods = Json::object();
    for (const model::Method& method : e.model().methods) {
      figures[e.model()[method.value].name] = figureJson(e.constant(method.value, i));
      methods[method.name] = {{"label", method.label}, {"value", figureJson(e.constant(method.value, i))}};
      if (method.low.known()) {
        methods[method.name]["low"] = figureJson(e.constant(method.low, i));
        methods[method.name]["high"] = figureJson(e.constant(method.high, i));
      }
    }
    figures["implied_growth"] = impliedGrowthOf(s, i);
    scenarios.push_back({{"id", scenario.id},
                         {"label", scenario.label},
                         {"probability", scenario.probability},
                         {"figures", std::move(figures)},
                         {"methods", std::move(methods)}});
  }
  return {{"company", s.company().id},
          {"name", s.company().name},
          {"listing_unit", s.company().listing.unit},
          {"reporting_currency", s.company().currency},
          {"valuation_date", dateText(s.caseOf().valuationDate)},
          {"price", figureJson(s.given(Role::Price).figure)},
          {"price_source", s.given(Role::Price).source},
          {"scenarios", std::move(scenarios)},
          {"probability_weighted_value", figureJson(weightedValue(e, Role::ValuePerShare))},
          {"cross_check", crossCheckJson(s)},
          {"still_needed", neededJson(s)}};
}

namespace {

std::string shown(const Figure& f, Kind kind) {
  const std::string text = figureText(f, kind);
  return text.empty() ? "-" : text;
}

/// `width` columns right-aligned, counting characters rather than bytes.
size_t lettersOf(const std::string& text) {
  return static_cast<size_t>(
      std::count_if(text.begin(), text.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xC0) != 0x80; }));
}

std::string padding(const std::string& text, size_t width) {
  const size_t letters = lettersOf(text);
  return std::string(letters < width ? width - letters : 0, ' ');
}

/// A label and a figure a scenario; the first row names the scenarios.
using TextRow = std::pair<std::string, std::vector<std::string>>;

/// Columns as wide as their widest figure asks for: won and yen run to trillions.
std::string inColumns(const std::vector<TextRow>& rows) {
  size_t labels = 44;
  size_t figures = 12;
  for (const auto& [label, cells] : rows) {
    labels = std::max(labels, lettersOf(label) + 1);
    for (const std::string& cell : cells) figures = std::max(figures, lettersOf(cell) + 2);
  }
  std::string out;
  for (const auto& [label, cells] : rows) {
    out += label;
    if (!cells.empty()) out += padding(label, labels);
    for (const std::string& cell : cells) out += padding(cell, figures) + cell;
    out += '\n';
  }
  return out;
}

}  // namespace

namespace {

/// The multiples that a peer counts in, and how many others there are.
std::string crossCheckText(const Snapshot& s) {
  if (s.crossCheck.rows.empty()) return "no peers yet\n";
  std::string out;
  int resting = 0;
  for (const auto& [m, st] : s.crossCheck.statistics) {
    if (st.count == 0) {
      ++resting;
      continue;
    }
    const auto implied = [&, multiple = m](const char* statistic) {
      return shown(impliedByPeers(*s.evaluation, multiple, statistic, std::max(0, s.caseOf().indexOf(kBase))),
                   Kind::Quote);
    };
    out += fmt::format("{}: {} {}, {} to {}, median {}; implied per share {} to {}, median {}\n", multipleLabel(m),
                       st.count, st.count == 1 ? "peer" : "peers", shown(st.low, Kind::Multiple),
                       shown(st.high, Kind::Multiple), shown(st.median, Kind::Multiple), implied("low"),
                       implied("high"), implied("median"));
  }
  if (resting > 0) out += fmt::format("no peer counts in {} {}\n", resting, resting == 1 ? "multiple" : "multiples");
  return out;
}

}  // namespace

std::string valueText(const Snapshot& s) {
  const Evaluation& e = *s.evaluation;
  const std::string& unit = s.company().listing.unit;
  std::string out = fmt::format("{}   value per share in {}, valued {}\n", s.company().name, unit,
                                dateText(s.caseOf().valuationDate));
  out += fmt::format("price {} ({})\n\n", shown(s.given(Role::Price).figure, Kind::Quote), s.given(Role::Price).source);
  std::vector<TextRow> rows(1);
  for (const Scenario& scenario : s.caseOf().scenarios) rows.front().second.push_back(scenario.label);
  const auto line = [&](const std::string& label, model::RowId row) {
    const Kind kind = e.model()[row].kind;
    const std::string rowUnit = unitText(kind, s.company().currency, unit);
    TextRow& to = rows.emplace_back(label + (rowUnit.empty() ? "" : ", " + rowUnit), std::vector<std::string>());
    for (int i = 0; i < e.scenarios(); ++i) to.second.push_back(shown(e.constant(row, i), kind));
  };
  for (const model::ViewRow& r : e.model().view("headline")) line(e.model()[r.row].label, r.row);
  rows.emplace_back();
  for (const model::Method& method : e.model().methods) line(method.label, method.value);
  out += inColumns(rows);
  const Figure weighted = weightedValue(e, Role::ValuePerShare);
  out += fmt::format("\nprobability-weighted value {} {}\n", shown(weighted, Kind::Quote),
                     weighted.hasValue() ? unit : weighted.reason());
  return out + crossCheckText(s);
}

}  // namespace zl::services
