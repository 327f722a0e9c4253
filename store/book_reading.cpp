// What is read from a book.

#include <unordered_map>

#include "store/book_impl.h"
#include "store/rows.h"

namespace zl::store {

Book::Moment::Moment(std::unique_ptr<Inside> inside) : inside_(std::move(inside)) {}
Book::Moment::~Moment() = default;

Result<Book::Moment> Book::moment() {
  return impl_->run(
      [&](SQLite::Database&) -> Result<Moment> { return Moment(std::make_unique<Moment::Inside>(impl_)); });
}

std::int64_t Book::Impl::head(const std::string& company) {
  SQLite::Statement q(db.raw(), "SELECT COALESCE(MAX(number), 0) FROM journal WHERE company = ? AND state = 0");
  q.bind(1, company);
  q.executeStep();
  return q.getColumn(0).getInt64();
}

Result<std::vector<std::string>> Book::companies() {
  return impl_->run([&](SQLite::Database& db) -> Result<std::vector<std::string>> {
    std::vector<std::string> list;
    SQLite::Statement q(
        db, "SELECT company FROM documents WHERE company <> '' AND active = 1 GROUP BY company ORDER BY MIN(id)");
    Columns columns(q, "documents");
    while (q.executeStep()) list.push_back(columns.text(0));
    return list;
  });
}

Result<std::vector<StoredDocument>> Book::documents(const std::string& company) {
  return impl_->run([&](SQLite::Database& db) -> Result<std::vector<StoredDocument>> {
    std::vector<StoredDocument> list;
    SQLite::Statement q(db,
                        "SELECT id, company, name, kind, digest, period_end, imported_at, active "
                        "FROM documents WHERE company = ? OR company = '' ORDER BY id");
    q.bind(1, company);
    Columns columns(q, "documents");
    while (q.executeStep()) {
      StoredDocument d;
      d.document.id = columns.number(0);
      d.company = columns.text(1);
      d.document.name = columns.text(2);
      d.document.kind = columns.text(3);
      d.document.digest = columns.text(4);
      d.document.periodEnd = columns.dayIfAny(5);
      d.document.importedAt = columns.text(6);
      d.active = columns.truth(7);
      list.push_back(std::move(d));
    }
    return list;
  });
}

Result<std::vector<Observation>> Book::observations(const std::string& company, std::int64_t after) {
  return impl_->run([&](SQLite::Database& db) -> Result<std::vector<Observation>> {
    std::vector<Observation> list;
    SQLite::Statement q(db,
                        "SELECT id, company, series, at, figure, unit, source, fetched FROM observations "
                        "WHERE (company = ? OR company = '') AND id > ? ORDER BY id");
    q.bind(1, company);
    q.bind(2, after);
    Columns c(q, "observations");
    while (q.executeStep()) {
      list.push_back({c.number(0), c.text(1), c.text(2), c.day(3), c.figure(4), c.text(5), c.text(6), c.text(7)});
    }
    return list;
  });
}

Result<std::string> Book::lastEdit(const std::string& company) {
  return impl_->run([&](SQLite::Database& db) -> Result<std::string> {
    SQLite::Statement q(db, "SELECT at FROM journal WHERE company = ? AND state = 0 ORDER BY number DESC LIMIT 1");
    q.bind(1, company);
    return q.executeStep() ? q.getColumn(0).getString() : std::string();
  });
}

Result<std::string> Book::standingOf(const std::string& company) {
  return impl_->run([&](SQLite::Database& db) -> Result<std::string> {
    SQLite::Statement q(
        db,
        "SELECT (SELECT COUNT(*) || ' ' || TOTAL(number * (1 + state)) FROM journal WHERE company = ?1) "
        "|| ' ' || (SELECT COUNT(*) || ' ' || TOTAL(id * active) FROM documents "
        "WHERE company = ?1 OR company = '') || ' ' || "
        "COALESCE((SELECT length(text) FROM cases WHERE company = ?1), -1)");
    q.bind(1, company);
    q.executeStep();
    return q.getColumn(0).getString();
  });
}

Result<std::string> Book::content(std::int64_t document) {
  return impl_->run([&](SQLite::Database& db) -> Result<std::string> {
    SQLite::Statement q(db, "SELECT id, content FROM documents WHERE id = ?");
    q.bind(1, document);
    if (!q.executeStep()) return fail(ErrorKind::NotFound, "there is no document " + std::to_string(document), path());
    return Columns(q, "documents").blob(1);
  });
}

Result<std::vector<Fact>> Book::facts(const std::string& company, const std::vector<std::int64_t>* only) {
  return impl_->run([&](SQLite::Database& db) -> Result<std::vector<Fact>> {
    std::vector<Fact> list;
    std::string ids;
    for (const std::int64_t id : only != nullptr ? *only : std::vector<std::int64_t>()) {
      ids += (ids.empty() ? "" : ",") + std::to_string(id);
    }
    const std::string which = only != nullptr ? "d.id IN (" + ids + ")" : "d.active = 1";
    SQLite::Statement q(db,
                        "SELECT f.id, f.document, c.name, f.label, f.period_start, f.period_end, f.unit, f.text, "
                        "f.decimals, f.exact, f.nil, f.segments, f.place FROM facts f "
                        "JOIN documents d ON d.id = f.document JOIN concepts c ON c.id = f.concept "
                        "WHERE d.company = ? AND " +
                            which +
                            " ORDER BY COALESCE(d.period_end, (SELECT MAX(e.period_end) FROM facts e "
                            "WHERE e.document = d.id), ''), d.id, f.id");
    q.bind(1, company);
    Columns columns(q, "facts");
    // A book's facts have few names, units and axes between them.
    TextPool texts;
    std::unordered_map<std::string, SharedList<Segment>> axes;
    while (q.executeStep()) {
      Fact f = factOf(columns);
      f.concept_name = texts(f.concept_name);
      f.label = texts(f.label);
      f.unit = texts(f.unit);
      if (const auto written = columns.textIfAny(11)) {
        const auto [at, fresh] = axes.try_emplace(*written);
        if (fresh) at->second = segmentsOf(*written);
        f.segments = at->second;
      }
      list.push_back(std::move(f));
    }
    return list;
  });
}

Result<std::optional<std::string>> Book::caseText(const std::string& company) {
  return impl_->run([&](SQLite::Database& db) -> Result<std::optional<std::string>> {
    SQLite::Statement q(db, "SELECT company, text FROM cases WHERE company = ?");
    q.bind(1, company);
    if (!q.executeStep()) return std::optional<std::string>();
    return std::optional(Columns(q, "cases").text(1));
  });
}

namespace {

/// The documents that a row of another table names.
std::vector<std::int64_t> documentsOf(SQLite::Statement& q, std::int64_t id) {
  std::vector<std::int64_t> list;
  q.reset();
  q.bind(1, id);
  while (q.executeStep()) list.push_back(q.getColumn(0).getInt64());
  return list;
}

}  // namespace

Result<std::vector<JournalEntry>> Book::journal(const std::string& company) {
  return impl_->run([&](SQLite::Database& db) -> Result<std::vector<JournalEntry>> {
    std::vector<JournalEntry> list;
    SQLite::Statement q(db,
                        "SELECT number, company, at, author, label, forward, backward, state "
                        "FROM journal WHERE company = ? ORDER BY number");
    SQLite::Statement d(db, "SELECT document FROM journal_documents WHERE entry = ? ORDER BY document");
    q.bind(1, company);
    Columns columns(q, "journal");
    while (q.executeStep()) {
      JournalEntry e;
      e.number = columns.number(0);
      e.company = columns.text(1);
      e.at = columns.text(2);
      e.author = columns.text(3);
      e.label = columns.text(4);
      e.forward = columns.text(5);
      e.backward = columns.text(6);
      e.state = static_cast<JournalEntry::State>(columns.whole(7, 0, 2));
      e.documents = documentsOf(d, e.number);
      list.push_back(std::move(e));
    }
    return list;
  });
}

Result<std::int64_t> Book::head(const std::string& company) {
  return impl_->run([&](SQLite::Database&) -> Result<std::int64_t> { return impl_->head(company); });
}

Result<std::vector<KeptVersion>> Book::versions(const std::string& company) {
  return impl_->run([&](SQLite::Database& db) -> Result<std::vector<KeptVersion>> {
    std::vector<KeptVersion> list;
    SQLite::Statement q(db,
                        "SELECT id, name, at, author, note, text FROM versions "
                        "WHERE company = ? AND active = 1 ORDER BY id");
    SQLite::Statement d(db, "SELECT document FROM version_documents WHERE version = ? ORDER BY document");
    q.bind(1, company);
    Columns columns(q, "versions");
    while (q.executeStep()) {
      KeptVersion v;
      v.id = columns.number(0);
      v.company = company;
      v.name = columns.text(1);
      v.at = columns.text(2);
      v.author = columns.text(3);
      v.note = columns.text(4);
      v.caseText = columns.text(5);
      v.documents = documentsOf(d, v.id);
      list.push_back(std::move(v));
    }
    return list;
  });
}

Result<std::vector<Draft>> Book::drafts(const std::string& company, const std::string& author) {
  return impl_->run([&](SQLite::Database& db) -> Result<std::vector<Draft>> {
    std::vector<Draft> list;
    SQLite::Statement q(db, "SELECT field, text FROM drafts WHERE company = ? AND author = ? ORDER BY field");
    q.bind(1, company);
    q.bind(2, author);
    Columns columns(q, "drafts");
    while (q.executeStep()) list.push_back({columns.text(0), columns.text(1)});
    return list;
  });
}

Status Book::limitPages(int pages) {
  return impl_->run([&](SQLite::Database& db) -> Status {
    db.execAndGet("PRAGMA max_page_count = " + std::to_string(pages));
    return {};
  });
}

Status Book::verify() {
  return impl_->run([&](SQLite::Database& db) -> Status {
    const std::string answer = db.execAndGet("PRAGMA integrity_check").getString();
    if (answer == "ok") return {};
    return fail(ErrorKind::Damaged, "the book is damaged: " + harmless(answer), path(),
                "Go back to a copy, or save what is whole with 'zledger rescue'");
  });
}

}  // namespace zl::store
