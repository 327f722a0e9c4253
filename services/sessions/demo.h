#pragma once
// Builds the demo book from the files under demo/, the way a user would: import, then apply.

#include "services/sessions/session.h"

namespace zl::services {

/// Refuses a path where there is a file, unless it is what a making that was cut short left. The book
/// is there whole or not at all. Its company is "vessingholt".
Status makeDemoBook(const std::string& path, std::shared_ptr<const Resources> resources, const Desk& desk);

}  // namespace zl::services
