#pragma once
// Own published estimates: figures frozen under a name on a day, and what has become of them.

#include <string>
#include <vector>

#include "core/evidence/estimate.h"
#include "services/edits/edits.h"
#include "services/stages/snapshot.h"
#include "services/text/figure_json.h"

namespace zl::services {

/// Freezes base's figures of the lines that estimates are made of, in every forecast year, with the
/// values per share of all scenarios and the price. Lines and years without a figure are left out.
CaseEdit publish(const Snapshot& s, const std::string& name, const Provenance& said);
/// Takes a set off the list; undo brings it back as it was.
CaseEdit withdraw(const Case& c, const std::string& name);

/// A line in a fiscal year (or a value per share: year 0), as published and as it stands today.
struct PublishedLine {
  std::string row;       ///< empty for values per share and the price
  std::string scenario;  ///< id, of a value per share
  std::string valueRow;  ///< of a method's value per share: the row that gives it
  std::string label;
  Kind kind = Kind::Money;
  int year = 0;
  std::string period;  ///< "2026E", "2026" once it is filed; empty for values
  Figure old;          ///< as published
  Figure now;          ///< base today; what was filed, once it is
  Figure change;       ///< now less old
  Figure share;        ///< change over old; for ratios the change itself says it
  Consensus::Spread consensus;
  Consensus::Spread guidance;
};

/// Set against today, lines in the order of the model, years ascending; values per share first.
/// Empty where there is no such set.
std::vector<PublishedLine> publishedBeside(const Snapshot& s, const std::string& name);

Json publishedJson(const Snapshot& s, const std::string& name);
std::string publishedText(const Snapshot& s, const std::string& name);

}  // namespace zl::services
