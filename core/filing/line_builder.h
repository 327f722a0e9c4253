#pragma once
// How facts become the cells of standard lines: which of several facts of one thing is used, and
// how rules and choices add them up. Shared by annual and interim statements; no face of its own.

#include <functional>
#include <map>
#include <span>
#include <string>
#include <vector>

#include "core/filing/mapping.h"

namespace zl {

class LineBuilder {
 public:
  struct Key {
    std::string concept_name;
    Period period;
    auto operator<=>(const Key&) const = default;
  };
  /// The fact of a concept in the period looked at, nullptr when there is none.
  using FactOf = std::function<const size_t*(const std::string&)>;

  LineBuilder(std::span<const Fact> facts, const MappingRules& rules, const LineChoices& choices,
              const FirstFiled& firstFiled);

  [[nodiscard]] bool isMapped(const std::string& concept_name) const;
  /// Takes a fact: the finer of two in one document; of two documents the later filed, or the
  /// earlier for lines used as first filed.
  void choose(size_t index);
  /// Every fact in force, by concept and period.
  [[nodiscard]] const std::map<Key, size_t>& chosen() const { return chosen_; }
  [[nodiscard]] std::vector<Disagreement>& disagreements() { return disagreements_; }

  /// A line's cell: the first alternative that is filed, and what was chosen for the line.
  [[nodiscard]] LineCell cell(const MappingRule& rule, const FactOf& factOf) const;

 private:
  [[nodiscard]] LineCell sum(const MappingRule& rule, const std::vector<MappingTerm>& terms,
                             const FactOf& factOf) const;
  void add(size_t fact, int weight, LineCell& cell) const;
  void addChosen(const std::string& line, const FactOf& factOf, LineCell& cell) const;
  /// Of lines that hold what stands on another: "financial result, of which interest".
  void takeOutHeld(const std::string& line, const FactOf& factOf, LineCell& cell) const;

  std::span<const Fact> facts_;
  const MappingRules& rules_;
  const LineChoices& choices_;
  const FirstFiled& firstFiled_;
  std::map<std::string, std::vector<std::string>> chosenFor_;  ///< line -> concepts
  std::map<std::string, std::vector<std::string>> heldBy_;     ///< by the line that holds them
  std::map<Key, size_t> chosen_;
  std::vector<Disagreement> disagreements_;
};

/// Another currency is not the company's own figure; shares and plain numbers are.
bool isForeignUnit(const std::string& unit, const std::string& currency);

}  // namespace zl
