#pragma once
// Where the concepts of tagged filings stand that no rule and nobody places: by the tree of the filing's sums (its
// calculation linkbase, without one the figures themselves), its presentation, and their labels. The same placing as of
// tables.

#include <span>
#include <string>

#include "core/filing/concept_network.h"
#include "core/filing/mapping.h"
#include "core/structure/placing_rules.h"

namespace zl {

/// Choices, with reasons, for amounts of the whole company in its currency that neither a rule nor `choices` places,
/// and for those that a rule names and does not use in any year because another alternative is filed beside them, where
/// the tree shows that they are further parts. An empty line says why one is set aside; nothing is known of the others.
/// A total whose filed parts do not give it is placed itself, and its parts are set aside.
LineChoices placeConcepts(std::span<const Fact> facts, const MappingRules& rules, const LineChoices& choices,
                          const ConceptNetwork& network, const PlacingRules& placing, const std::string& currency);

}  // namespace zl
