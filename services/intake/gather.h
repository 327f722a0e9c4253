#pragma once
// A company's active documents in a book, read into what values stand on.

#include <memory>
#include <optional>

#include "services/stages/snapshot.h"
#include "store/book.h"

namespace zl::services {

/// The documents that stood, and when: what was fetched later does not count.
struct AsOf {
  std::vector<std::int64_t> documents;
  std::string at;  ///< ISO 8601
};

/// Fails when the book has no record of the company, or a document kept in it cannot be read. With `asOf`, those
/// documents stand in place of the active ones: the sources as they once were.
Result<Sources> gather(store::Book& book, const std::string& company, const std::optional<AsOf>& asOf = std::nullopt);

}  // namespace zl::services
