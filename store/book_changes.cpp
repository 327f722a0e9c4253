// What is written into a book.

#include "store/book_impl.h"
#include "store/copies.h"
#include "store/rows.h"

namespace zl::store {
namespace {

tl::unexpected<Error> conflict(const std::string& path, const char* todo) {
  return fail(ErrorKind::Conflict, "somebody else changed this company in the meantime", path, todo);
}

Result<std::int64_t> insertNamed(SQLite::Database& db, const KeptVersion& version, const std::string& path) {
  SQLite::Statement known(db, "SELECT 1 FROM versions WHERE company = ? AND name = ? AND active = 1");
  known.bind(1, version.company);
  known.bind(2, version.name);
  if (known.executeStep()) {
    return fail(ErrorKind::Conflict, "there is already a version '" + version.name + "'", path, "Choose another name");
  }
  return insertVersion(db, version);
}

}  // namespace

/// Before the first change of a day; a copy that cannot be made is told of and keeps nobody from working.
void Book::Impl::makeDueCopy() {
  if (day.empty() || db.access() != Access::Write) return;
  const std::string due = std::exchange(day, "");
  if (Status s = copyOnce(db, due); !s) notices.push_back("today's copy of the book was not made: " + s.error().text());
}

Book::Change::Change(std::unique_ptr<Inside> inside) : inside_(std::move(inside)) {}
Book::Change::~Change() = default;

Result<Book::Change> Book::change() {
  if (!impl_->readOnly.empty()) {
    return fail(ErrorKind::Unsupported, impl_->readOnly, path(), "Copy the book to a place where you may write");
  }
  return impl_->run([&](SQLite::Database&) -> Result<Change> {
    impl_->makeDueCopy();
    return Change(std::make_unique<Change::Inside>(impl_));
  });
}

Result<std::int64_t> Book::Change::append(const Edit& edit, std::int64_t expectedHead) {
  Impl& impl = *inside_->impl;
  return impl.run([&](SQLite::Database& db) -> Result<std::int64_t> {
    if (impl.head(edit.entry.company) != expectedHead) {
      return conflict(impl.db.path(), "Nothing was changed; look at what changed and make the edit again");
    }
    JournalEntry entry = edit.entry;
    for (const Incoming& in : edit.incoming) {
      entry.documents.push_back(insertDocument(db, in, true));
      insertFacts(db, entry.documents.back(), in.facts);
    }
    if (edit.caseText) saveCase(db, entry.company, *edit.caseText);
    if (edit.keep) {
      if (const auto kept = insertNamed(db, *edit.keep, impl.db.path()); !kept) return tl::unexpected(kept.error());
    }
    // What was undone and is now replaced stays on record.
    SQLite::Statement drop(db, "UPDATE journal SET state = 2 WHERE company = ? AND state = 1");
    drop.bind(1, entry.company);
    drop.exec();
    return insertEntry(db, entry);
  });
}

Status Book::Change::mark(const JournalEntry& entry, bool undone, const std::optional<std::string>& caseText,
                          std::int64_t expectedHead) {
  Impl& impl = *inside_->impl;
  return impl.run([&](SQLite::Database& db) -> Status {
    SQLite::Statement q(db, "UPDATE journal SET state = ?1 WHERE number = ?2 AND state = 1 - ?1");
    q.bind(1, undone ? 1 : 0);
    q.bind(2, entry.number);
    if (impl.head(entry.company) != expectedHead || q.exec() != 1) {
      return conflict(impl.db.path(), "Nothing was changed; look at what changed and try again");
    }
    SQLite::Statement d(db,
                        "UPDATE documents SET active = ?1 WHERE id IN "
                        "(SELECT document FROM journal_documents WHERE entry = ?2)");
    d.bind(1, undone ? 0 : 1);
    d.bind(2, entry.number);
    d.exec();
    if (caseText) saveCase(db, entry.company, *caseText);
    return {};
  });
}

Status Book::Change::store() {
  return inside_->impl->run([&](SQLite::Database&) -> Status {
    inside_->writing.commit();
    return {};
  });
}

namespace {

/// One piece of work as a change of its own.
template <class F>
auto alone(Book& book, F work) -> decltype(work(std::declval<Book::Change&>())) {
  Result<Book::Change> change = book.change();
  if (!change) return tl::unexpected(change.error());
  auto done = work(*change);
  if (!done) return done;
  if (Status s = change->store(); !s) return tl::unexpected(s.error());
  return done;
}

}  // namespace

Result<std::int64_t> Book::append(const Edit& edit, std::int64_t expectedHead) {
  return alone(*this, [&](Change& change) { return change.append(edit, expectedHead); });
}

Status Book::mark(const JournalEntry& entry, bool undone, const std::optional<std::string>& caseText,
                  std::int64_t expectedHead) {
  return alone(*this, [&](Change& change) { return change.mark(entry, undone, caseText, expectedHead); });
}

Result<std::int64_t> Book::keepVersion(const KeptVersion& version) {
  return alone(*this, [&](Change&) {
    return impl_->run([&](SQLite::Database& db) { return insertNamed(db, version, path()); });
  });
}

Status Book::setVersionAside(std::int64_t id) {
  return alone(*this, [&](Change&) {
    return impl_->run([&](SQLite::Database& db) -> Status {
      SQLite::Statement q(db, "UPDATE versions SET active = 0 WHERE id = ? AND active = 1");
      q.bind(1, id);
      if (q.exec() == 1) return {};
      return fail(ErrorKind::NotFound, "there is no such version", path(), "Look at the list again");
    });
  });
}

Result<int> Book::observe(const std::vector<Observation>& observations) {
  return alone(*this, [&](Change&) {
    return impl_->run([&](SQLite::Database& db) -> Result<int> { return insertObservations(db, observations); });
  });
}

Status Book::keepDraft(const std::string& company, const std::string& author, const Draft& draft) {
  return alone(*this, [&](Change&) {
    return impl_->run([&](SQLite::Database& db) -> Status {
      saveDraft(db, company, author, draft);
      return {};
    });
  });
}

}  // namespace zl::store
