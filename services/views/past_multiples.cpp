#include "services/views/past_multiples.h"

#include <algorithm>
#include <cctype>
#include <chrono>

#include "core/capital/rates.h"
#include "core/history/statistics.h"
#include "services/views/past_peers.h"

namespace zl::services {
namespace {

constexpr double kOutlier = 1.5;
constexpr const char* kNothingToday = "the book has no close of the last days, or no year filed before it";

/// "Net income" within a sentence; "EBITDA" stays.
std::string lowered(std::string words) {
  const auto is = [&](size_t i, int (*what)(int)) { return what(static_cast<unsigned char>(words[i])) != 0; };
  if (words.size() > 1 && is(0, std::isupper) && is(1, std::islower))
    words[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(words[0])));
  return words;
}

/// History with every line as it was first filed.
std::shared_ptr<const Ground> firstFiled(const Snapshot& s) {
  Case c = s.caseOf();
  c.firstFiled = {kEveryLine};
  const auto ground = s.evaluator->ground(s.evidence, c, Standing::StoodBefore);
  return ground ? *ground : s.ground;
}

/// Ends of months from the first close to the valuation date, which closes the list.
std::vector<Date> monthEnds(const Snapshot& s) {
  using namespace std::chrono;
  std::vector<Date> ends;
  if (s.market->prices.empty()) return ends;
  const Date last = s.caseOf().valuationDate;
  const year_month_day from(s.market->prices.front().date);
  for (year_month month = from.year() / from.month();; month += months(1)) {
    const Date end(sys_days(month / std::chrono::last));
    if (end >= last) break;
    ends.push_back(end);
  }
  ends.push_back(last);
  return ends;
}

/// What an exchange rate or a price makes of a month: worth of equity in the reporting currency.
class Worth {
 public:
  explicit Worth(const Snapshot& s) : s_(s) {}

  Figure at(const PricePoint& close, const Figure& count) {
    const Listing& listing = s_.company().listing;
    Figure rate = spot(spotRatesAt(s_.market->rates, close.date), s_.company().currency, listing.currency);
    if (!rate.hasValue()) {
      rate = s_.given(model::Role::QuoteRate).figure / Figure::of(listing.minorPerMajor * listing.sharesPerListed);
      guessed_ = true;
    }
    return Figure::of(close.close) / (rate * Figure::of(listing.minorPerMajor) * Figure::of(listing.sharesPerListed)) *
           count;
  }
  [[nodiscard]] bool guessed() const { return guessed_; }

 private:
  const Snapshot& s_;
  bool guessed_ = false;
};

void describeSeries(PastSeries& series) {
  std::vector<Figure> all;
  for (const PastMultiple& p : series.points) all.push_back(Figure::of(p.multiple));
  const Statistics raw = describe(all);
  std::vector<bool> out(all.size(), false);
  constexpr int kFewest = 5;  // quartiles of fewer tell no outlier
  if (raw.count >= kFewest) {
    const double reach = kOutlier * (raw.upperQuartile.value() - raw.lowerQuartile.value());
    for (size_t i = 0; i < all.size(); ++i) {
      PastMultiple& p = series.points[i];
      p.outlier = p.multiple < raw.lowerQuartile.value() - reach || p.multiple > raw.upperQuartile.value() + reach;
      out[i] = p.outlier;
    }
  }
  const Statistics d = describe(all, out);
  series.count = d.count;
  series.low = d.low;
  series.lowerQuartile = d.lowerQuartile;
  series.median = d.median;
  series.mean = d.mean;
  series.upperQuartile = d.upperQuartile;
  series.high = d.high;
  series.percentile = series.today.hasValue() ? percentileOf(series.today.value(), all, out) : series.today;
}

}  // namespace

PastMultiples pastMultiples(const Snapshot& s) {
  PastMultiples past;
  const auto& shares = s.model().view("past_claims");
  constexpr size_t kClaimsAndShares = 2;
  if (shares.size() != kClaimsAndShares) return past;
  for (const bool ofFirm : {false, true}) {
    for (const model::ViewRow& shown : s.model().view(ofFirm ? "past_of_firm" : "past_of_price")) {
      PastSeries series;
      series.row = shown.row;
      series.ofFirm = ofFirm;
      // As the multiple of peers is called that it is held against.
      const model::Row& row = s.model()[shown.row];
      const std::optional<Multiple> peers = trailingMultipleOf(s.model(), row.name, ofFirm);
      series.label = peers ? multipleLabel(*peers) : (ofFirm ? "EV to " : "Price to ") + lowered(row.label);
      series.today = Figure::absent(kNothingToday);
      past.series.push_back(std::move(series));
    }
  }
  const std::shared_ptr<const Ground> ground = firstFiled(s);
  const model::HistoryTable& history = *ground->history->adjusted;
  const std::vector<FiscalYear>& years = ground->years();
  Worth worth(s);
  for (const Date month : monthEnds(s)) {
    const std::optional<PricePoint> close = closeAt(s.market->prices, month);
    const auto known =
        std::find_if(years.rbegin(), years.rend(), [&](const FiscalYear& y) { return y.end + kUntilFiled <= month; });
    if (!close || month - close->date > kStaleClose || known == years.rend()) {
      for (PastSeries& series : past.series) series.today = Figure::absent(kNothingToday);
      continue;
    }
    const int column = static_cast<int>(years.rend() - known) - 1;
    const Figure equity = worth.at(*close, history.at(shares[1].row, column));
    const Figure firm = equity + history.at(shares[0].row, column);
    for (PastSeries& series : past.series) {
      const Figure of = history.at(series.row, column);
      const Figure multiple = of.hasValue() && of.value() <= 0 ? Figure::notMeaningful("what it is of is not positive")
                                                               : (series.ofFirm ? firm : equity) / of;
      series.today = multiple;
      if (!multiple.hasValue() || multiple.value() < 0) {
        ++series.left;
        continue;
      }
      PastMultiple point;
      point.on = close->date;
      point.column = column;
      point.multiple = multiple.value();
      series.points.push_back(point);
    }
  }
  for (PastSeries& series : past.series) describeSeries(series);
  setBesidePeers(s, past);
  if (worth.guessed())
    past.note =
        "Where the book has no exchange rate of the day, today's is taken: give older ones under Company, rates.";
  return past;
}

std::vector<PastYear> pastYears(const PastSeries& series) {
  std::vector<PastYear> years;
  for (const PastMultiple& p : series.points) {
    const int year = yearOf(p.on);
    if (years.empty() || years.back().year != year) years.push_back({year, 0, p.multiple, 0, p.multiple});
    PastYear& of = years.back();
    of.low = std::min(of.low, p.multiple);
    of.high = std::max(of.high, p.multiple);
    of.mean += (p.multiple - of.mean) / ++of.months;
  }
  return years;
}

}  // namespace zl::services
