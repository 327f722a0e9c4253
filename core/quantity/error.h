#pragma once
// Expected failures as values. Every message says what, where and what to do about it.

#include <string>
#include <tl/expected.hpp>
#include <utility>

namespace zl {

/// The closed list of ways an operation can fail; the comment is what the user can do.
enum class ErrorKind {
  NotFound,     ///< name a thing that exists
  BadInput,     ///< correct the value or the file at the place named
  TooLarge,     ///< split the input, or raise the stated limit
  WrongKind,    ///< give a file of a supported kind
  Conflict,     ///< reload: somebody else changed the book
  Storage,      ///< check the disk, the rights and that the file is a book
  Cancelled,    ///< the user stopped it
  Unsupported,  ///< the input is valid but asks for something not built
  Internal,     ///< our fault: report it
};

struct Error {
  ErrorKind kind = ErrorKind::Internal;
  std::string what;   ///< what went wrong, with the value that offends
  std::string where;  ///< file, line, row, period; may be empty
  std::string todo;   ///< what the user can do; may be empty

  /// One line: "where: what. todo"
  [[nodiscard]] std::string text() const {
    std::string line = where.empty() ? what : where + ": " + what;
    if (!todo.empty()) line += ". " + todo;
    return line;
  }
};

template <class T>
using Result = tl::expected<T, Error>;
using Status = tl::expected<void, Error>;

inline tl::unexpected<Error> fail(ErrorKind kind, std::string what, std::string where = {}, std::string todo = {}) {
  return tl::unexpected<Error>(Error{kind, std::move(what), std::move(where), std::move(todo)});
}

}  // namespace zl
