#include "core/filing/fact.h"

#include <charconv>

namespace zl {

Figure Fact::figure() const {
  if (nil) return Figure::absent("filed as nil");
  double number = 0.0;
  const char* first = text.data();
  const char* last = first + text.size();
  if (first != last && *first == '+') ++first;
  const auto [end, code] = std::from_chars(first, last, number);
  if (code != std::errc() || end != last) return Figure::absent("'" + text + "' is not a number");
  return Figure::of(number);
}

void noteYear(Document& document, const Period& period) {
  if (period.isFullYear() && (!document.periodEnd || period.end > *document.periodEnd)) {
    document.periodEnd = period.end;
  }
}

}  // namespace zl
