#include "services/stages/filed.h"

#include <algorithm>

#include "exchange/content.h"

namespace zl::services {

Evidence::Evidence() = default;
Evidence::Evidence(const Evidence&) = default;
Evidence::Evidence(Evidence&&) noexcept = default;
Evidence& Evidence::operator=(const Evidence&) = default;
Evidence& Evidence::operator=(Evidence&&) noexcept = default;
Evidence::~Evidence() = default;

std::string Evidence::recordSource(const std::string& member) const {
  const auto said = company.said.find(member);
  if (said == company.said.end()) return companySource;
  const RecordNote& note = said->second;
  return companySource + (note.reason.empty() ? "" : ": " + note.reason) + " (" + note.author + ", " +
         note.at.substr(0, 10) + ")";
}

FiledInMinor Evidence::asWritten(size_t fact) const {
  const auto minor = inMinor.find(fact);
  FiledInMinor written = minor != inMinor.end() ? minor->second : FiledInMinor{facts[fact].text, facts[fact].unit};
  if (facts[fact].nil) written.text = "nil";
  return written;
}

namespace {

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
  LineChoices given = evidence.choices;
  for (const auto& [concept_name, choice] : lines) given[concept_name] = choice;
  Standard standard = zl::standardise({evidence.facts, evidence.network, evidence.company, leavesConceptsOut(evidence)},
                                      resources.standard(), std::move(given), firstFiled);
  auto filed = std::make_shared<Standardised>();
  filed->choices = std::move(standard.choices);
  filed->restated = std::move(standard.restated);
  const auto all = std::make_shared<const StandardStatements>(std::move(standard.statements));
  filed->statements = baseYear > 0 ? all->upTo(baseYear) : *all;
  if (filed->statements.years().size() < all->years().size()) filed->ahead = all;
  return filed;
}

std::shared_ptr<const FilingReview> reviewFilings(const Evidence& evidence, const Resources& resources,
                                                  const Standardised& filed, const FiledChoices& own) {
  const StandardStatements& all = filed.ahead ? *filed.ahead : filed.statements;
  const std::span<const Fact> facts = filed.restated.empty() ? std::span<const Fact>(evidence.facts) : filed.restated;
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
