#include "core/proposal/proposal_rules.h"

#include <algorithm>
#include <charconv>
#include <optional>
#include <sstream>

#include "core/filing/rule_lines.h"

namespace zl {
namespace {

using RuleKind = ProposalRule::Kind;

/// What the words of a setting are.
enum class Words { Rows, Figures, Text, RowAndYear, RowAndOption };

struct SettingSpec {
  const char* name;
  Words words;
  size_t least = 1;
  size_t most = 1;
};

constexpr size_t kMany = 20;

struct KindSpec {
  RuleKind kind;
  const char* word;
  SettingSpec main;  ///< the words that follow the kind itself
  std::vector<SettingSpec> needed;
  std::vector<SettingSpec> optional;
};

const std::vector<KindSpec>& kinds() {
  static const SettingSpec kElseRate{"else_rate", Words::Text, 1, kMany};
  static const SettingSpec kElseLevel{"else_level", Words::Figures};
  static const SettingSpec kWithin{"within", Words::Figures, 2, 2};
  static const SettingSpec kTo{"to", Words::RowAndYear, 3, 3};
  static const SettingSpec kProfit{"profit", Words::Rows, 1, kMany};
  static const SettingSpec kOver{"over", Words::Figures};
  static const std::vector<KindSpec> kKinds{
      {RuleKind::Level, "level", {"level", Words::Figures}, {}, {}},
      {RuleKind::Rate, "rate", {"rate", Words::Text, 1, kMany}, {}, {}},
      {RuleKind::LowerRate, "lower_rate", {"lower_rate", Words::Text, 1, kMany}, {{"than", Words::Rows}}, {}},
      {RuleKind::CountryTax, "country_tax", {"country_tax", Words::Text, 0, 0}, {}, {{"filed", Words::Rows}}},
      {RuleKind::Median,
       "median",
       {"median", Words::Figures},
       {},
       {kWithin, kTo, {"less", Words::Rows}, kElseRate, kElseLevel}},
      {RuleKind::Growth,
       "growth",
       {"growth", Words::Rows},
       {{"years", Words::Figures}, {"longest", Words::Figures, 2, 2}, {"cap", Words::Figures}, kWithin, kTo},
       {}},
      {RuleKind::Margin, "margin", {"margin", Words::Rows}, {kProfit, kOver}, {}},
      {RuleKind::Costs,
       "costs",
       {"costs", Words::Rows},
       {kProfit,
        kOver,
        {"wear", Words::Rows},
        {"assets", Words::Rows, 1, kMany},
        {"invested", Words::Rows, 1, kMany},
        {"growth", Words::Rows}},
       {}},
      {RuleKind::Investment,
       "investment",
       {"investment", Words::Rows},
       {{"median", Words::Figures}, {"assets", Words::Rows, 1, kMany}, {"wear", Words::Rows}, {"growth", Words::Rows}},
       {}},
      {RuleKind::WithProfit,
       "with_profit",
       {"with_profit", Words::Rows},
       {{"growth", Words::Rows}, {"costs", Words::Rows, 1, kMany}},
       {}},
      {RuleKind::Multiple, "multiple", {"multiple", Words::Text}, {{"else", Words::Rows}}, {}},
      {RuleKind::FiledAs,
       "filed_as",
       {"filed_as", Words::Rows},
       {{"words", Words::Text, 1, kMany}, {"option", Words::Text}},
       {}},
      {RuleKind::Where, "where", {"where", Words::RowAndOption, 2, 2}, {{"option", Words::Text}}, {}},
      {RuleKind::Unpriced, "unpriced", {"unpriced", Words::Text}, {}, {}},
      {RuleKind::Apart,
       "apart",
       {"apart", Words::Rows, 0, 1},
       {},
       {{"fading", Words::Text, 0, 0}, {"profit", Words::Rows, 1, kMany}}},
      {RuleKind::DebtWeight, "debt_weight", {"debt_weight", Words::Rows, 1, kMany}, {{"value", Words::Rows}}, {}},
  };
  return kKinds;
}

const KindSpec& specOf(RuleKind kind) {
  return *std::find_if(kinds().begin(), kinds().end(), [&](const KindSpec& k) { return k.kind == kind; });
}

std::vector<const SettingSpec*> settingsOf(const KindSpec& kind) {
  std::vector<const SettingSpec*> all{&kind.main};
  for (const SettingSpec& s : kind.needed) all.push_back(&s);
  for (const SettingSpec& s : kind.optional) all.push_back(&s);
  return all;
}

std::optional<double> figureOf(std::string word) {
  const bool percent = word.ends_with('%');
  if (percent) word.pop_back();
  double figure = 0;
  const auto [end, code] = std::from_chars(word.data(), word.data() + word.size(), figure);
  if (code != std::errc() || end != word.data() + word.size()) return std::nullopt;
  return percent ? figure / 100 : figure;
}

std::string faultOf(const SettingSpec& spec, const std::vector<std::string>& words) {
  if (words.size() < spec.least || words.size() > spec.most) {
    return "'" + std::string(spec.name) + "' takes " + std::to_string(spec.least) +
           (spec.most == spec.least ? "" : " or more") + (spec.least == 1 ? " word" : " words");
  }
  if (spec.words == Words::RowAndYear && (words[1] != "by" || !figureOf(words[2]))) {
    return "'" + std::string(spec.name) + "' takes a row, 'by' and a year";
  }
  if (spec.words != Words::Figures) return {};
  for (const std::string& word : words) {
    if (!figureOf(word)) return "'" + word + "' is no figure";
  }
  return {};
}

}  // namespace

const std::vector<std::string>& ProposalRule::words(const std::string& setting) const {
  static const std::vector<std::string> kNone;
  const auto found = settings.find(setting);
  return found == settings.end() ? kNone : found->second;
}

double ProposalRule::number(const std::string& setting, double otherwise, size_t which) const {
  const std::vector<std::string>& all = words(setting);
  return which < all.size() ? figureOf(all[which]).value_or(otherwise) : otherwise;
}

Result<std::vector<ProposalRule>> parseProposalRules(std::string_view text, const std::string& source) {
  std::vector<ProposalRule> rules;
  RuleLines lines(text, source);
  while (lines.next()) {
    const auto refuse = [&](const std::string& what) { return fail(ErrorKind::BadInput, what, lines.where()); };
    const std::string line(lines.line());
    const size_t colon = line.find(':');
    if (colon == std::string::npos) return refuse("expected rows, a colon and a kind of proposal");
    ProposalRule rule;
    rule.where = lines.where();
    std::istringstream rows(line.substr(0, colon));
    for (std::string row; rows >> row;) rule.rows.push_back(row);
    if (rule.rows.empty()) return refuse("expected a row before the colon");
    std::istringstream parts(line.substr(colon + 1));
    const KindSpec* kind = nullptr;
    for (std::string part; std::getline(parts, part, ',');) {
      std::istringstream words(part);
      std::string name;
      if (!(words >> name)) return refuse("expected a setting between the commas");
      if (kind == nullptr) {
        const auto found =
            std::find_if(kinds().begin(), kinds().end(), [&](const KindSpec& k) { return k.word == name; });
        if (found == kinds().end()) return refuse("'" + name + "' is no kind of proposal");
        kind = &*found;
        rule.kind = kind->kind;
      }
      const std::vector<const SettingSpec*> known = settingsOf(*kind);
      const auto spec = std::find_if(known.begin(), known.end(), [&](const SettingSpec* s) { return s->name == name; });
      if (spec == known.end()) return refuse("'" + name + "' is no setting of '" + kind->word + "'");
      std::vector<std::string> values;
      for (std::string word; words >> word;) values.push_back(word);
      if (const std::string fault = faultOf(**spec, values); !fault.empty()) return refuse(fault);
      if (!rule.settings.emplace(name, std::move(values)).second) return refuse("'" + name + "' stands there twice");
    }
    if (kind == nullptr) return refuse("expected a kind of proposal after the colon");
    for (const SettingSpec& needed : kind->needed) {
      if (!rule.has(needed.name)) return refuse("'" + std::string(kind->word) + "' needs '" + needed.name + "'");
    }
    rules.push_back(std::move(rule));
  }
  return rules;
}

Status checkProposalRules(const std::vector<ProposalRule>& rules, const model::Model& m) {
  for (const ProposalRule& rule : rules) {
    const KindSpec& kind = specOf(rule.kind);
    std::vector<std::string> names;
    for (const SettingSpec* spec : settingsOf(kind)) {
      const std::vector<std::string>& words = rule.words(spec->name);
      if (spec->words == Words::Rows) names.insert(names.end(), words.begin(), words.end());
      const bool first = spec->words == Words::RowAndYear || spec->words == Words::RowAndOption;
      if (first && !words.empty()) names.push_back(words.front());
    }
    for (const std::string& name : rule.rows) {
      const model::RowId row = m.find(name);
      if (!row.known() || (m[row].declared != model::Declared::Driver && m[row].declared != model::Declared::Input)) {
        return fail(ErrorKind::BadInput, "'" + name + "' is no driver and no input of the model", rule.where);
      }
      const std::string option = rule.kind == RuleKind::Unpriced ? rule.words("unpriced").front()
                                 : rule.has("option")            ? rule.words("option").front()
                                                                 : std::string();
      if (!option.empty() && m[row].option(option) < 0) {
        std::string what = "'" + name;
        what.append("' has no option '").append(option).append("'");
        return fail(ErrorKind::BadInput, std::move(what), rule.where);
      }
    }
    for (const std::string& name : names) {
      if (m.find(name).known()) continue;
      return fail(ErrorKind::BadInput, "the model has no row '" + name + "'", rule.where);
    }
  }
  return {};
}

}  // namespace zl
