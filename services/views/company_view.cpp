#include "services/views/company_view.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace zl::services {
namespace {

std::vector<Figure> figuresOf(const Snapshot& s, const SegmentRow& row) {
  std::vector<Figure> list;
  for (const std::optional<size_t>& fact : row.facts) {
    list.push_back(fact ? s.evidence->facts[*fact].figure() : Figure::absent("not filed by part"));
  }
  return list;
}

/// Parts with a revenue in both years and a profit in both: what a margin change can be made of.
MarginChange changeOf(const SegmentView& view, size_t year) {
  std::vector<PartYear> before, now;
  for (size_t m = 0; m < view.members.size(); ++m) {
    before.push_back({view.revenue[m][year - 1], view.profit[m][year - 1]});
    now.push_back({view.revenue[m][year], view.profit[m][year]});
  }
  return marginChange(before, now);
}

}  // namespace

std::vector<SegmentView> segmentViews(const Snapshot& s) {
  std::map<std::string, SegmentView> views;
  const auto isMoney = [&](const SegmentRow& row) { return row.unit == s.company().currency; };
  for (const SegmentRow& row : s.review->segments) {
    if (row.line != s.model().nameOf(model::Role::Revenue) || !isMoney(row)) continue;
    SegmentView& view = views[row.axis];
    view.axis = plainMember(row.axis);
    view.members.push_back(row.member);
    view.revenue.push_back(figuresOf(s, row));
    view.profit.emplace_back(s.years().size(), Figure::absent("no profit is filed by part"));
    view.revenueFacts.push_back(row.facts);
    view.profitFacts.emplace_back(s.years().size());
  }
  for (const SegmentRow& row : s.review->segments) {
    const auto found = views.find(row.axis);
    if (row.line != s.model().nameOf(model::Role::Ebit) || !isMoney(row) || found == views.end()) continue;
    SegmentView& view = found->second;
    const auto member = std::find(view.members.begin(), view.members.end(), row.member);
    if (member == view.members.end()) continue;
    const auto at = static_cast<size_t>(member - view.members.begin());
    view.profit[at] = figuresOf(s, row);
    view.profitFacts[at] = row.facts;
  }
  std::vector<SegmentView> list;
  for (auto& [axis, view] : views) {
    const Figure none = Figure::absent("there is no earlier year");
    view.change.push_back({none, none, none});
    for (size_t year = 1; year < s.years().size(); ++year) view.change.push_back(changeOf(view, year));
    for (size_t m = 0; m < view.members.size(); ++m) {
      view.margin.emplace_back();
      for (size_t year = 0; year < s.years().size(); ++year)
        view.margin[m].push_back(view.profit[m][year] / view.revenue[m][year]);
      view.members[m] = calledPart(s.company(), view.members[m]);
    }
    list.push_back(std::move(view));
  }
  // The cut that has profits says the most and comes first.
  std::stable_sort(list.begin(), list.end(), [](const SegmentView& a, const SegmentView& b) {
    return a.profit.front().back().hasValue() && !b.profit.front().back().hasValue();
  });
  return list;
}

std::vector<Figure> revenueOfRest(const SegmentView& view, size_t from) {
  std::vector<Figure> rest;
  for (size_t year = 0; year < view.revenue.at(from).size(); ++year) {
    Figure sum = Figure::absent("not filed by part");
    for (size_t m = from; m < view.revenue.size(); ++m) {
      const Figure& part = view.revenue[m][year];
      if (part.hasValue()) sum = sum.hasValue() ? sum + part : part;
    }
    rest.push_back(sum);
  }
  return rest;
}

