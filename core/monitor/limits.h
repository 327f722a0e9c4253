#pragma once
// Where monitors draw their lines: each limit with its default, the measure it is held against and
// the range it may be moved in. The analyst's own stand in the case.

#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/outlook/case.h"
#include "core/quantity/kind.h"

namespace zl {

struct MonitorLimit {
  const char* monitor;  ///< name of the findings it makes
  const char* measure;  ///< what is held against it, in words
  Kind kind;            ///< how it is written: a share, a multiple, a count
  double preset;
  double low, high;  ///< what the analyst may set
};

std::span<const MonitorLimit> monitorLimits();
/// Null for a monitor that has no limit.
const MonitorLimit* monitorLimit(std::string_view monitor);
/// The limit in force: the case's own, else the preset. The monitor must have one.
double limitOf(const Case& c, const char* monitor);
/// What is wrong with the case's own limits: monitors that have none, figures outside the range.
std::vector<std::string> faultsOfLimits(const Case& c);

}  // namespace zl
