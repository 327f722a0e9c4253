#pragma once
// The scenario as files in the product's and the open formats.

#include <string>

#include "demo/generator/scenario.h"

namespace demo {

/// An annual report as a CSV fact table: the year and the year before.
std::string csvReport(const Year& year, const Year* before);
/// An annual report as an XBRL 2.1 instance with comparatives, segments, a nil fact and two
/// concepts of the filer's own.
std::string xbrlReport(const Year& year, const Year* before);

std::string companyRecord(const Story& story);
std::string priceTable(Random& random);
std::string peerTable();
std::string rateTable();
std::string caseText();

}  // namespace demo
