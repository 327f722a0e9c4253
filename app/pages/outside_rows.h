#pragma once
// Rows of multiples that are no peer's, and of what others say the share is worth.

#include "app/grid/ledger_rows.h"

namespace zl::app {

QStringList outsideHeaders(const services::Snapshot& s);
/// Headings between sectors, deals and others' valuations; none where the book has none of them.
std::vector<LedgerRow> outsideRows(const services::Snapshot& s);
/// How such figures come in, or what is wrong with those there are.
QString outsideWords(const services::Snapshot& s);

}  // namespace zl::app
