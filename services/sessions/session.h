#pragma once
// One company open in one book: what it is now, and everything that can be done to it.

#include <functional>
#include <memory>

#include "exchange/content.h"
#include "exchange/json/json.h"
#include "services/edits/edits.h"
#include "services/edits/record_edits.h"
#include "services/intake/importer.h"
#include "services/stages/snapshot.h"

namespace zl::services {

/// Who works here and what time it is; the layers below have no clock.
struct Desk {
  std::string author;
  std::function<std::string()> now;  ///< ISO 8601
  std::function<Date()> today;
  int patience = store::Book::kPatience;  ///< milliseconds that another program's lock may be waited for
  static Desk ofThisMachine();
};

/// What the present state is called among named versions.
inline constexpr const char* kNow = "now";

/// Whether a new company may be called so: 1 to 64 bytes, one word that is no path and steers nothing.
Status validCompanyId(const std::string& id);

class Session {
 public:
  /// Opens a company. One that cannot be evaluated opens too, with fault() saying why: it can be
  /// stepped back, its journal read, and what is missing imported.
  static Result<std::unique_ptr<Session>> open(const std::string& path, const std::string& company,
                                               std::shared_ptr<const Resources> resources, const Desk& desk);
  /// The same in a book that is open.
  static Result<std::unique_ptr<Session>> openIn(store::Book book, const std::string& company,
                                                 std::shared_ptr<const Resources> resources, const Desk& desk);
  /// The same with what another company of the book was evaluated by, so that both share models.
  static Result<std::unique_ptr<Session>> openIn(store::Book book, const std::string& company,
                                                 std::shared_ptr<CaseEvaluator> evaluator, const Desk& desk);
  /// The same for a company that the book may not hold yet: to import into.
  static Result<std::unique_ptr<Session>> openToFill(store::Book book, const std::string& company,
                                                     std::shared_ptr<CaseEvaluator> evaluator, const Desk& desk);
  struct ImportResult {
    std::vector<ImportPreview> files;
    std::vector<std::string> warnings;
    std::shared_ptr<const Snapshot> shown;  ///< the company with them
  };
  /// Brings files into a book (making the book and the company as needed) as one edit: what would
  /// be is evaluated, then stored. On any fault nothing is stored and a new book is not made. Files
  /// already in the book unchanged are passed over with a warning.
  static Result<ImportResult> import(const std::string& path, const std::string& company,
                                     const std::vector<ImportFile>& files,
                                     const std::shared_ptr<const Resources>& resources, const Desk& desk);
  /// The same for files that were previewed, and perhaps corrected, before.
  static Result<ImportResult> bringIn(const std::string& path, const std::string& company,
                                      std::vector<ImportPreview> previews,
                                      const std::shared_ptr<const Resources>& resources, const Desk& desk);

  /// What files for a company would be read with, whether its book is there or not.
  static Result<ImportContext> contextFor(const std::string& path, const std::string& company,
                                          const std::shared_ptr<const Resources>& resources, const Desk& desk);

  /// What there is to show; null while fault() says why there is nothing.
  [[nodiscard]] const std::shared_ptr<const Snapshot>& now() const { return snapshot_; }
  [[nodiscard]] const std::optional<Error>& fault() const { return fault_; }
  [[nodiscard]] const store::Book& book() const { return book_; }
  [[nodiscard]] const std::shared_ptr<CaseEvaluator>& evaluator() const { return evaluator_; }
  /// What ships, without the case's own lines and rows.
  [[nodiscard]] const std::shared_ptr<const Resources>& shipped() const { return evaluator_->shipped(); }
  /// Why nothing can be changed: a newer program wrote the case, or the book cannot be written.
  /// Empty where everything can.
  [[nodiscard]] const std::string& readOnly() const { return readOnly_; }
  [[nodiscard]] const std::vector<std::string>& notices() const { return book_.notices(); }
  [[nodiscard]] const std::string& path() const { return book_.path(); }
  [[nodiscard]] const std::string& companyId() const { return company_; }
  [[nodiscard]] Provenance said(std::string reason) const;
  /// Writes the book into a new file; fails where there is one.
  Status copyTo(const std::string& path) { return book_.copyTo(path); }
  /// Somebody else makes the day's copy of the book.
  void leaveCopies() { book_.copyDaily({}); }
  /// What another program has changed of what is shown: nothing, figures of the market alone, or anything else. It is
  /// read and shown; for figures of the market nothing that was filed is read again.
  enum class News { None, Market, Company };
  Result<News> refresh();
  /// Takes in figures of the market that were fetched, beside the journal: no undo takes them back. All or none.
  Status observe(std::vector<store::Observation> observations);
  /// A figure of the market that was typed: an edit, which undo takes back and no table or fetch overtakes.
  Status typeFigure(const std::string& series, Date at, double figure, const std::string& reason);
  /// A company of the same book becomes a peer, with the figures of its own statements, or is none any more: an edit.
  Status peerOfBook(const std::string& id, bool in, const std::string& reason);
  /// Commands that name no company, and the window, open the book with this one: an edit.
  Status makeHome(const std::string& company);
  /// Takes a set of another company's peers into use here, or not any more: an edit. Its members are candidates from
  /// then on, and follow what that company's analyst makes of the set.
  Status shareSet(const std::string& company, const std::string& set, bool in, const std::string& reason);
  /// The sets of all other companies of the book: company and name.
  [[nodiscard]] Result<std::vector<std::pair<std::string, std::string>>> setsOfOthers();
  /// Another company record takes the place of the one there is: an edit, which undo takes back.
  Status changeRecord(const RecordEdit& edit);
  /// A table of the market in any layout that is read, typed or pasted, as one edit of that label. What it sets aside
  /// is told.
  Result<std::vector<std::string>> typeTable(const std::string& name, const std::string& text,
                                             const std::string& label);

