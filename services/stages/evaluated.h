#pragma once
// The third stage: every row, year and scenario of a case upon its ground, with what the market, the
// record and the calendar give. Who needs values and no opinion on them stops here.

#include <map>
#include <memory>
#include <string>

#include "core/outlook/evaluation.h"
#include "core/peers/peer.h"
#include "services/stages/ground.h"

namespace zl::services {

/// A given with its origin, for traces.
struct GivenFigure {
  Figure figure;
  std::string source;
};

struct Evaluated {
  std::shared_ptr<const Ground> ground;
  std::shared_ptr<const Market> market;
  CrossCheck crossCheck;                      ///< of peers: its statistics are givens of the model
  std::map<std::string, GivenFigure> givens;  ///< by row
  bool averageShares = false;                 ///< the count of shares now is the average over the last year
  std::shared_ptr<const Evaluation> evaluation;

  [[nodiscard]] const Case& caseOf() const { return evaluation->caseOf(); }
};

/// The given that plays a role; absent where the model asks for none.
const GivenFigure& givenOf(const model::Model& m, const std::map<std::string, GivenFigure>& givens, model::Role role);

/// The basis that the base scenario's choices stand for.
MeasureBasis basisOf(const model::Model& m, const Case& c);

/// Peers' multiples beside a company's, with the choices and the basis of a case.
CrossCheck comparePeers(const Ground& ground, const Market& market, const Case& c);

Evaluated evaluateOn(std::shared_ptr<const Ground> ground, std::shared_ptr<const Market> market, const Case& c);

}  // namespace zl::services