MarketView marketView(const Snapshot& s) {
  const Evaluation& e = *s.evaluation;
  const int lane = s.caseOf().indexOf(kBase);
  const int base = e.layout().baseColumn();
  const auto filed = [&](model::Role role) { return e.figure(role, base, lane); };
  const auto over = [](const Figure& part, const Figure& whole, const char* why) {
    return whole.hasValue() && whole.value() <= 0 ? Figure::notMeaningful(why) : part / whole;
  };
  MarketView view;
  view.price = summarise(s.market->prices, s.caseOf().valuationDate);
  view.marketEquity = e.constant(model::Role::MarketEquity, lane);
  view.enterpriseValue = view.marketEquity + e.constant(model::Role::Claims, lane);
  view.priceToEarnings = over(view.marketEquity, filed(model::Role::OwnersProfit), "net income is not positive");
  view.priceToBook = over(view.marketEquity, filed(model::Role::Equity), "equity is not positive");
  view.evToEbitda = over(view.enterpriseValue, filed(model::Role::BasisEbitda), "EBITDA is not positive");
  view.evToRevenue = over(view.enterpriseValue, filed(model::Role::Revenue), "revenue is not positive");
  view.earningsYield = over(filed(model::Role::OwnersProfit), view.marketEquity, "there is no market value");
  view.freeCashYield = over(filed(model::Role::SimpleFreeCash), view.marketEquity, "there is no market value");
  view.dividendYield = over(filed(model::Role::Dividends), view.marketEquity, "there is no market value");
  return view;
}

std::string peerIdentity(const Company& company, const PeerRow& peer) {
  const auto is = std::find_if(company.peerIdentities.begin(), company.peerIdentities.end(),
                               [&](const PeerIdentity& i) { return i.peer == peer.id || i.peer == peer.name; });
  if (is == company.peerIdentities.end()) return {};
  std::string words;
  for (const std::string& part : {is->called, is->business, is->country, is->identifier}) {
    if (!part.empty()) words += (words.empty() ? "" : ", ") + part;
  }
  return words;
}

std::vector<Figure> organicGrowth(const Snapshot& s) {
  const model::RowId revenue = s.model().find(model::Role::Revenue);
  if (!revenue.known()) return std::vector<Figure>(s.years().size(), Figure::absent("the model has no revenue"));
  const std::vector<double> acquired = acquiredRevenue(s.company().deals, s.years());
  std::vector<Figure> list{Figure::absent("there is no earlier year")};
  for (int c = 1; c < static_cast<int>(s.years().size()); ++c) {
    list.push_back(
        zl::organicGrowth(s.asFiled->at(revenue, c - 1), s.asFiled->at(revenue, c), acquired[static_cast<size_t>(c)]));
  }
  return list;
}

Figure returnOnDeal(const Deal& deal) {
  if (deal.price <= 0) return Figure::notMeaningful("a business sold earns nothing here");
  return Figure::of(deal.profit / deal.price);
}

DueView debtDue(const Snapshot& s) {
  std::map<int, std::pair<double, double>> sums;
  for (const DebtDue& due : s.evidence->debtDue) {
    (due.floating ? sums[due.year].second : sums[due.year].first) += due.amount;
  }
  DueView view;
  for (const auto& [year, amounts] : sums) {
    view.years.push_back(year);
    view.fixed.push_back(Figure::of(amounts.first));
    view.floating.push_back(Figure::of(amounts.second));
  }
  return view;
}

double largestAmount(const Snapshot& s) {
  const Evaluation& e = *s.evaluation;
  double largest = 0;
  for (const std::string& statement : e.model().statements) {
    for (size_t r = 0; r < e.model().rows.size(); ++r) {
      const model::Row& row = e.model().rows[r];
      if (row.kind != Kind::Money || row.group != statement || row.timing == model::Timing::Constant) continue;
      for (int c = 0; c < e.layout().columns(); ++c) {
        const int lanes = c < e.layout().historyYears ? 1 : e.scenarios();
        for (int lane = 0; lane < lanes; ++lane)
          largest = std::max(largest, std::fabs(e.figure(model::RowId(r), c, lane).valueOr(0)));
      }
    }
  }
  return largest;
}

}  // namespace zl::services
