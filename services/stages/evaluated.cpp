#include "services/stages/evaluated.h"

#include <map>
#include <string_view>
#include <tuple>

#include "core/capital/strikes.h"
#include "core/monitor/limits.h"
#include "core/quantity/number_text.h"
#include "services/stages/parts.h"
#include "services/stages/proposed.h"

namespace zl::services {
namespace {

using model::Role;

/// Fills givens by the role that a row plays; a model without the row has no use for the figure.
class Giver {
 public:
  explicit Giver(const model::Model& m) : model_(m) {}

  void give(Role role, Figure figure, const std::string& source) {
    if (model_.find(role).known()) givens_[model_.nameOf(role)] = {std::move(figure), source};
  }

  /// The price that the case stands on: of its valuation date, the latest there is, or one that was pinned.
  void price(const Market& market, const Listing& listing, const GivenChoices& c) {
    if (c.price.stands == PriceChoice::Stands::Pinned) {
      give(Role::Price, Figure::of(c.price.pinned),
           "pinned by " + c.price.said.author + " on " + c.price.said.at.substr(0, 10) + ", " + listing.unit +
               (c.price.said.reason.empty() ? "" : ": " + c.price.said.reason));
      return;
    }
    const bool live = c.price.stands == PriceChoice::Stands::Live;
    const std::optional<PricePoint> close = !live                   ? closeAt(market.prices, c.valuationDate)
                                            : market.prices.empty() ? std::nullopt
                                                                    : std::optional(market.prices.back());
    if (!close) {
      give(Role::Price,
           Figure::absent(live ? "there is no price yet" : "no price on or before " + dateText(c.valuationDate)),
           "price table");
      return;
    }
    give(Role::Price, Figure::of(close->close),
         (live ? "latest, " : "") + ("close of " + dateText(close->date)) + ", " + listing.unit +
             (close->source.empty() ? "" : ", " + close->source));
  }

  /// `placeholders` serve where the book has no rate; null where none may.
  void spot(const Evidence& e, const Market& market, Date date, const Placeholders* placeholders) {
    const Listing& listing = e.company.listing;
    const SpotRates spots = spotRatesAt(market.rates, date);
    Figure fx = zl::spot(spots, e.company.currency, listing.currency);
    const std::string cross = crossOf(spots, e.company.currency, listing.currency);
    std::string origin;
    if (!fx.hasValue() && placeholders != nullptr) {
      fx = placeholders->spot(e.company.currency, listing.currency);
      if (fx.hasValue()) origin = placeholders->source() + ": ";
    }
    give(Role::QuoteRate, fx * Figure::of(listing.minorPerMajor) * Figure::of(listing.sharesPerListed),
         origin + "spot " + e.company.currency + "/" + listing.currency + (cross.empty() ? "" : " by way of " + cross) +
             " x " + plainNumber(listing.minorPerMajor) + " " + listing.unit + " x " +
             plainNumber(listing.sharesPerListed) + " shares per listed security");
  }

  /// Of the record; else of the cover page of the latest filing; else at the close of the last year; else the average
  /// over it.
  void giveShares(const Evidence& e, const Figure& closing, bool average) {
    if (e.company.shares > 0) return give(Role::SharesNow, Figure::of(e.company.shares), e.recordSource("shares"));
    if (e.cover) return give(Role::SharesNow, Figure::of(e.cover->shares), "cover page, " + dateText(e.cover->on));
    if (closing.hasValue() && closing.value() > 0) {
      average_ = average;
      return give(Role::SharesNow, closing,
                  average ? "the average over the last year, as filed: no count at its close is"
                          : "at the close of the last year, as filed");
    }
    give(Role::SharesNow, Figure::absent("no count of shares is known: give one in the company record"), "");
  }

  void record(const Evidence& e, const Market& market, Date valuation, const Figure& closingShares, bool average) {
    const Company& c = e.company;
    instruments(e, spotRatesAt(market.rates, valuation), valuation);
    giveShares(e, closingShares, average);
    give(Role::Options, orOverfull(Role::Options, c.options), e.recordSource("options"));
    // The record's strike is of an ordinary share, the price of what is listed.
    const double shares = c.listing.sharesPerListed;
    give(Role::OptionStrike, Figure::of(c.optionStrike * shares),
         e.recordSource("option_strike") +
             (shares == 1 ? "" : ", x " + plainNumber(shares) + " shares per listed security"));
    give(Role::UnvestedShares, Figure::of(c.unvestedShares), e.recordSource("unvested_shares"));
    give(Role::ConvertibleShares, orOverfull(Role::ConvertibleShares, c.convertibleShares),
         e.recordSource("convertible_shares"));
    give(Role::ConvertibleFace, Figure::of(c.convertibleFace), e.recordSource("convertible_face"));
  }

