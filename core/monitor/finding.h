#pragma once
// Findings: what a monitor saw, where, by how much. The window lists them, the command line
// prints them.

#include <functional>
#include <map>
#include <string>
#include <vector>

#include "core/capital/rates.h"
#include "core/filing/mapping.h"
#include "core/filing/segments.h"
#include "core/filing/tie.h"
#include "core/monitor/other_model.h"
#include "core/outlook/evaluation.h"
#include "core/peers/peer.h"

namespace zl {

enum class Severity { Note, Warning, Fault };

/// The stop of the route that a finding belongs to.
enum class Stop { Company, Filings, History, Outlook, Capital, CashValue, Peers, Stress, Verdict };
const char* stopWord(Stop stop);

struct Finding {
  std::string monitor;  ///< short fixed name, for filters and tests
  Severity severity = Severity::Warning;
  Stop stop = Stop::History;
  std::string text;               ///< what, where, how much
  std::string row;                ///< row to jump to, may be empty
  int column = -1;                ///< column to jump to, -1 for none
  std::string acknowledged = {};  ///< why it was accepted; empty: it is open
  std::string scenario = {};      ///< id, of a finding about one scenario
  /// Who reads it asks next what is not decided and moves the value most. That takes a run of the model for each of
  /// them, so it is looked for when the finding is read (undecidedThatMoveMost) and is no part of the text.
  bool standsOnUndecided = false;

  /// What an acknowledgement is kept under: monitor, row, scenario and the figures that it names. It is open again when
  /// a figure moves, and not when the program says the same in other words. One about no row is known by its words.
  [[nodiscard]] std::string key() const;
  /// What acknowledgements were kept under before cases of version 4.
  [[nodiscard]] std::string oldKey() const { return monitor + ": " + text; }
  [[nodiscard]] bool isOpen() const { return severity != Severity::Note && acknowledged.empty(); }
};

/// The subject's own regression, as monitors read it.
struct BetaBand {
  Figure low, high, adjusted;
  std::string words;  ///< index, frequency, window
};

/// Of monitorMarket().
struct MarketFindings {
  std::vector<Finding> evidence, peers;
};

/// Everything that a monitor of an outlook may look at.
struct MonitorView {
  const Evaluation& evaluation;
  const model::HistoryTable& history;
  const std::vector<FiscalYear>& years;
  const std::vector<Finding>& filings;  ///< of monitorFilings(): they change only with the evidence
  const MarketFindings& market;
  const CrossCheck& peers;
  const MarketRates& rates;
  std::string currency;                                    ///< the reporting one
  std::function<std::vector<OnOtherModel>()> others = {};  ///< asked once, last of all
  BetaBand beta = {};
};

/// Findings that the case acknowledges carry its reason.
std::vector<Finding> monitor(const MonitorView& view);

using DocumentNames = std::map<std::int64_t, std::string>;

/// The part that needs only what was filed: ties (`results` of checkTies), segments against the
/// whole, duplicates, unmapped, units, periods.
std::vector<Finding> monitorFilings(const model::Model& m, const StandardStatements& statements,
                                    const std::vector<Fact>& facts, const std::vector<Tie>& ties,
                                    const std::vector<TieResult>& results, const std::vector<SegmentSum>& segments = {},
                                    const DocumentNames& documents = {});

/// Filed figures under the wrong date, a thousand times too large or small, years of another
/// length, and counts of shares that jump as in a split. Part of monitorFilings().
void monitorPlausibility(const model::Model& m, const StandardStatements& statements, const std::vector<Fact>& facts,
                         const DocumentNames& documents, std::vector<Finding>& found);

}  // namespace zl
