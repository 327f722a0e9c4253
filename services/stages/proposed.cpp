#include "services/stages/proposed.h"

#include <cctype>
#include <cmath>
#include <string_view>

#include "core/proposal/propose.h"

namespace zl::services {
namespace {

/// Years that say nothing of an ordinary one: flagged, or not twelve months after the one before.
std::vector<bool> irregularYears(const Case& c, const std::vector<FiscalYear>& years) {
  std::vector<bool> irregular;
  for (size_t i = 0; i < years.size(); ++i) {
    const bool odd = i > 0 && !followsByAYear(years[i - 1].end, years[i].end);
    irregular.push_back(odd || c.exceptional.count(years[i].label()) > 0);
  }
  return irregular;
}

std::string lettersOf(std::string_view text) {
  std::string letters;
  for (const char c : text) {
    if (std::isalpha(static_cast<unsigned char>(c)) != 0) letters += static_cast<char>(std::tolower(c));
  }
  return letters;
}

double shareFiledAs(const StandardStatements& filed, const std::vector<Fact>& facts, const std::string& line,
                    const std::string& words) {
  if (filed.years().empty()) return 0;
  const std::string wanted = lettersOf(words);
  double whole = 0;
  double said = 0;
  for (const LineCell::Part& part : filed.at(line, static_cast<int>(filed.years().size()) - 1).parts) {
    const Fact& fact = facts.at(part.fact);
    const double amount = std::abs(fact.figure().valueOr(0));
    whole += amount;
    const bool says = lettersOf(fact.concept_name.str()).find(wanted) != std::string::npos ||
                      lettersOf(fact.label.str()).find(wanted) != std::string::npos;
    if (says) said += amount;
  }
  return whole > 0 ? said / whole : 0;
}

}  // namespace

Case withProposedInputs(Case given, const Resources& resources, const Evidence& evidence,
                        const StandardStatements& filed) {
  Case c = inputsAsPaths(std::move(given), resources.model);
  if (!c.proposes) return c;
  const model::HistoryTable none(
      resources.model, {1, c.horizon}, [](const std::string&, int) { return Figure::absent(); },
      [](model::RowId) { return Figure::absent(); });
  ProposalGround ground{resources.model,       none, {0}, {false}, evidence.company.currency, evidence.company.country,
                        resources.placeholders};
  ground.shareFiledAs = [&](const std::string& line, const std::string& words) {
    return shareFiledAs(filed, evidence.facts, line, words);
  };
  return proposedInputs(c, resources.proposals(), ground);
}

Case withProposals(Case c, const Ground& ground, const Market& market, const Givens& givens, const CrossCheck& peers) {
  if (!c.proposes) return c;
  const model::Model& m = ground.compiled->model;
  std::vector<int> years;
  for (const FiscalYear& year : ground.years()) years.push_back(year.label());
  const auto price = givens.find(m.nameOf(model::Role::Price));
  const std::shared_ptr<const Evidence>& evidence = ground.evidence;
  ProposalGround basis{m,
                       *ground.history->adjusted,
                       std::move(years),
                       irregularYears(c, ground.years()),
                       evidence->company.currency,
                       evidence->company.country,
                       ground.resources->placeholders};
  basis.priced = price != givens.end() && price->second.hasValue() && price->second.value() > 0;
  basis.shareFiledAs = [&](const std::string& line, const std::string& words) {
    return shareFiledAs(ground.filed->statements, evidence->facts, line, words);
  };
  basis.bookRate = [&](const std::string& name) -> std::optional<KnownRate> {
    const std::optional<MarketRate> found = rateAt(market.rates, name, c.valuationDate);
    if (!found) return std::nullopt;
    return KnownRate{found->figure, dateText(found->date) + ", " + found->source};
  };
  basis.peersMedian = [&](const std::string& multiple) {
    for (const auto& [which, statistics] : peers.statistics) {
      if (multipleName(which) == multiple && statistics.count > 0) return statistics.median;
    }
    return Figure::absent("no peer counts");
  };
  basis.probe = [&](const Case& filled, const std::vector<Variant>& variants, model::RowId wanted) {
    return probe({*ground.compiled, *ground.history->adjusted, filled, filled.base(), givens}, variants, wanted);
  };
  const std::vector<ProposalRule>& rules = ground.resources->proposals();
  return proposedScenarios(proposed(c, rules, basis), rules, basis);
}

}  // namespace zl::services
