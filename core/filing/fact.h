#pragma once
// A filed fact: exactly what a document says, where it says it.

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "core/filing/shared.h"
#include "core/period/date.h"
#include "core/quantity/figure.h"

namespace zl {

struct Segment {
  std::string axis;
  std::string member;
  friend bool operator==(const Segment&, const Segment&) = default;
};

struct Fact {
  std::int64_t id = 0;        ///< number in the book; 0 before it is stored
  std::int64_t document = 0;  ///< number of the document in the book
  SharedText concept_name;    ///< "prefix:Local" with well-known taxonomies' usual prefixes
  SharedText label;           ///< as filed, may be empty
  Period period;
  SharedText unit;              ///< ISO 4217 code, "shares", "CODE/shares", "pure"
  std::string text;             ///< the number exactly as written, "" when nil
  std::optional<int> decimals;  ///< last exact decimal place (2 = cents, -3 = thousands)
  bool exact = false;           ///< filed as exact (decimals INF)
  bool nil = false;
  SharedList<Segment> segments;  ///< empty: the whole company
  std::string place;             ///< line or element in the document

  [[nodiscard]] Figure figure() const;
};

struct Document {
  std::int64_t id = 0;
  std::string name;               ///< file name without folders
  std::string kind;               ///< "XBRL 2.1 instance", "CSV fact table"
  std::string digest;             ///< of the content; the same file is not imported twice
  std::optional<Date> periodEnd;  ///< the latest full year it reports, where there is one
  std::string importedAt;         ///< ISO 8601, set by the caller
};

/// Notes the latest full year that a document reports.
void noteYear(Document& document, const Period& period);

/// What a filing says of itself, where its format lets it.
struct Filer {
  std::string filer;  ///< identifier of the reporting entity
  std::string filerName;
  std::optional<Date> periodEnd;  ///< the end of the period reported
};

/// What a reader found, before anything is stored.
struct Filing {
  Document document;
  std::vector<Fact> facts;
  std::vector<std::string> warnings;
  Filer about;
};

}  // namespace zl
