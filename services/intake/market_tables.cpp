#include "services/intake/market_tables.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <map>
#include <set>
#include <span>
#include <tuple>

#include "core/capital/rates.h"
#include "core/filing/minor_unit.h"
#include "core/quantity/number_text.h"
#include "core/table/displayed.h"
#include "services/intake/market_headings.h"
#include "services/text/short_name.h"
#include "services/text/text_cells.h"

namespace zl::services {

using exchange::ContentKind;

namespace {

constexpr int kTitleDepth = 12;   // rows that may stand above the headings
constexpr size_t kMostNoted = 8;  // rows set aside that are named one by one
constexpr const char* kClaims[] = {"debt", "leases", "preferred", "minorities", "pension", "cash", "associates"};
constexpr double kPlainAmount = 1e7;  // amounts below it, in no unit that is told, are taken to be millions

std::string slug(const std::string& name) {
  return shortName(name, "peer");
}

class Reading {
 public:
  Reading(const Sheet& sheet, const MarketHints& hints, const LabelRules& labels, const model::Model& m)
      : sheet_(sheet), hints_(hints), labels_(labels), m_(m) {}

  std::optional<MarketTable> read() {
    if (!findHeadings()) return std::nullopt;
    const bool peers = has("name") && (figuresOfPeers() >= 2 || (figuresOfPeers() == 1 && namesKnownPeer()));
    const bool estimates = has("item") && has("year_end") && has("mean");
    const bool prices = has("date") && has("close") && !has("name") && figuresOfPeers() == 1;
    const bool series = has("series") && has("date") && (has("figure") || has("close"));
    const bool rates = !series && (has("rate") || has("name") || has("series")) && has("figure") && !has("item");
    const bool regions = !peers && has("region") && (has("premium") || has("tax"));
    const bool spreads = !peers && has("cover") && has("spread");
    if (!peers && !estimates && !prices && !rates && !series && !regions && !spreads) return std::nullopt;
    table_.kind = series      ? ContentKind::SeriesTable
                  : peers     ? ContentKind::PeerTable
                  : estimates ? ContentKind::EstimateTable
                  : prices    ? ContentKind::PriceTable
                              : ContentKind::RateTable;
    findMark();
    findOrder();
    rows_ = 0;
    if (series) {
      readSeries();
    } else if (peers) {
      readPeers();
    } else if (estimates) {
      readEstimates();
    } else if (prices) {
      readPrices();
    } else {
      table_.csv = "rate,date,figure,source\n";
      if (regions) readByRegion();
      if (spreads) readSpreads();
      if (!regions && !spreads) readRates();
    }
    if (rows_ == 0 && aside_ == 0) return std::nullopt;
    if (rows_ == 0) table_.csv.clear();
    if (aside_ > kMostNoted) note(std::to_string(aside_ - kMostNoted) + " further rows were set aside");
    return std::move(table_);
  }

 private:
  using Column = MarketColumn;

  [[nodiscard]] bool has(const std::string& is) const {
    return std::any_of(columns_.begin(), columns_.end(), [&](const Column& c) { return c.is == is; });
  }
  /// Of a figure of a fiscal year: of the one that is being read.
  [[nodiscard]] const Column* columnOf(const std::string& is) const {
    const Column* plain = nullptr;
    for (const Column& column : columns_) {
      if (column.is != is) continue;
      if (column.period && year_ && isSameYear(*column.period, *year_)) return &column;
      if (!column.period && plain == nullptr) plain = &column;
    }
    // Figures without a year are of the last one that is filed.
    const bool another = year_ && isPeerFigure(is) && !(lastFiled_ && isSameYear(*year_, *lastFiled_));
    return another ? nullptr : plain;
  }
  static bool isSameYear(const PeriodHeading& a, const PeriodHeading& b) {
    return a.year == b.year && a.end == b.end && a.forecast == b.forecast;
  }
  [[nodiscard]] int figuresOfPeers() const {
    int count = 0;
    for (const char* is : {"close", "shares", "market_value", "revenue", "ebitda", "ebit", "net_income", "debt",
                           "net_debt", "cash", "equity"}) {
      count += has(is) ? 1 : 0;
    }
    for (const Column& column : columns_) {
      count += column.is.starts_with(kFurtherColumn) || column.is == "regions" || column.is == "businesses" ? 1 : 0;
    }
    return count;
  }
  [[nodiscard]] bool namesKnownPeer() const {
    for (size_t r = header_ + 1; r < sheet_.rows.size(); ++r) {
      if (knownAs(textAt(r, "name")) != nullptr) return true;
    }
    return false;
  }
  void note(std::string text) { table_.notes.push_back(std::move(text)); }

