#pragma once
// A company's case as a file of its own: exported, kept under version control, applied again.

#include "services/sessions/session.h"

namespace zl::services {

/// The case as it is exported: JSON with an indent of two, and the entry of the journal it stood on.
Result<std::string> caseText(Session& session);

enum class Over {
  SameState,  ///< refuses a file that was exported from this book before later edits, and names them
  Anything,
};
/// Applies a case file as one edit; the case must be of the session's company.
Status applyCaseText(Session& session, const std::string& text, const std::string& source, Over over = Over::SameState);

}  // namespace zl::services