  void calendar(Date base, Date valuation) {
    give(Role::BaseFiscalYear, Figure::of(yearOf(base)), "the last year that the outlook stands on");
    const std::optional<ValuationTime> time = valuationTime(valuation, base);
    if (!time) {
      const std::string why = "the valuation date " + dateText(valuation) +
                              (valuation < base ? " is before the last filed year end, "
                                                : " is more than 18 months after the last filed year end, ") +
                              dateText(base) +
                              (valuation < base ? "" : "; bring in the years since, or set another date");
      for (const Role role : {Role::Stub, Role::YearsPassed}) give(role, Figure::notMeaningful(why), "calendar");
      return;
    }
    const Date opening = addYears(base, time->yearsPassed);
    const std::string source = "valuation date " + dateText(valuation) + " between " + dateText(opening) + " and " +
                               dateText(addYears(opening, 1));
    give(Role::Stub, Figure::of(time->stub.remaining), source);
    give(Role::YearsPassed, Figure::of(time->yearsPassed), source + ", the last filed year ends on " + dateText(base));
  }

  /// Statistics of the peers that count, wherever the model asks for one.
  void peers(const CrossCheck& check) {
    std::map<std::string_view, Multiple> byName;
    for (const Multiple m : check.multiples) byName.emplace(multipleName(m), m);
    for (const model::Row& row : model_.rows) {
      if (row.declared != model::Declared::Given || !row.peers || row.peers->statistic.empty()) continue;
      const auto multiple = byName.find(row.peers->measure);
      if (multiple == byName.end()) continue;
      const MultipleStatistics& statistics = check.statistics.at(multiple->second);
      const int count = statistics.count;
      givens_[row.name] = {
          count == 0 ? Figure::absent("no peer counts") : statisticNamed(statistics, row.peers->statistic),
          multipleLabel(multiple->second) + " of " + std::to_string(count) + (count == 1 ? " peer" : " peers") +
              " that count"};
    }
  }

  /// What a normal year keeps, wherever the model asks for it: the mean over the regular ones that were filed.
  void regular(const model::HistoryTable& history, const std::vector<FiscalYear>& years,
               const std::set<int>& exceptional) {
    for (const model::Row& row : model_.rows) {
      if (!row.regular) continue;
      const model::RowId part = model_.find(row.regular->part), whole = model_.find(row.regular->whole);
      std::vector<Figure> parts, wholes;
      std::vector<bool> flagged;
      for (size_t c = 0; c < years.size(); ++c) {
        parts.push_back(history.at(part, static_cast<int>(c)));
        wholes.push_back(history.at(whole, static_cast<int>(c)));
        flagged.push_back(exceptional.count(years[c].label()) > 0);
      }
      givens_[row.name] = {regularShare(parts, wholes, flagged),
                           "the mean of the last five regular years; years flagged exceptional are left out"};
    }
  }

  /// Rates of the book and analysts' estimates, wherever the model asks for one.
  void quoted(const Evidence& e, const Market& market, Date base, Date valuation) {
    for (const model::Row& row : model_.rows) {
      if (row.declared != model::Declared::Given) continue;
      if (!row.quoted.empty()) {
        std::string name = row.quoted;
        if (const size_t at = name.find("CUR"); at != std::string::npos) name.replace(at, 3, e.company.currency);
        const std::optional<MarketRate> rate = rateAt(market.rates, name, valuation);
        givens_[row.name] = {
            rate ? Figure::of(rate->figure)
                 : Figure::absent("the book has no rate '" + name + "': give it under Company, rates by name"),
            rate ? name + " of " + dateText(rate->date) + (rate->source.empty() ? "" : ", " + rate->source) : ""};
      }
      if (row.estimate) givens_[row.name] = estimated(*row.estimate, market, yearOf(base), valuation);
    }
  }

