#include "services/sessions/assumption_history.h"

#include "core/model/shown.h"

#include "core/outlook/path_words.h"
#include "core/quantity/number_text.h"
#include "exchange/json/case_json.h"

namespace zl::services {
namespace {

using exchange::Json;
using store::JournalEntry;

struct Held {
  std::string words;
  std::string reason;
  friend bool operator==(const Held&, const Held&) = default;
};

/// What the scenario itself says of the row in a case; without a row, its probability.
Held heldIn(const Case& c, const std::string& scenario, const model::Row* described) {
  const Scenario* s = c.scenario(scenario);
  if (s == nullptr) return {};
  if (described == nullptr) return {figureText(Figure::of(s->probability), Kind::Ratio) + " %", ""};
  const model::Row& row = *described;
  if (const auto driver = s->drivers.find(row.name); driver != s->drivers.end()) {
    return {pathWords(driver->second.path, row.kind), driver->second.said.reason};
  }
  const auto input = s->inputs.find(row.name);
  if (input == s->inputs.end()) return {};
  return {model::shownText(row, figureOf(row, input->second)), input->second.said.reason};
}

/// Whether a patch may touch what any scenario says of the row. Patches that move whole scenarios or
/// replace the document name no row.
bool mayTouch(const Json& patch, const std::string& row) {
  for (const Json& step : patch) {
    const std::string path = step.value("path", "");
    const bool scenarios = path.rfind("/scenarios", 0) == 0;
    const bool whole = path.empty() || (scenarios && path.find("/drivers/") == std::string::npos &&
                                        path.find("/inputs/") == std::string::npos);
    const bool named = path.find("/drivers/" + row) != std::string::npos ||
                       path.find("/inputs/" + row) != std::string::npos ||
                       (row == kProbability && path.ends_with("/probability"));
    if (whole || named) return true;
  }
  return false;
}

}  // namespace

Result<AssumptionHistory> historyOf(Session& session, const std::string& scenario, const std::string& row) {
  const model::Model& m = session.now()->evaluation->model();
  const model::RowId index = m.find(row);
  if (!index.known() && row != kProbability)
    return fail(ErrorKind::NotFound, "the model has no row '" + row + "'", session.companyId());
  const model::Row* described = !index.known() ? nullptr : &m[index];
  const Result<std::vector<JournalEntry>> journal = session.journal();
  if (!journal) return tl::unexpected(journal.error());
  AssumptionHistory told;
  Json now = exchange::toJson(session.now()->caseOf());
  Held held = heldIn(session.now()->caseOf(), scenario, described);
  for (auto entry = journal->rbegin(); entry != journal->rend(); ++entry) {
    if (entry->state != JournalEntry::State::Done) continue;
    const Result<Json> patch = exchange::parseJson(entry->backward, "journal");
    if (!patch) return tl::unexpected(patch.error());
    if (patch->empty()) continue;
    try {
      // All are taken back, in order: a patch fits only the text that it was made from.
      now.patch_inplace(*patch);
    } catch (const Json::exception&) {
      told.untoldBefore = entry->number;
      break;
    }
    if (!mayTouch(*patch, row)) continue;
    const Result<Case> before = exchange::caseFromJson(now, "journal");
    if (!before) {
      told.untoldBefore = entry->number;
      break;
    }
    const Held then = heldIn(*before, scenario, described);
    if (!(then == held)) {
      told.changes.push_back(
          {entry->number, entry->at, entry->author, entry->label, then.words, held.words, held.reason});
    }
    held = then;
  }
  return told;
}

std::string changeText(const AssumptionChange& change) {
  const auto held = [](const std::string& words) { return words.empty() ? std::string("nothing of its own") : words; };
  return held(change.from) + " -> " + held(change.to) + (change.reason.empty() ? "" : "  (" + change.reason + ")");
}

std::string untoldText(const AssumptionHistory& told) {
  if (told.untoldBefore == 0) return {};
  return "what came before entry " + std::to_string(told.untoldBefore) +
         " does not fit the case's present form and cannot be told";
}

}  // namespace zl::services
