#pragma once
// Everything there is to show about one company at one moment. A value: views read it, nobody
// changes it, and an edit makes another one.

#include <map>
#include <memory>
#include <optional>

#include "core/capital/rates.h"
#include "core/evidence/estimate.h"
#include "core/filing/company.h"
#include "core/filing/inference.h"
#include "core/filing/interim.h"
#include "core/filing/minor_unit.h"
#include "core/filing/restatement.h"
#include "core/monitor/finding.h"
#include "core/outlook/adjusted.h"
#include "core/outlook/evaluation.h"
#include "core/peers/peer.h"
#include "services/resources.h"
#include "store/book.h"

namespace zl::services {

/// What came in from outside, read and standardised. Shared by all snapshots until an import.
struct Evidence {
  Company company;
  std::string companySource;  ///< document the record comes from
  std::vector<store::StoredDocument> documents;
  std::vector<Fact> facts;                 ///< pence and cents read in their currency
  std::map<size_t, FiledInMinor> inMinor;  ///< what those said, by index of the fact
  LineChoices choices;                     ///< made when tables were imported; the case's own go before them
  ConceptNetwork network;                  ///< of the linkbases given
  std::vector<PricePoint> prices;
  std::vector<MarketRate> rates;
  std::vector<Estimate> estimates;
  std::vector<Peer> peers;

  /// The fact's figure and unit exactly as its document has them.
  [[nodiscard]] FiledInMinor asWritten(size_t fact) const;
};

/// The facts on standard lines, by the rules and by what the analyst has chosen.
struct Standardised {
  LineChoices choices;                              ///< all that were in force
  StandardStatements statements;                    ///< up to the case's base year
  std::shared_ptr<const StandardStatements> ahead;  ///< with the years filed since; null when there are none
  std::shared_ptr<const InterimStatements> interim;
  std::vector<Restatement> restatements;
  std::vector<SegmentRow> segments;
  std::vector<SegmentSum> segmentSums;
  std::vector<TieResult> ties;  ///< by tie and year, ties in the order of Resources::ties
  std::vector<Finding> findings;
};

std::shared_ptr<const Standardised> standardise(const Evidence& evidence, const Resources& resources,
                                                const LineChoices& own, const FirstFiled& firstFiled, int baseYear = 0);

/// An input of the base case that history rules may read: chosen, else the model's own.
Figure assumedInput(const model::Model& m, const Case& c, int row);

/// The basis that the base scenario's choices stand for.
MeasureBasis basisOf(const model::Model& m, const Case& c);

/// The standard line that a concept stands on; empty where it is set aside.
std::string lineOf(const Standardised& filed, const Resources& resources, const std::string& concept_name);

/// A given with its origin, for traces.
struct GivenFigure {
  Figure figure;
  std::string source;
};

struct Snapshot {
  std::shared_ptr<const Resources> resources;
  std::shared_ptr<const Evidence> evidence;
  std::shared_ptr<const Standardised> filed;
  std::map<std::string, GivenFigure> givens;
  std::map<CellOfLine, Shift> shifts;                  ///< what the adjustments move
  std::shared_ptr<const model::HistoryTable> history;  ///< adjusted: drivers and forecast stand on it
  std::shared_ptr<const model::HistoryTable> asFiled;  ///< the same table without an adjustment
  std::shared_ptr<const Evaluation> evaluation;
  CrossCheck crossCheck;
  std::vector<Finding> findings;
  /// Why the case's own rows are not in use: they do not fit the model that ships now. Empty where they are.
  std::optional<Error> ownRowsFault;

  [[nodiscard]] const Case& caseOf() const { return evaluation->caseOf(); }
  [[nodiscard]] const Company& company() const { return evidence->company; }
  [[nodiscard]] const std::vector<FiscalYear>& years() const { return filed->statements.years(); }
  [[nodiscard]] std::string periodOf(int column) const;  ///< "2025", "2026E"
  [[nodiscard]] const store::StoredDocument* document(std::int64_t id) const;
};

/// Evaluates a case on the evidence. `before` lends what has not changed (compiled model, history).
/// Fails when the case has faults, or the evidence has no full fiscal year to start from. The
/// snapshot's resources are the shipped ones with the case's own lines and rows. Own rows with a
/// fault are refused, but for those that stood in the case before and fitted an earlier model: they
/// are kept, set aside and told of, so that the case still opens.
Result<std::shared_ptr<const Snapshot>> makeSnapshot(const std::shared_ptr<const Resources>& shipped,
                                                     std::shared_ptr<const Evidence> evidence, const Case& c,
                                                     const Snapshot* before);

}  // namespace zl::services
