// The gap between two multiples shared out, and multiples fitted across peers: against closed forms and GSL.

#include <gsl/gsl_multifit.h>
#include <gtest/gtest.h>

#include <cmath>
#include <numeric>
#include <random>

#include "core/peers/difference.h"
#include "core/peers/multiple_fit.h"

namespace zl {
namespace {

MultipleGrounds grounds(double growth, double payout, double retaining, double risk) {
  return {Figure::of(growth), Figure::of(payout), Figure::of(retaining), Figure::of(risk)};
}

TEST(JustifiedMultiple, OneStageIsTheConstantGrowthModel) {
  // With growth at its lasting rate and the payout that its return leaves, P/E = payout / (k - g) (Gordon 1962).
  for (const double k : {0.07, 0.09, 0.14}) {
    const double g = 0.03, roe = 0.12, payout = 1 - g / roe;
    EXPECT_NEAR(justifiedForwardMultiple(grounds(g, payout, roe, k), g).value(), payout / (k - g), 1e-12) << k;
  }
}

TEST(JustifiedMultiple, HandWorked) {
  // g 10 %, payout 40 %, ROE 20 %, k 8 %, lasting 2 %: sum of 1.1^(t-1)/1.08^t for t = 1..5
  // = 0.925926 + 0.943073 + 0.960537 + 0.978325 + 0.996442 = 4.804303; 0.4 x it = 1.921721;
  // 1.1^4 = 1.4641, x 1.02 x 0.9 = 1.344044, / (0.06 x 1.08^5 = 0.0881597) = 15.245559.
  EXPECT_NEAR(justifiedForwardMultiple(grounds(0.10, 0.4, 0.2, 0.08), 0.02).value(), 17.167280, 2e-5);
  EXPECT_TRUE(justifiedForwardMultiple(grounds(0.1, 0.4, 0.2, 0.02), 0.02).isNotMeaningful());
  EXPECT_TRUE(justifiedForwardMultiple(grounds(0.1, 0.4, -0.1, 0.08), 0.02).isNotMeaningful());
}

TEST(MultipleGap, PartsAndTheRestAreTheWhole) {
  std::mt19937 random(3);
  std::uniform_real_distribution<double> unit(0, 1);
  const auto draw = [&] {
    return grounds(0.15 * unit(random), unit(random), 0.08 + 0.2 * unit(random), 0.06 + 0.06 * unit(random));
  };
  for (int i = 0; i < 200; ++i) {
    const MultipleGrounds here = draw(), there = draw();
    const MultipleGap gap =
        gapOf(Figure::of(5 + 20 * unit(random)), Figure::of(5 + 20 * unit(random)), here, there, 0.02);
    double sum = gap.unexplained.value();
    for (const Figure& part : gap.parts) sum += part.value();
    ASSERT_NEAR(sum, gap.whole.value(), 1e-12);
    // Seen from the other side every part has the other sign.
    const MultipleGap back = gapOf(Figure::of(1), Figure::of(1), there, here, 0.02);
    for (size_t k = 0; k < 4; ++k) ASSERT_NEAR(back.parts[k].value(), -gap.parts[k].value(), 1e-12) << k;
  }
}

TEST(MultipleGap, WhatIsTheSameTellsNothingAndOneDifferenceTellsAll) {
  const MultipleGrounds base = grounds(0.06, 0.5, 0.15, 0.09);
  for (size_t k = 0; k < 4; ++k) {
    MultipleGrounds other = base;
    Figure* const each[] = {&other.growth, &other.payout, &other.retaining, &other.risk};
    *each[k] = Figure::of(each[k]->value() * 1.1);
    const MultipleGap gap = gapOf(Figure::of(12), Figure::of(10), other, base, 0.02);
    const double whole = std::log(gap.justifiedHere.value() / gap.justifiedThere.value());
    for (size_t i = 0; i < 4; ++i) EXPECT_NEAR(gap.parts[i].value(), i == k ? whole : 0, 1e-12) << k << " " << i;
    EXPECT_NEAR(gap.unexplained.value(), std::log(1.2) - whole, 1e-12);
  }
}

TEST(MultipleGap, WhatPeersDoNotTellIsTheSubjectsOwnAndSaidSo) {
  const MultipleGrounds here = grounds(0.06, 0.5, 0.15, 0.09);
  MultipleGrounds there = grounds(0.03, 0.5, 0.15, 0.09);
  there.payout = Figure::absent("no peer's dividends are known");
  const MultipleGap gap = gapOf(Figure::of(12), Figure::of(10), here, there, 0.02);
  EXPECT_FALSE(gap.known[1]);
  EXPECT_EQ(gap.parts[1].value(), 0);
  EXPECT_GT(gap.parts[0].value(), 0);
  EXPECT_TRUE(gapOf(Figure::of(-1), Figure::of(10), here, there, 0.02).unexplained.isNotMeaningful());
  MultipleGrounds risky = there;
  risky.risk = Figure::of(0.01);
  EXPECT_TRUE(gapOf(Figure::of(12), Figure::of(10), here, risky, 0.02).parts[0].isNotMeaningful());
}

std::vector<FittedPeer> drawnPeers(int n, unsigned seed) {
  std::mt19937 random(seed);
  std::normal_distribution<double> noise(0, 1);
  std::vector<FittedPeer> peers;
  for (int i = 0; i < n; ++i) {
    FittedPeer peer;
    peer.id = peer.name = "p" + std::to_string(i);
    const double growth = 0.05 + 0.03 * noise(random), margin = 0.15 + 0.05 * noise(random),
                 roe = 0.12 + 0.04 * noise(random);
    peer.traits = {Figure::of(growth), Figure::of(margin), Figure::of(roe)};
    peer.multiple = Figure::of(4 + 60 * growth + 30 * margin + 10 * roe + noise(random));
    peers.push_back(std::move(peer));
  }
  return peers;
}

TEST(MultipleFit, AgreesWithAnotherLibrary) {
  for (const int n : {6, 9, 40}) {
    const std::vector<FittedPeer> peers = drawnPeers(n, static_cast<unsigned>(n));
    const auto rows = static_cast<size_t>(n);
    gsl_matrix* x = gsl_matrix_alloc(rows, 4);
    gsl_vector* y = gsl_vector_alloc(rows);
    gsl_vector* c = gsl_vector_alloc(4);
    gsl_matrix* cov = gsl_matrix_alloc(4, 4);
    for (size_t i = 0; i < rows; ++i) {
      gsl_matrix_set(x, i, 0, 1);
      for (size_t k = 0; k < 3; ++k) gsl_matrix_set(x, i, k + 1, peers[i].traits[k].value());
      gsl_vector_set(y, i, peers[i].multiple.value());
    }
    gsl_multifit_linear_workspace* work = gsl_multifit_linear_alloc(rows, 4);
    double squares = 0;
    gsl_multifit_linear(x, y, c, cov, &squares, work);
    const MultipleFit fit = fitMultiples(peers, {Figure::of(0.04), Figure::of(0.2), Figure::of(0.1)});
    EXPECT_EQ(fit.count, n);
    EXPECT_NEAR(fit.intercept.value(), gsl_vector_get(c, 0), 1e-8);
    for (size_t k = 0; k < 3; ++k) EXPECT_NEAR(fit.slopes[k].value(), gsl_vector_get(c, k + 1), 1e-7) << k;
    EXPECT_NEAR(fit.standardError.value(), std::sqrt(squares / (n - 4)), 1e-9);
    EXPECT_NEAR(
        fit.subjects.value(),
        gsl_vector_get(c, 0) + 0.04 * gsl_vector_get(c, 1) + 0.2 * gsl_vector_get(c, 2) + 0.1 * gsl_vector_get(c, 3),
        1e-8);
    double whole = 0, mean = 0;
    for (const FittedPeer& peer : peers) mean += peer.multiple.value() / n;
    for (const FittedPeer& peer : peers) whole += (peer.multiple.value() - mean) * (peer.multiple.value() - mean);
    EXPECT_NEAR(fit.rSquared.value(), 1 - squares / whole, 1e-9);
    EXPECT_NEAR(fit.adjusted.value(), 1 - squares / (n - 4) / (whole / (n - 1)), 1e-9);
    double residuals = 0;
    for (const FittedPeer& peer : fit.peers) residuals += peer.residual.value();
    EXPECT_NEAR(residuals, 0, 1e-9);
    gsl_multifit_linear_free(work);
    gsl_matrix_free(x);
    gsl_matrix_free(cov);
    gsl_vector_free(y);
    gsl_vector_free(c);
  }
}

TEST(MultipleFit, WhoLacksATraitIsLeftOutAndStays) {
  std::vector<FittedPeer> peers = drawnPeers(8, 5);
  const MultipleFit before = fitMultiples(peers, {});
  FittedPeer odd = peers.front();
  odd.id = "odd";
  odd.multiple = Figure::of(900);
  odd.traits[1] = Figure::absent("no margin");
  peers.insert(peers.begin() + 3, odd);
  const MultipleFit after = fitMultiples(peers, {});
  EXPECT_EQ(after.count, 8);
  EXPECT_EQ(after.intercept, before.intercept);
  EXPECT_TRUE(after.peers[3].residual.isAbsent());
  EXPECT_TRUE(after.subjects.isAbsent()) << "the subject has no traits";
}

TEST(MultipleFit, SaysWhyThereIsNone) {
  EXPECT_NE(fitMultiples(drawnPeers(5, 1), {}).intercept.reason().find("5 peers"), std::string::npos);
  std::vector<FittedPeer> flat = drawnPeers(9, 1);
  for (FittedPeer& peer : flat) peer.traits[2] = Figure::of(2) * peer.traits[1];
  EXPECT_TRUE(fitMultiples(flat, {}).slopes[0].isNotMeaningful());
  std::vector<FittedPeer> same = drawnPeers(9, 1);
  for (FittedPeer& peer : same) peer.multiple = Figure::of(10);
  EXPECT_TRUE(fitMultiples(same, {}).rSquared.isNotMeaningful());
}

}  // namespace
}  // namespace zl
