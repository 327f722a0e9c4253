#include "core/table/reading.h"
#include "core/text/utf8.h"

#include <algorithm>
#include <charconv>
#include <cstdlib>
#include <map>
#include <set>

#include "core/quantity/decimal.h"

namespace zl {
namespace {

constexpr const char* kRatio = "a ratio";
constexpr const char* kOfShare = "an amount per share";
constexpr int kMostLines = 20000;          ///< a statement has hundreds
constexpr size_t kMostStructured = 40000;  ///< figures among which sums are looked for

/// The figure of a cell. A workbook's number is plain and may carry an exponent; text is as shown.
std::optional<DisplayedNumber> figureIn(const SheetCell& cell, char mark) {
  if (cell.kind == SheetCell::Kind::Day) return std::nullopt;
  if (cell.kind == SheetCell::Kind::Text) return displayedNumber(cell.text, mark);
  return Decimal::isNumber(cell.text) ? std::optional(DisplayedNumber{cell.text, false}) : std::nullopt;
}

bool isFigure(const SheetCell& cell, char mark) {
  return figureIn(cell, mark).has_value();
}

std::optional<PeriodHeading> headingOf(const SheetCell& cell) {
  if (cell.kind == SheetCell::Kind::Day) {
    const std::optional<Date> day = parseDate(cell.text);
    if (!day) return std::nullopt;
    PeriodHeading heading;
    heading.year = yearOf(*day);
    heading.end = *day;
    return heading;
  }
  return periodHeading(cell.text);
}

/// The first day of a column's period: the day after the same day or month's end so many months before, or by its
/// weeks.
Date startOf(const TableColumn& column) {
  if (column.weeks > 0) return column.end - std::chrono::days(7 * column.weeks - 1);
  const auto ymd = std::chrono::year_month_day(column.end);
  const auto before = std::chrono::year_month(ymd.year(), ymd.month()) - std::chrono::months(column.months);
  const Date last = lastOfMonth(static_cast<int>(before.year()), static_cast<unsigned>(before.month()));
  const bool endsMonth = column.end == lastOfMonth(static_cast<int>(ymd.year()), static_cast<unsigned>(ymd.month()));
  const Date same = Date{before / std::chrono::day(1)} + (ymd.day() - std::chrono::day(1));
  return (endsMonth ? last : std::min(same, last)) + std::chrono::days(1);
}

/// A number that could be a year is a heading only above other figures, so its row is judged whole.
int headingsIn(const SheetRow& row) {
  int headings = 0;
  for (const SheetCell& cell : row.cells) headings += headingOf(cell) ? 1 : 0;
  return headings;
}

class Guess {
 public:
  Guess(const Sheet& sheet, const PlacingRules& rules, const TableHints& hints)
      : sheet_(sheet), rules_(rules), labels_(rules.labels), hints_(hints) {}

  bool run() {
    findMark();
    if (!findHeader()) return false;
    findUnits();
    findColumns();
    if (reading_.columns.empty()) return false;
    findLabelColumn();
    findLines();
    judgeSigns();
    return !reading_.lines.empty();
  }

  TableReading take() { return std::move(reading_); }

 private:
  void findMark() {
    std::vector<std::string> texts;
    for (const SheetRow& row : sheet_.rows) {
      for (const SheetCell& cell : row.cells) {
        if (cell.kind == SheetCell::Kind::Text && texts.size() < 5000) texts.push_back(cell.text);
      }
    }
    reading_.decimalMark = decimalMarkOf(texts);
  }

  bool findHeader() {
    if (hints_.headerRow) {
      reading_.headerRow = *hints_.headerRow;
      return *hints_.headerRow >= 0 && *hints_.headerRow < static_cast<int>(sheet_.rows.size());
    }
    int most = 0;
    const int depth = std::min<int>(kHeaderDepth, static_cast<int>(sheet_.rows.size()));
    for (int r = 0; r < depth; ++r) {
      const int headings = headingsIn(sheet_.rows[static_cast<size_t>(r)]);
      if (headings > most) {
        most = headings;
        reading_.headerRow = r;
      }
    }
    return most > 0;
  }

