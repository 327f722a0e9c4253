#include "services/intake/market_reading.h"

#include <algorithm>
#include <cmath>
#include <cstdio>

#include "core/filing/minor_unit.h"
#include "core/quantity/number_text.h"
#include "core/table/displayed.h"
#include "services/text/short_name.h"
#include "services/text/text_cells.h"

namespace zl::services {
namespace {

constexpr int kTitleDepth = 12;  // rows that may stand above the headings

}  // namespace

std::string peerId(const std::string& name) {
  return shortName(name, "peer");
}

bool isSameYear(const PeriodHeading& a, const PeriodHeading& b) {
  return a.year == b.year && a.end == b.end && a.forecast == b.forecast;
}

void MarketReading::findStyle() {
  findMark();
  findOrder();
}

void MarketReading::begin(exchange::ContentKind kind, const std::string& headings) {
  table_.kind = kind;
  table_.csv = headings + '\n';
}

std::optional<MarketTable> MarketReading::take() {
  if (rows_ == 0 && aside_ == 0) return std::nullopt;
  if (rows_ == 0) table_.csv.clear();
  if (aside_ > kMostNoted) note(std::to_string(aside_ - kMostNoted) + " further rows were set aside");
  return std::move(table_);
}

int MarketReading::figuresOfPeers() const {
  int count = 0;
  for (const char* is : {"close", "shares", "market_value", "revenue", "ebitda", "ebit", "net_income", "debt",
                         "net_debt", "cash", "equity"}) {
    count += has(is) ? 1 : 0;
  }
  for (const MarketColumn& column : columns_) {
    count += column.is.starts_with(kFurtherColumn) || column.is == "regions" || column.is == "businesses" ? 1 : 0;
  }
  return count;
}

bool MarketReading::namesKnownPeer() const {
  for (size_t r = header_ + 1; r < sheet_.rows.size(); ++r) {
    if (knownAs(textAt(r, "name")) != nullptr) return true;
  }
  return false;
}

bool MarketReading::has(const std::string& is) const {
  return std::any_of(columns_.begin(), columns_.end(), [&](const MarketColumn& c) { return c.is == is; });
}

const MarketColumn* MarketReading::columnOf(const std::string& is) const {
  const MarketColumn* plain = nullptr;
  for (const MarketColumn& column : columns_) {
    if (column.is != is) continue;
    if (column.period && year_ && isSameYear(*column.period, *year_)) return &column;
    if (!column.period && plain == nullptr) plain = &column;
  }
  // Figures without a year are of the last one that is filed.
  const bool another = year_ && isPeerFigure(is) && !(lastFiled_ && isSameYear(*year_, *lastFiled_));
  return another ? nullptr : plain;
}

std::string MarketReading::textAt(size_t row, const std::string& is) const {
  const MarketColumn* column = columnOf(is);
  const SheetCell* cell = column == nullptr ? nullptr : sheet_.rows[row].at(column->at);
  return cell == nullptr ? std::string() : cell->text;
}

const SheetCell* MarketReading::cellAt(size_t row, const std::string& is) const {
  const MarketColumn* column = columnOf(is);
  return column == nullptr ? nullptr : sheet_.rows[row].at(column->at);
}

std::optional<WrittenFigure> MarketReading::writtenAt(size_t row, const std::string& is) const {
  const MarketColumn* column = columnOf(is);
  return column == nullptr ? std::nullopt : writtenIn(row, *column);
}

std::optional<WrittenFigure> MarketReading::writtenIn(size_t row, const MarketColumn& column) const {
  const SheetCell* cell = sheet_.rows[row].at(column.at);
  if (cell == nullptr || leftOut_.count({row, column.at}) > 0) return std::nullopt;
  const char mark = cell->kind == SheetCell::Kind::Number ? '.' : mark_;
  std::string text = cell->text;
  // "412p", "412 GBX"
  if (column.is == "close" && !quotedIn(text).empty()) text = text.substr(0, text.find_last_of("0123456789") + 1);
  if (const std::optional<DisplayedNumber> shown = displayedNumber(text, mark)) {
    return WrittenFigure{std::stod(shown->plain + (shown->percent ? "e-2" : "")), shown->percent};
  }
  const std::optional<double> typed = typedNumber(text);
  return typed ? std::optional(WrittenFigure{*typed, true}) : std::nullopt;
}

std::optional<double> MarketReading::numberAt(size_t row, const std::string& is) const {
  const std::optional<WrittenFigure> written = writtenAt(row, is);
  return written ? std::optional(written->number) : std::nullopt;
}

std::optional<double> MarketReading::amountAt(size_t row, const std::string& is) {
  const std::optional<WrittenFigure> written = writtenAt(row, is);
  if (!written) return std::nullopt;
  amounts_ = true;
  return written->whole ? written->number : written->number * scaleOf(is);
}

std::optional<Date> MarketReading::dayOf(const SheetCell* cell) const {
  if (cell == nullptr) return std::nullopt;
  if (const std::optional<Date> iso = parseDate(cell->text)) return iso;
  int first = 0, second = 0, year = 0;
  char tail = 0;
  if (std::sscanf(cell->text.c_str(), "%2d/%2d/%4d%c", &first, &second, &year, &tail) == 3) {
    char iso[24];
    std::snprintf(iso, sizeof iso, "%04d-%02d-%02d", year, monthFirst_ ? first : second, monthFirst_ ? second : first);
    return parseDate(iso);
  }
  const std::optional<PeriodHeading> heading = periodHeading(cell->text);
  const bool day = heading && heading->end && heading->months == 12 && heading->part == 0;
  return day ? heading->end : std::nullopt;
}

std::string MarketReading::priceUnit(size_t row) const {
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

bool MarketReading::smallAmounts() const {
  for (const char* is : {"market_value", "revenue", "ebitda", "ebit", "net_income", "debt", "net_debt", "cash",
                         "equity", "ev", "mean"}) {
    for (const MarketColumn& column : columns_) {
      if (column.is == is && !isSmall(column)) return false;
    }
  }
  return true;
}

const Peer* MarketReading::knownAs(const std::string& name) const {
  if (hints_.peers == nullptr) return nullptr;
  const auto found = std::find_if(hints_.peers->begin(), hints_.peers->end(),
                                  [&](const Peer& p) { return peerId(p.name) == peerId(name) || p.id == name; });
  return found == hints_.peers->end() ? nullptr : &*found;
}

void MarketReading::note(std::string text) {
  table_.notes.push_back(std::move(text));
}

void MarketReading::setAside(size_t row, const std::string& why) {
  ++aside_;
  if (aside_ <= kMostNoted) note("row " + std::to_string(rowNumber(row)) + " was set aside: " + why);
}

void MarketReading::leaveOut(size_t row, const std::string& is, const std::string& why) {
  const bool first = leftOut_.insert({row, columnOf(is)->at}).second;
  if (!first || leftOut_.size() > kMostNoted) return;
  note("row " + std::to_string(rowNumber(row)) + ", " + columnOf(is)->text + ": '" +
       cellAt(row, is)->text.substr(0, 40) + "' " + why + "; it is left out");
}

void MarketReading::lookAtFigures(size_t row, const std::vector<std::string>& figures, const std::string& currency) {
  for (const std::string& is : figures) {
    const SheetCell* cell = cellAt(row, is);
    if (cell == nullptr || cell->text.empty()) continue;
    const std::optional<WrittenFigure> written = writtenAt(row, is);
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

void MarketReading::line(const std::vector<std::string>& cells) {
  for (size_t i = 0; i < cells.size(); ++i) {
    if (i > 0) table_.csv += ',';
    table_.csv += csvCell(cells[i]);
  }
  table_.csv += '\n';
  ++rows_;
}

bool MarketReading::findHeadings() {
  for (size_t r = 0; r < sheet_.rows.size() && r < kTitleDepth; ++r) {
    columns_.clear();
    for (size_t i = 0; i < sheet_.rows[r].cells.size(); ++i) {
      const SheetCell& cell = sheet_.rows[r].cells[i];
      if (cell.kind != SheetCell::Kind::Text || cell.text.size() > 80) continue;
      MarketColumn column = marketColumn(sheet_.rows[r].columns[i], cell.text);
      if (column.is.empty()) column.is = furtherColumn(column);
      MarketColumn* there = column.is.empty() ? nullptr : twinOf(column);
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

MarketColumn* MarketReading::twinOf(const MarketColumn& column) {
  const auto found = std::find_if(columns_.begin(), columns_.end(), [&](const MarketColumn& c) {
    return c.is == column.is && c.period.has_value() == column.period.has_value() &&
           (!c.period || isSameYear(*c.period, *column.period));
  });
  return found == columns_.end() ? nullptr : &*found;
}

std::string MarketReading::furtherColumn(const MarketColumn& column) const {
  const std::string label = normalisedLabel(column.text);
  for (const auto& [name, rowLabel] : hints_.further) {
    for (const std::string& word : {name, kFurtherColumn + name, rowLabel}) {
      const std::string known = normalisedLabel(word);
      if (label == known || (label.starts_with(known + " ") && column.unit.scale)) return kFurtherColumn + name;
    }
  }
  return {};
}

void MarketReading::findMark() {
  std::vector<std::string> texts;
  for (size_t r = header_ + 1; r < sheet_.rows.size(); ++r) {
    for (const SheetCell& cell : sheet_.rows[r].cells) texts.push_back(cell.text);
  }
  mark_ = decimalMarkOf(texts);
}

void MarketReading::findOrder() {
  const MarketColumn* dates = columnOf("date");
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

int MarketReading::rowNumber(size_t row) const {
  return sheet_.rows[row].cells.empty() ? static_cast<int>(row) + 1 : sheet_.rows[row].cells.front().row + 1;
}

double MarketReading::scaleOf(const std::string& is) const {
  const MarketColumn* column = columnOf(is);
  if (column != nullptr && column->unit.scale) return std::pow(10, *column->unit.scale);
  if (title_.scale) return std::pow(10, *title_.scale);
  return smallAmounts() ? 1e6 : 1;
}

bool MarketReading::isSmall(const MarketColumn& column) const {
  for (size_t r = header_ + 1; r < sheet_.rows.size(); ++r) {
    const std::optional<WrittenFigure> x = writtenIn(r, column);
    if (x && !x->whole && std::fabs(x->number) >= kPlainAmount) return false;
  }
  return true;
}

}  // namespace zl::services
