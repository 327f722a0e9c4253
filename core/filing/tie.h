#pragma once
// Ties between standard lines, judged in exact decimals with the tolerance that the filed rounding
// allows (each addend contributes half a unit of its last filed place: the rule of XBRL
// Calculations 1.1). Rules text: docs/formats/rules.md.
//
//   tie balance "Balance sheet" total_assets = total_liabilities + total_equity
//   tie cash "Movement of cash" cash = cash[-1] + net_cash_movement
//   roll equity "Movement of equity" equity = equity[-1] + net_income - dividends
//
// A roll is a movement that filers may have further reasons for than the lines name: what is left
// is shown, as a question rather than a fault.

#include <string>
#include <string_view>
#include <vector>

#include "core/filing/mapping.h"
#include "core/quantity/decimal.h"

namespace zl {

struct TieTerm {
  std::string line;
  int weight = 1;
  bool opening = false;  ///< line[-1]: the balance one year before
};

struct Tie {
  std::string name;
  std::string label;
  TieTerm total;
  std::vector<TieTerm> addends;
  bool roll = false;
};

Result<std::vector<Tie>> parseTies(std::string_view text, const std::string& source);

struct TieResult {
  enum class State { Ties, Fails, NotChecked };
  State state = State::NotChecked;
  size_t tie = 0;
  int column = 0;
  std::string gap;        ///< sum of addends less total, exact decimal text; without lines that are not filed
  std::string tolerance;  ///< exact decimal text
  std::vector<size_t> facts;
  std::vector<std::string> missing;  ///< NotChecked: the lines that are not filed
};

std::vector<TieResult> checkTies(const std::vector<Tie>& ties, const StandardStatements& statements,
                                 std::span<const Fact> facts);

/// Facts that should add up to another, judged like a tie; empty where one is no number.
struct FiledSum {
  bool ties = true;
  std::string gap, tolerance;  ///< parts less whole; exact decimal texts
};
std::optional<FiledSum> filedSum(std::span<const size_t> parts, size_t whole, std::span<const Fact> facts);

/// Whether two facts of one thing agree within both their roundings (closed interval).
bool agree(const Fact& a, const Fact& b);

}  // namespace zl