  /// Lists of the record, item by item, wherever the model reads one.
  void instruments(const Evidence& e, const SpotRates& spots, Date valuation) {
    std::map<std::string, int> read;
    for (const model::Row& row : model_.rows) {
      if (!row.record) continue;
      const auto& [list, place, field] = *row.record;
      read[list] = std::max(read[list], place);
      givens_[row.name] = {listed(e.company, *row.record, spots, valuation), e.recordSource(list)};
    }
    // What the model has no row for is never left out in silence.
    for (const auto& [list, role, has] :
         {std::tuple("option_tranches", Role::Options, e.company.optionTranches.size()),
          std::tuple("convertibles", Role::ConvertibleShares, e.company.convertibles.size())}) {
      const auto most = static_cast<size_t>(read[list]);
      if (has <= most) continue;
      overfull_[role] =
          Figure::notMeaningful("the record has " + std::to_string(has) + " further ones and the model reads " +
                                std::to_string(most) + ": put those of like terms together");
    }
  }

  std::map<std::string, GivenFigure> take() { return std::move(givens_); }
  [[nodiscard]] bool standsOnAverage() const { return average_; }

 private:
  [[nodiscard]] Figure orOverfull(Role role, double count) const {
    const auto over = overfull_.find(role);
    return over == overfull_.end() ? Figure::of(count) : over->second;
  }

  static GivenFigure estimated(const model::EstimateTie& tie, const Market& market, int baseYear, Date valuation) {
    const int year = baseYear + tie.ahead;
    for (const Estimate& one : latestEstimates(market.estimates, valuation)) {
      if (one.item != tie.item || one.year != year) continue;
      return {Figure::of(one.mean), "analysts' mean of " + dateText(one.date) +
                                        (one.count > 0 ? ", " + std::to_string(one.count) + " of them" : "") +
                                        (one.source.empty() ? "" : ", " + one.source)};
    }
    return {Figure::absent("nobody estimates " + tie.item + " for " + std::to_string(year)), ""};
  }

  /// Nought where the list is shorter, and of what has expired.
  static Figure listed(const Company& c, const model::RecordTie& tie, const SpotRates& spots, Date valuation) {
    const auto at = static_cast<size_t>(tie.place - 1);
    if (tie.list == "option_tranches") {
      if (at >= c.optionTranches.size()) return Figure::of(0);
      const OptionTranche& t = c.optionTranches[at];
      if (tie.field == "count") return Figure::of(t.expiry && *t.expiry < valuation ? 0 : t.count);
      return strikeInListing(c, t, spots) * Figure::of(c.listing.sharesPerListed);
    }
    if (at >= c.convertibles.size()) return Figure::of(0);
    const Convertible& v = c.convertibles[at];
    if (tie.field == "face") return Figure::of(v.face);
    return Figure::of(v.due && *v.due < valuation ? 0 : v.shares);
  }

