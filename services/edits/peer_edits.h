#pragma once
// Edits of peer sets and of what parts of the company are worth. Each names what it does; none checks the figures,
// which the evaluation does.

#include <array>
#include <set>
#include <string>

#include "services/edits/edits.h"

namespace zl::services {

/// Names a set of peers by their ids, or changes one; without members it goes, and all candidates count where it was in
/// use.
CaseEdit setPeerSet(const Case& c, const std::string& name, const std::set<std::string>& members);
/// The set that counts; empty: all candidates.
CaseEdit usePeerSet(const Case& c, const std::string& name);
/// A multiple of the analyst's own, of any row that has years, is declared among the own rows, or goes from them.
/// Whether it fits the model is for the evaluation to say.
CaseEdit addOwnMultiple(const Case& c, const model::PeerMultiple& multiple, const Provenance& said);
bool isOwnMultiple(const Case& c, const std::string& name);
CaseEdit dropOwnMultiple(const Case& c, const std::string& name, const Provenance& said);
/// Which multiples are looked at first, by id; none: the usual ones.
CaseEdit showMultiples(const Case& c, const std::set<std::string>& ids);
/// A multiple of the own past becomes a method in a scenario: what it is of, by its place among the past multiples, the
/// multiple, its low and its high end.
CaseEdit adoptOwnPast(const Case& c, const model::Model& m, const std::string& scenario, int of,
                      const std::array<double, 3>& multiples, const Provenance& said);
/// What a part is worth; without a choice nothing is said of it.
CaseEdit setPart(const Case& c, const std::string& key, const std::string& label,
                 const std::optional<PartChoice>& choice);

}  // namespace zl::services
