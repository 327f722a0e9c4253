#pragma once
// A table of the market under its headings: which columns hold what, cells as texts, figures and days, what is set
// aside of it, and the lines that are read.

#include <optional>
#include <set>
#include <string>
#include <utility>
#include <vector>

#include "services/intake/market_headings.h"
#include "services/intake/market_tables.h"

namespace zl::services {

inline constexpr size_t kMostNoted = 8;      // rows set aside that are named one by one
inline constexpr double kPlainAmount = 1e7;  // amounts below it, in no unit that is told, are taken to be millions

/// The short name by which a peer is known.
std::string peerId(const std::string& name);

/// A cell's figure, and whether it says itself what it counts ("1.2bn", "350m").
struct WrittenFigure {
  double number = 0;
  bool whole = false;
};

class MarketReading {
 public:
  MarketReading(const Sheet& sheet, const MarketHints& hints) : sheet_(sheet), hints_(hints) {}

  /// The first row of which two cells or more are headings; units of the rows above it hold for all columns. False
  /// where there is none.
  bool findHeadings();
  /// How its figures and days are written.
  void findStyle();

  [[nodiscard]] const MarketHints& hints() const { return hints_; }
  [[nodiscard]] const std::vector<MarketColumn>& columns() const { return columns_; }
  [[nodiscard]] const UnitHeading& title() const { return title_; }
  [[nodiscard]] const std::vector<std::string>& unread() const { return unread_; }  ///< headings of no known words
  [[nodiscard]] bool hasReadAmounts() const { return amounts_; }
  [[nodiscard]] size_t firstRow() const { return header_ + 1; }
  [[nodiscard]] size_t endRow() const { return sheet_.rows.size(); }
  [[nodiscard]] bool isEmpty(size_t row) const { return sheet_.rows[row].cells.empty(); }

  [[nodiscard]] int figuresOfPeers() const;
  [[nodiscard]] bool namesKnownPeer() const;
  [[nodiscard]] bool has(const std::string& is) const;
  /// Of a figure of a fiscal year: of the one that is being read.
  [[nodiscard]] const MarketColumn* columnOf(const std::string& is) const;
  [[nodiscard]] std::string textAt(size_t row, const std::string& is) const;
  [[nodiscard]] const SheetCell* cellAt(size_t row, const std::string& is) const;
  /// As it is written; a per cent sign makes a fraction. Empty where the cell is no number.
  [[nodiscard]] std::optional<WrittenFigure> writtenAt(size_t row, const std::string& is) const;
  [[nodiscard]] std::optional<WrittenFigure> writtenIn(size_t row, const MarketColumn& column) const;
  [[nodiscard]] std::optional<double> numberAt(size_t row, const std::string& is) const;
  /// In units of currency.
  [[nodiscard]] std::optional<double> amountAt(size_t row, const std::string& is);
  [[nodiscard]] std::optional<Date> dayOf(const SheetCell* cell) const;
  /// What prices are quoted in: as a row, the heading or the title says; empty where nothing does.
  [[nodiscard]] std::string priceUnit(size_t row) const;
  [[nodiscard]] bool smallAmounts() const;
  /// A peer there is, by its name or its short name; null for another.
  [[nodiscard]] const Peer* knownAs(const std::string& name) const;
  void note(std::string text);
  void setAside(size_t row, const std::string& why);
  /// A cell of a row that comes in: told of by its heading, and read as empty.
  void leaveOut(size_t row, const std::string& is, const std::string& why);
  /// Cells of a peer that are no amount in its currency. Dashes and words for nothing are nothing.
  void lookAtFigures(size_t row, const std::vector<std::string>& figures, const std::string& currency);
  void line(const std::vector<std::string>& cells);

  /// Of columns with a fiscal year: those of this one are read; figures without a year are of the last that is filed.
  void ofYear(std::optional<PeriodHeading> year) { year_ = std::move(year); }
  [[nodiscard]] const std::optional<PeriodHeading>& year() const { return year_; }
  void setLastFiled(std::optional<PeriodHeading> year) { lastFiled_ = std::move(year); }
  [[nodiscard]] const std::optional<PeriodHeading>& lastFiled() const { return lastFiled_; }

  /// The kind of table and the headings of its lines.
  void begin(exchange::ContentKind kind, const std::string& headings);
  /// What was read, closed. Empty where no row was read or set aside; without text where none could be used.
  std::optional<MarketTable> take();

 private:
  /// The column that holds the same, of the same fiscal year where it is a figure of one.
  [[nodiscard]] MarketColumn* twinOf(const MarketColumn& column);
  /// What a multiple of the analyst's own is of, headed as its row is labelled or named.
  [[nodiscard]] std::string furtherColumn(const MarketColumn& column) const;
  void findMark();
  /// Days as 11/03/2026: the order in which every one is a day and all go one way; the day first where both do.
  void findOrder();
  [[nodiscard]] int rowNumber(size_t row) const;
  /// Of a column of amounts: as its heading or the title says; millions where nothing does and all are small.
  [[nodiscard]] double scaleOf(const std::string& is) const;
  [[nodiscard]] bool isSmall(const MarketColumn& column) const;

  const Sheet& sheet_;
  const MarketHints& hints_;
  MarketTable table_;
  std::vector<MarketColumn> columns_;
  UnitHeading title_;
  size_t header_ = 0;
  char mark_ = '.';
  bool monthFirst_ = false;
  bool amounts_ = false;                      ///< whether any amount was read
  std::set<std::pair<size_t, int>> leftOut_;  ///< cells of rows that come in, by row and column
  std::vector<std::string> unread_;
  std::optional<PeriodHeading> year_;       ///< of peers: the one that is being read; none: as the row says
  std::optional<PeriodHeading> lastFiled_;  ///< of those that headings name
  int rows_ = 0;
  size_t aside_ = 0;
};

bool isSameYear(const PeriodHeading& a, const PeriodHeading& b);

}  // namespace zl::services
