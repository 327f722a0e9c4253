#include "services/stages/judgement.h"

#include <algorithm>

#include "core/quantity/number_text.h"
#include "services/stages/own_beta.h"

namespace zl::services {
namespace {

/// Rates are the whole book's: what was brought in for one company moves the others, and they are told.
void tellSharedChange(const Snapshot& s, std::vector<Finding>& findings) {
  const Case& c = s.caseOf();
  const MarketRates& was = s.market->before->rates;
  std::string moved;
  int names = 0;
  std::string last;
  for (const MarketRate& rate : s.market->rates) {
    if (rate.name == last) continue;
    last = rate.name;
    const std::optional<MarketRate> now = rateAt(s.market->rates, rate.name, c.valuationDate);
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
  const Evaluated before = evaluateOn(s.ground, s.market->before, c);
  const Figure value = s.evaluation->constant(model::Role::ValuePerShare, lane);
  const Figure valueThen = before.evaluation->constant(model::Role::ValuePerShare, lane);
  const std::string effect =
      value == valueThen ? "the value per share of Base stays"
                         : "the value per share of Base went from " +
                               (valueThen.hasValue() ? figureText(valueThen, Kind::Quote) : std::string("none")) +
                               " to " + (value.hasValue() ? figureText(value, Kind::Quote) : std::string("none"));
  findings.push_back({"shared rates changed", value == valueThen ? Severity::Note : Severity::Warning, Stop::Capital,
                      "Rates that companies of this book share have changed since the last edit here (" + moved +
                          (names > 3 ? " and " + std::to_string(names - 3) + " more" : std::string()) + "): " + effect,
                      s.evaluation->model().nameOf(model::Role::ValuePerShare), 0});
}

}  // namespace

std::vector<Finding> judge(const Snapshot& s) {
  const std::shared_ptr<const OwnBeta> own = s.evaluator->plainBeta(s);
  const std::shared_ptr<const MarketFindings> market = s.evaluator->marketFindings(s);
  std::vector<Finding> findings =
      monitor({*s.evaluation,
               *s.history,
               s.years(),
               s.review->findings,
               *market,
               s.crossCheck,
               s.market->rates,
               s.company().currency,
               [&s] { return s.evaluator->onOtherModels(s.sources(), s.caseOf()); },
               {own->fit.low, own->fit.high, own->fit.adjusted, betaWords({}, own->index, s.caseOf().valuationDate)}});
  if (s.market->before) tellSharedChange(s, findings);
  if (s.givenFigures->averageShares) {
    findings.push_back({"count of shares is an average", Severity::Warning, Stop::Company,
                        "No count of shares at a day is filed or on record: the value per share stands on the "
                        "average over the last year. Give the count of a day in the company record",
                        s.evaluation->model().nameOf(model::Role::SharesNow), -1});
  }
  if (!s.market->peersUntold.empty()) {
    std::string peers;
    for (const std::string& untold : s.market->peersUntold) peers += (peers.empty() ? "" : "; ") + untold;
    findings.push_back({"peer of the book not read", Severity::Warning, Stop::Peers,
                        "A company of this book is a peer and does not count: " + peers, "", -1});
  }
  if (!s.market->otherUnits.empty()) {
    std::string tables;
    for (const std::string& name : s.market->otherUnits) tables += (tables.empty() ? "" : ", ") + name;
    findings.push_back({"prices in another unit", Severity::Warning, Stop::Company,
                        "No close of " + tables + " is used: the listing is in " + s.company().listing.unit +
                            ". Bring in a record with the listing they are of",
                        "", -1});
  }
  if (s.ownRowsFault()) {
    findings.push_back({"own rows not in use", Severity::Fault, Stop::Outlook,
                        "The own rows are kept and not in use, they do not fit the model: " + s.ownRowsFault()->text(),
                        "", -1});
  }
  return findings;
}

}  // namespace zl::services
