#include "services/views/capital_view.h"

#include <algorithm>

#include "core/quantity/number_text.h"
#include "services/views/company_view.h"
#include "services/views/probing.h"

namespace zl::services {
namespace {

using model::Role;

/// The scenario's figure of a driver in the first forecast year.
Figure standing(const Snapshot& s, model::RowId row, int scenario) {
  return s.evaluation->figure(row, s.evaluation->layout().historyYears, scenario);
}

Rival rival(std::string label, Figure figure, std::string source) {
  return {std::move(label), std::move(figure), std::move(source), {}, false};
}

std::optional<MarketRate> bookRate(const Snapshot& s, const std::string& name) {
  return rateAt(s.market->rates, name, s.caseOf().valuationDate);
}

std::string sourceOf(const MarketRate& rate) {
  return dateText(rate.date) + (rate.source.empty() ? "" : ", " + rate.source);
}

void addBookRate(const Snapshot& s, const std::string& name, const std::string& label, std::vector<Rival>& rivals) {
  const std::optional<MarketRate> rate = bookRate(s, name);
  rivals.push_back(rate ? rival(label, Figure::of(rate->figure), sourceOf(*rate))
                        : rival(label, Figure::absent("the book has no rate called '" + name + "'"), ""));
}

void addPlaceholder(const Snapshot& s, const char* name, std::vector<Rival>& rivals) {
  const Placeholders& round = s.resources->placeholders;
  if (const std::optional<double> figure = round.rate(s.company().currency, name))
    rivals.push_back(rival("round figure", Figure::of(*figure), round.source()));
}

/// Risk-free rates of other currencies by the difference of inflation; real ones by the inflation alone.
void addForeignRates(const Snapshot& s, std::vector<Rival>& rivals) {
  const std::string beginning = "risk-free ";
  const std::string home = s.company().currency;
  const std::optional<MarketRate> inflation = bookRate(s, "inflation " + home);
  std::vector<std::string> seen;
  for (const MarketRate& rate : s.market->rates) {
    if (rate.name.rfind(beginning, 0) != 0) continue;
    std::string currency = rate.name.substr(beginning.size());
    const bool real = currency.size() > 5 && currency.ends_with(" real");
    if (real) currency.resize(currency.size() - 5);
    if ((currency == home && !real) || std::find(seen.begin(), seen.end(), rate.name) != seen.end()) continue;
    seen.push_back(rate.name);
    const std::optional<MarketRate> latest = bookRate(s, rate.name);
    if (!latest) continue;
    const std::optional<MarketRate> there =
        real ? std::optional(MarketRate{"", latest->date, 0, ""}) : bookRate(s, "inflation " + currency);
    Figure figure =
        Figure::absent("a rate of " + rate.name.substr(beginning.size()) + " cannot stand for one of " + home +
                       " without both currencies' inflation: give 'inflation " + (there ? home : currency) + "'");
    if (there && inflation)
      figure = inCurrency(Figure::of(latest->figure), Figure::of(there->figure), Figure::of(inflation->figure));
    rivals.push_back(
        rival(rate.name + (real ? ", with inflation" : ", by difference of inflation"), figure, sourceOf(*latest)));
  }
}

std::vector<Rival> rivalsOfRiskFree(const Snapshot& s) {
  std::vector<Rival> rivals;
  addBookRate(s, "risk-free " + s.company().currency, "rate of the book", rivals);
  addForeignRates(s, rivals);
  addPlaceholder(s, "risk-free", rivals);
  return rivals;
}

std::vector<Rival> rivalsOfPremium(const Snapshot& s) {
  std::vector<Rival> rivals;
  addBookRate(s, "equity premium " + s.company().currency, "rate of the book", rivals);
  addPlaceholder(s, "equity premium", rivals);
  return rivals;
}

std::vector<Rival> rivalsOfCountry(const Snapshot& s) {
  std::vector<Rival> rivals;
  const CountryPremium sales = premiumOfSales(s);
  std::string parts;
  for (const RegionPremium& r : sales.regions) {
    parts += (parts.empty() ? "" : ", ") + r.region + " " +
             (r.premium.hasValue() ? figureText(r.premium, Kind::Ratio) + " %" : "not in the table");
  }
  rivals.push_back(rival("weighted by sales by region", sales.premium, parts));
  addBookRate(s, "country premium of sales", "rate of the book", rivals);
  return rivals;
}

/// Beta as it stands in the rate: with debt, or without where it is relevered.
std::vector<Rival> rivalsOfBeta(const Snapshot& s, const BetaSettings& settings, int scenario, bool withoutDebt) {
  std::vector<Rival> rivals;
  const OwnBeta own = ownBeta(s, settings);
  const std::string how =
      own.index.empty() ? "" : betaWords(settings, own.index, own.to) + ", n " + std::to_string(own.fit.n);
  const PeerBetas peers = peerBetas(s, settings, scenario);
  const std::string of = "median of " + std::to_string(peers.count) + (peers.count == 1 ? " peer" : " peers");
  const Leverage rule{s.evaluation->constant(Role::MarginalTax, scenario)};
  const auto add = [&](const char* label, const Figure& levered, const std::string& source) {
    rivals.push_back(
        rival(label, withoutDebt ? unlevered(levered, peers.debtToEquity, Figure::of(1), Figure::of(0), rule) : levered,
              source));
  };
  add("own regression", own.fit.beta, how);
  add("own regression, adjusted", own.fit.adjusted, how);
  if (withoutDebt) {
    rivals.push_back(rival("peers, without debt", peers.median, of));
  } else {
    rivals.push_back(rival("peers, relevered", peers.relevered, of));
  }
  for (const std::string& name : {s.company().id, s.company().name}) {
    if (const auto typed = bookRate(s, "beta " + name))
      add("rate of the book", Figure::of(typed->figure), sourceOf(*typed));
  }
  return rivals;
}

/// Of the last filed year that has one.
Figure coverOf(const Snapshot& s, int column) {
  const model::RowId expense = s.model().find(Role::InterestExpense), ebit = s.model().find(Role::Ebit);
  if (!expense.known() || !ebit.known()) return Figure::absent("the model means no EBIT or interest");
  const Figure interest = s.history->at(expense, column);
  if (interest.hasValue() && interest.value() <= 0) return Figure::notMeaningful("no interest");
  return s.history->at(ebit, column) / interest;
}

std::vector<Rival> rivalsOfDebt(const Snapshot& s, int scenario) {
  std::vector<Rival> rivals;
  const model::RowId row = s.model().find(Role::CostOfDebt);
  const int last = static_cast<int>(s.years().size()) - 1;
  const auto year = [&](int column) { return std::to_string(s.years()[static_cast<size_t>(column)].label()); };
  rivals.push_back(rival("interest over average debt, " + year(last), s.history->at(row, last), "as filed"));
  if (last > 0)
    rivals.push_back(rival("interest over average debt, " + year(last - 1), s.history->at(row, last - 1), "as filed"));
  const Figure cover = coverOf(s, last);
  const SpreadFound spread = spreadFor(cover, spreadsAt(s.market->rates, s.caseOf().valuationDate));
  const Figure free = s.evaluation->figure(Role::RiskFree, s.evaluation->layout().historyYears, scenario);
  rivals.push_back(rival("synthetic, from interest cover", spread.spread + free,
                         spread.spread.hasValue() ? "cover " + figureText(cover, Kind::Multiple) + ", spread " +
                                                        figureText(spread.spread, Kind::Ratio) + " % (" +
                                                        spread.source + ") over the risk-free rate"
                                                  : ""));
  rivals.push_back(
      rival("by tranche of the record", rateOfTranches(s), rateOfTranches(s).hasValue() ? "weighted by amount" : ""));
  addBookRate(s, "high-grade corporate yield " + s.company().currency, "high-grade corporate yield", rivals);
  return rivals;
}

}  // namespace

CountryPremium premiumOfSales(const Snapshot& s) {
  CountryPremium best;
  const int last = static_cast<int>(s.years().size()) - 1;
  // Which cut of the company is one by region the table itself tells: the one that has most sales in it.
  double most = -1;
  for (const SegmentView& view : segmentViews(s)) {
    std::vector<std::pair<std::string, double>> sales;
    for (size_t m = 0; m < view.members.size(); ++m) {
      const Figure& sold = view.revenue[m][static_cast<size_t>(last)];
      if (sold.hasValue() && sold.value() > 0) sales.emplace_back(view.members[m], sold.value());
    }
    CountryPremium found = countryPremium(sales, s.market->rates, s.caseOf().valuationDate);
    double mapped = 0;
    for (const RegionPremium& r : found.regions) mapped += r.premium.hasValue() ? r.sales : 0;
    if (mapped <= most) continue;
    most = mapped;
    best = std::move(found);
  }
  if (most < 0) best = countryPremium({}, s.market->rates, s.caseOf().valuationDate);
  return best;
}

Figure rateOfTranches(const Snapshot& s) {
  double amount = 0, interest = 0;
  for (const DebtDue& due : s.company().debtDue) {
    if (!due.rate) continue;
    amount += due.amount;
    interest += due.amount * *due.rate;
  }
  return amount > 0 ? Figure::of(interest / amount) : Figure::absent("the record gives no rate of a borrowing");
}

std::vector<PartRivals> rivalsOf(const Snapshot& s, const BetaSettings& settings, int scenario) {
  std::vector<PartRivals> parts;
  if (!s.model().find(Role::ValueBeforeFloor).known()) return parts;
  const auto add = [&](Role role, const auto& rivals) {
    if (s.model().find(role).known()) parts.push_back({s.model().find(role), rivals()});
  };
  add(Role::RiskFree, [&] { return rivalsOfRiskFree(s); });
  add(Role::Beta, [&] { return rivalsOfBeta(s, settings, scenario, false); });
  add(Role::UnleveredBeta, [&] { return rivalsOfBeta(s, settings, scenario, true); });
  add(Role::EquityPremium, [&] { return rivalsOfPremium(s); });
  add(Role::CountryPremium, [&] { return rivalsOfCountry(s); });
  add(Role::CostOfDebt, [&] { return rivalsOfDebt(s, scenario); });

  std::vector<Variant> variants;
  const auto years = static_cast<size_t>(s.caseOf().horizon);
  for (PartRivals& part : parts) {
    const Figure now = standing(s, part.row, scenario);
    Rival stands = rival("as it stands, first year", now, "");
    if (const Assumption* a =
            s.caseOf().driver(s.caseOf().scenarios[static_cast<size_t>(scenario)], s.model()[part.row].name))
      stands.source = a->said.reason;
    stands.stands = true;
    std::stable_partition(part.rivals.begin(), part.rivals.end(), [](const Rival& r) { return r.figure.hasValue(); });
    part.rivals.insert(part.rivals.begin(), std::move(stands));
    for (const Rival& r : part.rivals) {
      Variant variant;
      if (!r.stands && r.figure.hasValue()) variant[part.row] = std::vector<Figure>(years, r.figure);
      variants.push_back(std::move(variant));
    }
  }
  const std::vector<Figure> values = probeScenario(s, scenario, variants, s.model().find(Role::ValueBeforeFloor));
  size_t at = 0;
  for (PartRivals& part : parts) {
    for (Rival& r : part.rivals) {
      r.value = r.figure.hasValue() || r.stands ? values[at] : Figure::absent(r.figure.reason());
      ++at;
    }
  }
  return parts;
}

CaseEdit adopt(const Snapshot& s, model::RowId row, const Rival& rival, int scenario, Provenance said) {
  Path path;
  path.level = rival.figure.value();
  said.reason = rival.label + (rival.source.empty() ? "" : ": " + rival.source);
  CaseEdit edit = setDriver(s.caseOf(), s.model(), s.caseOf().scenarios[static_cast<size_t>(scenario)].id,
                            s.model()[row].name, path, said);
  edit.label = "Adopt for " + s.model()[row].label + ": " + rival.label;
  return edit;
}

HurdleValues valuesAtHurdle(const Snapshot& s, int scenario) {
  HurdleValues all;
  const auto& rows = s.model().view("hurdle");
  if (rows.empty()) return all;
  const model::Row& choice = s.model()[rows.front().row];
  std::vector<Variant> variants;
  for (const model::Option& option : choice.options)
    variants.push_back({{rows.front().row, {Figure::of(choice.option(option.name))}}});
  for (const model::Method& method : s.model().methods) {
    if (method.whose == model::Method::Flow::None) continue;
    all.methods.push_back(method.label);
    all.values.push_back(probeScenario(s, scenario, variants, method.value));
  }
  return all;
}

std::vector<double> impliedCostOfEquity(const Snapshot& s, int scenario) {
  const auto method = std::find_if(s.model().methods.begin(), s.model().methods.end(),
                                   [](const model::Method& m) { return m.whose == model::Method::Flow::Shareholders; });
  const Figure price = s.given(Role::Price).figure;
  const auto& hurdle = s.model().view("hurdle");
  if (method == s.model().methods.end() || !price.hasValue() || hurdle.size() < 2) return {};
  constexpr double kLowest = 0.001, kHighest = 0.5;
  const model::RowId choice = hurdle[0].row, rate = hurdle[1].row;
  const Figure equity = Figure::of(s.model()[choice].option("equity"));
  return solveScenario(s, scenario, method->value, price.value(), kLowest, kHighest, [&](double k) {
    return Variant{{choice, {equity}}, {rate, {Figure::of(k)}}};
  });
}

}  // namespace zl::services
