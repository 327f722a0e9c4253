#pragma once
// What xBRL-JSON and xBRL-CSV share (Open Information Model 1.0, XBRL International, 2021): how
// periods, units and names are written.

#include <map>
#include <optional>
#include <string>
#include <string_view>

#include "core/filing/fact.h"
#include "exchange/content.h"
#include "exchange/json/reader.h"
#include "exchange/set_aside.h"

namespace zl::exchange {

/// "2024-01-01T00:00:00/2025-01-01T00:00:00", "2025-01-01T00:00:00" (the end of 2024), and the
/// short forms of xBRL-CSV: 2024, 2024-03, 2024-03-31, 2024Q1, 2024H2, 2024W05, a range
/// 2024-01-01..2024-12-31, each with @start or @end for a balance. Empty on anything else.
std::optional<Period> oimPeriod(std::string_view text);

/// "iso4217:EUR/xbrli:shares" to "EUR/shares"; empty on a malformed unit.
std::string oimUnit(std::string_view text);

/// A document's prefixes, with the usual ones for the public taxonomies.
class OimNames {
 public:
  explicit OimNames(const Json* namespaces);
  [[nodiscard]] std::string usual(std::string_view qualified) const;

 private:
  std::map<std::string, std::string, std::less<>> prefixes_;
};

/// The strings of documentInfo.documentType: the last part, such as "xbrl-json", or empty.
std::string oimDocumentType(const Json& document);

/// Fills concept, period, unit, segments of a fact from its dimensions. Fails with what is wrong;
/// the caller adds the place.
Status readDimensions(const std::map<std::string, std::string>& dimensions, const OimNames& names, Fact& fact);

/// A report as its facts come in.
class OimReport {
 public:
  /// A fact without a unit is a plain number (xbrli:pure is never written).
  void add(Fact fact, const std::map<std::string, std::string>& dimensions);
  /// Without a taxonomy at hand, a fact with neither unit nor decimals is text: counted, left out.
  void countText() { ++texts_; }
  /// Of a fact that cannot be used.
  void setAside(const Error& fault) { unusable_.add(fault); }
  /// Fails where there are no facts: with what is wrong with the first, else saying that what there is (`holder`) holds
  /// none.
  Result<Filing> finish(const std::string& name, ContentKind kind, const char* holder);

 private:
  Filing filing_;
  int texts_ = 0;
  SetAside unusable_{"facts"};
};

}  // namespace zl::exchange
