#pragma once
// Going through a book row by row, damaged or not: what is whole, what is not and where, and saving
// what is whole into a new book.

#include <functional>
#include <string>
#include <vector>

#include "core/quantity/error.h"
#include "store/book.h"

namespace zl::store {

/// One place that is not as the program writes it.
struct DamageFound {
  std::string where;  ///< table and row, or document
  std::string what;
};

/// One document with all of its facts that could be read.
struct SurveyedDocument {
  StoredDocument stored;
  std::string content;
  std::vector<Fact> facts;
  bool factsReadAgain = false;
  bool factsDoubtful = false;  ///< facts could not be read somewhere, perhaps this document's
};

/// Why a document is not whole; empty where it is. Digests are made above the store, and facts that were
/// lost may be read from the content again.
using Judge = std::function<std::string(SurveyedDocument&)>;

struct Survey {
  std::vector<DamageFound> damage;
  size_t documents = 0;  ///< whole ones
  size_t entries = 0;    ///< of the journal
  size_t cases = 0;
  size_t versions = 0;
};

/// Looks through a book. Fails only where it is none or cannot be read at all.
Result<Survey> survey(const std::string& book, const Judge& judge);

/// Writes what is whole into a new book, under the same numbers. A case that cannot be read is
/// replaced by the newest version that was kept of it, and that is said; a journal is kept from its
/// newest entry back to the first that is missing or that names a document that is not whole.
Result<Survey> rescue(const std::string& book, const std::string& into, const Judge& judge);

}  // namespace zl::store
