#include "services/intake/judged.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/quantity/decimal.h"
#include "core/quantity/number_text.h"
#include "core/standard/scale_slip.h"

namespace zl::services {
namespace {

/// How the warning of a scale begins: it is made anew when a table is corrected.
constexpr const char* kOtherScale = "another scale? ";

std::set<std::string> scaledLines(const model::Model& m) {
  std::set<std::string> lines;
  for (const model::ViewRow& shown : m.view("scaled_lines")) {
    if (m[shown.row].kind == Kind::Money) lines.insert(m[shown.row].name);
  }
  return lines;
}

std::string slipText(const ScaleSlip& slip, const std::string& beside) {
  const char* times = std::abs(slip.decades) == 3 ? "1,000" : "1,000,000";
  return kOtherScale + std::to_string(slip.lines) + " of " + std::to_string(slip.of) + " lines are about " + times +
         (slip.decades > 0 ? " times" : " times less than") + " those of " + beside +
         ": look at the scale before it comes in";
}

constexpr int kGapPlaces = 3;  ///< of a million: small companies file thousands

/// A line for each tie that fails: its years, and by how much in the last of them.
std::vector<std::string> failingTexts(const std::vector<TieResult>& results, const std::vector<Tie>& ties,
                                      const std::vector<FiscalYear>& years) {
  std::map<size_t, std::vector<const TieResult*>> byTie;
  for (const TieResult& r : results) {
    if (r.state == TieResult::State::Fails) byTie[r.tie].push_back(&r);
  }
  std::vector<std::string> texts;
  for (const auto& [tie, failing] : byTie) {
    std::string in;
    for (const TieResult* r : failing) {
      in += (in.empty() ? "" : ", ") + std::to_string(years[static_cast<size_t>(r->column)].label());
    }
    const std::optional<Decimal> gap = Decimal::parse(failing.back()->gap);
    texts.push_back(ties[tie].label + " would fail in " + in + ", " +
                    (failing.size() > 1 ? "the last time by " : "by ") +
                    (gap ? groupedNumber(gap->toDouble() / 1e6, kGapPlaces) + " m" : failing.back()->gap));
  }
  return texts;
}

bool warnOfScale(ImportPreview& p, const StandardStatements& present, const std::string& currency,
                 const std::string& beside, const model::Model& m) {
  // Yen are not a hundred times too many dollars.
  if (!p.statements || mostUsedCurrency(p.incoming.facts) != currency) return false;
  const std::optional<ScaleSlip> slip = scaleSlip(*p.statements, present, scaledLines(m));
  if (slip) p.warnings.push_back(slipText(*slip, beside));
  return slip.has_value();
}

/// What only the statements together tell ("it moves as the cash flow statement says") is shown on its row.
void showWhatWasFound(ImportPreview& p, const LineChoices& choices, const LabelRules& labels) {
  for (SheetReading& s : p.readings) {
    for (TableLine& line : s.reading.lines) {
      const auto found = choices.find(line.concept_name);
      if (!s.included || found == choices.end() || line.choice.byHand || found->second.line == line.choice.line)
        continue;
      line.choice = found->second;
      line.match = TableLine::Match::Close;
      const LabelRule* rule = labels.of(line.choice.line);
      line.balance = rule == nullptr ? line.balance : rule->part == StatementPart::Balance;
    }
  }
}

}  // namespace

void judgeImport(ImportPreview& p, const LineChoices& choices, const Resources& resources) {
  p.failing.clear();
  p.holding = p.notHolding = 0;
  p.repair.reset();
  p.statements.reset();
  const std::vector<Fact>& facts = p.incoming.facts;
  Company company;
  company.currency = mostUsedCurrency(facts);
  if (company.currency.empty() || facts.size() > kMostJudged) return;
  static const ConceptNetwork kNone;
  const ConceptNetwork& network = p.network ? *p.network : kNone;
  const bool leftOut = p.kind == exchange::ContentKind::CompanyFacts;
  Standard standard = standardise({facts, network, company, leftOut}, resources.standard(), choices);
  showWhatWasFound(p, standard.choices, resources.labels);
  // A movement may have reasons that no line tells: it is a question of the filed years, not of the reading.
  std::vector<Tie> ties = resources.ties;
  std::erase_if(ties, [](const Tie& tie) { return tie.roll; });
  const std::vector<TieResult> results = checkTies(ties, standard.statements, facts);
  for (const TieResult& r : results) {
    p.holding += r.state == TieResult::State::Ties ? 1 : 0;
    p.notHolding += r.state == TieResult::State::Fails ? 1 : 0;
  }
  p.failing = failingTexts(results, ties, standard.statements.years());
  p.repair = bestRepair(ties, standard.statements, facts, standard.choices, resources.placing(),
                        [&](const LineChoices& changed) {
                          return StandardStatements::build(facts, resources.rules, company.currency, changed)
                              .shaped(resources.shapes, facts, leftOut);
                        });
  p.statements = std::make_shared<const StandardStatements>(std::move(standard.statements));
}

void holdScale(ImportPreview& p, const ImportContext& context) {
  std::erase_if(p.warnings, [](const std::string& w) { return w.starts_with(kOtherScale); });
  if (context.present) warnOfScale(p, *context.present, context.hints.currency, "the book", context.resources->model);
}

void holdScales(std::vector<ImportPreview>& previews, const ImportContext& context) {
  for (size_t i = 0; i < previews.size(); ++i) {
    holdScale(previews[i], context);
    if (context.present) continue;
    // Nothing in the book to hold it against: what comes in with it.
    for (size_t before = 0; before < i; ++before) {
      const ImportPreview& other = previews[before];
      if (!other.statements) continue;
      const std::string currency = mostUsedCurrency(other.incoming.facts);
      if (warnOfScale(previews[i], *other.statements, currency, other.name, context.resources->model)) break;
    }
  }
}

std::string repairText(const ImportPreview& p, const model::Model& m) {
  if (!p.repair) return {};
  const Repair& r = *p.repair;
  const auto labelOf = [&](const std::string& line) {
    const model::RowId row = m.find(line);
    return row.known() ? m[row].label : line;
  };
  std::string text = "'" + (r.label.empty() ? r.concept_name : r.label) + "'";
  if (r.choice.line.empty()) {
    text += " set aside";
  } else if (r.choice.line == r.before) {
    text += " turned round on " + labelOf(r.choice.line);
  } else {
    text += std::string(r.choice.weight < 0 ? " subtracted on " : " on ") + labelOf(r.choice.line);
  }
  if (!r.before.empty() && r.before != r.choice.line) text += " instead of " + labelOf(r.before);
  return text + " would mend " + std::to_string(r.mended) + (r.mended == 1 ? " tie" : " ties") +
         (r.failing > 0 ? ", " + std::to_string(r.failing) + " would still fail" : "");
}

Status takeRepair(ImportPreview& p, const ImportContext& context) {
  if (!p.repair) {
    return fail(ErrorKind::NotFound, "no single row explains a tie that fails", p.name,
                "Look at the figures of the tie, or move rows one by one");
  }
  const Repair repair = *p.repair;
  for (SheetReading& s : p.readings) {
    for (size_t i = 0; s.included && i < s.reading.lines.size(); ++i) {
      if (s.reading.lines[i].concept_name != repair.concept_name) continue;
      setLine(s.reading, i, repair.choice, context.resources->labels);
      return applyReadings(p, context);
    }
  }
  LineChoice& chosen = p.choices[repair.concept_name] = repair.choice;
  chosen.byHand = true;  // as a table's row that is mended: it holds for the filings that come later
  LineChoices choices = context.hints.remembered;
  for (const auto& [concept_name, choice] : p.choices) choices[concept_name] = choice;
  judgeImport(p, choices, *context.resources);
  return {};
}

}  // namespace zl::services
