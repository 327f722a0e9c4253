#pragma once
// A file that is there whole or not at all: made under a hidden name in the same folder, synced,
// then given its own name.
//
//   Result<FileAside> aside = FileAside::beside("/home/a/case.json");
//   if (Status s = aside->write(text); !s) return s;
//   return aside->takePlace(FileAside::Over::Anything);
//
// What a kill leaves behind is locked by nobody and is cleared away by the next one beside it.

#include <string>
#include <string_view>

#include "core/quantity/error.h"

namespace zl::store {

class FileAside {
 public:
  /// Makes the hidden file. Fails where the folder is missing, full or not writable.
  static Result<FileAside> beside(const std::string& path);
  FileAside(FileAside&& other) noexcept;
  FileAside& operator=(FileAside&&) = delete;
  /// Without having taken its place it goes away.
  ~FileAside();

  [[nodiscard]] const std::string& path() const { return aside_; }
  /// Fails naming the disk where not all of it could be written.
  Status write(std::string_view content) const;

  enum class Over {
    Nothing,   ///< fails with Conflict where there is a file of that name
    Anything,  ///< takes a file's place
  };
  /// Syncs the file, gives it its name, syncs the folder. On failure the name is as it was.
  Status takePlace(Over over);

 private:
  FileAside(std::string path, std::string aside, int descriptor);
  std::string path_, aside_;
  int descriptor_ = -1;
};

/// Writes a file whole. A device or pipe, which cannot be replaced, is written to directly.
Status writeWhole(const std::string& path, std::string_view content);

}  // namespace zl::store
