#pragma once
// The book's tables, by version. docs/formats/book.md describes them.

#include <SQLiteCpp/SQLiteCpp.h>

#include <string>

namespace zl::store {

inline constexpr int kApplicationId = 0x5A4C4247;  // "ZLBG" in the file's header
inline constexpr int kSchemaVersion = 4;

inline constexpr const char* kSchema1 = R"(
CREATE TABLE documents(
  id INTEGER PRIMARY KEY,
  company TEXT NOT NULL,
  name TEXT NOT NULL,
  kind TEXT NOT NULL,
  digest TEXT NOT NULL,
  period_end TEXT,
  imported_at TEXT NOT NULL,
  content BLOB NOT NULL,
  active INTEGER NOT NULL DEFAULT 1);
CREATE INDEX documents_by_company ON documents(company);
CREATE TABLE concepts(id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE);
CREATE TABLE facts(
  id INTEGER PRIMARY KEY,
  document INTEGER NOT NULL REFERENCES documents(id),
  concept INTEGER NOT NULL REFERENCES concepts(id),
  label TEXT,
  period_start TEXT,
  period_end TEXT NOT NULL,
  unit TEXT NOT NULL,
  text TEXT NOT NULL,
  decimals INTEGER,
  exact INTEGER NOT NULL,
  nil INTEGER NOT NULL,
  segments TEXT,
  place TEXT NOT NULL);
CREATE INDEX facts_by_document ON facts(document);
CREATE TABLE cases(company TEXT PRIMARY KEY, text TEXT NOT NULL);
CREATE TABLE journal(
  number INTEGER PRIMARY KEY AUTOINCREMENT,
  company TEXT NOT NULL,
  at TEXT NOT NULL,
  author TEXT NOT NULL,
  label TEXT NOT NULL,
  forward TEXT NOT NULL,
  backward TEXT NOT NULL,
  state INTEGER NOT NULL DEFAULT 0);
CREATE INDEX journal_by_company ON journal(company, number);
CREATE TABLE journal_documents(
  entry INTEGER NOT NULL REFERENCES journal(number),
  document INTEGER NOT NULL REFERENCES documents(id));
)";

/// Adds named versions: the case as it stood, and the documents it stood on.
inline constexpr const char* kSchema2 = R"(
CREATE TABLE versions(
  id INTEGER PRIMARY KEY,
  company TEXT NOT NULL,
  name TEXT NOT NULL,
  at TEXT NOT NULL,
  author TEXT NOT NULL,
  note TEXT NOT NULL,
  text TEXT NOT NULL,
  active INTEGER NOT NULL DEFAULT 1);
CREATE UNIQUE INDEX versions_by_name ON versions(company, name) WHERE active = 1;
CREATE TABLE version_documents(
  version INTEGER NOT NULL REFERENCES versions(id),
  document INTEGER NOT NULL REFERENCES documents(id));
)";

/// Adds drafts: what an analyst has typed and not yet made an edit of. No part of the journal.
inline constexpr const char* kSchema3 = R"(
CREATE TABLE drafts(
  company TEXT NOT NULL,
  author TEXT NOT NULL,
  field TEXT NOT NULL,
  text TEXT NOT NULL,
  PRIMARY KEY(company, author, field)) WITHOUT ROWID;
)";

/// Adds observations: figures of the market that a program fetched. No part of the journal; one of a later
/// fetch stands over one of the same series and time.
inline constexpr const char* kSchema4 = R"(
CREATE TABLE observations(
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  company TEXT NOT NULL,
  series TEXT NOT NULL,
  at TEXT NOT NULL,
  figure REAL NOT NULL,
  unit TEXT NOT NULL,
  source TEXT NOT NULL,
  fetched TEXT NOT NULL,
  UNIQUE(company, series, at, fetched));
)";

/// What brings a book from the version before up to date, by version; the first makes a new book.
inline constexpr const char* kSchemaSteps[] = {kSchema1, kSchema2, kSchema3, kSchema4};

/// Makes all tables of an empty file, and its header a book's.
void makeTables(SQLite::Database& db);
/// Takes the tables of version `from` to the present one.
void bringTablesUp(SQLite::Database& db, int from);

/// What of the file's schema is not what the steps up to `version` make: a trigger, a view, a table
/// of another shape. Empty where all is as it should be, so that no statement of ours meets a surprise.
std::string strangeSchema(SQLite::Database& db, int version);

}  // namespace zl::store
