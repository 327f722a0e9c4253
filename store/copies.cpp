#include "store/copies.h"

#include <algorithm>
#include <filesystem>

#include "store/book_impl.h"
#include "store/place.h"
#include "store/whole_file.h"

namespace zl::store {
namespace {

namespace fs = std::filesystem;
constexpr std::string_view kFolderEnding = ".copies";
constexpr std::string_view kBookEnding = ".zledger";
constexpr size_t kDaysKept = 7;
constexpr size_t kOthersKept = 3;

/// "2026-11-27"
bool isDay(const std::string& name) {
  return parseDate(name).has_value();
}

/// What a copy's name begins with before its day or time: copies of one reason age together.
std::string reasonOf(const std::string& name) {
  return isDay(name) ? "day" : name.substr(0, name.find_first_of("0123456789"));
}

void dropOld(const std::string& book, const std::string& reason, size_t kept) {
  for (const Copy& copy : copiesOf(book)) {
    if (reasonOf(copy.name) != reason) continue;
    if (kept > 0) {
      --kept;
      continue;
    }
    std::error_code ignored;
    fs::remove(copy.path, ignored);
  }
}

/// Writes what a connection sees into a file of its own.
Status writeCopy(Database& db, const std::string& path) {
  Result<FileAside> aside = FileAside::beside(path);
  if (!aside) return tl::unexpected(aside.error());
  try {
    Database copy(aside->path(), Access::Making);
    SQLite::Backup backup(copy.raw(), db.raw());
    backup.executeStep(-1);
  } catch (const SQLite::Exception& e) {
    Error error = errorOf(e, path);
    error.what = "the copy could not be made: " + error.what;
    return tl::unexpected(error);
  }
  return aside->takePlace(FileAside::Over::Nothing);
}

/// Keeps what stands in the book's place: as a book where it can be read, else file by file.
Result<std::string> keepPresent(const std::string& book, const std::string& now) {
  std::error_code error;
  fs::create_directories(copiesFolder(book), error);
  const std::string name = "before going back " + now;
  const fs::path kept = fs::path(copiesFolder(book)) / (name + std::string(kBookEnding));
  {
    Result<Book> whole = Book::look(book);
    if (whole && whole->verify() && whole->copyTo(kept.string())) {
      dropOld(book, reasonOf(name), kOthersKept);
      try {
        // Into the file what stands in its log, so that at no moment the one is without the other.
        Database(book, Access::Write).raw().execAndGet("PRAGMA wal_checkpoint(TRUNCATE)");
      } catch (const SQLite::Exception& e) {
        return tl::unexpected(errorOf(e, book));
      }
      return kept.string();
    }
  }
  const fs::path damaged = fs::path(copiesFolder(book)) / ("damaged " + now + std::string(kBookEnding));
  for (const char* ending : {"-wal", "-journal", ""}) {  // the file itself last: only with its log it is what it was
    if (!fs::exists(book + ending, error)) continue;
    fs::rename(book + ending, damaged.string() + ending, error);
    if (error) {
      return fail(ErrorKind::Storage, "the book that stands there cannot be kept: " + error.message(), book,
                  "Check your rights to its folder");
    }
  }
  return damaged.string();
}

}  // namespace

std::string copiesFolder(const std::string& book) {
  return book + std::string(kFolderEnding);
}

std::vector<Copy> copiesOf(const std::string& book) {
  std::vector<std::pair<fs::file_time_type, Copy>> found;
  std::error_code error;
  for (fs::directory_iterator at(copiesFolder(book), error), end; !error && at != end; at.increment(error)) {
    const fs::path& path = at->path();
    if (path.extension() != kBookEnding) continue;
    std::error_code ignored;
    found.push_back({fs::last_write_time(path, ignored), {path.string(), path.stem().string()}});
  }
  std::sort(found.begin(), found.end(), [](const auto& a, const auto& b) {
    return std::tie(a.first, a.second.name) > std::tie(b.first, b.second.name);
  });
  std::vector<Copy> list;
  for (auto& [time, copy] : found) list.push_back(std::move(copy));
  return list;
}

std::string bookOfCopy(const std::string& path) {
  const std::string folder = fs::absolute(path).parent_path().string();
  if (!folder.ends_with(kFolderEnding)) return {};
  return folder.substr(0, folder.size() - kFolderEnding.size());
}

Status copyOnce(Database& db, const std::string& name) {
  std::error_code error;
  fs::create_directories(copiesFolder(db.path()), error);
  if (error) return fail(ErrorKind::Storage, "no copy can be kept beside the book: " + error.message(), db.path());
  const std::string path = (fs::path(copiesFolder(db.path())) / (name + std::string(kBookEnding))).string();
  if (fs::exists(path, error)) return {};
  Status made = writeCopy(db, path);
  if (!made && made.error().kind == ErrorKind::Conflict) return {};  // another program made it meanwhile
  if (made) dropOld(db.path(), reasonOf(name), isDay(name) ? kDaysKept : kOthersKept);
  return made;
}

Status copyForDay(const std::string& book, const std::string& day) {
  try {
    Database db(book, Access::Write);
    return copyOnce(db, day);
  } catch (const SQLite::Exception& e) {
    return tl::unexpected(errorOf(e, book));
  }
}

Status Book::copyTo(const std::string& path) {
  return impl_->run([&](SQLite::Database&) -> Status { return writeCopy(impl_->db, path); });
}

Result<std::string> putBack(const std::string& copy, const std::string& book, const std::string& now) {
  {
    Result<Book> whole = Book::look(copy);
    if (!whole) return tl::unexpected(whole.error());
    if (Status s = whole->verify(); !s) return tl::unexpected(s.error());
  }
  if (isOpen(book)) {
    return fail(ErrorKind::Busy, "the book is open, here or in another program", book,
                "Close it first; nothing was changed");
  }
  Result<FileAside> aside = FileAside::beside(book);
  if (!aside) return tl::unexpected(aside.error());
  try {
    Database from(copy, Access::Look);
    Database to(aside->path(), Access::Making);
    SQLite::Backup(to.raw(), from.raw()).executeStep(-1);
  } catch (const SQLite::Exception& e) {
    return tl::unexpected(errorOf(e, book));
  }
  Result<std::string> kept = keepPresent(book, now);
  if (!kept) return kept;
  std::error_code ignored;
  for (const char* ending : {"-wal", "-shm", "-journal"}) fs::remove(book + ending, ignored);
  if (Status s = aside->takePlace(FileAside::Over::Anything); !s) return tl::unexpected(s.error());
  return kept;
}

Status takeAway(const std::string& book, const std::string& into) {
  if (isOpen(book)) {
    return fail(ErrorKind::Busy, "the book is open, here or in another program, and stays where it is", book,
                "Its copy is " + into);
  }
  std::error_code error;
  fs::create_directories(copiesFolder(into), error);
  for (const Copy& copy : copiesOf(book)) {
    const fs::path there = fs::path(copiesFolder(into)) / fs::path(copy.path).filename();
    if (!fs::exists(there)) fs::rename(copy.path, there, error);
    if (error)
      return fail(ErrorKind::BadInput, "a copy could not be moved: " + error.message(), copy.path,
                  "Both books are whole");
  }
  fs::remove(book, error);
  if (error)
    return fail(ErrorKind::BadInput, "it could not be taken away: " + error.message(), book, "Both books are whole");
  fs::remove(copiesFolder(book), error);  // only where nothing is left in it
  return {};
}

}  // namespace zl::store
