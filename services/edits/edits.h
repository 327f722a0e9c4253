#pragma once
// Edits: functions from case to case. Each gives the label that the journal and the undo menu show.

#include <map>
#include <optional>
#include <string>

#include "core/model/syntax.h"
#include "core/monitor/finding.h"
#include "core/outlook/case.h"

namespace zl::services {

struct CaseEdit {
  Case after;
  std::string label;
};

/// Sets a driver's path in a scenario. In a scenario other than base a path equal to base's is no
/// difference and is removed.
CaseEdit setDriver(const Case& c, const model::Model& m, const std::string& scenario, const std::string& row,
                   const Path& path, const Provenance& said);
/// Types figures for single forecast years (counted from 0); the other years keep what `current`
/// says they are, so that a drag never moves its neighbours. Keeps the reason that stood.
CaseEdit typeDriverYears(const Case& c, const model::Model& m, const std::string& scenario, const std::string& row,
                         const std::vector<Figure>& current, const std::map<int, double>& typed, Provenance said);
/// Follows base again (or, in base, the model's default).
CaseEdit clearDriver(const Case& c, const model::Model& m, const std::string& scenario, const std::string& row);
CaseEdit setReason(const Case& c, const model::Model& m, const std::string& scenario, const std::string& row,
                   const Provenance& said);
CaseEdit setInput(const Case& c, const model::Model& m, const std::string& scenario, const std::string& row,
                  double figure, const Provenance& said);
/// An input at a figure, or a driver's whole path at one level.
CaseEdit setLevel(const Case& c, const model::Model& m, const std::string& scenario, const std::string& row,
                  double figure, const Provenance& said);
CaseEdit setProbability(const Case& c, const std::string& scenario, double probability);
CaseEdit setExceptional(const Case& c, int year, const std::optional<std::string>& reason);
/// Without a choice the rules decide again.
CaseEdit setPeerChoice(const Case& c, const std::string& key, const std::string& label,
                       const std::optional<PeerChoice>& choice);
/// Puts a concept on a line, or sets it aside (empty line); without a choice the rules decide again.
CaseEdit setLineChoice(const Case& c, const model::Model& m, const std::string& concept_name,
                       const std::optional<LineChoice>& choice);
/// Uses a line (or kEveryLine) as first filed, or again as last filed.
CaseEdit setFirstFiled(const Case& c, const model::Model& m, const std::string& line, bool first);
/// Adds a line of the analyst's own, named after its label; dropping it also lets go of what stood on it.
CaseEdit addOwnLine(const Case& c, const std::string& label, bool flow);
CaseEdit dropOwnLine(const Case& c, const std::string& name);
/// Puts `figure` in place of what a filed flow says in a year (or takes the adjustment back): what
/// is kept is the difference. `filed` is the figure as filed.
CaseEdit setAdjustment(const Case& c, const model::Model& m, const std::string& line, int year, double filed,
                       const std::optional<double>& figure, const Provenance& said);
/// Keeps a window of years, or drops the one with the same ends.
CaseEdit keepWindow(const Case& c, const HistoryWindow& window);
CaseEdit dropWindow(const Case& c, int from, int to);
/// The analyst's word on a test of the quality review; without one the test's own threshold holds.
CaseEdit setTest(const Case& c, const std::string& test, const std::string& label,
                 const std::optional<TestChoice>& choice);
/// Paths that reach beyond the last year are drawn in, the last stages shortened or lengthened.
CaseEdit setHorizon(const Case& c, int years);
/// Lengths in years, which must sum to the horizon; one or none: a single stage.
CaseEdit setStages(const Case& c, const std::vector<int>& lengths);
/// Accepts a finding with a reason, or opens it again. It opens by itself when what it says changes.
CaseEdit acknowledge(const Case& c, const Finding& finding, const std::optional<Provenance>& said);
/// Moves a monitor's limit; without one the default holds again.
CaseEdit setLimit(const Case& c, const std::string& monitor, const std::optional<double>& limit);
CaseEdit setValuationDate(const Case& c, Date date);
/// Which price the case stands on.
CaseEdit setPriceChoice(const Case& c, const PriceChoice& price);
CaseEdit setNote(const Case& c, const model::Model& m, const std::string& row, const std::string& text);

}  // namespace zl::services
