// Files into a book: as one edit, all or none.

#include <algorithm>
#include <filesystem>

#include "core/filing/minor_unit.h"
#include "exchange/csv/tables.h"
#include "exchange/json/company_json.h"
#include "exchange/json/lines_json.h"
#include "services/sessions/session.h"

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

  Status take(std::vector<ImportPreview> previews, const std::string& label) {
    if (Status s = readyToStore(previews); !s) return s;
    for (ImportPreview& p : previews) takeOne(p);
    if (edit.incoming.empty()) return {};
    if (!hasRecord()) {
      if (Status s = deriveRecord(); !s) return s;
    }
    const std::string what =
        result.files.size() == 1 ? result.files.front().name : std::to_string(result.files.size()) + " files";
    edit.entry = {
        0,  context_.company,         context_.now, desk_.author, label.empty() ? "Import " + what : label, "[]", "[]",
        {}, JournalEntry::State::Done};
    return {};
  }

 private:
  void takeOne(ImportPreview& p) {
    if (p.passedOver) {
      for (const std::string& warning : p.warnings) result.warnings.push_back(p.name + ": " + warning);
      return;
    }
    if (isInForce(p.incoming.document)) {
      result.warnings.push_back(p.name + " is already in the book, unchanged; passed over");
      return;
    }
    for (const std::string& warning : p.warnings) result.warnings.push_back(p.name + ": " + warning);
    if (filerName_.empty()) filerName_ = p.filer.filerName;
    edit.incoming.push_back(std::move(p.incoming));
    p.incoming = {};
    p.incoming.document = edit.incoming.back().document;
    LineChoices chosen = p.choices;
    for (const SheetReading& s : p.readings) {
      if (s.included) chosen.merge(choicesOf(s.reading));
    }
    if (!chosen.empty()) {
      edit.incoming.push_back(ownDocument(context_.company, "lines of " + p.name, ContentKind::TableChoices,
                                          exchange::lineChoicesText(chosen), context_.now));
    }
    p.workbook.reset();
    result.files.push_back(std::move(p));
  }

  /// Whether the book has the very file, and nothing that came after it took its place.
  [[nodiscard]] bool isInForce(const Document& document) const {
    const auto same = std::find_if(present_.rbegin(), present_.rend(),
                                   [&](const auto& d) { return d.active && d.document.digest == document.digest; });
    if (same == present_.rend()) return false;
    const bool standsOver = isKind(document, ContentKind::PriceTable) || isKind(document, ContentKind::RateTable) ||
                            isKind(document, ContentKind::PeerTable) || isKind(document, ContentKind::SeriesTable) ||
                            isKind(document, ContentKind::CompanyRecord);
    return !standsOver || std::none_of(present_.rbegin(), same,
                                       [&](const auto& d) { return d.active && d.document.kind == document.kind; });
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
    Result<Company> record = derivedRecord(context_.company, filerName_, facts);
    if (!record) return tl::unexpected(record.error());
    for (const store::Incoming& in : edit.incoming) {
      if (isKind(in.document, ContentKind::PriceTable)) takeListing(in, *record);
    }
    edit.incoming.push_back(ownDocument(context_.company, "record derived from the filings", ContentKind::CompanyRecord,
                                        exchange::textOf(exchange::toJson(*record), 2), context_.now));
    result.warnings.push_back("no company record: currency " + record->currency +
                              " comes from the filings, the listing is taken to be in " + record->listing.unit +
                              "; import a record to correct this");
    return {};
  }

  /// Prices that come in with the first filings say what the listing is in.
  static void takeListing(const store::Incoming& prices, Company& record) {
    const Result<exchange::PriceTable> table = exchange::readPrices(prices.content, prices.document.name);
    const std::optional<Listing> listing = table ? listingOfUnit(table->unit) : std::nullopt;
    if (listing) record.listing = *listing;
  }

  const ImportContext& context_;
  const std::vector<store::StoredDocument>& present_;
  const Desk& desk_;
  std::string filerName_;  ///< as the first filing that says has it
};

}  // namespace

ImportContext Session::importContext() const {
  ImportContext context{company_, shipped(), desk_.now(), {}};
  if (snapshot_) {
    for (const Multiple multiple : snapshot_->crossCheck.multiples) {
      const std::string& name = ruleOf(multiple).metric.further;
      const model::RowId row = snapshot_->model().find(name);
      if (!name.empty()) context.further[name] = row.known() ? snapshot_->model()[row].label : name;
    }
  }
  if (!snapshot_) return context;
  context.hints.currency = snapshot_->company().currency;
  context.hints.remembered = snapshot_->filed->choices;
  context.record = snapshot_->company();
  context.peers = snapshot_->market->peers;
  if (const std::vector<PricePoint>& prices = snapshot_->market->prices; !prices.empty()) context.close = prices.back();
  context.present = {snapshot_->filed, &snapshot_->filed->statements};
  // What a reading set aside by itself is judged anew; what the analyst did stays.
  std::erase_if(context.hints.remembered, [&](const auto& remembered) {
    const LineChoice& choice = remembered.second;
    return choice.line.empty() && !choice.byHand && snapshot_->caseOf().lines.count(remembered.first) == 0;
  });
  context.hints.fiscal =
      FiscalEnd{static_cast<unsigned>(std::chrono::year_month_day(snapshot_->years().back().end).month())};
  return context;
}

