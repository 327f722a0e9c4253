#pragma once
// The part of a program that a few figures stand on: what a question with many lanes and few answers needs to run.

#include <set>
#include <span>

#include "core/model/program.h"

namespace zl::model {

/// A program that gives the cells `wanted` the bits that the whole one gives them: of its cells those that they read,
/// over however many steps, and no other. Without a slot for any of them nothing is left of it.
Program sliceFor(const Program& whole, std::span<const Cell> wanted);
/// The same where nothing but the rows `moved` will differ from a run whose figures are known: computed cells that read
/// none of them are inputs of it, to be filled from that run. A circular group is computed whole or not at all.
Program sliceFor(const Program& whole, std::span<const Cell> wanted, const std::set<RowId>& moved);

}  // namespace zl::model
