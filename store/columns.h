#pragma once
// Columns of a row, read as what this program writes and nothing else: any file may call itself a
// book, so a figure out of its range or a text that is none is damage, named with its place.

#include <SQLiteCpp/SQLiteCpp.h>
#include <sqlite3.h>

#include <cmath>
#include <optional>
#include <string>

#include "core/period/date.h"
#include "core/text/utf8.h"
#include "store/database.h"

namespace zl::store {

class Columns {
 public:
  /// `table` and the row's first column name the place of damage.
  Columns(SQLite::Statement& row, const char* table) : row_(row), table_(table) {}

  std::string text(int i) {
    std::string value = bytes(i, SQLITE_TEXT, "a text");
    if (!isUtf8(value)) damaged(i, "holds text that is not UTF-8");
    return value;
  }
  std::optional<std::string> textIfAny(int i) { return row_.isColumnNull(i) ? std::nullopt : std::optional(text(i)); }
  std::string blob(int i) { return bytes(i, SQLITE_BLOB, "content"); }
  std::int64_t whole(int i, std::int64_t low, std::int64_t high) {
    const SQLite::Column column = row_.getColumn(i);
    if (column.getType() != SQLITE_INTEGER) damaged(i, "holds no number");
    const std::int64_t value = column.getInt64();
    if (value < low || value > high) {
      damaged(i, "holds " + std::to_string(value) + ", outside " + std::to_string(low) + " to " + std::to_string(high));
    }
    return value;
  }
  std::optional<std::int64_t> wholeIfAny(int i, std::int64_t low, std::int64_t high) {
    return row_.isColumnNull(i) ? std::nullopt : std::optional(whole(i, low, high));
  }
  double figure(int i) {
    const SQLite::Column column = row_.getColumn(i);
    if (column.getType() != SQLITE_FLOAT && column.getType() != SQLITE_INTEGER) damaged(i, "holds no figure");
    const double value = column.getDouble();
    if (!std::isfinite(value)) damaged(i, "holds a figure that is none");
    return value;
  }
  std::int64_t number(int i) { return whole(i, 1, INT64_MAX); }
  bool truth(int i) { return whole(i, 0, 1) == 1; }
  Date day(int i) {
    const std::string value = text(i);
    const std::optional<Date> date = parseDate(value);
    if (!date) damaged(i, "holds '" + shortened(value, 40) + "', which is no date");
    return *date;
  }
  std::optional<Date> dayIfAny(int i) { return row_.isColumnNull(i) ? std::nullopt : std::optional(day(i)); }

 private:
  std::string bytes(int i, int type, const char* what) {
    const SQLite::Column column = row_.getColumn(i);
    const bool empty = column.getBytes() == 0 && type == SQLITE_BLOB && column.getType() == SQLITE_NULL;
    if (column.getType() != type && !empty) damaged(i, std::string("does not hold ") + what);
    const auto* first = static_cast<const char*>(column.getBlob());
    return first == nullptr ? std::string() : std::string(first, static_cast<std::size_t>(column.getBytes()));
  }
  [[noreturn]] void damaged(int i, const std::string& what) {
    const std::string where = row_.getColumnName(i);
    const SQLite::Column id = row_.getColumn(0);
    throw Damage{std::string(table_) + ", row " + shortened(harmless(asUtf8(id.getString())), 40) + ", '" + where +
                 "' " + what};
  }

  SQLite::Statement& row_;
  const char* table_;
};

/// A text with bytes that none has: not UTF-8, or a separator of ours inside a name.
struct NotText {
  std::string what;
};
/// Binds a text that is to be kept; what is not UTF-8 is stopped here at the latest.
inline void bindText(SQLite::Statement& q, int i, const std::string& value) {
  if (!isUtf8(value)) throw NotText{shortened(harmless(asUtf8(value)), 60)};
  q.bindNoCopy(i, value);
}

}  // namespace zl::store
