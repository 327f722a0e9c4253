#pragma once
// The parts of a company as filed, of the base year, with what the case says each is worth.

#include <map>
#include <string>
#include <vector>

#include "core/peers/peer.h"
#include "core/valuation/sum_of_parts.h"
#include "services/stages/ground.h"

namespace zl::services {

/// One way the company is cut: "Segments", "Geographical areas".
struct CutOfParts {
  std::string axis;               ///< as filed
  std::string label;              ///< in words
  std::vector<std::string> keys;  ///< of Case::parts, by part
  std::vector<Part> parts;        ///< with a revenue or a profit in the base year
};

/// Every cut with at least two parts that have revenue; those with profits come first.
std::vector<CutOfParts> cutsOfParts(const Ground& ground, const std::map<std::string, PartChoice>& choices);

/// Where revenue is from: of the cuts by region and of the others the one that has most revenue in it; empty where
/// there is none. Parts that hold one another would make more than the whole, and are scaled to it.
void setMixes(const std::vector<CutOfParts>& cuts, RevenueMix& regions, RevenueMix& businesses);

/// The cut that the choices are of, else the first; null where nothing is filed by part.
const CutOfParts* cutInForce(const std::vector<CutOfParts>& cuts, const std::map<std::string, PartChoice>& choices);

/// Of the cut in force. Not meaningful while parts of two cuts are chosen.
SumOfParts sumOfParts(const Ground& ground, const std::map<std::string, PartChoice>& choices);
/// The same of cuts that were made with these choices.
SumOfParts sumOfParts(const Ground& ground, const std::vector<CutOfParts>& cuts,
                      const std::map<std::string, PartChoice>& choices);

}  // namespace zl::services
