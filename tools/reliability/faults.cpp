// Loaded before a program (LD_PRELOAD): counts what it does to files below one folder, and at the
// n-th operation kills it, lets the operation fail, or pulls the plug: of all that was not synced a
// random part is dropped, torn at sectors, and then the program is killed.
//   FAULT_DIR    the folder
//   FAULT_AT     which operation; 0 or unset: none
//   FAULT_DO     kill | enospc | eio | plug
//   FAULT_SEED   for what survives a pulled plug
//   FAULT_COUNT  a file that the number of operations is written to at the end

#include <dlfcn.h>
#include <errno.h>
#include <fcntl.h>
#include <limits.h>
#include <signal.h>
#include <stdarg.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/stat.h>
#include <sys/syscall.h>
#include <unistd.h>

#include <map>
#include <mutex>
#include <random>
#include <string>
#include <vector>

namespace {

struct Written {
  off_t offset;
  std::string before;  // what stood there
  std::string bytes;   // what was written; empty for a change of size
  off_t sizeBefore;
  off_t sizeAfter;
};

/// A name that came, went or moved; what is needed to take it back.
struct Named {
  enum { Made, Removed, Moved } what;
  std::string path, to, kept;
};

struct State {
  std::string dir;
  long at = 0;
  long count = 0;
  std::string action;
  unsigned seed = 1;
  std::map<int, std::string> open;                    // descriptor -> path
  std::map<std::string, std::vector<Written>> pages;  // path -> not synced
  std::vector<Named> names;                           // in order, not synced
  int kept = 0;
  std::mutex lock;
  bool ready = false;
};

State& state() {
  static State* s = new State;  // outlives everything
  return *s;
}

template <class F>
F real(const char* name) {
  return reinterpret_cast<F>(dlsym(RTLD_NEXT, name));
}

thread_local bool inside = false;
struct Inside {
  Inside() { inside = true; }
  ~Inside() { inside = false; }
};

__attribute__((constructor)) void begin() {
  State& s = state();
  if (const char* dir = getenv("FAULT_DIR")) s.dir = dir;
  if (const char* at = getenv("FAULT_AT")) s.at = atol(at);
  if (const char* action = getenv("FAULT_DO")) s.action = action;
  if (const char* seed = getenv("FAULT_SEED")) s.seed = static_cast<unsigned>(atol(seed));
  s.ready = !s.dir.empty();
}

__attribute__((destructor)) void end() {
  const char* file = getenv("FAULT_COUNT");
  if (file == nullptr || !state().ready) return;
  Inside guard;
  if (FILE* f = fopen(file, "w")) {
    fprintf(f, "%ld\n", state().count);
    fclose(f);
  }
}

std::string whole(const char* path) {
  if (path[0] == '/') return path;
  char here[PATH_MAX];
  return getcwd(here, sizeof here) == nullptr ? std::string(path) : std::string(here) + "/" + path;
}

bool ours(const std::string& path) {
  return state().ready && !inside && path.compare(0, state().dir.size(), state().dir) == 0;
}

// The log's index in shared memory says nothing after a start: it is made anew.
bool isIndex(const std::string& path) {
  return path.size() > 4 && path.compare(path.size() - 4, 4, "-shm") == 0;
}

void rewrite(const std::string& path, std::vector<Written>& writes, std::mt19937& random) {
  const int fd = static_cast<int>(syscall(SYS_openat, AT_FDCWD, path.c_str(), O_RDWR));
  if (fd < 0) return;
  for (auto w = writes.rbegin(); w != writes.rend(); ++w) {
    if (!w->before.empty()) (void)!syscall(SYS_pwrite64, fd, w->before.data(), w->before.size(), w->offset);
    (void)!syscall(SYS_ftruncate, fd, w->sizeBefore);
  }
  for (const Written& w : writes) {
    if (w.bytes.empty()) {
      if (random() % 2 == 0) (void)!syscall(SYS_ftruncate, fd, w.sizeAfter);
      continue;
    }
    constexpr size_t kSector = 512;
    for (size_t at = 0; at < w.bytes.size(); at += kSector) {
      if (random() % 3 == 0) continue;  // this sector never reached the disk
      const size_t n = std::min(kSector, w.bytes.size() - at);
      (void)!syscall(SYS_pwrite64, fd, w.bytes.data() + at, n, w.offset + static_cast<off_t>(at));
    }
  }
  syscall(SYS_close, fd);
}

void plug() {
  State& s = state();
  std::mt19937 random(s.seed);
  for (auto& [path, writes] : s.pages) rewrite(path, writes, random);
  const size_t survive = s.names.empty() ? 0 : random() % (s.names.size() + 1);
  for (size_t i = s.names.size(); i-- > survive;) {
    const Named& n = s.names[i];
    if (n.what == Named::Made) syscall(SYS_unlinkat, AT_FDCWD, n.path.c_str(), 0);
    if (n.what == Named::Moved) {
      syscall(SYS_renameat2, AT_FDCWD, n.to.c_str(), AT_FDCWD, n.path.c_str(), 0);
      if (!n.kept.empty()) syscall(SYS_linkat, AT_FDCWD, n.kept.c_str(), AT_FDCWD, n.to.c_str(), 0);
    }
    if (n.what == Named::Removed && !n.kept.empty()) {
      syscall(SYS_linkat, AT_FDCWD, n.kept.c_str(), AT_FDCWD, n.path.c_str(), 0);
    }
  }
}

/// Counts one operation; an errno where it is to fail.
int counted() {
  State& s = state();
  if (++s.count != s.at) return 0;
  if (s.action == "enospc") return ENOSPC;
  if (s.action == "eio") return EIO;
  if (s.action == "plug") plug();
  syscall(SYS_kill, getpid(), SIGKILL);
  return 0;
}

#define STEP(path)                                 \
  std::unique_lock<std::mutex> held(state().lock); \
  Inside guard;                                    \
  if (const int fault = counted(); fault != 0) {   \
    errno = fault;                                 \
    return -1;                                     \
  }

/// A second name for what is about to lose its first.
std::string keep(const std::string& path) {
  State& s = state();
  if (s.action != "plug" || access(path.c_str(), F_OK) != 0) return {};
  const std::string kept = s.dir + "/../.kept-" + std::to_string(getpid()) + "-" + std::to_string(++s.kept);
  return syscall(SYS_linkat, AT_FDCWD, path.c_str(), AT_FDCWD, kept.c_str(), 0) == 0 ? kept : std::string();
}

void note(int fd, const std::string& path, const void* bytes, size_t n, off_t offset) {
  struct stat about {};
  fstat(fd, &about);
  Written w{offset, std::string(n, '\0'), std::string(static_cast<const char*>(bytes), n), about.st_size, 0};
  const long had = syscall(SYS_pread64, fd, w.before.data(), n, offset);
  w.before.resize(had > 0 ? static_cast<size_t>(had) : 0);
  if (!isIndex(path)) state().pages[path].push_back(std::move(w));
}

void synced(int fd, const std::string& path) {
  State& s = state();
  struct stat about {};
  if (fstat(fd, &about) == 0 && S_ISDIR(about.st_mode)) {
    std::vector<Named> left;
    for (Named& n : s.names) {
      const std::string& name = n.what == Named::Moved ? n.to : n.path;
      if (name.substr(0, name.rfind('/')) != path) left.push_back(std::move(n));
    }
    s.names = std::move(left);
  } else {
    s.pages.erase(path);
  }
}

std::string pathOf(int fd) {
  const auto found = state().open.find(fd);
  return found == state().open.end() ? std::string() : found->second;
}

template <class Open>
int opened(const char* name, const char* path, int flags, mode_t mode) {
  static const Open call = real<Open>(name);
  const std::string full = whole(path);
  if (!ours(full)) return call(path, flags, mode);
  const bool fresh = (flags & O_CREAT) != 0 && access(full.c_str(), F_OK) != 0;
  if (fresh) {
    STEP(full)
    const int fd = call(path, flags, mode);
    if (fd >= 0) {
      state().open[fd] = full;
      if (!isIndex(full)) state().names.push_back({Named::Made, full, {}, {}});
    }
    return fd;
  }
  const int fd = call(path, flags, mode);
  std::unique_lock<std::mutex> held(state().lock);
  if (fd >= 0) state().open[fd] = full;
  return fd;
}

mode_t modeOf(int flags, va_list args) {
  return (flags & (O_CREAT | O_TMPFILE)) != 0 ? static_cast<mode_t>(va_arg(args, int)) : 0;
}

}  // namespace

