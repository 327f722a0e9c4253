#include "core/valuation/implied_growth.h"

#include <algorithm>
#include <cmath>

namespace zl {

std::vector<double> impliedGrowth(double nopat, double wacc, double returnOnNew, double terminal) {
  std::vector<double> roots;
  if (!(returnOnNew > 0) || !std::isfinite(nopat + wacc + terminal)) return roots;
  // nopat (1 + g)(1 - g/R) - terminal (wacc - g) = 0  as  a g^2 + b g + c = 0
  const double a = -nopat / returnOnNew;
  const double b = nopat * (1 - 1 / returnOnNew) + terminal;
  const double c = nopat - terminal * wacc;
  const auto keep = [&](double g) {
    // At g = wacc the multiple is a limit, not a perpetuity.
    if (g > -1 && g < wacc - 1e-9) roots.push_back(g);
  };
  if (a == 0) {
    if (b != 0) keep(-c / b);
  } else {
    const double discriminant = b * b - 4 * a * c;
    if (discriminant < 0) return roots;
    // The form that does not cancel: q carries the larger magnitude.
    const double q = -0.5 * (b + std::copysign(std::sqrt(discriminant), b));
    if (q != 0) {
      keep(q / a);
      if (discriminant > 0) keep(c / q);
    } else {
      keep(0);
    }
  }
  std::sort(roots.begin(), roots.end());
  return roots;
}

}  // namespace zl
