#include "services/edits/edits.h"

#include <algorithm>
#include <cmath>
#include <functional>

#include "services/text/label_word.h"

namespace zl::services {
namespace {

const std::string& rowLabel(const model::Model& m, const std::string& row) {
  const model::RowId index = m.find(row);
  return !index.known() ? row : m[index].label;
}

std::string inScenario(const Case& c, const std::string& id) {
  const Scenario* s = c.scenario(id);
  return " (" + (s == nullptr ? id : s->label) + ")";
}

/// Ids that the case does not have leave it unchanged; the caller names what exists.
CaseEdit changed(const Case& c, const std::string& scenario, std::string label,
                 const std::function<void(Case&, Scenario&)>& change) {
  CaseEdit edit{c, std::move(label) + inScenario(c, scenario)};
  if (Scenario* s = edit.after.scenario(scenario)) change(edit.after, *s);
  return edit;
}

}  // namespace

CaseEdit setDriver(const Case& c, const model::Model& m, const std::string& scenario, const std::string& row,
                   const Path& path, const Provenance& said) {
  return changed(c, scenario, "Set " + rowLabel(m, row), [&](Case& next, Scenario& s) {
    const auto base = next.base().drivers.find(row);
    const bool sameAsBase = scenario != kBase && base != next.base().drivers.end() && base->second.path == path;
    if (sameAsBase) {
      s.drivers.erase(row);
    } else {
      s.drivers[row] = {path, said};
    }
  });
}

CaseEdit typeDriverYears(const Case& c, const model::Model& m, const std::string& scenario, const std::string& row,
                         const std::vector<Figure>& current, const std::map<int, double>& typed, Provenance said) {
  Path path;
  path.shape = Shape::Typed;
  for (size_t year = 0; year < current.size(); ++year) {
    const auto own = typed.find(static_cast<int>(year));
    if (own != typed.end()) {
      path.typed.emplace_back(own->second);
    } else {
      path.typed.push_back(current[year].hasValue() ? std::optional(current[year].value()) : std::nullopt);
    }
  }
  if (said.reason.empty()) {
    if (const Scenario* s = c.scenario(scenario)) {
      const Assumption* before = c.driver(*s, row);
      if (before != nullptr && !before->said.isProposed()) said.reason = before->said.reason;
    }
  }
  return setDriver(c, m, scenario, row, path, said);
}

CaseEdit clearDriver(const Case& c, const model::Model& m, const std::string& scenario, const std::string& row) {
  return changed(c, scenario, "Reset " + rowLabel(m, row), [&](Case&, Scenario& s) {
    s.drivers.erase(row);
    s.inputs.erase(row);
  });
}

CaseEdit setReason(const Case& c, const model::Model& m, const std::string& scenario, const std::string& row,
                   const Provenance& said) {
  return changed(c, scenario, "Reason for " + rowLabel(m, row), [&](Case& next, Scenario& s) {
    if (s.drivers.count(row) > 0) {
      s.drivers[row].said = said;
    } else if (s.inputs.count(row) > 0) {
      s.inputs[row].said = said;
    } else if (const Assumption* inherited = next.driver(s, row)) {
      s.drivers[row] = {inherited->path, said};
    } else {
      s.drivers[row] = {Path{}, said};
    }
  });
}

CaseEdit setInput(const Case& c, const model::Model& m, const std::string& scenario, const std::string& row,
                  double figure, const Provenance& said) {
  const model::RowId index = m.find(row);
  return changed(c, scenario, "Set " + rowLabel(m, row), [&](Case& next, Scenario& s) {
    const model::Row none;
    const model::Row& input = !index.known() ? none : m[index];
    const auto base = next.base().inputs.find(row);
    const bool sameAsBase = scenario != kBase && base != next.base().inputs.end() &&
                            figureOf(input, base->second).valueOr(std::nan("")) == figure;
    if (sameAsBase) {
      s.inputs.erase(row);
    } else {
      s.inputs[row] = chosenFigure(input, figure, said);
    }
  });
}

CaseEdit setLevel(const Case& c, const model::Model& m, const std::string& scenario, const std::string& row,
                  double figure, const Provenance& said) {
  const model::RowId index = m.find(row);
  if (!index.known() || m[index].declared != model::Declared::Driver)
    return setInput(c, m, scenario, row, figure, said);
  Path path;
  path.level = figure;
  return setDriver(c, m, scenario, row, path, said);
}

CaseEdit setProbability(const Case& c, const std::string& scenario, double probability) {
  return changed(c, scenario, "Set probability", [&](Case&, Scenario& s) { s.probability = probability; });
}

CaseEdit setExceptional(const Case& c, int year, const std::optional<std::string>& reason) {
  CaseEdit edit{c, (reason ? "Flag " : "Unflag ") + std::to_string(year) + " as exceptional"};
  if (reason) {
    edit.after.exceptional[year] = *reason;
  } else {
    edit.after.exceptional.erase(year);
  }
  return edit;
}

CaseEdit setPeerChoice(const Case& c, const std::string& key, const std::string& label,
                       const std::optional<PeerChoice>& choice) {
  CaseEdit edit{c, label};
  if (choice) {
    edit.after.peers[key] = *choice;
  } else {
    edit.after.peers.erase(key);
  }
  return edit;
}

CaseEdit setLineChoice(const Case& c, const model::Model& m, const std::string& concept_name,
                       const std::optional<LineChoice>& choice) {
  CaseEdit edit{c, ""};
  if (choice) {
    edit.label = choice->line.empty() ? "Set " + concept_name + " aside"
                                      : "Put " + concept_name + " on " + rowLabel(m, choice->line);
    edit.after.lines[concept_name] = *choice;
  } else {
    edit.label = "Let the rules place " + concept_name;
    edit.after.lines.erase(concept_name);
  }
  return edit;
}

CaseEdit setFirstFiled(const Case& c, const model::Model& m, const std::string& line, bool first) {
  const std::string what = line == kEveryLine ? std::string("every line") : rowLabel(m, line);
  CaseEdit edit{c, "Use " + what + (first ? " as first filed" : " as last filed")};
  if (first) {
    edit.after.firstFiled.insert(line);
  } else {
    edit.after.firstFiled.erase(line);
  }
  return edit;
}

CaseEdit addOwnLine(const Case& c, const std::string& label, bool flow) {
  CaseEdit edit{c, "Add the line " + label};
  std::string name = "own_" + labelWord(label);
  const auto taken = [&](const std::string& candidate) {
    return std::any_of(c.ownLines.begin(), c.ownLines.end(), [&](const OwnLine& l) { return l.name == candidate; });
  };
  if (name == "own_") name += "line";  // a label without a Latin letter still needs a word
  std::string free = name;
  for (int number = 2; taken(free); ++number) free = name + "_" + std::to_string(number);
  edit.after.ownLines.push_back({free, label, flow});
  return edit;
}

CaseEdit dropOwnLine(const Case& c, const std::string& name) {
  CaseEdit edit{c, "Drop a line"};
  for (const OwnLine& line : c.ownLines) {
    if (line.name == name) edit.label = "Drop the line " + line.label;
  }
  Case& after = edit.after;
  std::erase_if(after.ownLines, [&](const OwnLine& l) { return l.name == name; });
  std::erase_if(after.lines, [&](const auto& choice) { return choice.second.line == name; });
  std::erase_if(after.adjustments, [&](const auto& a) { return a.first.first == name; });
  after.firstFiled.erase(name);
  after.notes.erase(name);
  return edit;
}

CaseEdit setAdjustment(const Case& c, const model::Model& m, const std::string& line, int year, double filed,
                       const std::optional<double>& figure, const Provenance& said) {
  const bool back = !figure || *figure == filed;
  CaseEdit edit{c,
                (back ? "Take back the adjustment of " : "Adjust ") + rowLabel(m, line) + " " + std::to_string(year)};
  if (back) {
    edit.after.adjustments.erase({line, year});
  } else {
    edit.after.adjustments[{line, year}] = {*figure - filed, said};
  }
  return edit;
}

CaseEdit keepWindow(const Case& c, const HistoryWindow& window) {
  CaseEdit edit = dropWindow(c, window.from, window.to);
  edit.label = "Keep the window " + std::to_string(window.from) + " to " + std::to_string(window.to);
  edit.after.windows.push_back(window);
  return edit;
}

CaseEdit dropWindow(const Case& c, int from, int to) {
  CaseEdit edit{c, "Drop the window " + std::to_string(from) + " to " + std::to_string(to)};
  std::erase_if(edit.after.windows, [&](const HistoryWindow& w) { return w.from == from && w.to == to; });
  return edit;
}

CaseEdit setTest(const Case& c, const std::string& test, const std::string& label,
                 const std::optional<TestChoice>& choice) {
  CaseEdit edit{c, choice ? "Set test " + label : "Test " + label + " as shipped"};
  if (choice) {
    edit.after.tests[test] = *choice;
  } else {
    edit.after.tests.erase(test);
  }
  return edit;
}

CaseEdit setHorizon(const Case& c, int years) {
  CaseEdit edit{c, "Set horizon to " + std::to_string(years) + " years"};
  edit.after.horizon = years;
  std::vector<int>& stages = edit.after.stages;
  if (!stages.empty()) {
    int left = years;
    for (int& length : stages) left -= (length = std::clamp(length, 0, std::max(0, left)));
    std::erase(stages, 0);
    if (!stages.empty()) stages.back() += left;
    if (stages.size() < 2) stages.clear();
  }
  // Years that no longer exist cannot be shaped; typed figures beyond the end are kept unseen.
  for (Scenario& s : edit.after.scenarios) {
    for (auto& [row, a] : s.drivers) {
      if (a.path.to > years) a.path.to = 0;
      a.path.from = std::min(a.path.from, a.path.shape == Shape::Glide ? years - 1 : years);
    }
  }
  return edit;
}

CaseEdit setStages(const Case& c, const std::vector<int>& lengths) {
  std::string words;
  for (const int length : lengths) words += (words.empty() ? "" : " + ") + std::to_string(length);
  CaseEdit edit{c, lengths.size() < 2 ? "One stage" : "Set stages to " + words + " years"};
  edit.after.stages = lengths.size() < 2 ? std::vector<int>{} : lengths;
  return edit;
}

CaseEdit acknowledge(const Case& c, const Finding& finding, const std::optional<Provenance>& said) {
  CaseEdit edit{c, (said ? "Acknowledge " : "Open again ") + finding.monitor};
  edit.after.acknowledged.erase(finding.oldKey());
  if (said) {
    edit.after.acknowledged[finding.key()] = *said;
  } else {
    edit.after.acknowledged.erase(finding.key());
  }
  return edit;
}

CaseEdit setLimit(const Case& c, const std::string& monitor, const std::optional<double>& limit) {
  CaseEdit edit{c, limit ? "Set the limit of '" + monitor + "'" : "Default limit of '" + monitor + "'"};
  if (limit) {
    edit.after.limits[monitor] = *limit;
  } else {
    edit.after.limits.erase(monitor);
  }
  return edit;
}

CaseEdit setValuationDate(const Case& c, Date date) {
  CaseEdit edit{c, "Set valuation date to " + dateText(date)};
  edit.after.valuationDate = date;
  return edit;
}

CaseEdit setPriceChoice(const Case& c, const PriceChoice& price) {
  const bool pinned = price.stands == PriceChoice::Stands::Pinned;
  const bool live = price.stands == PriceChoice::Stands::Live;
  CaseEdit edit{c, pinned ? "Pin the price"
                   : live ? "Stand on the latest price"
                          : "Stand on the valuation date's price"};
  edit.after.price = price;
  return edit;
}

CaseEdit setNote(const Case& c, const model::Model& m, const std::string& row, const std::string& text) {
  CaseEdit edit{c, "Note on " + rowLabel(m, row)};
  if (text.empty()) {
    edit.after.notes.erase(row);
  } else {
    edit.after.notes[row] = text;
  }
  return edit;
}

}  // namespace zl::services
