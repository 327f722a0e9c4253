#include "services/snapshot.h"

#include <set>

#include "core/filing/fact_lines.h"
#include "core/filing/split.h"
#include "core/monitor/limits.h"
#include "core/quantity/number_text.h"
#include "exchange/json/case_members.h"

namespace zl::services {
namespace {

using GivenMap = std::map<std::string, GivenFigure>;

void giveMarket(const Evidence& e, Date date, GivenMap& givens) {
  const Listing& listing = e.company.listing;
  if (const std::optional<PricePoint> close = closeAt(e.prices, date)) {
    givens["price"] = {Figure::of(close->close), "close of " + dateText(close->date) + ", " + listing.unit};
  } else {
    givens["price"] = {Figure::absent("no price on or before " + dateText(date)), "price table"};
  }
  const Figure fx = spot(spotRatesAt(e.rates, date), e.company.currency, listing.currency);
  givens["quote_rate"] = {fx * Figure::of(listing.minorPerMajor) * Figure::of(listing.sharesPerListed),
                          "spot " + e.company.currency + "/" + listing.currency + " x " +
                              plainNumber(listing.minorPerMajor) + " " + listing.unit + " x " +
                              plainNumber(listing.sharesPerListed) + " shares per listed security"};
}

void giveRecord(const Evidence& e, GivenMap& givens) {
  const Company& c = e.company;
  const std::string& source = e.companySource;
  givens["shares_now"] = {c.shares > 0 ? Figure::of(c.shares) : Figure::absent("no share count"), source};
  givens["options"] = {Figure::of(c.options), source};
  givens["option_strike"] = {Figure::of(c.optionStrike), source};
  givens["unvested_shares"] = {Figure::of(c.unvestedShares), source};
  givens["convertible_shares"] = {Figure::of(c.convertibleShares), source};
  givens["convertible_face"] = {Figure::of(c.convertibleFace), source};
}

void giveStub(Date base, Date valuation, GivenMap& givens) {
  givens["base_fiscal_year"] = {Figure::of(yearOf(base)), "the last year that the outlook stands on"};
  const Date next = addYears(base, 1);
  const std::string source =
      "valuation date " + dateText(valuation) + " between " + dateText(base) + " and " + dateText(next);
  if (const std::optional<Stub> stub = stubFor(valuation, base, next)) {
    givens["stub"] = {Figure::of(stub->remaining), source};
  } else {
    givens["stub"] = {Figure::notMeaningful("the valuation date " + dateText(valuation) +
                                            " is not in the first forecast year; roll the model forward"),
                      source};
  }
}

/// What history rests on besides what was filed; it is the same for every scenario.
bool sameHistory(const Case& a, const Case& b) {
  return a.base().inputs == b.base().inputs && a.adjustments == b.adjustments;
}

/// Fills in the history as filed and as adjusted.
void tellHistory(Snapshot& s, const Case& c, const model::Layout& layout) {
  const model::Model& m = s.resources->model;
  const StandardStatements& statements = s.filed->statements;
  const auto assumed = [&](int row) { return assumedInput(m, c, row); };
  const auto filed = [&](const std::string& row, int column) { return statements.at(row, column).figure; };
  s.asFiled = std::make_shared<const model::HistoryTable>(m, layout, filed, assumed);
  const Figure tax = assumedInput(m, c, m.find("marginal_tax"));
  s.shifts = c.adjustments.empty() ? std::map<CellOfLine, Shift>{} : shiftsOf(c, s.resources->ties, tax.value());
  if (s.shifts.empty()) {
    s.history = s.asFiled;
    return;
  }
  const auto adjusted = [&](const std::string& row, int column) {
    const auto shift = s.shifts.find({row, statements.years()[static_cast<size_t>(column)].label()});
    const Figure figure = filed(row, column);
    return shift == s.shifts.end() ? figure : figure + Figure::of(shift->second.amount);
  };
  s.history = std::make_shared<const model::HistoryTable>(m, layout, adjusted, assumed);
}

Subject subjectOf(const Snapshot& s, int base) {
  const Evaluation& e = *s.evaluation;
  const int lane = e.caseOf().indexOf(kBase);
  Subject subject;
  subject.id = s.company().id;
  subject.currency = s.company().currency;
  subject.target = s.years().back().end;
  subject.revenue = e.figure("revenue", base, lane);
  subject.netIncome = e.figure("net_income_common", base, lane);
  subject.basis = basisOf(e.model(), e.caseOf());
  subject.ebitda = e.figure("basis_ebitda", base, lane);
  subject.dilutedShares = e.constant("diluted_shares", lane);
  subject.quoteRate = s.givens.at("quote_rate").figure;
  subject.claims =
      e.constant("net_debt_dated", lane) + e.constant("other_claims", lane) - e.figure("associates", base, lane);
  return subject;
}

}  // namespace

MeasureBasis basisOf(const model::Model& m, const Case& c) {
  const auto chosen = [&](const char* input) { return assumedInput(m, c, m.find(input)).value(); };
  return {chosen("leases_as_debt") == 1, chosen("stock_pay_as_cost") == 1, chosen("research_life") <= 0};
}

Figure assumedInput(const model::Model& m, const Case& c, int row) {
  const model::Row& r = m.rows[static_cast<size_t>(row)];
  if (const InputChoice* choice = c.input(c.base(), r.name)) return Figure::of(choice->figure);
  return r.preset && r.preset->level ? Figure::of(*r.preset->level) : Figure::absent(r.label + " has not been chosen");
}

FiledInMinor Evidence::asWritten(size_t fact) const {
  const auto minor = inMinor.find(fact);
  FiledInMinor written = minor != inMinor.end() ? minor->second : FiledInMinor{facts[fact].text, facts[fact].unit};
  if (facts[fact].nil) written.text = "nil";
  return written;
}

namespace {

/// The rows of a model that read filed facts by themselves.
std::map<std::string, std::pair<model::FactSource, Kind>> factRows(const model::Model& m) {
  std::map<std::string, std::pair<model::FactSource, Kind>> rows;
  for (const model::Row& row : m.rows) {
    if (row.fact) rows[row.name] = {*row.fact, row.kind};
  }
  return rows;
}

StandardStatements withFactRows(const StandardStatements& statements, std::span<const Fact> facts,
                                const model::Model& m, const Company& company) {
  std::map<std::string, std::vector<LineCell>> lines;
  std::set<std::string> concepts;
  for (const auto& [name, row] : factRows(m)) {
    const auto& [source, kind] = row;
    lines[name] = source.recorded ? recordedLine(company, statements.years(), source.concept_name)
                                  : factLine(facts, statements.years(), source, kind, company.currency);
    if (!source.recorded && source.axis.empty()) concepts.insert(source.concept_name);
  }
  return lines.empty() ? statements : statements.withLines(std::move(lines), concepts);
}

}  // namespace

std::shared_ptr<const Standardised> standardise(const Evidence& evidence, const Resources& resources,
                                                const LineChoices& own, const FirstFiled& firstFiled, int baseYear) {
  auto filed = std::make_shared<Standardised>();
  filed->choices = evidence.choices;
  for (const auto& [concept_name, choice] : own) filed->choices[concept_name] = choice;
  for (const auto& [concept_name, choice] :
       inferChoices(evidence.facts, resources.rules, filed->choices, evidence.network, resources.parts,
                    resources.labels, evidence.company.currency)) {
    filed->choices[concept_name] = choice;
  }
  const std::vector<Fact> restated = restatedForSplits(evidence.facts, evidence.company.splits);
  const std::span<const Fact> facts = restated.empty() ? std::span<const Fact>(evidence.facts) : restated;
  const auto all = std::make_shared<const StandardStatements>(withFactRows(
      StandardStatements::build(facts, resources.rules, evidence.company.currency, filed->choices, firstFiled), facts,
      resources.model, evidence.company));
  filed->statements = baseYear > 0 ? all->upTo(baseYear) : *all;
  if (filed->statements.years().size() < all->years().size()) filed->ahead = all;
  filed->restatements = restatements(evidence.facts);
  filed->interim = std::make_shared<const InterimStatements>(InterimStatements::build(
      facts, resources.rules, evidence.company.currency, filed->choices, firstFiled, filed->statements));
  // What was filed since is tied at once, though nothing stands on it yet.
  filed->ties = checkTies(resources.ties, *all, evidence.facts);
  DocumentNames names;
  for (const store::StoredDocument& d : evidence.documents) names[d.document.id] = d.document.name;
  filed->segments = segmentRows(evidence.facts, filed->statements.years(), [&](const std::string& concept_name) {
    return zl::lineOf(resources.rules, filed->choices, concept_name);
  });
  filed->segmentSums = checkSegmentSums(filed->segments, evidence.facts, filed->statements.years());
  filed->findings = monitorFilings(*all, evidence.facts, resources.ties, filed->ties, filed->segmentSums, names);
  const int inUse = static_cast<int>(filed->statements.years().size());
  std::erase_if(filed->ties, [&](const TieResult& tie) { return tie.column >= inUse; });
  for (Finding& finding : filed->findings) {
    if (finding.column >= inUse) finding.column = -1;
  }
  if (!filed->restatements.empty()) {
    const Fact& newest = evidence.facts[filed->restatements.front().last];
    const size_t count = filed->restatements.size();
    filed->findings.push_back({"restated values in use", Severity::Note, Stop::Filings,
                               std::to_string(count) + (count == 1 ? " figure differs" : " figures differ") +
                                   " from what was first filed; the latest is " + newest.concept_name.str() + " for " +
                                   newest.period.text(),
                               "", -1});
  }
  if (filed->ahead) {
    const std::string last = std::to_string(all->years().back().label());
    filed->findings.push_back({"newer year filed", Severity::Warning, Stop::Outlook,
                               last + " is filed and the outlook still starts from " + std::to_string(baseYear) +
                                   ": compare it with the forecast, then roll forward",
                               "", -1});
  }
  if (!evidence.inMinor.empty()) {
    const FiledInMinor& first = evidence.inMinor.begin()->second;
    filed->findings.push_back({"minor units", Severity::Note, Stop::Filings,
                               std::to_string(evidence.inMinor.size()) + " facts are filed in a minor unit (" +
                                   first.unit + ") and read in its currency",
                               "", -1});
  }
  return filed;
}

std::string lineOf(const Standardised& filed, const Resources& resources, const std::string& concept_name) {
  return zl::lineOf(resources.rules, filed.choices, concept_name);
}

std::string Snapshot::periodOf(int column) const {
  const int past = evaluation->layout().historyYears;
  if (column < past) return std::to_string(years()[static_cast<size_t>(column)].label());
  return std::to_string(years().back().label() + column - past + 1) + "E";
}

const store::StoredDocument* Snapshot::document(std::int64_t id) const {
  for (const store::StoredDocument& d : evidence->documents) {
    if (d.document.id == id) return &d;
  }
  return nullptr;
}

Result<std::shared_ptr<const Snapshot>> makeSnapshot(const std::shared_ptr<const Resources>& shipped,
                                                     std::shared_ptr<const Evidence> evidence, const Case& c,
                                                     const Snapshot* before) {
  const bool sameLines = before != nullptr && before->caseOf().ownLines == c.ownLines;
  const bool sameModel =
      sameLines && before->caseOf().model == c.model && ownRowsInUse(before->caseOf()) == ownRowsInUse(c);
  if (ownRowsInUse(c).size() > exchange::kLongestOwnRows) {
    return fail(ErrorKind::TooLarge, "own rows may hold 200,000 characters", evidence->company.name, "Shorten them");
  }
  std::shared_ptr<const Resources> resources = sameModel ? before->resources : nullptr;
  std::optional<Error> ownRowsFault;
  if (sameModel) ownRowsFault = before->ownRowsFault;
  if (!resources) {
    Result<std::shared_ptr<const Resources>> own = withOwn(shipped, c);
    const bool stoodBefore = before == nullptr || (before->ownRowsFault && before->caseOf().ownRows == c.ownRows);
    if (!own && stoodBefore && !ownRowsInUse(c).empty()) {
      ownRowsFault = own.error();
      Case without = c;
      without.ownRows.erase(c.model);
      own = withOwn(shipped, without);
    }
    if (!own) return tl::unexpected(own.error());
    resources = std::move(*own);
  }
  const model::Model& m = resources->model;
  std::vector<std::string> faults = faultsOf(c, m);
  for (std::string& fault : faultsOfLimits(c)) faults.push_back(std::move(fault));
  if (!faults.empty()) return fail(ErrorKind::BadInput, faults.front(), evidence->company.name);
  const bool sameEvidence = before != nullptr && before->evidence == evidence;
  const bool sameFacts = sameModel || (sameLines && factRows(before->resources->model) == factRows(m));
  const bool sameFiled = sameFacts && sameEvidence && before->caseOf().lines == c.lines &&
                         before->caseOf().firstFiled == c.firstFiled && before->caseOf().baseYear == c.baseYear;
  const std::shared_ptr<const Standardised> filed =
      sameFiled ? before->filed : standardise(*evidence, *resources, c.lines, c.firstFiled, c.baseYear);
  const std::vector<FiscalYear>& years = filed->statements.years();
  if (years.empty()) {
    return fail(ErrorKind::BadInput, "no full fiscal year has been filed", evidence->company.name,
                "Import at least one annual report");
  }
  if (c.baseYear > years.back().label()) {
    return fail(ErrorKind::BadInput,
                "the outlook starts from " + std::to_string(c.baseYear) + " and the last year filed is " +
                    std::to_string(years.back().label()),
                evidence->company.name, "Import the annual report of that year first");
  }
  auto s = std::make_shared<Snapshot>();
  const model::Layout layout{static_cast<int>(years.size()), c.horizon};
  const bool sameLayout = sameModel && sameFiled && before->caseOf().horizon == c.horizon;

  giveMarket(*evidence, c.valuationDate, s->givens);
  giveRecord(*evidence, s->givens);
  giveStub(years.back().end, c.valuationDate, s->givens);

  s->resources = std::move(resources);
  s->filed = filed;
  if (sameLayout && sameHistory(before->caseOf(), c)) {
    s->history = before->history;
    s->asFiled = before->asFiled;
    s->shifts = before->shifts;
  } else {
    tellHistory(*s, c, layout);
  }
  std::shared_ptr<const CompiledModel> compiled;
  if (sameLayout) {
    compiled = before->evaluation->compiled();
  } else {
    Result<std::shared_ptr<const CompiledModel>> fresh = compileModel(m, layout);
    if (!fresh) return tl::unexpected(fresh.error());
    compiled = *fresh;
  }
  Givens plain;
  for (const auto& [row, given] : s->givens) plain[row] = given.figure;
  s->evidence = std::move(evidence);
  s->evaluation = std::make_shared<const Evaluation>(compiled, s->history, c, plain);
  s->crossCheck = crossCheck(subjectOf(*s, layout.baseColumn()), s->evidence->peers,
                             spotRatesAt(s->evidence->rates, c.valuationDate), c.peers);
  s->findings = monitor({*s->evaluation, *s->history, s->years(), s->filed->findings, s->crossCheck,
                         s->evidence->prices, s->evidence->rates, s->evidence->estimates, s->company().currency});
  if (ownRowsFault) {
    s->findings.push_back({"own rows not in use", Severity::Fault, Stop::Outlook,
                           "The own rows are kept and not in use, they do not fit the model: " + ownRowsFault->text(),
                           "", -1});
  }
  s->ownRowsFault = std::move(ownRowsFault);
  return std::shared_ptr<const Snapshot>(std::move(s));
}

}  // namespace zl::services
