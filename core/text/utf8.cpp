#include "core/text/utf8.h"

#include <array>
#include <cstdint>
#include <cstring>

namespace zl {
namespace {

constexpr std::string_view kReplacement = "\xEF\xBF\xBD";

/// Bytes of the character that begins at `at`; 0 where none does.
std::size_t characterAt(std::string_view text, std::size_t at) {
  const auto byte = [&](std::size_t i) {
    return i < text.size() ? static_cast<unsigned>(static_cast<unsigned char>(text[i])) : 0U;
  };
  const unsigned first = byte(at);
  if (first < 0x80) return 1;
  const std::size_t length = first >= 0xC2 && first <= 0xDF   ? 2
                             : (first >> 4) == 14             ? 3
                             : first >= 0xF0 && first <= 0xF4 ? 4
                                                              : 0;
  for (std::size_t k = 1; k < length; ++k) {
    if ((byte(at + k) >> 6) != 2) return 0;
  }
  const unsigned second = byte(at + 1);
  const bool outside = (first == 0xE0 && second < 0xA0) || (first == 0xED && second > 0x9F) ||
                       (first == 0xF0 && second < 0x90) || (first == 0xF4 && second > 0x8F);
  return outside ? 0 : length;
}

/// Controls, line and paragraph separators, and what embeds, overrides or isolates a direction (UAX 9).
bool steersAs(unsigned code) {
  return code < 0x20 || (code >= 0x7F && code <= 0x9F) || (code >= 0x2028 && code <= 0x202E) ||
         (code >= 0x2066 && code <= 0x2069);
}

}  // namespace

std::size_t lengthOfFirst(std::string_view text) {
  const std::size_t length = characterAt(text, 0);
  return length == 0 ? 1 : length;
}

bool steers(std::string_view character) {
  const unsigned code = codeOf(character);
  return steersAs(code) && code != '\n' && code != '\t';
}

unsigned codeOf(std::string_view character) {
  constexpr std::array<unsigned, 5> kMask = {0, 0x7F, 0x1F, 0x0F, 0x07};
  unsigned code = static_cast<unsigned char>(character[0]) & kMask[character.size()];
  for (std::size_t k = 1; k < character.size(); ++k)
    code = code << 6 | (static_cast<unsigned char>(character[k]) & 0x3FU);
  return code;
}

std::size_t firstBadUtf8(std::string_view text) {
  constexpr std::uint64_t kHighBits = 0x8080808080808080ULL;
  for (std::size_t i = 0; i < text.size();) {
    // Most text is plain: eight bytes at a time.
    std::uint64_t eight = 0;
    while (i + sizeof eight <= text.size()) {
      std::memcpy(&eight, text.data() + i, sizeof eight);
      if ((eight & kHighBits) != 0) break;
      i += sizeof eight;
    }
    if (i == text.size()) break;
    const std::size_t length = characterAt(text, i);
    if (length == 0) return i;
    i += length;
  }
  return std::string_view::npos;
}

std::string asUtf8(std::string_view text) {
  std::string out;
  for (std::size_t i = 0; i < text.size();) {
    const std::size_t length = characterAt(text, i);
    out += length == 0 ? kReplacement : text.substr(i, length);
    i += length == 0 ? 1 : length;
  }
  return out;
}

std::string shortened(std::string_view text, std::size_t most) {
  if (text.size() <= most) return std::string(text);
  std::size_t end = most;
  while (end > 0 && (static_cast<unsigned char>(text[end]) & 0xC0U) == 0x80U) --end;
  return std::string(text.substr(0, end)) + "…";
}

std::string harmless(std::string_view text, bool lines) {
  std::string out;
  for (std::size_t i = 0; i < text.size();) {
    const std::size_t length = characterAt(text, i);
    const std::string_view character = text.substr(i, length == 0 ? 1 : length);
    const bool lineEnd = lines && (text[i] == '\n' || text[i] == '\t');
    const bool kept = length > 0 && (lineEnd || !steersAs(codeOf(character)));
    const bool doubled = lines && text.substr(i, 2) == "\r\n";
    if (!doubled) out += kept ? character : kReplacement;
    i += character.size();
  }
  return out;
}

}  // namespace zl
