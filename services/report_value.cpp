#include <fmt/core.h>

#include <cmath>

#include "core/quantity/number_text.h"
#include "core/valuation/implied_growth.h"
#include "exchange/json/reader.h"
#include "services/report.h"

namespace zl::services {

Json figureJson(const Figure& figure) {
  if (figure.hasValue()) return figure.value();
  if (figure.isNotMeaningful()) return {{"not_meaningful", figure.reason()}};
  return {{"absent", figure.reason()}};
}

std::vector<double> impliedGrowthOf(const Snapshot& s, int scenario) {
  const Evaluation& e = *s.evaluation;
  const auto constant = [&](const char* row) { return e.constant(row, scenario); };
  const Figure terminal = constant("exit_terminal") / constant("timing_shift");
  if (constant("terminal_rule").valueOr(0) == 1) {
    const Figure simple = constant("implied_growth_simple");
    return simple.hasValue() ? std::vector<double>{simple.value()} : std::vector<double>{};
  }
  const Figure nopat = e.figure("nopat", e.layout().columns() - 1, scenario);
  const Figure wacc = constant("terminal_wacc");
  const Figure onNew = constant("return_on_new_capital");
  if (decidingGap({&terminal, &nopat, &wacc, &onNew}) != nullptr) return {};
  return impliedGrowth(nopat.value(), wacc.value(), onNew.value(), terminal.value());
}

namespace {

constexpr const char* kScenarioRows[] = {"value_per_share",
                                         "raw_value",
                                         "value_growth",
                                         "value_exit",
                                         "upside",
                                         "margin_of_safety",
                                         "price_above_value",
                                         "buy_below",
                                         "enterprise_value",
                                         "net_debt_dated",
                                         "equity_value",
                                         "diluted_shares",
                                         "terminal_wacc",
                                         "terminal_growth",
                                         "growth_terminal",
                                         "exit_terminal",
                                         "implied_multiple",
                                         "implied_growth_simple",
                                         "terminal_share_growth",
                                         "terminal_share_exit"};

Json crossCheckJson(const CrossCheck& check) {
  Json json = Json::object();
  for (const auto& [m, st] : check.statistics) {
    const ImpliedValue& implied = check.implied.at(m);
    json[multipleId(m)] = {{"count", st.count},
                           {"low", figureJson(st.low)},
                           {"lower_quartile", figureJson(st.lowerQuartile)},
                           {"median", figureJson(st.median)},
                           {"mean", figureJson(st.mean)},
                           {"harmonic_mean", figureJson(st.harmonicMean)},
                           {"upper_quartile", figureJson(st.upperQuartile)},
                           {"high", figureJson(st.high)},
                           {"implied_per_share",
                            {{"low", figureJson(implied.low)},
                             {"median", figureJson(implied.median)},
                             {"mean", figureJson(implied.mean)},
                             {"high", figureJson(implied.high)}}}};
  }
  return json;
}

}  // namespace

Json valueJson(const Snapshot& s) {
  const Evaluation& e = *s.evaluation;
  Json scenarios = Json::array();
  for (int i = 0; i < e.scenarios(); ++i) {
    const Scenario& scenario = s.caseOf().scenarios[static_cast<size_t>(i)];
    Json figures = Json::object();
    for (const char* row : kScenarioRows) figures[row] = figureJson(e.constant(row, i));
    figures["implied_growth"] = impliedGrowthOf(s, i);
    scenarios.push_back({{"id", scenario.id},
                         {"label", scenario.label},
                         {"probability", scenario.probability},
                         {"figures", std::move(figures)}});
  }
  return {{"company", s.company().id},
          {"name", s.company().name},
          {"listing_unit", s.company().listing.unit},
          {"reporting_currency", s.company().currency},
          {"valuation_date", dateText(s.caseOf().valuationDate)},
          {"price", figureJson(s.givens.at("price").figure)},
          {"price_source", s.givens.at("price").source},
          {"scenarios", std::move(scenarios)},
          {"probability_weighted_value", figureJson(weightedValue(e, "value_per_share"))},
          {"cross_check", crossCheckJson(s.crossCheck)}};
}

namespace {

std::string shown(const Figure& f, Kind kind) {
  const std::string text = figureText(f, kind);
  return text.empty() ? "-" : text;
}

/// `width` columns right-aligned, counting characters rather than bytes.
std::string right(const std::string& text, size_t width) {
  size_t length = 0;
  for (char c : text) length += (static_cast<unsigned char>(c) & 0xC0) != 0x80 ? 1 : 0;
  return std::string(length < width ? width - length : 0, ' ') + text;
}

}  // namespace

std::string valueText(const Snapshot& s) {
  const Evaluation& e = *s.evaluation;
  const std::string& unit = s.company().listing.unit;
  std::string out = fmt::format("{}   value per share in {}, valued {}\n", s.company().name, unit,
                                dateText(s.caseOf().valuationDate));
  out += fmt::format("price {} ({})\n\n", shown(s.givens.at("price").figure, Kind::Quote), s.givens.at("price").source);
  out += fmt::format("{:<44}", "");
  for (const Scenario& scenario : s.caseOf().scenarios) out += right(scenario.label, 12);
  out += '\n';
  for (const char* row :
       {"value_per_share", "value_growth", "value_exit", "upside", "margin_of_safety", "buy_below", "enterprise_value",
        "equity_value", "terminal_wacc", "implied_multiple", "terminal_share_growth"}) {
    const model::Row& r = e.model().rows[static_cast<size_t>(e.model().find(row))];
    const std::string rowUnit = unitText(r.kind, s.company().currency, unit);
    out += fmt::format("{:<44}", r.label + (rowUnit.empty() ? "" : ", " + rowUnit));
    for (int i = 0; i < e.scenarios(); ++i) out += right(shown(e.constant(row, i), r.kind), 12);
    out += '\n';
  }
  const Figure weighted = weightedValue(e, "value_per_share");
  out += fmt::format("\nprobability-weighted value {} {}\n", shown(weighted, Kind::Quote),
                     weighted.hasValue() ? unit : weighted.reason());
  for (const auto& [m, st] : s.crossCheck.statistics) {
    const ImpliedValue& implied = s.crossCheck.implied.at(m);
    out += fmt::format("{}: {} peers, {} to {}, median {}; implied per share {} to {}, median {}\n", multipleLabel(m),
                       st.count, shown(st.low, Kind::Multiple), shown(st.high, Kind::Multiple),
                       shown(st.median, Kind::Multiple), shown(implied.low, Kind::Quote),
                       shown(implied.high, Kind::Quote), shown(implied.median, Kind::Quote));
  }
  return out;
}

}  // namespace zl::services