  void findUnits() {
    reading_.currency = hints_.currency;
    bool scaleSaid = false;
    bool currencySaid = false;
    const int depth = std::min<int>(reading_.headerRow + 4, static_cast<int>(sheet_.rows.size()));
    for (int r = 0; r < depth; ++r) {
      for (const SheetCell& cell : sheet_.rows[static_cast<size_t>(r)].cells) {
        if (cell.kind != SheetCell::Kind::Text) continue;
        const UnitHeading unit = unitHeading(cell.text);
        if (!unit.currency.empty() && !currencySaid) {
          reading_.currency = unit.currency;
          currencySaid = true;
        }
        if (unit.scale && !scaleSaid) {
          reading_.scale = *unit.scale;
          scaleSaid = true;
        }
        if (!shareScale_) shareScale_ = scaleOfShares(cell.text);
      }
    }
    if (hints_.fixedCurrency) reading_.currency = *hints_.fixedCurrency;
    if (hints_.fixedScale) reading_.scale = *hints_.fixedScale;
    if (!scaleSaid && !hints_.fixedScale)
      reading_.doubts.emplace_back("the table names no scale; its figures are taken as they are");
    if (!currencySaid && !hints_.fixedCurrency) {
      reading_.doubts.push_back(
          reading_.currency.empty() ? kNoCurrency : std::string(kNoCurrency) + "; " + reading_.currency + " is taken");
    }
  }

  /// "In millions, except share and per share data": shares are counted one by one; "... number of shares, which are in
  /// thousands": as said.
  static std::optional<int> scaleOfShares(const std::string& text) {
    std::string words = normalisedLabel(text.find('(') == 0 ? text.substr(1) : text);
    const size_t except = words.find("except");
    if (except == std::string::npos) return std::nullopt;
    words = words.substr(except);
    for (size_t at = words.find("per share"); at != std::string::npos; at = words.find("per share")) words.erase(at, 9);
    if (words.find("share") == std::string::npos) return std::nullopt;
    return words.find("million") != std::string::npos ? 6 : words.find("thousand") != std::string::npos ? 3 : 0;
  }

  /// The year that a title ends with: "Profit and loss account for the year ended 31 March 2025".
  static std::optional<PeriodHeading> titled(const std::string& text) {
    for (size_t at = 0; at < text.size();
         at = text.find(' ', at) == std::string::npos ? text.size() : text.find(' ', at) + 1) {
      const std::optional<PeriodHeading> heading = periodHeading(std::string_view(text).substr(at));
      const bool day = text.find(' ', at) != std::string::npos;  // a year alone says nothing of its end
      if (heading && heading->end && heading->months == 12 && day) return heading;
    }
    return std::nullopt;
  }

  /// "Year ended 31 March" above or beside plain years gives the month.
  void findFiscalEnd() {
    if (hints_.fiscal) reading_.fiscal = *hints_.fiscal;
    for (int r = 0; r <= reading_.headerRow; ++r) {
      for (const SheetCell& cell : sheet_.rows[static_cast<size_t>(r)].cells) {
        if (cell.kind != SheetCell::Kind::Text || cell.text.size() > 80) continue;
        // A day and month alone become a date once a year is put behind them.
        const std::optional<PeriodHeading> whole = periodHeading(cell.text + " 2001");
        // "Year ended 30 June 2025" as a title: years beneath it end so, too.
        const std::optional<PeriodHeading> title = r < reading_.headerRow ? titled(cell.text) : std::nullopt;
        if (title) {
          fiscalTold_ = true;
          reading_.fiscal.month = static_cast<unsigned>(std::chrono::year_month_day(*title->end).month());
        }
        if (whole && whole->end && !periodHeading(cell.text)) {
          fiscalTold_ = true;
          reading_.fiscal.month = static_cast<unsigned>(std::chrono::year_month_day(*whole->end).month());
        }
      }
    }
  }

