#pragma once
// Every reader of outside content under one roof, for damaged files, the stored corpus and fuzzing:
// content in, no fault or one message out.

#include <functional>
#include <string>
#include <vector>

#include "core/model/parser.h"
#include "core/outlook/evaluation.h"
#include "core/table/reading.h"
#include "exchange/content.h"
#include "exchange/csv/tables.h"
#include "exchange/json/case_json.h"
#include "exchange/json/company_json.h"
#include "exchange/oim/xbrl_csv.h"
#include "exchange/oim/xbrl_json.h"
#include "exchange/workbook/workbook.h"
#include "exchange/xbrl/inline.h"
#include "exchange/xbrl/instance.h"
#include "exchange/xbrl/linkbase.h"

namespace zl::test {

/// Reads content; nullptr when it was read without a fault, else `error`, which says why not.
using ReadContent = const Error* (*)(const std::string& content, Error& error);

template <class T>
const Error* keep(const Result<T>& result, Error& error) {
  if (result) return nullptr;
  error = result.error();
  return &error;
}

/// Calls a reader; some can be stopped, and nobody does here.
template <auto Read>
auto readOf(const std::string& content) {
  if constexpr (requires { Read(content, "f"); }) {
    return Read(content, "f");
  } else {
    return Read(content, "f", exchange::StopCheck());
  }
}

template <auto Read>
const Error* direct(const std::string& content, Error& error) {
  return keep(readOf<Read>(content), error);
}

template <auto Read>
const Error* throughJson(const std::string& content, Error& error) {
  const auto json = exchange::parseJson(content, "f");
  if (!json) return keep(json, error);
  return keep(Read(*json, "f"), error);
}

inline const Error* inlinePage(const std::string& content, Error& error) {
  const std::vector<exchange::NamedContent> set{{"f", content}};
  return keep(exchange::readInlineXbrl(set), error);
}

/// A description and its one table, parted by a line of three equals signs.
inline const Error* reportInTables(const std::string& content, Error& error) {
  const size_t parted = content.find("\n===\n");
  const std::string description = content.substr(0, parted);
  const std::string rows = parted == std::string::npos ? "" : content.substr(parted + 5);
  const std::vector<exchange::NamedContent> tables{{"t.csv", rows}};
  return keep(exchange::readXbrlCsv({"m", description}, tables), error);
}

/// A table is read to the end: layout guessed, facts made.
template <auto Read>
const Error* table(const std::string& content, Error& error) {
  const auto workbook = readOf<Read>(content);
  if (!workbook) return keep(workbook, error);
  static const LabelRules labels = *LabelRules::parse("revenue = revenue\n-tax = income tax\n", "l");
  static const LineTree lines(*parseTies("tie net \"Net\" net_income = revenue - tax", "t"));
  static const PartRules parts = *PartRules::parse("net_income = -tax\n", "p");
  for (const Sheet& sheet : workbook->sheets) {
    const auto reading = guessTable(sheet, {labels, lines, parts}, {});
    if (!reading) return keep(reading, error);
    const auto facts = factsOf(sheet, *reading);
    if (!facts) return keep(facts, error);
  }
  return nullptr;
}

/// The analyst's own rows upon a small model, parsed, checked and compiled.
inline const Error* ownRows(const std::string& content, Error& error) {
  static const char* const kGround =
      "model ground \"Ground\" 1\ngroup \"Sales\"\n"
      "driver revenue_growth \"Growth\" ratio rate\n history guard(revenue[-1] > 0, revenue / revenue[-1] - 1, "
      "\"none\")\n"
      " default last\nrow revenue \"Revenue\" money flow\n history filed\n forecast revenue[-1] * (1 + "
      "revenue_growth)\n"
      "row cash \"Cash\" money balance\n history filed\n forecast cash[-1] + revenue * 0.1\n";
  const auto model = model::parseModel({{"ground", kGround}, {"own rows", content}});
  if (!model) return keep(model, error);
  return keep(compileModel(*model, {2, 3}), error);
}

struct NamedReader {
  const char* name;
  const char* demoFile;  ///< a good file of the demo, empty where there is none
  ReadContent read;
};

inline const std::vector<NamedReader>& readers() {
  static const std::vector<NamedReader> kReaders{
      {"Xbrl", "filings/annual-2024.xbrl", direct<exchange::readXbrlInstance>},
      {"Inline", "filings/interim-2024-q2.xhtml", inlinePage},
      {"XbrlJson", "filings/interim-2023-q2.json", direct<exchange::readXbrlJson>},
      {"XbrlCsv", "", reportInTables},
      {"Linkbase", "", direct<exchange::readLinkbase>},
      {"Workbook", "filings/interim-2025.xlsx", table<exchange::readXlsx>},
      {"OpenSheet", "", table<exchange::readOds>},
      {"Delimited", "filings/annual-2016.csv", table<exchange::readDelimited>},
      {"Facts", "filings/annual-2016.csv", direct<exchange::readFactTable>},
      {"Prices", "prices.csv", direct<exchange::readPrices>},
      {"Peers", "peers.csv", direct<exchange::readPeers>},
      {"Rates", "rates.csv", direct<exchange::readRates>},
      {"Estimates", "estimates.csv", direct<exchange::readEstimates>},
      {"OwnRows", "", ownRows},
      {"Case", "case.json", throughJson<exchange::caseFromJson>},
      {"Company", "company.json", throughJson<exchange::companyFromJson>}};
  return kReaders;
}

}  // namespace zl::test
