#include "store/book.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <sqlite3.h>

#include <filesystem>
#include <map>

#include "store/schema.h"

namespace zl::store {
namespace {

Error errorOf(const SQLite::Exception& e, const std::string& path) {
  switch (e.getErrorCode()) {
    case SQLITE_BUSY:
    case SQLITE_LOCKED:
      return {ErrorKind::Conflict, "another program is writing to this book", path,
              "Nothing was changed; try again in a moment"};
    case SQLITE_NOTADB:
      return {ErrorKind::WrongKind, "this file is not a book", path, "Choose a book or make a new one"};
    case SQLITE_CORRUPT:
      return {ErrorKind::Storage, "the book is damaged: " + std::string(e.what()), path, "Restore it from a copy"};
    case SQLITE_READONLY:
    case SQLITE_CANTOPEN:
    case SQLITE_PERM:
      return {ErrorKind::Storage, "the book cannot be opened or written", path,
              "Check that the folder exists and that you may write there"};
    case SQLITE_FULL:
      return {ErrorKind::Storage, "the disk is full; nothing was changed", path, "Free some space"};
    default:
      return {ErrorKind::Storage, e.what(), path, "Nothing was changed"};
  }
}

std::string segmentsText(const SharedList<Segment>& segments) {
  std::string text;
  for (const Segment& s : segments) text += s.axis + '\x1F' + s.member + '\x1E';
  return text;
}

std::vector<Segment> segmentsOf(const std::string& text) {
  std::vector<Segment> segments;
  size_t at = 0;
  while (at < text.size()) {
    const size_t middle = text.find('\x1F', at);
    const size_t end = text.find('\x1E', at);
    if (middle == std::string::npos || end == std::string::npos) break;
    segments.push_back({text.substr(at, middle - at), text.substr(middle + 1, end - middle - 1)});
    at = end + 1;
  }
  return segments;
}

}  // namespace

struct Book::Impl {
  std::string path;
  SQLite::Database db;

  Impl(const std::string& file, int flags) : path(file), db(file, flags, 5000) { db.exec("PRAGMA foreign_keys = ON"); }

  void configure() {
    db.exec("PRAGMA journal_mode = WAL");
    db.exec("PRAGMA synchronous = FULL");  // what is shown as done survives a loss of power
  }

  /// Takes the write lock first, so that the head that is checked is the head that is written on.
  class Writing {
   public:
    explicit Writing(SQLite::Database& db) : db_(db) { db_.exec("BEGIN IMMEDIATE"); }
    ~Writing() {
      if (!done_) db_.tryExec("ROLLBACK");
    }
    Writing(const Writing&) = delete;
    Writing& operator=(const Writing&) = delete;
    void commit() {
      db_.exec("COMMIT");
      done_ = true;
    }

   private:
    SQLite::Database& db_;
    bool done_ = false;
  };

  void bringUpFrom(int version) {
    for (int next = version; next < kSchemaVersion; ++next) db.exec(kSchemaSteps[next]);
    db.exec("PRAGMA user_version = " + std::to_string(kSchemaVersion));
  }

  std::int64_t head(const std::string& company) {
    SQLite::Statement q(db, "SELECT COALESCE(MAX(number), 0) FROM journal WHERE company = ? AND state = 0");
    q.bind(1, company);
    q.executeStep();
    return q.getColumn(0).getInt64();
  }

  std::int64_t insertDocument(const Incoming& in) {
    SQLite::Statement q(db,
                        "INSERT INTO documents(company, name, kind, digest, period_end, imported_at, content) "
                        "VALUES(?, ?, ?, ?, ?, ?, ?)");
    const Document& d = in.document;
    q.bind(1, in.company);
    q.bind(2, d.name);
    q.bind(3, d.kind);
    q.bind(4, d.digest);
    if (d.periodEnd) {
      q.bind(5, dateText(*d.periodEnd));
    } else {
      q.bind(5);
    }
    q.bind(6, d.importedAt);
    q.bind(7, in.content.data(), static_cast<int>(in.content.size()));
    q.exec();
    return db.getLastInsertRowid();
  }