  /// The first row of which two cells or more are headings; units of the rows above it hold for all columns.
  bool findHeadings() {
    for (size_t r = 0; r < sheet_.rows.size() && r < kTitleDepth; ++r) {
      columns_.clear();
      for (size_t i = 0; i < sheet_.rows[r].cells.size(); ++i) {
        const SheetCell& cell = sheet_.rows[r].cells[i];
        if (cell.kind != SheetCell::Kind::Text || cell.text.size() > 80) continue;
        MarketColumn column = marketColumn(sheet_.rows[r].columns[i], cell.text);
        if (column.is.empty()) column.is = furtherColumn(column);
        Column* there = column.is.empty() ? nullptr : twinOf(column);
        if (!column.is.empty() && there == nullptr) {
          columns_.push_back(std::move(column));
          continue;
        }
        // Of a balance, a price or a count in several years the last one stands.
        if (there != nullptr && column.year > there->year) std::swap(*there, column);
        if (!column.text.empty()) unread_.push_back(column.text.substr(0, 40));
      }
      if (columns_.size() >= 2) {
        header_ = r;
        return true;
      }
      unread_.clear();
      for (const SheetCell& cell : sheet_.rows[r].cells) {
        const UnitHeading unit = unitHeading(cell.text);
        if (title_.currency.empty()) title_.currency = unit.currency;
        if (!title_.scale) title_.scale = unit.scale;
      }
    }
    return false;
  }

  /// The column that holds the same, of the same fiscal year where it is a figure of one.
  [[nodiscard]] Column* twinOf(const Column& column) {
    const auto found = std::find_if(columns_.begin(), columns_.end(), [&](const Column& c) {
      return c.is == column.is && c.period.has_value() == column.period.has_value() &&
             (!c.period || isSameYear(*c.period, *column.period));
    });
    return found == columns_.end() ? nullptr : &*found;
  }

  /// What a multiple of the analyst's own is of, headed as its row is labelled or named.
  [[nodiscard]] std::string furtherColumn(const Column& column) const {
    const std::string label = normalisedLabel(column.text);
    for (const auto& [name, rowLabel] : hints_.further) {
      for (const std::string& word : {name, kFurtherColumn + name, rowLabel}) {
        const std::string known = normalisedLabel(word);
        if (label == known || (label.starts_with(known + " ") && column.unit.scale)) return kFurtherColumn + name;
      }
    }
    return {};
  }

  void findMark() {
    std::vector<std::string> texts;
    for (size_t r = header_ + 1; r < sheet_.rows.size(); ++r) {
      for (const SheetCell& cell : sheet_.rows[r].cells) texts.push_back(cell.text);
    }
    mark_ = decimalMarkOf(texts);
  }

  /// Days as 11/03/2026: the order in which every one is a day and all go one way; the day first where both do.
  void findOrder() {
    const Column* dates = columnOf("date");
    if (dates == nullptr) return;
    int first = 0, second = 0;
    bool largeFirst = false, largeSecond = false;
    std::vector<std::pair<int, int>> pairs;
    for (size_t r = header_ + 1; r < sheet_.rows.size(); ++r) {
      const SheetCell* cell = sheet_.rows[r].at(dates->at);
      int year = 0;
      char tail = 0;
      if (cell == nullptr || std::sscanf(cell->text.c_str(), "%2d/%2d/%4d%c", &first, &second, &year, &tail) != 3)
        continue;
      largeFirst = largeFirst || first > 12;
      largeSecond = largeSecond || second > 12;
      pairs.emplace_back(first, second);
    }
    if (largeFirst != largeSecond) {
      monthFirst_ = largeSecond;
      return;
    }
    if (pairs.size() < 3) return;
    // Of days in a row the day changes at most lines, the month at few.
    size_t firstChanges = 0, secondChanges = 0;
    for (size_t i = 1; i < pairs.size(); ++i) {
      firstChanges += pairs[i].first != pairs[i - 1].first ? 1 : 0;
      secondChanges += pairs[i].second != pairs[i - 1].second ? 1 : 0;
    }
    monthFirst_ = secondChanges > firstChanges;
    note(std::string("days such as ") + std::to_string(pairs[0].first) + "/" + std::to_string(pairs[0].second) +
         " are read with the " + (monthFirst_ ? "month" : "day") + " first");
  }

