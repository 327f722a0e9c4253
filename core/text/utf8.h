#pragma once
// Text from outside: whether it is UTF-8, made so, kept short, kept from steering what shows it.

#include <string>
#include <string_view>

namespace zl {

/// Position of the first byte that is not UTF-8 (RFC 3629: no overlong forms, no surrogates), or npos.
std::size_t firstBadUtf8(std::string_view text);
inline bool isUtf8(std::string_view text) {
  return firstBadUtf8(text) == std::string_view::npos;
}

/// The same text with U+FFFD for each byte that is not UTF-8: for names that come from the system.
std::string asUtf8(std::string_view text);

/// Text in Windows-1252 (the usual one of files without a mark) or, with its byte order mark, UTF-16, as UTF-8. A byte
/// that the code page leaves open and half a pair become U+FFFD.
std::string fromWindows1252(std::string_view text);
std::string fromUtf16(std::string_view text);
bool isUtf16(std::string_view text);

/// The first `most` bytes, cut between characters, with "…" where something was left out.
std::string shortened(std::string_view text, std::size_t most);

/// One line that steers nothing: control characters (C0, C1, line ends) and marks that turn the
/// direction of writing become U+FFFD, so that neither a terminal nor a label shows what is not there.
/// With `lines`, line feeds and tabs stay, and a carriage return before a line feed goes.
std::string harmless(std::string_view text, bool lines = false);

/// Bytes of the first character of a text that is not empty; 1 for a byte that begins none.
std::size_t lengthOfFirst(std::string_view text);
/// The code point of one character.
unsigned codeOf(std::string_view character);
/// Whether one character steers what shows it; line feeds and tabs do not.
bool steers(std::string_view character);

}  // namespace zl
