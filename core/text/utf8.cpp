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

namespace {

void append(std::string& out, char32_t c) {
  if (c < 0x80) {
    out += static_cast<char>(c);
  } else if (c < 0x800) {
    out += static_cast<char>(0xC0 | (c >> 6));
    out += static_cast<char>(0x80 | (c & 0x3F));
  } else if (c < 0x10000) {
    out += static_cast<char>(0xE0 | (c >> 12));
    out += static_cast<char>(0x80 | ((c >> 6) & 0x3F));
    out += static_cast<char>(0x80 | (c & 0x3F));
  } else {
    out += static_cast<char>(0xF0 | (c >> 18));
    out += static_cast<char>(0x80 | ((c >> 12) & 0x3F));
    out += static_cast<char>(0x80 | ((c >> 6) & 0x3F));
    out += static_cast<char>(0x80 | (c & 0x3F));
  }
}

}  // namespace

std::string fromWindows1252(std::string_view text) {
  // 0x80 to 0x9F; everything else is Latin-1.
  static constexpr char32_t kMiddle[32] = {0x20AC, 0xFFFD, 0x201A, 0x0192, 0x201E, 0x2026, 0x2020, 0x2021,
                                           0x02C6, 0x2030, 0x0160, 0x2039, 0x0152, 0xFFFD, 0x017D, 0xFFFD,
                                           0xFFFD, 0x2018, 0x2019, 0x201C, 0x201D, 0x2022, 0x2013, 0x2014,
                                           0x02DC, 0x2122, 0x0161, 0x203A, 0x0153, 0xFFFD, 0x017E, 0x0178};
  std::string out;
  out.reserve(text.size() + text.size() / 8);
  for (const char byte : text) {
    const auto c = static_cast<unsigned char>(byte);
    append(out, c >= 0x80 && c < 0xA0 ? kMiddle[c - 0x80] : c);
  }
  return out;
}

bool isUtf16(std::string_view text) {
  return text.substr(0, 2) == "\xFF\xFE" || text.substr(0, 2) == "\xFE\xFF";
}

std::string fromUtf16(std::string_view text) {
  const bool little = text.substr(0, 2) == "\xFF\xFE";
  std::string out;
  const auto unit = [&](size_t i) {
    const auto a = static_cast<unsigned char>(text[i]);
    const auto b = static_cast<unsigned char>(text[i + 1]);
    return static_cast<char32_t>(little ? a | (b << 8) : b | (a << 8));
  };
  for (size_t i = 2; i + 1 < text.size(); i += 2) {
    char32_t c = unit(i);
    if (c >= 0xD800 && c < 0xDC00 && i + 3 < text.size() && unit(i + 2) >= 0xDC00 && unit(i + 2) < 0xE000) {
      c = 0x10000 + ((c - 0xD800) << 10) + (unit(i + 2) - 0xDC00);
      i += 2;
    } else if (c >= 0xD800 && c < 0xE000) {
      c = 0xFFFD;
    }
    append(out, c);
  }
  return out;
}

}  // namespace zl
