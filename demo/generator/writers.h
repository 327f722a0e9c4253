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

/// The first half of the year as a CSV fact table: half-years were filed before quarters.
std::string csvHalfYear(const Year& year, const Year& before);
/// The year to the end of its first, second or third quarter (0 to 2), in three formats. The
/// workbook holds all three, as an analyst keeps them.
std::string xbrlJsonInterim(const Year& year, const Year& before, int quarter);
std::string inlineInterim(const Year& year, const Year& before, int quarter);
std::string workbookInterims(const Year& year, const Year& before);

/// One planted fault each: balances under the next year's date, revenue without its thousands, a
/// balance filed twice with two amounts, parts that miss the whole, a cost in another currency.
std::string wrongDateFault(const Story& story);
std::string scaleSlipFault(const Story& story);
std::string duplicateFault(const Story& story);
std::string partsFault(const Story& story);
std::string currencyFault(const Story& story);

std::string companyRecord(const Story& story);
std::string priceTable(Random& random);
/// Indices and peers' closes; the index of the listing's currency moves with the price table.
std::string seriesTable(const std::string& priceTable);
std::string peerTable();
std::string rateTable();
/// Of the peer that is a company of the book itself.
std::string companionRecord();
std::string companionStatements();
std::string companionPrices(const std::string& series);
std::string companionEstimates();
std::string estimateTable();
std::string caseText();

}  // namespace demo
