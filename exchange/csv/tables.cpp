#include "exchange/csv/tables.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <cstring>
#include <map>
#include <set>

#include "core/quantity/decimal.h"
#include "exchange/content.h"
#include "exchange/csv/table.h"
#include "exchange/set_aside.h"

namespace zl::exchange {
namespace {

/// Reads cells of one row and remembers the first fault.
class RowReader {
 public:
  RowReader(const CsvTable& table, const CsvRow& row) : table_(table), row_(row) {
    if (const Status whole = table.check(row); !whole) error_ = whole.error();
  }

  std::string text(const char* column) { return table_.cell(row_, column); }

  std::string needed(const char* column) {
    std::string s = text(column);
    if (s.empty()) fault(std::string("the cell '") + column + "' is empty");
    return s;
  }

  std::optional<Date> optionalDate(const char* column) {
    const std::string s = text(column);
    if (s.empty()) return std::nullopt;
    const std::optional<Date> date = parseDate(s);
    if (!date) fault("'" + s + "' in '" + column + "' is not a date of the form 2025-12-31");
    return date;
  }

  Date date(const char* column) {
    if (needed(column).empty()) return {};
    return optionalDate(column).value_or(Date{});
  }

  Figure figure(const char* column) {
    const std::string s = text(column);
    if (s.empty()) return Figure::absent("not given");
    double number = 0;
    const auto [end, code] = std::from_chars(s.data(), s.data() + s.size(), number);
    if (code != std::errc() || end != s.data() + s.size() || !std::isfinite(number)) {
      fault("'" + s + "' in '" + column + "' is not a number");
      return {};
    }
    return Figure::of(number);
  }

  double number(const char* column) {
    if (needed(column).empty()) return 0;
    return figure(column).valueOr(0);
  }

  void fault(const std::string& what) {
    if (error_.what.empty()) {
      error_ = {ErrorKind::BadInput, what, table_.where(row_), "The layouts are described in docs/formats/csv.md"};
    }
  }
  [[nodiscard]] Status status() const {
    if (error_.what.empty()) return {};
    return tl::unexpected(error_);
  }
  [[nodiscard]] std::string where() const { return table_.where(row_); }

