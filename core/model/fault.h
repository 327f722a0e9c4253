#pragma once

#include "core/quantity/error.h"

namespace zl::model {

/// What is wrong with a model text, on its way out of a nested reading: thrown and caught inside the parser, the
/// checker and the bindings, each of which returns it as a value.
struct Fault {
  Error error;
};

}  // namespace zl::model
