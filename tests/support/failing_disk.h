#pragma once
// A disk under SQLite that fails at the n-th operation and at all after it, or at that one only.

#include <sqlite3.h>

#include <cstring>
#include <string>

namespace zl::store {

class FailingDisk {
 public:
  /// Becomes the file system of every database opened while it lives.
  FailingDisk() {
    self() = this;
    real_ = sqlite3_vfs_find(nullptr);
    vfs_ = *real_;
    vfs_.zName = "failing";
    vfs_.szOsFile = static_cast<int>(sizeof(File)) + real_->szOsFile;
    vfs_.xOpen = open;
    sqlite3_vfs_register(&vfs_, 1);
  }
  ~FailingDisk() {
    sqlite3_vfs_register(real_, 1);
    sqlite3_vfs_unregister(&vfs_);
    self() = nullptr;
  }
  FailingDisk(const FailingDisk&) = delete;
  FailingDisk& operator=(const FailingDisk&) = delete;

  /// From now on the n-th write, sync or truncation fails with `code`; 0: none does.
  void failAt(int n, int code, bool once) {
    count_ = 0;
    at_ = n;
    code_ = code;
    once_ = once;
  }
  /// How many there have been since.
  [[nodiscard]] int count() const { return count_; }

 private:
  struct File {
    sqlite3_file base;
    sqlite3_file* real;  ///< stands right behind
  };

  static FailingDisk*& self() {
    static FailingDisk* disk = nullptr;
    return disk;
  }
  static sqlite3_file* real(sqlite3_file* f) { return reinterpret_cast<File*>(f)->real; }
  static int fault() {
    FailingDisk& d = *self();
    ++d.count_;
    const bool fails = d.at_ > 0 && (d.once_ ? d.count_ == d.at_ : d.count_ >= d.at_);
    return fails ? d.code_ : SQLITE_OK;
  }

  static int open(sqlite3_vfs*, const char* name, sqlite3_file* f, int flags, int* out) {
    auto* file = reinterpret_cast<File*>(f);
    file->real = reinterpret_cast<sqlite3_file*>(file + 1);
    const int done = self()->real_->xOpen(self()->real_, name, file->real, flags, out);
    file->base.pMethods = nullptr;
    if (done != SQLITE_OK) return done;
    static const sqlite3_io_methods kMethods = methods();
    file->base.pMethods = &kMethods;
    return SQLITE_OK;
  }

  static sqlite3_io_methods methods() {
    sqlite3_io_methods m{};
    m.iVersion = 3;
    m.xClose = [](sqlite3_file* f) { return real(f)->pMethods->xClose(real(f)); };
    m.xRead = [](sqlite3_file* f, void* to, int n, sqlite3_int64 at) {
      return real(f)->pMethods->xRead(real(f), to, n, at);
    };
    m.xWrite = [](sqlite3_file* f, const void* from, int n, sqlite3_int64 at) {
      const int failed = fault();
      if (failed == SQLITE_OK) return real(f)->pMethods->xWrite(real(f), from, n, at);
      // Half of it reaches the disk.
      real(f)->pMethods->xWrite(real(f), from, n / 2, at);
      return failed;
    };
    m.xTruncate = [](sqlite3_file* f, sqlite3_int64 size) {
      const int failed = fault();
      return failed != SQLITE_OK ? failed : real(f)->pMethods->xTruncate(real(f), size);
    };
    m.xSync = [](sqlite3_file* f, int flags) {
      const int failed = fault();
      return failed != SQLITE_OK ? failed : real(f)->pMethods->xSync(real(f), flags);
    };
    m.xFileSize = [](sqlite3_file* f, sqlite3_int64* size) { return real(f)->pMethods->xFileSize(real(f), size); };
    m.xLock = [](sqlite3_file* f, int lock) { return real(f)->pMethods->xLock(real(f), lock); };
    m.xUnlock = [](sqlite3_file* f, int lock) { return real(f)->pMethods->xUnlock(real(f), lock); };
    m.xCheckReservedLock = [](sqlite3_file* f, int* out) {
      return real(f)->pMethods->xCheckReservedLock(real(f), out);
    };
    m.xFileControl = [](sqlite3_file* f, int what, void* with) {
      return real(f)->pMethods->xFileControl(real(f), what, with);
    };
    m.xSectorSize = [](sqlite3_file* f) { return real(f)->pMethods->xSectorSize(real(f)); };
    m.xDeviceCharacteristics = [](sqlite3_file* f) { return real(f)->pMethods->xDeviceCharacteristics(real(f)); };
    m.xShmMap = [](sqlite3_file* f, int page, int size, int extend, void volatile** out) {
      return real(f)->pMethods->xShmMap(real(f), page, size, extend, out);
    };
    m.xShmLock = [](sqlite3_file* f, int at, int n, int flags) {
      return real(f)->pMethods->xShmLock(real(f), at, n, flags);
    };
    m.xShmBarrier = [](sqlite3_file* f) { real(f)->pMethods->xShmBarrier(real(f)); };
    m.xShmUnmap = [](sqlite3_file* f, int remove) { return real(f)->pMethods->xShmUnmap(real(f), remove); };
    m.xFetch = [](sqlite3_file* f, sqlite3_int64 at, int n, void** out) {
      return real(f)->pMethods->xFetch(real(f), at, n, out);
    };
    m.xUnfetch = [](sqlite3_file* f, sqlite3_int64 at, void* p) { return real(f)->pMethods->xUnfetch(real(f), at, p); };
    return m;
  }

  sqlite3_vfs* real_ = nullptr;
  sqlite3_vfs vfs_{};
  int count_ = 0, at_ = 0, code_ = SQLITE_OK;
  bool once_ = false;
};

}  // namespace zl::store
