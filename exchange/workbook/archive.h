#pragma once
// A zip archive in memory, read entry by entry within bounds. Nothing is ever written to disk.

#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/error.h"

namespace zl::exchange {

class Archive {
 public:
  /// Opens the central directory. Refuses archives with over 10,000 entries.
  static Result<Archive> open(std::string_view content, const std::string& source);
  Archive(Archive&&) noexcept;
  Archive& operator=(Archive&&) noexcept;
  ~Archive();

  [[nodiscard]] bool has(const std::string& entry) const;
  /// Files in the archive, in its order; folders are left out.
  [[nodiscard]] std::vector<std::string> names() const;
  /// An entry whole. Stops reading, whatever sizes the archive declares, when one entry is over
  /// 256 MiB, all entries together are over 512 MiB, or an entry over 1 MiB is more than 1,000
  /// times its compressed size: the marks of a bomb. Encrypted and damaged entries are refused.
  [[nodiscard]] Result<std::string> read(const std::string& entry);

 private:
  struct Impl;
  explicit Archive(std::unique_ptr<Impl> impl);
  std::unique_ptr<Impl> impl_;
};

/// "xl/worksheets/sheet1.xml" from a part's folder and a target that may be relative or start with
/// '/'. Empty where the target leaves the archive.
std::string resolvePart(const std::string& folder, const std::string& target);

}  // namespace zl::exchange
