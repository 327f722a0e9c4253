#include "core/structure/concept_placing.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <map>
#include <set>

#include "core/quantity/decimal.h"
#include "core/structure/placing.h"

namespace zl {
namespace {

constexpr int kHighest = 12;               ///< parents of parents looked at; statements are six or seven deep
constexpr size_t kMostStructured = 40000;  ///< figures among which sums are looked for

/// "x:OtherGainsNet" to "Other Gains Net".
std::string wordsOfName(const std::string& concept_name) {
  std::string words;
  for (const char c : concept_name.substr(concept_name.find(':') + 1)) {
    if (std::isupper(static_cast<unsigned char>(c)) != 0 && !words.empty()) words += ' ';
    words += c;
  }
  return words;
}

struct FiledConcept {
  std::string name;
  std::string label;
  std::map<Date, size_t> facts;  ///< by year end, the last filed
  bool balance = false;
};

StatementFigure figureOf(const Fact& fact) {
  const Decimal number = Decimal::parse(fact.text).value_or(Decimal());
  const int place = fact.decimals ? -*fact.decimals : number.lastPlace();
  return {number.toDouble(), fact.exact ? 0 : Decimal::halfUnit(place).toDouble()};
}

class ConceptPlacing {
 public:
  ConceptPlacing(std::span<const Fact> facts, const MappingRules& rules, const LineChoices& choices,
                 const ConceptNetwork& network, const PlacingRules& placing)
      : facts_(facts), rules_(rules), choices_(choices), network_(network), placing_(placing) {
    for (const ConceptArc& arc : network.arcs) {
      (arc.calculation ? calculation_ : presentation_).emplace(arc.child, &arc);
      if (arc.calculation) totals_.insert(arc.parent);
    }
  }

  LineChoices run(const StandardStatements& plain, const std::string& currency) {
    gather(currency);
    findUsed(plain);
    if (std::none_of(concepts_.begin(), concepts_.end(), [&](const FiledConcept& c) { return isAsked(c.name); }))
      return {};
    const bool tagged = std::any_of(concepts_.begin(), concepts_.end(),
                                    [&](const FiledConcept& c) { return calculation_.count(c.name) > 0; });
    LineChoices placed;
    if (tagged) {
      place(rowsOfLinkbase(), placed);
    } else {
      // Flows and balances are no sums of one another.
      for (const bool balance : {false, true}) place(rowsOfFigures(balance), placed);
    }
    return placed;
  }

 private:
  using Arcs = std::multimap<std::string, const ConceptArc*>;
  struct Rows {
    std::vector<std::string> names;
    std::vector<RowToPlace> rows;
    SumTree tree;
  };

  void gather(const std::string& currency) {
    for (size_t i = 0; i < facts_.size(); ++i) {
      const Fact& fact = facts_[i];
      const bool annual = fact.period.isInstant() || fact.period.isFullYear();
      if (!fact.segments.empty() || fact.nil || !annual || fact.unit != currency) continue;
      const std::string name = fact.concept_name;
      const auto [found, fresh] = filed_.try_emplace(name, concepts_.size());
      if (fresh) concepts_.push_back({name, fact.label, {}, fact.period.isInstant()});
      concepts_[found->second].facts[fact.period.end] = i;
    }
  }

  /// Concepts that stand on a line in some year.
  void findUsed(const StandardStatements& plain) {
    for (const MappingRule& rule : rules_.rules()) {
      for (int column = 0; column < static_cast<int>(plain.years().size()); ++column) {
        for (const LineCell::Part& part : plain.at(rule.line, column).parts)
          used_.insert(facts_[part.fact].concept_name);
      }
    }
  }

  /// Placed by nobody, or by a rule that uses other concepts. A table's rows were placed when it was read.
  [[nodiscard]] bool isAsked(const std::string& name) const {
    return filed_.count(name) > 0 && used_.count(name) == 0 && choices_.count(name) == 0 &&
           name.compare(0, 6, "label:") != 0;
  }

