#pragma once
// Expected failures as values. Every message says what, where and what to do about it.

#include <string>
#include <tl/expected.hpp>
#include <utility>

#include "core/text/utf8.h"

namespace zl {

/// The closed list of ways an operation can fail; the comment is what the user can do.
enum class ErrorKind {
  NotFound,     ///< name a thing that exists
  BadInput,     ///< correct the value or the file at the place named
  TooLarge,     ///< split the input, or raise the stated limit
  WrongKind,    ///< give a file of a supported kind
  Conflict,     ///< look again: somebody else changed the book
  Busy,         ///< try again in a moment: somebody else is writing
  Damaged,      ///< verify the book, go back to a copy, or rescue what is whole
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

  /// One line: "where: what. todo". What offends may come out of a file and be of any length or bytes:
  /// it is shortened, and steers nothing that shows it.
  [[nodiscard]] std::string text() const {
    constexpr std::size_t kLongest = 800;
    const std::string told = harmless(shortened(what, kLongest));
    std::string line = where.empty() ? told : harmless(shortened(where, kLongest)) + ": " + told;
    if (!todo.empty()) line += ". " + harmless(shortened(todo, kLongest));
    return line;
  }
};

/// A value or the error; the compiler refuses a call whose result nobody looks at.
template <class T>
class [[nodiscard]] Result : public tl::expected<T, Error> {
 public:
  using tl::expected<T, Error>::expected;
  using tl::expected<T, Error>::operator=;
  Result() = default;
};
using Status = Result<void>;

inline tl::unexpected<Error> fail(ErrorKind kind, std::string what, std::string where = {}, std::string todo = {}) {
  return tl::unexpected<Error>(Error{kind, std::move(what), std::move(where), std::move(todo)});
}

}  // namespace zl
