#pragma once
// How much base's value per share moves with one driver or input between its usual ends.

#include <string>
#include <vector>

#include "core/quantity/figure.h"
#include "core/quantity/kind.h"
#include "services/stages/snapshot.h"

namespace zl::services {

struct Swing {
  std::string apart;  ///< between what it is tried: "quartiles of 7 regular years"
  Figure low, high;   ///< base value at its lower and its upper end
  Figure effect;      ///< how far these lie apart, never negative; absent where base has no value
};

struct Swings {
  Kind kind = Kind::Quote;  ///< per share in the listing's unit, or money where shares are not counted
  Figure value;             ///< of base
  std::vector<Swing> of;    ///< in the order asked for
};

/// Every row by itself, a driver or an input that is no choice between options: from the lower to the upper quartile of
/// its regular history, of its peers' range where history is short, a tenth either way where there is neither.
Swings swingsOf(const Snapshot& s, const std::vector<model::RowId>& rows);

}  // namespace zl::services
