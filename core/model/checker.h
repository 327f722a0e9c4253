#pragma once
// Refuses models that mean nothing: unknown names, money added to ratios, balances summed over
// time, flows averaged like balances, looks beyond the horizon, history that goes in circles.

#include "core/model/syntax.h"
#include "core/quantity/error.h"

namespace zl::model {

/// Checks and resolves references (sets Expr::row). The first fault is returned, naming the row
/// and the place in the text.
Status checkModel(Model& model);

}  // namespace zl::model