 private:
  const CsvTable& table_;
  const CsvRow& row_;
  Error error_;
};

/// Ends a reading: fails where every row was set aside, or there were none.
Status told(const SetAside& aside, bool none, const char* nothing, const std::string& name,
            std::vector<std::string>& warnings) {
  if (none && aside.first()) return tl::unexpected(*aside.first());
  if (none) return fail(ErrorKind::BadInput, nothing, name);
  aside.tell(warnings);
  return {};
}

Result<CsvTable> tableWith(std::string_view content, const std::string& name, const std::vector<std::string>& headers,
                           const StopCheck& stopped = {}) {
  Result<CsvTable> table = CsvTable::read(content, name, stopped);
  if (!table) return table;
  if (Status s = table->require(headers); !s) return tl::unexpected(s.error());
  return table;
}

Fact factOf(RowReader& row) {
  Fact fact;
  fact.concept_name = row.needed("concept");
  fact.label = row.text("label");
  fact.period.start = row.optionalDate("start");
  fact.period.end = row.date("end");
  if (fact.period.start && *fact.period.start > fact.period.end) {
    row.fault("the period ends before it starts");
  }
  fact.unit = row.needed("unit");
  fact.text = row.text("value");
  fact.nil = fact.text.empty();
  if (!fact.nil && !Decimal::isNumber(fact.text)) {
    row.fault("'" + fact.text + "' is not a plain decimal number");
  }
  const std::string decimals = row.text("decimals");
  if (decimals == "INF") {
    fact.exact = true;
  } else if (!decimals.empty()) {
    int places = 0;
    const auto [end, code] = std::from_chars(decimals.data(), decimals.data() + decimals.size(), places);
    if (code != std::errc() || end != decimals.data() + decimals.size() || places < -30 || places > 30) {
      row.fault("'" + decimals + "' in 'decimals' is neither INF nor a whole number of -30 to 30");
    }
    fact.decimals = places;
  }
  return fact;
}

}  // namespace

Result<Filing> readFactTable(std::string_view content, const std::string& name, const StopCheck& stopped) {
  Result<CsvTable> table = tableWith(content, name, {"concept", "start", "end", "unit", "decimals", "value"}, stopped);
  if (!table) return tl::unexpected(table.error());
  Filing filing;
  filing.document.name = name;
  filing.document.kind = contentKindText(ContentKind::FactTable);
  SetAside aside("rows");
  for (const CsvRow& r : table->rows()) {
    RowReader row(*table, r);
    Fact fact = factOf(row);
    if (const Status s = row.status(); !s) {
      aside.add(s.error());
      continue;
    }
    fact.place = "line " + std::to_string(r.line);
    noteYear(filing.document, fact.period);
    filing.facts.push_back(std::move(fact));
  }
  const Status read = told(aside, filing.facts.empty(), "the table has a header and no facts", name, filing.warnings);
  if (!read) return tl::unexpected(read.error());
  return filing;
}

namespace {

/// Sorts by date. A day that is given twice counts once, and not at all where the closes differ.
void dropContradictions(std::vector<PricePoint>& prices, const std::string& name, SetAside& aside) {
  std::stable_sort(prices.begin(), prices.end(),
                   [](const PricePoint& a, const PricePoint& b) { return a.date < b.date; });
  std::vector<PricePoint> kept;
  for (std::size_t i = 0; i < prices.size();) {
    std::size_t end = i + 1;
    bool same = true;
    for (; end < prices.size() && prices[end].date == prices[i].date; ++end) {
      same = same && prices[end].close == prices[i].close;
    }
    if (same) {
      kept.push_back(prices[i]);
    } else {
      aside.add(
          {ErrorKind::BadInput, "two closes are given for " + dateText(prices[i].date), name, "Keep one row a day"});
    }
    i = end;
  }
  prices = std::move(kept);
}

}  // namespace

Result<PriceTable> readPrices(std::string_view content, const std::string& name) {
  Result<CsvTable> table = tableWith(content, name, {"date", "close"});
  if (!table) return tl::unexpected(table.error());
  PriceTable read;
  std::vector<PricePoint>& prices = read.closes;
  SetAside aside("rows");
  for (const CsvRow& r : table->rows()) {
    RowReader row(*table, r);
    const PricePoint point{row.date("date"), row.number("close")};
    if (point.close <= 0) row.fault("the close " + row.text("close") + " is not positive");
    const std::string unit = row.text("unit").empty() ? row.text("currency") : row.text("unit");
    if (const Status s = row.status(); !s) {
      aside.add(s.error());
      continue;
    }
    if (!prices.empty() && unit != read.unit) {
      return fail(ErrorKind::BadInput, "closes in '" + read.unit + "' and in '" + unit + "'", row.where(),
                  "Bring in a table for each");
    }
    read.unit = unit;
    prices.push_back(point);
  }
  dropContradictions(prices, name, aside);
  const Status done = told(aside, prices.empty(), "the table has no prices", name, read.warnings);
  if (!done) return tl::unexpected(done.error());
  return read;
}

Result<TableOf<Peer>> readPeers(std::string_view content, const std::string& name) {
  Result<CsvTable> table = tableWith(content, name,
                                     {"peer", "name", "currency", "price", "price_currency", "minor_per_major",
                                      "price_date", "shares", "year_end", "revenue", "ebitda", "net_income"});
  if (!table) return tl::unexpected(table.error());
  TableOf<Peer> read;
  std::vector<Peer>& peers = read.rows;
  std::vector<std::string> further;
  for (const std::string& header : table->headers()) {
    if (header.starts_with(kFurtherColumn)) further.push_back(header.substr(std::strlen(kFurtherColumn)));
  }
  SetAside aside("rows");
  for (const CsvRow& r : table->rows()) {
    RowReader row(*table, r);
    const std::string id = row.needed("peer");
    auto at = std::find_if(peers.begin(), peers.end(), [&](const Peer& p) { return p.id == id; });
    std::optional<Peer> first;  // of the peer's own columns: the first row says them
    if (at == peers.end()) {
      Peer p;
      p.id = id;
      p.name = row.needed("name");
      p.currency = row.needed("currency");
      p.priceCurrency = row.needed("price_currency");
      p.minorPerMajor = row.number("minor_per_major");
      if (p.minorPerMajor <= 0) row.fault("minor_per_major must be positive");
      p.price = row.figure("price");
      p.priceDate = row.date("price_date");
      p.shares = row.figure("shares");
      p.debt = row.figure("debt");
      p.leases = row.figure("leases");
      p.preferred = row.figure("preferred");
      p.minorities = row.figure("minorities");
      p.pension = row.figure("pension");
      p.cash = row.figure("cash");
      p.associates = row.figure("associates");
      const std::string filed = row.text("leases_filed");
      if (!filed.empty() && filed != "debt" && filed != "rent")
        row.fault("leases_filed is debt or rent, not '" + filed + "'");
      p.filesRent = filed == "rent";
      const std::pair<const char*, RevenueMix Peer::*> mixes[] = {{"regions", &Peer::regions},
                                                                  {"businesses", &Peer::businesses}};
      for (const auto& [column, mix] : mixes) {
        const std::string told = row.text(column);
        if (told.empty()) continue;
        const std::optional<RevenueMix> shares = revenueMix(told);
        if (!shares) row.fault("'" + told + "' in '" + column + "' are no shares; write Europe 60 %; Asia 40 %");
        p.*mix = shares.value_or(RevenueMix());
      }
      p.remark = row.text("remark");
      p.source = row.text("source");
      first = std::move(p);
    }
    PeerYear year{row.date("year_end"), {}, {}, {}};
    for (const PeerColumn& column : kPeerColumns) year.*column.figure = row.figure(column.name);
    for (const std::string& rowOfModel : further) {
      if (Figure figure = row.figure((kFurtherColumn + rowOfModel).c_str()); !figure.isAbsent())
        year.further[rowOfModel] = std::move(figure);
    }
    const std::string stands = row.text("year_is");
    if (!stands.empty() && stands != "filed" && stands != "expected")
      row.fault("year_is is filed or expected, not '" + stands + "'");
    const bool expected = stands == "expected";
    if (!first) {
      const std::vector<PeerYear>& before = expected ? at->expected : at->years;
      if (!before.empty() && before.back().end >= year.end) row.fault("the fiscal years of " + id + " must ascend");
    }
    if (const Status s = row.status(); !s) {
      aside.add(s.error());
      continue;
    }
    if (first) at = peers.insert(peers.end(), std::move(*first));
    (expected ? at->expected : at->years).push_back(std::move(year));
  }
  const Status done = told(aside, peers.empty(), "the table has no peers", name, read.warnings);
  if (!done) return tl::unexpected(done.error());
  return read;
}

Result<TableOf<MarketRate>> readRates(std::string_view content, const std::string& name) {
  Result<CsvTable> table = tableWith(content, name, {"rate", "date", "figure", "source"});
  if (!table) return tl::unexpected(table.error());
  TableOf<MarketRate> read;
  SetAside aside("rows");
  for (const CsvRow& r : table->rows()) {
    RowReader row(*table, r);
    MarketRate rate{row.needed("rate"), row.date("date"), row.number("figure"), row.text("source")};
    if (const Status s = row.status(); !s) {
      aside.add(s.error());
      continue;
    }
    read.rows.push_back(std::move(rate));
  }
  const Status done = told(aside, read.rows.empty(), "the table has no rates", name, read.warnings);
  if (!done) return tl::unexpected(done.error());
  return read;
}

namespace {

/// Sorts a series by date. A day that is given twice counts once, and not at all where the levels differ.
void dropContradictions(MarketSeries& series, const std::string& name, SetAside& aside) {
  std::stable_sort(series.points.begin(), series.points.end(),
                   [](const SeriesPoint& a, const SeriesPoint& b) { return a.date < b.date; });
  std::vector<SeriesPoint> kept;
  for (std::size_t i = 0; i < series.points.size();) {
    std::size_t end = i + 1;
    bool same = true;
    for (; end < series.points.size() && series.points[end].date == series.points[i].date; ++end)
      same = same && series.points[end].level == series.points[i].level;
    if (same) {
      kept.push_back(series.points[i]);
    } else {
      aside.add({ErrorKind::BadInput,
                 "two levels of '" + series.name + "' are given for " + dateText(series.points[i].date), name,
                 "Keep one row a day"});
    }
    i = end;
  }
  series.points = std::move(kept);
}

}  // namespace

Result<TableOf<MarketSeries>> readSeries(std::string_view content, const std::string& name) {
  Result<CsvTable> table = tableWith(content, name, {"series", "date", "level"});
  if (!table) return tl::unexpected(table.error());
  TableOf<MarketSeries> read;
  SetAside aside("rows");
  std::map<std::string, std::size_t> at;
  for (const CsvRow& r : table->rows()) {
    RowReader row(*table, r);
    const std::string series = row.needed("series");
    SeriesPoint point{row.date("date"), row.number("level"), row.figure("dividend").valueOr(0), row.text("source")};
    if (!(point.level > 0)) row.fault("the level " + row.text("level") + " is not positive");
    if (point.dividend < 0) row.fault("the dividend " + row.text("dividend") + " is negative");
    const std::string unit = row.text("unit");
    const auto known = at.find(series);
    if (known != at.end() && !unit.empty() && unit != read.rows[known->second].unit)
      row.fault("'" + series + "' is in '" + read.rows[known->second].unit + "' above and in '" + unit + "' here");
    if (const Status s = row.status(); !s) {
      aside.add(s.error());
      continue;
    }
    if (known == at.end()) {
      at[series] = read.rows.size();
      read.rows.push_back({series, unit, {std::move(point)}});
    } else {
      read.rows[known->second].points.push_back(std::move(point));
    }
  }
  for (MarketSeries& series : read.rows) dropContradictions(series, name, aside);
  std::erase_if(read.rows, [](const MarketSeries& series) { return series.points.empty(); });
  const Status done = told(aside, read.rows.empty(), "the table has no levels", name, read.warnings);
  if (!done) return tl::unexpected(done.error());
  return read;
}

Result<TableOf<Estimate>> readEstimates(std::string_view content, const std::string& name) {
  Result<CsvTable> table = tableWith(content, name, {"item", "year", "low", "mean", "high", "count", "date", "source"});
  if (!table) return tl::unexpected(table.error());
  TableOf<Estimate> read;
  SetAside aside("rows");
  for (const CsvRow& r : table->rows()) {
    RowReader row(*table, r);
    Estimate e;
    e.item = row.needed("item");
    const double year = row.number("year");
    const double count = row.text("count").empty() ? 0 : row.number("count");
    if (const Figure low = row.figure("low"); low.hasValue()) e.low = low.value();
    if (const Figure high = row.figure("high"); high.hasValue()) e.high = high.value();
    const std::string by = row.text("by");
    if (!by.empty() && by != "analysts" && by != "company") row.fault("by is analysts or company, not '" + by + "'");
    if (by == "company") e.by = EstimateBy::Company;
    // A company names a range; its middle is ours to take.
    const bool range = e.by == EstimateBy::Company && row.text("mean").empty() && e.low && e.high;
    e.mean = range ? (*e.low + *e.high) / 2 : row.number("mean");
    e.date = row.date("date");
    e.source = row.text("source");
    if (!(year >= 1900 && year <= 2200) || year != std::floor(year)) {
      row.fault("the year " + row.text("year") + " is no fiscal year");
    }
    if (!(count >= 0 && count <= 10000) || count != std::floor(count)) {
      row.fault("the count " + row.text("count") + " is no number of analysts");
    }
    if ((e.low && *e.low > e.mean) || (e.high && *e.high < e.mean)) {
      row.fault("low, mean and high of " + e.item + " are out of order");
    }
    if (const Status s = row.status(); !s) {
      aside.add(s.error());
      continue;
    }
    e.year = static_cast<int>(year);
    e.count = static_cast<int>(count);
    read.rows.push_back(std::move(e));
  }
  const Status done = told(aside, read.rows.empty(), "the table has no estimates", name, read.warnings);
  if (!done) return tl::unexpected(done.error());
  return read;
}

}  // namespace zl::exchange