  void findColumns() {
    findFiscalEnd();
    const SheetRow& header = sheet_.rows[static_cast<size_t>(reading_.headerRow)];
    std::set<std::pair<Date, int>> seen;
    bool onlyYears = true;
    for (size_t i = 0; i < header.cells.size(); ++i) {
      const SheetCell& cell = header.cells[i];
      std::optional<PeriodHeading> heading = headingOf(cell);
      if (!heading) {
        noteUnread(header.columns[i], cell);
        continue;
      }
      TableColumn column;
      column.column = header.columns[i];
      column.heading = cell.text;
      column.months = heading->months;
      column.weeks = heading->weeks;
      if (heading->part == 0 && heading->months == 12) column.months = monthsAbove(column.column);
      column.end = heading->endIn(reading_.fiscal);
      onlyYears = onlyYears && !heading->end;
      if (heading->forecast) {
        column.included = false;
        column.doubt = "marked as a forecast";
      } else if (!seen.insert({column.end, column.months}).second) {
        column.included = false;
        column.doubt = "a second column for " + dateText(column.end);
      } else if (figuresBelow(column.column) == 0) {
        continue;
      }
      reading_.columns.push_back(std::move(column));
    }
    if (onlyYears && !hints_.fiscal && !fiscalTold_ && !reading_.columns.empty()) {
      PeriodHeading plain;
      plain.year = 2001;
      reading_.doubts.push_back("years are taken to end on " + dateText(plain.endIn(reading_.fiscal)).substr(5));
    }
    if (reading_.columns.empty()) return;
    reading_.columns.insert(reading_.columns.end(), unread_.begin(), unread_.end());
  }

  /// A column with figures under a heading that is no period is named and waits for one: it is not lost in silence.
  void noteUnread(int at, const SheetCell& cell) {
    static const std::set<std::string> kBeside = {"note", "notes", "ref", "change", "change in", "variance", "anhang"};
    if (cell.kind != SheetCell::Kind::Text || cell.text.find('%') != std::string::npos || figuresBelow(at) < 2) return;
    TableColumn column;
    column.column = at;
    column.heading = shortened(cell.text, 80);
    column.included = false;
    column.doubt = "its heading is no period";
    if (kBeside.count(normalisedLabel(cell.text)) == 0) {
      reading_.doubts.push_back("the column '" + column.heading +
                                "' is left out, as its heading is no period; give it one");
    }
    unread_.push_back(std::move(column));
  }

  /// "Six months ended", "Q3" in a row above the years.
  [[nodiscard]] int monthsAbove(int column) const {
    for (int r = 0; r < reading_.headerRow; ++r) {
      const SheetCell* over = nullptr;
      for (int c = column; c >= 0 && over == nullptr; --c) over = sheet_.at(r, c);
      if (over == nullptr || over->kind != SheetCell::Kind::Text) continue;
      const std::string words = normalisedLabel(over->text);
      if (words.find("six months") != std::string::npos || words.find("half year") != std::string::npos) return 6;
      if (words.find("three months") != std::string::npos || words.find("quarter") != std::string::npos) return 3;
      if (words.find("nine months") != std::string::npos) return 9;
    }
    return 12;
  }

  [[nodiscard]] int figuresBelow(int column) const {
    int figures = 0;
    for (size_t r = static_cast<size_t>(reading_.headerRow) + 1; r < sheet_.rows.size(); ++r) {
      const SheetCell* cell = sheet_.rows[r].at(column);
      figures += cell != nullptr && isFigure(*cell, reading_.decimalMark) ? 1 : 0;
    }
    return figures;
  }

  void findLabelColumn() {
    if (hints_.labelColumn) {
      reading_.labelColumn = *hints_.labelColumn;
      return;
    }
    std::map<int, int> texts;
    for (size_t r = static_cast<size_t>(reading_.headerRow) + 1; r < sheet_.rows.size(); ++r) {
      const SheetRow& row = sheet_.rows[r];
      for (size_t i = 0; i < row.cells.size(); ++i) {
        if (row.cells[i].kind == SheetCell::Kind::Text && !isFigure(row.cells[i], reading_.decimalMark) &&
            !saysNothing(row.cells[i].text)) {
          ++texts[row.columns[i]];
        }
      }
    }
    int most = 0;
    for (const auto& [column, count] : texts) {
      if (count > most) {
        most = count;
        reading_.labelColumn = column;
      }
    }
  }

