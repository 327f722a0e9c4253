#include "services/library/stored_case.h"

#include "exchange/json/case_json.h"

namespace zl::services {
namespace {

Case firstCase(const Sources& sources, const std::vector<FiscalYear>& years, Date today) {
  const std::vector<PricePoint>& prices = sources.market->prices;
  Date date = prices.empty() ? today : prices.back().date;
  if (!years.empty()) {
    const Date base = years.back().end;
    if (!valuationTime(date, base)) date = base;
  }
  Case c = newCase(sources.evidence->company.id, date);
  if (!years.empty()) c.baseYear = years.back().label();
  c.proposes = true;
  return c;
}

}  // namespace

void pinBaseYear(Case& c, const std::shared_ptr<const Evidence>& evidence, CaseEvaluator& evaluator) {
  if (c.baseYear != 0) return;
  const auto filed = evaluator.filed(evidence, {c.lines, c.firstFiled, 0});
  if (!filed->statements.years().empty()) c.baseYear = filed->statements.years().back().label();
}

Result<StoredCase> storedCase(const std::optional<std::string>& text, const Sources& sources, CaseEvaluator& evaluator,
                              Date today) {
  const std::shared_ptr<const Evidence>& evidence = sources.evidence;
  StoredCase stored;
  if (!text) {
    stored.theCase = firstCase(sources, evaluator.filed(evidence, {})->statements.years(), today);
    return stored;
  }
  const std::string where = "case of " + evidence->company.id;
  const Result<exchange::Json> json = exchange::parseJson(*text, where);
  if (!json) return tl::unexpected(json.error());
  const int newer = exchange::newerVersion(*json);
  if (newer != 0) {
    stored.newer = "a newer version of the program wrote this case (layout " + std::to_string(newer) +
                   "): it can be looked at and not changed";
  }
  Result<Case> read = newer == 0 ? exchange::caseFromJson(*json, where) : exchange::understoodCase(*json, where);
  if (!read) return tl::unexpected(read.error());
  stored.theCase = std::move(*read);
  pinBaseYear(stored.theCase, evidence, evaluator);
  return stored;
}

}  // namespace zl::services
