#pragma once
// The first stage: what came in from outside, and that on standard lines.

#include <map>
#include <memory>
#include <set>
#include <string>
#include <vector>

#include "core/capital/rates.h"
#include "core/capital/series.h"
#include "core/evidence/estimate.h"
#include "core/filing/company.h"
#include "core/filing/concept_network.h"
#include "core/filing/cover_count.h"
#include "core/filing/interim.h"
#include "core/filing/minor_unit.h"
#include "core/filing/restatement.h"
#include "core/monitor/finding.h"
#include "core/peers/peer.h"
#include "core/standard/standardise.h"
#include "services/kits/resources.h"
#include "store/book.h"

namespace zl::services {

/// Figures of the market, by key and day, of tables and of what was fetched. Read by givens, peers and monitors alone:
/// a new price makes another one of these, and no statement anew.
struct Market {
  // Made in one place: each of these is a page of code wherever it is made.
  Market();
  Market(const Market&);
  Market(Market&&) noexcept;
  Market& operator=(const Market&);
  Market& operator=(Market&&) noexcept;
  ~Market();

  std::vector<PricePoint> prices;
  MarketRates rates;
  std::vector<MarketSeries> series;
  std::vector<Estimate> estimates;
  std::vector<Peer> peers;
  std::map<std::string, std::set<std::string>> bookSets;  ///< members of other companies' sets by bookSetName()
  std::vector<std::string> companions;                    ///< ids of the companies of the book that are read as peers
  std::vector<std::string> peersUntold;  ///< companies of the book that are peers and cannot be read, and why
  std::vector<std::string> otherUnits;   ///< price tables whose closes cannot be read in the listing's unit
  std::int64_t lastObservation = 0;      ///< the newest that it holds
  std::shared_ptr<const Market> before;  ///< where what companies share has changed since the last edit here: as it was
};

/// What was filed and is on record, read. Shared by all that stands on it until an import.
struct Evidence {
  // Made in one place: each of these is a page of code wherever it is made.
  Evidence();
  Evidence(const Evidence&);
  Evidence(Evidence&&) noexcept;
  Evidence& operator=(const Evidence&);
  Evidence& operator=(Evidence&&) noexcept;
  ~Evidence();

  Company company;
  std::string companySource;  ///< document the record comes from
  std::vector<store::StoredDocument> documents;
  std::vector<Fact> facts;                 ///< pence and cents read in their currency
  std::map<size_t, FiledInMinor> inMinor;  ///< what those said, by index of the fact
  LineChoices choices;                     ///< made when tables were imported; the case's own go before them
  std::map<std::string, bool> bookPeers;   ///< companies of the book: a peer, or one no more
  std::map<std::pair<std::string, std::string>, bool> bookSets;  ///< company, its set: shared, or no more
  ConceptNetwork network;                                        ///< of the linkbases given
  std::vector<DebtDue> debtDue;                                  ///< of the record, else as tagged in the latest filing
  std::optional<CoverCount> cover;  ///< the count of shares on the latest filing's cover page

  /// The fact's figure and unit exactly as its document has them.
  [[nodiscard]] FiledInMinor asWritten(size_t fact) const;
  /// Where a member of the record comes from: the record, and who typed it, when and why.
  [[nodiscard]] std::string recordSource(const std::string& member) const;
};

/// All that values stand on besides the case.
struct Sources {
  std::shared_ptr<const Evidence> evidence;
  std::shared_ptr<const Market> market;
};

/// The facts on standard lines, by the rules and by what the analyst has chosen.
struct Standardised {
  LineChoices choices;                              ///< all that were in force
  std::vector<Fact> restated;                       ///< in today's shares; empty where no split restates any
  StandardStatements statements;                    ///< up to the case's base year
  std::shared_ptr<const StandardStatements> ahead;  ///< with the years filed since; null when there are none
};

/// What is to be seen of filings besides the statements that values stand on.
struct FilingReview {
  std::shared_ptr<const InterimStatements> interim;
  std::vector<Restatement> restatements;
  std::vector<SegmentRow> segments;
  std::vector<SegmentSum> segmentSums;
  std::vector<TieResult> ties;  ///< by tie and year, ties in the order of Resources::ties
  std::vector<Finding> findings;
};

/// What the case says of filed figures.
struct FiledChoices {
  LineChoices lines;
  FirstFiled firstFiled;
  int baseYear = 0;  ///< 0: the last year filed
  friend bool operator==(const FiledChoices&, const FiledChoices&) = default;
};

std::shared_ptr<const Standardised> standardise(const Evidence& evidence, const Resources& resources,
                                                const FiledChoices& own);

/// `filed` as standardise() made it of the same.
std::shared_ptr<const FilingReview> reviewFilings(const Evidence& evidence, const Resources& resources,
                                                  const Standardised& filed, const FiledChoices& own);

/// The standard line that a concept stands on; empty where it is set aside.
std::string lineOf(const Standardised& filed, const Resources& resources, const std::string& concept_name);

}  // namespace zl::services
