#include "core/outlook/case.h"

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <set>

#include "core/quantity/number_text.h"

namespace zl {

Case::Case() = default;
Case::Case(const Case&) = default;
Case::Case(Case&&) noexcept = default;
Case& Case::operator=(const Case&) = default;
Case& Case::operator=(Case&&) noexcept = default;
Case::~Case() = default;
bool operator==(const Case&, const Case&) = default;

const Scenario* Case::scenario(const std::string& id) const {
  const int index = indexOf(id);
  return index < 0 ? nullptr : &scenarios[static_cast<size_t>(index)];
}

Scenario* Case::scenario(const std::string& id) {
  const int index = indexOf(id);
  return index < 0 ? nullptr : &scenarios[static_cast<size_t>(index)];
}

int Case::indexOf(const std::string& id) const {
  for (size_t i = 0; i < scenarios.size(); ++i) {
    if (scenarios[i].id == id) return static_cast<int>(i);
  }
  return -1;
}

const Scenario& Case::base() const {
  const Scenario* found = scenario(kBase);
  if (found == nullptr) std::abort();  // faultsOf() refuses a case without base
  return *found;
}

const Assumption* Case::driver(const Scenario& s, const std::string& row) const {
  if (const auto own = s.drivers.find(row); own != s.drivers.end()) return &own->second;
  const Scenario& b = base();
  const auto shared = b.drivers.find(row);
  return shared == b.drivers.end() ? nullptr : &shared->second;
}

const InputChoice* Case::input(const Scenario& s, const std::string& row) const {
  if (const auto own = s.inputs.find(row); own != s.inputs.end()) return &own->second;
  const Scenario& b = base();
  const auto shared = b.inputs.find(row);
  return shared == b.inputs.end() ? nullptr : &shared->second;
}

InputChoice chosenFigure(const model::Row& input, double figure, Provenance said) {
  const auto number = static_cast<size_t>(std::max(0.0, figure));
  if (model::optionLabel(input, figure).empty()) return {figure, {}, std::move(said)};
  return {0, input.options[number].name, std::move(said)};
}

Figure figureOf(const model::Row& input, const InputChoice& choice) {
  if (choice.option.empty()) return Figure::of(choice.figure);
  const int option = input.option(choice.option);
  return option < 0 ? Figure::absent(input.label + " has no option '" + choice.option + "'") : Figure::of(option);
}

double probabilitySum(const Case& c) {
  double sum = 0;
  for (const Scenario& s : c.scenarios) sum += s.probability;
  return sum;
}

bool probabilitiesSumToOne(const Case& c) {
  constexpr double kRounding = 1e-9;
  return std::fabs(probabilitySum(c) - 1) <= kRounding;
}

const std::string& ownRowsInUse(const Case& c) {
  static const std::string kNone;
  const auto found = c.ownRows.find(c.model);
  return found == c.ownRows.end() ? kNone : found->second.text;
}

bool usesFirstFiled(const Case& c, const std::string& line) {
  return c.firstFiled.count(kEveryLine) > 0 || c.firstFiled.count(line) > 0;
}

Case newCase(const std::string& company, Date valuationDate) {
  Case c;
  c.company = company;
  c.valuationDate = valuationDate;
  c.scenarios = {{kWorst, "Worst", 0.25, {}, {}}, {kBase, "Base", 0.5, {}, {}}, {kBest, "Best", 0.25, {}, {}}};
  return c;
}

namespace {

class FaultFinder {
 public:
  FaultFinder(const Case& c, const model::Model& m) : case_(c), model_(m) {}

  std::vector<std::string> run() {
    if (case_.horizon < kShortestHorizon || case_.horizon > kLongestHorizon) {
      say("the horizon is " + std::to_string(case_.horizon) + " years; it can be 3 to 15");
    }
    checkStages();
    if (case_.price.stands == PriceChoice::Stands::Pinned &&
        !(case_.price.pinned > 0 && std::isfinite(case_.price.pinned)))
      say("the pinned price is " + plainNumber(case_.price.pinned) + "; it must be above nought");
    if (case_.scenario(kBase) == nullptr) say("there is no scenario 'base'");
    std::set<std::string> ids;
    for (const Scenario& s : case_.scenarios) {
      if (!ids.insert(s.id).second) say("two scenarios are called '" + s.id + "'");
      if (!(s.probability >= 0 && s.probability <= 1)) {
        say("the probability of " + s.label + " is " + plainNumber(s.probability) + "; it can be 0 to 1");
      }
      for (const auto& [row, a] : s.drivers) checkDriver(s, row, a);
      for (const auto& [row, choice] : s.inputs) checkInput(s, row, choice);
    }
    for (const auto& [concept_name, choice] : case_.lines) checkLine(concept_name, choice);
    for (const OwnLine& line : case_.ownLines) {
      if (!isFiled(line.name)) say("the own line '" + line.label + "' is not in the model");
    }
    for (const auto& [cell, adjustment] : case_.adjustments) checkAdjustment(cell, adjustment);
    for (const HistoryWindow& w : case_.windows) {
      if (w.to <= w.from) {
        say("the window " + std::to_string(w.from) + " to " + std::to_string(w.to) + " must end after it begins");
      }
    }
    for (const std::string& line : case_.firstFiled) {
      if (line != kEveryLine && !isFiled(line)) say("there is no standard line '" + line + "' to use as first filed");
    }
    std::set<std::string> published;
    for (const PublishedSet& set : case_.published) {
      if (set.name.empty()) say("published estimates need a name");
      if (!published.insert(set.name).second) say("there are published estimates called '" + set.name + "' already");
    }
    return std::move(faults_);
  }

