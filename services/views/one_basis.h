#pragma once
// One basis for the subject and its peers: how leases, stock pay and research are treated, and what
// each other choice would do to profit, capital and value.

#include <string>
#include <vector>

#include "services/stages/snapshot.h"
#include "services/text/figure_json.h"

namespace zl::services {

/// One choice of the model's group "One basis" and the one that stands beside it.
struct BasisSwitch {
  model::Role role = model::Role::Leases;
  std::string input;  ///< row of the model
  double chosen = 0;
  double other = 0;
  std::string otherWords;  ///< "Leases: rent"
};

/// A measure as the basis stands, and with each switch alone the other way.
struct BasisMeasure {
  std::string label;
  std::string row;  ///< of the model
  Kind kind = Kind::Money;
  bool baseYear = false;  ///< of the base year, else of the valuation
  Figure now;
  std::vector<Figure> other;  ///< in the order of BasisView::switches
};

struct BasisView {
  std::vector<BasisSwitch> switches;
  std::vector<BasisMeasure> measures;
};

/// Evaluates the whole case anew with each switch turned. Not meaningful figures keep their reason.
BasisView basisView(const Snapshot& s, int scenario);

/// The same, for the command line.
Json basisJson(const Snapshot& s, int scenario);
std::string basisText(const Snapshot& s, int scenario);

}  // namespace zl::services
