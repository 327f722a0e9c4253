#include "store/place.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <sqlite3.h>
#include <sys/stat.h>
#include <sys/vfs.h>

#include <array>
#include <filesystem>
#include <mutex>
#include <optional>
#include <set>
#include <utility>

namespace zl::store {
namespace {

namespace fs = std::filesystem;

/// Which files are open here, by device and number. POSIX drops a process's locks on a file when it closes
/// any descriptor of it: whoever reads a file by other means asks first.
class OpenHere {
 public:
  using Id = std::pair<dev_t, ino_t>;
  std::optional<Id> add(const std::string& path) {
    const std::lock_guard<std::mutex> held(lock_);
    const std::optional<Id> id = idOf(path);
    if (id) open_.insert(*id);
    return id;
  }
  void remove(const Id& id) {
    const std::lock_guard<std::mutex> held(lock_);
    const auto at = open_.find(id);
    if (at != open_.end()) open_.erase(at);
  }
  bool has(const std::string& path) {
    const std::lock_guard<std::mutex> held(lock_);
    const auto id = idOf(path);
    return id && open_.count(*id) > 0;
  }

 private:
  static std::optional<Id> idOf(const std::string& path) {
    struct stat about {};
    return stat(path.c_str(), &about) == 0 ? std::optional(Id{about.st_dev, about.st_ino}) : std::nullopt;
  }
  std::mutex lock_;
  std::multiset<Id> open_;
};

OpenHere& openHere() {
  static OpenHere files;
  return files;
}

}  // namespace

OpenNote::OpenNote(const std::string& path) : file_(openHere().add(path)) {}

OpenNote::~OpenNote() {
  if (file_) openHere().remove(*file_);
}

bool isOpenHere(const std::string& path) {
  return openHere().has(path);
}

bool isOpen(const std::string& path) {
  if (isOpenHere(path)) return true;
  try {
    // In this mode a connection wants the file for itself, log and all.
    SQLite::Database alone(fs::absolute(path).string(), SQLite::OPEN_READWRITE, 0);
    alone.exec("PRAGMA locking_mode = EXCLUSIVE");
    alone.exec("BEGIN IMMEDIATE");
    alone.exec("ROLLBACK");
    return false;
  } catch (const SQLite::Exception& e) {
    return e.getErrorCode() == SQLITE_BUSY || e.getErrorCode() == SQLITE_LOCKED;
  }
}

std::string networkByNumber(long number) {
  // statfs(2), "File system types"; FUSE may be anything, a mounted server most often.
  static constexpr std::array<std::pair<unsigned, const char*>, 10> kNetworks = {{{0x6969, "NFS"},
                                                                                  {0xFF534D42, "CIFS"},
                                                                                  {0xFE534D42, "SMB"},
                                                                                  {0x517B, "SMB"},
                                                                                  {0x65735546, "FUSE"},
                                                                                  {0x01021997, "9P"},
                                                                                  {0x73757245, "Coda"},
                                                                                  {0x5346414F, "AFS"},
                                                                                  {0x00C36400, "Ceph"},
                                                                                  {0x0BD00BD0, "Lustre"}}};
  for (const auto& [known, name] : kNetworks) {
    if (static_cast<unsigned>(number) == known) return name;
  }
  return {};
}

std::string networkOf(const std::string& path) {
  struct statfs about {};
  std::filesystem::path folder = std::filesystem::path(path).parent_path();
  if (folder.empty()) folder = ".";
  return statfs(folder.c_str(), &about) == 0 ? networkByNumber(about.f_type) : std::string();
}

Status isFile(const std::string& path) {
  struct stat about {};
  if (stat(path.c_str(), &about) != 0) {
    return fail(ErrorKind::NotFound, "there is no such book", path, "Check the name, or make a new book");
  }
  if (!S_ISREG(about.st_mode)) return fail(ErrorKind::WrongKind, "this is not a file", path, "Choose a book");
  if (about.st_size == 0) {
    return fail(ErrorKind::WrongKind, "this file is empty: making a book here was cut short", path,
                "Make the book again under this name");
  }
  return {};
}

}  // namespace zl::store
