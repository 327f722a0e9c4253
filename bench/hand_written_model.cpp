#include "bench/hand_written_model.h"

#include <algorithm>
#include <cmath>

namespace zl::bench {

double valuePerShare(const Start& s, const Trial& t) {
  const double strikeShares = s.price > 0 ? s.options * std::max(0.0, 1 - s.option_strike / s.price) : 0;
  const double converts = s.price * s.convertible_shares > s.convertible_face * s.quote_rate ? 1 : 0;
  const double diluted = s.shares_now + strikeShares + s.unvested_shares + converts * s.convertible_shares;
  const double marketEquity = s.price / s.quote_rate * diluted;
  const double debt0 = s.borrowings_current + s.borrowings_long;
  const double claims = debt0 + s.lease_liabilities - converts * s.convertible_face;
  const double all = marketEquity + claims + s.preferred;
  const double debtWeight = t.use_target_weights == 1 ? t.target_debt_weight : claims / all;
  const double preferredWeight = t.use_target_weights == 1 ? 0 : s.preferred / all;
  const double equityWeight = 1 - debtWeight - preferredWeight;

  double revenue = s.revenue, cash = s.cash, debtA = s.borrowings_current, debtB = s.borrowings_long, revolver = 0;
  double leases = s.lease_liabilities, plant = s.plant, rightOfUse = s.right_of_use, intangibles = s.intangibles;
  double goodwill = s.goodwill, losses = s.tax_losses, operatingLosses = s.tax_losses, minorities = s.minorities;
  double equity = s.equity;
  double trade = s.receivables + s.inventory + s.other_current_assets - s.payables - s.other_current_liabilities;
  double operating = trade + t.operating_cash_share * s.revenue;
  const double other = s.other_noncurrent_assets - s.other_noncurrent_liabilities - s.pension_deficit * t.marginal_tax;
  double capital = operating + plant + rightOfUse + intangibles + goodwill + other;
  double explicitValue = 0, factorEnd = 1, wacc = 0, nopat = 0, fcff = 0, ebitda = 0, roic = 0, since = 0;

  for (int y = 0; y < kYears; ++y) {
    revenue *= 1 + t.revenue_growth[y];
    const double cost = revenue * t.cost_of_sales_ratio[y];
    ebitda = revenue - cost - revenue * t.operating_expense_ratio[y];
    const double wear = t.depreciation_rate[y];
    const double depreciation = wear * (plant + rightOfUse + intangibles);
    const double ebit = ebitda - depreciation - revenue * t.exceptional_ratio[y];
    const double otherIncome = revenue * t.other_income_ratio[y];
    const double stockPay = revenue * t.stock_pay_ratio[y];
    const double capex = revenue * t.capex_ratio[y];
    const double newLeases = revenue * t.new_lease_ratio[y];
    const double acquisitions = revenue * t.acquisition_ratio[y];
    const double receivables = t.receivable_days[y] * revenue / 365;
    const double inventory = t.inventory_days[y] * cost / 365;
    const double payables = t.payable_days[y] * cost / 365;
    const double tradeNow = receivables + inventory + t.other_current_asset_ratio[y] * revenue - payables -
                            t.other_current_liability_ratio[y] * revenue;
    const double debtANow = debtA * (1 + t.debt_growth[y]);
    const double debtBNow = debtB * (1 + t.debt_growth[y]);
    const double leasePrincipal = t.lease_repayment_rate[y] * leases;
    const double leasesNow = leases + newLeases - leasePrincipal;
    const double preferredDividends = t.preferred_rate[y] * s.preferred;
    const double fixedClaims = debtANow + debtBNow + leasesNow;
    const double before = debtA + debtB + revolver + leases;

    double cashNow = 0, revolverNow = 0, interest = 0, income = 0, used = 0, pretax = 0, minorityIncome = 0;
    double minorityDividends = 0, common = 0, dividends = 0, buybacks = 0;
    for (int round = 0; round < 200; ++round) {
      interest = t.borrowing_rate[y] * (before + fixedClaims + revolverNow) * 0.5;
      income = t.cash_yield[y] * (cash + cashNow) * 0.5;
      pretax = ebit - interest + income + otherIncome;
      used = std::min(losses, t.loss_limit * std::max(0.0, pretax));
      const double tax = t.tax_rate[y] * (std::max(0.0, pretax) - used);
      const double net = pretax - tax;
      minorityIncome = net * t.minority_share[y];
      common = net - minorityIncome - preferredDividends;
      dividends = t.payout[y] * std::max(0.0, common);
      minorityDividends = t.payout[y] * std::max(0.0, minorityIncome);
      buybacks = t.buyback_payout[y] * std::max(0.0, common);
      const double operatingFlow = net + depreciation + stockPay - (tradeNow - trade);
      const double loose = cash + operatingFlow - capex - acquisitions + debtANow + debtBNow - debtA - debtB -
                           leasePrincipal - dividends - minorityDividends - preferredDividends - buybacks;
      const double draw = std::max(0.0, revolver + t.minimum_cash_ratio[y] * revenue - loose);
      const double next = loose + draw - revolver;
      const double scale = std::max({std::fabs(next), std::fabs(draw), std::fabs(loose)});
      const bool settled = std::fabs(next - cashNow) <= 1e-10 * scale && std::fabs(draw - revolverNow) <= 1e-10 * scale;
      cashNow = next;
      revolverNow = draw;
      if (settled) break;
    }
    const double operatingUsed = std::min(operatingLosses, t.loss_limit * std::max(0.0, ebit));
    nopat = ebit - t.tax_rate[y] * (std::max(0.0, ebit) - operatingUsed);
    operatingLosses += std::max(0.0, -ebit) - operatingUsed;
    losses += std::max(0.0, -pretax) - used;
    const double operatingNow = tradeNow + t.operating_cash_share * revenue;
    fcff = nopat + depreciation - capex - newLeases - (operatingNow - operating) - acquisitions;
    plant = plant * (1 - wear) + capex * (1 - t.intangible_share[y]);
    rightOfUse = rightOfUse * (1 - wear) + newLeases;
    intangibles = intangibles * (1 - wear) + capex * t.intangible_share[y];
    goodwill += acquisitions;
    equity += common - dividends - buybacks + stockPay;
    minorities += minorityIncome - minorityDividends;
    const double capitalNow = operatingNow + plant + rightOfUse + intangibles + goodwill + other;
    roic = nopat / ((capital + capitalNow) * 0.5);
    capital = capitalNow;

    const double costOfEquity = t.risk_free[y] + t.beta[y] * t.equity_premium[y] +
                                t.country_exposure[y] * t.country_premium[y] + t.size_addition[y];
    wacc = costOfEquity * equityWeight + t.cost_of_debt[y] * (1 - t.marginal_tax) * debtWeight +
           t.cost_of_preferred * preferredWeight;
    const double span = y == 0 ? s.stub : 1;
    const double middle = factorEnd / std::pow(1 + wacc, span / 2);
    factorEnd /= std::pow(1 + wacc, span);
    explicitValue += fcff * (y == 0 ? s.stub : 1) * (t.mid_year == 1 ? middle : factorEnd);
    if (y == 0) {
      since =
          (1 - s.stub) * (fcff - (interest - income) * (1 - t.marginal_tax) - preferredDividends - minorityDividends) -
          t.distributions_since;
    }
    cash = cashNow;
    revolver = revolverNow;
    debtA = debtANow;
    debtB = debtBNow;
    leases = leasesNow;
    trade = tradeNow;
    operating = operatingNow;
  }
  const double g = t.terminal_growth;
  if (!(wacc - g >= 1e-9)) return std::nan("");
  const double onNew = wacc + t.return_weight * (t.return_weight > 0 ? roic - wacc : 0);
  const double flow = t.terminal_rule == 1 ? fcff * (1 + g) : nopat * (1 + g) * (1 - g / onNew);
  const double shift = t.mid_year == 1 ? std::sqrt(1 + wacc) : 1;
  const double perpetuity = flow / (wacc - g) * shift * factorEnd;
  const double exit = t.exit_multiple * ebitda * factorEnd;
  const double enterprise = explicitValue + (t.terminal_choice == 1 ? exit : perpetuity);
  const double netDebt = debt0 + s.lease_liabilities - (s.cash - t.operating_cash_share * s.revenue) - since -
                         converts * s.convertible_face;
  const double equityValue =
      enterprise - netDebt + s.associates - s.pension_deficit * (1 - t.marginal_tax) - s.minorities - s.preferred;
  return std::max(0.0, equityValue / diluted * s.quote_rate);
}

}  // namespace zl::bench
