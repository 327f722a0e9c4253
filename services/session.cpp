#include "services/session.h"

#include <pwd.h>
#include <unistd.h>

#include <algorithm>
#include <chrono>
#include <cstdlib>
#include <ctime>
#include <filesystem>

#include "exchange/csv/tables.h"
#include "exchange/json/case_json.h"
#include "exchange/json/company_json.h"

namespace zl::services {

using exchange::ContentKind;
using exchange::Json;
using store::JournalEntry;

Desk Desk::ofThisMachine() {
  Desk desk;
  const char* user = std::getenv("USER");
  const passwd* entry = user == nullptr ? getpwuid(getuid()) : nullptr;
  desk.author = user != nullptr ? user : (entry != nullptr ? entry->pw_name : "analyst");
  desk.now = [] {
    const std::time_t t = std::time(nullptr);
    std::tm parts{};
    gmtime_r(&t, &parts);
    char text[32];
    std::strftime(text, sizeof text, "%Y-%m-%dT%H:%M:%SZ", &parts);
    return std::string(text);
  };
  desk.today = [] { return std::chrono::floor<std::chrono::days>(std::chrono::system_clock::now()); };
  return desk;
}

namespace {

template <class T>
Status take(Result<T> result, T& into) {
  if (!result) return tl::unexpected(result.error());
  into = std::move(*result);
  return {};
}

/// Reads one active document that is not a filing into the evidence; later ones replace earlier.
Status readDocument(store::Book& book, const store::StoredDocument& d, Evidence& e) {
  const std::string& kind = d.document.kind;
  const auto is = [&](ContentKind k) { return kind == exchange::contentKindText(k); };
  if (!is(ContentKind::PriceTable) && !is(ContentKind::PeerTable) && !is(ContentKind::RateTable) &&
      !is(ContentKind::CompanyRecord)) {
    return {};
  }
  const Result<std::string> content = book.content(d.document.id);
  if (!content) return tl::unexpected(content.error());
  if (is(ContentKind::PriceTable)) return take(exchange::readPrices(*content, d.document.name), e.prices);
  if (is(ContentKind::PeerTable)) return take(exchange::readPeers(*content, d.document.name), e.peers);
  if (is(ContentKind::RateTable)) return take(exchange::readRates(*content, d.document.name), e.rates);
  Result<Json> json = exchange::parseJson(*content, d.document.name);
  if (!json) return tl::unexpected(json.error());
  e.companySource = d.document.name;
  return take(exchange::companyFromJson(*json, d.document.name), e.company);
}

Result<std::shared_ptr<const Evidence>> gather(store::Book& book, const std::string& company,
                                               const Resources& resources) {
  auto e = std::make_shared<Evidence>();
  if (Status s = take(book.documents(company), e->documents); !s) return tl::unexpected(s.error());
  for (const store::StoredDocument& d : e->documents) {
    if (!d.active) continue;
    if (Status s = readDocument(book, d, *e); !s) return tl::unexpected(s.error());
  }
  if (e->company.id.empty()) {
    return fail(ErrorKind::NotFound, "the book has no company '" + company + "'", book.path(),
                "Import its filings and record first");
  }
  if (Status s = take(book.facts(company), e->facts); !s) return tl::unexpected(s.error());
  e->statements = StandardStatements::build(e->facts, resources.rules, e->company.currency);
  e->ties = checkTies(resources.ties, e->statements, e->facts);
  e->filingFindings = monitorFilings(e->statements, e->facts, resources.ties, e->ties);
  return std::shared_ptr<const Evidence>(std::move(e));
}

Result<Case> readCase(const std::string& text, const std::string& where) {
  const Result<Json> json = exchange::parseJson(text, where);
  if (!json) return tl::unexpected(json.error());
  return exchange::caseFromJson(*json, where);
}

/// The first case of a company: valued on the last day with a price, else today.
Case firstCase(const Evidence& e, const Desk& desk) {
  Date date = e.prices.empty() ? desk.today() : e.prices.back().date;
  if (!e.statements.years().empty()) {
    const Date base = e.statements.years().back().end;
    if (!stubFor(date, base, addYears(base, 1))) date = base;
  }
  return newCase(e.company.id, date);
}

}  // namespace

Session::Session(store::Book book, std::string company, std::shared_ptr<const Resources> resources, Desk desk)
    : book_(std::move(book)), company_(std::move(company)), resources_(std::move(resources)), desk_(std::move(desk)) {}

Result<std::unique_ptr<Session>> Session::open(const std::string& path, const std::string& company,
                                               std::shared_ptr<const Resources> resources, Desk desk) {
  Result<store::Book> book = store::Book::open(path);
  if (!book) return tl::unexpected(book.error());
  std::string id = company;
  if (id.empty()) {
    const Result<std::vector<std::string>> all = book->companies();
    if (!all) return tl::unexpected(all.error());
    if (all->empty()) {
      return fail(ErrorKind::NotFound, "the book holds no company yet", path, "Import filings first");
    }
    if (all->size() > 1) {
      std::string names;
      for (const std::string& name : *all) names += (names.empty() ? "" : ", ") + name;
      return fail(ErrorKind::BadInput, "the book holds several companies: " + names, path, "Name one with --company");
    }
    id = all->front();
  }
  std::unique_ptr<Session> session(new Session(std::move(*book), id, std::move(resources), std::move(desk)));
  if (Status s = session->reload(); !s) return tl::unexpected(s.error());
  return session;
}

Status Session::reload() {
  const Result<std::shared_ptr<const Evidence>> evidence = gather(book_, company_, *resources_);
  if (!evidence) return tl::unexpected(evidence.error());
  const Result<std::optional<std::string>> text = book_.caseText(company_);
  if (!text) return tl::unexpected(text.error());
  Case c = firstCase(**evidence, desk_);
  if (*text) {
    Result<Case> stored = readCase(**text, "case of " + company_);
    if (!stored) return tl::unexpected(stored.error());
    c = std::move(*stored);
  }
  Result<std::shared_ptr<const Snapshot>> snapshot = makeSnapshot(resources_, *evidence, c, snapshot_.get());
  if (!snapshot) return tl::unexpected(snapshot.error());
  Result<std::vector<JournalEntry>> journal = book_.journal(company_);
  if (!journal) return tl::unexpected(journal.error());
  const Result<std::int64_t> head = book_.head(company_);
  if (!head) return tl::unexpected(head.error());
  snapshot_ = std::move(*snapshot);
  journal_ = std::move(*journal);
  head_ = *head;
  return {};
}

Provenance Session::said(std::string reason) const {
  return {std::move(reason), desk_.author, desk_.now()};
}

Result<std::shared_ptr<const Snapshot>> Session::preview(const Case& c) const {
  return makeSnapshot(resources_, snapshot_->evidence, c, snapshot_.get());
}

Status Session::apply(const CaseEdit& edit) {
  if (edit.after == snapshot_->caseOf()) return {};
  Result<std::shared_ptr<const Snapshot>> next = preview(edit.after);
  if (!next) return tl::unexpected(next.error());
  const Json before = exchange::toJson(snapshot_->caseOf());
  const Json after = exchange::toJson(edit.after);
  store::Edit write;
  write.entry = {0,
                 company_,
                 desk_.now(),
                 desk_.author,
                 edit.label,
                 Json::diff(before, after).dump(),
                 Json::diff(after, before).dump(),
                 {},
                 JournalEntry::State::Done};
  write.caseText = after.dump();
  const Result<std::int64_t> number = book_.append(write, head_);
  if (!number) return tl::unexpected(number.error());
  write.entry.number = *number;
  for (JournalEntry& e : journal_) {
    if (e.state == JournalEntry::State::Undone) e.state = JournalEntry::State::Dropped;
  }
  journal_.push_back(write.entry);
  head_ = *number;
  snapshot_ = std::move(*next);
  return {};
}

namespace {

const JournalEntry* lastDone(const std::vector<JournalEntry>& journal) {
  const auto found = std::find_if(journal.rbegin(), journal.rend(),
                                  [](const JournalEntry& e) { return e.state == JournalEntry::State::Done; });
  return found == journal.rend() ? nullptr : &*found;
}

const JournalEntry* firstUndone(const std::vector<JournalEntry>& journal) {
  const auto found = std::find_if(journal.begin(), journal.end(),
                                  [](const JournalEntry& e) { return e.state == JournalEntry::State::Undone; });
  return found == journal.end() ? nullptr : &*found;
}

/// The first import makes the company; without it there would be nothing to show.
bool isFirst(const std::vector<JournalEntry>& journal, const JournalEntry* entry) {
  return entry != nullptr && entry == &journal.front();
}

}  // namespace

std::string Session::undoLabel() const {
  const JournalEntry* e = lastDone(journal_);
  return e == nullptr || isFirst(journal_, e) ? std::string() : e->label;
}

std::string Session::redoLabel() const {
  const JournalEntry* e = firstUndone(journal_);
  return e == nullptr ? std::string() : e->label;
}

Status Session::undo() {
  return step(true);
}
Status Session::redo() {
  return step(false);
}

Status Session::step(bool undo) {
  if ((undo ? undoLabel() : redoLabel()).empty()) {
    return fail(ErrorKind::NotFound, undo ? "there is nothing to undo" : "there is nothing to redo", company_);
  }
  const JournalEntry entry = undo ? *lastDone(journal_) : *firstUndone(journal_);
  const Result<Json> patch = exchange::parseJson(undo ? entry.backward : entry.forward, "journal");
  if (!patch) return tl::unexpected(patch.error());
  std::optional<std::string> text;
  if (!patch->empty()) {
    try {
      text = exchange::toJson(snapshot_->caseOf()).patch(*patch).dump();
    } catch (const Json::exception& e) {
      return fail(ErrorKind::Internal, "the journal does not fit the case: " + std::string(e.what()), company_,
                  "Nothing was changed; please report this");
    }
    // What cannot be shown must not be stored.
    const Result<Case> c = readCase(*text, "case of " + company_);
    if (!c) return tl::unexpected(c.error());
  }
  const std::string before = exchange::toJson(snapshot_->caseOf()).dump();
  if (Status s = book_.mark(entry, undo, text); !s) return s;
  const Status shown = reload();
  if (!shown) {
    // What cannot be shown is taken back, so that the company still opens.
    if (Status s = book_.mark(entry, !undo, text ? std::optional(before) : std::nullopt); !s) return s;
  }
  return shown;
}

Result<Session::ImportResult> Session::importFiles(const std::vector<ImportFile>& files) {
  Result<ImportResult> result = import(path(), company_, files, *resources_, desk_);
  if (!result) return result;
  if (Status s = reload(); !s) return tl::unexpected(s.error());
  return result;
}

namespace {

/// Why a company cannot be shown, as the book stands now; nothing when it can.
std::optional<Error> whyNotShown(const std::string& path, const std::string& company, const Resources& resources,
                                 const Desk& desk) {
  const std::shared_ptr<const Resources> borrowed(std::shared_ptr<void>(), &resources);
  const Result<std::unique_ptr<Session>> session = Session::open(path, company, borrowed, desk);
  return session ? std::nullopt : std::optional(session.error());
}

}  // namespace

Result<Session::ImportResult> Session::import(const std::string& path, const std::string& company,
                                              const std::vector<ImportFile>& files, const Resources& resources,
                                              const Desk& desk) {
  ImportResult result;
  store::Edit edit;
  std::error_code ignored;
  const bool exists = std::filesystem::exists(path, ignored);
  std::vector<store::StoredDocument> present;
  std::int64_t head = 0;
  std::optional<store::Book> book;
  if (exists) {
    Result<store::Book> opened = store::Book::open(path);
    if (!opened) return tl::unexpected(opened.error());
    book.emplace(std::move(*opened));
    if (Status s = take(book->documents(company), present); !s) return tl::unexpected(s.error());
    if (Status s = take(book->head(company), head); !s) return tl::unexpected(s.error());
  }
  const auto has = [&](ContentKind kind) {
    const auto same = [&](const std::string& k) { return k == exchange::contentKindText(kind); };
    return std::any_of(present.begin(), present.end(),
                       [&](const auto& d) { return d.active && same(d.document.kind); }) ||
           std::any_of(edit.incoming.begin(), edit.incoming.end(),
                       [&](const auto& i) { return same(i.document.kind); });
  };
  std::vector<Fact> facts;
  Result<std::vector<ImportPreview>> previews = services::preview(files, company, resources.rules, desk.now());
  if (!previews) return tl::unexpected(previews.error());
  for (ImportPreview& p : *previews) {
    const bool known = std::any_of(present.begin(), present.end(), [&](const auto& d) {
      return d.active && d.document.digest == p.incoming.document.digest;
    });
    if (known) {
      result.warnings.push_back(p.name + " is already in the book, unchanged; passed over");
      continue;
    }
    for (const std::string& warning : p.warnings) result.warnings.push_back(p.name + ": " + warning);
    facts.insert(facts.end(), p.incoming.facts.begin(), p.incoming.facts.end());
    edit.incoming.push_back(p.incoming);
    p.incoming.content.clear();
    p.incoming.facts.clear();
    result.files.push_back(std::move(p));
  }
  if (edit.incoming.empty()) return result;
  if (!has(ContentKind::CompanyRecord)) {
    const Result<Company> record = derivedRecord(company, facts, resources.rules);
    if (!record) return tl::unexpected(record.error());
    store::Incoming in;
    in.company = company;
    in.content = exchange::toJson(*record).dump(2);
    in.document = {0,
                   "record derived from the filings",
                   exchange::contentKindText(ContentKind::CompanyRecord),
                   exchange::digestOf(in.content),
                   std::nullopt,
                   desk.now()};
    edit.incoming.push_back(std::move(in));
    result.warnings.push_back("no company record: currency " + record->currency +
                              " and the share count come from the filings, the listing is taken to be in " +
                              record->currency + "; import a record to correct this");
  }
  if (!book) {
    Result<store::Book> made = store::Book::create(path);
    if (!made) return tl::unexpected(made.error());
    book.emplace(std::move(*made));
  }
  const std::string what =
      result.files.size() == 1 ? result.files.front().name : std::to_string(result.files.size()) + " files";
  edit.entry = {0, company, desk.now(), desk.author, "Import " + what, "[]", "[]", {}, JournalEntry::State::Done};
  const bool shownBefore = exists && !whyNotShown(path, company, resources, desk);
  const Result<std::int64_t> number = book->append(edit, head);
  if (!number) return tl::unexpected(number.error());
  if (!shownBefore) return result;
  // Files that are sound one by one can still leave nothing to show together, such as a record in a
  // currency that no fact has. A company that could be opened must stay so.
  if (std::optional<Error> fault = whyNotShown(path, company, resources, desk)) {
    const Result<std::vector<JournalEntry>> journal = book->journal(company);
    if (!journal) return tl::unexpected(journal.error());
    if (Status s = book->mark(journal->back(), true, std::nullopt); !s) return tl::unexpected(s.error());
    fault->todo = "The import was set aside and the company is as it was";
    return tl::unexpected(*fault);
  }
  return result;
}

}  // namespace zl::services
