#include "services/builds.h"

#include <fmt/core.h>

#include <algorithm>
#include <set>

#include "core/quantity/number_text.h"
#include "services/label_word.h"

namespace zl::services {
namespace {

/// Text that can stand in quotation marks.
std::string quotable(std::string text) {
  std::replace(text.begin(), text.end(), '"', '\'');
  return text;
}

/// Makes words of labels, none of them twice or taken by the model.
class Names {
 public:
  explicit Names(const model::Model& m) : model_(m) {}

  std::string of(const std::string& before, const std::string& label) {
    constexpr size_t kLongest = 50;  // more is set before and after, and people read them
    std::string word = labelWord(label).substr(0, kLongest);
    while (!word.empty() && word.back() == '_') word.pop_back();
    if (word.empty()) word = "part";
    std::string free = before + word;
    for (int n = 2; model_.find(free) >= 0 || taken_.count(free) > 0; ++n) {
      free = before + word + "_" + std::to_string(n);
    }
    taken_.insert(free);
    return free;
  }

 private:
  const model::Model& model_;
  std::set<std::string> taken_;
};

bool isDriver(const model::Model& m, const char* row) {
  const int index = m.find(row);
  return index >= 0 && m.rows[static_cast<size_t>(index)].role == model::Role::Driver;
}

/// Whether an own row amends it already.
bool isAmended(const model::Model& m, const char* row) {
  const int index = m.find(row);
  return index >= 0 && isOwnRow(m, m.rows[static_cast<size_t>(index)]);
}

struct Part {
  std::string label;
  const SegmentRow* revenue = nullptr;
  const SegmentRow* profit = nullptr;
};

/// Parts along an axis whose revenue is filed for the base year, in the company's currency.
std::vector<Part> partsAlong(const Snapshot& s, const std::string& axis) {
  std::vector<Part> parts;
  for (const SegmentRow& row : s.review->segments) {
    const bool counts =
        row.axis == axis && row.line == "revenue" && row.unit == s.company().currency && row.facts.back().has_value();
    if (counts) parts.push_back({quotable(plainMember(row.member)), &row, nullptr});
  }
  for (const SegmentRow& row : s.review->segments) {
    if (row.axis != axis || row.line != "ebit" || row.unit != s.company().currency || !row.facts.back()) continue;
    for (Part& part : parts) {
      if (part.revenue->member == row.member) part.profit = &row;
    }
  }
  return parts;
}

std::string factOf(const SegmentRow& row) {
  return "fact \"" + quotable(row.concept_name) + "\" along \"" + quotable(row.axis) + "\" \"" + quotable(row.member) +
         "\"";
}

std::string sumOf(const std::vector<std::string>& names) {
  std::string sum;
  for (const std::string& name : names) sum += (sum.empty() ? "" : " + ") + name;
  return sum;
}

// Growth, then, is what the parts make of it: the driver of the whole becomes a row.
constexpr const char* kGrowthFollows =
    "amend revenue_growth\n"
    "  forecast guard(revenue[-1] > 0, revenue / revenue[-1] - 1, \"the year before is not positive\")\n";

/// What profits of the parts make of the model's own profit: its operating expenses, or the quick
/// outlook's margin.
std::string profitFollows(const model::Model& m, const std::string& profits) {
  if (isDriver(m, "operating_margin")) {
    return fmt::format(
        "amend operating_margin\n  forecast guard(revenue > 0, ({} - central_cost_ratio * revenue) / revenue, "
        "\"revenue is not positive\")\n",
        profits);
  }
  return fmt::format(
      "# Costs follow from the parts' profit: what cost of sales and depreciation leave is operating expenses.\n"
      "amend operating_expenses\n  forecast revenue - cost_of_sales - depreciation - ({} - central_cost_ratio * "
      "revenue)\n"
      "amend operating_expense_ratio\n  forecast guard(revenue > 0, operating_expenses / revenue, \"revenue is not "
      "positive\")\n",
      profits);
}

std::string partsText(const Snapshot& s, const std::string& axis, const std::vector<Part>& parts, bool withProfit) {
  const model::Model& m = s.evaluation->model();
  Names names(m);
  std::string text = fmt::format("group \"{}\"\n", quotable("Revenue by " + plainMember(axis)));
  std::vector<std::string> revenues, profits;
  for (const Part& part : parts) {
    const std::string revenue = names.of("revenue_", part.label);
    const std::string growth = names.of("growth_", part.label);
    revenues.push_back(revenue);
    text += fmt::format(
        "driver {0} \"Growth, {2}\" ratio rate\n"
        "  history guard({1}[-1] > 0 and {1} >= 0, {1} / {1}[-1] - 1, \"the year before is not positive\")\n"
        "  range -0.9 to 3\n  default last else 0\n"
        "row {1} \"Revenue, {2}\" money flow\n  history {3}\n  forecast {1}[-1] * (1 + {0})\n",
        growth, revenue, part.label, factOf(*part.revenue));
    if (!withProfit) continue;
    const std::string profit = names.of("profit_", part.label);
    const std::string margin = names.of("margin_", part.label);
    profits.push_back(profit);
    text += fmt::format(
        "driver {0} \"Margin, {3}\" ratio rate\n  history guard({2} > 0, {1} / {2}, \"revenue is not positive\")\n"
        "  range -2 to 1\n  default last\n"
        "row {1} \"EBIT, {3}\" money flow\n  history {4}\n  forecast {2} * {0}\n",
        margin, profit, revenue, part.label, factOf(*part.profit));
  }
  text += fmt::format(
      "row revenue_in_no_part \"Revenue in no part\" money flow\n  history revenue - ({0})\n"
      "  forecast revenue_in_no_part[-1]\n"
      "amend revenue\n  forecast {0} + revenue_in_no_part\n{1}",
      sumOf(revenues), kGrowthFollows);
  if (withProfit) {
    text += fmt::format(
        "driver central_cost_ratio \"Cost in no part, share of revenue\" ratio rate\n"
        "  history guard(revenue > 0, ({} - ebit - exceptional_items) / revenue, \"revenue is not positive\")\n"
        "  range -1 to 1\n  default last\n"
        "  help \"The parts' profit less EBIT before exceptional items, over revenue.\"\n",
        sumOf(profits));
    text += profitFollows(m, sumOf(profits));
  }
  return text;
}

/// Revenue of the whole, or of one part with the rest growing as before, as volume times price.
std::string volumeText(const Snapshot& s, const OperatingFigure& figure, const Part* part) {
  Names names(s.evaluation->model());
  const std::string label = quotable(figure.name);
  const std::string unit = quotable(figure.unit);
  const std::string volume = names.of("volume_", label);
  const std::string volumeGrowth = names.of("volume_growth_", label);
  const std::string price = names.of("price_", label);
  const std::string priceGrowth = names.of("price_growth_", label);
  const std::string sales = part == nullptr ? "revenue" : names.of("revenue_", part->label);
  const std::string what = part == nullptr ? "Revenue" : part->label;
  std::string text = fmt::format("group \"{} by volume and price\"\n", what);
  if (part != nullptr) {
    text += fmt::format("row {0} \"Revenue, {1}\" money flow\n  history {2}\n  forecast {3} * {4}\n", sales,
                        part->label, factOf(*part->revenue), volume, price);
  }
  const std::string other = names.of("revenue_", "other");
  const std::string otherGrowth = names.of("growth_", "other");
  text += fmt::format(
      "driver {0} \"Growth, {4}\" ratio rate\n"
      "  history guard({1}[-1] > 0, {1} / {1}[-1] - 1, \"the year before is not positive\")\n"
      "  range -0.9 to 3\n  default last else 0\n"
      "row {1} \"{4}, {5}\" count rate\n  history recorded \"{4}\"\n  forecast {1}[-1] * (1 + {0})\n"
      "driver {2} \"Growth, {6} per unit of {4}\" ratio rate\n"
      "  history guard({3}[-1] > 0, {3} / {3}[-1] - 1, \"the year before is not positive\")\n"
      "  range -0.9 to 3\n  default last else 0\n"
      "row {3} \"{6} per unit of {4}\" money rate\n"
      "  history guard({1} > 0, {7} / {1}, \"there is no volume\")\n  forecast {3}[-1] * (1 + {2})\n",
      volumeGrowth, volume, priceGrowth, price, label, unit, what, sales);
  if (part == nullptr) {
    text += fmt::format("amend revenue\n  forecast {} * {}\n", volume, price);
  } else {
    text += fmt::format(
        "driver {0} \"Growth, other revenue\" ratio rate\n"
        "  history guard({1}[-1] > 0 and {1} >= 0, {1} / {1}[-1] - 1, \"the year before is not positive\")\n"
        "  range -0.9 to 3\n  default last else 0\n"
        "row {1} \"Other revenue\" money flow\n  history revenue - {2}\n  forecast {1}[-1] * (1 + {0})\n"
        "amend revenue\n  forecast {2} + {1}\n",
        otherGrowth, other, sales);
  }
  return text + kGrowthFollows;
}

/// Rate of a tranche where the record names none: what the company last paid on average.
double rateOf(const Snapshot& s, const DebtDue& due) {
  if (due.rate) return *due.rate;
  const int row = s.evaluation->model().find("borrowing_rate");
  const Figure last = s.history->at(row, s.evaluation->layout().baseColumn());
  return last.hasValue() ? std::clamp(last.value(), 0.0, 0.5) : 0.05;
}

std::string tranchesText(const Snapshot& s) {
  std::string text = "group \"Debt by tranche\"\n";
  std::vector<std::string> balances, interests, dueFirst, dueLater, within, openings;
  int number = 0;
  for (const DebtDue& due : s.company().debtDue) {
    const std::string t = "tranche_" + std::to_string(++number);
    const std::string label = quotable(due.what.empty() ? "Tranche" : due.what) + " " + std::to_string(due.year);
    text += fmt::format(
        "input {0}_amount \"{1}: amount at the base year\" money constant\n  range 0 to 1000000000000\n  default {2}\n"
        "input {0}_rate \"{1}: interest rate\" ratio constant\n  range 0 to 0.5\n  default {3}\n"
        "input {0}_due \"{1}: fiscal year due\" count constant\n  range 1990 to 2200\n  default {4}\n"
        "row {0}_opening \"{1}: still owed at the base year\" money constant\n"
        "  value if(base_fiscal_year >= {0}_due, 0, {0}_amount)\n"
        "driver {0}_draw \"{1}: drawn (repaid early)\" money rate\n  range -1000000000000 to 1000000000000\n"
        "  default 0\n"
        "row {0} \"{1}\" money balance\n"
        "  first if(fiscal_year >= {0}_due, 0, max(0, {0}_opening + {0}_draw))\n"
        "  forecast if(fiscal_year >= {0}_due, 0, max(0, {0}[-1] + {0}_draw))\n"
        "row {0}_interest \"Interest, {1}\" money flow\n"
        "  first {0}_rate * ({0}_opening + {0}) / 2\n  forecast {0}_rate * avg({0})\n",
        t, label, plainNumber(due.amount), plainNumber(rateOf(s, due)), due.year);
    balances.push_back(t);
    interests.push_back(fmt::format("{}_interest", t));
    openings.push_back(fmt::format("{}_opening", t));
    dueFirst.push_back(fmt::format("if(fiscal_year >= {0}_due, {0}_opening, 0)", t));
    dueLater.push_back(fmt::format("if(fiscal_year >= {0}_due, {0}[-1], 0)", t));
    within.push_back(fmt::format("if(fiscal_year + 1 >= {0}_due, {0}, 0)", t));
  }
  const std::string tranches = sumOf(balances);
  text += fmt::format(
      "row debt_falling_due \"Borrowings that fall due\" money flow\n  first {0}\n  forecast {1}\n"
      "driver refinanced_share \"Refinanced, share of what falls due\" ratio rate\n  range 0 to 2\n  default 1\n"
      "driver new_debt_rate \"Interest on new borrowings\" ratio rate\n  range 0 to 0.5\n  default {2}\n"
      "driver further_debt \"Further borrowings drawn (repaid)\" money rate\n"
      "  range -1000000000000 to 1000000000000\n  default 0\n"
      "row new_debt \"New borrowings\" money balance\n"
      "  first max(0, debt_falling_due * refinanced_share + further_debt)\n"
      "  forecast max(0, new_debt[-1] + debt_falling_due * refinanced_share + further_debt)\n"
      "row new_debt_interest \"Interest, new borrowings\" money flow\n"
      "  first new_debt_rate * new_debt / 2\n  forecast new_debt_rate * avg(new_debt)\n"
      "row other_debt \"Borrowings in no tranche\" money balance\n"
      "  first (debt[-1] - ({3})) * (1 + debt_growth)\n  forecast other_debt[-1] * (1 + debt_growth)\n"
      "row other_debt_interest \"Interest, borrowings in no tranche\" money flow\n"
      "  first borrowing_rate * (debt[-1] - ({3}) + other_debt) / 2\n  forecast borrowing_rate * avg(other_debt)\n"
      "amend borrowings_current\n  forecast {4}\n"
      "amend borrowings_long\n  forecast {5} + new_debt + other_debt - borrowings_current\n"
      "amend interest_expense\n"
      "  forecast {6} + new_debt_interest + other_debt_interest + borrowing_rate * avg(revolver + lease_liabilities)\n",
      sumOf(dueFirst), sumOf(dueLater), plainNumber(rateOf(s, {})), sumOf(openings), sumOf(within), tranches,
      sumOf(interests));
  return text;
}

bool isProjected(const model::Model& m, const char* row) {
  const int index = m.find(row);
  return index >= 0 && m.rows[static_cast<size_t>(index)].projected;
}

bool recordedThrough(const OperatingFigure& figure, int year) {
  return std::any_of(figure.years.begin(), figure.years.end(), [&](const auto& y) { return y.first == year; });
}

}  // namespace

std::vector<Build> buildsFor(const Snapshot& s) {
  std::vector<Build> builds;
  const model::Model& m = s.evaluation->model();
  if (isDriver(m, "revenue_growth") && !isAmended(m, "revenue")) {
    std::set<std::string> axes;
    for (const SegmentRow& row : s.review->segments) axes.insert(row.axis);
    std::vector<Part> all;
    for (const std::string& axis : axes) {
      std::vector<Part> parts = partsAlong(s, axis);
      if (parts.size() < 2) continue;
      const std::string by = "Revenue by " + plainMember(axis);
      builds.push_back({by, partsText(s, axis, parts, false)});
      const bool profits = std::all_of(parts.begin(), parts.end(), [](const Part& p) { return p.profit != nullptr; });
      if (profits) builds.push_back({by + ", with profit", partsText(s, axis, parts, true)});
      all.insert(all.end(), parts.begin(), parts.end());
    }
    for (const OperatingFigure& figure : s.company().operating) {
      if (!recordedThrough(figure, s.years().back().label())) continue;
      builds.push_back({"Revenue as " + figure.name + " x revenue each", volumeText(s, figure, nullptr)});
      for (const Part& part : all) {
        builds.push_back({part.label + " as " + figure.name + " x revenue each", volumeText(s, figure, &part)});
      }
    }
  }
  if (!s.company().debtDue.empty() && isProjected(m, "borrowings_long") && !isAmended(m, "borrowings_long")) {
    builds.push_back({"Debt by tranche", tranchesText(s)});
  }
  return builds;
}

}  // namespace zl::services
