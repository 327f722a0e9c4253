#pragma once
// The analyst's assumptions for one company, as one immutable value. An edit makes another value.

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/filing/mapping.h"
#include "core/model/syntax.h"
#include "core/outlook/path.h"
#include "core/period/date.h"
#include "core/quantity/figure.h"

namespace zl {

/// Who assumed something, when and why. `reason` may be empty; the window marks that softly.
struct Provenance {
  std::string reason;
  std::string author;
  std::string at;  ///< ISO 8601, given by the caller
  /// Nobody decided what is proposed: it is computed from history and the market, and never stored. A placeholder is a
  /// proposal without evidence of the company or the book.
  enum class From { Decided, Proposed, Placeholder } from = From::Decided;
  [[nodiscard]] bool isProposed() const { return from != From::Decided; }
  friend bool operator==(const Provenance&, const Provenance&) = default;
};

struct Assumption {
  Path path;
  Provenance said;
  friend bool operator==(const Assumption&, const Assumption&) = default;
};

struct InputChoice {
  double figure = 0;   ///< of an input that is no choice; cases of old hold the number of an option here
  std::string option;  ///< of a choice: the option it stands on
  Provenance said;
  friend bool operator==(const InputChoice&, const InputChoice&) = default;
};

/// Base holds the assumptions; every other scenario only what differs from base.
struct Scenario {
  std::string id;
  std::string label;
  double probability = 0;
  std::map<std::string, Assumption> drivers;
  std::map<std::string, InputChoice> inputs;
  friend bool operator==(const Scenario&, const Scenario&) = default;
};

/// A figure as an input holds it: a choice keeps the name of the option of that number, where it has one.
InputChoice chosenFigure(const model::Row& input, double figure, Provenance said);
/// The figure that the model reads; absent where the choice has no such option.
Figure figureOf(const model::Row& input, const InputChoice& choice);

struct PeerChoice {
  bool in = true;
  std::string reason;
  friend bool operator==(const PeerChoice&, const PeerChoice&) = default;
};

/// A correction of one filed flow in one year: a one-off taken out, a normal figure put in its
/// place. The filed figure stays beside it.
struct Adjustment {
  double amount = 0;  ///< added to the filed figure, in reporting currency, in the line's usual direction
  Provenance said;
  friend bool operator==(const Adjustment&, const Adjustment&) = default;
};
using CellOfLine = std::pair<std::string, int>;  ///< standard line, fiscal year

/// A span of years that the analyst looks at again and again, with the reason for its ends.
struct HistoryWindow {
  int from = 0;
  int to = 0;
  std::string reason;
  friend bool operator==(const HistoryWindow&, const HistoryWindow&) = default;
};

/// The analyst's own word on a test of the quality review.
struct TestChoice {
  std::optional<double> threshold;  ///< in place of the test's own
  std::string exempt;               ///< why it does not apply here; empty: it applies
  friend bool operator==(const TestChoice&, const TestChoice&) = default;
};

/// A standard line of the analyst's own, for filed figures that deserve to be followed by themselves.
struct OwnLine {
  std::string name;  ///< "own_" and a word; what rules and choices call it
  std::string label;
  bool flow = true;  ///< else a balance
  friend bool operator==(const OwnLine&, const OwnLine&) = default;
};

/// The analyst's own model text upon a shipped model (docs/formats/model-language.md).
struct OwnRows {
  std::string text;
  Provenance said;
  friend bool operator==(const OwnRows&, const OwnRows&) = default;
};

/// Own estimates as they were published: figures frozen on a day, to be held against later ones.
/// No edit changes a set; it is added, and may be withdrawn.
struct PublishedSet {
  std::string name;
  Date valuationDate{};
  std::map<std::string, std::map<int, double>> figures;  ///< base's, by row and fiscal year
  std::map<std::string, double> values;                  ///< value per share by scenario, listing units
  std::map<std::string, double> methods;                 ///< base's value per share by method, listing units
  std::optional<double> price;                           ///< on the valuation date, listing units
  Provenance said;
  friend bool operator==(const PublishedSet&, const PublishedSet&) = default;
};

/// A part of the company as filed, valued by itself: what its figure of the base year is of, and what that is worth.
struct PartChoice {
  enum class Of { Ebit, Revenue } of = Of::Ebit;
  double multiple = 0;
  Provenance said;
  friend bool operator==(const PartChoice&, const PartChoice&) = default;
};

/// Which price a case stands on.
struct PriceChoice {
  enum class Stands { AtValuationDate, Live, Pinned } stands = Stands::AtValuationDate;
  double pinned = 0;  ///< listing units
  Provenance said;    ///< of a pinned one
  friend bool operator==(const PriceChoice&, const PriceChoice&) = default;
};

struct Case {
  // Made in one place: each of these is a page of code wherever it is made.
  Case();
  Case(const Case&);
  Case(Case&&) noexcept;
  Case& operator=(const Case&);
  Case& operator=(Case&&) noexcept;
  ~Case();