  void findLines() {
    std::map<std::string, int> repeats;
    std::string section;
    for (size_t r = static_cast<size_t>(reading_.headerRow) + 1; r < sheet_.rows.size(); ++r) {
      if (std::ssize(reading_.lines) >= kMostLines) break;
      const SheetCell* label = sheet_.rows[r].at(reading_.labelColumn);
      if (label == nullptr || label->kind != SheetCell::Kind::Text) continue;
      if (!hasFigure(static_cast<int>(r))) {
        section = shortened(label->text, 200);
        continue;
      }
      TableLine line;
      line.row = static_cast<int>(r);
      line.label = shortened(label->text, 200);
      line.concept_name = "label:" + line.label;
      if (const int times = ++repeats[line.label]; times > 1) line.concept_name += " (" + std::to_string(times) + ")";
      if (hints_.takenConcepts.count(line.concept_name) > 0) line.concept_name += " [" + sheet_.name + "]";
      sections_.push_back(section);
      // The total of a section ends it.
      const PartRules::Residual* closed = rules_.parts.ofLabel(line.label);
      const PartRules::Residual* open = rules_.parts.ofLabel(section);
      if (closed != nullptr && open != nullptr && closed->line == open->line) section.clear();
      reading_.lines.push_back(std::move(line));
    }
    placeLines();
    StatementPart part = StatementPart::Income;
    for (TableLine& line : reading_.lines) {
      if (const LabelRule* rule = labels_.of(line.choice.line)) part = rule->part;
      finishLine(line, part);
    }
  }

  void placeLines() {
    std::vector<StatementRow> figures;
    std::vector<RowToPlace> rows;
    bool ofHeading = false;  // the row before tells of a heading
    for (size_t i = 0; i < reading_.lines.size(); ++i) {
      const TableLine& line = reading_.lines[i];
      figures.push_back(statementRow(line));
      const auto known = hints_.remembered.find(line.concept_name);
      RowToPlace& row = rows.emplace_back();
      row.label = inSection(line.label, sections_[i]);
      const std::string told = rules_.parts.toldOf(line.label);
      // Under a heading of its own, first or after such a row, it tells of the heading, which has no figure to be in.
      const bool headed = i == 0 || (!sections_[i].empty() && sections_[i] != sections_[i - 1]);
      ofHeading = !told.empty() && (headed || ofHeading);
      if (!ofHeading) row.told = told;
      if (!row.told.empty()) {
        figures.back().figures.assign(figures.back().figures.size(), std::nullopt);  // in the row above it already
      }
      row.name = "'" + line.label + "'";
      row.total = rules_.parts.ofLabel(line.label);
      row.heading = rules_.parts.ofLabel(sections_[i]);
      row.headingName = "'" + sections_[i] + "'";
      if (known != hints_.remembered.end()) row.chosen = &known->second;
      row.negative = isNegative(figures.back());
      row.zero = isZero(figures.back());
      row.aside = noAmount(row.label);
    }
    SumTree tree;
    if (figures.size() * reading_.columns.size() <= kMostStructured) {
      tree = findSums(figures);
    } else {
      tree.parent.resize(figures.size());
      tree.repeats.resize(figures.size());
      reading_.doubts.emplace_back("the table is longer than a statement; its totals were not looked for");
    }
    reading_.sums = static_cast<int>(tree.sums.size());
    const std::vector<PlacedRow> placed = placeRows(rows, tree, rules_, hints_.takenLines);
    using By = PlacedRow::By;
    for (size_t i = 0; i < placed.size(); ++i) {
      TableLine& line = reading_.lines[i];
      line.choice = placed[i].choice;
      line.match = placed[i].by == By::Choice     ? TableLine::Match::Remembered
                   : placed[i].by == By::Label    ? TableLine::Match::Known
                   : placed[i].by == By::Likeness ? TableLine::Match::Close
                   : placed[i].by == By::Residual ? TableLine::Match::Rest
                   : placed[i].by == By::Aside    ? TableLine::Match::Aside
                                                  : TableLine::Match::None;
      signKnown_.push_back(placed[i].signKnown);
      line.total = tree.parent[i];
    }
    for (const FoundSum& sum : tree.sums) doubtSum(sum);
  }

  [[nodiscard]] static bool isZero(const StatementRow& row) {
    return std::all_of(row.figures.begin(), row.figures.end(), [](const auto& f) { return !f || f->value == 0; });
  }
  [[nodiscard]] static bool isNegative(const StatementRow& row) {
    bool below = false;
    for (const std::optional<StatementFigure>& f : row.figures) {
      if (f && f->value > 0) return false;
      below = below || (f && f->value < 0);
    }
    return below;
  }