Result<Session::ImportResult> Session::importFiles(const std::vector<ImportFile>& files) {
  Result<std::vector<ImportPreview>> previews = services::preview(files, importContext());
  if (!previews) return tl::unexpected(previews.error());
  return bringIn(std::move(*previews));
}

Status Session::changeRecord(const RecordEdit& recorded) {
  if (Status s = writable(); !s) return s;
  if (recorded.after == snapshot_->company()) return {};
  store::Edit edit;
  edit.entry = {0, company_, desk_.now(), desk_.author, recorded.label, "[]", "[]", {}, JournalEntry::State::Done};
  edit.incoming.push_back(ownDocument(company_, kTypedRecord, ContentKind::CompanyRecord,
                                      exchange::textOf(exchange::toJson(recorded.after), 2), edit.entry.at));
  return changeAndShow(
      [&](store::Book::Change& change) -> Status {
        const Result<std::int64_t> number = change.append(edit, head_);
        return number ? Status() : tl::unexpected(number.error());
      },
      Shown::Whole);
}

Result<std::vector<std::string>> Session::typeTable(const std::string& name, const std::string& text,
                                                    const std::string& label) {
  Result<std::vector<ImportPreview>> previews = services::preview({{name, text}}, importContext());
  if (!previews) return tl::unexpected(previews.error());
  for (const ImportPreview& p : *previews) {
    if (p.statements == nullptr && p.incoming.facts.empty()) continue;
    return fail(ErrorKind::BadInput, "these are figures of statements", name, "Paste them on Filings");
  }
  Result<ImportResult> result = bringIn(std::move(*previews), label);
  if (!result) return tl::unexpected(result.error());
  return std::move(result->warnings);
}

Result<Session::ImportResult> Session::bringIn(std::vector<ImportPreview> previews, const std::string& label) {
  if (!readOnly_.empty()) return tl::unexpected(writable().error());
  for (const ImportPreview& p : previews) {
    if (p.incoming.company.empty() || p.incoming.company == company_) continue;
    return fail(ErrorKind::Conflict,
                "the file was read for '" + p.incoming.company + "', the open company is '" + company_ + "'", p.name,
                "Import it again");
  }
  const ImportContext context = importContext();
  const Result<std::vector<store::StoredDocument>> present = book_.documents(company_);
  if (!present) return tl::unexpected(present.error());
  Collection collection(context, *present, desk_);
  if (Status s = collection.take(std::move(previews), label); !s) return tl::unexpected(s.error());
  if (!collection.edit.incoming.empty()) {
    // Files that are sound one by one can still leave nothing to show together, such as a record in a
    // currency that no fact has.
    const Status stored = changeAndShow(
        [&](store::Book::Change& change) -> Status {
          const Result<std::int64_t> number = change.append(collection.edit, head_);
          return number ? Status() : tl::unexpected(number.error());
        },
        Shown::Whole);
    if (!stored) return tl::unexpected(stored.error());
  }
  collection.result.shown = snapshot_;
  return std::move(collection.result);
}

namespace {

/// Whether a new book is to be made under the name: none is there, or one whose making was cut short.
bool isFree(const std::string& path) {
  std::error_code ignored;
  return !std::filesystem::exists(std::filesystem::symlink_status(path, ignored)) || store::Book::isHalfMade(path);
}

}  // namespace

Result<Session::ImportResult> Session::import(const std::string& path, const std::string& company,
                                              const std::vector<ImportFile>& files,
                                              const std::shared_ptr<const Resources>& resources, const Desk& desk) {
  Result<ImportContext> context = contextFor(path, company, resources, desk);
  if (!context) return tl::unexpected(context.error());
  Result<std::vector<ImportPreview>> previews = services::preview(files, *context);
  if (!previews) return tl::unexpected(previews.error());
  return bringIn(path, company, std::move(*previews), resources, desk);
}

Result<ImportContext> Session::contextFor(const std::string& path, const std::string& company,
                                          const std::shared_ptr<const Resources>& resources, const Desk& desk) {
  if (isFree(path)) return ImportContext{company, resources, desk.now(), {}};
  Result<store::Book> book = store::Book::open(path, desk.patience);
  if (!book) return tl::unexpected(book.error());
  const Result<std::unique_ptr<Session>> session =
      openToFill(std::move(*book), company, CaseEvaluator::upon(resources), desk);
  if (!session) return tl::unexpected(session.error());
  return (*session)->importContext();
}

Result<Session::ImportResult> Session::bringIn(const std::string& path, const std::string& company,
                                               std::vector<ImportPreview> previews,
                                               const std::shared_ptr<const Resources>& resources, const Desk& desk) {
  if (Status s = validCompanyId(company); !s) return tl::unexpected(s.error());
  const auto into = [&](store::Book book) -> Result<ImportResult> {
    Result<std::unique_ptr<Session>> session =
        openToFill(std::move(book), company, CaseEvaluator::upon(resources), desk);
    if (!session) return tl::unexpected(session.error());
    return (*session)->bringIn(std::move(previews));
  };
  if (!isFree(path)) {
    Result<store::Book> book = store::Book::open(path, desk.patience);
    if (!book) return tl::unexpected(book.error());
    return into(std::move(*book));
  }
  Result<ImportResult> result = ImportResult();
  const Result<store::Book> made = store::Book::make(path, [&](store::Book& book) -> Status {
    result = into(book);
    return result ? Status() : tl::unexpected(result.error());
  });
  if (!made) return tl::unexpected(made.error());
  return result;
}

}  // namespace zl::services