  RowToPlace rowOf(const std::string& name, const std::string& label) {
    RowToPlace row;
    const auto known = network_.labels.find(name);
    row.label = known != network_.labels.end() ? known->second : label.empty() ? wordsOfName(name) : label;
    row.name = name;
    row.filed = filed_.count(name) > 0;
    row.total = placing_.parts.of(name);
    if (row.total == nullptr) row.total = placing_.parts.ofLabel(row.label);
    row.heading = headingOf(name, row.headingName);
    row.line = rules_.lineOf(name);
    if (const auto choice = choices_.find(name); choice != choices_.end()) {
      row.chosen = &choice->second;
    } else if (!row.line.empty() && (used_.count(name) > 0 || !row.filed)) {
      row.chosen = &byRule_.emplace(name, LineChoice{row.line, 1, "by a rule"}).first->second;
    } else if (const auto anchor = network_.anchors.find(name);
               anchor != network_.anchors.end() && row.line.empty() && totals_.count(name) == 0) {
      // What has parts is their total, whatever it is anchored to.
      const std::string line = rules_.lineOf(anchor->second);
      if (!line.empty()) {
        row.chosen = &byRule_.emplace(name, LineChoice{line, 1, "anchored to " + anchor->second}).first->second;
      } else if (row.heading == nullptr) {
        row.heading = placing_.parts.of(anchor->second);
        row.headingName = anchor->second + ", which it is anchored to";
      }
    }
    const std::string within = row.line.empty() && row.chosen == nullptr ? placing_.parts.within(name) : std::string();
    if (!within.empty()) row.aside = "a part of " + within;
    return row;
  }

  /// Of the nearest parent in the presentation that is a known total or heading.
  [[nodiscard]] const PartRules::Residual* headingOf(const std::string& name, std::string& heading) const {
    std::string child = name;
    for (int height = 0; height < kHighest; ++height) {
      const auto arc = presentation_.find(child);
      if (arc == presentation_.end()) return nullptr;
      child = arc->second->parent;
      heading = child + " in its presentation linkbase";
      if (const PartRules::Residual* residual = placing_.parts.of(child)) return residual;
    }
    return nullptr;
  }

  /// A filed parent before one that is not.
  [[nodiscard]] const ConceptArc* parentOf(const std::string& name) const {
    const auto [from, to] = calculation_.equal_range(name);
    const ConceptArc* first = nullptr;
    for (auto arc = from; arc != to; ++arc) {
      if (arc->second->parent == name) continue;
      if (filed_.count(arc->second->parent) > 0) return arc->second;
      if (first == nullptr) first = arc->second;
    }
    return first;
  }

  /// All filed concepts and their parents, in the tree of the calculation linkbase.
  Rows rowsOfLinkbase() {
    Rows out;
    std::map<std::string, size_t> at;
    const auto add = [&](const std::string& name, const std::string& label) {
      const auto [found, fresh] = at.try_emplace(name, out.names.size());
      if (fresh) {
        out.names.push_back(name);
        out.rows.push_back(rowOf(name, label));
      }
      return found->second;
    };
    for (const FiledConcept& c : concepts_) add(c.name, c.label);
    std::map<size_t, FoundSum> sums;
    std::vector<std::optional<size_t>> parent(out.names.size());
    for (size_t r = 0; r < out.names.size(); ++r) {  // grows by the parents that are not filed
      const ConceptArc* arc = parentOf(out.names[r]);
      if (arc == nullptr) continue;
      const size_t up = add(arc->parent, {});
      parent.resize(out.names.size());
      if (goesRound(parent, up, r)) continue;
      parent[r] = up;
      FoundSum& sum = sums[up];
      sum.total = up;
      sum.terms.push_back({r, arc->weight});
    }
    out.tree.parent = std::move(parent);
    out.tree.repeats.resize(out.names.size());
    for (auto& [total, sum] : sums) out.tree.sums.push_back(std::move(sum));
    for (const FoundSum& sum : out.tree.sums) out.rows[sum.total].whole = isWhole(out, sum);
    return out;
  }

  [[nodiscard]] static bool goesRound(const std::vector<std::optional<size_t>>& parent, size_t from, size_t to) {
    std::optional<size_t> at = from;
    for (int height = 0; at && height <= kHighest; ++height) {
      if (*at == to) return true;
      at = parent[*at];
    }
    return at.has_value();  // deeper than any statement: not followed
  }

  [[nodiscard]] const FiledConcept* conceptOf(const std::string& name) const {
    const auto found = filed_.find(name);
    return found == filed_.end() ? nullptr : &concepts_[found->second];
  }

