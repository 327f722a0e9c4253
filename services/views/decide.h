#pragma once
// Decide next: what the analyst has not decided yet, ranked by what it moves.

#include <string>
#include <vector>

#include "core/quantity/figure.h"
#include "exchange/json/json.h"
#include "services/edits/edits.h"
#include "services/stages/snapshot.h"

namespace zl::services {

/// A driver or input of base that follows a proposal or the model's preset.
struct Undecided {
  model::RowId row;
  bool placeholder = false;  ///< it stands on a round figure, not on evidence
  bool proposed = false;     ///< else the model's preset
  std::string words;         ///< its path or figure
  std::string reason;        ///< of the proposal
  std::string apart;         ///< between what it is tried: "quartiles of 7 regular years"
  Figure low, high;          ///< base value at its lower and its upper quartile
  Figure effect;             ///< how far these lie apart, never negative; absent where base has no value
};

struct DecideNext {
  Kind kind = Kind::Quote;  ///< of the effects: per share in the listing's unit, or money where shares are not counted
  Figure value;             ///< of base
  std::vector<Undecided> list;  ///< placeholders that move the value first, then by effect, largest first
};

/// Choices between options are left out: they are decisions by themselves, shown where they are taken.
DecideNext decideNext(const Snapshot& s);

/// Takes a driver or input of base as it stands, with a reason, so that it is decided.
CaseEdit confirm(const Snapshot& s, model::RowId row, const Provenance& said);

std::string decideText(const DecideNext& next, const Snapshot& s);
exchange::Json decideJson(const DecideNext& next, const Snapshot& s);

}  // namespace zl::services
