#pragma once
// Edits of peer sets and of what parts of the company are worth. Each names what it does; none checks the figures,
// which the evaluation does.

#include <set>
#include <string>

#include "services/edits/edits.h"

namespace zl::services {

/// Names a set of peers by their ids, or changes one; without members it goes, and all candidates count where it was in
/// use.
CaseEdit setPeerSet(const Case& c, const std::string& name, const std::set<std::string>& members);
/// The set that counts; empty: all candidates.
CaseEdit usePeerSet(const Case& c, const std::string& name);
/// What a part is worth; without a choice nothing is said of it.
CaseEdit setPart(const Case& c, const std::string& key, const std::string& label,
                 const std::optional<PartChoice>& choice);

}  // namespace zl::services