  void insertFacts(std::int64_t document, const std::vector<Fact>& facts) {
    std::map<std::string, std::int64_t> concepts;
    SQLite::Statement known(db, "SELECT id FROM concepts WHERE name = ?");
    SQLite::Statement fresh(db, "INSERT INTO concepts(name) VALUES(?)");
    SQLite::Statement q(db,
                        "INSERT INTO facts(document, concept, label, period_start, period_end, unit, text, "
                        "decimals, exact, nil, segments, place) VALUES(?,?,?,?,?,?,?,?,?,?,?,?)");
    for (const Fact& f : facts) {
      std::int64_t& concept_id = concepts[f.concept_name];
      if (concept_id == 0) {
        known.reset();
        known.bindNoCopy(1, f.concept_name);
        if (known.executeStep()) {
          concept_id = known.getColumn(0).getInt64();
        } else {
          fresh.reset();
          fresh.bindNoCopy(1, f.concept_name);
          fresh.exec();
          concept_id = db.getLastInsertRowid();
        }
      }
      q.reset();
      q.clearBindings();
      q.bind(1, document);
      q.bind(2, concept_id);
      if (!f.label.empty()) q.bindNoCopy(3, f.label);
      if (f.period.start) q.bind(4, dateText(*f.period.start));
      q.bind(5, dateText(f.period.end));
      q.bindNoCopy(6, f.unit);
      q.bindNoCopy(7, f.text);
      if (f.decimals) q.bind(8, *f.decimals);
      q.bind(9, f.exact ? 1 : 0);
      q.bind(10, f.nil ? 1 : 0);
      if (!f.segments.empty()) q.bind(11, segmentsText(f.segments));
      q.bindNoCopy(12, f.place);
      q.exec();
    }
  }

  void saveCase(const std::string& company, const std::string& text) {
    SQLite::Statement q(db,
                        "INSERT INTO cases(company, text) VALUES(?1, ?2) "
                        "ON CONFLICT(company) DO UPDATE SET text = ?2");
    q.bind(1, company);
    q.bind(2, text);
    q.exec();
  }

