#include "store/rows.h"

#include <unordered_map>

#include "core/quantity/decimal.h"
#include "store/columns.h"

namespace zl::store {
namespace {

void bindDay(SQLite::Statement& q, int i, const std::optional<Date>& day) {
  if (day) {
    q.bind(i, dateText(*day));
  } else {
    q.bind(i);
  }
}

/// Numbers of concepts by name; statements are made once, for a filing may bring as many names as facts.
class Concepts {
 public:
  explicit Concepts(SQLite::Database& db)
      : db_(db),
        known_(db, "SELECT id FROM concepts WHERE name = ?"),
        fresh_(db, "INSERT INTO concepts(name) VALUES(?)") {}

  std::int64_t number(const std::string& name) {
    std::int64_t& number = numbers_[name];
    if (number != 0) return number;
    known_.reset();
    bindText(known_, 1, name);
    if (known_.executeStep()) return number = known_.getColumn(0).getInt64();
    fresh_.reset();
    bindText(fresh_, 1, name);
    fresh_.exec();
    return number = db_.getLastInsertRowid();
  }

 private:
  SQLite::Database& db_;
  SQLite::Statement known_, fresh_;
  std::unordered_map<std::string, std::int64_t> numbers_;
};

/// Rows that name documents of another row.
void insertPairs(SQLite::Database& db, const char* sql, std::int64_t of, const std::vector<std::int64_t>& documents) {
  SQLite::Statement q(db, sql);
  for (const std::int64_t document : documents) {
    q.reset();
    q.bind(1, of);
    q.bind(2, document);
    q.exec();
  }
}

}  // namespace

std::string segmentsText(const SharedList<Segment>& segments) {
  std::string text;
  for (const Segment& s : segments) {
    if ((s.axis + s.member).find_first_of("\x1E\x1F") != std::string::npos) throw NotText{harmless(s.axis)};
    text += s.axis + '\x1F' + s.member + '\x1E';
  }
  return text;
}

std::vector<Segment> segmentsOf(const std::string& text) {
  std::vector<Segment> segments;
  size_t at = 0;
  while (at < text.size()) {
    const size_t middle = text.find('\x1F', at);
    const size_t end = text.find('\x1E', at);
    if (middle == std::string::npos || end == std::string::npos || middle > end) {
      throw Damage{"the axes of a fact are '" + shortened(harmless(text), 60) + "'"};
    }
    segments.push_back({text.substr(at, middle - at), text.substr(middle + 1, end - middle - 1)});
    at = end + 1;
  }
  return segments;
}

Fact factOf(Columns& columns) {
  constexpr int kMostDecimals = 40;  // either way, as the readers allow
  Fact f;
  f.id = columns.number(0);
  f.document = columns.number(1);
  f.concept_name = columns.text(2);
  if (auto label = columns.textIfAny(3)) f.label = std::move(*label);
  f.period.start = columns.dayIfAny(4);
  f.period.end = columns.day(5);
  f.unit = columns.text(6);
  f.text = columns.text(7);
  if (const auto decimals = columns.wholeIfAny(8, -kMostDecimals, kMostDecimals))
    f.decimals = static_cast<int>(*decimals);
  f.exact = columns.truth(9);
  f.nil = columns.truth(10);
  f.place = columns.text(12);
  if (!f.nil && !Decimal::isNumber(f.text)) {
    throw Damage{"facts, row " + std::to_string(f.id) + ", 'text' holds '" + shortened(harmless(f.text), 40) +
                 "', which is no number"};
  }
  return f;
}

std::int64_t insertDocument(SQLite::Database& db, const Incoming& in, bool active) {
  SQLite::Statement q(
      db,
      "INSERT INTO documents(company, name, kind, digest, period_end, imported_at, content, active, id) "
      "VALUES(?, ?, ?, ?, ?, ?, ?, ?, ?)");
  const Document& d = in.document;
  bindText(q, 1, in.company);
  bindText(q, 2, d.name);
  bindText(q, 3, d.kind);
  bindText(q, 4, d.digest);
  bindDay(q, 5, d.periodEnd);
  bindText(q, 6, d.importedAt);
  q.bindNoCopy(7, in.content.data(), static_cast<int>(in.content.size()));
  q.bind(8, active ? 1 : 0);
  if (d.id != 0) q.bind(9, d.id);
  q.exec();
  return db.getLastInsertRowid();
}

void insertFacts(SQLite::Database& db, std::int64_t document, const std::vector<Fact>& facts) {
  Concepts concepts(db);
  SQLite::Statement q(db,
                      "INSERT INTO facts(document, concept, label, period_start, period_end, unit, text, "
                      "decimals, exact, nil, segments, place) VALUES(?,?,?,?,?,?,?,?,?,?,?,?)");
  for (const Fact& f : facts) {
    const std::string segments = segmentsText(f.segments);
    q.reset();
    q.clearBindings();
    q.bind(1, document);
    q.bind(2, concepts.number(f.concept_name));
    if (!f.label.empty()) bindText(q, 3, f.label);
    if (f.period.start) q.bind(4, dateText(*f.period.start));
    q.bind(5, dateText(f.period.end));
    bindText(q, 6, f.unit);
    bindText(q, 7, f.text);
    if (f.decimals) q.bind(8, *f.decimals);
    q.bind(9, f.exact ? 1 : 0);
    q.bind(10, f.nil ? 1 : 0);
    if (!f.segments.empty()) bindText(q, 11, segments);
    bindText(q, 12, f.place);
    q.exec();
  }
}

void saveCase(SQLite::Database& db, const std::string& company, const std::string& text) {
  SQLite::Statement q(db,
                      "INSERT INTO cases(company, text) VALUES(?1, ?2) "
                      "ON CONFLICT(company) DO UPDATE SET text = ?2");
  bindText(q, 1, company);
  bindText(q, 2, text);
  q.exec();
}

std::int64_t insertEntry(SQLite::Database& db, const JournalEntry& e) {
  SQLite::Statement q(db,
                      "INSERT INTO journal(company, at, author, label, forward, backward, state, number) "
                      "VALUES(?,?,?,?,?,?,?,?)");
  int i = 0;
  for (const std::string* text : {&e.company, &e.at, &e.author, &e.label, &e.forward, &e.backward}) {
    bindText(q, ++i, *text);
  }
  q.bind(7, static_cast<int>(e.state));
  if (e.number != 0) q.bind(8, e.number);
  q.exec();
  const std::int64_t number = db.getLastInsertRowid();
  insertPairs(db, "INSERT INTO journal_documents(entry, document) VALUES(?, ?)", number, e.documents);
  return number;
}

std::int64_t insertVersion(SQLite::Database& db, const KeptVersion& version) {
  SQLite::Statement q(db,
                      "INSERT INTO versions(company, name, at, author, note, text, id) VALUES(?, ?, ?, ?, ?, ?, ?)");
  int i = 0;
  for (const std::string* text :
       {&version.company, &version.name, &version.at, &version.author, &version.note, &version.caseText}) {
    bindText(q, ++i, *text);
  }
  if (version.id != 0) q.bind(7, version.id);
  q.exec();
  const std::int64_t id = db.getLastInsertRowid();
  insertPairs(db, "INSERT INTO version_documents(version, document) VALUES(?, ?)", id, version.documents);
  return id;
}

void saveDraft(SQLite::Database& db, const std::string& company, const std::string& author, const Draft& draft) {
  const bool gone = draft.text.empty();
  SQLite::Statement q(db, gone ? "DELETE FROM drafts WHERE company = ?1 AND author = ?2 AND field = ?3"
                               : "INSERT OR REPLACE INTO drafts(company, author, field, text) VALUES(?1, ?2, ?3, ?4)");
  bindText(q, 1, company);
  bindText(q, 2, author);
  bindText(q, 3, draft.field);
  if (!gone) bindText(q, 4, draft.text);
  q.exec();
}

int insertObservations(SQLite::Database& db, const std::vector<Observation>& observations) {
  int fresh = 0;
  SQLite::Statement q(db,
                      "INSERT OR IGNORE INTO observations(company, series, at, figure, unit, source, fetched) "
                      "VALUES(?, ?, ?, ?, ?, ?, ?)");
  for (const Observation& o : observations) {
    q.reset();
    bindText(q, 1, o.company);
    bindText(q, 2, o.series);
    const std::string day = dateText(o.at);
    q.bind(3, day);
    q.bind(4, o.figure);
    bindText(q, 5, o.unit);
    bindText(q, 6, o.source);
    bindText(q, 7, o.fetched);
    fresh += q.exec();
  }
  return fresh;
}

}  // namespace zl::store
