#include "core/filing/labels.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <set>
#include <sstream>

#include "core/filing/rule_lines.h"

namespace zl {
namespace {

std::set<std::string> wordsOf(const std::string& normalised) {
  std::set<std::string> words;
  std::istringstream in(normalised);
  for (std::string word; in >> word;) words.insert(word);
  return words;
}

/// Shared words over all words (Jaccard 1912).
double likeness(const std::set<std::string>& a, const std::set<std::string>& b) {
  size_t shared = 0;
  for (const std::string& word : a) shared += b.count(word);
  return static_cast<double>(shared) / static_cast<double>(a.size() + b.size() - shared);
}

constexpr double kNear = 0.6;

}  // namespace

std::string normalisedLabel(std::string_view given) {
  std::string label(given);
  for (const auto& [sign, plain] : std::initializer_list<std::pair<std::string_view, std::string_view>>{
           {"\xE2\x80\x99", "'"}, {"\xC2\xA0", " "}, {"\xE2\x80\x93", " "}, {"\xE2\x80\x94", " "}}) {
    for (size_t at = label.find(sign); at != std::string::npos; at = label.find(sign))
      label.replace(at, sign.size(), plain);
  }
  for (size_t i = 0; i + 1 < label.size(); ++i) {
    // Capitals of Latin-1, "Übrige": 32 places before their small letters in UTF-8 too.
    const auto second = static_cast<unsigned char>(label[i + 1]);
    if (label[i] == '\xC3' && second >= 0x80 && second <= 0x9E && second != 0x97)
      label[i + 1] = static_cast<char>(second + 0x20);
  }
  static const std::array<const char*, 6> kArticles = {"the", "of", "a", "an", "on", "in"};
  std::string normal;
  std::string word;
  int brackets = 0;
  const auto flush = [&] {
    if (word == "amortization") word = "amortisation";
    for (const std::string_view joined : {"noncurrent", "noncontrolling", "nonoperating"}) {
      if (word == joined) word.insert(3, " ");
    }
    if (!word.empty() && std::find(kArticles.begin(), kArticles.end(), word) == kArticles.end()) {
      normal += (normal.empty() ? "" : " ") + word;
    }
    word.clear();
  };
  for (const char c : label) {
    if (c == '(' || c == '[') ++brackets;
    if (brackets == 0 && (std::isalpha(static_cast<unsigned char>(c)) != 0 || static_cast<unsigned char>(c) >= 0x80)) {
      word += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    } else if (brackets == 0 && c == '&') {
      flush();
      word = "and";
    } else if (c != '\'') {
      flush();
    }
    if ((c == ')' || c == ']') && brackets > 0) --brackets;
  }
  flush();
  return normal;
}

Result<LabelRules> LabelRules::parse(std::string_view text, const std::string& source) {
  LabelRules labels;
  StatementPart part = StatementPart::Income;
  RuleLines lines(text, source);
  while (lines.next()) {
    const std::string_view line = lines.line();
    const std::string where = lines.where();
    if (line == "[income]" || line == "[balance]" || line == "[cash]") {
      part = line == "[income]"    ? StatementPart::Income
             : line == "[balance]" ? StatementPart::Balance
                                   : StatementPart::Cash;
      continue;
    }
    if (line.find('~') != std::string_view::npos) {
      Result<Words> words = parseWords(line, where);
      if (!words) return tl::unexpected(words.error());
      labels.words_.push_back(std::move(*words));
      continue;
    }
    const size_t equals = line.find('=');
    if (equals == std::string_view::npos) {
      return fail(ErrorKind::BadInput, "a rule reads 'line = label | label', or is [income], [balance] or [cash]",
                  where);
    }
    LabelRule rule;
    rule.part = part;
    std::string_view name = trimmedRule(line.substr(0, equals));
    if (!name.empty() && name[0] == '-') {
      rule.outflow = true;
      name = trimmedRule(name.substr(1));
      if (!name.empty() && name[0] == '?') {
        rule.eitherWay = true;
        name = trimmedRule(name.substr(1));
      }
    }
    const auto begins = [&name](std::string_view word) {
      if (name.substr(0, word.size()) != word) return false;
      name = trimmedRule(name.substr(word.size()));
      return true;
    };
    rule.shares = begins("count ");
    rule.anywhere = begins("anywhere ");
    rule.line = std::string(name);
    for (std::string_view rest = line.substr(equals + 1); !rest.empty();) {
      const size_t bar = rest.find('|');
      std::string synonym = normalisedLabel(rest.substr(0, bar));
      if (rule.line.empty() || synonym.empty()) {
        return fail(ErrorKind::BadInput, "a line and its labels must not be empty", where);
      }
      labels.exactly_[synonym].push_back(labels.rules_.size());
      labels.synonyms_.push_back({labels.rules_.size(), synonym, wordsOf(synonym)});
      rule.synonyms.push_back(std::move(synonym));
      rest = bar == std::string_view::npos ? std::string_view{} : rest.substr(bar + 1);
    }
    labels.rules_.push_back(std::move(rule));
  }
  return labels;
}

Result<LabelRules::Words> LabelRules::parseWords(std::string_view line, const std::string& where) {
  const size_t tilde = line.find('~');
  Words words;
  words.line = std::string(trimmedRule(line.substr(0, tilde)));
  if (words.line.starts_with('-')) words.line = std::string(trimmedRule(std::string_view(words.line).substr(1)));
  for (std::string_view rest = line.substr(tilde + 1); !rest.empty();) {
    const size_t end = rest.find('&');
    std::string_view group = trimmedRule(rest.substr(0, end));
    rest = end == std::string_view::npos ? std::string_view{} : rest.substr(end + 1);
    const bool none = group.starts_with("not ");
    if (none) group = trimmedRule(group.substr(4));
    std::vector<std::string> list;
    while (!group.empty()) {
      const size_t bar = group.find('|');
      list.push_back(normalisedLabel(group.substr(0, bar)));
      group = bar == std::string_view::npos ? std::string_view{} : group.substr(bar + 1);
    }
    if (list.empty() || std::find(list.begin(), list.end(), "") != list.end()) {
      return fail(ErrorKind::BadInput, "words read 'line ~ word | word & word & not word'", where);
    }
    if (none) {
      words.none.insert(words.none.end(), list.begin(), list.end());
    } else {
      words.groups.push_back(std::move(list));
    }
  }
  if (words.line.empty() || words.groups.size() < 2) {
    return fail(ErrorKind::BadInput, "a line is told by words of two groups at least", where);
  }
  return words;
}

const LabelRule* LabelRules::byWords(std::string_view label) const {
  const std::string words = " " + normalisedLabel(label) + " ";
  const auto has = [&](const std::string& word) { return words.find(" " + word + " ") != std::string::npos; };
  for (const Words& rule : words_) {
    const bool all = std::all_of(rule.groups.begin(), rule.groups.end(), [&](const std::vector<std::string>& group) {
      return std::any_of(group.begin(), group.end(), has);
    });
    if (all && std::none_of(rule.none.begin(), rule.none.end(), has)) return of(rule.line);
  }
  return nullptr;
}

const LabelRule* LabelRules::of(const std::string& line) const {
  const auto found = std::find_if(rules_.begin(), rules_.end(), [&](const LabelRule& r) { return r.line == line; });
  return found == rules_.end() ? nullptr : &*found;
}

std::vector<const LabelRule*> LabelRules::allExactly(std::string_view label) const {
  std::vector<const LabelRule*> list;
  const auto found = exactly_.find(normalisedLabel(label));
  if (found == exactly_.end()) return list;
  for (const size_t rule : found->second) list.push_back(&rules_[rule]);
  return list;
}

const LabelRule* LabelRules::exactly(std::string_view label) const {
  const std::vector<const LabelRule*> all = allExactly(label);
  return all.empty() ? nullptr : all.front();
}

std::vector<LabelRules::Near> LabelRules::near(std::string_view label) const {
  const std::set<std::string> words = wordsOf(normalisedLabel(label));
  std::vector<Near> list;
  if (words.empty()) return list;
  for (const Synonym& synonym : synonyms_) {
    const double near = likeness(words, synonym.words);
    if (near < kNear) continue;
    const auto same =
        std::find_if(list.begin(), list.end(), [&](const Near& n) { return n.rule == &rules_[synonym.rule]; });
    if (same == list.end()) {
      list.push_back({&rules_[synonym.rule], near, synonym.text});
    } else if (near > same->likeness) {
      same->likeness = near;
      same->synonym = synonym.text;
    }
  }
  std::stable_sort(list.begin(), list.end(), [](const Near& a, const Near& b) { return a.likeness > b.likeness; });
  return list;
}

}  // namespace zl
