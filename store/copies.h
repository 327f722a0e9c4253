#pragma once
// Copies of a book beside it, made by the database's own backup: before its schema is brought up to
// date, and before the first change of a day. "a.zledger" has them in the folder "a.zledger.copies".

#include <string>
#include <vector>

#include "core/quantity/error.h"
#include "store/book.h"

namespace zl::store {

class Database;

struct Copy {
  std::string path;
  std::string name;  ///< "2026-11-27", "before version 4": when or why it was made
};

/// The folder of a book's copies, whether it is there or not.
std::string copiesFolder(const std::string& book);
/// Copies there are, newest first.
std::vector<Copy> copiesOf(const std::string& book);
/// The book that a file is a copy of, by where it lies; empty for any other file.
std::string bookOfCopy(const std::string& path);

/// Makes the copy of that name, a day or another reason, unless it is there. Of days the newest seven are
/// kept, of each other reason three.
Status copyOnce(Database& db, const std::string& name);
/// Makes a day's copy of a book with a connection of its own: beside one that is in use.
Status copyForDay(const std::string& book, const std::string& day);

/// Puts a copy in the place of its book. What stood there is kept among the copies, whole where it
/// can be read and as a damaged file where it cannot; its name there is given. Fails, changing
/// nothing, where the copy is no whole book, or while another program has the book open.
Result<std::string> putBack(const std::string& copy, const std::string& book, const std::string& now);

/// Takes a book away whose whole copy stands at `into`; its copies go there too. Fails with Busy, changing nothing,
/// while a program has it open: what that one writes would be lost.
Status takeAway(const std::string& book, const std::string& into);

}  // namespace zl::store
