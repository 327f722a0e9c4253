#pragma once
// What the page of the cash value says besides rows of the model: its first line, the dated target's yearly return,
// when a price was last to be had.

#include <optional>
#include <string>
#include <vector>

#include "services/stages/snapshot.h"

namespace zl::services {

struct CashHead {
  Figure price;                ///< per security, in the listing's unit
  std::vector<Figure> values;  ///< per share by scenario
  Figure beyond;               ///< share of base's value that lies beyond the forecast, by the method in force
  std::string driver;          ///< what moves base most between its usual ends; empty where nothing does
  Figure swing;                ///< by how much, in the listing's unit
};
CashHead cashHead(const Snapshot& s);

/// The dated target of a scenario as rows of the model give it, with the yearly return r that solves
/// price = sum D_t / (1 + r)^t + target / (1 + r)^T over whole years.
struct DatedTarget {
  int years = 0;
  Figure value, total, yearly;
};
DatedTarget datedTarget(const Snapshot& s, int scenario);

/// The last close at or under a price, at or before the valuation date; empty where it never stood there.
std::optional<PricePoint> lastAtOrUnder(const Snapshot& s, double price);

}  // namespace zl::services
