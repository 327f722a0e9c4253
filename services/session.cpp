#include "services/session.h"

#include <pwd.h>
#include <unistd.h>

#include <algorithm>
#include <chrono>
#include <cstdlib>
#include <ctime>

#include "exchange/json/case_json.h"
#include "services/gather.h"

namespace zl::services {

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

Result<Case> readCase(const std::string& text, const std::string& where) {
  const Result<Json> json = exchange::parseJson(text, where);
  if (!json) return tl::unexpected(json.error());
  return exchange::caseFromJson(*json, where);
}

/// The first case of a company: valued on the last day with a price, else today.
Case firstCase(const Evidence& e, const std::vector<FiscalYear>& years, const Desk& desk) {
  Date date = e.prices.empty() ? desk.today() : e.prices.back().date;
  if (!years.empty()) {
    const Date base = years.back().end;
    if (!stubFor(date, base, addYears(base, 1))) date = base;
  }
  Case c = newCase(e.company.id, date);
  if (!years.empty()) c.baseYear = years.back().label();
  return c;
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

void pinBaseYear(Case& c, const Evidence& evidence, const Resources& resources) {
  if (c.baseYear != 0) return;
  const auto filed = standardise(evidence, resources, c.lines, c.firstFiled);
  if (!filed->statements.years().empty()) c.baseYear = filed->statements.years().back().label();
}

Status Session::reload() {
  const Result<std::shared_ptr<const Evidence>> evidence = gather(book_, company_);
  if (!evidence) return tl::unexpected(evidence.error());
  const Result<std::optional<std::string>> text = book_.caseText(company_);
  if (!text) return tl::unexpected(text.error());
  Case c;
  if (!*text) {
    c = firstCase(**evidence, standardise(**evidence, *resources_, {}, {})->statements.years(), desk_);
  } else {
    const std::string where = "case of " + company_;
    const Result<Json> json = exchange::parseJson(**text, where);
    if (!json) return tl::unexpected(json.error());
    const int newer = exchange::newerVersion(*json);
    readOnly_ = newer == 0 ? ""
                           : "a newer version of the program wrote this case (layout " + std::to_string(newer) +
                                 "): it can be looked at and not changed";
    Result<Case> stored = newer == 0 ? exchange::caseFromJson(*json, where) : exchange::understoodCase(*json, where);
    if (!stored) return tl::unexpected(stored.error());
    c = std::move(*stored);
  }
  pinBaseYear(c, **evidence, *resources_);
  Result<std::shared_ptr<const Snapshot>> snapshot = makeSnapshot(resources_, *evidence, c, snapshot_.get());
  if (!snapshot) return tl::unexpected(snapshot.error());
  if (Status s = reloadJournal(); !s) return s;
  snapshot_ = std::move(*snapshot);
  return {};
}

Status Session::reloadJournal() {
  Result<std::vector<JournalEntry>> journal = book_.journal(company_);
  if (!journal) return tl::unexpected(journal.error());
  const Result<std::int64_t> head = book_.head(company_);
  if (!head) return tl::unexpected(head.error());
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

Status Session::writable() const {
  if (readOnly_.empty()) return {};
  return fail(ErrorKind::Unsupported, readOnly_, company_, "Open the book with that version to change it");
}

Status Session::apply(const CaseEdit& edit) {
  if (Status s = writable(); !s) return s;
  if (edit.after == snapshot_->caseOf()) return {};
  Result<std::shared_ptr<const Snapshot>> next = preview(edit.after);
  if (!next) return tl::unexpected(next.error());
  store::Edit write;
  write.entry = {0, company_, desk_.now(), desk_.author, edit.label, {}, {}, {}, JournalEntry::State::Done};
  try {
    const Json before = exchange::toJson(snapshot_->caseOf());
    const Json after = exchange::toJson(edit.after);
    write.entry.forward = Json::diff(before, after).dump();
    write.entry.backward = Json::diff(after, before).dump();
    write.caseText = after.dump();
  } catch (const Json::exception&) {
    return fail(ErrorKind::BadInput, "a text of this edit is not UTF-8", company_, "Save it as UTF-8 and try again");
  }
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

/// The documents stay as they are: only the case is read again.
Status Session::stepCase(const JournalEntry& entry, bool undo, const std::string& text, const Case& c) {
  Result<std::shared_ptr<const Snapshot>> next = preview(c);
  if (!next) return tl::unexpected(next.error());
  if (Status s = book_.mark(entry, undo, text, head_); !s) return s;
  for (JournalEntry& e : journal_) {
    if (e.number == entry.number) e.state = undo ? JournalEntry::State::Undone : JournalEntry::State::Done;
  }
  const JournalEntry* last = lastDone(journal_);
  head_ = last == nullptr ? 0 : last->number;
  snapshot_ = std::move(*next);
  return {};
}

Status Session::step(bool undo) {
  if (Status s = writable(); !s) return s;
  const JournalEntry* found = undo ? lastDone(journal_) : firstUndone(journal_);
  if (found == nullptr || (undo && isFirst(journal_, found))) {
    return fail(ErrorKind::NotFound, undo ? "there is nothing to undo" : "there is nothing to redo", company_);
  }
  const JournalEntry entry = *found;
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
    if (entry.documents.empty()) return stepCase(entry, undo, *text, *c);
  }
  const std::string before = exchange::toJson(snapshot_->caseOf()).dump();
  if (Status s = book_.mark(entry, undo, text, head_); !s) return s;
  Status shown = reload();
  if (!shown) {
    // What cannot be shown is taken back, so that the company still opens.
    const Result<std::int64_t> head = book_.head(company_);
    if (!head) return tl::unexpected(head.error());
    if (Status s = book_.mark(entry, !undo, text ? std::optional(before) : std::nullopt, *head); !s) return s;
  }
  return shown;
}

}  // namespace zl::services
