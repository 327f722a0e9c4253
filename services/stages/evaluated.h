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

/// What no scenario assumes: of the market, the record, the calendar and the peers. No driver and no input moves it but
/// those that choose the basis of measures.
struct GivenFigures {
  CrossCheck crossCheck;                      ///< of peers: its statistics are givens of the model
  std::map<std::string, GivenFigure> givens;  ///< by row
  Givens plain;                               ///< the same without their origins
  bool averageShares = false;                 ///< the count of shares now is the average over the last year
};

/// All that a GivenFigures is made from besides its ground and its market.
struct GivenChoices {
  Date valuationDate{};
  PriceChoice price;
  std::map<std::string, PeerChoice> peers;
  std::string peerSet;
  std::optional<std::set<std::string>> members;  ///< of the set
  double scaleLimit = kScaleLimit;
  std::map<std::string, PartChoice> parts;
  MeasureBasis basis;
  bool proposes = false;
  std::set<int> exceptional;  ///< fiscal years that no mean takes in
  friend bool operator==(const GivenChoices&, const GivenChoices&) = default;
};

/// All that figures are computed from, with everything in the case that is proposed: for who needs a few of them.
struct Prepared {
  std::shared_ptr<const Ground> ground;
  std::shared_ptr<const Market> market;
  std::shared_ptr<const GivenFigures> given;
  Case assumptions;
};

struct Evaluated {
  std::shared_ptr<const Ground> ground;
  std::shared_ptr<const Market> market;
  std::shared_ptr<const GivenFigures> given;
  std::shared_ptr<const Evaluation> evaluation;

  [[nodiscard]] const Case& caseOf() const { return evaluation->caseOf(); }
};

/// The given that plays a role; absent where the model asks for none.
const GivenFigure& givenOf(const model::Model& m, const std::map<std::string, GivenFigure>& givens, model::Role role);

/// The basis that the base scenario's choices stand for.
MeasureBasis basisOf(const model::Model& m, const Case& c);

/// Of a case whose proposals for the basis stand in it.
GivenChoices givenChoicesOf(const model::Model& m, const Case& c);

/// Peers' multiples beside a company's, with the choices and the basis of a case; not where their revenue is from.
CrossCheck comparePeers(const Ground& ground, const Market& market, const GivenChoices& choices);

GivenFigures givenFigures(const Ground& ground, const Market& market, const GivenChoices& choices);

/// Upon givens that were made from the same ground, market and choices.
Prepared prepareOn(std::shared_ptr<const Ground> ground, std::shared_ptr<const Market> market,
                   std::shared_ptr<const GivenFigures> given, Case c);
Evaluated evaluateOn(Prepared prepared);
Evaluated evaluateOn(std::shared_ptr<const Ground> ground, std::shared_ptr<const Market> market, const Case& c);

}  // namespace zl::services