  /// "Diluted" below "Shares used in computing earnings per share" is a count, below "Earnings per share" none.
  static std::string inSection(const std::string& label, const std::string& section) {
    const std::string words = normalisedLabel(label);
    if (words.find("diluted") == std::string::npos && words.find("basic") == std::string::npos) return label;
    const std::string over = " " + normalisedLabel(section) + " ";
    if (over.find(" shares ") != std::string::npos) return "weighted average " + words + " shares";
    if (over.find(" per share ") != std::string::npos) return words + " per share";
    return label;
  }

  /// Why a row is no amount of the company's statements, by its label; empty where it may be one.
  static std::string noAmount(const std::string& label) {
    static constexpr const char* kPerShare[] = {
        " per share",  " per ordinary share", " per common share", " par action", " je aktie", " por accion",
        " por acción", " per aandeel",        " per azione",       " eps",        " dps"};
    static constexpr const char* kDerived[] = {"net debt",
                                               "net cash position",
                                               "net financial debt",
                                               "net indebtedness",
                                               "nettoverschuldung",
                                               "nettofinanzverschuldung",
                                               "dette nette",
                                               "endettement net",
                                               "deuda neta",
                                               "nettoschuld",
                                               "posizione finanziaria netta",
                                               "nettoskuld"};
    if (label.find('%') != std::string::npos) return kRatio;
    const std::string plain = normalisedLabel(label);
    const std::string words = " " + plain + " ";
    for (const char* unit : kPerShare) {
      if (words.find(std::string(unit) + ' ') != std::string::npos) return kOfShare;
    }
    for (const char* derived : kDerived) {
      if (plain == derived) return "debt less cash, and no line of its own; debt and cash are read";
    }
    return {};
  }

  [[nodiscard]] bool isSection(const std::string& label) const {
    const PartRules::Residual* residual = rules_.parts.ofLabel(label);
    const LabelRule* rule = residual == nullptr ? nullptr : labels_.of(residual->line);
    return rule != nullptr && rule->part == StatementPart::Balance;
  }

  /// Ratios, counts and rows of a scale of their own are no parts of sums.
  [[nodiscard]] StatementRow statementRow(const TableLine& line) const {
    StatementRow row;
    const std::string label = inSection(line.label, sections_[static_cast<size_t>(&line - reading_.lines.data())]);
    const LabelRule* rule = labels_.exactly(label);
    const std::string words = normalisedLabel(line.label);
    row.saysTotal = (rule != nullptr && rules_.lines.isTotal(rule->line)) ||
                    rules_.parts.ofLabel(line.label) != nullptr || words.compare(0, 6, "total ") == 0;
    row.section = isSection(line.label);
    const bool apart = (rule != nullptr && rule->shares) || unitHeading("in " + line.label).scale.has_value() ||
                       !noAmount(label).empty();
    for (const TableColumn& column : reading_.columns) {
      row.figures.emplace_back();
      const SheetCell* cell = column.included && !apart ? sheet_.at(line.row, column.column) : nullptr;
      if (cell == nullptr) continue;
      const std::optional<DisplayedNumber> shown = figureIn(*cell, reading_.decimalMark);
      const std::optional<Decimal> number = shown && !shown->percent ? Decimal::parse(shown->plain) : std::nullopt;
      if (number) row.figures.back() = {number->toDouble(), Decimal::halfUnit(number->lastPlace()).toDouble()};
    }
    return row;
  }

  /// A total that its parts do not give, with the row that is most likely at fault.
  void doubtSum(const FoundSum& sum) {
    if (sum.broken.empty()) return;
    std::string periods;
    for (const size_t t : sum.broken) periods += (periods.empty() ? "" : ", ") + reading_.columns[t].heading;
    std::string doubt = "the parts of '" + reading_.lines[sum.total].label + "' do not add up to it in " + periods;
    if (sum.suspect) {
      const TableLine& line = reading_.lines[*sum.suspect];
      doubt += "; most likely wrong is '" + line.label + "', row " +
               std::to_string(sheet_.rows[static_cast<size_t>(line.row)].cells.front().row + 1);
    }
    reading_.doubts.push_back(std::move(doubt));
  }

