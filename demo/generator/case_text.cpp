#include "demo/generator/writers.h"

namespace demo {

std::string caseText() {
  return R"({
  "format": "zealous-ledger-case",
  "version": 1,
  "company": "vessingholt",
  "model": "standard",
  "horizon": 10,
  "valuation_date": "2026-04-30",
  "exceptional_years": [
    {"year": 2024, "reason": "Product recall: lost orders, rework and stock taken back"},
    {"year": 2025, "reason": "Plant closed and written down; working capital tied up in recalled machines"}
  ],
  "scenarios": [
    {"id": "worst", "label": "Worst", "probability": 0.25,
     "drivers": {
       "revenue_growth": {"path": {"shape": "typed", "typed": [-0.02, 0.01, 0.02, 0.025, 0.025, 0.02, 0.02, 0.02, 0.018, 0.015]},
                          "said": {"reason": "Customers lost in the recall do not come back before 2028", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "cost_of_sales_ratio": {"path": {"shape": "glide", "level": 0.579, "to": 5},
                               "said": {"reason": "Half of the way back to the margin before the recall", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "operating_expense_ratio": {"path": {"shape": "glide", "level": 0.303, "to": 5},
                                   "said": {"reason": "Quality costs stay", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "inventory_days": {"path": {"shape": "glide", "level": 126, "to": 5},
                          "said": {"reason": "Recalled stock sells slowly", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "exceptional_ratio": {"path": {"shape": "typed", "typed": [0.02, 0.01, 0]},
                             "said": {"reason": "Second round of closure cost", "author": "demo", "at": "2026-04-30T09:00:00Z"}}
     },
     "inputs": {
       "terminal_growth": {"figure": 0.015, "said": {"reason": "Below inflation: mature end market", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "exit_multiple": {"figure": 6.5, "said": {"reason": "A quarter under the peers' lower quartile of 8.8: growth has gone by then", "author": "demo", "at": "2026-04-30T09:00:00Z"}}
     }},
    {"id": "base", "label": "Base", "probability": 0.5,
     "drivers": {
       "revenue_growth": {"path": {"shape": "typed", "typed": [0.01, 0.035, 0.05, 0.045, 0.04, 0.035, 0.03, 0.028, 0.025, 0.022]},
                          "said": {"reason": "Backlog covers a third of the year; recovery to the growth before the boom, then towards the economy's", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "cost_of_sales_ratio": {"path": {"shape": "glide", "level": 0.566, "to": 4},
                               "said": {"reason": "Median of the years without 2024 and 2025 is 56 %; the closed plant was the dearest", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "operating_expense_ratio": {"path": {"shape": "glide", "level": 0.297, "to": 4},
                                   "said": {"reason": "Back to the level of 2018 to 2023", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "exceptional_ratio": {"path": {"shape": "typed", "typed": [0.01, 0.004, 0]},
                             "said": {"reason": "Announced cost of the closure still to be paid", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "tax_rate": {"path": {"shape": "hold", "level": 0.25},
                    "said": {"reason": "Marginal rate; the last year's rate comes from a loss", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "capex_ratio": {"path": {"shape": "glide", "level": 0.052, "to": 3},
                       "said": {"reason": "Upkeep at the new plants: between the years before the boom and the boom", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "receivable_days": {"path": {"shape": "glide", "level": 61, "to": 3},
                           "said": {"reason": "Disputed invoices from the recall settle by 2028", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "inventory_days": {"path": {"shape": "glide", "level": 112, "to": 4},
                          "said": {"reason": "Near 2023; the recalled machines are rebuilt and sold", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "payable_days": {"path": {"shape": "glide", "level": 48, "to": 3},
                        "said": {"reason": "Suppliers' terms ease once the squeeze is over", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "payout": {"path": {"shape": "hold", "level": 0.4},
                  "said": {"reason": "Stated policy", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "minority_share": {"path": {"shape": "hold", "level": 0.028},
                          "said": {"reason": "Unchanged for twelve years", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "minimum_cash_ratio": {"path": {"shape": "hold", "level": 0.02},
                              "said": {"reason": "About a week of sales", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "risk_free": {"path": {"shape": "hold", "level": 0.028},
                     "said": {"reason": "risk-free EUR of 2026-04-30 in the rate table", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "equity_premium": {"path": {"shape": "hold", "level": 0.05},
                          "said": {"reason": "equity premium EUR of 2026-04-30 in the rate table", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "country_premium": {"path": {"shape": "hold", "level": 0.012},
                           "said": {"reason": "country premium of sales in the rate table", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "country_exposure": {"path": {"shape": "hold", "level": 0.2},
                            "said": {"reason": "A fifth of sales is made in the countries concerned", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "beta": {"path": {"shape": "hold", "level": 1.15},
                "said": {"reason": "Cyclical capital goods with some debt", "author": "demo", "at": "2026-04-30T09:00:00Z"}}
     },
     "inputs": {
       "terminal_growth": {"figure": 0.02, "said": {"reason": "inflation EUR in the rate table; no real growth", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "exit_multiple": {"figure": 7.5, "said": {"reason": "About what the perpetuity implies; the peers' median of 10.3 pays for growth that has faded by then", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "marginal_tax": {"figure": 0.25, "said": {"reason": "Statutory rate of the home country", "author": "demo", "at": "2026-04-30T09:00:00Z"}}
     }},
    {"id": "best", "label": "Best", "probability": 0.25,
     "drivers": {
       "revenue_growth": {"path": {"shape": "typed", "typed": [0.03, 0.06, 0.07, 0.06, 0.05, 0.045, 0.04, 0.035, 0.03, 0.025]},
                          "said": {"reason": "The recall ends early and the new plants fill", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "cost_of_sales_ratio": {"path": {"shape": "glide", "level": 0.557, "to": 4},
                               "said": {"reason": "Margin of the boom years", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
       "operating_expense_ratio": {"path": {"shape": "glide", "level": 0.289, "to": 4},
                                   "said": {"reason": "Scale of the boom years", "author": "demo", "at": "2026-04-30T09:00:00Z"}}
     },
     "inputs": {
       "exit_multiple": {"figure": 8.5, "said": {"reason": "Just under the peers' lower quartile of 8.8", "author": "demo", "at": "2026-04-30T09:00:00Z"}}
     }}
  ],
  "peers": {
    "brackenfeld/price-earnings": {"in": false, "reason": "Net income of 2025 holds a one-off gain"},
    "quillhaven/ev-ebitda": {"in": false, "reason": "Far larger; another market"},
    "quillhaven/price-earnings": {"in": false, "reason": "Far larger; another market"}
  },
  "parts": [
    {"part": "ifrs-full:SegmentsAxis/vsh:MachinesMember", "of": "revenue", "multiple": 0.62,
     "said": {"reason": "Profit holds the closure; peers that sell machines alone are at 0.6 to 0.8 of sales", "author": "demo", "at": "2026-04-30T09:00:00Z"}},
    {"part": "ifrs-full:SegmentsAxis/vsh:ServiceAndPartsMember", "of": "ebit", "multiple": 9.5,
     "said": {"reason": "Recurring, at a margin of 17 %; half a turn above the peers that sell machines", "author": "demo", "at": "2026-04-30T09:00:00Z"}}
  ],
  "notes": {}
}
)";
}

}  // namespace demo
