#include "store/whole_file.h"

#include <fcntl.h>
#include <linux/fs.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <atomic>
#include <cerrno>
#include <cstdio>
#include <cstring>
#include <filesystem>

namespace zl::store {
namespace {

namespace fs = std::filesystem;
constexpr std::size_t kLongestName = 180;  ///< bytes of the file's own name kept in the hidden one
constexpr std::string_view kPartEnding = ".zl-part";

tl::unexpected<Error> refused(const std::string& path, const char* what, int code) {
  const bool full = code == ENOSPC || code == EDQUOT || code == EFBIG;
  return fail(ErrorKind::Storage, std::string(what) + ": " + std::strerror(code), path,
              full ? "Free some space, or choose another place" : "Check the folder and your rights to it");
}

std::string hiddenStart(const fs::path& path) {
  return "." + path.filename().string().substr(0, kLongestName) + ".";
}

/// ".NAME.1234-1.zl-part", and nobody else's.
bool isOurs(std::string_view name, const std::string& start) {
  if (!name.starts_with(start) || !name.ends_with(kPartEnding) || name.size() <= start.size() + kPartEnding.size())
    return false;
  const std::string_view middle = name.substr(start.size(), name.size() - start.size() - kPartEnding.size());
  return middle.find_first_not_of("0123456789-") == std::string_view::npos;
}

fs::path folderOf(const fs::path& path) {
  return path.has_parent_path() ? path.parent_path() : fs::path(".");
}

/// Clears away what a program that was killed left beside `path`: whoever still writes holds a lock.
void clearLeftovers(const fs::path& path) {
  const std::string start = hiddenStart(path);
  std::error_code error;
  for (fs::directory_iterator at(folderOf(path), error), end; !error && at != end; at.increment(error)) {
    const std::string name = at->path().filename().string();
    if (!isOurs(name, start)) continue;
    const int descriptor = open(at->path().c_str(), O_RDONLY | O_CLOEXEC | O_NOFOLLOW | O_NONBLOCK);
    if (descriptor < 0) continue;
    if (flock(descriptor, LOCK_EX | LOCK_NB) == 0) unlink(at->path().c_str());
    close(descriptor);
  }
}

Status syncFolder(const fs::path& folder, const std::string& path) {
  const int descriptor = open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
  if (descriptor < 0) return {};  // a folder that may be written in and not read: the name is there
  const int done = fsync(descriptor);
  const int code = errno;
  close(descriptor);
  if (done != 0 && code != EINVAL && code != ENOTSUP) return refused(path, "the folder could not be synced", code);
  return {};
}

Status writeAll(int descriptor, std::string_view content, const std::string& path) {
  while (!content.empty()) {
    const ssize_t written = ::write(descriptor, content.data(), content.size());
    if (written < 0 && errno == EINTR) continue;
    if (written < 0) return refused(path, "the file cannot be written", errno);
    content.remove_prefix(static_cast<std::size_t>(written));
  }
  return {};
}

/// Gives the file its name unless something has it; the number of the system's error, 0 when done.
int renameOnly(const std::string& from, const std::string& to) {
  if (renameat2(AT_FDCWD, from.c_str(), AT_FDCWD, to.c_str(), RENAME_NOREPLACE) == 0) return 0;
  if (errno != EINVAL && errno != ENOSYS) return errno;
  // File systems without that call: a second name fails where there is one.
  if (link(from.c_str(), to.c_str()) != 0) return errno;
  unlink(from.c_str());
  return 0;
}

}  // namespace

FileAside::FileAside(std::string path, std::string aside, int descriptor)
    : path_(std::move(path)), aside_(std::move(aside)), descriptor_(descriptor) {}

FileAside::FileAside(FileAside&& other) noexcept
    : path_(std::move(other.path_)), aside_(std::move(other.aside_)), descriptor_(other.descriptor_) {
  other.descriptor_ = -1;
}

FileAside::~FileAside() {
  if (descriptor_ < 0) return;
  unlink(aside_.c_str());
  close(descriptor_);
}

Result<FileAside> FileAside::beside(const std::string& path) {
  static std::atomic<int> count{0};
  clearLeftovers(path);
  while (true) {
    std::string name = hiddenStart(path) + std::to_string(getpid()) + "-" + std::to_string(++count);
    name += kPartEnding;
    std::string aside = (folderOf(path) / name).string();
    const int descriptor = open(aside.c_str(), O_RDWR | O_CREAT | O_EXCL | O_CLOEXEC, 0666);
    if (descriptor < 0 && errno == EEXIST) continue;
    if (descriptor < 0) return refused(path, "the file cannot be made", errno);
    FileAside made(path, std::move(aside), descriptor);
    // Another program may clear it away in the moment before it is locked.
    struct stat now {};
    if (flock(descriptor, LOCK_EX) != 0 || (fstat(descriptor, &now) == 0 && now.st_nlink > 0)) return made;
  }
}

Status FileAside::write(std::string_view content) const {
  return writeAll(descriptor_, content, path_);
}

Status FileAside::takePlace(Over over) {
  if (fsync(descriptor_) != 0) return refused(path_, "the file could not be synced", errno);
  if (over == Over::Anything) {
    struct stat old {};  // the rights that the file had stay
    if (stat(path_.c_str(), &old) == 0 && fchmod(descriptor_, old.st_mode & 07777) != 0 && errno != EPERM) {
      return refused(path_, "the file's rights cannot be kept", errno);
    }
    if (rename(aside_.c_str(), path_.c_str()) != 0) return refused(path_, "the file cannot be replaced", errno);
  } else if (const int code = renameOnly(aside_, path_); code != 0) {
    if (code == EEXIST) {
      return fail(ErrorKind::Conflict, "there is already a file of this name", path_, "Choose another name");
    }
    return refused(path_, "the file cannot be given its name", code);
  }
  close(descriptor_);
  descriptor_ = -1;
  return syncFolder(folderOf(path_), path_);
}

Status writeWhole(const std::string& path, std::string_view content) {
  struct stat present {};
  if (stat(path.c_str(), &present) == 0 && !S_ISREG(present.st_mode)) {
    if (S_ISDIR(present.st_mode)) return fail(ErrorKind::WrongKind, "this is a folder", path, "Name a file");
    const int descriptor = open(path.c_str(), O_WRONLY | O_CLOEXEC | O_NONBLOCK);
    if (descriptor < 0) return refused(path, "it cannot be written to", errno);
    Status written = writeAll(descriptor, content, path);
    if (close(descriptor) != 0 && written) written = refused(path, "it cannot be written to", errno);
    return written;
  }
  // A link stays a link: what it points at is replaced.
  std::error_code error;
  const std::string target = fs::is_symlink(path, error) ? fs::weakly_canonical(path, error).string() : path;
  Result<FileAside> aside = FileAside::beside(error ? path : target);
  if (!aside) return tl::unexpected(aside.error());
  if (Status s = aside->write(content); !s) return s;
  return aside->takePlace(FileAside::Over::Anything);
}

}  // namespace zl::store
