#pragma once
// Values to rows of the book's tables and back. Used inside this folder only; failures are
// exceptions, which Database's guard turns into values.

#include <SQLiteCpp/SQLiteCpp.h>

#include <string>
#include <vector>

#include "store/book.h"

namespace zl::store {

class Columns;

/// The axes of a fact as one text and back; a text of another form is damage.
std::string segmentsText(const SharedList<Segment>& segments);
std::vector<Segment> segmentsOf(const std::string& text);

/// A fact from the columns id, document, concept's name, label, period_start, period_end, unit, text,
/// decimals, exact, nil, segments, place; its segments are left to the caller, who shares them.
Fact factOf(Columns& columns);

/// Rows get the number that the value has, or a new one where it has none; the number is given.
std::int64_t insertDocument(SQLite::Database& db, const Incoming& in, bool active);
void insertFacts(SQLite::Database& db, std::int64_t document, const std::vector<Fact>& facts);
std::int64_t insertEntry(SQLite::Database& db, const JournalEntry& entry);
std::int64_t insertVersion(SQLite::Database& db, const KeptVersion& version);
void saveCase(SQLite::Database& db, const std::string& company, const std::string& text);
/// An empty text takes the draft away.
void saveDraft(SQLite::Database& db, const std::string& company, const std::string& author, const Draft& draft);
/// Those that are there already are passed over; how many were not.
int insertObservations(SQLite::Database& db, const std::vector<Observation>& observations);

}  // namespace zl::store
