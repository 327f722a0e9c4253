#pragma once
// The first outlook: what is proposed for every driver and input that the analyst has not decided. A pure function of
// the rules, history and the market; it is computed anew and never stored, so that it follows what is brought in.

#include <functional>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/model/interpret.h"
#include "core/outlook/case.h"
#include "core/outlook/probe.h"
#include "core/proposal/placeholders.h"
#include "core/proposal/proposal_rules.h"

namespace zl {

/// A rate with what a trace says of it.
struct KnownRate {
  double figure = 0;
  std::string source;
};

struct ProposalGround {
  const model::Model& model;
  const model::HistoryTable& history;
  std::vector<int> years;       ///< fiscal years by history column
  std::vector<bool> irregular;  ///< by history column: flagged, or not twelve months after the one before
  std::string currency;         ///< of the flows, ISO 4217
  std::string country;          ///< of the record, ISO 3166; may be empty
  const Placeholders& placeholders;
  bool priced = true;  ///< there is a price to stand on
  /// The share of a filed line's base-year figure whose concepts or labels hold the words, 0 where it is not filed.
  std::function<double(const std::string& line, const std::string& words)> shareFiledAs = {};
  /// The latest rate of the book's series by its name ("risk-free EUR"); empty where there is none.
  std::function<std::optional<KnownRate>(const std::string& name)> bookRate = {};
  /// The included peers' median of a multiple; absent where no peer counts.
  std::function<Figure(const std::string& multiple)> peersMedian = {};
  /// A constant row of the base scenario of a case, in every variant of it.
  std::function<std::vector<Figure>(const Case&, const std::vector<Variant>&, model::RowId)> probe = {};
};

/// The case with everything undecided in base proposed, each with its reason; what is decided stays. Proposals that
/// were in it are made anew. A row that no rule can say anything of keeps the model's preset.
Case proposed(const Case& c, const std::vector<ProposalRule>& rules, const ProposalGround& ground);

/// Worst and best of a case whose base is proposed: base's own path, apart from it by the quartiles of regular history,
/// so ordered by what they do to the value that worst is never above base and best never below. Decided ones stay.
Case proposedScenarios(const Case& c, const std::vector<ProposalRule>& rules, const ProposalGround& ground);

/// Of these only inputs that need no history, which history rules may read: levels, taxes, how leases are filed.
Case proposedInputs(const Case& c, const std::vector<ProposalRule>& rules, const ProposalGround& ground);

/// The case as it is stored: without proposals.
Case decidedOnly(Case c);

/// Sum of filed rows over revenue by regular column, where revenue is positive.
std::vector<std::pair<int, double>> shareOfRevenue(const ProposalGround& ground, const std::vector<std::string>& rows,
                                                   const std::string& revenue);

/// A driver's regular history: figures that have a value in years that are not irregular, with their columns.
std::vector<std::pair<int, double>> regularHistory(const ProposalGround& ground, model::RowId row);

}  // namespace zl
