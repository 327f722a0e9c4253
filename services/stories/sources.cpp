#include "services/stories/sources.h"

#include <fmt/core.h>

#include "core/quantity/number_text.h"
#include "services/views/history_figures.h"

namespace zl::services {
namespace {

std::string whoSaid(const Provenance& said, const std::string& scenario) {
  std::string text = "assumed in " + scenario;
  if (!said.author.empty()) text += " by " + said.author;
  if (!said.at.empty()) text += " on " + said.at.substr(0, 10);
  return text + (said.reason.empty() ? "; no reason given" : ": " + said.reason);
}

const model::Row& rowOf(const Snapshot& s, const TraceStep& step) {
  return s.evaluation->model()[step.self.cell.row];
}

}  // namespace

std::string factWords(const Snapshot& s, const LineCell::Part& part) {
  const Fact& f = s.evidence->facts[part.fact];
  const store::StoredDocument* d = s.document(f.document);
  const FiledInMinor written = s.evidence->asWritten(part.fact);
  if (!part.share.empty()) {
    return fmt::format("before {}, of which {} was taken out of it: {} {} for {}; {}, {}", f.concept_name.str(),
                       part.share, written.text, written.unit, f.period.text(), d == nullptr ? "?" : d->document.name,
                       f.place);
  }
  return fmt::format("{}{} = {} {} for {}; {}, {}", part.weight < 0 ? "less " : "", f.concept_name.str(), written.text,
                     written.unit, f.period.text(), d == nullptr ? "?" : d->document.name, f.place);
}

std::vector<std::string> sourceLines(const Snapshot& s, const TraceStep& step) {
  std::vector<std::string> lines;
  switch (step.source) {
    case TraceStep::Source::Filed:
      if (const auto& own = rowOf(s, step).fact; own && own->recorded) {
        lines.push_back("operating figure of the company record, '" + own->concept_name + "'; " +
                        s.evidence->companySource);
      }
      for (const LineCell::Part& part : step.facts) lines.push_back(factWords(s, part));
      for (std::string& line : besideFiled(s, step.self.cell.row, step.self.cell.column))
        lines.push_back(std::move(line));
      break;
    case TraceStep::Source::NoneReported:
      lines.emplace_back("no document reports this line; taken as none reported");
      for (std::string& line : besideFiled(s, step.self.cell.row, step.self.cell.column))
        lines.push_back(std::move(line));
      break;
    case TraceStep::Source::NotFiled:
      lines.emplace_back("no document reports this figure");
      break;
    case TraceStep::Source::Assumed:
      if (step.assumption != nullptr) {
        lines.push_back(fmt::format("path: {}", shapeWord(step.assumption->path.shape)));
        lines.push_back(whoSaid(step.assumption->said, step.inheritedFrom));
      } else {
        lines.push_back(whoSaid(step.choice->said, step.inheritedFrom));
      }
      break;
    case TraceStep::Source::Preset:
      lines.emplace_back("the model's preset; nobody has decided on it yet");
      break;
    case TraceStep::Source::Given: {
      const model::RowId row = step.self.cell.row;
      const auto given = s.givens.find(s.evaluation->model()[row].name);
      lines.push_back(given == s.givens.end() ? "not known" : given->second.source);
      break;
    }
    case TraceStep::Source::Derived:
      if (isOwnRow(s.evaluation->model(), rowOf(s, step))) {
        const auto own = s.caseOf().ownRows.find(s.caseOf().model);
        lines.push_back("by the own rows, " + whoSaid(own->second.said, "every scenario"));
      }
      break;
  }
  return lines;
}

}  // namespace zl::services
