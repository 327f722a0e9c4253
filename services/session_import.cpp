// Files into a book: as one edit, all or none.

#include <algorithm>
#include <filesystem>

#include "exchange/json/company_json.h"
#include "exchange/json/lines_json.h"
#include "services/session.h"

namespace zl::services {

using exchange::ContentKind;
using store::JournalEntry;

namespace {

bool isKind(const Document& document, ContentKind kind) {
  return document.kind == exchange::contentKindText(kind);
}

store::Incoming ownDocument(const std::string& company, const std::string& name, ContentKind kind, std::string content,
                            const std::string& now) {
  store::Incoming in;
  in.company = company;
  in.document = {0, name, exchange::contentKindText(kind), exchange::digestOf(content), std::nullopt, now};
  in.content = std::move(content);
  return in;
}

/// One import as it will be written.
class Collection {
 public:
  Collection(const ImportContext& context, const std::vector<store::StoredDocument>& present, const Desk& desk)
      : context_(context), present_(present), desk_(desk) {}

  store::Edit edit;
  Session::ImportResult result;

  Status take(std::vector<ImportPreview> previews) {
    if (Status s = readyToStore(previews); !s) return s;
    for (ImportPreview& p : previews) takeOne(p);
    if (edit.incoming.empty()) return {};
    if (!hasRecord()) {
      if (Status s = deriveRecord(); !s) return s;
    }
    const std::string what =
        result.files.size() == 1 ? result.files.front().name : std::to_string(result.files.size()) + " files";
    edit.entry = {0,  context_.company,         context_.now, desk_.author, "Import " + what, "[]", "[]",
                  {}, JournalEntry::State::Done};
    return {};
  }

 private:
  void takeOne(ImportPreview& p) {
    if (p.passedOver) {
      for (const std::string& warning : p.warnings) result.warnings.push_back(p.name + ": " + warning);
      return;
    }
    const bool known = std::any_of(present_.begin(), present_.end(), [&](const auto& d) {
      return d.active && d.document.digest == p.incoming.document.digest;
    });
    if (known) {
      result.warnings.push_back(p.name + " is already in the book, unchanged; passed over");
      return;
    }
    for (const std::string& warning : p.warnings) result.warnings.push_back(p.name + ": " + warning);
    edit.incoming.push_back(std::move(p.incoming));
    p.incoming = {};
    p.incoming.document = edit.incoming.back().document;
    LineChoices chosen;
    for (const SheetReading& s : p.readings) {
      if (s.included) chosen.merge(choicesOf(s.reading));
    }
    if (!chosen.empty()) {
      choices_.insert(chosen.begin(), chosen.end());
      edit.incoming.push_back(ownDocument(context_.company, "lines of " + p.name, ContentKind::TableChoices,
                                          exchange::lineChoicesText(chosen), context_.now));
    }
    p.workbook.reset();
    result.files.push_back(std::move(p));
  }

  [[nodiscard]] bool hasRecord() const {
    return std::any_of(present_.begin(), present_.end(),
                       [](const auto& d) { return d.active && isKind(d.document, ContentKind::CompanyRecord); }) ||
           std::any_of(edit.incoming.begin(), edit.incoming.end(),
                       [](const auto& i) { return isKind(i.document, ContentKind::CompanyRecord); });
  }

  Status deriveRecord() {
    std::vector<Fact> facts;
    for (const store::Incoming& in : edit.incoming) facts.insert(facts.end(), in.facts.begin(), in.facts.end());
    const Result<Company> record = derivedRecord(context_.company, facts, context_.resources->rules, choices_);
    if (!record) return tl::unexpected(record.error());
    edit.incoming.push_back(ownDocument(context_.company, "record derived from the filings", ContentKind::CompanyRecord,
                                        exchange::toJson(*record).dump(2), context_.now));
    result.warnings.push_back("no company record: currency " + record->currency +
                              " and the share count come from the filings, the listing is taken to be in " +
                              record->currency + "; import a record to correct this");
    return {};
  }

