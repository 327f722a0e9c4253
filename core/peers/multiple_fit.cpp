#include "core/peers/multiple_fit.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

namespace zl {
namespace {

constexpr int kTraits = 3;

bool counts(const FittedPeer& peer) {
  return peer.multiple.hasValue() &&
         std::all_of(peer.traits.begin(), peer.traits.end(), [](const Figure& f) { return f.hasValue(); });
}

void refuse(MultipleFit& fit, const std::string& why) {
  const Figure none = Figure::notMeaningful(why);
  fit.intercept = fit.rSquared = fit.adjusted = fit.standardError = fit.subjects = none;
  fit.slopes.fill(none);
  for (FittedPeer& peer : fit.peers) peer.fitted = peer.residual = none;
}

}  // namespace

MultipleFit fitMultiples(std::vector<FittedPeer> peers, const FitTraits& subject) {
  MultipleFit fit;
  fit.peers = std::move(peers);
  std::vector<FittedPeer*> in;
  for (FittedPeer& peer : fit.peers) {
    if (counts(peer)) in.push_back(&peer);
  }
  const auto n = static_cast<Eigen::Index>(in.size());
  fit.count = static_cast<int>(n);
  if (n < kFewestToFit) {
    refuse(fit, std::to_string(n) + " peers have the multiple, growth, margin and return; a fit takes " +
                    std::to_string(kFewestToFit));
    return fit;
  }
  Eigen::MatrixXd x(n, kTraits + 1);
  Eigen::VectorXd y(n);
  for (Eigen::Index i = 0; i < n; ++i) {
    const FittedPeer& peer = *in[static_cast<size_t>(i)];
    x(i, 0) = 1;
    for (int k = 0; k < kTraits; ++k) x(i, k + 1) = peer.traits[static_cast<size_t>(k)].value();
    y(i) = peer.multiple.value();
  }
  const Eigen::ColPivHouseholderQR<Eigen::MatrixXd> solver(x);
  if (solver.rank() < kTraits + 1) {
    refuse(fit, "growth, margin and return of the peers do not vary apart: no one fit is the best");
    return fit;
  }
  const Eigen::VectorXd slopes = solver.solve(y);
  const Eigen::VectorXd fitted = x * slopes;
  const double left = (y - fitted).squaredNorm();
  const double whole = (y.array() - y.mean()).matrix().squaredNorm();
  const auto freedom = static_cast<double>(n - kTraits - 1);
  fit.intercept = Figure::of(slopes(0));
  for (int k = 0; k < kTraits; ++k) fit.slopes[static_cast<size_t>(k)] = Figure::of(slopes(k + 1));
  const bool moves = whole > 1e-12 * std::max(1.0, y.squaredNorm());
  fit.rSquared = moves ? Figure::of(1 - left / whole) : Figure::notMeaningful("every peer has the same multiple");
  fit.adjusted = moves ? Figure::of(1 - left / freedom / (whole / static_cast<double>(n - 1))) : fit.rSquared;
  fit.standardError = Figure::of(std::sqrt(left / freedom));
  for (Eigen::Index i = 0; i < n; ++i) {
    in[static_cast<size_t>(i)]->fitted = Figure::of(fitted(i));
    in[static_cast<size_t>(i)]->residual = Figure::of(y(i) - fitted(i));
  }
  fit.subjects = fit.intercept;
  for (size_t k = 0; k < kTraits; ++k) fit.subjects = fit.subjects + fit.slopes[k] * subject[k];
  return fit;
}

}  // namespace zl
