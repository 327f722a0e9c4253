#include "exchange/workbook/parted_figures.h"

#include <algorithm>
#include <cctype>
#include <cmath>

#include "core/table/displayed.h"

namespace zl::exchange {
namespace {

constexpr size_t kMostGroups = 6;  // 10^17
constexpr int kMostSteps = 100'000;

/// "(12", "-204", "7": what thousands may follow.
bool beginsFigure(const std::string& cell) {
  const size_t digit = cell.find_first_of("0123456789");
  if (digit == std::string::npos || cell.size() - digit > 3) return false;
  return cell[digit] != '0' && std::all_of(cell.begin() + static_cast<std::ptrdiff_t>(digit), cell.end(),
                                           [](unsigned char c) { return std::isdigit(c) != 0; });
}

/// "204"; at a figure's end also "204)" and "204.5".
bool isThousands(const std::string& cell, bool last) {
  const auto digits = static_cast<size_t>(
      std::find_if_not(cell.begin(), cell.end(), [](unsigned char c) { return std::isdigit(c) != 0; }) - cell.begin());
  return digits == 3 && (cell.size() == 3 || (last && (cell[3] == '.' || cell[3] == ')')));
}

}  // namespace

bool isFigureOrPiece(const std::string& cell) {
  return cell.empty() || saysNothing(cell) || displayedNumber(cell, '.') ||
         (cell.front() == '(' && beginsFigure(cell)) || isThousands(cell, true);
}

bool goesOn(const std::string& before, const std::string& cell) {
  return (beginsFigure(before) || isThousands(before, false)) && isThousands(cell, true);
}

PartedFigures::PartedFigures(const std::vector<std::string>& cells, size_t from, size_t figures) : cells_(cells) {
  look(from, figures);
}

std::optional<std::vector<size_t>> PartedFigures::plain() const {
  constexpr double kNear = 1.5;  // decades
  const bool sure = best_ && left_ && best_->apart <= kNear && second_ >= best_->apart + kNear;
  return sure ? std::optional(best_->sizes) : std::nullopt;
}

void PartedFigures::look(size_t from, size_t figures) {
  if (figures == 0) {
    if (from == cells_.size()) add();
    return;
  }
  for (size_t count = 1; count <= kMostGroups && from + count + (figures - 1) <= cells_.size() && left_; ++count) {
    if (cells_.size() - from - count > (figures - 1) * kMostGroups || !isOne(from, count)) continue;
    sizes_.push_back(count);
    decades_.push_back(decadesOf(from, count));
    left_ = ++steps_ < kMostSteps;
    look(from + count, figures - 1);
    sizes_.pop_back();
    decades_.pop_back();
  }
}

bool PartedFigures::isOne(size_t from, size_t count) const {
  if (count == 1) return cells_[from].empty() || saysNothing(cells_[from]) || displayedNumber(cells_[from], '.');
  if (!beginsFigure(cells_[from])) return false;
  for (size_t c = from + 1; c < from + count; ++c) {
    if (!isThousands(cells_[c], c + 1 == from + count)) return false;
  }
  return true;
}

std::optional<double> PartedFigures::decadesOf(size_t from, size_t count) const {
  std::string all;
  for (size_t c = from; c < from + count; ++c) all += cells_[c];
  const std::optional<DisplayedNumber> number = displayedNumber(all, '.');
  const double size = number ? std::fabs(std::stod(number->plain)) : 0;
  return size > 0 ? std::optional(std::log10(size)) : std::nullopt;
}

void PartedFigures::add() {
  double low = 0, high = 0;
  bool first = true;
  for (const std::optional<double>& decade : decades_) {
    if (!decade) continue;
    low = first ? *decade : std::min(low, *decade);
    high = first ? *decade : std::max(high, *decade);
    first = false;
  }
  const double apart = high - low;
  if (!best_ || apart < best_->apart) {
    if (best_) second_ = best_->apart;
    best_ = Way{sizes_, apart};
  } else {
    second_ = std::min(second_, apart);
  }
}

}  // namespace zl::exchange
