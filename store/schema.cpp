#include "store/schema.h"

#include <map>

#include "core/text/utf8.h"

namespace zl::store {
namespace {

using Objects = std::map<std::string, std::string>;

/// Name to declaration of all that a file declares; what SQLite keeps for itself is its own.
Objects objectsOf(SQLite::Database& db) {
  Objects objects;
  SQLite::Statement q(db, "SELECT type || ' ' || name, COALESCE(sql, '') FROM sqlite_schema");
  constexpr std::size_t kMost = 1000;
  while (q.executeStep() && objects.size() < kMost) {
    const std::string name = q.getColumn(0).getString();
    if (name.find(" sqlite_") == std::string::npos) objects[name] = q.getColumn(1).getString();
  }
  return objects;
}

}  // namespace

void makeTables(SQLite::Database& db) {
  db.exec("PRAGMA application_id = " + std::to_string(kApplicationId));
  bringTablesUp(db, 0);
}

void bringTablesUp(SQLite::Database& db, int from) {
  for (int next = from; next < kSchemaVersion; ++next) db.exec(kSchemaSteps[next]);
  db.exec("PRAGMA user_version = " + std::to_string(kSchemaVersion));
}

std::string strangeSchema(SQLite::Database& db, int version) {
  SQLite::Database model(":memory:", SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
  for (int next = 0; next < version; ++next) model.exec(kSchemaSteps[next]);
  const Objects expected = objectsOf(model);
  const Objects found = objectsOf(db);
  for (const auto& [name, sql] : found) {
    const auto known = expected.find(name);
    const std::string told = shortened(harmless(asUtf8(name)), 80);
    if (known == expected.end()) return "it holds a " + told + ", which no book has";
    if (known->second != sql) return "its " + told + " is declared otherwise than in a book";
  }
  for (const auto& [name, sql] : expected) {
    if (found.count(name) == 0) return "its " + name + " is missing";
  }
  return {};
}

}  // namespace zl::store
