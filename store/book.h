#pragma once
// The book: one SQLite file per workspace. Every edit is one transaction with its journal entry,
// so that a kill at any moment loses nothing that was shown as done.
//
// What came in from outside is kept as documents with their content; undoing an import sets its
// documents aside, it never deletes them. The analyst's case is kept as text with its journal of
// forward and backward patches.
//
// Several programs may have one book open. What belongs together is read within one Moment, what is
// changed together within one Change, which holds the book's only write lock until it is stored:
//
//   Result<Book::Change> change = book.change();
//   change->append(edit, head);          // fails with Conflict where somebody else was first
//   ... what would be is read back and judged ...
//   change->store();                     // else nothing has happened

#include <functional>
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

/// One edit as it is written: the case's text after it (unless unchanged), what it brings in, a
/// version that is kept with it, and its journal entry.
struct Edit {
  JournalEntry entry;
  std::optional<std::string> caseText;
  std::vector<Incoming> incoming;
  std::optional<KeptVersion> keep;
};

/// What somebody has typed into a field and not yet made an edit of.
struct Draft {
  std::string field;
  std::string text;
};

/// A figure of the market at a time, as a program fetched it. The same series and time may be fetched again:
/// what was fetched later stands.
struct Observation {
  std::int64_t id = 0;  ///< given by the book, ascending
  std::string company;  ///< empty: of the whole book
  std::string series;   ///< "price", or a rate by its name ("spot EUR/GBP")
  Date at{};
  double figure = 0;  ///< in `unit`; rates as fractions
  std::string unit;   ///< of a price: the listing's, as "GBp"; empty for a rate
  std::string source;
  std::string fetched;  ///< when, ISO 8601
  friend bool operator==(const Observation&, const Observation&) = default;
};

class Book {
 public:
  static constexpr int kPatience = 5000;

  /// Makes a new book: whole, with what `fill` puts into it, synced, and only then under its name; a
  /// failure or a kill before that leaves the name free. Fails with Conflict where there is a file,
  /// unless it is one that a making that was cut short left behind.
  static Result<Book> make(const std::string& path, const std::function<Status(Book&)>& fill = {});
  /// Opens a book, bringing older schema versions up to date after a copy of it was made. Where the
  /// place is read-only or the disk full the book is opened for looking. Another kind of file, and a
  /// file whose schema is not a book's, is refused.
  /// `patience`: milliseconds that a lock of another program is waited for.
  static Result<Book> open(const std::string& path, int patience = kPatience);
  /// The same for looking only: the file and its folder stay untouched.
  static Result<Book> look(const std::string& path);
  /// Whether a file is what a making that was cut short leaves: empty, or ours without a table.
  static bool isHalfMade(const std::string& path);

  [[nodiscard]] const std::string& path() const;
  /// Why nothing can be written; empty where it can.
  [[nodiscard]] const std::string& readOnly() const;
  /// What the owner of the book should know of where it lies and of its copies.
  [[nodiscard]] const std::vector<std::string>& notices() const;
  void setPatience(int milliseconds);
  /// A number that is another one after another program has stored something.
  Result<std::int64_t> changesOfOthers();
  /// The day of today's copy: made before the first change of that day, unless it is there.
  void copyDaily(const std::string& day);

  /// While one lives, all that is read is of one moment.
  class Moment {
   public:
    Moment(Moment&&) noexcept = default;
    Moment& operator=(Moment&&) = delete;
    ~Moment();

   private:
    friend class Book;
    struct Inside;
    explicit Moment(std::unique_ptr<Inside> inside);
    std::unique_ptr<Inside> inside_;
  };
  Result<Moment> moment();

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

  /// A change in the making, which others neither see nor can get in between. Without store() it
  /// has never been.
  class Change {
   public:
    Change(Change&&) noexcept = default;
    Change& operator=(Change&&) = delete;
    ~Change();
    /// Writes one edit and gives its number. Fails with Conflict when the company's head is not
    /// `expectedHead`: somebody else edited in between. Undone entries are dropped (and kept).
    Result<std::int64_t> append(const Edit& edit, std::int64_t expectedHead);
    /// Marks an entry undone or done again, with the case text that results and the entry's
    /// documents set aside or taken back. Fails with Conflict like append.
    Status mark(const JournalEntry& entry, bool undone, const std::optional<std::string>& caseText,
                std::int64_t expectedHead);
    Status store();

   private:
    friend class Book;
    struct Inside;
    explicit Change(std::unique_ptr<Inside> inside);
    std::unique_ptr<Inside> inside_;
  };
  Result<Change> change();
  /// One edit, or one mark, as a change of its own.
  Result<std::int64_t> append(const Edit& edit, std::int64_t expectedHead);
  Status mark(const JournalEntry& entry, bool undone, const std::optional<std::string>& caseText,
              std::int64_t expectedHead);

  /// Keeps a version. Fails with Conflict where the company has one of that name.
  Result<std::int64_t> keepVersion(const KeptVersion& version);
  /// The company's versions, oldest first.
  Result<std::vector<KeptVersion>> versions(const std::string& company);
  /// Takes a version off the list. Its row stays in the book.
  Status setVersionAside(std::int64_t id);

  /// Keeps what `author` has typed into a field of a company; an empty text takes it away.
  Status keepDraft(const std::string& company, const std::string& author, const Draft& draft);
  Result<std::vector<Draft>> drafts(const std::string& company, const std::string& author);

  /// Adds observations, all or none, beside the journal: no undo takes them back. One that is there already is
  /// passed over; gives how many were new.
  Result<int> observe(const std::vector<Observation>& observations);
  /// A company's and the whole book's with a greater id than `after`, in the order they came in.
  Result<std::vector<Observation>> observations(const std::string& company, std::int64_t after = 0);
  /// When the newest entry of a company that stands was made, ISO 8601; empty when none does.
  Result<std::string> lastEdit(const std::string& company);
  /// Changes whenever the journal, the documents or the case that a company stands on do, and not with
  /// observations.
  Result<std::string> standingOf(const std::string& company);

  /// Writes the book as it is into a new file, by the database's own backup. Fails with Conflict
  /// where there is a file.
  Status copyTo(const std::string& path);

  /// Keeps the file from growing beyond so many pages: for media with a quota.
  Status limitPages(int pages);
  /// Runs SQLite's own integrity check; fails naming the first damage.
  Status verify();

 private:
  struct Impl;
  static Result<Book> openToWrite(const std::string& path, int patience);
  explicit Book(std::shared_ptr<Impl> impl);
  std::shared_ptr<Impl> impl_;  ///< copies of a Book are the same connection
};

}  // namespace zl::store