extern "C" {

using Open = int (*)(const char*, int, ...);

#define OPEN(name)                                 \
  int name(const char* path, int flags, ...) {     \
    va_list args;                                  \
    va_start(args, flags);                         \
    const mode_t mode = modeOf(flags, args);       \
    va_end(args);                                  \
    return opened<Open>(#name, path, flags, mode); \
  }
OPEN(open)
OPEN(open64)

int close(int fd) {
  static const auto call = real<int (*)(int)>("close");
  if (state().ready && !inside) {
    std::unique_lock<std::mutex> held(state().lock);
    state().open.erase(fd);
  }
  return call(fd);
}

ssize_t write(int fd, const void* bytes, size_t n) {
  static const auto call = real<ssize_t (*)(int, const void*, size_t)>("write");
  const std::string path = inside ? std::string() : pathOf(fd);
  if (path.empty()) return call(fd, bytes, n);
  STEP(path)
  note(fd, path, bytes, n, static_cast<off_t>(syscall(SYS_lseek, fd, 0, SEEK_CUR)));
  return call(fd, bytes, n);
}

#define PWRITE(name)                                                                    \
  ssize_t name(int fd, const void* bytes, size_t n, off_t offset) {                     \
    static const auto call = real<ssize_t (*)(int, const void*, size_t, off_t)>(#name); \
    const std::string path = inside ? std::string() : pathOf(fd);                       \
    if (path.empty()) return call(fd, bytes, n, offset);                                \
    STEP(path)                                                                          \
    note(fd, path, bytes, n, offset);                                                   \
    return call(fd, bytes, n, offset);                                                  \
  }
PWRITE(pwrite)
PWRITE(pwrite64)

#define TRUNCATE(name)                                                                       \
  int name(int fd, off_t size) {                                                             \
    static const auto call = real<int (*)(int, off_t)>(#name);                               \
    const std::string path = inside ? std::string() : pathOf(fd);                            \
    if (path.empty()) return call(fd, size);                                                 \
    STEP(path)                                                                               \
    struct stat about {};                                                                    \
    fstat(fd, &about);                                                                       \
    std::string cut;                                                                         \
    if (size < about.st_size) {                                                              \
      cut.resize(static_cast<size_t>(about.st_size - size));                                 \
      (void)!syscall(SYS_pread64, fd, cut.data(), cut.size(), size);                         \
    }                                                                                        \
    if (!isIndex(path)) state().pages[path].push_back({size, cut, {}, about.st_size, size}); \
    return call(fd, size);                                                                   \
  }
TRUNCATE(ftruncate)
TRUNCATE(ftruncate64)

#define SYNC(name)                                                \
  int name(int fd) {                                              \
    static const auto call = real<int (*)(int)>(#name);           \
    const std::string path = inside ? std::string() : pathOf(fd); \
    if (path.empty()) return call(fd);                            \
    STEP(path)                                                    \
    synced(fd, path);                                             \
    return 0;                                                     \
  }
SYNC(fsync)
SYNC(fdatasync)

int rename(const char* from, const char* to) {
  static const auto call = real<int (*)(const char*, const char*)>("rename");
  const std::string full = whole(to);
  if (!ours(full)) return call(from, to);
  STEP(full)
  const std::string kept = keep(full);
  const int done = call(from, to);
  if (done == 0) state().names.push_back({Named::Moved, whole(from), full, kept});
  return done;
}

int renameat2(int a, const char* from, int b, const char* to, unsigned flags) {
  const std::string full = whole(to);
  if (!ours(full)) return static_cast<int>(syscall(SYS_renameat2, a, from, b, to, flags));
  STEP(full)
  const int done = static_cast<int>(syscall(SYS_renameat2, a, from, b, to, flags));
  if (done == 0) state().names.push_back({Named::Moved, whole(from), full, {}});
  return done;
}

#define REMOVE(name)                                                          \
  int name(const char* path) {                                                \
    static const auto call = real<int (*)(const char*)>(#name);               \
    const std::string full = whole(path);                                     \
    if (!ours(full) || isIndex(full)) return call(path);                      \
    STEP(full)                                                                \
    const std::string kept = keep(full);                                      \
    const int done = call(path);                                              \
    if (done == 0) state().names.push_back({Named::Removed, full, {}, kept}); \
    return done;                                                              \
  }
REMOVE(unlink)
REMOVE(remove)

}  // extern "C"
