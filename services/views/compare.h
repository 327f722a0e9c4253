#pragma once
// Versions side by side: what differs in the assumptions, what that does to the statements and to
// value, and the walk from one value to the other.

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/outlook/value_walk.h"
#include "services/sessions/session.h"
#include "services/stages/snapshot.h"
#include "services/text/figure_json.h"

namespace zl::services {

/// A version as it is looked at: a name and what it shows.
struct Side {
  std::string name;
  std::shared_ptr<const Snapshot> snapshot;
};

/// One line beside each other: a figure a side. `words` says how an assumption's path runs.
struct BesideLine {
  std::string row;  ///< name in the model; empty where it is none
  std::string label;
  std::string group;
  std::string scenario;  ///< id; empty where it holds for all
  std::string period;    ///< "2026E"; empty for constants
  Kind kind = Kind::Ratio;
  std::vector<Figure> figures;
  std::vector<std::string> words;
  std::vector<std::string> reasons;  ///< why each side assumes it
};

struct Comparison {
  std::vector<std::string> names;
  std::string unit;  ///< of values per share
  std::vector<BesideLine> values;
  std::vector<BesideLine> assumptions;  ///< those that are not the same in all
};

Comparison compare(const std::vector<Side>& sides);
/// A row of the statements in the years that any side projects or reports, a line a year.
std::vector<BesideLine> rowBeside(const std::vector<Side>& sides, const std::string& row, const std::string& scenario);

/// The walk between two sides; an empty scenario walks the probability-weighted value.
Result<ValueWalk> walkBetween(const Side& from, const Side& to, const std::string& scenario, bool byRow);

/// The side of a name: kNow, or a version of the session's company.
Result<Side> sideOf(Session& session, const std::string& name);

Json comparisonJson(const Comparison& c, const std::vector<Side>& sides, const std::string& scenario);
std::string comparisonText(const Comparison& c, const std::vector<Side>& sides, const std::string& scenario);
Json walkJson(const ValueWalk& walk, const Side& from, const Side& to);
std::string walkText(const ValueWalk& walk, const Side& from, const Side& to);

}  // namespace zl::services
