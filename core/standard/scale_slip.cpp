#include "core/standard/scale_slip.h"

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <map>

namespace zl {
namespace {

constexpr int kFewestLines = 5;
constexpr double kMostly = 0.75;
constexpr double kSpread = 0.3;  ///< decades, a factor of two
constexpr int kFarthest = 3;     ///< years between the two figures

std::optional<double> sizeOf(const StandardStatements& s, const std::string& line, int column) {
  const LineCell& cell = s.at(line, column);
  if (cell.origin != Origin::Filed || !cell.figure.hasValue() || cell.figure.value() == 0) return std::nullopt;
  return std::log10(std::abs(cell.figure.value()));
}

/// The line's figure of the year nearest to another one, as a decimal logarithm.
std::optional<double> nearest(const StandardStatements& s, const std::string& line, int label) {
  std::optional<double> size;
  int distance = kFarthest + 1;
  for (int c = 0; c < static_cast<int>(s.years().size()); ++c) {
    const int away = std::abs(s.years()[static_cast<size_t>(c)].label() - label);
    if (away >= distance) continue;
    if (const std::optional<double> here = sizeOf(s, line, c)) {
      size = here;
      distance = away;
    }
  }
  return size;
}

}  // namespace

std::optional<ScaleSlip> scaleSlip(const StandardStatements& incoming, const StandardStatements& present,
                                   const std::set<std::string>& lines) {
  std::map<int, int> votes;
  int compared = 0;
  for (const std::string& line : lines) {
    // Each line speaks once, by its latest year: a document holds one scale.
    for (int c = static_cast<int>(incoming.years().size()) - 1; c >= 0; --c) {
      const std::optional<double> own = sizeOf(incoming, line, c);
      const std::optional<double> other = nearest(present, line, incoming.years()[static_cast<size_t>(c)].label());
      if (!own || !other) continue;
      ++compared;
      for (const int decades : {-6, -3, 3, 6}) {
        if (std::abs(*own - *other - decades) <= kSpread) ++votes[decades];
      }
      break;
    }
  }
  if (compared < kFewestLines) return std::nullopt;
  for (const auto& [decades, count] : votes) {
    if (count >= kMostly * compared) return ScaleSlip{decades, count, compared};
  }
  return std::nullopt;
}

}  // namespace zl
