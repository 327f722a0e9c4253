#pragma once
// What moves the value of base most among what nobody has decided: asked for when a finding is read that names it.

#include <string>

#include "core/outlook/evaluation.h"

namespace zl {

/// Labels of the three drivers and inputs, proposed or left to the model, of which a tenth more moves base's value per
/// share before the floor most, with a comma between; empty where none moves it.
std::string undecidedThatMoveMost(const Evaluation& e);

}  // namespace zl
