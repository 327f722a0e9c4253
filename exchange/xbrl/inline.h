#pragma once
// Inline XBRL documents (Inline XBRL 1.1, XBRL International, 2013; 1.0 is read alike): web pages
// that carry facts in their text.

#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/filing/fact.h"
#include "core/quantity/error.h"
#include "exchange/stop_check.h"

namespace zl::exchange {

struct NamedContent {
  std::string name;
  std::string_view content;
};

/// The numeric facts of each document, hidden and nested ones included, with format, scale and
/// sign applied. Documents given together may form one set: a fact may name contexts and units
/// that another document defines, and a text may continue there; where two of the others define
/// one name differently, the set is refused. Texts that name the filer and the period's end go
/// into Filing::about. Facts of another target than the default, fractions, and number formats not
/// known are set aside with a warning that counts them and names the first.
Result<std::vector<Filing>> readInlineXbrl(std::span<const NamedContent> documents, const StopCheck& stopped = {});

}  // namespace zl::exchange