  [[nodiscard]] std::optional<Date> dayOf(const SheetCell* cell) const {
    if (cell == nullptr) return std::nullopt;
    if (const std::optional<Date> iso = parseDate(cell->text)) return iso;
    int first = 0, second = 0, year = 0;
    char tail = 0;
    if (std::sscanf(cell->text.c_str(), "%2d/%2d/%4d%c", &first, &second, &year, &tail) == 3) {
      char iso[24];
      std::snprintf(iso, sizeof iso, "%04d-%02d-%02d", year, monthFirst_ ? first : second,
                    monthFirst_ ? second : first);
      return parseDate(iso);
    }
    const std::optional<PeriodHeading> heading = periodHeading(cell->text);
    const bool day = heading && heading->end && heading->months == 12 && heading->part == 0;
    return day ? heading->end : std::nullopt;
  }

  [[nodiscard]] std::string textAt(size_t row, const std::string& is) const {
    const Column* column = columnOf(is);
    const SheetCell* cell = column == nullptr ? nullptr : sheet_.rows[row].at(column->at);
    return cell == nullptr ? std::string() : cell->text;
  }
  [[nodiscard]] const SheetCell* cellAt(size_t row, const std::string& is) const {
    const Column* column = columnOf(is);
    return column == nullptr ? nullptr : sheet_.rows[row].at(column->at);
  }
  /// A cell's figure, and whether it says itself what it counts ("1.2bn", "350m").
  struct Written {
    double number = 0;
    bool whole = false;
  };
  /// As it is written; a per cent sign makes a fraction. Empty where the cell is no number.
  [[nodiscard]] std::optional<Written> writtenAt(size_t row, const std::string& is) const {
    const Column* column = columnOf(is);
    return column == nullptr ? std::nullopt : writtenIn(row, *column);
  }
  [[nodiscard]] std::optional<Written> writtenIn(size_t row, const Column& column) const {
    const SheetCell* cell = sheet_.rows[row].at(column.at);
    if (cell == nullptr || leftOut_.count({row, column.at}) > 0) return std::nullopt;
    const char mark = cell->kind == SheetCell::Kind::Number ? '.' : mark_;
    std::string text = cell->text;
    // "412p", "412 GBX"
    if (column.is == "close" && !quotedIn(text).empty()) text = text.substr(0, text.find_last_of("0123456789") + 1);
    if (const std::optional<DisplayedNumber> shown = displayedNumber(text, mark)) {
      return Written{std::stod(shown->plain + (shown->percent ? "e-2" : "")), shown->percent};
    }
    const std::optional<double> typed = typedNumber(text);
    return typed ? std::optional(Written{*typed, true}) : std::nullopt;
  }
  [[nodiscard]] std::optional<double> numberAt(size_t row, const std::string& is) const {
    const std::optional<Written> written = writtenAt(row, is);
    return written ? std::optional(written->number) : std::nullopt;
  }
  /// In units of currency.
  [[nodiscard]] std::optional<double> amountAt(size_t row, const std::string& is) {
    const std::optional<Written> written = writtenAt(row, is);
    if (!written) return std::nullopt;
    amounts_ = true;
    return written->whole ? written->number : written->number * scaleOf(is);
  }

  /// A cell of a row that comes in: told of by its heading, and read as empty.
  void leaveOut(size_t row, const std::string& is, const std::string& why) {
    const bool first = leftOut_.insert({row, columnOf(is)->at}).second;
    if (!first || leftOut_.size() > kMostNoted) return;
    note("row " + std::to_string(rowNumber(row)) + ", " + columnOf(is)->text + ": '" +
         cellAt(row, is)->text.substr(0, 40) + "' " + why + "; it is left out");
  }

  /// Cells of a peer that are no amount in its currency. Dashes and words for nothing are nothing.
  void lookAtFigures(size_t row, const std::vector<std::string>& figures, const std::string& currency) {
    for (const std::string& is : figures) {
      const SheetCell* cell = cellAt(row, is);
      if (cell == nullptr || cell->text.empty()) continue;
      const std::optional<Written> written = writtenAt(row, is);
      const bool percent = cell->text.find('%') != std::string::npos;
      if (percent) {
        leaveOut(row, is, "is a share and no amount");
      } else if (!written) {
        if (!saysNothing(cell->text)) leaveOut(row, is, "is no number");
      } else if (const std::string own = unitHeading(cell->text).currency; !own.empty() && own != currency) {
        leaveOut(row, is, std::string("is in ").append(own).append(" and the peer's figures are in ").append(currency));
      }
    }
  }

