#pragma once
// The invented company: twelve years of statements in thousands of euros, rolled forward from
// yearly drivers so that every statement ties by construction.

#include <map>
#include <string>
#include <vector>

namespace demo {

using Thousands = long long;

/// Standard line -> amount, for one fiscal year (see kits/standard/rules for the lines).
using Year = std::map<std::string, Thousands>;

struct Story {
  int firstYear = 2014;
  std::vector<Year> years;        ///< as last filed
  Year restated2022AsFirstFiled;  ///< 2022 before the timing of revenue was corrected
};

Story simulate();

/// A small counter-free generator whose bits are the same on every machine (SplitMix64,
/// Steele, Lea and Flood 2014).
class Random {
 public:
  explicit Random(unsigned long long seed) : state_(seed) {}
  double uniform();
  double normal();  ///< sum of twelve uniforms less six: near enough for invented prices

 private:
  unsigned long long state_;
};

}  // namespace demo
