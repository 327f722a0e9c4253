#include "services/views/dividend_view.h"

#include <algorithm>
#include <chrono>

#include "core/filing/minor_unit.h"
#include "core/quantity/number_text.h"
#include "services/stages/own_beta.h"

namespace zl::services {

using model::Role;

DividendView dividendView(const Snapshot& s) {
  DividendView view;
  const auto none = [&](const std::string& why) {
    view.lastYear = view.yield = Figure::absent(why);
    view.words = "No payments: " + why + ".";
    return view;
  };
  const MarketSeries* own = seriesOf(s, s.company().id, s.company().name);
  if (own == nullptr)
    return none("the book has no series called '" + s.company().id + "'; paste its days with a column of dividends");
  const Listing& listing = s.company().listing;
  const std::optional<double> factor = intoListing(own->unit.empty() ? listing.unit : own->unit, listing);
  if (!factor) return none("the series is in " + own->unit + " and the listing in " + listing.unit);
  view.payments = paymentsOf(own->points, s.caseOf().valuationDate);
  for (DividendPayment& payment : view.payments) payment.amount *= *factor;
  if (view.payments.empty()) return none("the series '" + own->name + "' tells of no dividend");
  view.quarters = byQuarter(view.payments);
  const auto endMonth = static_cast<unsigned>(std::chrono::year_month_day(s.years().back().end).month());
  const model::RowId earnings = s.model().find(Role::EarningsPerShare);
  const Figure perShare = s.given(Role::QuoteRate).figure;  // of one share of the record in the listing's unit
  for (const DividendSum& sum : byFiscalYear(view.payments, endMonth)) {
    DividendYear year{sum, Figure::absent("the year is not filed")};
    const bool over = sum.year < yearOf(s.caseOf().valuationDate) ||
                      (sum.year == yearOf(s.caseOf().valuationDate) &&
                       endMonth < static_cast<unsigned>(std::chrono::year_month_day(s.caseOf().valuationDate).month()));
    if (!over) year.sum.growth = Figure::absent("the year is not over: more may be paid in it");
    const auto filed =
        std::find_if(s.years().begin(), s.years().end(), [&](const FiscalYear& y) { return y.label() == sum.year; });
    if (filed != s.years().end() && earnings.known()) {
      const Figure profit = s.history->at(earnings, static_cast<int>(filed - s.years().begin())) * perShare;
      year.cover =
          sum.regular > 0 ? profit / Figure::of(sum.regular) : Figure::notMeaningful("nothing regular was paid");
    }
    view.years.push_back(std::move(year));
  }
  view.lastYear = lastTwelveMonths(view.payments, s.caseOf().valuationDate);
  const Figure price = s.given(Role::Price).figure;
  view.yield = price.hasValue() && price.value() <= 0 ? Figure::notMeaningful("the price is not positive")
                                                      : view.lastYear / price;
  const auto specials =
      std::count_if(view.payments.begin(), view.payments.end(), [](const DividendPayment& p) { return p.special; });
  view.words = std::to_string(view.payments.size()) + " payments since " + dateText(view.payments.front().on) +
               (specials == 0 ? std::string()
                              : ", " + std::to_string(specials) + (specials == 1 ? " of them special" : " special")) +
               "; " + figureText(view.lastYear, Kind::Quote) + " " + listing.unit + " in the twelve months to " +
               dateText(s.caseOf().valuationDate);
  if (view.yield.hasValue()) view.words += ", " + figureText(view.yield, Kind::Ratio) + " % of the price";
  view.words += ".";
  if (listing.currency != s.company().currency) view.words += " Cover takes today's exchange rate.";
  return view;
}

}  // namespace zl::services
