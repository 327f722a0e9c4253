#pragma once
// Words that stories share about the snapshot's rows and scenarios.

#include <algorithm>

#include "services/stages/snapshot.h"

namespace zl::services {

inline const model::Row& rowAt(const Snapshot& s, model::RowId row) {
  return s.evaluation->model()[row];
}

/// The base scenario's number.
inline int baseLane(const Snapshot& s) {
  return std::max(0, s.caseOf().indexOf(kBase));
}

}  // namespace zl::services
