#pragma once
// Where a book lies: whether several programs may share a log beside it.

#include <sys/types.h>

#include <optional>
#include <string>
#include <utility>

#include "core/quantity/error.h"

namespace zl::store {

/// The name of the network file system that a path lies on, such as "NFS"; empty on a local disk and
/// where the system does not say. A log shared through memory (WAL) is safe on one machine only.
std::string networkOf(const std::string& path);

/// The same for the number that statfs(2) gives; empty for local file systems.
std::string networkByNumber(long number);

/// Fails on what is no regular file: a pipe would be waited for, a folder has no content, an empty file
/// is what a making that was cut short left.
Status isFile(const std::string& path);

/// Whether a book is open in this program: its file must not be read by other means meanwhile, which
/// would drop the program's locks on it.
bool isOpenHere(const std::string& path);
/// Held by whoever has one open, for as long. Of the file and not of its name, which may become another's meanwhile.
class OpenNote {
 public:
  explicit OpenNote(const std::string& path);
  ~OpenNote();
  OpenNote(const OpenNote&) = delete;
  OpenNote& operator=(const OpenNote&) = delete;

 private:
  std::optional<std::pair<dev_t, ino_t>> file_;  ///< device and number; none where there is no such file
};
/// Whether a book is open in this program or another. Of a book kept without a shared log only who is
/// reading or writing just now is seen.
bool isOpen(const std::string& path);

}  // namespace zl::store
