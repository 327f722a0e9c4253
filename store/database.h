#pragma once
// One connection to a book's file: opened so that nothing in the file is executed, with SQLite's
// failures as values. Used inside this folder only.

#include <SQLiteCpp/Backup.h>
#include <SQLiteCpp/SQLiteCpp.h>

#include <memory>
#include <optional>
#include <string>

#include "core/quantity/error.h"
#include "store/place.h"

namespace zl::store {

/// How a file is opened.
enum class Access {
  Write,
  Look,    ///< nothing is written, not even beside the file
  Making,  ///< a new file that nobody else knows: without a log beside it
};

/// Something in the file that this program never writes: which table, which row, what.
struct Damage {
  std::string what;
};

class Database {
 public:
  /// Throws SQLite::Exception.
  Database(const std::string& path, Access access);
  ~Database();
  Database(const Database&) = delete;
  Database& operator=(const Database&) = delete;

  SQLite::Database& raw() { return *raw_; }
  [[nodiscard]] const std::string& path() const { return path_; }
  [[nodiscard]] Access access() const { return access_; }
  /// Milliseconds that a lock of another program is waited for.
  void setPatience(int milliseconds);
  /// Work that reading may cost from here on: a file whose pages lead in circles ends there.
  void allowReading();

  /// Goes on in memory, on a copy of what the file holds.
  void toMemory();
  enum class Kind { Read, Write };

 private:
  friend class Transaction;
  void begin(Kind kind);
  void commit();
  void leave() noexcept;
  void lookAt(const std::string& whole);
  void harden();
  std::string path_;
  std::optional<OpenNote> note_;
  Access access_;
  std::string copy_;  ///< of a file that cannot be opened where it is
  std::unique_ptr<SQLite::Database> raw_;
  int depth_ = 0;
  bool writing_ = false;
  long long steps_ = 0;
  long long mostSteps_ = 0;
};

/// What is read or written together. One inside another is a part of it; a reading one may not turn
/// into a writing one. Without commit() what was written is taken back.
class Transaction {
 public:
  Transaction(Database& db, Database::Kind kind) : db_(db) { db_.begin(kind); }
  ~Transaction() {
    if (!done_) db_.leave();
  }
  Transaction(const Transaction&) = delete;
  Transaction& operator=(const Transaction&) = delete;
  void commit() {
    db_.commit();
    done_ = true;
  }

 private:
  Database& db_;
  bool done_ = false;
};

/// What a person is told of a failure of SQLite.
Error errorOf(const SQLite::Exception& e, const std::string& path);

/// Runs `work` and turns exceptions into values: SQLite's, damage, and memory that was not there.
template <class F>
auto guarded(Database& db, F work) -> decltype(work()) {
  try {
    db.allowReading();
    return work();
  } catch (const SQLite::Exception& e) {
    return tl::unexpected(errorOf(e, db.path()));
  } catch (const Damage& damage) {
    return fail(ErrorKind::Damaged, "the book is damaged: " + damage.what, db.path(),
                "'zledger verify' says how far; go back to a copy, or save what is whole with 'zledger rescue'");
  } catch (const std::bad_alloc&) {
    return fail(ErrorKind::TooLarge, "there is not enough memory to read this book", db.path(),
                "Close other programs and try again");
  } catch (const std::exception& e) {  // files and folders have their own
    return fail(ErrorKind::Storage, e.what(), db.path());
  }
}

}  // namespace zl::store