  /// Whether a total that nothing places has a figure which its filed parts do not give.
  [[nodiscard]] bool isWhole(const Rows& rows, const FoundSum& sum) const {
    const FiledConcept* total = conceptOf(rows.names[sum.total]);
    if (total == nullptr || rows.rows[sum.total].chosen != nullptr || rows.rows[sum.total].total != nullptr)
      return false;
    for (const auto& [end, fact] : total->facts) {
      const StatementFigure whole = figureOf(facts_[fact]);
      double left = whole.value;
      double tolerance = whole.half + std::abs(whole.value) * 1e-12;
      for (const SumTerm& term : sum.terms) {
        const FiledConcept* part = conceptOf(rows.names[term.row]);
        const auto of = part == nullptr ? std::map<Date, size_t>::const_iterator{} : part->facts.find(end);
        if (part == nullptr || of == part->facts.end()) continue;
        const StatementFigure figure = figureOf(facts_[of->second]);
        left -= term.sign * figure.value;
        tolerance += figure.half;
      }
      if (std::abs(left) > tolerance) return true;
    }
    return false;
  }

  /// Concepts in the order they are filed in, with the sums that their figures are.
  Rows rowsOfFigures(bool balance) {
    Rows out;
    std::set<Date> ends;
    std::vector<const FiledConcept*> list;
    for (const FiledConcept& c : concepts_) {
      if (c.balance != balance) continue;
      list.push_back(&c);
      for (const auto& [end, fact] : c.facts) ends.insert(end);
    }
    std::vector<StatementRow> figures;
    for (const FiledConcept* c : list) {
      out.names.push_back(c->name);
      out.rows.push_back(rowOf(c->name, c->label));
      StatementRow row;
      row.saysTotal = out.rows.back().total != nullptr || placing_.lines.isTotal(out.rows.back().line);
      for (const Date& end : ends) {
        const auto fact = c->facts.find(end);
        row.figures.push_back(fact == c->facts.end() ? std::nullopt : std::optional(figureOf(facts_[fact->second])));
      }
      figures.push_back(std::move(row));
    }
    if (figures.size() * ends.size() <= kMostStructured) {
      out.tree = findSums(figures);
    } else {
      out.tree.parent.resize(list.size());
      out.tree.repeats.resize(list.size());
    }
    for (size_t r = 0; balance && r < list.size(); ++r) {
      if (out.tree.of(r) == nullptr && hasKnownParts(list[r]->name))
        out.rows[r].aside = "a total; its parts are placed";
    }
    return out;
  }

  /// Whether a total that taxonomies know has parts among what stands on lines, though the figures do not show it: a
  /// part may not be filed, or stand far from it.
  [[nodiscard]] bool hasKnownParts(const std::string& total) const {
    const PartRules::Residual* residual = placing_.parts.of(total);
    if (residual == nullptr) return false;
    const std::string above = placing_.lines.totalOf(residual->line);
    return std::any_of(used_.begin(), used_.end(), [&](const std::string& part) {
      return part != total && placing_.lines.totalOf(rules_.lineOf(part)) == above &&
             isCurrent(part) == isCurrent(total);
    });
  }

  static bool isCurrent(const std::string& name) {
    return name.find("Current") != std::string::npos && name.find("Noncurrent") == std::string::npos;
  }

  void place(const Rows& rows, LineChoices& choices) const {
    const std::vector<PlacedRow> placed = placeRows(rows.rows, rows.tree, placing_, {});
    for (size_t r = 0; r < placed.size(); ++r) {
      const std::string& name = rows.names[r];
      if (!isAsked(name)) continue;
      const bool toLine = !placed[r].choice.line.empty();
      // What a rule names and does not use is left to it, unless the tree shows a further part.
      const bool named = !rows.rows[r].line.empty();
      if (named && (!toLine || !placed[r].signKnown)) continue;
      // What nothing is known of is listed as such.
      if (placed[r].by != PlacedRow::By::Nothing) choices[name] = placed[r].choice;
    }
  }

  std::span<const Fact> facts_;
  const MappingRules& rules_;
  const LineChoices& choices_;
  const ConceptNetwork& network_;
  const PlacingRules& placing_;
  std::vector<FiledConcept> concepts_;
  std::map<std::string, size_t> filed_;  ///< place in concepts_
  std::set<std::string> used_;
  std::map<std::string, LineChoice> byRule_;
  Arcs calculation_, presentation_;
  std::set<std::string> totals_;  ///< concepts with parts in the calculation linkbase
};

}  // namespace

LineChoices placeConcepts(std::span<const Fact> facts, const MappingRules& rules, const LineChoices& choices,
                          const ConceptNetwork& network, const PlacingRules& placing, const std::string& currency) {
  const StandardStatements plain = StandardStatements::build(facts, rules, currency, choices);
  return ConceptPlacing(facts, rules, choices, network, placing).run(plain, currency);
}

}  // namespace zl
