#include "services/views/published.h"

#include <fmt/core.h>

#include <algorithm>

#include "exchange/json/reader.h"
#include "services/text/text_cells.h"
#include "services/views/driver_evidence.h"

namespace zl::services {
namespace {

void setChange(PublishedLine& line) {
  line.change = line.now - line.old;
  line.share = !isAmount(line.kind)      ? Figure::absent("the change says it")
               : line.old.valueOr(0) > 0 ? line.change / line.old
                                         : Figure::notMeaningful("what was published is not positive");
}

/// Base's figure of a row in a fiscal year, filed or forecast; absent beyond both ends.
Figure figureIn(const Snapshot& s, model::RowId row, int year) {
  const int column = s.evaluation->layout().baseColumn() + year - s.years().back().label();
  if (column < 0 || column >= s.evaluation->layout().columns()) return Figure::absent("the year is not projected");
  return s.evaluation->figure(row, column, std::max(0, s.caseOf().indexOf(kBase)));
}

Figure priceNow(const Snapshot& s) {
  return s.given(model::Role::Price).figure;
}

PublishedLine valueLine(const std::string& label, double old, const Figure& now) {
  PublishedLine line;
  line.label = label;
  line.kind = Kind::Quote;
  line.old = Figure::of(old);
  line.now = now;
  setChange(line);
  return line;
}

}  // namespace

CaseEdit publish(const Snapshot& s, const std::string& name, const Provenance& said) {
  CaseEdit edit{s.caseOf(), "Publish estimates '" + name + "'"};
  PublishedSet set;
  set.name = name;
  set.valuationDate = s.caseOf().valuationDate;
  set.said = said;
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  const model::Layout& layout = s.evaluation->layout();
  for (const model::ViewRow& shown : s.model().view("published")) {
    const model::RowId row = shown.row;
    const std::string& line = s.model()[row].name;
    for (int c = layout.historyYears; c < layout.columns(); ++c) {
      const Figure f = s.evaluation->figure(row, c, base);
      if (f.hasValue()) set.figures[line][s.years().back().label() + c - layout.baseColumn()] = f.value();
    }
  }
  for (const model::Method& method : s.model().methods) {
    const Figure value = s.evaluation->constant(method.value, base);
    if (value.hasValue()) set.methods[method.name] = value.value();
  }
  for (int i = 0; i < s.evaluation->scenarios(); ++i) {
    const Figure value = s.evaluation->constant(model::Role::ValuePerShare, i);
    if (value.hasValue()) set.values[s.caseOf().scenarios[static_cast<size_t>(i)].id] = value.value();
  }
  if (const Figure price = priceNow(s); price.hasValue()) set.price = price.value();
  edit.after.published.push_back(std::move(set));
  return edit;
}

CaseEdit withdraw(const Case& c, const std::string& name) {
  CaseEdit edit{c, "Withdraw the published estimates '" + name + "'"};
  std::erase_if(edit.after.published, [&](const PublishedSet& set) { return set.name == name; });
  return edit;
}

std::vector<PublishedLine> publishedBeside(const Snapshot& s, const std::string& name) {
  std::vector<PublishedLine> lines;
  const auto& sets = s.caseOf().published;
  const auto set = std::find_if(sets.begin(), sets.end(), [&](const PublishedSet& p) { return p.name == name; });
  if (set == sets.end()) return lines;
  for (const Scenario& scenario : s.caseOf().scenarios) {
    const auto old = set->values.find(scenario.id);
    if (old == set->values.end()) continue;
    lines.push_back(valueLine("Value per share, " + scenario.label, old->second,
                              s.evaluation->constant(model::Role::ValuePerShare, s.caseOf().indexOf(scenario.id))));
    lines.back().scenario = scenario.id;
  }
  for (const model::Method& method : s.model().methods) {
    const auto old = set->methods.find(method.name);
    if (old == set->methods.end()) continue;
    lines.push_back(valueLine(method.label, old->second,
                              s.evaluation->constant(method.value, std::max(0, s.caseOf().indexOf(kBase)))));
    lines.back().valueRow = s.model()[method.value].name;
  }
  if (set->price) lines.push_back(valueLine("Price", *set->price, priceNow(s)));
  const Consensus consensus = consensusOf(s);
  const Consensus guidance = consensusOf(s, EstimateBy::Company);
  const model::Model& m = s.evaluation->model();
  for (size_t r = 0; r < m.rows.size(); ++r) {
    const auto years = set->figures.find(m.rows[r].name);
    if (years == set->figures.end()) continue;
    for (const auto& [year, figure] : years->second) {
      PublishedLine line;
      line.row = m.rows[r].name;
      line.label = m.rows[r].label;
      line.kind = m.rows[r].kind;
      line.year = year;
      line.period = std::to_string(year) + (year > s.years().back().label() ? "E" : "");
      line.old = Figure::of(figure);
      line.now = figureIn(s, model::RowId(r), year);
      const int column = s.evaluation->layout().baseColumn() + year - s.years().back().label();
      if (s.evaluation->layout().isForecast(column) && column < s.evaluation->layout().columns()) {
        line.consensus = consensus.spread(model::RowId(r), column);
        line.guidance = guidance.spread(model::RowId(r), column);
      }
      setChange(line);
      lines.push_back(std::move(line));
    }
  }
  return lines;
}

namespace {

Json spreadJson(const Consensus::Spread& spread) {
  return {{"low", figureJson(spread.low)}, {"mean", figureJson(spread.mean)}, {"high", figureJson(spread.high)}};
}

}  // namespace

Json publishedJson(const Snapshot& s, const std::string& name) {
  Json list = Json::array();
  for (const PublishedLine& line : publishedBeside(s, name)) {
    Json json{{"label", line.label},
              {"old", figureJson(line.old)},
              {"now", figureJson(line.now)},
              {"change", figureJson(line.change)}};
    if (!line.row.empty()) {
      json["row"] = line.row;
      json["year"] = line.year;
      json["consensus"] = spreadJson(line.consensus);
      json["guidance"] = spreadJson(line.guidance);
    }
    list.push_back(std::move(json));
  }
  return list;
}

std::string publishedText(const Snapshot& s, const std::string& name) {
  std::string out = fmt::format("{:<48}{:>7}{:>12}{:>12}{:>12}{:>10}{:>12}{:>22}\n", name, "year", "published", "now",
                                "change", "%", "consensus", "guidance");
  for (const PublishedLine& line : publishedBeside(s, name)) {
    const std::string unit = unitText(line.kind, s.company().currency, s.company().listing.unit);
    std::string range;
    if (line.guidance.low.hasValue()) {
      range = shownOrDash(line.guidance.low, line.kind) + " to " + shownOrDash(line.guidance.high, line.kind);
    }
    out += fmt::format("{:<48}{:>7}{:>12}{:>12}{:>12}{:>10}{:>12}{:>22}\n",
                       line.label + (unit.empty() ? "" : ", " + unit), line.period, shownOrDash(line.old, line.kind),
                       shownOrDash(line.now, line.kind), shownOrDash(line.change, line.kind),
                       shownOrDash(line.share, Kind::Ratio), shownOrDash(line.consensus.mean, line.kind), range);
  }
  return out;
}

}  // namespace zl::services