  [[nodiscard]] bool hasFigure(int row) const {
    return std::any_of(reading_.columns.begin(), reading_.columns.end(), [&](const TableColumn& c) {
      const SheetCell* cell = sheet_.at(row, c.column);
      return cell != nullptr && isFigure(*cell, reading_.decimalMark);
    });
  }

  void finishLine(TableLine& line, StatementPart part) const {
    const LabelRule* rule = labels_.of(line.choice.line);
    line.shares = rule != nullptr && rule->shares;
    line.balance = line.shares || part == StatementPart::Balance;
    line.scale = line.shares ? shareScale_.value_or(reading_.scale) : reading_.scale;
    const UnitHeading own = unitHeading("in " + line.label);
    if (own.scale) {
      line.scale = *own.scale;
    } else if (const std::string why = noAmount(line.label); why == kRatio || why == kOfShare) {
      line.scale = 0;
    }
  }

  /// Where no total tells the sign: whether a statement prints its costs as negatives, by the lines that can hardly be
  /// otherwise.
  void judgeSigns() {
    std::map<StatementPart, int> votes;
    const auto sumOf = [&](const TableLine& line) {
      double sum = 0;
      for (const TableColumn& column : reading_.columns) {
        const SheetCell* cell = sheet_.at(line.row, column.column);
        if (cell == nullptr) continue;
        const std::optional<DisplayedNumber> n = figureIn(*cell, reading_.decimalMark);
        if (n) sum += std::strtod(n->plain.c_str(), nullptr);
      }
      return sum;
    };
    for (const TableLine& line : reading_.lines) {
      const LabelRule* rule = labels_.of(line.choice.line);
      if (rule == nullptr || !rule->outflow || rule->eitherWay || line.match == TableLine::Match::Rest) continue;
      const double sum = sumOf(line);
      if (sum != 0) votes[rule->part] += sum < 0 ? 1 : -1;
    }
    for (size_t i = 0; i < reading_.lines.size(); ++i) {
      TableLine& line = reading_.lines[i];
      const LabelRule* rule = labels_.of(line.choice.line);
      if (rule == nullptr || !rule->outflow || line.match == TableLine::Match::Remembered || signKnown_[i]) continue;
      if (votes[rule->part] > 0) {
        line.choice.weight = -1;
        line.choice.reason += "; costs are negative in this table";
      }
    }
  }

