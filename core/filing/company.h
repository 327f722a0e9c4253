#pragma once
// The company record: one consistent basis for all per-share figures.

#include <string>

namespace zl {

/// One line of trading. A price of 450 in pence with minorPerMajor 100 is 4.50 of `currency`.
struct Listing {
  std::string unit;            ///< shown beside prices, "GBX"
  std::string currency;        ///< ISO 4217, "GBP"
  double minorPerMajor = 1;    ///< listing units in one unit of currency
  double sharesPerListed = 1;  ///< ordinary shares that one listed security stands for
  friend bool operator==(const Listing&, const Listing&) = default;
};

struct Company {
  std::string id;  ///< short name used on the command line
  std::string name;
  std::string description;
  std::string currency;  ///< reporting currency, ISO 4217
  Listing listing;
  double shares = 0;        ///< ordinary shares outstanding now
  double options = 0;       ///< options outstanding
  double optionStrike = 0;  ///< in listing units per ordinary share
  double unvestedShares = 0;
  double convertibleShares = 0;  ///< ordinary shares on conversion
  double convertibleFace = 0;    ///< in reporting currency; part of the filed borrowings
  friend bool operator==(const Company&, const Company&) = default;
};

}  // namespace zl