  const model::Model& model_;
  std::map<Role, Figure> overfull_;
  std::map<std::string, GivenFigure> givens_;
  bool average_ = false;  ///< the count of shares is one over the year
};

/// A count at a year's end is a balance; one over the year is its average.
bool isAverage(const LineCell& cell, const std::vector<Fact>& facts) {
  return !cell.parts.empty() && !facts[cell.parts.front().fact].period.isInstant();
}

}  // namespace

GivenChoices givenChoicesOf(const model::Model& m, const Case& c) {
  GivenChoices choices{c.valuationDate, c.price,       c.peers,    c.peerSet, {}, limitOf(c, "peer out of scale"),
                       c.parts,         basisOf(m, c), c.proposes, {}};
  for (const auto& [year, reason] : c.exceptional) choices.exceptional.insert(year);
  const auto set = c.peerSets.find(c.peerSet);
  if (set != c.peerSets.end()) choices.members = set->second;
  return choices;
}

CrossCheck comparePeers(const Ground& ground, const Market& market, const GivenChoices& c) {
  const model::Model& m = ground.compiled->model;
  const Company& company = ground.evidence->company;
  Subject subject;
  subject.id = company.id;
  subject.name = company.name;
  subject.scaleLimit = c.scaleLimit;
  subject.set = c.peerSet;
  subject.members = c.members;
  if (!c.members && c.peerSet.find(kOfAnother) != std::string::npos) {
    // A set that is not there any more has no members, and what was untold says why.
    const auto set = market.bookSets.find(c.peerSet);
    subject.members = set == market.bookSets.end() ? std::set<std::string>() : set->second;
  }
  subject.currency = company.currency;
  subject.target = ground.years().back().end;
  subject.basis = c.basis;
  subject.multiples = declaredMultiples(m);
  const model::RowId revenue = m.find(Role::Revenue);
  if (revenue.known())
    subject.revenue = ground.history->adjusted->at(revenue, static_cast<int>(ground.years().size()) - 1);
  return crossCheck(subject, market.peers, spotRatesAt(market.rates, c.valuationDate), c.peers);
}

const GivenFigure& givenOf(const model::Model& m, const std::map<std::string, GivenFigure>& givens, Role role) {
  static const GivenFigure kNone{Figure::absent("the model does not ask for it"), ""};
  const auto found = givens.find(m.nameOf(role));
  return found == givens.end() ? kNone : found->second;
}

MeasureBasis basisOf(const model::Model& m, const Case& c) {
  // A model without the choice stands where the choice stands by itself.
  const auto stands = [&](Role role, const char* option) {
    const model::Row* row = m.row(role);
    return row == nullptr || assumedInput(m, c, m.find(role)).valueOr(-1) == row->option(option);
  };
  return {stands(Role::Leases, "debt"), stands(Role::StockPay, "cost"),
          assumedInput(m, c, m.find(Role::ResearchLife)).valueOr(0) <= 0};
}

GivenFigures givenFigures(const Ground& ground, const Market& market, const GivenChoices& c) {
  GivenFigures given;
  const model::Model& m = ground.compiled->model;
  const Date base = ground.years().back().end;
  Giver giver(m);
  giver.price(market, ground.evidence->company.listing, c);
  giver.spot(*ground.evidence, market, c.valuationDate, c.proposes ? &ground.resources->placeholders : nullptr);
  const int last = static_cast<int>(ground.years().size()) - 1;
  const model::RowId shares = m.find(Role::Shares);
  giver.record(*ground.evidence, market, c.valuationDate,
               !shares.known() ? Figure::absent() : ground.history->adjusted->at(shares, last),
               shares.known() && isAverage(ground.filed->statements.at(m[shares].name, last), ground.evidence->facts));
  given.averageShares = giver.standsOnAverage();
  giver.calendar(base, c.valuationDate);
  given.crossCheck = comparePeers(ground, market, c);
  const std::vector<CutOfParts> cuts = cutsOfParts(ground, c.parts);
  setMixes(cuts, given.crossCheck.subject.regions, given.crossCheck.subject.businesses);
  giver.peers(given.crossCheck);
  giver.quoted(*ground.evidence, market, base, c.valuationDate);
  giver.regular(*ground.history->adjusted, ground.years(), c.exceptional);
  if (m.find(Role::PartsEnterpriseValue).known()) {
    giver.give(Role::PartsEnterpriseValue, sumOfParts(ground, cuts, c.parts).enterprise,
               "the parts as filed, of the year to " + dateText(base) + ", times the multiples chosen on Peers");
  }
  given.givens = giver.take();
  for (const auto& [row, figure] : given.givens) given.plain[row] = figure.figure;
  return given;
}

Prepared prepareOn(std::shared_ptr<const Ground> ground, std::shared_ptr<const Market> market,
                   std::shared_ptr<const GivenFigures> given, Case c) {
  Case assumptions = withProposals(std::move(c), *ground, *market, given->plain, given->crossCheck);
  return {std::move(ground), std::move(market), std::move(given), std::move(assumptions)};
}

Evaluated evaluateOn(Prepared p) {
  auto evaluation = std::make_shared<const Evaluation>(p.ground->compiled, p.ground->history->adjusted,
                                                       std::move(p.assumptions), p.given->plain);
  return {std::move(p.ground), std::move(p.market), std::move(p.given), std::move(evaluation)};
}

Evaluated evaluateOn(std::shared_ptr<const Ground> ground, std::shared_ptr<const Market> market, const Case& given) {
  // Peers stand on the basis that is proposed for the subject.
  Case c = withProposedInputs(given, *ground->resources, *ground->evidence, ground->filed->statements);
  auto figures =
      std::make_shared<const GivenFigures>(givenFigures(*ground, *market, givenChoicesOf(ground->compiled->model, c)));
  return evaluateOn(prepareOn(std::move(ground), std::move(market), std::move(figures), std::move(c)));
}

}  // namespace zl::services