  void setAside(size_t row, const std::string& why) {
    ++aside_;
    if (aside_ <= kMostNoted) note("row " + std::to_string(rowNumber(row)) + " was set aside: " + why);
  }
  [[nodiscard]] int rowNumber(size_t row) const {
    return sheet_.rows[row].cells.empty() ? static_cast<int>(row) + 1 : sheet_.rows[row].cells.front().row + 1;
  }

  void line(const std::vector<std::string>& cells) {
    for (size_t i = 0; i < cells.size(); ++i) {
      if (i > 0) table_.csv += ',';
      table_.csv += csvCell(cells[i]);
    }
    table_.csv += '\n';
  }

  /// What prices are quoted in: as a row, the heading or the title says; empty where nothing does.
  [[nodiscard]] std::string priceUnit(size_t row) const {
    std::string unit = quotedIn(textAt(row, "close"));
    if (unit.empty()) unit = textAt(row, "price_currency");
    if (unit.empty() && columnOf("close") != nullptr) {
      unit = columnOf("close")->unit.currency;
      // "Price (p)", "Price GBX"
      const std::string& heading = columnOf("close")->text;
      for (const char* minor : kMinorUnits) {
        if (heading.find(minor) != std::string::npos) unit = minor;
      }
      for (const char* pence : {"(p)", "pence", "Pence"}) {
        if (heading.find(pence) != std::string::npos) unit = "GBX";
      }
    }
    return unit;
  }

  void readPrices() {
    table_.csv = "date,close,unit\n";
    for (size_t r = header_ + 1; r < sheet_.rows.size(); ++r) {
      const SheetCell* cell = cellAt(r, "date");
      if (cell == nullptr) continue;
      const std::optional<Date> day = dayOf(cell);
      if (!day) {
        setAside(r, "'" + cell->text + "' is no day");
        continue;
      }
      const std::optional<double> close = numberAt(r, "close");
      if (!close || !(*close > 0)) {
        setAside(r, "it has no price");
        continue;
      }
      std::string unit = priceUnit(r);
      if (unit.empty()) unit = title_.currency;
      if (unit.empty()) unit = unitHeading(textAt(r, "close")).currency;  // "31,50 €"
      line({dateText(*day), plainNumber(*close), unit});
      ++rows_;
    }
  }

  void readSeries() {
    table_.csv = "series,date,level,unit,dividend,source\n";
    const std::string level = has("figure") ? "figure" : "close";
    for (size_t r = header_ + 1; r < sheet_.rows.size(); ++r) {
      const std::string name = textAt(r, "series");
      const std::optional<double> figure = numberAt(r, level);
      const SheetCell* cell = cellAt(r, "date");
      if (name.empty() && !figure && cell == nullptr) continue;
      const std::optional<Date> day = dayOf(cell);
      if (name.empty() || !day || !figure || !(*figure > 0)) {
        setAside(r, name.empty() ? "it names no series" : !day ? "it has no day" : "it has no level above nought");
        continue;
      }
      std::string unit = textAt(r, "price_currency");
      if (unit.empty()) unit = textAt(r, "currency");
      const std::optional<double> paid = numberAt(r, "dividend");
      const std::string source = textAt(r, "source");
      line({name, dateText(*day), plainNumber(*figure), unit, paid ? plainNumber(*paid) : "",
            source.empty() ? hints_.source : source});
      ++rows_;
    }
  }

  /// A rate of the economy as it is written: without a sign a column of figures above a half is in per cent.
  [[nodiscard]] double perCentOf(const std::string& is) {
    constexpr double kMostPlainRate = 0.6;
    bool large = columnOf(is)->text.find('%') != std::string::npos;
    for (size_t r = header_ + 1; r < sheet_.rows.size() && !large; ++r) {
      const std::optional<Written> x = writtenAt(r, is);
      large = x && !x->whole && std::fabs(x->number) > kMostPlainRate;
      if (large) note("'" + columnOf(is)->text + "' is read in per cent");
    }
    return large ? 0.01 : 1;
  }

