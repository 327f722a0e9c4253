#pragma once
// XBRL linkbases: which concept is a part of which, and what concepts are called (XBRL 2.1,
// section 5.2). Only the file given is read; concepts are told by the usual form of their ids,
// prefix_Name, because schemas are never fetched.

#include <string_view>

#include "core/filing/concept_network.h"
#include "core/quantity/error.h"
#include "exchange/stop_check.h"

namespace zl::exchange {

/// Calculation and presentation arcs, prohibited ones left out, and standard labels. Refuses files
/// that hold none of these, and more than 500,000 arcs or labels: locators that share a label
/// multiply.
Result<ConceptNetwork> readLinkbase(std::string_view content, const std::string& name, const StopCheck& stopped = {});

}  // namespace zl::exchange
