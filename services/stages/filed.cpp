#include "services/stages/filed.h"

#include <algorithm>
#include <set>

#include "core/filing/fact_lines.h"
#include "core/filing/split.h"
#include "core/structure/concept_placing.h"
#include "exchange/content.h"

namespace zl::services {

Evidence::Evidence() = default;
Evidence::Evidence(const Evidence&) = default;
Evidence::Evidence(Evidence&&) noexcept = default;
Evidence& Evidence::operator=(const Evidence&) = default;
Evidence& Evidence::operator=(Evidence&&) noexcept = default;
Evidence::~Evidence() = default;

FiledInMinor Evidence::asWritten(size_t fact) const {
  const auto minor = inMinor.find(fact);
  FiledInMinor written = minor != inMinor.end() ? minor->second : FiledInMinor{facts[fact].text, facts[fact].unit};
  if (facts[fact].nil) written.text = "nil";
  return written;
}

FactRows factRowsOf(const model::Model& m) {
  FactRows rows;
  for (const model::Row& row : m.rows) {
    if (row.fact) rows[row.name] = {*row.fact, row.kind};
  }
  return rows;
}

namespace {

StandardStatements withFactRows(const StandardStatements& statements, std::span<const Fact> facts,
                                const model::Model& m, const Company& company) {
  std::map<std::string, std::vector<LineCell>> lines;
  std::set<std::string> concepts;
  for (const auto& [name, row] : factRowsOf(m)) {
    const auto& [source, kind] = row;
    lines[name] = source.recorded ? recordedLine(company, statements.years(), source.concept_name)
                                  : factLine(facts, statements.years(), source, kind, company.currency);
    if (!source.recorded && source.axis.empty()) concepts.insert(source.concept_name);
  }
  return lines.empty() ? statements : statements.withLines(std::move(lines), concepts);
}

/// Facts gathered by the concepts of public taxonomies hold no concept of the filer's own.
bool leavesConceptsOut(const Evidence& evidence) {
  return std::any_of(evidence.documents.begin(), evidence.documents.end(), [](const store::StoredDocument& d) {
    return d.active && d.document.kind == exchange::contentKindText(exchange::ContentKind::CompanyFacts);
  });
}

}  // namespace

std::shared_ptr<const Standardised> standardise(const Evidence& evidence, const Resources& resources,
                                                const FiledChoices& own) {
  const auto& [lines, firstFiled, baseYear] = own;
  auto filed = std::make_shared<Standardised>();
  filed->choices = evidence.choices;
  for (const auto& [concept_name, choice] : lines) filed->choices[concept_name] = choice;
  for (const auto& [concept_name, choice] :
       placeConcepts(evidence.facts, resources.rules, filed->choices, evidence.network, resources.placing(),
                     evidence.company.currency)) {
    filed->choices[concept_name] = choice;
  }
  for (const Fact& fact : evidence.facts) {
    if (isOfCover(fact.concept_name))
      filed->choices.try_emplace(fact.concept_name, LineChoice{"", 1, "of the cover page"});
    if (fact.unit.str().ends_with("/shares")) {
      filed->choices.try_emplace(fact.concept_name, LineChoice{"", 1, "an amount per share"});
    }
  }
  const std::vector<Fact> restated = restatedForSplits(evidence.facts, evidence.company.splits);
  const std::span<const Fact> facts = restated.empty() ? std::span<const Fact>(evidence.facts) : restated;
  const auto all = std::make_shared<const StandardStatements>(withFactRows(
      StandardStatements::build(facts, resources.rules, evidence.company.currency, filed->choices, firstFiled)
          .shaped(resources.shapes, facts, leavesConceptsOut(evidence)),
      facts, resources.model, evidence.company));
  filed->statements = baseYear > 0 ? all->upTo(baseYear) : *all;
  if (filed->statements.years().size() < all->years().size()) filed->ahead = all;
  return filed;
}

std::shared_ptr<const FilingReview> reviewFilings(const Evidence& evidence, const Resources& resources,
                                                  const Standardised& filed, const FiledChoices& own) {
  const StandardStatements& all = filed.ahead ? *filed.ahead : filed.statements;
  const std::vector<Fact> restated = restatedForSplits(evidence.facts, evidence.company.splits);
  const std::span<const Fact> facts = restated.empty() ? std::span<const Fact>(evidence.facts) : restated;
  auto review = std::make_shared<FilingReview>();
  review->restatements = restatements(evidence.facts);
  review->interim = std::make_shared<const InterimStatements>(
      InterimStatements::build(facts, resources.rules, evidence.company.currency, filed.choices, own.firstFiled,
                               filed.statements, resources.shapes));
  // What was filed since is tied at once, though nothing stands on it yet.
  review->ties = checkTies(resources.ties, all, evidence.facts);
  DocumentNames names;
  for (const store::StoredDocument& d : evidence.documents) names[d.document.id] = d.document.name;
  review->segments = segmentRows(evidence.facts, filed.statements.years(), [&](const std::string& concept_name) {
    return zl::lineOf(resources.rules, filed.choices, concept_name);
  });
  review->segmentSums = checkSegmentSums(review->segments, evidence.facts, filed.statements.years());
  review->findings =
      monitorFilings(resources.model, all, evidence.facts, resources.ties, review->ties, review->segmentSums, names);
  const int inUse = static_cast<int>(filed.statements.years().size());
  std::erase_if(review->ties, [&](const TieResult& tie) { return tie.column >= inUse; });
  for (Finding& finding : review->findings) {
    if (finding.column >= inUse) finding.column = -1;
  }
  if (!review->restatements.empty()) {
    const Fact& newest = evidence.facts[review->restatements.front().last];
    const size_t count = review->restatements.size();
    review->findings.push_back({"restated values in use", Severity::Note, Stop::Filings,
                                std::to_string(count) + (count == 1 ? " figure differs" : " figures differ") +
                                    " from what was first filed; the latest is " + newest.concept_name.str() + " for " +
                                    newest.period.text(),
                                "", -1});
  }
  if (filed.ahead) {
    const std::string last = std::to_string(all.years().back().label());
    review->findings.push_back({"newer year filed", Severity::Warning, Stop::Outlook,
                                last + " is filed and the outlook still starts from " + std::to_string(own.baseYear) +
                                    ": compare it with the forecast, then roll forward",
                                "", -1});
  }
  if (!evidence.inMinor.empty()) {
    const FiledInMinor& first = evidence.inMinor.begin()->second;
    review->findings.push_back({"minor units", Severity::Note, Stop::Filings,
                                std::to_string(evidence.inMinor.size()) + " facts are filed in a minor unit (" +
                                    first.unit + ") and read in its currency",
                                "", -1});
  }
  return review;
}

std::string lineOf(const Standardised& filed, const Resources& resources, const std::string& concept_name) {
  return zl::lineOf(resources.rules, filed.choices, concept_name);
}

}  // namespace zl::services
