#pragma once
// The command line, callable in process with streams and a desk of the caller's choice.

#include <iosfwd>
#include <string>
#include <vector>

#include "services/sessions/session.h"

namespace zl::cli {

/// Runs one command; returns the exit status: 0 done, 1 refused with one message, 2 wrong usage.
int run(const std::vector<std::string>& arguments, std::ostream& out, std::ostream& err, const services::Desk& desk);

}  // namespace zl::cli
