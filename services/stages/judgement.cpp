#include "services/stages/judgement.h"

#include <algorithm>

#include "core/quantity/number_text.h"

namespace zl::services {
namespace {

/// Rates are the whole book's: what was brought in for one company moves the others, and they are told.
void tellSharedChange(const Evaluated& e, std::vector<Finding>& findings) {
  const Case& c = e.caseOf();
  const MarketRates& was = e.market->before->rates;
  std::string moved;
  int names = 0;
  std::string last;
  for (const MarketRate& rate : e.market->rates) {
    if (rate.name == last) continue;
    last = rate.name;
    const std::optional<MarketRate> now = rateAt(e.market->rates, rate.name, c.valuationDate);
    const std::optional<MarketRate> then = rateAt(was, rate.name, c.valuationDate);
    if (!now || (then && then->figure == now->figure)) continue;
    constexpr int kMostNamed = 3;
    if (++names <= kMostNamed) {
      moved += (moved.empty() ? "" : ", ") + rate.name + " " +
               (then ? plainNumber(then->figure) : std::string("none")) + " to " + plainNumber(now->figure);
    }
  }
  if (names == 0) return;
  const int lane = std::max(0, c.indexOf(kBase));
  const Evaluated before = evaluateOn(e.ground, e.market->before, c);
  const Figure value = e.evaluation->constant(model::Role::ValuePerShare, lane);
  const Figure valueThen = before.evaluation->constant(model::Role::ValuePerShare, lane);
  const std::string effect =
      value == valueThen ? "the value per share of Base stays"
                         : "the value per share of Base went from " +
                               (valueThen.hasValue() ? figureText(valueThen, Kind::Quote) : std::string("none")) +
                               " to " + (value.hasValue() ? figureText(value, Kind::Quote) : std::string("none"));
  findings.push_back({"shared rates changed", value == valueThen ? Severity::Note : Severity::Warning, Stop::Capital,
                      "Rates that companies of this book share have changed since the last edit here (" + moved +
                          (names > 3 ? " and " + std::to_string(names - 3) + " more" : std::string()) + "): " + effect,
                      e.evaluation->model().nameOf(model::Role::ValuePerShare), 0});
}

}  // namespace

Judgement judge(const Evaluated& e, const FilingReview& review, std::vector<OnOtherModel> others) {
  const Ground& ground = *e.ground;
  const Evidence& evidence = *ground.evidence;
  Judgement judgement;
  judgement.findings =
      monitor({*e.evaluation, *ground.history->adjusted, ground.years(), review.findings, e.crossCheck,
               e.market->prices, e.market->rates, e.market->estimates, evidence.company.currency, std::move(others)});
  if (e.market->before) tellSharedChange(e, judgement.findings);
  if (e.averageShares) {
    judgement.findings.push_back(
        {"count of shares is an average", Severity::Warning, Stop::Company,
         "No count of shares at a day is filed or on record: the value per share stands on the "
         "average over the last year. Give the count of a day in the company record",
         e.evaluation->model().nameOf(model::Role::SharesNow), -1});
  }
  if (!e.market->otherUnits.empty()) {
    std::string tables;
    for (const std::string& name : e.market->otherUnits) tables += (tables.empty() ? "" : ", ") + name;
    judgement.findings.push_back({"prices in another unit", Severity::Warning, Stop::Company,
                                  "No close of " + tables + " is used: the listing is in " +
                                      evidence.company.listing.unit +
                                      ". Bring in a record with the listing they are of",
                                  "", -1});
  }
  if (ground.ownRowsFault) {
    judgement.findings.push_back(
        {"own rows not in use", Severity::Fault, Stop::Outlook,
         "The own rows are kept and not in use, they do not fit the model: " + ground.ownRowsFault->text(), "", -1});
  }
  return judgement;
}

}  // namespace zl::services
