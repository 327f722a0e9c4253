#include "services/views/builds.h"

#include <fmt/core.h>

#include <algorithm>
#include <set>

#include "core/quantity/number_text.h"
#include "services/text/label_word.h"

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
    for (int n = 2; model_.find(free).known() || taken_.count(free) > 0; ++n) {
      free = before + word + "_" + std::to_string(n);
    }
    taken_.insert(free);
    return free;
  }

 private:
  const model::Model& model_;
  std::set<std::string> taken_;
};

bool isDriver(const model::Model& m, model::Role role) {
  const model::Row* row = m.row(role);
  return row != nullptr && row->declared == model::Declared::Driver;
}

/// Whether an own row amends it already, or there is none to amend.
bool isTaken(const model::Model& m, model::Role role) {
  const model::Row* row = m.row(role);
  return row == nullptr || isOwnRow(m, *row);
}

struct Part {
  std::string label;
  const SegmentRow* revenue = nullptr;
  const SegmentRow* profit = nullptr;
};

/// Parts along an axis whose revenue is filed for the base year, in the company's currency.
std::vector<Part> partsAlong(const Snapshot& s, const std::string& axis) {
  const std::string& revenue = s.model().nameOf(model::Role::Revenue);
  const std::string& profit = s.model().nameOf(model::Role::Ebit);
  std::vector<Part> parts;
  for (const SegmentRow& row : s.review->segments) {
    const bool counts =
        row.axis == axis && row.line == revenue && row.unit == s.company().currency && row.facts.back().has_value();
    if (counts) parts.push_back({quotable(plainMember(row.member)), &row, nullptr});
  }
  for (const SegmentRow& row : s.review->segments) {
    if (row.axis != axis || row.line != profit || row.unit != s.company().currency || !row.facts.back()) continue;
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

std::string partsText(const Snapshot& s, const std::string& axis, const std::vector<Part>& parts, bool withProfit) {
  const BuildTexts& texts = s.resources->builds();
  Names names(s.model());
  std::string text = fmt::format("group \"{}\"\n", quotable("Revenue by " + plainMember(axis)));
  std::vector<std::string> revenues, profits;
  for (const Part& part : parts) {
    const std::string revenue = names.of("revenue_", part.label);
    revenues.push_back(revenue);
    text += texts.filled("revenue of a part", {{"growth", names.of("growth_", part.label)},
                                               {"revenue", revenue},
                                               {"label", part.label},
                                               {"fact", factOf(*part.revenue)}});
    if (!withProfit) continue;
    const std::string profit = names.of("profit_", part.label);
    profits.push_back(profit);
    text += texts.filled("profit of a part", {{"margin", names.of("margin_", part.label)},
                                              {"profit", profit},
                                              {"revenue", revenue},
                                              {"label", part.label},
                                              {"fact", factOf(*part.profit)}});
  }
  // Growth, then, is what the parts make of it: the driver of the whole becomes a row.
  text += texts.filled("revenue of all parts", {{"revenues", sumOf(revenues)}});
  text += texts.filled("growth follows", {});
  if (!withProfit) return text;
  text += texts.filled("profit of all parts", {{"profits", sumOf(profits)}});
  return text + texts.filled("profit follows", {{"profits", sumOf(profits)}});
}

/// Revenue of the whole, or of one part with the rest growing as before, as volume times price.
std::string volumeText(const Snapshot& s, const OperatingFigure& figure, const Part* part) {
  const BuildTexts& texts = s.resources->builds();
  Names names(s.model());
  const std::string label = quotable(figure.name);
  std::map<std::string, std::string> words{{"label", label}, {"unit", quotable(figure.unit)}};
  words["volume"] = names.of("volume_", label);
  words["volume_growth"] = names.of("volume_growth_", label);
  words["price"] = names.of("price_", label);
  words["price_growth"] = names.of("price_growth_", label);
  words["sales"] = part == nullptr ? s.model().nameOf(model::Role::Revenue) : names.of("revenue_", part->label);
  words["what"] = part == nullptr ? "Revenue" : part->label;
  words["other"] = names.of("revenue_", "other");
  words["other_growth"] = names.of("growth_", "other");
  std::string text = fmt::format("group \"{} by volume and price\"\n", words["what"]);
  if (part != nullptr) {
    words["fact"] = factOf(*part->revenue);
    text += texts.filled("revenue of the part by volume", words);
  }
  text += texts.filled("volume and price", words);
  text += texts.filled(part == nullptr ? "revenue by volume" : "other revenue", words);
  return text + texts.filled("growth follows", {});
}

/// Rate of a tranche where the record names none: what the company last paid on average.
double rateOf(const Snapshot& s, const DebtDue& due) {
  if (due.rate) return *due.rate;
  const model::RowId row = s.evaluation->model().find(model::Role::BorrowingRate);
  const Figure last = !row.known() ? Figure() : s.history->at(row, s.evaluation->layout().baseColumn());
  return last.hasValue() ? std::clamp(last.value(), 0.0, 0.5) : 0.05;
}

/// A part that is an expression, without the end of its line.
std::string expressionOf(const BuildTexts& texts, const std::string& part, const std::string& tranche) {
  std::string text = texts.filled(part, {{"tranche", tranche}});
  while (!text.empty() && text.back() == '\n') text.pop_back();
  return text;
}

std::string tranchesText(const Snapshot& s) {
  const BuildTexts& texts = s.resources->builds();
  std::string text = "group \"Debt by tranche\"\n";
  std::vector<std::string> balances, interests, dueFirst, dueLater, within, openings;
  int number = 0;
  for (const DebtDue& due : s.evidence->debtDue) {
    const std::string t = "tranche_" + std::to_string(++number);
    text += texts.filled("tranche",
                         {{"tranche", t},
                          {"label", quotable(due.what.empty() ? "Tranche" : due.what) + " " + std::to_string(due.year)},
                          {"amount", plainNumber(due.amount)},
                          {"rate", plainNumber(rateOf(s, due))},
                          {"year", std::to_string(due.year)}});
    balances.push_back(t);
    interests.push_back(t + "_interest");
    openings.push_back(t + "_opening");
    dueFirst.push_back(expressionOf(texts, "falls due in the first year", t));
    dueLater.push_back(expressionOf(texts, "falls due later", t));
    within.push_back(expressionOf(texts, "due within a year", t));
  }
  return text + texts.filled("all tranches", {{"due_first", sumOf(dueFirst)},
                                              {"due_later", sumOf(dueLater)},
                                              {"rate", plainNumber(rateOf(s, {}))},
                                              {"openings", sumOf(openings)},
                                              {"due_within", sumOf(within)},
                                              {"tranches", sumOf(balances)},
                                              {"interests", sumOf(interests)}});
}

bool recordedThrough(const OperatingFigure& figure, int year) {
  return std::any_of(figure.years.begin(), figure.years.end(), [&](const auto& y) { return y.first == year; });
}

}  // namespace

std::vector<Build> buildsFor(const Snapshot& s) {
  std::vector<Build> builds;
  const model::Model& m = s.evaluation->model();
  if (s.resources->builds().empty()) return builds;
  if (isDriver(m, model::Role::RevenueGrowth) && !isTaken(m, model::Role::Revenue)) {
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
  const bool debtProjected = !isTaken(m, model::Role::BorrowingsLong) && m.row(model::Role::BorrowingsLong)->projected;
  if (!s.evidence->debtDue.empty() && debtProjected) {
    builds.push_back({"Debt by tranche", tranchesText(s)});
  }
  return builds;
}

}  // namespace zl::services
