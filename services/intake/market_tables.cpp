#include "services/intake/market_tables.h"

#include "core/quantity/number_text.h"
#include "services/intake/market_peers.h"
#include "services/intake/market_rates.h"
#include "services/intake/market_reading.h"

namespace zl::services {

using exchange::ContentKind;

namespace {

/// A row of the model by its name, its label, or a usual label of its line.
std::string rowNamed(const std::string& item, const LabelRules& labels, const model::Model& m) {
  if (m.find(item).known()) return item;
  const std::string normal = normalisedLabel(item);
  for (const model::Row& row : m.rows) {
    if (!normal.empty() && normalisedLabel(row.label) == normal) return row.name;
  }
  const LabelRule* rule = labels.exactly(item);
  return rule == nullptr ? std::string() : rule->line;
}

std::optional<double> estimateAt(MarketReading& table, size_t row, const std::string& is, model::RowId at,
                                 const model::Model& m) {
  const bool money = at.known() && (m[at].kind == Kind::Money || m[at].kind == Kind::Shares);
  return money ? table.amountAt(row, is) : table.numberAt(row, is);
}

void readPrices(MarketReading& table) {
  table.begin(ContentKind::PriceTable, "date,close,unit");
  for (size_t r = table.firstRow(); r < table.endRow(); ++r) {
    const SheetCell* cell = table.cellAt(r, "date");
    if (cell == nullptr) continue;
    const std::optional<Date> day = table.dayOf(cell);
    if (!day) {
      table.setAside(r, "'" + cell->text + "' is no day");
      continue;
    }
    const std::optional<double> close = table.numberAt(r, "close");
    if (!close || !(*close > 0)) {
      table.setAside(r, "it has no price");
      continue;
    }
    std::string unit = table.priceUnit(r);
    if (unit.empty()) unit = table.title().currency;
    if (unit.empty()) unit = unitHeading(table.textAt(r, "close")).currency;  // "31,50 €"
    table.line({dateText(*day), plainNumber(*close), unit});
  }
}

void readEstimates(MarketReading& table, const LabelRules& labels, const model::Model& m) {
  table.begin(ContentKind::EstimateTable, "item,year,low,mean,high,count,date,source,by");
  for (size_t r = table.firstRow(); r < table.endRow(); ++r) {
    const std::string item = rowNamed(table.textAt(r, "item"), labels, m);
    const model::RowId at = m.find(item);
    const std::optional<PeriodHeading> year = periodHeading(table.textAt(r, "year_end"));
    const std::optional<double> mean = estimateAt(table, r, "mean", at, m);
    const std::optional<double> low = estimateAt(table, r, "low", at, m);
    const std::optional<double> high = estimateAt(table, r, "high", at, m);
    if (table.textAt(r, "item").empty() && !mean) continue;
    if (item.empty() || !year || (!mean && !(low && high))) {
      table.setAside(r, item.empty() ? "'" + table.textAt(r, "item") + "' is no line"
                        : !year      ? "it has no year"
                                     : "it has no figure");
      continue;
    }
    const std::optional<Date> day =
        table.has("date") ? table.dayOf(table.cellAt(r, "date")) : std::optional(table.hints().day);
    const auto cell = [](const std::optional<double>& x) { return x ? plainNumber(*x) : std::string(); };
    const std::string by = table.textAt(r, "by");
    const std::string source = table.textAt(r, "source");
    table.line({item, std::to_string(year->year), cell(low), cell(mean), cell(high), cell(table.numberAt(r, "count")),
                dateText(day.value_or(table.hints().day)), source.empty() ? table.hints().source : source,
                by.empty() ? "analysts" : by});
  }
}

}  // namespace

std::optional<MarketTable> marketTableOf(const Sheet& sheet, const MarketHints& hints, const LabelRules& labels,
                                         const model::Model& m) {
  MarketReading table(sheet, hints);
  if (!table.findHeadings()) return std::nullopt;
  const auto has = [&](const char* is) { return table.has(is); };
  const int figures = table.figuresOfPeers();
  const bool peers = has("name") && (figures >= 2 || (figures == 1 && table.namesKnownPeer()));
  const bool estimates = has("item") && has("year_end") && has("mean");
  const bool prices = has("date") && has("close") && !has("name") && figures == 1;
  const bool series = has("series") && has("date") && (has("figure") || has("close"));
  const bool rates = !series && (has("rate") || has("name") || has("series")) && has("figure") && !has("item");
  const bool regions = !peers && has("region") && (has("premium") || has("tax"));
  const bool spreads = !peers && has("cover") && has("spread");
  table.findStyle();
  if (series) {
    RateRows(table).readSeries();
  } else if (peers) {
    PeerRows(table).readPeers();
  } else if (estimates) {
    readEstimates(table, labels, m);
  } else if (prices) {
    readPrices(table);
  } else if (regions || spreads || rates) {
    table.begin(ContentKind::RateTable, kRateHeadings);
    RateRows read(table);
    if (regions) read.readByRegion();
    if (spreads) read.readSpreads();
    if (!regions && !spreads) read.readRates();
  } else {
    return std::nullopt;
  }
  return table.take();
}

}  // namespace zl::services
