#pragma once
// What a figure of a row looks like: as its kind is written, and a choice by its option's label.

#include "core/model/syntax.h"
#include "core/quantity/number_text.h"

namespace zl::model {

inline std::string shownText(const Row& row, const Figure& figure) {
  if (row.isChoice() && figure.hasValue()) {
    if (std::string label = optionLabel(row, figure.value()); !label.empty()) return label;
  }
  return figureText(figure, row.kind);
}

}  // namespace zl::model
