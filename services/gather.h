#pragma once
// A company's active documents in a book, read into evidence.

#include <memory>

#include "services/snapshot.h"
#include "store/book.h"

namespace zl::services {

/// Fails when the book has no record of the company, or a document kept in it cannot be read.
/// With `only`, those documents stand in place of the active ones: the evidence as it once was.
Result<std::shared_ptr<const Evidence>> gather(store::Book& book, const std::string& company,
                                               const std::vector<std::int64_t>* only = nullptr);

}  // namespace zl::services
