#pragma once
// The multiples there are: of price or of the firm, of what, and of which twelve months. One table says all of it.

#include <optional>
#include <string>
#include <vector>

#include "core/model/syntax.h"
#include "core/quantity/figure.h"

namespace zl {

struct Peer;
struct PeerYear;
struct MeasureBasis;

/// A name for a rule, cheap to hold and to order. The shipped ones have names here; others are an analyst's own, as
/// declaredMultiples() finds them in a model.
enum class Multiple : int {
  PriceToEarnings,
  EvToEbitda,
  PriceToSales,
  PriceToBook,
  PriceToTangibleBook,
  PriceToOperatingCash,
  PriceToFreeCash,
  EvToSales,
  EvToEbit,
  EvToNopat,
  EvToCapital,
  PriceToEarningsThis,
  EvToSalesThis,
  EvToEbitdaThis,
  EvToEbitThis,
  PriceToEarningsNext,
  EvToSalesNext,
  EvToEbitdaNext,
  EvToEbitNext,
  PriceToEarningsAfter,
  EvToSalesAfter,
  EvToEbitdaAfter,
  EvToEbitAfter,
  PriceToEarningsNormal,
  EvToEbitdaNormal,
  EvToEbitNormal,
  EvToNopatNormal
};

/// What a multiple is of, of one fiscal year of a peer, in its reporting currency.
struct PeerMetric {
  Figure (*measure)(const MeasureBasis&, const Peer&, const PeerYear&) = nullptr;
  Figure PeerYear::*column = nullptr;  ///< where there is no measure: as the table gives it
  std::string further;                 ///< where there is neither: a further figure of the table, by row
  friend bool operator==(const PeerMetric&, const PeerMetric&) = default;
  [[nodiscard]] Figure of(const MeasureBasis& basis, const Peer& peer, const PeerYear& year) const;
};

struct MultipleRule {
  using Of = model::PeerMultiple::Of;
  Multiple multiple{};
  std::string id;       ///< in cases, reports and on the command line: "price-earnings"
  std::string name;     ///< as model text names it: "price_to_earnings"
  std::string label;    ///< "Price to earnings"
  std::string what;     ///< of what: "earnings"
  std::string mark;     ///< short, over a column: "P/E"
  bool ofFirm = false;  ///< enterprise value over it, else market value of equity
  Of of = Of::Trailing;
  bool balance = false;  ///< of the last balance sheet, else of twelve months
  PeerMetric metric;
  friend bool operator==(const MultipleRule&, const MultipleRule&) = default;
};

/// Fiscal years of the subject that the twelve months end after its last filed one: 0 to 3; 0 of a normal year.
int yearsAhead(MultipleRule::Of of);
/// "the last twelve months", "next year" ...
const char* wordsOf(MultipleRule::Of of);

/// The shipped ones, in the order in which they are shown.
const std::vector<MultipleRule>& shippedMultiples();
std::vector<Multiple> shippedNames();
/// Those, and after them what the model's texts declare besides. The rules of the latter stay for as long as the
/// program runs: who holds a name can always ask for its rule. From any thread.
std::vector<Multiple> declaredMultiples(const model::Model& m);
const MultipleRule& ruleOf(Multiple m);
/// The shipped trailing multiple of what a row of the model is; none where there is none.
std::optional<Multiple> trailingMultipleOf(const model::Model& m, const std::string& row, bool ofFirm);

/// The row of a model that says what the subject itself is at; unknown where there is none.
model::RowId ownMultipleRow(const model::Model& m, Multiple multiple);

const std::string& multipleId(Multiple m);
const std::string& multipleLabel(Multiple m);
const std::string& multipleName(Multiple m);

}  // namespace zl