  /// Adds one rate of a row, dated and sourced as the row says. False where the cell holds no figure.
  bool addRate(size_t row, const std::string& rate, const std::string& is, double factor) {
    const std::optional<Written> x = writtenAt(row, is);
    if (!x) return false;
    const std::optional<Date> day = has("date") ? dayOf(cellAt(row, "date")) : std::optional(hints_.day);
    if (!day) return false;
    const std::string source = textAt(row, "source");
    // Of "4.1" per cent 0.041, not 0.040999999999999995.
    const double figure = x->whole || factor == 1 ? x->number : std::round(x->number * factor * 1e12) / 1e12;
    line({rate, dateText(*day), plainNumber(figure), source.empty() ? hints_.source : source});
    ++rows_;
    return true;
  }

  void readByRegion() {
    const double premium = has("premium") ? perCentOf("premium") : 1;
    const double tax = has("tax") ? perCentOf("tax") : 1;
    for (size_t r = header_ + 1; r < sheet_.rows.size(); ++r) {
      const std::string region = textAt(r, "region");
      if (region.empty() || isStatistic(region)) continue;
      const bool paid = has("premium") && addRate(r, std::string(kCountryPremium) + region, "premium", premium);
      const bool taxed = has("tax") && addRate(r, std::string(kCountryTax) + region, "tax", tax);
      if (!paid && !taxed) setAside(r, "it has no figure or no day");
    }
  }

  /// "8.5", "> 8.5", "6.5 - 8.5": from its lower end on; "< 0.2" is the lowest row.
  [[nodiscard]] static std::optional<double> lowerEnd(const std::string& text) {
    const size_t digit = text.find_first_of("0123456789");
    if (digit == std::string::npos) return std::nullopt;
    if (text.find('<') < digit || text.find("\u2264") < digit) return 0;
    size_t from = digit;
    if (from > 0 && text[from - 1] == '-' && (from == 1 || text[from - 2] == ' ')) --from;
    size_t to = digit;
    while (to < text.size() && (std::isdigit(static_cast<unsigned char>(text[to])) != 0 || text[to] == '.')) ++to;
    return std::stod(text.substr(from, to - from));
  }

  void readSpreads() {
    const double factor = perCentOf("spread");
    for (size_t r = header_ + 1; r < sheet_.rows.size(); ++r) {
      const std::string written = textAt(r, "cover");
      if (written.empty()) continue;
      const std::optional<double> from = lowerEnd(written);
      if (!from || !addRate(r, std::string(kCoverSpread) + plainNumber(*from), "spread", factor))
        setAside(r, "it has no cover from which the spread holds, or no spread");
    }
  }

  void readRates() {
    for (size_t r = header_ + 1; r < sheet_.rows.size(); ++r) {
      std::string name = textAt(r, has("rate") ? "rate" : has("name") ? "name" : "series");
      const std::optional<double> figure = numberAt(r, "figure");
      if (name.empty() && !figure) continue;
      const std::optional<Date> day = has("date") ? dayOf(cellAt(r, "date")) : std::optional(hints_.day);
      if (name.empty() || !figure || !day) {
        setAside(r, name.empty() ? "it names no rate" : !figure ? "it has no figure" : "it has no day");
        continue;
      }
      // "EUR/GBP" is a pair of currencies.
      if (name.size() == 7 && name[3] == '/') name.insert(0, "spot ");
      const std::string source = textAt(r, "source");
      line({name, dateText(*day), plainNumber(*figure), source.empty() ? hints_.source : source});
      ++rows_;
    }
  }

  void readEstimates() {
    table_.csv = "item,year,low,mean,high,count,date,source,by\n";
    for (size_t r = header_ + 1; r < sheet_.rows.size(); ++r) {
      const std::string item = rowNamed(textAt(r, "item"));
      const std::optional<PeriodHeading> year = periodHeading(textAt(r, "year_end"));
      const std::optional<double> mean = estimateAt(r, "mean", item);
      const std::optional<double> low = estimateAt(r, "low", item);
      const std::optional<double> high = estimateAt(r, "high", item);
      if (textAt(r, "item").empty() && !mean) continue;
      if (item.empty() || !year || (!mean && !(low && high))) {
        setAside(r, item.empty() ? "'" + textAt(r, "item") + "' is no line"
                    : !year      ? "it has no year"
                                 : "it has no figure");
        continue;
      }
      const std::optional<Date> day = has("date") ? dayOf(cellAt(r, "date")) : std::optional(hints_.day);
      const auto cell = [](const std::optional<double>& x) { return x ? plainNumber(*x) : std::string(); };
      const std::string by = textAt(r, "by");
      const std::string source = textAt(r, "source");
      line({item, std::to_string(year->year), cell(low), cell(mean), cell(high), cell(numberAt(r, "count")),
            dateText(day.value_or(hints_.day)), source.empty() ? hints_.source : source, by.empty() ? "analysts" : by});
      ++rows_;
    }
  }