  std::string company;
  std::string model = "standard";          ///< the shipped model in use
  bool proposes = false;                   ///< undecided drivers follow the first outlook; else the model's presets
  std::map<std::string, OwnRows> ownRows;  ///< by shipped model
  int horizon = 10;                        ///< forecast years, 3 to 15
  std::vector<int> stages;                 ///< lengths in years that sum to the horizon; empty: one stage
  /// Fiscal year that the first forecast year follows; 0: the last one filed. Later filings wait
  /// until the case is rolled forward, so that no path slips by a year.
  int baseYear = 0;
  Date valuationDate{};
  PriceChoice price;
  std::vector<Scenario> scenarios;                        ///< in order of display: worst, base, best
  std::map<int, std::string> exceptional;                 ///< fiscal year -> reason
  std::map<std::string, PeerChoice> peers;                ///< "peer id/multiple id" -> in or out by hand
  std::map<std::string, std::set<std::string>> peerSets;  ///< ids of peers by the name of the set
  std::string peerSet;  ///< the set that counts, "company/name" where it is another company's; empty: all candidates
  std::set<std::string> shownMultiples;      ///< by id, which are looked at first; empty: the usual ones
  std::map<std::string, PartChoice> parts;   ///< "axis/member" as filed; kUnallocated: what no part bears
  std::map<std::string, std::string> notes;  ///< row name -> free text
  LineChoices lines;                         ///< concept -> standard line, where the analyst says so
  FirstFiled firstFiled;                     ///< lines used as first filed
  std::vector<OwnLine> ownLines;
  std::map<CellOfLine, Adjustment> adjustments;
  std::vector<HistoryWindow> windows;
  std::map<std::string, TestChoice> tests;  ///< by test of the quality review
  /// Findings looked at and accepted, by monitor, row, scenario and figures: one that says another figure is open
  /// again.
  std::map<std::string, Provenance> acknowledged;
  std::vector<PublishedSet> published;   ///< earliest first
  std::map<std::string, double> limits;  ///< of monitors, where they are not the default (core/monitor/limits.h)

  [[nodiscard]] const Scenario* scenario(const std::string& id) const;  ///< nullptr when there is none
  [[nodiscard]] Scenario* scenario(const std::string& id);
  [[nodiscard]] int indexOf(const std::string& id) const;  ///< -1 when there is none
  [[nodiscard]] const Scenario& base() const;
  /// The assumption in force: the scenario's own, else base's, else none (the model's default).
  [[nodiscard]] const Assumption* driver(const Scenario& s, const std::string& row) const;
  [[nodiscard]] const InputChoice* input(const Scenario& s, const std::string& row) const;

  friend bool operator==(const Case&, const Case&);
};

/// Whether a line's figures are used as first filed.
bool usesFirstFiled(const Case& c, const std::string& line);

/// Between a company and its set of peers in Case::peerSet, where another company's set counts.
inline constexpr char kOfAnother = '/';

/// The key in Case::parts of costs that are of no part: profit of the whole less that of the parts.
inline constexpr const char* kUnallocated = "unallocated";

inline constexpr const char* kBase = "base";
inline constexpr const char* kWorst = "worst";
inline constexpr const char* kBest = "best";
inline constexpr int kShortestHorizon = 3;
inline constexpr int kLongestHorizon = 15;

/// An empty case with worst, base and best at 25, 50 and 25 per cent.
Case newCase(const std::string& company, Date valuationDate);

/// A case made when a driver of the model was an input still: what was chosen stands as a level that holds. What the
/// case says of the driver itself goes before it.
Case inputsAsPaths(Case c, const model::Model& m);

/// The scenarios' probabilities together, and whether that is one to 1e-9, the rounding of what was typed.
double probabilitySum(const Case& c);
bool probabilitiesSumToOne(const Case& c);

/// Text of the own rows upon the model in use; empty where there are none.
const std::string& ownRowsInUse(const Case& c);

/// Everything that is wrong with a case against its model, empty when nothing is. A case with
/// faults is never stored. Assumptions for rows that the model in use does not have are no fault:
/// they rest until the model they were made for is chosen again.
std::vector<std::string> faultsOf(const Case& c, const model::Model& m);

}  // namespace zl
