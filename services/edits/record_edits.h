#pragma once
// The company record as fields and small tables that are typed, in a window as on the command line. In: a record, what
// was typed. Out: another record with a label, or why it cannot be. What is wrong is told by the same reader that
// reads records from files.

#include <string>
#include <vector>

#include "core/filing/company.h"
#include "core/quantity/error.h"
#include "core/quantity/figure.h"

namespace zl::services {

/// What the document of a typed record is called.
inline constexpr const char* kTypedRecord = "company record, typed";

struct RecordField {
  /// Shares are counted one by one and may be typed as 12.5m; Amount is in reporting currency; Rate is a fraction,
  /// typed as 4.5%.
  enum class Kind { Text, Number, Shares, Amount, Rate, Whole, Day, YesNo };
  std::string key;    ///< the JSON member, "listing.unit" of one inside
  std::string label;  ///< as a window shows it
  Kind kind = Kind::Text;
  std::string hint;     ///< what belongs there
  bool needed = false;  ///< of a list's column: a row without it is refused
};

/// A list of the record, one row an item; operating figures have a row for each year.
struct RecordList {
  std::string key;
  std::string label;
  std::string hint;
  std::vector<RecordField> columns;
};

const std::vector<RecordField>& recordFields();
const std::vector<RecordList>& recordLists();
/// Null where there is none of that key.
const RecordField* recordField(const std::string& key);
const RecordList* recordList(const std::string& key);

/// What a field holds, as it would be typed; empty where it holds nothing.
std::string fieldText(const Company& company, const RecordField& field);
using RecordRow = std::vector<std::string>;  ///< a text for each column
std::vector<RecordRow> listTexts(const Company& company, const RecordList& list);

/// What was pasted or piped in: a line a row, cells parted by tab, else by semicolon.
std::vector<RecordRow> recordRows(const std::string& text);

struct RecordEdit {
  Company after;
  std::string label;  ///< for the journal
};

/// Types a field; an empty text takes its figure away. Fails, with the record unchanged, naming the field and what may
/// stand there.
Result<RecordEdit> setField(const Company& company, const std::string& key, const std::string& typed,
                            const RecordNote& said);
/// Puts rows in place of a list's. Rows whose texts are all empty are left out. Fails naming the row and the column.
Result<RecordEdit> setList(const Company& company, const std::string& key, const std::vector<RecordRow>& rows,
                           const RecordNote& said);
/// Values another of its listings: the one of that place among the further ones, from 0, changes places with the one
/// valued. The strike of options, which is in the price's unit, goes along at `rate`, units of its currency for one of
/// the present listing's.
Result<RecordEdit> valueListing(const Company& company, size_t further, const Figure& rate, const RecordNote& said);

}  // namespace zl::services