  const ImportContext& context_;
  const std::vector<store::StoredDocument>& present_;
  const Desk& desk_;
  LineChoices choices_;
};

}  // namespace

ImportContext Session::importContext() const {
  ImportContext context{company_, resources_, desk_.now(), {}};
  context.hints.currency = snapshot_->company().currency;
  context.hints.remembered = snapshot_->filed->choices;
  context.hints.fiscal =
      FiscalEnd{static_cast<unsigned>(std::chrono::year_month_day(snapshot_->years().back().end).month())};
  return context;
}

Result<Session::ImportResult> Session::importFiles(const std::vector<ImportFile>& files) {
  Result<std::vector<ImportPreview>> previews = services::preview(files, importContext());
  if (!previews) return tl::unexpected(previews.error());
  return bringIn(std::move(*previews));
}

Result<Session::ImportResult> Session::bringIn(std::vector<ImportPreview> previews) {
  if (Status s = writable(); !s) return tl::unexpected(s.error());
  for (const ImportPreview& p : previews) {
    if (p.incoming.company.empty() || p.incoming.company == company_) continue;
    return fail(ErrorKind::Conflict,
                "the file was read for '" + p.incoming.company + "', the open company is '" + company_ + "'", p.name,
                "Import it again");
  }
  const ImportContext context = importContext();
  Collection collection(context, snapshot_->evidence->documents, desk_);
  if (Status s = collection.take(std::move(previews)); !s) return tl::unexpected(s.error());
  if (collection.edit.incoming.empty()) return std::move(collection.result);
  const Result<std::int64_t> number = book_.append(collection.edit, head_);
  if (!number) return tl::unexpected(number.error());
  const Status shown = reload();
  if (shown) return std::move(collection.result);
  // Files that are sound one by one can still leave nothing to show together, such as a record in a
  // currency that no fact has. A company that could be opened must stay so.
  const Result<std::vector<JournalEntry>> journal = book_.journal(company_);
  if (!journal) return tl::unexpected(journal.error());
  if (Status s = book_.mark(journal->back(), true, std::nullopt, *number); !s) return tl::unexpected(s.error());
  if (Status s = reloadJournal(); !s) return tl::unexpected(s.error());
  Error fault = shown.error();
  fault.todo = "The import was set aside and the company is as it was";
  return tl::unexpected(fault);
}

Result<Session::ImportResult> Session::import(const std::string& path, const std::string& company,
                                              const std::vector<ImportFile>& files,
                                              const std::shared_ptr<const Resources>& resources, const Desk& desk) {
  std::error_code ignored;
  if (std::filesystem::exists(path, ignored)) {
    const Result<std::unique_ptr<Session>> session = open(path, company, resources, desk);
    if (session) return (*session)->importFiles(files);
  }
  Result<std::vector<ImportPreview>> previews = services::preview(files, {company, resources, desk.now(), {}});
  if (!previews) return tl::unexpected(previews.error());
  return bringIn(path, company, std::move(*previews), resources, desk);
}

Result<Session::ImportResult> Session::bringIn(const std::string& path, const std::string& company,
                                               std::vector<ImportPreview> previews,
                                               const std::shared_ptr<const Resources>& resources, const Desk& desk) {
  std::error_code ignored;
  std::optional<store::Book> book;
  std::vector<store::StoredDocument> present;
  std::int64_t head = 0;
  if (std::filesystem::exists(path, ignored)) {
    const Result<std::unique_ptr<Session>> session = open(path, company, resources, desk);
    if (session) return (*session)->bringIn(std::move(previews));
    // Either the company is new to this book, or what it has cannot be shown yet.
    Result<store::Book> opened = store::Book::open(path);
    if (!opened) return tl::unexpected(opened.error());
    book.emplace(std::move(*opened));
    Result<std::vector<store::StoredDocument>> documents = book->documents(company);
    if (!documents) return tl::unexpected(documents.error());
    present = std::move(*documents);
    const Result<std::int64_t> stands = book->head(company);
    if (!stands) return tl::unexpected(stands.error());
    head = *stands;
  }
  const ImportContext context{company, resources, desk.now(), {}};
  Collection collection(context, present, desk);
  if (Status s = collection.take(std::move(previews)); !s) return tl::unexpected(s.error());
  if (collection.edit.incoming.empty()) return std::move(collection.result);
  if (!book) {
    Result<store::Book> made = store::Book::create(path);
    if (!made) return tl::unexpected(made.error());
    book.emplace(std::move(*made));
  }
  const Result<std::int64_t> number = book->append(collection.edit, head);
  if (!number) return tl::unexpected(number.error());
  return std::move(collection.result);
}

}  // namespace zl::services
