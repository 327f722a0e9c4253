#pragma once
// The book: one SQLite file per workspace. Every edit is one transaction with its journal entry,
// so that a kill at any moment loses nothing that was shown as done.
//
// What came in from outside is kept as documents with their content; undoing an import sets its
// documents aside, it never deletes them. The analyst's case is kept as text with its journal of
// forward and backward patches.

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/filing/fact.h"
#include "core/quantity/error.h"

namespace zl::store {

struct StoredDocument {
  Document document;
  std::string company;  ///< empty: for the whole book (rates)
  bool active = true;   ///< false: set aside by undo
};

struct JournalEntry {
  std::int64_t number = 0;
  std::string company;
  std::string at;
  std::string author;
  std::string label;
  std::string forward;  ///< JSON Patch (RFC 6902) on the case text; "[]" when untouched
  std::string backward;
  std::vector<std::int64_t> documents;  ///< brought in by this edit
  enum class State { Done, Undone, Dropped } state = State::Done;
};

/// A document to bring in: its content and, for filings, its facts.
struct Incoming {
  std::string company;
  Document document;
  std::string content;
  std::vector<Fact> facts;
};

/// One edit as it is written: the case's text after it (unless unchanged), what it brings in, and
/// its journal entry.
struct Edit {
  JournalEntry entry;
  std::optional<std::string> caseText;
  std::vector<Incoming> incoming;
};

/// A case kept under a name, with the documents that were active then.
struct KeptVersion {
  std::int64_t id = 0;
  std::string company;
  std::string name;
  std::string at;
  std::string author;
  std::string note;
  std::string caseText;
  std::vector<std::int64_t> documents;
};

class Book {
 public:
  /// Creates a new book; an existing file is refused.
  static Result<Book> create(const std::string& path);
  /// Opens a book, bringing older schema versions up to date. Another kind of file is refused.
  static Result<Book> open(const std::string& path);

  Book(Book&&) noexcept;
  Book& operator=(Book&&) noexcept;
  ~Book();

  [[nodiscard]] const std::string& path() const;

  Result<std::vector<std::string>> companies();
  Result<std::vector<StoredDocument>> documents(const std::string& company);
  Result<std::string> content(std::int64_t document);
  /// Facts of the active documents, or of those in `only`, ordered by the year the document
  /// reports, then by import.
  Result<std::vector<Fact>> facts(const std::string& company, const std::vector<std::int64_t>* only = nullptr);
  /// The case's text; empty when the company has none.
  Result<std::optional<std::string>> caseText(const std::string& company);
  Result<std::vector<JournalEntry>> journal(const std::string& company);
  /// Number of the newest entry that stands; 0 when none does.
  Result<std::int64_t> head(const std::string& company);

  /// Writes one edit. Fails with Conflict, changing nothing, when the company's head is not
  /// `expectedHead`: somebody else edited in between. Undone entries are dropped (and kept).
  Result<std::int64_t> append(const Edit& edit, std::int64_t expectedHead);
  /// Marks entry `number` undone or done again, with the case text that results and the entry's
  /// documents set aside or taken back. Fails with Conflict, changing nothing, when the company's
  /// head is not `expectedHead`.
  Status mark(const JournalEntry& entry, bool undone, const std::optional<std::string>& caseText,
              std::int64_t expectedHead);

  /// Keeps a version. Fails with Conflict where the company has one of that name.
  Result<std::int64_t> keepVersion(const KeptVersion& version);
  /// The company's versions, oldest first.
  Result<std::vector<KeptVersion>> versions(const std::string& company);
  /// Takes a version off the list. Its row stays in the book.
  Status setVersionAside(std::int64_t id);

  /// Keeps the file from growing beyond so many pages: for media with a quota.
  Status limitPages(int pages);
  /// Runs SQLite's own integrity check.
  Status verify();

 private:
  struct Impl;
  explicit Book(std::unique_ptr<Impl> impl);
  std::unique_ptr<Impl> impl_;
};

}  // namespace zl::store
