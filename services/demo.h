#pragma once
// Builds the demo book from the files under demo/, the way a user would: import, then apply.

#include "services/session.h"

namespace zl::services {

/// Refuses a path that exists. The book's company is "vessingholt".
Status makeDemoBook(const std::string& path, std::shared_ptr<const Resources> resources, const Desk& desk);

/// Applies a case file to a session as one edit; the case must be of the session's company.
Status applyCaseText(Session& session, const std::string& text, const std::string& source);

/// The case as it is exported: JSON with an indent of two.
std::string caseText(const Snapshot& snapshot);

}  // namespace zl::services
