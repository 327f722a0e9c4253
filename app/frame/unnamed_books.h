#pragma once
// Books that have no name yet: a company is begun without choosing a file, and its book is named when there is
// something worth keeping. They live in the program's data folder like any other book, and nothing of them is ever
// lost.

#include <QString>

namespace zl::app {

/// Where the book of a company just begun is made.
QString newUnnamedBook(const QString& companyId);
bool isUnnamed(const QString& path);

}  // namespace zl::app
