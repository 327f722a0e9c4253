#pragma once
// A figure of the market that somebody typed, as a document of its own: it comes and goes with its edit, and no
// table or fetch takes its place.

#include <string>

#include "core/outlook/case.h"
#include "core/quantity/error.h"

namespace zl::exchange {

struct TypedFigure {
  std::string series;  ///< "price", or a rate by its name
  Date at{};
  double figure = 0;  ///< of a price: listing units
  std::string unit;   ///< of a price: the listing's; empty for a rate
  Provenance said;
  friend bool operator==(const TypedFigure&, const TypedFigure&) = default;
};

std::string typedFigureText(const TypedFigure& typed);
Result<TypedFigure> typedFigureFrom(const std::string& text, const std::string& source);

}  // namespace zl::exchange
