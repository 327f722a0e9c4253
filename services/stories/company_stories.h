#pragma once
// What figures of the company page stand on: the market's figures, parts as filed, growth without
// what was bought, the company record, and the other choices of the one basis.

#include <string>

#include "services/stories/story.h"
#include "services/views/company_view.h"
#include "services/views/one_basis.h"

namespace zl::services {

enum class MarketFigure {
  Price,
  Low52,
  High52,
  Drawdown,
  Deepest,
  Return1,
  Return5,
  Swing,
  EnterpriseValue,
  EvToEbitda,
  PriceToEarnings,
  FreeCashYield
};
Story marketStory(const Snapshot& s, MarketFigure which, const std::string& label, const Figure& figure, Kind kind);

/// Growth without what deals brought, in a filed year.
Story organicGrowthStory(const Snapshot& s, int column, const Figure& figure);
/// A statistic over organicGrowth().
Story organicStatisticStory(const Snapshot& s, const std::string& statistic, const Figure& figure);

enum class PartFigure { Revenue, Margin };
/// A part of the company in a filed year, by its facts.
Story partStory(const Snapshot& s, const SegmentView& view, size_t member, int column, PartFigure which);
/// What changed the margin of all parts together between a year and the one before.
Story marginChangeStory(const Snapshot& s, const SegmentView& view, int column, const std::string& label,
                        const Figure& figure);

/// A figure that the company record states; `how` may say what was made of it.
Story recordStory(const Snapshot& s, const std::string& title, const Figure& figure, Kind kind,
                  const std::string& how = {});

/// A figure as a table of the market or a list of the record has it; `source` says where it is from.
Story tableStory(const std::string& title, const std::string& shown, const std::string& source);
/// The price, or a scenario's value (-1: the price), in another listing's unit per security.
Story listingStory(const Snapshot& s, const Listing& listing, const Figure& figure, int scenario);

/// Debt that falls due in a year, loan by loan.
Story debtDueStory(const Snapshot& s, int year, bool floating);

/// A measure with one choice of the basis taken the other way, or what that changes.
Story basisStory(const Snapshot& s, const BasisMeasure& measure, const BasisSwitch& choice, bool change,
                 const Figure& figure, int scenario);

}  // namespace zl::services