  const Sheet& sheet_;
  const PlacingRules& rules_;
  const LabelRules& labels_;
  const TableHints& hints_;
  TableReading reading_;
  std::vector<std::string> sections_;  ///< by line
  std::vector<bool> signKnown_;
  bool fiscalTold_ = false;          ///< a title says when years end
  std::optional<int> shareScale_;    ///< where a title says that shares have another than the amounts
  std::vector<TableColumn> unread_;  ///< under headings that are no periods
};

}  // namespace

namespace {

long dated(const TableReading& reading) {
  return std::count_if(reading.columns.begin(), reading.columns.end(),
                       [](const TableColumn& c) { return c.end != Date{}; });
}

}  // namespace

Result<TableReading> guessTable(const Sheet& sheet, const PlacingRules& rules, const TableHints& hints) {
  // A heading row chosen by hand is one of the sheet as it is, unless said otherwise.
  const bool mayAcross = !hints.yearsDown.value_or(false);
  const bool mayDown = hints.yearsDown.value_or(!hints.headerRow);
  TableReading reading;
  bool readAcross = false;
  if (mayAcross) {
    Guess across(sheet, rules, hints);
    readAcross = across.run();
    reading = across.take();
    if (readAcross && (dated(reading) > 1 || !mayDown)) return reading;
  }
  // Few years in one row may be many in one column: years down the side.
  if (mayDown) {
    const Sheet turned = sheet.transposed();
    Guess down(turned, rules, hints);
    if (down.run()) {
      TableReading other = down.take();
      other.yearsDown = true;
      if (!readAcross || dated(other) > dated(reading)) return other;
    }
  }
  if (readAcross) return reading;
  return fail(ErrorKind::BadInput, "no row names years or dates with figures beneath them",
              sheet.name.empty() ? "table" : "sheet '" + sheet.name + "'",
              "Choose the row with the years by hand, or give a table with one");
}

void setLine(TableReading& reading, size_t line, const LineChoice& choice, const LabelRules& labels) {
  TableLine& l = reading.lines.at(line);
  l.choice = choice;
  l.choice.byHand = true;
  if (choice.line.empty() && choice.reason.empty()) l.choice.reason = "set aside by hand";
  l.match = choice.line.empty() ? TableLine::Match::Aside : TableLine::Match::Remembered;
  const LabelRule* rule = labels.of(choice.line);
  if (rule == nullptr) return;
  l.shares = rule->shares;
  l.balance = rule->shares || rule->part == StatementPart::Balance;
}

Status setPeriod(TableReading& reading, size_t column, std::string_view typed) {
  TableColumn& c = reading.columns.at(column);
  const size_t first = typed.find_first_not_of(" \t");
  if (first == std::string_view::npos) {
    c.included = false;
    c.doubt = "left out by hand";
    return {};
  }
  typed = typed.substr(first, typed.find_last_not_of(" \t") - first + 1);
  const size_t to = typed.find(" to ");
  const std::optional<PeriodHeading> heading =
      periodHeading(to == std::string_view::npos ? typed : typed.substr(to + 4));
  int months = heading ? heading->months : 0;
  bool whole = true;
  if (to != std::string_view::npos) {
    const auto [end, code] = std::from_chars(typed.data(), typed.data() + to, months);
    whole = code == std::errc() && end == typed.data() + to;
  }
  if (!heading || !whole || months < 1 || months > 12) {
    return fail(ErrorKind::BadInput, "'" + shortened(typed, 40) + "' is no period", "column '" + c.heading + "'",
                "Write 12 to 2024-12-31, 2024 or Q3 2024");
  }
  c.end = heading->endIn(reading.fiscal);
  c.months = months;
  c.weeks = 0;
  c.included = true;
  c.doubt.clear();
  return {};
}

Result<std::vector<Fact>> factsOf(const Sheet& given, const TableReading& reading,
                                  std::vector<std::string>* passedOver) {
  const auto passOver = [&](const SheetCell& cell) {
    if (passedOver != nullptr) {
      passedOver->push_back(cellPlace(given, cell) + ": '" + shortened(cell.text, 40) + "' " + kNoFigure);
    }
  };
  const Sheet turned = reading.yearsDown ? given.transposed() : Sheet{};
  const Sheet& sheet = reading.yearsDown ? turned : given;
  std::vector<Fact> facts;
  for (const TableLine& line : reading.lines) {
    for (const TableColumn& column : reading.columns) {
      const SheetCell* cell = column.included ? sheet.at(line.row, column.column) : nullptr;
      if (cell == nullptr || (cell->kind == SheetCell::Kind::Text && saysNothing(cell->text))) continue;
      const std::optional<DisplayedNumber> shown = figureIn(*cell, reading.decimalMark);
      if (!shown) {
        passOver(*cell);
        continue;
      }
      Fact fact;
      fact.concept_name = line.concept_name;
      fact.label = line.label;
      fact.period.end = column.end;
      if (!line.balance) {
        fact.period.start = startOf(column);
      }
      const int scale = shown->percent ? -2 : line.scale;
      fact.unit = shown->percent ? "pure" : line.shares ? "shares" : reading.currency;
      const std::optional<Decimal> number =
          Decimal::parse(shown->plain + (scale == 0 ? "" : "e" + std::to_string(scale)));
      if (!number) {  // more digits than can be kept
        passOver(*cell);
        continue;
      }
      fact.text = number->text();
      fact.decimals = -number->lastPlace();
      fact.place = cellPlace(given, *cell);
      facts.push_back(std::move(fact));
    }
  }
  if (facts.empty()) {
    return fail(ErrorKind::BadInput, "the reading holds no figures",
                sheet.name.empty() ? "table" : "sheet '" + sheet.name + "'");
  }
  return facts;
}

LineChoices choicesOf(const TableReading& reading) {
  LineChoices choices;
  for (const TableLine& line : reading.lines) {
    if (!line.choice.line.empty() || line.choice.byHand || line.match == TableLine::Match::Aside)
      choices[line.concept_name] = line.choice;
  }
  return choices;
}

}  // namespace zl