  /// A row of the model by its name, its label, or a usual label of its line.
  [[nodiscard]] std::string rowNamed(const std::string& item) const {
    if (m_.find(item).known()) return item;
    const std::string normal = normalisedLabel(item);
    for (const model::Row& row : m_.rows) {
      if (!normal.empty() && normalisedLabel(row.label) == normal) return row.name;
    }
    const LabelRule* rule = labels_.exactly(item);
    return rule == nullptr ? std::string() : rule->line;
  }

  [[nodiscard]] std::optional<double> estimateAt(size_t row, const std::string& is, const std::string& item) {
    const model::RowId at = m_.find(item);
    const bool money = at.known() && (m_[at].kind == Kind::Money || m_[at].kind == Kind::Shares);
    return money ? amountAt(row, is) : numberAt(row, is);
  }

  /// Of a column of amounts: as its heading or the title says; millions where nothing does and all are small.
  [[nodiscard]] double scaleOf(const std::string& is) const {
    const Column* column = columnOf(is);
    if (column != nullptr && column->unit.scale) return std::pow(10, *column->unit.scale);
    if (title_.scale) return std::pow(10, *title_.scale);
    return smallAmounts() ? 1e6 : 1;
  }

  [[nodiscard]] bool smallAmounts() const {
    for (const char* is : {"market_value", "revenue", "ebitda", "ebit", "net_income", "debt", "net_debt", "cash",
                           "equity", "ev", "mean"}) {
      for (const Column& column : columns_) {
        if (column.is == is && !isSmall(column)) return false;
      }
    }
    return true;
  }
  [[nodiscard]] bool isSmall(const Column& column) const {
    for (size_t r = header_ + 1; r < sheet_.rows.size(); ++r) {
      const std::optional<Written> x = writtenIn(r, column);
      if (x && !x->whole && std::fabs(x->number) >= kPlainAmount) return false;
    }
    return true;
  }

  /// "2026E", "2026 e": a year that is not filed yet.
  static bool isExpected(std::string year) {
    while (!year.empty() && year.back() == ' ') year.pop_back();
    if (year.empty() || (year.back() != 'E' && year.back() != 'e')) return false;
    year.pop_back();
    while (!year.empty() && year.back() == ' ') year.pop_back();
    return !year.empty() && std::isdigit(static_cast<unsigned char>(year.back())) != 0;
  }

  void readPeers() {
    std::vector<std::string> amounts(std::begin(kClaims), std::end(kClaims));
    for (const PeerColumn& column : kPeerColumns) amounts.emplace_back(column.name);
    for (const Column& column : columns_) {
      if (column.is.starts_with(kFurtherColumn)) amounts.push_back(column.is);
    }
    table_.csv =
        "peer,name,currency,price,price_currency,minor_per_major,price_date,shares,year_end,year_is,remark,source,"
        "regions,businesses";
    for (const std::string& amount : amounts) table_.csv += ',' + amount;
    table_.csv += '\n';
    scaleTold_ = title_.scale.has_value();
    const std::vector<std::optional<PeriodHeading>> years = findYears();
    for (size_t r = header_ + 1; r < sheet_.rows.size(); ++r) {
      const std::string name = textAt(r, "name");
      if (name.empty()) {
        if (!sheet_.rows[r].cells.empty()) setAside(r, "it names no peer");
        continue;
      }
      if (isStatistic(name)) continue;  // of the peers, at the foot of their table
      const size_t before = seen_.size();
      for (const std::optional<PeriodHeading>& year : years) {
        year_ = year;
        if (holdsAny(r, amounts)) readPeer(r, name, amounts);
      }
      // A peer without figures of any year is one all the same.
      year_ = lastFiled_;
      if (seen_.size() == before && !holdsAny(r, amounts)) readPeer(r, name, amounts);
    }
    year_ = std::nullopt;
    if (!scaleTold_ && amounts_ && smallAmounts())
      note("the table names no scale; its amounts are taken to be millions");
    if (claimsAssumed_) note("claims on a peer that the table has no column for are taken to be none");
    if (!assumed_.empty()) note("the table names no currency; " + assumed_ + " is taken");
    if (!has("year_end") && !years.front())
      note("the table names no year; figures are taken to be of the year to " + dateText(hints_.yearEnd));
    std::string unread;
    for (size_t i = 0; i < std::min(unread_.size(), kMostNoted); ++i)
      unread += (i == 0 ? "'" : ", '") + unread_[i] + "'";
    if (unread_.size() > kMostNoted) unread += " and " + std::to_string(unread_.size() - kMostNoted) + " more";
    if (!unread.empty()) note("nothing was read of the columns " + unread);
  }

