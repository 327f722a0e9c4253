#pragma once
// An expression in the words of its rows' labels: "the larger of 0 and value before the floor".

#include <string>

#include "core/model/syntax.h"

namespace zl::model {

/// Labels begin small unless they are names or abbreviations; a row that the model does not have keeps its name.
std::string expressionWords(const Expr& expr, const Model& m);

}  // namespace zl::model
