#pragma once
// Ready-made own rows: revenue built from the parts that are filed, from a volume and what one of
// it brings, and debt by tranche. Each is model text of the analyst's own, to be accepted, changed
// or dropped like any other; nothing about it is fixed in the shipped model.

#include <string>
#include <vector>

#include "services/stages/snapshot.h"

namespace zl::services {

struct Build {
  std::string label;
  std::string text;  ///< in the model language, upon the model in use
};

/// What the evidence has data for and the model in use can take, each as text that stands by itself:
///  - revenue by the parts of an axis whose revenue is filed for the base year: a growth each;
///  - the same with each part's profit: a margin each, and the cost that stands in no part;
///  - revenue, or a part's, as an operating figure of the record times revenue per unit of it;
///  - borrowings by tranche of the record's debt due: amount, rate, year due and draw each, what
///    falls due refinanced or repaid, and what stands in no tranche.
/// A line that is built already, by what the case's own rows say, is not offered again.
std::vector<Build> buildsFor(const Snapshot& s);

}  // namespace zl::services