  /// The fiscal years that headings of figures name, by time; before them one of no name, unless one of them is filed,
  /// to which figures without a year belong.
  [[nodiscard]] std::vector<std::optional<PeriodHeading>> findYears() {
    std::vector<std::optional<PeriodHeading>> years;
    for (const Column& column : columns_) {
      const bool known = std::any_of(years.begin(), years.end(), [&](const auto& year) {
        return column.period && isSameYear(*year, *column.period);
      });
      if (column.period && !known) years.push_back(column.period);
    }
    std::stable_sort(years.begin(), years.end(), [](const auto& a, const auto& b) { return a->year < b->year; });
    for (const std::optional<PeriodHeading>& year : years) {
      if (!isAhead(*year, hints_.yearEnd)) lastFiled_ = year;
    }
    if (!lastFiled_) years.insert(years.begin(), std::nullopt);
    return years;
  }
  /// Whether a year is expected: marked so, or not over on the day of the table.
  [[nodiscard]] bool isAhead(const PeriodHeading& year, Date ends) const {
    return year.forecast || year.endIn({monthOf(ends)}) > hints_.day;
  }
  static unsigned monthOf(Date day) { return static_cast<unsigned>(std::chrono::year_month_day(day).month()); }

  [[nodiscard]] bool holdsAny(size_t row, const std::vector<std::string>& amounts) const {
    return std::any_of(amounts.begin(), amounts.end(),
                       [&](const std::string& is) { return isPeerFigure(is) && writtenAt(row, is).has_value(); });
  }

  /// One year of one peer.
  void readPeer(size_t r, const std::string& name, const std::vector<std::string>& amounts) {
    std::string currency = textAt(r, "currency");
    if (currency.empty()) currency = title_.currency;
    for (const Column& c : columns_) {
      const bool amount = std::find(amounts.begin(), amounts.end(), c.is) != amounts.end();
      if (currency.empty() && amount) currency = c.unit.currency;
      scaleTold_ = scaleTold_ || (amount && c.unit.scale);
    }
    const Peer* known = knownAs(name);
    if (currency.empty() && known != nullptr) currency = known->currency;
    if (currency.empty()) {
      currency = hints_.currency;
      assumed_ = currency;
    }
    std::string quoted = priceUnit(r);
    if (quoted.empty() && known == nullptr) quoted = currency;
    const std::optional<Listing> listing =
        quoted.empty() ? std::optional(Listing{known->priceCurrency, known->priceCurrency, known->minorPerMajor})
                       : listingOfUnit(quoted);
    if (!listing) {
      setAside(r, "'" + quoted + "' is no currency");
      return;
    }
    lookAtFigures(r, amounts, currency);
    lookAtFigures(r, {"market_value", "ev", "net_debt", "shares"}, currency);
    lookAtFigures(r, {"close"}, listing->currency);
    std::optional<double> price = numberAt(r, "close");
    std::optional<double> shares;
    if (const std::optional<Written> count = writtenAt(r, "shares"))
      shares = count->whole ? count->number : count->number * sharesScale();
    if (const std::optional<double> whole = amountAt(r, "market_value"); whole && !shares) {
      const double value = *whole;
      // Without a price, one share is the whole of it.
      shares = price ? value / (*price / listing->minorPerMajor) : 1;
      if (!price) price = value * listing->minorPerMajor;
    }
    const SheetCell* ended = cellAt(r, "year_end");
    const std::optional<PeriodHeading> named = ended == nullptr ? std::nullopt : periodHeading(ended->text);
    const bool dated = known != nullptr && !known->years.empty();
    const Date usual = dated ? known->years.back().end : hints_.yearEnd;
    const Date row = named ? named->endIn({monthOf(hints_.yearEnd)}) : usual;
    const Date end = year_ ? year_->endIn({monthOf(row)}) : row;
    const bool ahead = year_ ? isAhead(*year_, row) : isExpected(ended == nullptr ? std::string() : ended->text);
    if (!seen_.insert({slug(name), end, ahead}).second) {
      setAside(r, name + " is there twice for the year to " + dateText(end) + "; the first stands");
      return;
    }
    const std::optional<Date> day = has("date") ? dayOf(cellAt(r, "date")) : std::nullopt;
    const std::string id = textAt(r, "id");
    std::vector<std::string> cells = {known != nullptr ? known->id
                                      : id.empty()     ? slug(name)
                                                       : slug(id),
                                      name,
                                      currency,
                                      price ? plainNumber(*price) : "",
                                      listing->currency,
                                      plainNumber(listing->minorPerMajor),
                                      dateText(day.value_or(hints_.day)),
                                      shares ? plainNumber(*shares) : "",
                                      dateText(end),
                                      ahead ? "expected" : "filed",
                                      textAt(r, "remark"),
                                      textAt(r, "source").empty() ? hints_.source : textAt(r, "source")};
    for (const char* mix : {"regions", "businesses"}) {
      const std::string told = textAt(r, mix);
      const bool read = revenueMix(told).has_value();
      if (!told.empty() && !read) leaveOut(r, mix, "are no shares such as Europe 60 %; Asia 40 %");
      cells.push_back(read ? told : "");
    }
    std::optional<double> net = amountAt(r, "net_debt");
    const std::optional<double> whole = amountAt(r, "ev");
    if (!net && whole && price && shares && !numberAt(r, "debt"))
      net = *whole - *price / listing->minorPerMajor * *shares;
    const bool claims = net || numberAt(r, "debt");
    for (const std::string& column : amounts) {
      std::optional<double> x = amountAt(r, column);
      if (!x && net && column == (*net >= 0 ? "debt" : "cash")) x = std::fabs(*net);
      // Who says what a peer owes says all that there is to be said, for want of further columns.
      const bool claim = std::find(std::begin(kClaims), std::end(kClaims), column) != std::end(kClaims);
      if (!x && known == nullptr && claims && claim && (!has(column) || net)) {
        x = 0;
        claimsAssumed_ = true;
      }
      cells.push_back(x ? plainNumber(*x) : "");
    }
    line(cells);
    ++rows_;
  }