  std::int64_t insertEntry(const JournalEntry& e) {
    SQLite::Statement drop(db, "UPDATE journal SET state = 2 WHERE company = ? AND state = 1");
    drop.bind(1, e.company);
    drop.exec();
    SQLite::Statement q(db, "INSERT INTO journal(company, at, author, label, forward, backward) VALUES(?,?,?,?,?,?)");
    q.bind(1, e.company);
    q.bind(2, e.at);
    q.bind(3, e.author);
    q.bind(4, e.label);
    q.bind(5, e.forward);
    q.bind(6, e.backward);
    q.exec();
    return db.getLastInsertRowid();
  }
};

Book::Book(std::unique_ptr<Impl> impl) : impl_(std::move(impl)) {}
Book::Book(Book&&) noexcept = default;
Book& Book::operator=(Book&&) noexcept = default;
Book::~Book() = default;

const std::string& Book::path() const {
  return impl_->path;
}

// Runs `work` and turns the wrapper's exceptions into values.
namespace {
template <class F>
auto guarded(const std::string& path, F work) -> decltype(work()) {
  try {
    return work();
  } catch (const SQLite::Exception& e) {
    return tl::unexpected(errorOf(e, path));
  }
}
}  // namespace

Result<Book> Book::create(const std::string& path) {
  std::error_code ignored;
  if (std::filesystem::exists(path, ignored)) {
    return fail(ErrorKind::Storage, "there is already a file of this name", path, "Choose another name");
  }
  return guarded(path, [&]() -> Result<Book> {
    auto impl = std::make_unique<Impl>(path, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
    impl->configure();
    Impl::Writing writing(impl->db);
    impl->db.exec("PRAGMA application_id = " + std::to_string(kApplicationId));
    impl->bringUpFrom(0);
    writing.commit();
    return Book(std::move(impl));
  });
}

Result<Book> Book::open(const std::string& path) {
  std::error_code ignored;
  if (!std::filesystem::exists(path, ignored)) {
    return fail(ErrorKind::NotFound, "there is no such book", path, "Check the name, or make a new book");
  }
  return guarded(path, [&]() -> Result<Book> {
    auto impl = std::make_unique<Impl>(path, SQLite::OPEN_READWRITE);
    const int kind = impl->db.execAndGet("PRAGMA application_id").getInt();
    const int version = impl->db.execAndGet("PRAGMA user_version").getInt();
    if (kind != kApplicationId) {
      return fail(ErrorKind::WrongKind, "this database is not a book", path, "Choose a book");
    }
    if (version > kSchemaVersion) {
      return fail(
          ErrorKind::Unsupported,
          "the book has version " + std::to_string(version) + ", this program knows " + std::to_string(kSchemaVersion),
          path, "Use a newer version of the program");
    }
    impl->configure();
    if (version < kSchemaVersion) {
      Impl::Writing writing(impl->db);
      // Another program may have done it while this one waited for the lock.
      impl->bringUpFrom(impl->db.execAndGet("PRAGMA user_version").getInt());
      writing.commit();
    }
    return Book(std::move(impl));
  });
}

Result<std::vector<std::string>> Book::companies() {
  return guarded(path(), [&]() -> Result<std::vector<std::string>> {
    std::vector<std::string> list;
    SQLite::Statement q(impl_->db,
                        "SELECT DISTINCT company FROM documents WHERE company <> '' AND active = 1 ORDER BY id");
    while (q.executeStep()) list.push_back(q.getColumn(0).getString());
    return list;
  });
}

Result<std::vector<StoredDocument>> Book::documents(const std::string& company) {
  return guarded(path(), [&]() -> Result<std::vector<StoredDocument>> {
    std::vector<StoredDocument> list;
    SQLite::Statement q(impl_->db,
                        "SELECT id, company, name, kind, digest, period_end, imported_at, active "
                        "FROM documents WHERE company = ? OR company = '' ORDER BY id");
    q.bind(1, company);
    while (q.executeStep()) {
      StoredDocument d;
      d.document.id = q.getColumn(0).getInt64();
      d.company = q.getColumn(1).getString();
      d.document.name = q.getColumn(2).getString();
      d.document.kind = q.getColumn(3).getString();
      d.document.digest = q.getColumn(4).getString();
      if (!q.isColumnNull(5)) d.document.periodEnd = parseDate(q.getColumn(5).getString());
      d.document.importedAt = q.getColumn(6).getString();
      d.active = q.getColumn(7).getInt() != 0;
      list.push_back(std::move(d));
    }
    return list;
  });
}

Result<std::string> Book::content(std::int64_t document) {
  return guarded(path(), [&]() -> Result<std::string> {
    SQLite::Statement q(impl_->db, "SELECT content FROM documents WHERE id = ?");
    q.bind(1, document);
    if (!q.executeStep()) return fail(ErrorKind::NotFound, "there is no document " + std::to_string(document), path());
    const SQLite::Column c = q.getColumn(0);
    return std::string(static_cast<const char*>(c.getBlob()), static_cast<size_t>(c.getBytes()));
  });
}

Result<std::vector<Fact>> Book::facts(const std::string& company, const std::vector<std::int64_t>* only) {
  return guarded(path(), [&]() -> Result<std::vector<Fact>> {
    std::vector<Fact> list;
    std::string ids;
    for (const std::int64_t id : only != nullptr ? *only : std::vector<std::int64_t>()) {
      ids += (ids.empty() ? "" : ",") + std::to_string(id);
    }
    const std::string which = only != nullptr ? "d.id IN (" + ids + ")" : "d.active = 1";
    SQLite::Statement q(impl_->db,
                        "SELECT f.id, f.document, c.name, f.label, f.period_start, f.period_end, f.unit, f.text, "
                        "f.decimals, f.exact, f.nil, f.segments, f.place FROM facts f "
                        "JOIN documents d ON d.id = f.document JOIN concepts c ON c.id = f.concept "
                        "WHERE d.company = ? AND " +
                            which + " ORDER BY COALESCE(d.period_end, ''), d.id, f.id");
    q.bind(1, company);
    // A book's facts have few names, units and axes between them.
    TextPool texts;
    std::unordered_map<std::string, SharedList<Segment>> axes;
    while (q.executeStep()) {
      Fact f;
      f.id = q.getColumn(0).getInt64();
      f.document = q.getColumn(1).getInt64();
      f.concept_name = texts(q.getColumn(2).getString());
      if (!q.isColumnNull(3)) f.label = texts(q.getColumn(3).getString());
      if (!q.isColumnNull(4)) f.period.start = parseDate(q.getColumn(4).getString());
      const std::optional<Date> end = parseDate(q.getColumn(5).getString());
      if (!end) {
        return fail(ErrorKind::Storage, "the book is damaged: fact " + std::to_string(f.id) + " has no date", path(),
                    "Restore it from a copy");
      }
      f.period.end = *end;
      f.unit = texts(q.getColumn(6).getString());
      f.text = q.getColumn(7).getString();
      if (!q.isColumnNull(8)) f.decimals = q.getColumn(8).getInt();
      f.exact = q.getColumn(9).getInt() != 0;
      f.nil = q.getColumn(10).getInt() != 0;
      if (!q.isColumnNull(11)) {
        const std::string written = q.getColumn(11).getString();
        const auto [at, fresh] = axes.try_emplace(written);
        if (fresh) at->second = segmentsOf(written);
        f.segments = at->second;
      }
      f.place = q.getColumn(12).getString();
      list.push_back(std::move(f));
    }
    return list;
  });
}

Result<std::optional<std::string>> Book::caseText(const std::string& company) {
  return guarded(path(), [&]() -> Result<std::optional<std::string>> {
    SQLite::Statement q(impl_->db, "SELECT text FROM cases WHERE company = ?");
    q.bind(1, company);
    if (!q.executeStep()) return std::optional<std::string>();
    return std::optional(q.getColumn(0).getString());
  });
}

Result<std::vector<JournalEntry>> Book::journal(const std::string& company) {
  return guarded(path(), [&]() -> Result<std::vector<JournalEntry>> {
    std::vector<JournalEntry> list;
    SQLite::Statement q(impl_->db,
                        "SELECT number, company, at, author, label, forward, backward, state "
                        "FROM journal WHERE company = ? ORDER BY number");
    SQLite::Statement d(impl_->db, "SELECT document FROM journal_documents WHERE entry = ? ORDER BY document");
    q.bind(1, company);
    while (q.executeStep()) {
      JournalEntry e;
      e.number = q.getColumn(0).getInt64();
      e.company = q.getColumn(1).getString();
      e.at = q.getColumn(2).getString();
      e.author = q.getColumn(3).getString();
      e.label = q.getColumn(4).getString();
      e.forward = q.getColumn(5).getString();
      e.backward = q.getColumn(6).getString();
      e.state = static_cast<JournalEntry::State>(q.getColumn(7).getInt());
      d.reset();
      d.bind(1, e.number);
      while (d.executeStep()) e.documents.push_back(d.getColumn(0).getInt64());
      list.push_back(std::move(e));
    }
    return list;
  });
}

Result<std::int64_t> Book::head(const std::string& company) {
  return guarded(path(), [&]() -> Result<std::int64_t> { return impl_->head(company); });
}

Result<std::int64_t> Book::append(const Edit& edit, std::int64_t expectedHead) {
  return guarded(path(), [&]() -> Result<std::int64_t> {
    Impl::Writing writing(impl_->db);
    if (impl_->head(edit.entry.company) != expectedHead) {
      return fail(ErrorKind::Conflict, "somebody else changed this company in the meantime", path(),
                  "Nothing was changed; reopen the company and make the edit again");
    }
    std::vector<std::int64_t> documents;
    for (const Incoming& in : edit.incoming) {
      documents.push_back(impl_->insertDocument(in));
      impl_->insertFacts(documents.back(), in.facts);
    }
    if (edit.caseText) impl_->saveCase(edit.entry.company, *edit.caseText);
    const std::int64_t number = impl_->insertEntry(edit.entry);
    for (std::int64_t id : documents) {
      SQLite::Statement q(impl_->db, "INSERT INTO journal_documents(entry, document) VALUES(?, ?)");
      q.bind(1, number);
      q.bind(2, id);
      q.exec();
    }
    writing.commit();
    return number;
  });
}

Status Book::mark(const JournalEntry& entry, bool undone, const std::optional<std::string>& caseText,
                  std::int64_t expectedHead) {
  return guarded(path(), [&]() -> Status {
    Impl::Writing writing(impl_->db);
    SQLite::Statement q(impl_->db, "UPDATE journal SET state = ?1 WHERE number = ?2 AND state = 1 - ?1");
    q.bind(1, undone ? 1 : 0);
    q.bind(2, entry.number);
    if (impl_->head(entry.company) != expectedHead || q.exec() != 1) {
      return fail(ErrorKind::Conflict, "somebody else changed this company in the meantime", path(),
                  "Nothing was changed; reopen the company");
    }
    SQLite::Statement d(impl_->db,
                        "UPDATE documents SET active = ?1 WHERE id IN "
                        "(SELECT document FROM journal_documents WHERE entry = ?2)");
    d.bind(1, undone ? 0 : 1);
    d.bind(2, entry.number);
    d.exec();
    if (caseText) impl_->saveCase(entry.company, *caseText);
    writing.commit();
    return {};
  });
}

Result<std::int64_t> Book::keepVersion(const KeptVersion& version) {
  return guarded(path(), [&]() -> Result<std::int64_t> {
    Impl::Writing writing(impl_->db);
    SQLite::Statement known(impl_->db, "SELECT 1 FROM versions WHERE company = ? AND name = ? AND active = 1");
    known.bind(1, version.company);
    known.bind(2, version.name);
    if (known.executeStep()) {
      return fail(ErrorKind::Conflict, "there is already a version '" + version.name + "'", path(),
                  "Choose another name");
    }
    SQLite::Statement q(impl_->db,
                        "INSERT INTO versions(company, name, at, author, note, text) VALUES(?, ?, ?, ?, ?, ?)");
    q.bind(1, version.company);
    q.bind(2, version.name);
    q.bind(3, version.at);
    q.bind(4, version.author);
    q.bind(5, version.note);
    q.bind(6, version.caseText);
    q.exec();
    const std::int64_t id = impl_->db.getLastInsertRowid();
    SQLite::Statement d(impl_->db, "INSERT INTO version_documents(version, document) VALUES(?, ?)");
    for (const std::int64_t document : version.documents) {
      d.reset();
      d.bind(1, id);
      d.bind(2, document);
      d.exec();
    }
    writing.commit();
    return id;
  });
}

Result<std::vector<KeptVersion>> Book::versions(const std::string& company) {
  return guarded(path(), [&]() -> Result<std::vector<KeptVersion>> {
    std::vector<KeptVersion> list;
    SQLite::Statement q(impl_->db,
                        "SELECT id, name, at, author, note, text FROM versions "
                        "WHERE company = ? AND active = 1 ORDER BY id");
    SQLite::Statement d(impl_->db, "SELECT document FROM version_documents WHERE version = ? ORDER BY document");
    q.bind(1, company);
    while (q.executeStep()) {
      KeptVersion v;
      v.id = q.getColumn(0).getInt64();
      v.company = company;
      v.name = q.getColumn(1).getString();
      v.at = q.getColumn(2).getString();
      v.author = q.getColumn(3).getString();
      v.note = q.getColumn(4).getString();
      v.caseText = q.getColumn(5).getString();
      d.reset();
      d.bind(1, v.id);
      while (d.executeStep()) v.documents.push_back(d.getColumn(0).getInt64());
      list.push_back(std::move(v));
    }
    return list;
  });
}

Status Book::setVersionAside(std::int64_t id) {
  return guarded(path(), [&]() -> Status {
    SQLite::Statement q(impl_->db, "UPDATE versions SET active = 0 WHERE id = ? AND active = 1");
    q.bind(1, id);
    if (q.exec() == 1) return {};
    return fail(ErrorKind::NotFound, "there is no such version", path(), "Look at the list again");
  });
}

Status Book::limitPages(int pages) {
  return guarded(path(), [&]() -> Status {
    impl_->db.execAndGet("PRAGMA max_page_count = " + std::to_string(pages));
    return {};
  });
}

Status Book::verify() {
  return guarded(path(), [&]() -> Status {
    const std::string answer = impl_->db.execAndGet("PRAGMA integrity_check").getString();
    if (answer == "ok") return {};
    return fail(ErrorKind::Storage, "the book is damaged: " + answer, path(), "Restore it from a copy");
  });
}

}  // namespace zl::store
