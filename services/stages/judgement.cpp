#include "services/stages/judgement.h"

namespace zl::services {
namespace {

Subject subjectOf(const Evaluated& of) {
  const Evaluation& e = *of.evaluation;
  const Company& company = of.ground->evidence->company;
  const int lane = e.caseOf().indexOf(kBase);
  const int base = e.layout().baseColumn();
  Subject subject;
  subject.id = company.id;
  subject.currency = company.currency;
  subject.target = of.ground->years().back().end;
  subject.revenue = e.figure("revenue", base, lane);
  subject.netIncome = e.figure("net_income_common", base, lane);
  subject.basis = basisOf(e.model(), e.caseOf());
  subject.ebitda = e.figure("basis_ebitda", base, lane);
  subject.dilutedShares = e.constant("diluted_shares", lane);
  subject.quoteRate = of.givens.at("quote_rate").figure;
  subject.claims = e.constant("claims", lane);
  return subject;
}

}  // namespace

MeasureBasis basisOf(const model::Model& m, const Case& c) {
  const auto chosen = [&](const char* input) { return assumedInput(m, c, m.find(input)).value(); };
  return {chosen("leases_as_debt") == 1, chosen("stock_pay_as_cost") == 1, chosen("research_life") <= 0};
}

CrossCheck crossCheckOf(const Evaluated& e) {
  const Evidence& evidence = *e.ground->evidence;
  return crossCheck(subjectOf(e), evidence.peers, spotRatesAt(evidence.rates, e.caseOf().valuationDate),
                    e.caseOf().peers);
}

Judgement judge(const Evaluated& e, const FilingReview& review) {
  const Ground& ground = *e.ground;
  const Evidence& evidence = *ground.evidence;
  Judgement judgement;
  judgement.crossCheck = crossCheckOf(e);
  judgement.findings =
      monitor({*e.evaluation, *ground.history->adjusted, ground.years(), review.findings, judgement.crossCheck,
               evidence.prices, evidence.rates, evidence.estimates, evidence.company.currency});
  if (ground.ownRowsFault) {
    judgement.findings.push_back(
        {"own rows not in use", Severity::Fault, Stop::Outlook,
         "The own rows are kept and not in use, they do not fit the model: " + ground.ownRowsFault->text(), "", -1});
  }
  return judgement;
}

}  // namespace zl::services
