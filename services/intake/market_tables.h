#pragma once
// Tables of the market as people have them: prices copied from a web page, peers in a spreadsheet, rates, estimates.
// In: a sheet, what is known of the company. Out: the same in the documented layout (docs/formats/csv.md), and what was
// taken for granted.

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/filing/labels.h"
#include "core/model/syntax.h"
#include "core/peers/peer.h"
#include "core/period/date.h"
#include "core/table/sheet.h"
#include "exchange/content.h"

namespace zl::services {

/// What a table that does not say is taken to mean.
struct MarketHints {
  std::string currency;                      ///< of peers' figures: the company's
  std::string priceUnit;                     ///< of prices; empty: none is said
  Date day{};                                ///< of figures without a date
  Date yearEnd{};                            ///< of peers' figures without a year: the company's last fiscal year
  std::string source;                        ///< of figures without one: the table's name
  const std::vector<Peer>* peers = nullptr;  ///< there are: a row of the same name is more of one, in its currencies
  /// What multiples of the analyst's own are of, by row: its label. Peers' tables may tell it.
  std::map<std::string, std::string> further = {};
};

struct MarketTable {
  exchange::ContentKind kind = exchange::ContentKind::PriceTable;
  std::string csv;
  std::vector<std::string> notes;  ///< rows set aside, each with its place, and what was taken for granted
};

/// Rows: days with closes; peers by name with figures in any one unit; rates by name; premiums and tax by country or
/// region, spreads by interest cover (all three become rates); levels of series by name and day; estimates by line and
/// year. Empty where the sheet is none of these. Without text where its headings are and none of its rows can be used;
/// the notes say why.
std::optional<MarketTable> marketTableOf(const Sheet& sheet, const MarketHints& hints, const LabelRules& labels,
                                         const model::Model& m);

}  // namespace zl::services