 private:
  void say(std::string text) { faults_.push_back(std::move(text)); }

  void checkStages() {
    int sum = 0;
    for (const int length : case_.stages) {
      if (length < 1) say("a stage lasts " + std::to_string(length) + " years; it must last at least one");
      sum += length;
    }
    if (!case_.stages.empty() && sum != case_.horizon) {
      say("the stages last " + std::to_string(sum) + " years together; the horizon is " +
          std::to_string(case_.horizon));
    }
  }

  /// Null where the model in use has no such row.
  [[nodiscard]] const model::Row* find(const std::string& name, model::Declared role) const {
    const model::RowId index = model_.find(name);
    if (!index.known() || model_[index].declared != role) return nullptr;
    return &model_[index];
  }

  void checkRange(const Scenario& s, const model::Row& row, double x) {
    if (row.range && (x < row.range->low || x > row.range->high || !std::isfinite(x))) {
      say(row.label + " (" + s.label + "): " + plainNumber(x) + " is outside the allowed range " +
          plainNumber(row.range->low) + " to " + plainNumber(row.range->high));
    }
  }

  void checkDriver(const Scenario& s, const std::string& name, const Assumption& a) {
    const model::Row* row = find(name, model::Declared::Driver);
    // A path that rests must still be one when it is taken up again.
    if (const std::string fault = faultOf(a.path, case_.horizon, s.id == kBase); !fault.empty()) {
      say((row == nullptr ? name : row->label) + " (" + s.label + "): " + fault);
    }
    if (row == nullptr) return;
    if (a.path.level) checkRange(s, *row, *a.path.level);
    if (a.path.start) checkRange(s, *row, *a.path.start);
    if (a.path.shape == Shape::Cycle) return;  // those are deviations
    for (const std::optional<double>& x : a.path.typed) {
      if (x) checkRange(s, *row, *x);
    }
  }

  void checkInput(const Scenario& s, const std::string& name, const InputChoice& choice) {
    const model::Row* row = find(name, model::Declared::Input);
    if (row == nullptr) return;
    if (!row->isChoice()) {
      if (!choice.option.empty()) say(row->label + " (" + s.label + ") is a figure and has no options");
      checkRange(s, *row, choice.figure);
      return;
    }
    const bool known =
        choice.option.empty() ? !model::optionLabel(*row, choice.figure).empty() : row->option(choice.option) >= 0;
    if (known) return;
    std::string names;
    for (const model::Option& option : row->options) names += (names.empty() ? "" : ", ") + option.name;
    say(row->label + " (" + s.label + "): there is no option '" +
        (choice.option.empty() ? plainNumber(choice.figure) : choice.option) + "'; there are " + names);
  }

  [[nodiscard]] bool isFiled(const std::string& line) const {
    const model::RowId index = model_.find(line);
    return index.known() && model_[index].isStandardLine();
  }

  void checkLine(const std::string& concept_name, const LineChoice& choice) {
    if (!choice.line.empty() && !isFiled(choice.line)) {
      say("there is no standard line '" + choice.line + "' for " + concept_name);
    }
    if (choice.weight != 1 && choice.weight != -1) say("the weight of " + concept_name + " must be 1 or -1");
  }

  void checkAdjustment(const CellOfLine& cell, const Adjustment& adjustment) {
    const model::RowId index = model_.find(cell.first);
    const model::Row* row = !index.known() ? nullptr : &model_[index];
    if (row == nullptr || !row->isStandardLine() || row->kind != Kind::Money || row->timing != model::Timing::Flow) {
      say("'" + cell.first + "' cannot be adjusted: only filed flows of money can");
    } else if (!std::isfinite(adjustment.amount)) {
      say("the adjustment of " + row->label + " " + std::to_string(cell.second) + " is no number");
    }
  }

  const Case& case_;
  const model::Model& model_;
  std::vector<std::string> faults_;
};

}  // namespace

Case inputsAsPaths(Case c, const model::Model& m) {
  for (Scenario& scenario : c.scenarios) {
    for (auto input = scenario.inputs.begin(); input != scenario.inputs.end();) {
      const model::RowId row = m.find(input->first);
      if (!row.known() || m[row].declared != model::Declared::Driver || !input->second.option.empty()) {
        ++input;
        continue;
      }
      Assumption path;
      path.path.level = input->second.figure;
      path.said = input->second.said;
      scenario.drivers.emplace(input->first, std::move(path));
      input = scenario.inputs.erase(input);
    }
  }
  return c;
}

std::vector<std::string> faultsOf(const Case& c, const model::Model& m) {
  std::vector<std::string> faults = FaultFinder(c, m).run();
  for (const auto& [key, part] : c.parts) {
    constexpr double kMost = 1000;
    if (!(part.multiple > 0 && part.multiple <= kMost))
      faults.push_back("the multiple of the part '" + key + "' must lie above 0 and under 1,000");
  }
  if (!c.peerSet.empty() && c.peerSet.find(kOfAnother) == std::string::npos && c.peerSets.count(c.peerSet) == 0)
    faults.push_back("there is no set of peers '" + c.peerSet + "'");
  return faults;
}

}  // namespace zl
