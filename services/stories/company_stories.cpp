#include "services/stories/company_stories.h"
#include "services/stories/sources.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/quantity/number_text.h"
#include "services/stories/documents.h"
#include "services/stories/rows.h"
#include "services/views/history_figures.h"

namespace zl::services {
namespace {

const char* priceRule(MarketFigure which) {
  switch (which) {
    case MarketFigure::Low52:
      return "the lowest close of the 365 days before";
    case MarketFigure::High52:
      return "the highest close of the 365 days before";
    case MarketFigure::Drawdown:
      return "the last close over the highest of all closes before it, less one";
    case MarketFigure::Deepest:
      return "the lowest that a close has ever been against the highest before it, less one";
    case MarketFigure::Return1:
      return "the last close over that of 365 days before, less one; price alone, without dividends";
    case MarketFigure::Return5:
      return "the last close over that of five years before, less one; price alone, without dividends";
    case MarketFigure::Swing:
      return "standard deviation of the returns from close to close in the 365 days before, times the root of their "
             "count";
    default:
      return "the last close at the valuation date";
  }
}

void tellPrices(const Snapshot& s, MarketFigure which, const Figure& figure, Story& story) {
  story.lines.emplace_back(priceRule(which));
  const PriceSummary price = summarise(s.market->prices, s.caseOf().valuationDate);
  const bool aClose = which == MarketFigure::Price || which == MarketFigure::Low52 || which == MarketFigure::High52;
  if (!aClose || !figure.hasValue()) {
    story.lines.push_back("from " + activeDocuments(s, exchange::ContentKind::PriceTable));
    return;
  }
  const Date day = which == MarketFigure::Low52    ? price.lowDate
                   : which == MarketFigure::High52 ? price.highDate
                                                   : price.lastDate;
  const std::optional<PricePoint> close = closeAt(s.market->prices, day);
  const store::StoredDocument* document = close ? s.document(close->document) : nullptr;
  story.lines.push_back("on " + dateText(day));
  if (document != nullptr) story.lines.push_back("from " + document->document.name);
}

void tellPart(const Snapshot& s, const std::vector<std::optional<size_t>>& facts, int column, Story& story) {
  if (const auto& fact = facts[static_cast<size_t>(column)]) story.lines.push_back(factWords(s, {*fact, 1}));
}

}  // namespace

Story marketStory(const Snapshot& s, MarketFigure which, const std::string& label, const Figure& figure, Kind kind) {
  Story story = storyAbout(s, label + " on " + dateText(s.caseOf().valuationDate), figure, kind);
  story.scenario = baseLane(s);
  const int base = s.evaluation->layout().baseColumn();
  const auto enterprise = [&] {
    reads(s, story, model::Role::MarketEquity);
    reads(s, story, model::Role::Claims);
  };
  switch (which) {
    case MarketFigure::EnterpriseValue:
      story.lines.emplace_back("market value of equity, plus net debt and other claims, less associates");
      enterprise();
      break;
    case MarketFigure::EvToEbitda:
      story.lines.emplace_back("enterprise value over EBITDA of the base year, on the basis in use");
      enterprise();
      reads(s, story, model::Role::BasisEbitda, base);
      break;
    case MarketFigure::PriceToEarnings:
      story.lines.emplace_back("market value of equity over net income to shareholders of the base year");
      reads(s, story, model::Role::MarketEquity);
      reads(s, story, model::Role::OwnersProfit, base);
      break;
    case MarketFigure::FreeCashYield:
      story.lines.emplace_back("simple free cash flow of the base year over the market value of equity");
      reads(s, story, model::Role::SimpleFreeCash, base);
      reads(s, story, model::Role::MarketEquity);
      break;
    default:
      tellPrices(s, which, figure, story);
  }
  return story;
}

Story organicGrowthStory(const Snapshot& s, int column, const Figure& figure) {
  Story story = storyAbout(s, "Organic growth " + s.periodOf(column), figure, Kind::Ratio);
  const double acquired = acquiredRevenue(s.company().deals, s.years())[static_cast<size_t>(column)];
  story.lines.push_back("revenue less what deals added within their first twelve months, " +
                        shownWithUnit(s, Figure::of(acquired), Kind::Money) +
                        ", over revenue a year before, less one; figures as filed, currencies stay in");
  if (acquired != 0) story.lines.push_back("deals from the company record, " + s.evidence->companySource);
  const model::RowId revenue = s.evaluation->model().find(model::Role::Revenue);
  for (const int year : {column, column - 1}) {
    if (year < 0 || !revenue.known()) continue;
    reads(s, story, revenue, year);
    story.reads.back().figure = s.asFiled->at(revenue, year);
  }
  return story;
}

Story organicStatisticStory(const Snapshot& s, const std::string& statistic, const Figure& figure) {
  Story story = storyAbout(s, "Organic growth, " + statistic, figure, Kind::Ratio);
  const std::vector<Figure> years = organicGrowth(s);
  const model::RowId growth = s.model().find(model::Role::RevenueGrowth);
  const std::vector<bool> out = !growth.known() ? std::vector<bool>(years.size(), false) : leftOut(s, growth);
  story.lines.emplace_back("of the years:");
  for (size_t c = 0; c < years.size(); ++c) {
    story.lines.push_back("    " + s.periodOf(static_cast<int>(c)) + ": " + shownOrWhy(s, years[c], Kind::Ratio) +
                          (out[c] ? " (exceptional, left out)" : ""));
  }
  return story;
}

Story partStory(const Snapshot& s, const SegmentView& view, size_t member, int column, PartFigure which) {
  const auto at = static_cast<size_t>(column);
  const bool margin = which == PartFigure::Margin;
  const Figure figure = margin ? view.margin[member][at] : view.revenue[member][at];
  Story story = storyAbout(s, view.members[member] + (margin ? ", EBIT margin " : ", revenue ") + s.periodOf(column),
                           figure, margin ? Kind::Ratio : Kind::Money);
  if (margin) story.lines.emplace_back("EBIT over revenue of the part, as filed");
  if (margin) tellPart(s, view.profitFacts[member], column, story);
  tellPart(s, view.revenueFacts[member], column, story);
  return story;
}

Story marginChangeStory(const Snapshot& s, const SegmentView& view, int column, const std::string& label,
                        const Figure& figure) {
  Story story = storyAbout(s, label + " " + s.periodOf(column), figure, Kind::Ratio);
  story.lines.emplace_back(
      "mix: what the shift of revenue between parts did at the margins of the year before; within: what each part's "
      "own margin did at its weight of the year; together the change of the margin of all parts");
  for (const int year : {column, column - 1}) {
    for (size_t m = 0; year >= 0 && m < view.members.size(); ++m) {
      const auto at = static_cast<size_t>(year);
      story.lines.push_back(view.members[m] + " " + s.periodOf(year) + ": EBIT " +
                            shownOrWhy(s, view.profit[m][at], Kind::Money) + " of revenue " +
                            shownOrWhy(s, view.revenue[m][at], Kind::Money));
      for (const auto* facts : {&view.profitFacts[m], &view.revenueFacts[m]}) {
        if (const auto& fact = (*facts)[at]) story.lines.push_back("    " + factWords(s, {*fact, 1}));
      }
    }
  }
  return story;
}

Story recordStory(const Snapshot& s, const std::string& title, const Figure& figure, Kind kind,
                  const std::string& how) {
  Story story = storyAbout(s, title, figure, kind);
  if (!how.empty()) story.lines.push_back(how);
  story.lines.push_back("from the company record, " + s.evidence->companySource);
  return story;
}

Story tableStory(const std::string& title, const std::string& shown, const std::string& source) {
  Story story;
  story.title = title;
  story.figure = shown;
  story.lines.push_back(source.empty() ? "as it was typed or brought in" : source);
  return story;
}

Story listingStory(const Snapshot& s, const Listing& listing, const Figure& figure, int scenario) {
  Story story = storyAbout(s, (scenario < 0 ? "Price in " : "Value per share in ") + listing.unit, figure, Kind::Quote);
  if (figure.hasValue()) story.figure = figureText(figure, Kind::Quote) + " " + listing.unit;
  story.scenario = std::max(0, scenario);
  const Listing& home = s.company().listing;
  if (listing == home) {
    story.lines.emplace_back("of the listing that is valued");
  } else {
    story.lines.push_back("from " + home.unit + " by the exchange rate of the valuation date, " +
                          plainNumber(listing.minorPerMajor) + " " + listing.unit + " to the " + listing.currency +
                          ", " + plainNumber(listing.sharesPerListed) + " shares a security");
  }
  scenario < 0 ? reads(s, story, model::Role::Price) : reads(s, story, model::Role::ValuePerShare);
  reads(s, story, model::Role::QuoteRate);
  return story;
}

Story debtDueStory(const Snapshot& s, int year, bool floating) {
  Figure sum = Figure::of(0);
  std::vector<std::string> loans;
  for (const DebtDue& due : s.evidence->debtDue) {
    if (due.year != year || due.floating != floating) continue;
    sum = sum + Figure::of(due.amount);
    loans.push_back("    " + (due.what.empty() ? "not named" : due.what) + ": " +
                    shownWithUnit(s, Figure::of(due.amount), Kind::Money) +
                    (due.rate ? " at " + shownWithUnit(s, Figure::of(*due.rate), Kind::Ratio) : ""));
  }
  const std::string title = fmt::format("Debt due in {}, {}", year, floating ? "floating" : "fixed");
  const bool recorded = !s.company().debtDue.empty();
  Story story = recorded ? recordStory(s, title, sum, Kind::Money) : storyAbout(s, title, sum, Kind::Money);
  if (!recorded) story.lines.emplace_back("as tagged in the latest filing; the company record says nothing of it");
  story.lines.insert(story.lines.end(), loans.begin(), loans.end());
  return story;
}

Story basisStory(const Snapshot& s, const BasisMeasure& measure, const BasisSwitch& choice, bool change,
                 const Figure& figure, int scenario) {
  Story story =
      storyAbout(s, measure.label + ", " + choice.otherWords + (change ? ", change" : ""), figure, measure.kind);
  story.scenario = scenario;
  story.lines.push_back("the whole case evaluated again with " + choice.otherWords +
                        ", the subject and its peers alike; every other choice as it is");
  if (change) story.lines.emplace_back("less the measure as the basis stands:");
  reads(s, story, s.model().find(measure.row), measure.baseYear ? s.evaluation->layout().baseColumn() : 0);
  reads(s, story, s.model().find(choice.input), 0);
  return story;
}

}  // namespace zl::services
