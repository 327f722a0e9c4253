#pragma once
// A multiple fitted across peers on growth, margin and return by least squares: how much of it they tell, what each
// peer's is beyond that, and what the subject's would be.

#include <array>
#include <string>
#include <vector>

#include "core/quantity/figure.h"

namespace zl {

/// Growth of revenue, margin and return on equity, as ratios: what a company is told by.
using FitTraits = std::array<Figure, 3>;

struct FittedPeer {
  std::string id, name;
  Figure multiple;  ///< that counts
  FitTraits traits;
  Figure fitted, residual;  ///< absent where the peer lacks a trait and is not in the fit
};

struct MultipleFit {
  int count = 0;  ///< peers in it
  Figure intercept;
  std::array<Figure, 3> slopes;  ///< of the multiple per unit (1 = 100 %) of each trait
  Figure rSquared, adjusted;     ///< adjusted for the number of traits (Theil 1961)
  Figure standardError;          ///< of the residuals, with count - 4 degrees of freedom
  std::vector<FittedPeer> peers;
  Figure subjects;  ///< what the fit says of the subject
};

/// A line through three traits takes four figures: with fewer peers than this it tells nothing of a fifth.
inline constexpr int kFewestToFit = 6;

/// Peers without a multiple or a trait are left out and keep their row. Not meaningful with fewer than kFewestToFit,
/// and where the traits of the peers lie in a plane, so that no one line is the best.
MultipleFit fitMultiples(std::vector<FittedPeer> peers, const FitTraits& subject);

}  // namespace zl
