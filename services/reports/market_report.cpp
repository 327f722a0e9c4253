#include "services/reports/market_report.h"

#include <fmt/format.h>

#include <set>

#include "core/capital/price_history.h"
#include "core/quantity/number_text.h"
#include "exchange/json/company_json.h"

namespace zl::services {
namespace {

std::string plainOr(const Figure& f) {
  return f.hasValue() ? plainNumber(f.value()) : f.isNotMeaningful() ? "n.m." : "-";
}

/// The latest of each name at the valuation date.
std::vector<MarketRate> ratesInForce(const Snapshot& s) {
  std::set<std::string> names;
  for (const MarketRate& rate : s.market->rates) names.insert(rate.name);
  std::vector<MarketRate> rates;
  for (const std::string& name : names) {
    if (std::optional<MarketRate> rate = rateAt(s.market->rates, name, s.caseOf().valuationDate))
      rates.push_back(*rate);
  }
  return rates;
}

const char* sideWord(EstimateBy by) {
  return by == EstimateBy::Company ? "company" : "analysts";
}

}  // namespace

std::string recordListText(const Company& company, const RecordList& list) {
  std::string out;
  for (const RecordRow& row : listTexts(company, list)) {
    for (size_t i = 0; i < row.size(); ++i) out += (i == 0 ? "" : ";") + row[i];
    out += '\n';
  }
  return out;
}

std::string recordText(const Company& company) {
  std::string out;
  for (const RecordField& field : recordFields()) {
    const std::string text = fieldText(company, field);
    const auto said = company.said.find(field.key.substr(0, field.key.find('.')));
    const bool why = said != company.said.end() && !said->second.reason.empty();
    out += fmt::format("{:26}{}{}\n", field.key, text, why ? "  (" + said->second.reason + ")" : "");
  }
  for (const RecordList& list : recordLists()) {
    const std::string rows = recordListText(company, list);
    std::string columns;
    for (const RecordField& column : list.columns) columns += (columns.empty() ? "" : ";") + column.key;
    out += fmt::format("\n{}  ({})\n{}", list.key, columns, rows);
  }
  return out;
}

std::string listingsText(const Snapshot& s) {
  std::string out = fmt::format("{:10}{:>14}", "listing", "price");
  for (const Scenario& scenario : s.caseOf().scenarios) out += fmt::format("{:>14}", scenario.label);
  out += '\n';
  for (const ListingLine& line : listingLines(s)) {
    out += fmt::format("{:10}{:>14}", line.listing.unit, figureText(line.price, Kind::Quote));
    for (const Figure& value : line.values) out += fmt::format("{:>14}", figureText(value, Kind::Quote));
    out += '\n';
  }
  return out;
}

std::string ratesText(const Snapshot& s) {
  std::string out;
  for (const MarketRate& rate : ratesInForce(s)) {
    out += fmt::format("{:32}{:>14}  {}  {}{}\n", rate.name, plainNumber(rate.figure), dateText(rate.date), rate.source,
                       rate.typed ? " (typed)" : "");
  }
  return out.empty() ? "no rates\n" : out;
}

std::string peersText(const Snapshot& s) {
  std::string out;
  for (const Peer& peer : s.market->peers) {
    out += fmt::format("{:28}{:>14} {} of {}, {} years, {}\n", peer.name, plainOr(peer.price), peer.priceCurrency,
                       dateText(peer.priceDate), peer.years.size(), peer.currency);
  }
  return out.empty() ? "no peers\n" : out;
}

std::string estimatesText(const Snapshot& s) {
  std::string out;
  for (const Estimate& e : s.market->estimates) {
    out += fmt::format("{:24}{} {:>18}  {}  {}  {}\n", e.item, e.year, plainNumber(e.mean), dateText(e.date),
                       sideWord(e.by), e.source);
  }
  return out.empty() ? "no estimates\n" : out;
}

Json marketJson(const Snapshot& s) {
  Json listings = Json::array(), rates = Json::array(), peers = Json::array(), estimates = Json::array();
  for (const ListingLine& line : listingLines(s)) {
    Json values = Json::object();
    for (size_t i = 0; i < line.values.size(); ++i) values[s.caseOf().scenarios[i].id] = figureJson(line.values[i]);
    listings.push_back({{"unit", line.listing.unit},
                        {"currency", line.listing.currency},
                        {"price", figureJson(line.price)},
                        {"values", std::move(values)}});
  }
  for (const MarketRate& rate : ratesInForce(s)) {
    rates.push_back({{"rate", rate.name},
                     {"date", dateText(rate.date)},
                     {"figure", rate.figure},
                     {"source", rate.source},
                     {"typed", rate.typed}});
  }
  for (const Peer& p : s.market->peers) {
    Json years = Json::array();
    for (const PeerYear& y : p.years) {
      years.push_back({{"end", dateText(y.end)},
                       {"revenue", figureJson(y.revenue)},
                       {"ebitda", figureJson(y.ebitda)},
                       {"ebit", figureJson(y.ebit)},
                       {"net_income", figureJson(y.netIncome)},
                       {"interest", figureJson(y.interest)},
                       {"operating_cash_flow", figureJson(y.operatingCashFlow)},
                       {"capex", figureJson(y.capex)},
                       {"equity", figureJson(y.equity)}});
    }
    peers.push_back({{"peer", p.id},
                     {"name", p.name},
                     {"currency", p.currency},
                     {"price", figureJson(p.price)},
                     {"price_currency", p.priceCurrency},
                     {"minor_per_major", p.minorPerMajor},
                     {"price_date", dateText(p.priceDate)},
                     {"shares", figureJson(p.shares)},
                     {"debt", figureJson(p.debt)},
                     {"leases", figureJson(p.leases)},
                     {"preferred", figureJson(p.preferred)},
                     {"minorities", figureJson(p.minorities)},
                     {"pension", figureJson(p.pension)},
                     {"cash", figureJson(p.cash)},
                     {"associates", figureJson(p.associates)},
                     {"remark", p.remark},
                     {"source", p.source},
                     {"years", std::move(years)}});
  }
  for (const Estimate& e : s.market->estimates) {
    Json one{{"item", e.item},           {"year", e.year},     {"mean", e.mean},      {"count", e.count},
             {"date", dateText(e.date)}, {"source", e.source}, {"by", sideWord(e.by)}};
    if (e.low) one["low"] = *e.low;
    if (e.high) one["high"] = *e.high;
    estimates.push_back(std::move(one));
  }
  const PriceSummary prices = summarise(s.market->prices, s.caseOf().valuationDate);
  return {{"company", s.company().id},
          {"valuation_date", dateText(s.caseOf().valuationDate)},
          {"listings", std::move(listings)},
          {"prices",
           {{"count", s.market->prices.size()},
            {"last", figureJson(prices.last)},
            {"low_52_weeks", figureJson(prices.low52)},
            {"high_52_weeks", figureJson(prices.high52)}}},
          {"rates", std::move(rates)},
          {"peers", std::move(peers)},
          {"estimates", std::move(estimates)}};
}

}  // namespace zl::services
