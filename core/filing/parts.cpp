#include "core/filing/parts.h"

#include <functional>
#include <sstream>

#include "core/filing/labels.h"
#include "core/filing/rule_lines.h"

namespace zl {

namespace {

/// '"label" | "label"', each given normalised.
Status readLabels(std::string_view rest, const std::string& where, const std::function<void(std::string)>& give) {
  while (!rest.empty()) {
    const size_t bar = rest.find('|');
    const std::string_view label = trimmedRule(rest.substr(0, bar));
    std::string normal = normalisedLabel(label);
    if (label.size() < 3 || label[0] != '"' || label.back() != '"' || normal.empty()) {
      return fail(ErrorKind::BadInput, "a label stands in quotation marks, several are parted by '|'", where);
    }
    give(std::move(normal));
    rest = bar == std::string_view::npos ? std::string_view{} : rest.substr(bar + 1);
  }
  return {};
}

}  // namespace

Result<PartRules> PartRules::parse(std::string_view text, const std::string& source) {
  PartRules parts;
  RuleLines lines(text, source);
  while (lines.next()) {
    const std::string_view line = lines.line();
    if (line.starts_with("within ") || line.starts_with("starts ") || line.starts_with("called ")) {
      std::istringstream words{std::string(line)};
      std::string what;
      std::string of;
      std::string sign;
      words >> what >> of >> sign;
      std::vector<std::string> named;
      for (std::string word; words >> word;) named.push_back(word);
      if (sign != "=" || named.empty() || (what == "called" && named.size() > 1))
        return fail(ErrorKind::BadInput,
                    "such a line reads 'within line = concepts', 'starts line = lines' or 'called line = line'",
                    lines.where());
      if (what == "within") {
        for (std::string& word : named) parts.within_.emplace_back(std::move(word), of);
      } else if (what == "starts") {
        parts.starts_[of].insert(named.begin(), named.end());
      } else {
        parts.called_[of] = named.front();
      }
      continue;
    }
    if (line.starts_with("told ")) {
      if (Status s = readLabels(trimmedRule(line.substr(5)), lines.where(),
                                [&](std::string label) { parts.told_.push_back(std::move(label)); });
          !s) {
        return tl::unexpected(s.error());
      }
      continue;
    }
    const size_t equals = line.find('=');
    std::string_view name = trimmedRule(line.substr(0, equals));
    std::string_view to = equals == std::string_view::npos ? std::string_view{} : trimmedRule(line.substr(equals + 1));
    Residual residual;
    if (!to.empty() && to[0] == '-') {
      residual.weight = -1;
      to = trimmedRule(to.substr(1));
    }
    if (const size_t at = to.find(" beside "); at != std::string_view::npos) {
      std::istringstream beside{std::string(to.substr(at + std::string_view(" beside ").size()))};
      for (std::string word; beside >> word;) residual.beside.insert(word);
      to = trimmedRule(to.substr(0, at));
    }
    if (name.empty() || to.empty()) {
      return fail(ErrorKind::BadInput, "a rule reads 'concept = line' or 'concept = -line'", lines.where());
    }
    residual.line = std::string(to);
    if (name[0] != '"') {
      parts.residuals_[std::string(name)] = residual;
      continue;
    }
    const Status read =
        readLabels(name, lines.where(), [&](const std::string& label) { parts.byLabel_[label] = residual; });
    if (!read) return tl::unexpected(read.error());
  }
  return parts;
}

const PartRules::Residual* PartRules::of(const std::string& concept_name) const {
  const auto found = residuals_.find(concept_name);
  return found == residuals_.end() ? nullptr : &found->second;
}

std::string PartRules::within(const std::string& concept_name) const {
  for (const auto& [name, line] : within_) {
    const bool begins = name.back() == '*' && concept_name.starts_with(name.substr(0, name.size() - 1));
    if (begins || concept_name == name) return line;
  }
  return {};
}

std::string PartRules::toldOf(std::string_view label) const {
  const std::string whole = normalisedLabel(label);
  for (const std::string& words : told_) {
    if (whole.size() > words.size() + 1 && whole.starts_with(words) && whole[words.size()] == ' ') {
      return whole.substr(words.size() + 1);
    }
  }
  return {};
}

std::set<std::string> PartRules::lines() const {
  std::set<std::string> lines;
  for (const auto& [name, line] : within_) lines.insert(line);
  for (const auto* residuals : {&residuals_, &byLabel_}) {
    for (const auto& [name, residual] : *residuals) {
      lines.insert(residual.line);
      lines.insert(residual.beside.begin(), residual.beside.end());
    }
  }
  return lines;
}

const PartRules::Residual* PartRules::ofLabel(std::string_view label) const {
  const auto found = byLabel_.find(normalisedLabel(label));
  return found == byLabel_.end() ? nullptr : &found->second;
}

}  // namespace zl
