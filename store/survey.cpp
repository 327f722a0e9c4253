#include "store/survey.h"

#include <algorithm>
#include <map>
#include <set>
#include <tuple>

#include "store/columns.h"
#include "store/database.h"
#include "store/place.h"
#include "store/rows.h"
#include "store/schema.h"
#include "store/whole_file.h"

namespace zl::store {
namespace {

constexpr std::int64_t kMostProbed = 1'000'000;  ///< rows looked for one by one between two damaged ends
constexpr size_t kMostTold = 1000;

/// What was read out of the file, ready to be judged and written again.
struct Found {
  std::map<std::int64_t, SurveyedDocument> documents;
  std::map<std::string, std::string> cases;
  std::vector<JournalEntry> journal;
  std::vector<KeptVersion> versions;
  std::vector<std::tuple<std::string, std::string, Draft>> drafts;  ///< company, author
  std::vector<Observation> observations;
};

class Surveyor {
 public:
  Surveyor(SQLite::Database& db, Survey& survey) : db_(db), survey_(survey) {}

  Found run() {
    checkPages();
    readDocuments();
    readFacts();
    walk("cases", "company, text", [&](Columns& c) { found_.cases[c.text(1)] = c.text(2); });
    readJournal();
    readVersions();
    readDrafts();
    walk("observations", "company, series, at, figure, unit, source, fetched", [&](Columns& c) {
      found_.observations.push_back(
          {c.number(0), c.text(1), c.text(2), c.day(3), c.figure(4), c.text(5), c.text(6), c.text(7)});
    });
    std::sort(found_.observations.begin(), found_.observations.end(),
              [](const Observation& a, const Observation& b) { return a.id < b.id; });
    return std::move(found_);
  }

 private:
  void damaged(const std::string& where, const std::string& what) {
    if (survey_.damage.size() < kMostTold) survey_.damage.push_back({where, harmless(what)});
  }

  void checkPages() {
    try {
      SQLite::Statement q(db_, "PRAGMA integrity_check(20)");
      while (q.executeStep()) {
        const std::string said = asUtf8(q.getColumn(0).getString());
        if (said != "ok") damaged("pages of the file", said);
      }
    } catch (const SQLite::Exception& e) {
      damaged("pages of the file", e.what());
    }
  }

  /// Rows from one end until the end or damage; the number of the last one that was read.
  template <class F>
  bool fromOneEnd(const std::string& select, const char* order, const char* table, F& take, std::int64_t& last,
                  std::string& why) {
    try {
      SQLite::Statement q(db_, select + " ORDER BY rowid " + order);
      Columns columns(q, table);
      while (q.executeStep()) {
        last = q.getColumn(0).getInt64();
        one(columns, table, last, take);
      }
      return true;
    } catch (const SQLite::Exception& e) {
      why = e.what();
      return false;
    }
  }

  template <class F>
  void one(Columns& columns, const char* table, std::int64_t row, F& take) {
    if (!seen_.insert(row).second) return;
    try {
      take(columns);
    } catch (const Damage& d) {
      damaged(table, d.what);
      lost_ = true;
    }
  }

  /// Every row that can be read: from both ends, and between them one by one. True when none was lost.
  template <class F>
  bool walk(const char* table, const std::string& columns, F take) {
    seen_.clear();
    lost_ = false;
    const std::string select = "SELECT rowid, " + columns + " FROM " + table + " NOT INDEXED";
    std::int64_t low = 0;
    std::int64_t high = 0;
    std::string why;
    if (fromOneEnd(select, "ASC", table, take, low, why)) return !lost_;
    const bool top = fromOneEnd(select, "DESC", table, take, high, why);
    const bool bounded = !top && high > low && high - low <= kMostProbed;
    std::int64_t unread = 0;
    for (std::int64_t row = low + 1; bounded && row < high; ++row) {
      try {
        SQLite::Statement q(db_, select + " WHERE rowid = " + std::to_string(row));
        Columns c(q, table);
        if (q.executeStep()) one(c, table, row, take);
      } catch (const SQLite::Exception&) {
        ++unread;
      }
    }
    const std::string between = high > 0 ? " between rows " + std::to_string(low) + " and " + std::to_string(high)
                                         : " after row " + std::to_string(low);
    damaged(table, "cannot be read" + between + ": " + why);
    return false;
  }

