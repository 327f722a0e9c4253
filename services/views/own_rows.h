#pragma once
// The analyst's own rows upon the shipped model: what a text would do before it is accepted, and
// the words that help to write it. The shipped model's text is never touched.

#include <optional>
#include <string>
#include <vector>

#include "services/edits/edits.h"
#include "services/stages/snapshot.h"
#include "services/text/figure_json.h"

namespace zl::services {

/// A row that the text declares or amends.
struct OwnRow {
  std::string name;
  std::string label;
  bool amended = false;  ///< a shipped row with other rules
};

/// Value per share in one scenario, before and with the text; in listing units, after the floor.
struct OwnEffect {
  std::string scenario;  ///< label
  Figure before, after;
};

struct OwnRowsCheck {
  std::optional<Error> fault;          ///< why the text cannot be used
  std::optional<model::Position> at;   ///< where in the text; empty where the fault lies in what stands on it
  std::vector<OwnRow> rows;            ///< in the model's order
  std::vector<OwnEffect> effects;      ///< by scenario
  std::vector<std::string> newFaults;  ///< what monitors would find broken: a balance that no longer ties
};

/// Evaluates the case with another text of own rows; stores nothing.
OwnRowsCheck checkOwnRows(const Snapshot& s, const std::string& text);

/// What the check says, for the command line.
std::string checkText(const OwnRowsCheck& check, const Snapshot& s);
Json checkJson(const OwnRowsCheck& check);

/// Replaces the own rows upon the model in use; an empty text drops them. What was assumed for
/// rows that go rests until they come back.
CaseEdit setOwnRows(const Case& c, const std::string& text, const Provenance& said);

/// Another shipped model under the same case: assumptions and own rows of each are kept.
CaseEdit setModel(const Case& c, const ShippedModel& model);

/// A word that could stand at a place of the text, with what it means.
struct Completion {
  std::string word;
  std::string meaning;
};

/// Words that fit at a byte offset of the text, those that begin with what is typed there. `typed`
/// (when given) receives how many bytes before the place they take the place of.
std::vector<Completion> completionsAt(const Snapshot& s, const std::string& text, size_t place,
                                      size_t* typed = nullptr);

}  // namespace zl::services
