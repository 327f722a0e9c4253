#include "services/views/parts_view.h"

#include <algorithm>

#include "core/quantity/number_text.h"

namespace zl::services {

using model::Role;

PartsView partsView(const Snapshot& s) {
  PartsView view;
  const std::map<std::string, PartChoice>& choices = s.caseOf().parts;
  const std::vector<CutOfParts> cuts = cutsOfParts(*s.ground, choices);
  if (const CutOfParts* cut = cutInForce(cuts, choices)) view.cut = *cut;
  view.sum = sumOfParts(*s.ground, choices);
  const auto median = [&](Multiple m) {
    const MultipleStatistics& of = s.crossCheck.statistics.at(m);
    return of.count > 0 ? of.median : Figure::absent("no peer counts");
  };
  view.byProfit = median(Multiple::EvToEbit);
  view.byRevenue = median(Multiple::EvToSales);
  if (view.cut.parts.empty()) {
    view.words =
        "Nothing is filed by part: a table of revenue and profit by segment, brought in on Filings, makes parts.";
    return view;
  }
  const auto& rows = s.model().view("parts");
  const Figure value = rows.empty() ? Figure::absent("the model has no sum of parts")
                                    : s.evaluation->constant(rows.back().row, std::max(0, s.caseOf().indexOf(kBase)));
  const Figure whole = s.evaluation->constant(Role::EnterpriseValue, std::max(0, s.caseOf().indexOf(kBase)));
  if (!view.sum.enterprise.hasValue()) {
    view.words = "No sum yet: " + view.sum.enterprise.reason() + ".";
    return view;
  }
  view.words = "The parts are worth " + figureText(view.sum.enterprise, Kind::Money) + " " + s.company().currency +
               " m together";
  if (value.hasValue())
    view.words += ", " + figureText(value, Kind::Quote) + " " + s.company().listing.unit + " a share";
  const Figure against = view.sum.enterprise / whole - Figure::of(1);
  if (against.hasValue() && whole.value() > 0)
    view.words += "; the cash value of the firm is " + figureText(whole, Kind::Money) + ", the parts are " +
                  (against.value() >= 0 ? "+" : "") + groupedNumber(against.value() * 100, 0, false) + " % from it";
  const auto largest = std::max_element(
      view.sum.parts.begin(), view.sum.parts.end(),
      [](const ValuedPart& a, const ValuedPart& b) { return a.share.valueOr(0) < b.share.valueOr(0); });
  if (largest->share.hasValue())
    view.words += ". " + largest->part.label + " is " + groupedNumber(largest->share.value() * 100, 0) + " % of it";
  view.words += ".";
  if (!view.sum.unallocated.hasValue())
    view.words += " Not every part files its profit: what no part bears cannot be told and is not taken off.";
  return view;
}

}  // namespace zl::services
