#pragma once
// Figures of the market, put together from a book's tables, from what was fetched and from what was typed. In: a
// company's active documents and observations. Out: one Market, by key and day. What came later stands; what somebody
// typed stands over both.

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "exchange/json/typed_figure.h"
#include "services/stages/filed.h"

namespace zl::services {

inline constexpr const char* kPriceSeries = "price";

/// Whether a kind of document holds figures of the market, and whether companies share it.
bool isOfMarket(const std::string& kind);
bool isShared(const store::StoredDocument& document);

/// Closes of another listing of the record than the one valued are brought into its unit by the exchange rate of their
/// day; without one, and in units of no listing, they are told of and do not count.
/// Everything up to `at` (ISO 8601; empty: all), without what companies share from after `sharedAt` (empty: all of it).
Result<std::shared_ptr<Market>> marketOf(store::Book& book, const std::string& company,
                                         const std::vector<store::StoredDocument>& documents, const Company& record,
                                         const std::string& at = {}, const std::string& sharedAt = {});

/// The same with what was fetched since; no document is read again.
std::shared_ptr<const Market> withObservations(const Market& market, const std::vector<store::Observation>& fresh,
                                               const std::string& unit);

/// What is wrong with a figure of a series: a name that is none, a price in another unit than the listing's, nought
/// or less where that means nothing. Empty where nothing is.
std::string faultOfFigure(const std::string& series, double figure, const std::string& unit,
                          const std::string& listingUnit);

}  // namespace zl::services
