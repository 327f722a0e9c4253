#include "store/book.h"

#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <filesystem>

#include "store/book_impl.h"
#include "store/copies.h"
#include "store/place.h"
#include "store/schema.h"
#include "store/whole_file.h"

namespace zl::store {
namespace {

namespace fs = std::filesystem;

/// What the header of a file says, read without a lock.
struct Header {
  int application = 0;
  int version = 0;
  int tables = 0;
};

Header headerOf(SQLite::Database& db) {
  return {db.execAndGet("PRAGMA application_id").getInt(), db.execAndGet("PRAGMA user_version").getInt(),
          db.execAndGet("SELECT COUNT(*) FROM sqlite_schema").getInt()};
}

Status isBook(const Header& header, SQLite::Database& db, const std::string& path) {
  if (header.application != kApplicationId) {
    return fail(ErrorKind::WrongKind, "this database is not a book", path, "Choose a book");
  }
  if (header.version > kSchemaVersion) {
    return fail(ErrorKind::Unsupported,
                "the book has version " + std::to_string(header.version) + ", this program knows " +
                    std::to_string(kSchemaVersion),
                path, "Use a newer version of the program");
  }
  if (header.version < 1) {
    return fail(ErrorKind::WrongKind, "the book has version " + std::to_string(header.version) + ", and the first is 1",
                path, header.tables == 0 ? "Making it was cut short; make it again" : "Choose a book");
  }
  if (const std::string strange = strangeSchema(db, header.version); !strange.empty()) {
    return fail(ErrorKind::WrongKind, "this is not a book as the program makes it: " + strange, path,
                "Ask where the file comes from; 'zledger rescue' saves what it holds into a new book");
  }
  return {};
}

/// To the present schema, from `from` or from what another program has made of it meanwhile.
void bringUp(Database& db, int from) {
  Transaction writing(db, Database::Kind::Write);
  bringTablesUp(db.raw(), std::max(from, db.raw().execAndGet("PRAGMA user_version").getInt()));
  writing.commit();
}

/// Opens by `work`, whose exceptions become values.
template <class F>
Result<Book> opened(const std::string& path, F work) {
  try {
    return work();
  } catch (const SQLite::Exception& e) {
    return tl::unexpected(errorOf(e, path));
  } catch (const std::bad_alloc&) {
    return fail(ErrorKind::TooLarge, "there is not enough memory to open this book", path);
  } catch (const std::exception& e) {  // files and folders have their own
    return fail(ErrorKind::Storage, e.what(), path);
  }
}

}  // namespace

Book::Book(std::shared_ptr<Impl> impl) : impl_(std::move(impl)) {}

const std::string& Book::path() const {
  return impl_->db.path();
}
const std::string& Book::readOnly() const {
  return impl_->readOnly;
}
const std::vector<std::string>& Book::notices() const {
  return impl_->notices;
}
void Book::setPatience(int milliseconds) {
  impl_->db.setPatience(milliseconds);
}
void Book::copyDaily(const std::string& day) {
  impl_->day = day;
}

Result<std::int64_t> Book::changesOfOthers() {
  return impl_->run(
      [&](SQLite::Database& db) -> Result<std::int64_t> { return db.execAndGet("PRAGMA data_version").getInt64(); });
}

bool Book::isHalfMade(const std::string& path) {
  struct stat about {};
  if (stat(path.c_str(), &about) != 0 || !S_ISREG(about.st_mode)) return false;
  if (about.st_size == 0) return true;  // SQLite takes no log for an empty file's
  try {
    Database db(path, Access::Look);
    const Header header = headerOf(db.raw());
    return header.tables == 0 && (header.application == kApplicationId || header.application == 0);
  } catch (const SQLite::Exception&) {
    return false;  // another kind of file, or a damaged one: not ours to make again
  }
}

Result<Book> Book::make(const std::string& path, const std::function<Status(Book&)>& fill) {
  std::error_code ignored;
  const bool halfMade = isHalfMade(path);
  if (!halfMade && fs::exists(fs::symlink_status(path, ignored))) {
    return fail(ErrorKind::Conflict, "there is already a file of this name", path, "Choose another name");
  }
  Result<FileAside> aside = FileAside::beside(path);
  if (!aside) return tl::unexpected(aside.error());
  const auto filled = [&]() -> Status {
    try {
      auto impl = std::make_shared<Impl>(aside->path(), Access::Making);
      makeTables(impl->db.raw());
      Book book(std::move(impl));
      return fill ? fill(book) : Status();
    } catch (const SQLite::Exception& e) {
      return tl::unexpected(errorOf(e, path));
    }
  };
  if (Status s = filled(); !s) {
    Error error = s.error();
    if (error.where == aside->path()) error.where = path;  // the hidden name is nobody's business
    return tl::unexpected(error);
  }
  if (halfMade) {
    // What a cut-short making left beside its file must not be taken for the new book's.
    for (const char* ending : {"-wal", "-shm", "-journal"}) fs::remove(path + ending, ignored);
  }
  const auto over = halfMade ? FileAside::Over::Anything : FileAside::Over::Nothing;
  if (Status s = aside->takePlace(over); !s) return tl::unexpected(s.error());
  return open(path);
}

Result<Book> Book::look(const std::string& path) {
  if (Status s = isFile(path); !s) return tl::unexpected(s.error());
  return opened(path, [&]() -> Result<Book> {
    auto impl = std::make_shared<Impl>(path, Access::Look);
    const Header header = headerOf(impl->db.raw());
    if (Status s = isBook(header, impl->db.raw(), path); !s) return tl::unexpected(s.error());
    if (header.version < kSchemaVersion) {
      impl->db.toMemory();  // an older book is brought up to date where nobody sees it
      bringUp(impl->db, header.version);
    }
    impl->readOnly = "the book is open for looking only";
    return Book(std::move(impl));
  });
}

Result<Book> Book::openToWrite(const std::string& path, int patience) {
  auto impl = std::make_shared<Impl>(path, Access::Write);
  impl->db.setPatience(patience);
  SQLite::Database& db = impl->db.raw();
  Header header;
  {
    // Of one moment: another program may be bringing it up to date.
    const Transaction reading(impl->db, Database::Kind::Read);
    header = headerOf(db);
    if (Status s = isBook(header, db, path); !s) return tl::unexpected(s.error());
  }
  const std::string network = networkOf(path);
  // Where programs on two machines may meet, no log in shared memory; only whoever is alone can change that.
  db.tryExec(network.empty() ? "PRAGMA journal_mode = WAL" : "PRAGMA journal_mode = DELETE");
  db.exec("PRAGMA synchronous = FULL");  // what is shown as done survives a loss of power
  if (!network.empty()) {
    impl->notices.push_back("the book lies on a network folder (" + network +
                            "): it is kept without a shared log; work in it from one machine at a time");
  }
  if (header.version < kSchemaVersion) {
    if (Status s = copyOnce(impl->db, "before version " + std::to_string(kSchemaVersion)); !s) {
      return tl::unexpected(s.error());
    }
    // Another program may do it while this one waits for the lock.
    bringUp(impl->db, header.version);
  }
  return Book(std::move(impl));
}

Result<Book> Book::open(const std::string& path, int patience) {
  if (Status s = isFile(path); !s) return tl::unexpected(s.error());
  std::string why;
  const std::string folder = fs::path(path).has_parent_path() ? fs::path(path).parent_path().string() : ".";
  if (access(path.c_str(), W_OK) == 0 && access(folder.c_str(), W_OK) == 0) {
    auto tried = opened(path, [&]() -> Result<Book> {
      try {
        return openToWrite(path, patience);
      } catch (const SQLite::Exception& e) {
        // Even reading a book takes a little room beside it, where others are to be seen.
        const int code = e.getErrorCode();
        const bool noRoom = code == SQLITE_FULL || code == SQLITE_IOERR;
        if (noRoom) why = "there is no room on the disk";
        if (code == SQLITE_READONLY || code == SQLITE_CANTOPEN || code == SQLITE_PERM) why = "you may not write here";
        if (why.empty()) throw;
        return fail(ErrorKind::Storage, why, path);
      }
    });
    if (tried) return tried;
    if (why.empty() && tried.error().kind == ErrorKind::Storage) why = tried.error().what;
    if (why.empty()) return tried;
  } else {
    why = "you may not write here";
  }
  Result<Book> book = look(path);
  if (book) book->impl_->readOnly = why + ": the book can be looked at and not changed";
  return book;
}

}  // namespace zl::store
