#include "services/stages/evaluated.h"

#include "core/quantity/number_text.h"

namespace zl::services {
namespace {

using GivenMap = std::map<std::string, GivenFigure>;

void giveMarket(const Evidence& e, Date date, GivenMap& givens) {
  const Listing& listing = e.company.listing;
  if (const std::optional<PricePoint> close = closeAt(e.prices, date)) {
    givens["price"] = {Figure::of(close->close), "close of " + dateText(close->date) + ", " + listing.unit};
  } else {
    givens["price"] = {Figure::absent("no price on or before " + dateText(date)), "price table"};
  }
  const SpotRates spots = spotRatesAt(e.rates, date);
  const Figure fx = spot(spots, e.company.currency, listing.currency);
  const std::string cross = crossOf(spots, e.company.currency, listing.currency);
  givens["quote_rate"] = {fx * Figure::of(listing.minorPerMajor) * Figure::of(listing.sharesPerListed),
                          "spot " + e.company.currency + "/" + listing.currency +
                              (cross.empty() ? "" : " by way of " + cross) + " x " +
                              plainNumber(listing.minorPerMajor) + " " + listing.unit + " x " +
                              plainNumber(listing.sharesPerListed) + " shares per listed security"};
}

void giveRecord(const Evidence& e, GivenMap& givens) {
  const Company& c = e.company;
  const std::string& source = e.companySource;
  givens["shares_now"] = {c.shares > 0 ? Figure::of(c.shares) : Figure::absent("no share count"), source};
  givens["options"] = {Figure::of(c.options), source};
  givens["option_strike"] = {Figure::of(c.optionStrike), source};
  givens["unvested_shares"] = {Figure::of(c.unvestedShares), source};
  givens["convertible_shares"] = {Figure::of(c.convertibleShares), source};
  givens["convertible_face"] = {Figure::of(c.convertibleFace), source};
}

void giveStub(Date base, Date valuation, GivenMap& givens) {
  givens["base_fiscal_year"] = {Figure::of(yearOf(base)), "the last year that the outlook stands on"};
  const Date next = addYears(base, 1);
  const std::string source =
      "valuation date " + dateText(valuation) + " between " + dateText(base) + " and " + dateText(next);
  if (const std::optional<Stub> stub = stubFor(valuation, base, next)) {
    givens["stub"] = {Figure::of(stub->remaining), source};
  } else {
    givens["stub"] = {Figure::notMeaningful("the valuation date " + dateText(valuation) +
                                            " is not in the first forecast year; roll the model forward"),
                      source};
  }
}

}  // namespace

Evaluated evaluateOn(std::shared_ptr<const Ground> ground, const Case& c) {
  Evaluated e;
  giveMarket(*ground->evidence, c.valuationDate, e.givens);
  giveRecord(*ground->evidence, e.givens);
  giveStub(ground->years().back().end, c.valuationDate, e.givens);
  Givens plain;
  for (const auto& [row, given] : e.givens) plain[row] = given.figure;
  e.evaluation = std::make_shared<const Evaluation>(ground->compiled, ground->history->adjusted, c, plain);
  e.ground = std::move(ground);
  return e;
}

}  // namespace zl::services
