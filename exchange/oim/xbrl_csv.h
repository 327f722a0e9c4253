#pragma once
// xBRL-CSV 1.0 (XBRL International, 2021): a JSON description and the CSV tables that it names.

#include <span>

#include "exchange/xbrl/inline.h"

namespace zl::exchange {

/// File names of the tables that a description names; empty where it is none.
std::vector<std::string> xbrlCsvTables(std::string_view description);

/// Facts of the tables that `description` names, found among `tables` by their file names. Fact
/// columns take dimensions from themselves, their row ($column), parameters ($parameter) and the
/// report; #nil and #none as the standard says. What is not built is refused by name:
/// descriptions that extend others, and property groups.
Result<Filing> readXbrlCsv(const NamedContent& description, std::span<const NamedContent> tables,
                           const StopCheck& stopped = {});

}  // namespace zl::exchange
