#include "services/sessions/session.h"

#include <pwd.h>
#include <unistd.h>

#include <algorithm>
#include <chrono>
#include <cstdlib>
#include <ctime>

#include "core/text/utf8.h"
#include "exchange/json/book_home.h"
#include "exchange/json/book_peer.h"
#include "exchange/json/case_json.h"
#include "services/intake/market.h"
#include "services/library/companions.h"
#include "services/library/library.h"
#include "services/library/stored_case.h"

namespace zl::services {

using exchange::Json;
using store::JournalEntry;

Desk Desk::ofThisMachine() {
  Desk desk;
  const char* user = std::getenv("USER");
  const passwd* entry = user == nullptr ? getpwuid(getuid()) : nullptr;
  desk.author = harmless(user != nullptr ? user : (entry != nullptr ? entry->pw_name : "analyst"));
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

Session::Session(store::Book book, std::string company, std::shared_ptr<CaseEvaluator> evaluator, Desk desk)
    : book_(std::move(book)), company_(std::move(company)), evaluator_(std::move(evaluator)), desk_(std::move(desk)) {
  book_.copyDaily(dateText(desk_.today()));
  readOnly_ = book_.readOnly();
}

Status validCompanyId(const std::string& id) {
  constexpr size_t kLongest = 64;
  const bool oneWord = !id.empty() && id.size() <= kLongest && isUtf8(id) && harmless(id) == id &&
                       id.find_first_of(" /\\") == std::string::npos;
  if (oneWord) return {};
  return fail(ErrorKind::BadInput, "'" + shortened(harmless(id), 60) + "' cannot be the short name of a company", {},
              "Use one word of at most 64 letters, digits and hyphens");
}

Result<std::unique_ptr<Session>> Session::open(const std::string& path, const std::string& company,
                                               std::shared_ptr<const Resources> resources, const Desk& desk) {
  Result<store::Book> book = store::Book::open(path, desk.patience);
  if (!book) return tl::unexpected(book.error());
  return openIn(std::move(*book), company, std::move(resources), desk);
}

Result<std::unique_ptr<Session>> Session::openIn(store::Book book, const std::string& company,
                                                 std::shared_ptr<const Resources> resources, const Desk& desk) {
  return openIn(std::move(book), company, CaseEvaluator::upon(std::move(resources)), desk);
}

Result<std::unique_ptr<Session>> Session::openIn(store::Book book, const std::string& company,
                                                 std::shared_ptr<CaseEvaluator> evaluator, const Desk& desk) {
  const Result<std::vector<std::string>> all = book.companies();
  if (!all) return tl::unexpected(all.error());
  std::string id = company;
  if (id.empty()) {
    if (all->empty()) {
      return fail(ErrorKind::NotFound, "the book holds no company yet", book.path(), "Import filings first");
    }
    Result<std::string> home = homeOf(book);
    if (!home) return tl::unexpected(home.error());
    if (home->empty()) {
      return fail(ErrorKind::BadInput, "the book holds several companies: " + companyList(*all), book.path(),
                  "Name one with --company, or the one to open with: 'zledger home'");
    }
    id = std::move(*home);
  } else if (std::find(all->begin(), all->end(), id) == all->end()) {
    return fail(ErrorKind::NotFound, "the book has no company '" + shortened(harmless(id), 60) + "'", book.path(),
                all->empty() ? "Import its filings and record first" : "It has " + companyList(*all));
  }
  return openToFill(std::move(book), id, std::move(evaluator), desk);
}

Result<std::unique_ptr<Session>> Session::openToFill(store::Book book, const std::string& company,
                                                     std::shared_ptr<CaseEvaluator> evaluator, const Desk& desk) {
  std::unique_ptr<Session> session(new Session(std::move(book), company, std::move(evaluator), desk));
  if (Status s = session->load(); !s) return tl::unexpected(s.error());
  return session;
}

Result<std::shared_ptr<const Snapshot>> Session::evaluate(Loaded& loaded) {
  const Result<Sources> sources = gatherWithPeers(book_, company_, *evaluator_, desk_.today());
  if (!sources) return tl::unexpected(sources.error());
  Result<StoredCase> stored = storedCase(loaded.text, *sources, *evaluator_, desk_.today());
  if (!stored) return tl::unexpected(stored.error());
  loaded.newer = std::move(stored->newer);
  return evaluator_->show(*sources, stored->theCase, Standing::StoodBefore);
}

/// Everything of the company at one moment. The caller sees to it that it is one: a case read before
/// somebody else's edit and a head read after it would let the next edit pass its check.
Result<Session::Loaded> Session::read() {
  Loaded loaded;
  Result<std::vector<JournalEntry>> journal = book_.journal(company_);
  if (!journal) return tl::unexpected(journal.error());
  loaded.journal = std::move(*journal);
  for (const JournalEntry& e : loaded.journal) {
    if (e.state == JournalEntry::State::Done) loaded.head = e.number;
  }
  Result<std::optional<std::string>> text = book_.caseText(company_);
  if (!text) return tl::unexpected(text.error());
  loaded.text = std::move(*text);
  loaded.shown = evaluate(loaded);
  return loaded;
}

void Session::adopt(Loaded loaded) {
  journal_ = std::move(loaded.journal);
  head_ = loaded.head;
  text_ = std::move(loaded.text);
  readOnly_ = book_.readOnly().empty() ? loaded.newer : book_.readOnly();
  fault_.reset();
  snapshot_.reset();
  if (loaded.shown) {
    snapshot_ = std::move(*loaded.shown);
  } else {
    fault_ = loaded.shown.error();
  }
}

Status Session::load() {
  const Result<store::Book::Moment> moment = book_.moment();
  if (!moment) return tl::unexpected(moment.error());
  const Result<std::int64_t> others = book_.changesOfOthers();
  if (!others) return tl::unexpected(others.error());
  Result<Loaded> loaded = read();
  if (!loaded) return tl::unexpected(loaded.error());
  adopt(std::move(*loaded));
  others_ = *others;
  standing_ = standingNow().value_or(std::string());
  return {};
}

/// What is stored of the company, and of those of the book that are its peers: where either moves, what is shown is
/// old.
Result<std::string> Session::standingNow() {
  Result<std::string> standing = book_.standingOf(company_);
  if (!standing || !snapshot_) return standing;
  std::vector<std::string> others = snapshot_->market->companions;
  for (const auto& [company, set] : bookSetsOf(*snapshot_->evidence)) others.push_back(company);
  for (const std::string& id : others) {
    const Result<std::string> theirs = book_.standingOf(id);
    if (!theirs) return theirs;
    *standing += "\n" + *theirs;
  }
  return standing;
}

/// After an edit of one's own. Where somebody else has stored something since the last look, or it cannot be read, the
/// next look shows the company anew: what others did must not pass for one's own.
void Session::noteStanding() {
  standing_.clear();
  const Result<store::Book::Moment> moment = book_.moment();
  if (!moment) return;
  const Result<std::int64_t> others = book_.changesOfOthers();
  if (others && *others == others_) standing_ = standingNow().value_or(std::string());
}

/// The snapshot with what was fetched since; true when there was anything. A case that nobody has stored yet is made
/// anew: it is valued on the last day with a price.
Result<bool> Session::showFetched() {
  if (!text_) {
    if (Status s = load(); !s) return tl::unexpected(s.error());
    return true;
  }
  const Result<std::vector<store::Observation>> fresh =
      book_.observations(company_, snapshot_->market->lastObservation);
  if (!fresh) return tl::unexpected(fresh.error());
  if (fresh->empty()) return false;
  const Sources sources{snapshot_->evidence,
                        withObservations(*snapshot_->market, *fresh, snapshot_->company().listing.unit)};
  Result<std::shared_ptr<const Snapshot>> next = evaluator_->show(sources, snapshot_->caseOf(), Standing::StoodBefore);
  if (!next) return tl::unexpected(next.error());
  snapshot_ = std::move(*next);
  return true;
}

Result<Session::News> Session::refresh() {
  const Result<std::int64_t> others = book_.changesOfOthers();
  if (!others) return tl::unexpected(others.error());
  if (*others == others_) return News::None;
  const Result<std::string> standing = standingNow();
  if (!standing) return tl::unexpected(standing.error());
  if (snapshot_ && !standing_.empty() && *standing == standing_) {
    const Result<bool> fetched = showFetched();
    if (!fetched) return tl::unexpected(fetched.error());
    others_ = *others;
    return *fetched ? News::Market : News::None;
  }
  if (Status s = load(); !s) return tl::unexpected(s.error());
  return News::Company;
}

Status Session::observe(std::vector<store::Observation> observations) {
  if (!book_.readOnly().empty()) return writable();
  if (fault_) return tl::unexpected(*fault_);
  for (store::Observation& o : observations) {
    const bool price = o.series == kPriceSeries;
    o.company = price ? company_ : std::string();
    if (o.fetched.empty()) o.fetched = desk_.now();
    if (price && o.unit.empty()) o.unit = snapshot_->company().listing.unit;
    const std::string fault = faultOfFigure(o.series, o.figure, o.unit, snapshot_->company().listing.unit);
    if (!fault.empty())
      return fail(ErrorKind::BadInput, fault, o.series + " of " + dateText(o.at), "Nothing was stored");
  }
  const Result<int> stored = book_.observe(observations);
  if (!stored) return tl::unexpected(stored.error());
  const Result<bool> shown = showFetched();
  return shown ? Status() : tl::unexpected(shown.error());
}

Status Session::typeFigure(const std::string& series, Date at, double figure, const std::string& reason) {
  if (Status s = writable(); !s) return s;
  const Listing& listing = snapshot_->company().listing;
  const bool price = series == kPriceSeries;
  exchange::TypedFigure typed{series, at, figure, price ? listing.unit : "", said(reason)};
  const std::string fault = faultOfFigure(series, figure, typed.unit, listing.unit);
  if (!fault.empty()) return fail(ErrorKind::BadInput, fault, series + " of " + dateText(at), "Nothing was changed");
  return storeTyped("Type " + series + " of " + dateText(at), price ? company_ : std::string(),
                    series + " of " + dateText(at) + ", typed", exchange::ContentKind::TypedFigure,
                    exchange::typedFigureText(typed));
}

Status Session::peerOfBook(const std::string& id, bool in, const std::string& reason) {
  if (Status s = writable(); !s) return s;
  const Result<std::vector<CompanyEntry>> companies = companiesOf(book_);
  if (!companies) return tl::unexpected(companies.error());
  const auto found =
      std::find_if(companies->begin(), companies->end(), [&](const CompanyEntry& e) { return e.id == id; });
  if (id == company_) return fail(ErrorKind::BadInput, "a company is no peer of itself", id, "Nothing was changed");
  const std::map<std::string, bool>& peers = snapshot_->evidence->bookPeers;
  const auto stands = peers.find(id);
  const bool isIn = stands != peers.end() && stands->second;
  if (in && found == companies->end())
    return fail(ErrorKind::NotFound, "the book has no company '" + id + "'", book_.path(), "'zledger list' names them");
  if (isIn == in)
    return fail(ErrorKind::BadInput, "'" + id + "' is " + (in ? "a peer already" : "no peer from this book"), company_,
                "Nothing was changed");
  const std::string& name = found == companies->end() ? id : found->name;
  return storeTyped((in ? "Peer of this book: " : "No more a peer: ") + name, company_,
                    name + (in ? ", a peer of this book" : ", a peer no more"), exchange::ContentKind::BookPeer,
                    exchange::bookPeerText({id, {}, in, said(reason)}));
}

Status Session::makeHome(const std::string& company) {
  if (Status s = writable(); !s) return s;
  const Result<std::vector<std::string>> all = book_.companies();
  if (!all) return tl::unexpected(all.error());
  if (std::find(all->begin(), all->end(), company) == all->end())
    return fail(ErrorKind::NotFound, "the book has no company '" + company + "'", book_.path(),
                "It has " + companyList(*all));
  return storeTyped("The book opens with " + company, std::string(), "opens with " + company,
                    exchange::ContentKind::BookHome, exchange::bookHomeText(company));
}

Result<std::vector<std::pair<std::string, std::string>>> Session::setsOfOthers() {
  const Result<std::vector<CompanyEntry>> companies = companiesOf(book_);
  if (!companies) return tl::unexpected(companies.error());
  std::vector<std::pair<std::string, std::string>> sets;
  for (const CompanyEntry& company : *companies) {
    if (company.id == company_) continue;
    const Result<std::optional<std::string>> text = book_.caseText(company.id);
    if (!text) return tl::unexpected(text.error());
    if (!*text) continue;
    const Result<exchange::Json> json = exchange::parseJson(**text, "case of " + company.id);
    if (!json || !json->is_object()) continue;  // who opens it is told
    const exchange::Json named = json->value("peer_sets", exchange::Json());
    if (!named.is_object()) continue;
    for (const auto& [name, members] : named.items()) sets.emplace_back(company.id, name);
  }
  return sets;
}

Status Session::shareSet(const std::string& company, const std::string& set, bool in, const std::string& reason) {
  if (Status s = writable(); !s) return s;
  const auto stands = snapshot_->evidence->bookSets.find({company, set});
  const bool isIn = stands != snapshot_->evidence->bookSets.end() && stands->second;
  const std::string name = set + " of " + company;
  if (isIn == in)
    return fail(ErrorKind::BadInput, "the set " + name + (in ? " is shared already" : " is not shared"), company_,
                "Nothing was changed");
  if (in) {
    const auto sets = setsOfOthers();
    if (!sets) return tl::unexpected(sets.error());
    if (std::find(sets->begin(), sets->end(), std::pair(company, set)) == sets->end())
      return fail(ErrorKind::NotFound, "the book has no set of peers " + name, book_.path(),
                  "'zledger peer-set --of-book' lists them");
  }
  return storeTyped((in ? "Share the peer set " : "No longer share the peer set ") + name, company_,
                    name + (in ? ", a set of peers shared" : ", a set of peers shared no more"),
                    exchange::ContentKind::BookPeer, exchange::bookPeerText({company, set, in, said(reason)}));
}

/// A document that nobody brought in as a file: an edit like any other.
Status Session::storeTyped(const std::string& label, const std::string& company, const std::string& name,
                           exchange::ContentKind kind, std::string content) {
  const std::string now = desk_.now();
  store::Edit edit;
  edit.entry = {0, company_, now, desk_.author, label, "[]", "[]", {}, JournalEntry::State::Done};
  store::Incoming in;
  in.company = company;
  in.content = std::move(content);
  in.document = {0, name, exchange::contentKindText(kind), exchange::digestOf(in.content), std::nullopt, now};
  edit.incoming.push_back(std::move(in));
  return changeAndShow(
      [&](store::Book::Change& change) -> Status {
        const Result<std::int64_t> number = change.append(edit, head_);
        return number ? Status() : tl::unexpected(number.error());
      },
      Shown::Whole);
}

Provenance Session::said(std::string reason) const {
  return {std::move(reason), desk_.author, desk_.now()};
}

Result<std::shared_ptr<const Snapshot>> Session::preview(const Case& c) const {
  const bool asBefore = snapshot_->ownRowsFault() && snapshot_->caseOf().ownRows == c.ownRows;
  return evaluator_->show(snapshot_->sources(), c, asBefore ? Standing::StoodBefore : Standing::Typed);
}

Status Session::writable() const {
  if (!readOnly_.empty()) {
    const bool place = !book_.readOnly().empty();
    return fail(
        ErrorKind::Unsupported, readOnly_, company_,
        place ? "Copy the book to a place where you may write" : "Open the book with that version to change it");
  }
  return fault_ ? Status(tl::unexpected(*fault_)) : Status();
}

/// Somebody else was first: their work is shown, so that the edit can be made again upon it.
Status Session::conflicted(const Error& error) {
  if (error.kind != ErrorKind::Conflict) return tl::unexpected(error);
  const std::int64_t before = head_;
  if (Status s = load(); !s) return s;
  if (head_ == before) return tl::unexpected(error);  // the conflict was another one, a name that is taken
  const auto newest = std::find_if(journal_.rbegin(), journal_.rend(),
                                   [](const JournalEntry& e) { return e.state == JournalEntry::State::Done; });
  const std::string by = newest == journal_.rend() ? "" : " (" + newest->author + ": " + newest->label + ")";
  return fail(ErrorKind::Conflict, "somebody else changed this company in the meantime" + by, company_,
              "Your edit was not made; the company is shown as it is now");
}

Status Session::apply(const CaseEdit& edit) {
  return write(edit, std::nullopt);
}

Status Session::applyKeeping(const CaseEdit& edit, const std::string& name, const std::string& note) {
  Result<store::KeptVersion> keep = named(name, note);
  if (!keep) return tl::unexpected(keep.error());
  return write(edit, std::move(*keep));
}

Status Session::write(const CaseEdit& edit, std::optional<store::KeptVersion> keep) {
  if (Status s = writable(); !s) return s;
  if (edit.after == snapshot_->caseOf()) return {};
  Result<std::shared_ptr<const Snapshot>> next = preview(edit.after);
  if (!next) return tl::unexpected(next.error());
  store::Edit write;
  write.keep = std::move(keep);
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
  if (!number) return conflicted(number.error());
  write.entry.number = *number;
  for (JournalEntry& e : journal_) {
    if (e.state == JournalEntry::State::Undone) e.state = JournalEntry::State::Dropped;
  }
  journal_.push_back(write.entry);
  head_ = *number;
  text_ = std::move(write.caseText);
  snapshot_ = std::move(*next);
  noteStanding();
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

}  // namespace

/// The first import makes the company: taken back, there would be nothing to show, which is right
/// only where there is nothing to show as it is.
const JournalEntry* Session::nextStep(bool undo) const {
  const JournalEntry* e = undo ? lastDone(journal_) : firstUndone(journal_);
  const bool first = undo && e != nullptr && e == &journal_.front();
  return first && !fault_ ? nullptr : e;
}

std::string Session::undoLabel() const {
  const JournalEntry* e = nextStep(true);
  return e == nullptr ? std::string() : e->label;
}

std::string Session::redoLabel() const {
  const JournalEntry* e = nextStep(false);
  return e == nullptr ? std::string() : e->label;
}

Status Session::undo() {
  return step(true);
}
Status Session::redo() {
  return step(false);
}

/// The case after a step of the journal, from what is shown or, where nothing is, from what is stored.
Result<Json> Session::stepped(const Json& patch) const {
  const std::string where = "case of " + company_;
  Result<Json> before =
      snapshot_ ? exchange::toJson(snapshot_->caseOf()) : exchange::parseJson(text_.value_or("{}"), where);
  if (!before) return before;
  try {
    return before->patch(patch);
  } catch (const Json::exception& e) {
    return fail(ErrorKind::Damaged, "the journal does not fit the case: " + std::string(e.what()), company_,
                "Nothing was changed; 'zledger verify' looks through the book, its copies lie beside it");
  }
}

/// Writes, looks at what would be, and only then stores: of a company with nothing to show any step may help.
Status Session::changeAndShow(const std::function<Status(store::Book::Change&)>& write, Shown wanted) {
  const auto tried = [&]() -> Result<Loaded> {
    Result<store::Book::Change> change = book_.change();
    if (!change) return tl::unexpected(change.error());
    if (Status s = write(*change); !s) return tl::unexpected(s.error());
    Result<Loaded> loaded = read();
    if (!loaded) return loaded;
    if (!loaded->shown && wanted == Shown::Whole) {
      Error fault = loaded->shown.error();
      fault.todo += std::string(fault.todo.empty() ? "" : ". ") + "Nothing was stored";
      return tl::unexpected(fault);
    }
    if (Status s = change->store(); !s) return tl::unexpected(s.error());
    return loaded;
  };
  Result<Loaded> done = tried();
  if (!done) return conflicted(done.error());
  adopt(std::move(*done));
  noteStanding();
  return {};
}

/// The documents stay as they are: only the case is another one.
Status Session::stepCase(const JournalEntry& entry, bool undo, const std::optional<std::string>& text) {
  Case c = snapshot_->caseOf();
  if (text) {
    const std::string where = "case of " + company_;
    const Result<Json> json = exchange::parseJson(*text, where);
    if (!json) return tl::unexpected(json.error());
    Result<Case> stepped = exchange::caseFromJson(*json, where);
    if (!stepped) return tl::unexpected(stepped.error());
    c = std::move(*stepped);
  }
  Result<std::shared_ptr<const Snapshot>> next = preview(c);
  if (!next) return tl::unexpected(next.error());
  if (Status s = book_.mark(entry, undo, text, head_); !s) return conflicted(s.error());
  const std::int64_t number = entry.number;
  head_ = 0;
  for (JournalEntry& e : journal_) {
    if (e.number == number) e.state = undo ? JournalEntry::State::Undone : JournalEntry::State::Done;
    if (e.state == JournalEntry::State::Done) head_ = e.number;
  }
  if (text) text_ = text;
  snapshot_ = std::move(*next);
  noteStanding();
  return {};
}

Status Session::step(bool undo) {
  if (!readOnly_.empty()) return writable();
  const JournalEntry* found = nextStep(undo);
  if (found == nullptr) {
    return fail(ErrorKind::NotFound, undo ? "there is nothing to undo" : "there is nothing to redo", company_);
  }
  const Result<Json> patch = exchange::parseJson(undo ? found->backward : found->forward, "journal");
  if (!patch) return tl::unexpected(patch.error());
  std::optional<std::string> text;
  if (!patch->empty()) {
    const Result<Json> after = stepped(*patch);
    if (!after) return tl::unexpected(after.error());
    text = exchange::textOf(*after);
  }
  if (snapshot_ && found->documents.empty()) return stepCase(*found, undo, text);
  return changeAndShow([&](store::Book::Change& change) { return change.mark(*found, undo, text, head_); },
                       fault_ ? Shown::AsFarAsItCan : Shown::Whole);
}

}  // namespace zl::services
