#pragma once
// The way from what was filed to what is shown, in stages: filed, ground, evaluation, judgement. Each is
// a function of an explicit key and kept in a cache of its kind; nobody derives by hand what is still the
// same. In: evidence and a case. Out: as much as is asked for. Safe to call from several threads.

#include <memory>

#include "services/stages/evaluated.h"
#include "services/stages/stage_cache.h"

namespace zl::services {

struct Snapshot;
struct OwnBeta;

/// Own rows with a fault are refused when they are typed. Those that stood in the case before and fitted an
/// earlier model are kept, set aside and told of, so that the case still opens.
enum class Standing { Typed, StoodBefore };

class CaseEvaluator : public std::enable_shared_from_this<CaseEvaluator> {
 public:
  static std::shared_ptr<CaseEvaluator> upon(std::shared_ptr<const Resources> shipped);

  [[nodiscard]] const std::shared_ptr<const Resources>& shipped() const { return shipped_; }

  /// Facts on standard lines by what a case says of them; with the shipped model alone.
  std::shared_ptr<const Standardised> filed(const std::shared_ptr<const Evidence>& evidence, const FiledChoices& own);
  /// Fails when the case has faults, or the evidence has no full fiscal year to start from.
  Result<std::shared_ptr<const Ground>> ground(const std::shared_ptr<const Evidence>& evidence, const Case& c,
                                               Standing own = Standing::Typed);
  Result<Prepared> prepare(const Sources& sources, const Case& c, Standing own = Standing::Typed);
  Result<Evaluated> evaluate(const Sources& sources, const Case& c, Standing own = Standing::Typed);
  /// Base of the case upon each other model that ships and takes it.
  std::vector<OnOtherModel> onOtherModels(const Sources& sources, const Case& c);
  /// The subject's beta by the settings that nobody has chosen: no edit of a scenario moves it.
  std::shared_ptr<const OwnBeta> plainBeta(const Snapshot& s);
  /// What monitors find in what the market, the record and the peers say.
  std::shared_ptr<const MarketFindings> marketFindings(const Snapshot& s);
  /// Everything there is to show, but for the last stage: a snapshot is judged when its findings are asked for.
  Result<std::shared_ptr<const Snapshot>> show(const Sources& sources, const Case& c, Standing own = Standing::Typed);

 private:
  /// The model of a case: by its name, its own lines and its own rows.
  struct ModelKey {
    std::string model;
    std::vector<OwnLine> lines;
    std::string rows;
  };
  struct ModelInUse {
    std::shared_ptr<const Resources> resources;
    std::optional<Error> fault;  ///< of the own rows, which are not in use then
  };
  /// Evidence is held weakly: what nobody shows any more must not be kept by a cache.
  struct FiledKey {
    std::weak_ptr<const Evidence> evidence;
    std::vector<OwnLine> lines;
    FactRows rows;
    FiledChoices own;
  };
  /// Whose own choices made the statements is in them; minor units and documents are the evidence's.
  struct ReviewKey {
    std::weak_ptr<const Evidence> evidence;
    std::shared_ptr<const Standardised> filed;
  };
  struct ProgramKey {
    std::shared_ptr<const Resources> resources;
    model::Layout layout;
  };
  struct HistoryKey {
    std::shared_ptr<const Resources> resources;
    std::shared_ptr<const Standardised> filed;
    model::Layout layout;
    std::map<std::string, InputChoice> inputs;  ///< base's: the others share history
    std::map<CellOfLine, Adjustment> adjustments;
  };

  /// A history is of one way to put facts on lines.
  struct GivenKey {
    std::shared_ptr<const CompiledModel> compiled;
    std::weak_ptr<const Evidence> evidence;
    std::shared_ptr<const ToldHistory> history;
    std::weak_ptr<const Market> market;
    GivenChoices choices;
  };
  struct MarketKey {
    std::weak_ptr<const Market> market;
    Date day;
  };
  struct BetaKey {
    std::weak_ptr<const Evidence> evidence;
    std::weak_ptr<const Market> market;
    Date valuationDate;
  };
  /// Givens are of one market, one history and one valuation date.
  struct MarketFindingsKey {
    std::shared_ptr<const GivenFigures> given;
    std::map<std::string, double> limits;
  };

  struct GroundOfCase {
    std::shared_ptr<const Ground> ground;
    Case assumptions;  ///< with the inputs proposed that history rules read
  };

  explicit CaseEvaluator(std::shared_ptr<const Resources> shipped) : shipped_(std::move(shipped)) {}
  Result<GroundOfCase> groundOf(const std::shared_ptr<const Evidence>& evidence, const Case& c, Standing own);
  Result<std::shared_ptr<const ModelInUse>> modelOf(const Case& c, Standing own);
  std::shared_ptr<const Standardised> filedFor(const std::shared_ptr<const Evidence>& evidence,
                                               const Resources& resources, const std::vector<OwnLine>& lines,
                                               const FiledChoices& own);
  Result<std::shared_ptr<const CompiledModel>> programOf(const std::shared_ptr<const Resources>& resources,
                                                         const model::Layout& layout);
  std::shared_ptr<const FilingReview> reviewOf(const Ground& ground, const Case& c);
  std::shared_ptr<const ToldHistory> historyOf(const std::shared_ptr<const Resources>& resources,
                                               const std::shared_ptr<const Standardised>& filed, const Case& c,
                                               const model::Layout& layout);
  std::shared_ptr<const Market> marketAt(const std::shared_ptr<const Market>& market, Date day);
  std::shared_ptr<const GivenFigures> givenOn(const Ground& ground, const std::shared_ptr<const Market>& market,
                                              const Case& c);

  std::shared_ptr<const Resources> shipped_;
  StageCache<ModelKey, ModelInUse> models_{8};
  StageCache<FiledKey, Standardised> filed_{4};
  StageCache<ReviewKey, FilingReview> reviews_{4};
  StageCache<ProgramKey, CompiledModel> programs_{8};
  StageCache<HistoryKey, ToldHistory> histories_{8};
  StageCache<GivenKey, GivenFigures> givens_{8};
  StageCache<MarketKey, Market> markets_{4};
  StageCache<BetaKey, OwnBeta> betas_{4};
  StageCache<MarketFindingsKey, MarketFindings> marketFindings_{4};
};

}  // namespace zl::services
