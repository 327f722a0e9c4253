#pragma once
// A multiple of peers, written out as the rows that it stands for.

#include <string>

#include "core/model/syntax.h"

namespace zl::model {

/// Model text: the givens of what peers are at in the low, median, mean and high, the subject's own multiple at its
/// price (own_NAME), and what each statistic implies per share (by_NAME_low and so on).
std::string rowsOf(const PeerMultiple& multiple);

/// A multiple of a row of a model as a text declares it, with the name and the words that go with it: "EV to orders,
/// next year", of "orders of next year".
PeerMultiple multipleOfRow(const Row& row, bool ofFirm, PeerMultiple::Of of);
/// Its line of a text.
std::string lineOf(const PeerMultiple& multiple);

}  // namespace zl::model