  /// A peer there is, by its name or its short name; null for another.
  [[nodiscard]] const Peer* knownAs(const std::string& name) const {
    if (hints_.peers == nullptr) return nullptr;
    const auto found = std::find_if(hints_.peers->begin(), hints_.peers->end(),
                                    [&](const Peer& p) { return slug(p.name) == slug(name) || p.id == name; });
    return found == hints_.peers->end() ? nullptr : &*found;
  }

  /// Counts of shares: as their heading says, else in the unit of the amounts where they are as small.
  [[nodiscard]] double sharesScale() const {
    const Column* column = columnOf("shares");
    if (column != nullptr && column->unit.scale) return std::pow(10, *column->unit.scale);
    for (size_t r = header_ + 1; r < sheet_.rows.size(); ++r) {
      if (const std::optional<double> x = numberAt(r, "shares"); x && *x >= kPlainAmount / 100) return 1;
    }
    return 1e6;
  }

  const Sheet& sheet_;
  const MarketHints& hints_;
  const LabelRules& labels_;
  const model::Model& m_;
  MarketTable table_;
  std::vector<Column> columns_;
  UnitHeading title_;
  size_t header_ = 0;
  char mark_ = '.';
  bool monthFirst_ = false;
  bool amounts_ = false;  ///< whether any amount was read
  bool claimsAssumed_ = false;
  bool scaleTold_ = false;
  std::string assumed_;                                 ///< the currency, where neither table nor peer says one
  std::set<std::tuple<std::string, Date, bool>> seen_;  ///< peer, year's end, expected
  std::set<std::pair<size_t, int>> leftOut_;            ///< cells of rows that come in, by row and column
  std::vector<std::string> unread_;                     ///< headings of which no words are known
  std::optional<PeriodHeading> year_;                   ///< of peers: the one that is being read; none: as the row says
  std::optional<PeriodHeading> lastFiled_;              ///< of those that headings name
  int rows_ = 0;
  size_t aside_ = 0;
};

}  // namespace

std::optional<MarketTable> marketTableOf(const Sheet& sheet, const MarketHints& hints, const LabelRules& labels,
                                         const model::Model& m) {
  return Reading(sheet, hints, labels, m).read();
}

}  // namespace zl::services
