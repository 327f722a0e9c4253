#pragma once
// One company open in one book: what it is now, and everything that can be done to it.

#include <functional>
#include <memory>

#include "services/edits.h"
#include "services/importer.h"
#include "services/snapshot.h"

namespace zl::services {

/// Who works here and what time it is; the layers below have no clock.
struct Desk {
  std::string author;
  std::function<std::string()> now;  ///< ISO 8601
  std::function<Date()> today;
  static Desk ofThisMachine();
};

/// What the present state is called among named versions.
inline constexpr const char* kNow = "now";

/// A case from before base years were kept starts from the last year filed: pinned there, so that
/// the next filing moves no path.
void pinBaseYear(Case& c, const Evidence& evidence, const Resources& resources);

class Session {
 public:
  static Result<std::unique_ptr<Session>> open(const std::string& path, const std::string& company,
                                               std::shared_ptr<const Resources> resources, Desk desk);
  /// Brings files into a book (making the book and the company as needed) as one edit. On any
  /// fault nothing is stored. Files already in the book unchanged are passed over with a warning.
  struct ImportResult {
    std::vector<ImportPreview> files;
    std::vector<std::string> warnings;
  };
  static Result<ImportResult> import(const std::string& path, const std::string& company,
                                     const std::vector<ImportFile>& files,
                                     const std::shared_ptr<const Resources>& resources, const Desk& desk);

  /// The same for files that were previewed, and perhaps corrected, before.
  static Result<ImportResult> bringIn(const std::string& path, const std::string& company,
                                      std::vector<ImportPreview> previews,
                                      const std::shared_ptr<const Resources>& resources, const Desk& desk);

  [[nodiscard]] const std::shared_ptr<const Snapshot>& now() const { return snapshot_; }
  /// What ships, without the case's own lines and rows.
  [[nodiscard]] const std::shared_ptr<const Resources>& shipped() const { return resources_; }
  /// Why nothing can be changed: a newer program wrote the case. Empty where everything can.
  [[nodiscard]] const std::string& readOnly() const { return readOnly_; }
  [[nodiscard]] const std::string& path() const { return book_.path(); }
  [[nodiscard]] const std::string& companyId() const { return company_; }
  [[nodiscard]] Provenance said(std::string reason) const;

  /// The snapshot a case would give; stores nothing. Fast enough to call while a point is dragged.
  [[nodiscard]] Result<std::shared_ptr<const Snapshot>> preview(const Case& c) const;
  /// Checks, evaluates, stores and shows an edit; on failure nothing has changed. An edit that
  /// changes nothing is not journalled.
  Status apply(const CaseEdit& edit);
  Status undo();
  Status redo();
  /// What undo and redo would do; empty when there is nothing.
  [[nodiscard]] std::string undoLabel() const;
  [[nodiscard]] std::string redoLabel() const;
  /// What an import of files would be read with: the company's currency, year-end and choices.
  [[nodiscard]] ImportContext importContext() const;
  /// Stores what was previewed as one edit.
  Result<ImportResult> bringIn(std::vector<ImportPreview> previews);
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

 private:
  Session(store::Book book, std::string company, std::shared_ptr<const Resources> resources, Desk desk);
  Status reload();
  [[nodiscard]] Status writable() const;
  Status reloadJournal();
  Status step(bool undo);
  Status stepCase(const store::JournalEntry& entry, bool undo, const std::string& text, const Case& c);

  store::Book book_;
  std::string company_;
  std::shared_ptr<const Resources> resources_;
  Desk desk_;
  std::shared_ptr<const Snapshot> snapshot_;
  std::vector<store::JournalEntry> journal_;
  std::int64_t head_ = 0;
  std::string readOnly_;
};

}  // namespace zl::services
