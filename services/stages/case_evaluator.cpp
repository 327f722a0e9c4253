#include "services/stages/case_evaluator.h"

#include <algorithm>

#include "core/monitor/limits.h"
#include "core/monitor/market_monitors.h"
#include "exchange/json/case_members.h"
#include "services/stages/own_beta.h"
#include "services/stages/proposed.h"
#include "services/stages/snapshot.h"

namespace zl::services {
std::shared_ptr<CaseEvaluator> CaseEvaluator::upon(std::shared_ptr<const Resources> shipped) {
  return std::shared_ptr<CaseEvaluator>(new CaseEvaluator(std::move(shipped)));
}

Result<std::shared_ptr<const CaseEvaluator::ModelInUse>> CaseEvaluator::modelOf(const Case& c, Standing own) {
  const std::string& rows = ownRowsInUse(c);
  if (rows.size() > exchange::kLongestOwnRows) {
    return fail(ErrorKind::TooLarge, "own rows may hold 200,000 characters", c.company, "Shorten them");
  }
  std::shared_ptr<const ModelInUse> found =
      models_.find([&](const ModelKey& k) { return k.model == c.model && k.rows == rows && k.lines == c.ownLines; });
  if (!found) {
    auto made = std::make_shared<ModelInUse>();
    Result<std::shared_ptr<const Resources>> with = withOwn(shipped_, c);
    if (!with && !rows.empty()) {
      Case without = c;
      without.ownRows.erase(c.model);
      Result<std::shared_ptr<const Resources>> bare = withOwn(shipped_, without);
      if (bare) {
        made->fault = with.error();
        with = std::move(bare);
      }
    }
    if (!with) return tl::unexpected(with.error());
    made->resources = std::move(*with);
    models_.keep({c.model, c.ownLines, rows}, made);
    found = std::move(made);
  }
  if (found->fault && own == Standing::Typed) return tl::unexpected(*found->fault);
  return found;
}

std::shared_ptr<const Standardised> CaseEvaluator::filedFor(const std::shared_ptr<const Evidence>& evidence,
                                                            const Resources& resources,
                                                            const std::vector<OwnLine>& lines,
                                                            const FiledChoices& own) {
  const FactRows rows = factRowsOf(resources.model);
  std::shared_ptr<const Standardised> found = filed_.find([&](const FiledKey& k) {
    return k.evidence.lock() == evidence && k.own == own && k.lines == lines && k.rows == rows;
  });
  if (found) return found;
  found = standardise(*evidence, resources, own);
  filed_.keep({evidence, lines, rows, own}, found);
  return found;
}

std::shared_ptr<const Standardised> CaseEvaluator::filed(const std::shared_ptr<const Evidence>& evidence,
                                                         const FiledChoices& own) {
  return filedFor(evidence, *shipped_, {}, own);
}

Result<std::shared_ptr<const CompiledModel>> CaseEvaluator::programOf(const std::shared_ptr<const Resources>& resources,
                                                                      const model::Layout& layout) {
  if (auto found =
          programs_.find([&](const ProgramKey& k) { return k.resources == resources && k.layout == layout; })) {
    return found;
  }
  Result<std::shared_ptr<const CompiledModel>> made = compileModel(resources->model, layout);
  if (made) programs_.keep({resources, layout}, *made);
  return made;
}

std::shared_ptr<const FilingReview> CaseEvaluator::reviewOf(const Ground& ground, const Case& c) {
  std::shared_ptr<const FilingReview> found = reviews_.find(
      [&](const ReviewKey& k) { return k.filed == ground.filed && k.evidence.lock() == ground.evidence; });
  if (found) return found;
  found = reviewFilings(*ground.evidence, *ground.resources, *ground.filed, {c.lines, c.firstFiled, c.baseYear});
  reviews_.keep({ground.evidence, ground.filed}, found);
  return found;
}

std::shared_ptr<const ToldHistory> CaseEvaluator::historyOf(const std::shared_ptr<const Resources>& resources,
                                                            const std::shared_ptr<const Standardised>& filed,
                                                            const Case& c, const model::Layout& layout) {
  std::shared_ptr<const ToldHistory> found = histories_.find([&](const HistoryKey& k) {
    return k.resources == resources && k.filed == filed && k.layout == layout && k.inputs == c.base().inputs &&
           k.adjustments == c.adjustments;
  });
  if (found) return found;
  found = tellHistory(*resources, *filed, c, layout);
  histories_.keep({resources, filed, layout, c.base().inputs, c.adjustments}, found);
  return found;
}

Result<std::shared_ptr<const Ground>> CaseEvaluator::ground(const std::shared_ptr<const Evidence>& evidence,
                                                            const Case& c, Standing own) {
  Result<GroundOfCase> under = groundOf(evidence, c, own);
  if (!under) return tl::unexpected(under.error());
  return std::move(under->ground);
}

Result<CaseEvaluator::GroundOfCase> CaseEvaluator::groundOf(const std::shared_ptr<const Evidence>& evidence,
                                                            const Case& given, Standing own) {
  const Result<std::shared_ptr<const ModelInUse>> model = modelOf(given, own);
  if (!model) return tl::unexpected(model.error());
  auto ground = std::make_shared<Ground>();
  ground->resources = (*model)->resources;
  ground->ownRowsFault = (*model)->fault;
  ground->evidence = evidence;
  const std::string& name = evidence->company.name;
  ground->filed =
      filedFor(evidence, *ground->resources, given.ownLines, {given.lines, given.firstFiled, given.baseYear});
  Case c = withProposedInputs(given, *ground->resources, *evidence, ground->filed->statements);
  std::vector<std::string> faults = faultsOf(c, ground->resources->model);
  for (std::string& fault : faultsOfLimits(c)) faults.push_back(std::move(fault));
  if (!faults.empty()) return fail(ErrorKind::BadInput, faults.front(), name);
  if (ground->years().empty()) {
    return fail(ErrorKind::BadInput, "no full fiscal year has been filed", name, "Import at least one annual report");
  }
  if (const int last = ground->years().back().label(); c.baseYear > last) {
    return fail(
        ErrorKind::BadInput,
        "the outlook starts from " + std::to_string(c.baseYear) + " and the last year filed is " + std::to_string(last),
        name, "Import the annual report of that year first");
  }
  const model::Layout layout{static_cast<int>(ground->years().size()), c.horizon};
  Result<std::shared_ptr<const CompiledModel>> compiled = programOf(ground->resources, layout);
  if (!compiled) return tl::unexpected(compiled.error());
  ground->compiled = std::move(*compiled);
  ground->history = historyOf(ground->resources, ground->filed, c, layout);
  return GroundOfCase{std::move(ground), std::move(c)};
}

Result<Evaluated> CaseEvaluator::evaluate(const Sources& sources, const Case& c, Standing own) {
  Result<Prepared> prepared = prepare(sources, c, own);
  if (!prepared) return tl::unexpected(prepared.error());
  return evaluateOn(std::move(*prepared));
}

Result<Prepared> CaseEvaluator::prepare(const Sources& sources, const Case& c, Standing own) {
  Result<GroundOfCase> under = groundOf(sources.evidence, c, own);
  if (!under) return tl::unexpected(under.error());
  // Peers stand on the basis that is proposed for the subject.
  const std::shared_ptr<const Market> market = marketAt(sources.market, c.valuationDate);
  std::shared_ptr<const GivenFigures> given = givenOn(*under->ground, market, under->assumptions);
  return prepareOn(std::move(under->ground), market, std::move(given), std::move(under->assumptions));
}

/// Peers that are companies of the book stand at their close of the valuation date.
std::shared_ptr<const Market> CaseEvaluator::marketAt(const std::shared_ptr<const Market>& market, Date day) {
  const bool moves = std::any_of(market->peers.begin(), market->peers.end(), [&](const Peer& peer) {
    const auto* close = lastClose(peer, day);
    return !peer.closes.empty() && peer.priceDate != (close != nullptr ? close->first : day);
  });
  if (!moves) return market;
  std::shared_ptr<const Market> found =
      markets_.find([&](const MarketKey& k) { return k.market.lock() == market && k.day == day; });
  if (found) return found;
  auto priced = std::make_shared<Market>(*market);
  for (Peer& peer : priced->peers) priceAt(peer, day);
  markets_.keep({market, day}, priced);
  return priced;
}

std::shared_ptr<const GivenFigures> CaseEvaluator::givenOn(const Ground& ground,
                                                           const std::shared_ptr<const Market>& market, const Case& c) {
  GivenKey key{ground.compiled, ground.evidence, ground.history, market, givenChoicesOf(ground.compiled->model, c)};
  std::shared_ptr<const GivenFigures> found = givens_.find([&](const GivenKey& k) {
    return k.compiled == key.compiled && k.evidence.lock() == ground.evidence && k.history == key.history &&
           k.market.lock() == market && k.choices == key.choices;
  });
  if (found) return found;
  found = std::make_shared<const GivenFigures>(givenFigures(ground, *market, key.choices));
  givens_.keep(std::move(key), found);
  return found;
}

std::shared_ptr<const OwnBeta> CaseEvaluator::plainBeta(const Snapshot& s) {
  const Date day = s.caseOf().valuationDate;
  std::shared_ptr<const OwnBeta> found = betas_.find([&](const BetaKey& k) {
    return k.evidence.lock() == s.evidence && k.market.lock() == s.market && k.valuationDate == day;
  });
  if (found) return found;
  found = std::make_shared<const OwnBeta>(ownBeta(s, {}));
  betas_.keep({s.evidence, s.market, day}, found);
  return found;
}

std::shared_ptr<const MarketFindings> CaseEvaluator::marketFindings(const Snapshot& s) {
  const Case& c = s.caseOf();
  std::shared_ptr<const MarketFindings> found = marketFindings_.find(
      [&](const MarketFindingsKey& k) { return k.given == s.givenFigures && k.limits == c.limits; });
  if (found) return found;
  found = std::make_shared<const MarketFindings>(
      monitorMarket({s.model(), *s.history, s.evaluation->layout().baseColumn(), c, s.crossCheck, s.market->peers,
                     spotRatesAt(s.market->rates, c.valuationDate), s.market->prices, s.market->rates,
                     s.market->estimates, s.company().currency}));
  marketFindings_.keep({s.givenFigures, c.limits}, found);
  return found;
}

std::vector<OnOtherModel> CaseEvaluator::onOtherModels(const Sources& sources, const Case& c) {
  std::vector<OnOtherModel> others;
  if (c.indexOf(kBase) < 0) return others;
  Case other = c;
  other.scenarios = {c.base()};
  for (const ShippedModel& shipped : shipped_->models) {
    if (shipped.name == c.model) continue;
    other.model = shipped.name;
    // A case that this model refuses says nothing of its value.
    const Result<Prepared> prepared = prepare(sources, other, Standing::StoodBefore);
    if (!prepared) continue;
    const Ground& ground = *prepared->ground;
    others.push_back(onOtherModel(shipped.title, {*ground.compiled, *ground.history->adjusted, prepared->assumptions,
                                                  prepared->assumptions.base(), prepared->given->plain}));
  }
  return others;
}

Result<std::shared_ptr<const Snapshot>> CaseEvaluator::show(const Sources& sources, const Case& c, Standing own) {
  Result<Evaluated> evaluated = evaluate(sources, c, own);
  if (!evaluated) return tl::unexpected(evaluated.error());
  std::shared_ptr<const FilingReview> review = reviewOf(*evaluated->ground, c);
  return std::make_shared<const Snapshot>(shared_from_this(), std::move(*evaluated), std::move(review));
}

}  // namespace zl::services
