#include "services/reports/value_tables.h"

#include <fmt/format.h>

#include <algorithm>

#include "core/quantity/number_text.h"
#include "services/reports/gather_figures.h"
#include "services/text/text_cells.h"
#include "services/views/capital_view.h"
#include "services/views/cash_view.h"

namespace zl::services {
namespace {

using model::Role;

void addBetas(const Snapshot& s, const BetaSettings& settings, int scenario, GatherFigures& gather) {
  const OwnBeta own = ownBeta(s, settings);
  std::string how =
      own.index.empty() ? "" : betaWords(settings, own.index, own.to) + ", n " + std::to_string(own.fit.n);
  for (const std::string& note : own.notes) how += (how.empty() ? "" : "; ") + note;
  const auto add = [&](const char* label, const Figure& figure) {
    gather.add("own beta", label, scenario, Kind::Multiple, figure, how);
  };
  add("beta", own.fit.beta);
  add("standard error", own.fit.standardError);
  add("lower end, 95 %", own.fit.low);
  add("upper end, 95 %", own.fit.high);
  add("adjusted", own.fit.adjusted);
  add("R squared", own.fit.rSquared);
  const PeerBetas peers = peerBetas(s, settings, scenario);
  for (const PeerBeta& peer : peers.peers) {
    gather.add("peers' betas", peer.name + ", beta", scenario, Kind::Multiple, peer.beta, peer.how);
    gather.add("peers' betas", peer.name + ", debt to equity", scenario, Kind::Ratio, peer.debtToEquity, "");
    gather.add("peers' betas", peer.name + ", without debt", scenario, Kind::Multiple, peer.unlevered,
               "tax " +
                   (peer.taxRate.hasValue() ? groupedNumber(peer.taxRate.value() * 100, 1) + " %, " : "not known, ") +
                   peer.taxSource);
  }
  gather.add("peers' betas", "median without debt", scenario, Kind::Multiple, peers.median, "");
  gather.add("peers' betas", "relevered", scenario, Kind::Multiple, peers.relevered, "");
}

std::string shown(const ReportFigure& f) {
  if (!f.figure.hasValue()) return f.figure.isNotMeaningful() ? "n.m." : "-";
  if (!f.row.empty() && !f.source.empty()) return f.source;  // a choice by its words
  return f.kind == Kind::Multiple ? groupedNumber(f.figure.value(), 2) : figureText(f.figure, f.kind);
}

}  // namespace

std::vector<ReportFigure> capitalFigures(const Snapshot& s, const BetaSettings& settings, int scenario) {
  GatherFigures gather(s);
  gather.byScenario("rate, first year", "rate");
  gather.byScenario("weights and choices", "weights");
  const std::vector<PartRivals> parts = rivalsOf(s, settings, scenario);
  for (const PartRivals& part : parts) {
    const model::Row& row = s.model()[part.row];
    for (const Rival& rival : part.rivals)
      gather.add("rivals", row.label + ": " + rival.label, scenario, row.kind, rival.figure, rival.source);
  }
  for (const PartRivals& part : parts) {
    for (const Rival& rival : part.rivals)
      gather.add("value with rivals", s.model()[part.row].label + ": " + rival.label, scenario, Kind::Quote,
                 rival.value, "");
  }
  const HurdleValues hurdle = valuesAtHurdle(s, scenario);
  if (!s.model().view("hurdle").empty()) {
    const auto& options = s.model()[s.model().view("hurdle").front().row].options;
    for (size_t m = 0; m < hurdle.methods.size(); ++m) {
      for (size_t k = 0; k < hurdle.values[m].size(); ++k)
        gather.add("values at the hurdle", hurdle.methods[m] + ", " + options[k].label, scenario, Kind::Quote,
                   hurdle.values[m][k], "");
    }
  }
  addBetas(s, settings, scenario, gather);
  for (int k = 0; k < s.evaluation->scenarios(); ++k) gather.byYear("rate by year", "rate_years", k);
  return gather.take();
}

std::vector<ReportFigure> cashFigures(const Snapshot& s) {
  GatherFigures gather(s);
  gather.byScenario("value", "value");
  gather.byScenario("walk to a share", "value_walk");
  gather.byScenario("beyond the forecast", "terminal");
  gather.byScenario("claims", "claims");
  gather.byScenario("economic profit", "economic_profit_value");
  gather.byScenario("flows to shareholders", "shareholder_value");
  gather.byScenario("direct value", "direct");
  gather.byScenario("dated target", "target");
  for (int k = 0; k < s.evaluation->scenarios(); ++k) {
    gather.add("dated target", "Return to the dated target, a year", k, Kind::Ratio, datedTarget(s, k).yearly, "");
    const std::vector<double> implied = impliedCostOfEquity(s, k);
    if (implied.empty()) {
      gather.add("flows to shareholders", "Cost of equity the price implies", k, Kind::Ratio,
                 Figure::notMeaningful("no rate up to 50 % gives the price"), "");
    }
    for (const double rate : implied)
      gather.add("flows to shareholders", "Cost of equity the price implies", k, Kind::Ratio, Figure::of(rate), "");
  }
  for (int k = 0; k < s.evaluation->scenarios(); ++k) {
    gather.byYear("free cash flow by year", "flow_years", k);
    gather.byYear("economic profit by year", "economic_profit", k);
    gather.byYear("flows to shareholders by year", "shareholder_years", k);
  }
  return gather.take();
}

std::string reportText(const std::vector<ReportFigure>& figures, const Snapshot& s) {
  std::string out;
  for (size_t at = 0; at < figures.size();) {
    const std::string& table = figures[at].table;
    out += (out.empty() ? "" : "\n") + table + "\n";
    for (; at < figures.size() && figures[at].table == table;) {
      const ReportFigure& first = figures[at];
      // Of one row the scenarios, or the years of one scenario, stand side by side.
      std::string label = first.label;
      if (const std::string unit = unitText(first.kind, s.company().currency, s.company().listing.unit); !unit.empty())
        label += ", " + unit;
      if (!first.period.empty()) label += " (" + first.scenario + ")";
      out += fmt::format("  {:<58}", label);
      const bool years = !first.period.empty();
      const bool alone = first.row.empty();
      const ReportFigure* last = nullptr;
      for (; at < figures.size() && figures[at].table == table && figures[at].label == first.label &&
             figures[at].row == first.row && (!years || figures[at].scenario == first.scenario);
           ++at) {
        last = &figures[at];
        out += fmt::format(" {:>11}", shown(*last));
      }
      if (alone && last != nullptr && !last->source.empty()) out += "  " + last->source;
      if (alone && last != nullptr && !last->figure.hasValue()) out += "  " + last->figure.reason();
      out += "\n";
    }
  }
  return out;
}

std::string reportCsv(const std::vector<ReportFigure>& figures) {
  std::string out = "table,row,label,period,scenario,figure,why,source\n";
  for (const ReportFigure& f : figures) {
    out += fmt::format("{},{},{},{},{},{},{},{}\n", quotedCell(f.table), f.row, quotedCell(f.label), f.period,
                       f.scenario, f.figure.hasValue() ? plainNumber(f.figure.value()) : "",
                       f.figure.hasValue() ? "" : quotedCell(f.figure.reason()), quotedCell(f.source));
  }
  return out;
}

Json reportJson(const std::vector<ReportFigure>& figures, const Snapshot& s) {
  Json list = Json::array();
  for (const ReportFigure& f : figures) {
    Json item{{"table", f.table}, {"label", f.label}, {"figure", figureJson(f.figure)}};
    if (!f.row.empty()) item["row"] = f.row;
    if (!f.period.empty()) item["period"] = f.period;
    if (!f.scenario.empty()) item["scenario"] = f.scenario;
    if (!f.source.empty()) item["source"] = f.source;
    const std::string unit = f.kind == Kind::Money    ? s.company().currency
                             : f.kind == Kind::Quote  ? s.company().listing.unit
                             : f.kind == Kind::Shares ? "shares"
                                                      : "";
    if (!unit.empty()) item["unit"] = unit;
    list.push_back(std::move(item));
  }
  return Json{{"company", s.company().id}, {"figures", std::move(list)}};
}

}  // namespace zl::services
