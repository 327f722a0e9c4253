#pragma once
// The part of a program that one figure stands on: what a question with many lanes and one answer needs to run.

#include "core/model/program.h"

namespace zl::model {

/// A program that gives `wanted` the bits that the whole one gives it: of its cells those that `wanted` reads, over
/// however many steps, and no other. Without a slot for `wanted` nothing is left of it.
Program sliceFor(const Program& whole, Cell wanted);

}  // namespace zl::model
