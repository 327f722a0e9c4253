#include "store/database.h"

#include <sqlite3.h>
#include <unistd.h>

#include <cctype>
#include <cstdlib>
#include <filesystem>

#include "store/place.h"

namespace zl::store {
namespace {

namespace fs = std::filesystem;
constexpr int kPatience = 5000;       // milliseconds
constexpr int kStepsATick = 100'000;  // of SQLite's virtual machine
constexpr long long kFreeSteps = 50'000'000;
constexpr long long kStepsAByte = 40;  // reading facts costs about one

/// Whether a log or a journal stands beside the file: somebody has it open, or left without closing it.
bool hasCompany(const std::string& path) {
  std::error_code error;
  return fs::exists(path + "-wal", error) || fs::exists(path + "-journal", error);
}

/// A copy with its log in a folder of its own, for a book whose log can be neither merged nor shared where it is.
std::string copied(const std::string& path) {
  std::error_code none;
  std::string name = (fs::temp_directory_path(none) / "zledger-look-XXXXXX").string();
  if (none || mkdtemp(name.data()) == nullptr) throw SQLite::Exception("no room for a copy to look at", SQLITE_FULL);
  const fs::path to = fs::path(name) / "book";
  std::error_code error;
  fs::copy_file(path, to, error);
  for (const char* ending : {"-wal", "-journal"}) {
    if (!error && fs::exists(path + ending)) fs::copy_file(path + ending, to.string() + ending, error);
  }
  if (error) {
    std::error_code ignored;
    fs::remove_all(name, ignored);
    throw SQLite::Exception("no room for a copy to look at", SQLITE_FULL);
  }
  return to.string();
}

/// The path as an URI that is looked at as it stands.
std::string standing(const std::string& path) {
  std::string uri = "file:";
  constexpr const char* kHex = "0123456789ABCDEF";
  for (const char c : path) {
    const auto byte = static_cast<unsigned char>(c);
    if (std::isalnum(byte) != 0 || c == '/' || c == '-' || c == '_' || c == '.') {
      uri += c;
    } else {
      uri += '%';
      uri += kHex[byte >> 4];
      uri += kHex[byte & 15];
    }
  }
  return uri + "?immutable=1";
}

}  // namespace

Database::Database(const std::string& path, Access access) : path_(path), access_(access) {
  // Absolute: no name is taken for an URI or for a database in memory.
  const std::string whole = fs::absolute(path).string();
  if (access == Access::Look) {
    lookAt(whole);
  } else {
    raw_ = std::make_unique<SQLite::Database>(whole, SQLite::OPEN_READWRITE, kPatience);
  }
  note_.emplace(path_);
  harden();
  allowReading();
  if (access == Access::Making) {
    // The file is synced as a whole and only then given its name; a rollback still needs a journal.
    raw_->exec("PRAGMA journal_mode = MEMORY");
    raw_->exec("PRAGMA synchronous = OFF");
  }
}

/// As it stands where all of it is in the file; with its log shared where the system lets us, else in a copy.
void Database::lookAt(const std::string& whole) {
  if (!hasCompany(whole)) {
    raw_ = std::make_unique<SQLite::Database>(standing(whole), SQLite::OPEN_READONLY | SQLite::OPEN_URI, kPatience);
    return;
  }
  try {
    raw_ = std::make_unique<SQLite::Database>(whole, SQLite::OPEN_READONLY, kPatience);
    raw_->execAndGet("SELECT COUNT(*) FROM sqlite_schema");
  } catch (const SQLite::Exception&) {  // the log cannot be shared from here
    copy_ = copied(whole);
    raw_ = std::make_unique<SQLite::Database>(copy_, SQLite::OPEN_READWRITE, kPatience);
  }
}

Database::~Database() {
  raw_.reset();
  if (copy_.empty()) return;
  std::error_code ignored;
  fs::remove_all(fs::path(copy_).parent_path(), ignored);
}

/// Nothing that stands in the file is run: no trigger, no view, no function from the schema.
void Database::harden() {
  sqlite3* db = raw_->getHandle();
  for (const auto& [option, on] :
       {std::pair{SQLITE_DBCONFIG_DEFENSIVE, 1}, std::pair{SQLITE_DBCONFIG_TRUSTED_SCHEMA, 0},
        std::pair{SQLITE_DBCONFIG_ENABLE_TRIGGER, 0}, std::pair{SQLITE_DBCONFIG_ENABLE_VIEW, 0},
        std::pair{SQLITE_DBCONFIG_ENABLE_LOAD_EXTENSION, 0}, std::pair{SQLITE_DBCONFIG_ENABLE_FKEY, 1},
        std::pair{SQLITE_DBCONFIG_DQS_DDL, 0}, std::pair{SQLITE_DBCONFIG_DQS_DML, 0}}) {
    sqlite3_db_config(db, option, on, nullptr);
  }
  sqlite3_limit(db, SQLITE_LIMIT_ATTACHED, 0);
  sqlite3_limit(db, SQLITE_LIMIT_TRIGGER_DEPTH, 0);
  const auto tick = [](void* self) -> int {
    auto& database = *static_cast<Database*>(self);
    database.steps_ += kStepsATick;
    return !database.writing_ && database.steps_ > database.mostSteps_ ? 1 : 0;
  };
  sqlite3_progress_handler(db, kStepsATick, tick, this);
  raw_->exec("PRAGMA cell_size_check = ON");
  raw_->exec("PRAGMA mmap_size = 0");
}

void Database::setPatience(int milliseconds) {
  sqlite3_busy_timeout(raw_->getHandle(), milliseconds);
}

void Database::allowReading() {
  std::error_code error;
  const auto size = fs::file_size(path_, error);
  mostSteps_ = kFreeSteps + kStepsAByte * (error ? 0 : static_cast<long long>(size));
  steps_ = 0;
}

void Database::toMemory() {
  auto memory = std::make_unique<SQLite::Database>(":memory:", SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
  SQLite::Backup(*memory, *raw_).executeStep(-1);
  raw_ = std::move(memory);
  harden();
}

void Database::begin(Kind kind) {
  if (kind == Kind::Write && depth_ > 0 && !writing_) std::abort();  // ours: a reading that would write
  if (depth_ == 0) {
    raw_->exec(kind == Kind::Write ? "BEGIN IMMEDIATE" : "BEGIN");
    writing_ = kind == Kind::Write;
    // A deferred transaction sees the moment of its first read: that is now.
    if (kind == Kind::Read) raw_->execAndGet("SELECT COUNT(*) FROM sqlite_schema");
  }
  ++depth_;
}

void Database::commit() {
  if (depth_ == 1) raw_->exec("COMMIT");
  if (--depth_ == 0) writing_ = false;
}

void Database::leave() noexcept {
  if (depth_ == 1 && sqlite3_get_autocommit(raw_->getHandle()) == 0) raw_->tryExec("ROLLBACK");
  if (--depth_ == 0) writing_ = false;
}

Error errorOf(const SQLite::Exception& e, const std::string& path) {
  switch (e.getErrorCode()) {
    case SQLITE_BUSY:
    case SQLITE_LOCKED:
      return {ErrorKind::Busy, "another program is writing to this book", path,
              "Nothing was changed; try again in a moment"};
    case SQLITE_NOTADB:
      return {ErrorKind::WrongKind, "this file is not a book", path, "Choose a book or make a new one"};
    case SQLITE_CORRUPT:
      return {ErrorKind::Damaged, "the book is damaged: " + std::string(e.what()), path,
              "'zledger verify' says how far; go back to a copy, or save what is whole with 'zledger rescue'"};
    case SQLITE_INTERRUPT:
      return {ErrorKind::Damaged, "the book is damaged: reading it does not end", path,
              "Go back to a copy, or save what is whole with 'zledger rescue'"};
    case SQLITE_READONLY:
    case SQLITE_CANTOPEN:
    case SQLITE_PERM:
      return {ErrorKind::Storage, "the book cannot be opened or written", path,
              "Check that the folder exists and that you may write there"};
    case SQLITE_FULL:
      return {ErrorKind::Storage, "the disk is full; nothing was changed", path, "Free some space"};
    case SQLITE_IOERR:
      return {ErrorKind::Storage, "the disk could not be read or written; nothing was changed", path,
              "Check the disk and its free space"};
    case SQLITE_TOOBIG:
      return {ErrorKind::TooLarge, "this is more than a book keeps in one piece (1 GB)", path, "Split it"};
    case SQLITE_NOMEM:
      return {ErrorKind::TooLarge, "there is not enough memory", path, "Close other programs and try again"};
    default:
      return {ErrorKind::Storage, e.what(), path, "Nothing was changed"};
  }
}

}  // namespace zl::store