  /// The snapshot a case would give; stores nothing. Fast enough to call while a point is dragged.
  [[nodiscard]] Result<std::shared_ptr<const Snapshot>> preview(const Case& c) const;
  /// Checks, evaluates, stores and shows an edit; on failure nothing has changed. An edit that
  /// changes nothing is not journalled. Where somebody else was first, theirs is shown.
  Status apply(const CaseEdit& edit);
  /// The same, keeping the state before under a name: both or neither.
  Status applyKeeping(const CaseEdit& edit, const std::string& name, const std::string& note);
  Status undo();
  Status redo();
  /// What undo and redo would do; empty when there is nothing.
  [[nodiscard]] std::string undoLabel() const;
  [[nodiscard]] std::string redoLabel() const;
  /// What an import of files would be read with: the company's currency, year-end and choices.
  [[nodiscard]] ImportContext importContext() const;
  /// Stores what was previewed as one edit.
  /// Under that label in the journal; without one it names the files.
  Result<ImportResult> bringIn(std::vector<ImportPreview> previews, const std::string& label = {});
  Result<ImportResult> importFiles(const std::vector<ImportFile>& files);
  /// Named versions: the assumptions as they stood, with the documents they stood on. Keeping one
  /// changes nothing else; the names of a company's versions are told apart by every character.
  Result<std::vector<store::KeptVersion>> versions() { return book_.versions(company_); }
  /// Fails naming the versions there are.
  Result<store::KeptVersion> version(const std::string& name);
  Status keepVersion(const std::string& name, const std::string& note);
  Status setVersionAside(const std::string& name);
  /// What the version shows, on the documents it stood on.
  Result<std::shared_ptr<const Snapshot>> snapshotOf(const store::KeptVersion& version);
  /// Takes the assumptions back to the version's: an edit like any other, on today's documents.
  Status goBackTo(const std::string& name);
  Result<std::vector<store::JournalEntry>> journal() { return book_.journal(company_); }
  Result<std::string> documentContent(std::int64_t id) { return book_.content(id); }
  /// What this analyst has typed and not yet made an edit of. An empty text takes a draft away.
  Result<std::vector<store::Draft>> drafts() { return book_.drafts(company_, desk_.author); }
  /// Who edits from now on.
  void setAuthor(const std::string& author) { desk_.author = author; }
  Status keepDraft(const store::Draft& draft) { return book_.keepDraft(company_, desk_.author, draft); }

 private:
  /// A company as it stands in the book at one moment, and what it shows.
  struct Loaded {
    std::vector<store::JournalEntry> journal;
    std::int64_t head = 0;
    std::optional<std::string> text;
    std::string newer;  ///< why the case cannot be changed
    Result<std::shared_ptr<const Snapshot>> shown = std::shared_ptr<const Snapshot>();
  };

  Session(store::Book book, std::string company, std::shared_ptr<CaseEvaluator> evaluator, Desk desk);
  Status load();
  Result<Loaded> read();
  Result<std::shared_ptr<const Snapshot>> evaluate(Loaded& loaded);
  void adopt(Loaded loaded);
  [[nodiscard]] Status writable() const;
  Status conflicted(const Error& error);
  void noteStanding();
  Result<std::string> standingNow();
  Status storeTyped(const std::string& label, const std::string& company, const std::string& name,
                    exchange::ContentKind kind, std::string content);
  Result<bool> showFetched();
  Status write(const CaseEdit& edit, std::optional<store::KeptVersion> keep);
  Result<store::KeptVersion> named(const std::string& name, const std::string& note) const;
  enum class Shown { Whole, AsFarAsItCan };
  Status changeAndShow(const std::function<Status(store::Book::Change&)>& write, Shown wanted);
  [[nodiscard]] const store::JournalEntry* nextStep(bool undo) const;
  Status step(bool undo);
  Status stepCase(const store::JournalEntry& entry, bool undo, const std::optional<std::string>& text);
  Result<exchange::Json> stepped(const exchange::Json& patch) const;

  store::Book book_;
  std::string company_;
  std::shared_ptr<CaseEvaluator> evaluator_;
  Desk desk_;
  std::shared_ptr<const Snapshot> snapshot_;
  std::optional<Error> fault_;
  std::optional<std::string> text_;  ///< of the case, as stored
  std::vector<store::JournalEntry> journal_;
  std::int64_t head_ = 0;
  std::int64_t others_ = 0;
  std::string standing_;  ///< Book::standingOf() what is shown
  std::string readOnly_;
};

}  // namespace zl::services