  void readDocuments() {
    walk("documents", "company, name, kind, digest, period_end, imported_at, active, content", [&](Columns& c) {
      SurveyedDocument d;
      d.stored.document.id = c.number(0);
      d.stored.company = c.text(1);
      d.stored.document.name = c.text(2);
      d.stored.document.kind = c.text(3);
      d.stored.document.digest = c.text(4);
      d.stored.document.periodEnd = c.dayIfAny(5);
      d.stored.document.importedAt = c.text(6);
      d.stored.active = c.truth(7);
      d.content = c.blob(8);
      found_.documents[d.stored.document.id] = std::move(d);
    });
  }

  void readFacts() {
    bool whole = walk("concepts", "name", [](Columns& c) { c.text(1); });
    whole =
        walk("facts",
             "document, (SELECT name FROM concepts WHERE id = concept), label, period_start, period_end, unit, text, "
             "decimals, exact, nil, segments, place",
             [&](Columns& c) { takeFact(c); }) &&
        whole;
    for (auto& [id, document] : found_.documents) document.factsDoubtful |= !whole;
  }

  void takeFact(Columns& c) {
    Fact f = factOf(c);
    if (const auto segments = c.textIfAny(11)) f.segments = segmentsOf(*segments);
    const auto document = found_.documents.find(f.document);
    if (document != found_.documents.end()) document->second.facts.push_back(std::move(f));
  }

  /// Rows of a table of pairs, by their first.
  std::map<std::int64_t, std::vector<std::int64_t>> pairs(const char* table, const char* columns) {
    std::map<std::int64_t, std::vector<std::int64_t>> found;
    walk(table, columns, [&](Columns& c) { found[c.number(1)].push_back(c.number(2)); });
    return found;
  }

  void readJournal() {
    const auto documents = pairs("journal_documents", "entry, document");
    walk("journal", "company, at, author, label, forward, backward, state", [&](Columns& c) {
      JournalEntry e{c.number(0), c.text(1), c.text(2),
                     c.text(3),   c.text(4), c.text(5),
                     c.text(6),   {},        static_cast<JournalEntry::State>(c.whole(7, 0, 2))};
      if (const auto of = documents.find(e.number); of != documents.end()) e.documents = of->second;
      found_.journal.push_back(std::move(e));
    });
    std::sort(found_.journal.begin(), found_.journal.end(),
              [](const JournalEntry& a, const JournalEntry& b) { return a.number < b.number; });
  }

  void readVersions() {
    const auto documents = pairs("version_documents", "version, document");
    walk("versions", "company, name, at, author, note, text, active", [&](Columns& c) {
      KeptVersion v{c.number(0), c.text(1), c.text(2), c.text(3), c.text(4), c.text(5), c.text(6), {}};
      if (!c.truth(7)) return;
      if (const auto of = documents.find(v.id); of != documents.end()) v.documents = of->second;
      found_.versions.push_back(std::move(v));
    });
    std::sort(found_.versions.begin(), found_.versions.end(),
              [](const KeptVersion& a, const KeptVersion& b) { return a.id < b.id; });
  }

  /// Drafts have no row numbers; what cannot be read is typed again.
  void readDrafts() {
    try {
      SQLite::Statement q(db_, "SELECT field, company, author, text FROM drafts");
      Columns c(q, "drafts");
      while (q.executeStep()) found_.drafts.push_back({c.text(1), c.text(2), {c.text(0), c.text(3)}});
    } catch (const SQLite::Exception& e) {
      damaged("drafts", e.what());
    } catch (const Damage& d) {
      damaged("drafts", d.what);
    }
  }

