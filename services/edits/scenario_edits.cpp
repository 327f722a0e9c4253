#include "services/edits/scenario_edits.h"

#include <algorithm>
#include <cctype>

namespace zl::services {
namespace {

std::string labelOf(const Case& c, const std::string& id) {
  const Scenario* s = c.scenario(id);
  return s == nullptr ? id : s->label;
}

std::string freeId(const Case& c, const std::string& label) {
  std::string id;
  for (const char ch : label) {
    if (std::isalnum(static_cast<unsigned char>(ch)) != 0) {
      id += static_cast<char>(std::tolower(static_cast<unsigned char>(ch)));
    }
  }
  if (id.empty()) id = "scenario";
  std::string wanted = id;
  for (int n = 2; c.indexOf(wanted) >= 0; ++n) wanted = id + std::to_string(n);
  return wanted;
}

/// What base holds for a row that nobody has decided on: the model's preset.
Assumption presetPath(const model::Model& m, const std::string& row) {
  Path path;
  const model::RowId index = m.find(row);
  const auto& preset = !index.known() ? std::optional<model::Default>() : m[index].preset;
  if (preset && !preset->last) path.level = preset->level;
  return {path, {}};
}

/// A scenario's entries over base's.
template <class Entries>
Entries spelledOut(const Entries& base, const Entries& own) {
  Entries all = own;
  all.insert(base.begin(), base.end());
  return all;
}

template <class Entries>
void dropSame(const Entries& base, Entries& own) {
  std::erase_if(own, [&](const auto& entry) {
    const auto there = base.find(entry.first);
    return there != base.end() && there->second == entry.second;
  });
}

void copyOverBase(Case& next, const model::Model& m, const Scenario& from) {
  Scenario& base = *next.scenario(kBase);
  Scenario before = base;
  for (const auto& [row, a] : from.drivers) before.drivers.try_emplace(row, presetPath(m, row));
  for (const auto& [row, choice] : from.inputs) {
    const model::RowId index = m.find(row);
    const auto& preset = !index.known() ? std::optional<model::Default>() : m[index].preset;
    if (preset && preset->level) before.inputs.try_emplace(row, chosenFigure(m[index], *preset->level, {}));
  }
  base.drivers = spelledOut(before.drivers, from.drivers);
  base.inputs = spelledOut(before.inputs, from.inputs);
  for (auto& [row, a] : base.drivers) {
    // Base cannot follow itself: a path that followed it leaves base where it was.
    if (a.path.shape == Shape::Follow) a = before.drivers.at(row);
  }
  for (Scenario& s : next.scenarios) {
    if (s.id == kBase) continue;
    s.drivers = spelledOut(before.drivers, s.drivers);
    s.inputs = spelledOut(before.inputs, s.inputs);
    dropSame(base.drivers, s.drivers);
    dropSame(base.inputs, s.inputs);
  }
}

}  // namespace

CaseEdit addScenario(const Case& c, const std::string& label, const std::string& like) {
  CaseEdit edit{c, "Add the scenario " + label};
  const Scenario* from = c.scenario(like);
  Scenario fresh{freeId(c, label), label, 0, {}, {}};
  if (from != nullptr && like != kBase) {
    fresh.drivers = from->drivers;
    fresh.inputs = from->inputs;
  }
  edit.after.scenarios.push_back(std::move(fresh));
  return edit;
}

CaseEdit removeScenario(const Case& c, const std::string& id) {
  CaseEdit edit{c, "Remove the scenario " + labelOf(c, id)};
  if (id != kBase) std::erase_if(edit.after.scenarios, [&](const Scenario& s) { return s.id == id; });
  return edit;
}

CaseEdit renameScenario(const Case& c, const std::string& id, const std::string& label) {
  CaseEdit edit{c, "Call the scenario " + labelOf(c, id) + " " + label};
  if (Scenario* s = edit.after.scenario(id)) s->label = label;
  return edit;
}

CaseEdit copyScenario(const Case& c, const model::Model& m, const std::string& from, const std::string& to) {
  CaseEdit edit{c, "Copy " + labelOf(c, from) + " to " + labelOf(c, to)};
  const Scenario* source = c.scenario(from);
  Scenario* target = edit.after.scenario(to);
  if (source == nullptr || target == nullptr || from == to) return edit;
  if (to == kBase) {
    copyOverBase(edit.after, m, *source);
  } else {
    target->drivers = from == kBase ? std::map<std::string, Assumption>{} : source->drivers;
    target->inputs = from == kBase ? std::map<std::string, InputChoice>{} : source->inputs;
  }
  return edit;
}

CaseEdit swapScenarios(const Case& c, const std::string& a, const std::string& b) {
  CaseEdit edit{c, "Swap " + labelOf(c, a) + " and " + labelOf(c, b)};
  Scenario* first = edit.after.scenario(a);
  Scenario* second = edit.after.scenario(b);
  if (first == nullptr || second == nullptr || a == kBase || b == kBase) return edit;
  std::swap(first->drivers, second->drivers);
  std::swap(first->inputs, second->inputs);
  return edit;
}

CaseEdit resetScenario(const Case& c, const std::string& id) {
  CaseEdit edit{c, "Reset " + labelOf(c, id) + " to base"};
  Scenario* s = edit.after.scenario(id);
  if (s == nullptr || id == kBase) return edit;
  s->drivers.clear();
  s->inputs.clear();
  return edit;
}

}  // namespace zl::services
