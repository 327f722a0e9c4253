#include "services/stories/trace_text.h"

#include <fmt/core.h>

#include "core/quantity/number_text.h"
#include "exchange/json/reader.h"
#include "services/stories/sources.h"
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

}  // namespace

Json traceJson(const Snapshot& s, model::Cell cell, int scenario, int depth) {
  const TraceStep step = trace(*s.evaluation, s.filed->statements, cell, scenario);
  Json json{{"row", s.evaluation->model()[cell.row].name},
            {"label", step.self.label},
            {"period", step.self.period},
            {"figure", figureJson(step.self.figure)},
            {"source", sourceWord(step.source)}};
  if (!step.self.option.empty()) json["option"] = step.self.option;
  if (!step.formula.empty()) {
    json["formula"] = step.formula;
    json["in_words"] = step.formulaInWords;
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
  out += fmt::format("{}{} = {}  [{}]\n", margin, titleOf(step.self),
                     step.self.option.empty() ? shownOrWhy(s, step.self.figure, step.self.kind) : step.self.option,
                     sourceWord(step.source));
  if (!step.formula.empty()) {
    out += fmt::format("{0}  words  {1}\n{0}  rule   {2}\n{0}  values {3}\n", margin, step.formulaInWords, step.formula,
                       step.formulaWithValues);
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