  SQLite::Database& db_;
  Survey& survey_;
  Found found_;
  std::set<std::int64_t> seen_;  ///< rows of the table that is walked
  bool lost_ = false;
};

/// Leaves in `found` only what is whole and hangs together.
void keepWhole(Found& found, const Judge& judge, Survey& survey) {
  for (auto at = found.documents.begin(); at != found.documents.end();) {
    const std::string why = judge(at->second);
    if (why.empty()) {
      if (at->second.factsReadAgain) {
        survey.damage.push_back({"document '" + shortened(harmless(at->second.stored.document.name), 80) + "'",
                                 "some of its facts were lost; its content is whole and gives them again"});
      }
      ++at;
      continue;
    }
    survey.damage.push_back({"document '" + shortened(harmless(at->second.stored.document.name), 80) + "'", why});
    at = found.documents.erase(at);
  }
  const auto isThere = [&](std::int64_t id) { return found.documents.count(id) > 0; };
  // Undo walks from the newest entry back: it ends at the first that cannot be stepped over.
  std::set<std::string> broken;
  std::vector<JournalEntry> kept;
  std::map<std::string, std::int64_t> before;
  for (auto e = found.journal.rbegin(); e != found.journal.rend(); ++e) {
    if (!std::all_of(e->documents.begin(), e->documents.end(), isThere) && broken.insert(e->company).second) {
      survey.damage.push_back({"journal, entry " + std::to_string(e->number),
                               "names a document that is not whole: the way back ends after it"});
    }
    if (broken.count(e->company) == 0) kept.push_back(*e);
  }
  std::reverse(kept.begin(), kept.end());
  found.journal = std::move(kept);
  for (KeptVersion& v : found.versions) {
    const size_t all = v.documents.size();
    std::erase_if(v.documents, [&](std::int64_t id) { return !isThere(id); });
    if (v.documents.size() < all)
      survey.damage.push_back({"version '" + v.name + "'", "some of its documents are not whole"});
  }
  std::set<std::string> companies;
  for (const auto& [id, document] : found.documents) companies.insert(document.stored.company);
  for (const KeptVersion& v : found.versions) {
    const bool edited = std::any_of(found.journal.begin(), found.journal.end(),
                                    [&](const JournalEntry& e) { return e.company == v.company && e.forward != "[]"; });
    if (found.cases.count(v.company) > 0 || !edited || companies.count(v.company) == 0) continue;
    found.cases[v.company] = v.caseText;
    survey.damage.push_back(
        {"case of '" + v.company + "'", "cannot be read; the version '" + v.name + "' takes its place"});
    std::erase_if(found.journal, [&](const JournalEntry& e) { return e.company == v.company; });
  }
  survey.documents = found.documents.size();
  survey.entries = found.journal.size();
  survey.cases = found.cases.size();
  survey.versions = found.versions.size();
}

void write(SQLite::Database& db, const Found& found) {
  for (const auto& [id, d] : found.documents) {
    insertDocument(db, {d.stored.company, d.stored.document, d.content, {}}, d.stored.active);
    insertFacts(db, id, d.facts);
  }
  for (const auto& [company, text] : found.cases) saveCase(db, company, text);
  for (const JournalEntry& entry : found.journal) insertEntry(db, entry);
  for (const KeptVersion& version : found.versions) insertVersion(db, version);
  for (const auto& [company, author, draft] : found.drafts) saveDraft(db, company, author, draft);
  insertObservations(db, found.observations);
}

Result<Found> surveyed(const std::string& book, const Judge& judge, Survey& survey) {
  if (Status s = isFile(book); !s) return tl::unexpected(s.error());
  try {
    Database db(book, Access::Look);
    return guarded(db, [&]() -> Result<Found> {
      if (db.raw().execAndGet("PRAGMA application_id").getInt() != kApplicationId) {
        return fail(ErrorKind::WrongKind, "this database is not a book", book, "Choose a book");
      }
      const int version = db.raw().execAndGet("PRAGMA user_version").getInt();
      if (version > 0 && version < kSchemaVersion) {
        db.toMemory();
        bringTablesUp(db.raw(), version);
      }
      Found found = Surveyor(db.raw(), survey).run();
      keepWhole(found, judge, survey);
      return found;
    });
  } catch (const SQLite::Exception& e) {
    return tl::unexpected(errorOf(e, book));
  }
}

}  // namespace

Result<Survey> survey(const std::string& book, const Judge& judge) {
  Survey survey;
  const Result<Found> found = surveyed(book, judge, survey);
  if (!found) return tl::unexpected(found.error());
  return survey;
}

Result<Survey> rescue(const std::string& book, const std::string& into, const Judge& judge) {
  Survey survey;
  const Result<Found> found = surveyed(book, judge, survey);
  if (!found) return tl::unexpected(found.error());
  if (found->documents.empty()) {
    return fail(ErrorKind::Damaged, "nothing in it is whole", book, "Go back to a copy");
  }
  Result<FileAside> aside = FileAside::beside(into);
  if (!aside) return tl::unexpected(aside.error());
  try {
    Database fresh(aside->path(), Access::Making);
    Transaction writing(fresh, Database::Kind::Write);
    makeTables(fresh.raw());
    write(fresh.raw(), *found);
    writing.commit();
  } catch (const SQLite::Exception& e) {
    return tl::unexpected(errorOf(e, into));
  }
  if (Status s = aside->takePlace(FileAside::Over::Nothing); !s) return tl::unexpected(s.error());
  return survey;
}

}  // namespace zl::store
