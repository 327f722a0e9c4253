#include <fmt/core.h>

#include "core/quantity/number_text.h"
#include "exchange/json/reader.h"
#include "services/history_figures.h"
#include "services/report.h"
#include "services/stories/story.h"

namespace zl::services {
namespace {

const char* sourceWord(TraceStep::Source source) {
  switch (source) {
    case TraceStep::Source::Derived:
      return "derived";
    case TraceStep::Source::Filed:
      return "filed";
    case TraceStep::Source::NoneReported:
      return "none reported";
    case TraceStep::Source::NotFiled:
      return "not filed";
    case TraceStep::Source::Assumed:
      return "assumed";
    case TraceStep::Source::Preset:
      return "preset";
    case TraceStep::Source::Given:
      return "given";
  }
  return "";
}

std::string titleOf(const TraceLink& link) {
  return link.label + (link.period.empty() ? "" : " " + link.period);
}

std::string whoSaid(const Provenance& said, const std::string& scenario) {
  std::string text = "assumed in " + scenario;
  if (!said.author.empty()) text += " by " + said.author;
  if (!said.at.empty()) text += " on " + said.at.substr(0, 10);
  return text + (said.reason.empty() ? "; no reason given" : ": " + said.reason);
}

const model::Row& rowOf(const Snapshot& s, const TraceStep& step) {
  return s.evaluation->model().rows[static_cast<size_t>(step.self.cell.row)];
}

}  // namespace

std::string factWords(const Snapshot& s, const LineCell::Part& part) {
  const Fact& f = s.evidence->facts[part.fact];
  const store::StoredDocument* d = s.document(f.document);
  const FiledInMinor written = s.evidence->asWritten(part.fact);
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
      const int row = step.self.cell.row;
      const auto given = s.givens.find(s.evaluation->model().rows[static_cast<size_t>(row)].name);
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

Json traceJson(const Snapshot& s, model::Cell cell, int scenario, int depth) {
  const TraceStep step = trace(*s.evaluation, s.filed->statements, cell, scenario);
  Json json{{"row", s.evaluation->model().rows[static_cast<size_t>(cell.row)].name},
            {"label", step.self.label},
            {"period", step.self.period},
            {"figure", figureJson(step.self.figure)},
            {"source", sourceWord(step.source)}};
  if (!step.formula.empty()) {
    json["formula"] = step.formula;
    json["with_values"] = step.formulaWithValues;
  }
  const std::vector<std::string> sources = sourceLines(s, step);
  if (!sources.empty()) json["from"] = sources;
  if (depth > 0 && !step.inputs.empty()) {
    Json inputs = Json::array();
    for (const TraceLink& link : step.inputs) inputs.push_back(traceJson(s, link.cell, scenario, depth - 1));
    json["inputs"] = std::move(inputs);
  }
  return json;
}

namespace {

void appendTrace(const Snapshot& s, model::Cell cell, int scenario, int depth, int indent, std::string& out) {
  const TraceStep step = trace(*s.evaluation, s.filed->statements, cell, scenario);
  const std::string margin(static_cast<size_t>(indent) * 2, ' ');
  out += fmt::format("{}{} = {}  [{}]\n", margin, titleOf(step.self), shownOrWhy(s, step.self.figure, step.self.kind),
                     sourceWord(step.source));
  if (!step.formula.empty()) {
    out += fmt::format("{}  rule   {}\n{}  values {}\n", margin, step.formula, margin, step.formulaWithValues);
  }
  for (const std::string& line : sourceLines(s, step)) out += fmt::format("{}  {}\n", margin, line);
  if (depth <= 0) return;
  for (const TraceLink& link : step.inputs) appendTrace(s, link.cell, scenario, depth - 1, indent + 1, out);
}

}  // namespace

std::string traceText(const Snapshot& s, model::Cell cell, int scenario, int depth) {
  std::string out;
  appendTrace(s, cell, scenario, depth, 0, out);
  return out;
}

}  // namespace zl::services
