#include <fmt/core.h>

#include "core/quantity/number_text.h"
#include "exchange/json/reader.h"
#include "services/reports/report.h"
#include "services/text/text_cells.h"
#include "services/views/history_figures.h"
#include "services/views/ranked_findings.h"

namespace zl::services {
namespace {

const char* severityWord(Severity s) {
  switch (s) {
    case Severity::Note:
      return "note";
    case Severity::Warning:
      return "warning";
    case Severity::Fault:
      return "fault";
  }
  return "";
}

bool isYearly(const model::Row& row) {
  return row.timing != model::Timing::Constant;
}

std::string documentName(const Snapshot& s, const Fact& fact) {
  const store::StoredDocument* d = s.document(fact.document);
  return d == nullptr ? std::string("document not found") : d->document.name;
}

}  // namespace

Json statementsJson(const Snapshot& s, int scenario) {
  const Evaluation& e = *s.evaluation;
  Json periods = Json::array();
  for (int c = 0; c < e.layout().columns(); ++c) periods.push_back(s.periodOf(c));
  Json rows = Json::array();
  for (size_t r = 0; r < e.model().rows.size(); ++r) {
    const model::Row& row = e.model().rows[r];
    if (!isYearly(row)) continue;
    Json figures = Json::array();
    for (int c = 0; c < e.layout().columns(); ++c)
      figures.push_back(figureJson(e.figure(model::RowId(r), c, scenario)));
    rows.push_back({{"row", row.name},
                    {"label", row.label},
                    {"group", row.group},
                    {"kind", model::kindWord(row.kind)},
                    {"figures", std::move(figures)}});
  }
  return {{"company", s.company().id},
          {"scenario", s.caseOf().scenarios[static_cast<size_t>(scenario)].id},
          {"currency", s.company().currency},
          {"periods", std::move(periods)},
          {"rows", std::move(rows)}};
}

std::string statementsText(const Snapshot& s, int scenario) {
  const Evaluation& e = *s.evaluation;
  std::string out = "row,label,unit";
  for (int c = 0; c < e.layout().columns(); ++c) out += "," + s.periodOf(c);
  out += '\n';
  for (size_t r = 0; r < e.model().rows.size(); ++r) {
    const model::Row& row = e.model().rows[r];
    if (!isYearly(row)) continue;
    const bool money = row.kind == Kind::Money;
    out += fmt::format("{},{},{}", row.name, quotedCell(row.label),
                       money ? s.company().currency : model::kindWord(row.kind));
    for (int c = 0; c < e.layout().columns(); ++c) {
      const Figure f = e.figure(model::RowId(r), c, scenario);
      out += "," + (f.hasValue() ? plainNumber(f.value()) : std::string(f.isNotMeaningful() ? "nm" : ""));
    }
    out += '\n';
  }
  return out;
}

Json factsJson(const Snapshot& s) {
  Json list = Json::array();
  for (size_t i = 0; i < s.evidence->facts.size(); ++i) {
    const Fact& f = s.evidence->facts[i];
    const FiledInMinor written = s.evidence->asWritten(i);
    Json segments = Json::object();
    for (const Segment& g : f.segments) segments[g.axis] = g.member;
    Json fact{{"concept", f.concept_name},
              {"period", f.period.text()},
              {"unit", written.unit},
              {"value", f.nil ? Json() : Json(written.text)},
              {"document", documentName(s, f)},
              {"place", f.place},
              {"line", lineOf(*s.filed, *s.resources, f.concept_name)}};
    if (f.exact) {
      fact["decimals"] = "INF";
    } else if (f.decimals) {
      fact["decimals"] = *f.decimals;
    }
    if (!f.segments.empty()) fact["segments"] = std::move(segments);
    list.push_back(std::move(fact));
  }
  return list;
}

std::string factsText(const Snapshot& s) {
  std::string out = "concept,line,period,unit,value,segments,document,place\n";
  for (size_t i = 0; i < s.evidence->facts.size(); ++i) {
    const Fact& f = s.evidence->facts[i];
    const FiledInMinor written = s.evidence->asWritten(i);
    std::string segments;
    for (const Segment& g : f.segments) segments += (segments.empty() ? "" : " ") + g.axis + "=" + g.member;
    out += fmt::format("{},{},{},{},{},{},{},{}\n", csvCell(f.concept_name),
                       lineOf(*s.filed, *s.resources, f.concept_name), f.period.text(), csvCell(written.unit),
                       written.text, csvCell(segments), csvCell(documentName(s, f)), csvCell(f.place));
  }
  return out;
}

Json restatementsJson(const Snapshot& s) {
  Json list = Json::array();
  for (const Restatement& r : s.review->restatements) {
    const Fact& first = s.evidence->facts[r.first];
    const Fact& last = s.evidence->facts[r.last];
    const std::string line = lineOf(*s.filed, *s.resources, first.concept_name);
    list.push_back({{"concept", first.concept_name},
                    {"line", line},
                    {"period", first.period.text()},
                    {"unit", first.unit},
                    {"first", first.text},
                    {"first_document", documentName(s, first)},
                    {"last", last.text},
                    {"last_document", documentName(s, last)},
                    {"change", r.change},
                    {"in_use", usesFirstFiled(s.caseOf(), line) ? "first" : "last"}});
  }
  return list;
}

std::string restatementsText(const Snapshot& s) {
  std::string out = "concept,line,period,unit,first,first_document,last,last_document,change,in_use\n";
  for (const Json& r : restatementsJson(s)) {
    bool begun = false;
    for (const char* key : {"concept", "line", "period", "unit", "first", "first_document", "last", "last_document",
                            "change", "in_use"}) {
      out += (begun ? "," : "") + csvCell(r.at(key).get<std::string>());
      begun = true;
    }
    out += '\n';
  }
  return out;
}

Json reviewJson(const Snapshot& s) {
  Json list = Json::array();
  for (const QualityResult& r : qualityReview(s, Reading::Adjusted)) {
    const QualityTest& test = s.resources->tests[r.test];
    Json item{{"test", test.name},
              {"label", test.label},
              {"group", test.group},
              {"row", test.row},
              {"statistic", statisticWord(test.statistic)},
              {"years", r.count},
              {"figure", figureJson(r.figure)},
              {"wanted", test.atLeast ? "at least" : "at most"},
              {"threshold", r.threshold},
              {"holds", r.holds ? Json(*r.holds) : Json()}};
    if (const PeerSpread peers = peersBeside(s, test); peers.count > 0) {
      item["peers"] = {{"count", peers.count},
                       {"low", figureJson(peers.low)},
                       {"median", figureJson(peers.median)},
                       {"high", figureJson(peers.high)}};
    }
    if (!r.exempt.empty()) item["exempt"] = r.exempt;
    list.push_back(std::move(item));
  }
  return list;
}

std::string reviewText(const Snapshot& s) {
  std::string out = "group,test,row,statistic,years,figure,wanted,threshold,stands\n";
  for (const Json& r : reviewJson(s)) {
    const Json& figure = r.at("figure");
    const std::string stands = r.contains("exempt")        ? "exempt: " + r.at("exempt").get<std::string>()
                               : r.at("holds").is_null()   ? "no figure"
                               : r.at("holds").get<bool>() ? "holds"
                                                           : "look";
    out += fmt::format(
        "{},{},{},{},{},{},{},{},{}\n", csvCell(r.at("group").get<std::string>()),
        csvCell(r.at("label").get<std::string>()), r.at("row").get<std::string>(), r.at("statistic").get<std::string>(),
        r.at("years").get<int>(), figure.is_number() ? plainNumber(figure.get<double>()) : std::string("nm"),
        r.at("wanted").get<std::string>(), plainNumber(r.at("threshold").get<double>()), csvCell(stands));
  }
  return out;
}

Json findingsJson(const Snapshot& s) {
  Json list = Json::array();
  const RankedFindings ranked = rankedFindings(s);
  const auto add = [&](const RankedFinding& r, size_t at) {
    const Finding& f = s.findings()[at];
    Json item{{"monitor", f.monitor},
              {"severity", severityWord(f.severity)},
              {"stop", stopWord(f.stop)},
              {"text", s.textOf(f)}};
    if (!f.row.empty()) item["row"] = f.row;
    if (!f.scenario.empty()) item["scenario"] = f.scenario;
    if (f.column >= 0) item["period"] = s.periodOf(f.column);
    if (r.hasShare()) item["moves"] = r.share.value();
    if (!f.acknowledged.empty()) item["acknowledged"] = f.acknowledged;
    list.push_back(std::move(item));
  };
  for (const auto* part : {&ranked.shown, &ranked.folded}) {
    for (const RankedFinding& r : *part) {
      add(r, r.finding);
      for (const size_t alike : r.alike) add(r, alike);
    }
  }
  return list;
}

std::string findingsText(const Snapshot& s) {
  if (s.findings().empty()) return "no findings\n";
  const RankedFindings ranked = rankedFindings(s);
  std::string out;
  for (const RankedFinding& r : ranked.shown) {
    const Finding& f = s.findings()[r.finding];
    out += fmt::format("{:<8} {:<11} {}: {}{}\n", severityWord(f.severity), stopWord(f.stop), f.monitor, textOf(r, s),
                       f.acknowledged.empty() ? "" : "  (acknowledged: " + f.acknowledged + ")");
  }
  if (const std::string folded = foldedText(ranked, s); !folded.empty()) out += fmt::format("{:<20} {}\n", "", folded);
  return out;
}

}  // namespace zl::services
