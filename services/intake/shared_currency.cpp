#include "services/intake/shared_currency.h"

#include <algorithm>
#include <map>
#include <string>

namespace zl::services {
namespace {

/// Currencies and, of each, a file or sheet that names it.
std::map<std::string, std::string> named(const std::vector<ImportPreview>& previews) {
  std::map<std::string, std::string> currencies;
  for (const ImportPreview& p : previews) {
    for (const SheetReading& s : p.readings) {
      const std::string& sheet = p.workbook->sheets.at(static_cast<size_t>(s.sheet)).name;
      if (!s.reading.currency.empty()) currencies.try_emplace(s.reading.currency, sheet.empty() ? p.name : sheet);
    }
    const std::string filed = p.readings.empty() ? mostUsedCurrency(p.incoming.facts) : std::string();
    if (!filed.empty()) currencies.try_emplace(filed, p.name);
  }
  return currencies;
}

}  // namespace

Status shareCurrency(std::vector<ImportPreview>& previews, const ImportContext& context) {
  const std::map<std::string, std::string> currencies = named(previews);
  if (currencies.size() != 1) return {};
  const auto& [code, from] = *currencies.begin();
  for (ImportPreview& p : previews) {
    bool taken = false;
    for (SheetReading& s : p.readings) {
      if (!s.reading.currency.empty()) continue;
      s.reading.currency = code;
      for (std::string& doubt : s.reading.doubts) {
        if (doubt == kNoCurrency) doubt += "; " + code + " is taken, as '" + from + "' is in";
      }
      taken = true;
    }
    if (!taken) continue;
    if (Status applied = applyReadings(p, context); !applied) return applied;
  }
  return {};
}

}  // namespace zl::services
