#include "exchange/workbook/cells.h"

#include <charconv>
#include <cmath>
#include <cstdlib>

namespace zl::exchange {

std::string typedNumber(std::string_view stored) {
  constexpr size_t kExact = 16;       // digits and point; a double tells 15 digits apart
  constexpr double kResidue = 1e-10;  // of sums of figures above a thousandth, in any unit
  std::string written(stored);
  if (stored.size() < kExact && stored.find_first_of("eE") == std::string_view::npos) return written;
  const double x = std::strtod(written.c_str(), nullptr);
  if (x != 0 && std::abs(x) < kResidue) return "0";
  if (stored.size() < kExact) return written;
  char text[40];
  const auto [end, code] = std::to_chars(text, text + sizeof text, x);
  return code == std::errc() ? std::string(text, end) : written;
}

void noteHidden(const std::string& sheet, int rows, int columns, std::vector<std::string>& warnings) {
  const auto counted = [](int n, const char* one) {
    return std::to_string(n) + " hidden " + one + (n == 1 ? "" : "s");
  };
  if (rows == 0 && columns == 0) return;
  warnings.push_back((rows > 0 ? counted(rows, "row") : "") + (rows > 0 && columns > 0 ? " and " : "") +
                     (columns > 0 ? counted(columns, "column") : "") + (rows + columns == 1 ? " was" : " were") +
                     " left out" + (sheet.empty() ? "" : " of the sheet '" + sheet + "'") +
                     "; show them there to have them read");
}

}  // namespace zl::exchange
