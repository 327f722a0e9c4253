#pragma once
// The first outlook upon a ground: the case with everything that the analyst has not decided proposed.
// In: a case that asks for proposals, its ground, the market. Out: the case as it is evaluated.

#include <map>
#include <string>

#include "core/outlook/evaluation.h"
#include "core/peers/peer.h"
#include "services/stages/ground.h"

namespace zl::services {

/// What history rules read, proposed before there is a history. A case that asks for no proposals comes back as it is,
/// but for inputs that are drivers of the model by now.
Case withProposedInputs(Case c, const Resources& resources, const Evidence& evidence, const StandardStatements& filed);

/// Everything else: base, then worst and best upon it.
Case withProposals(Case c, const Ground& ground, const Market& market, const Givens& givens, const CrossCheck& peers);

}  // namespace zl::services
