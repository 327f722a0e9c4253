#include "services/views/own_rows.h"

#include <algorithm>
#include <set>

#include "core/filing/segments.h"
#include "core/model/language_words.h"
#include "core/model/parser.h"

namespace zl::services {
namespace {

bool isWordPart(char c) {
  return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_';
}

std::vector<OwnRow> ownRowsOf(const model::Model& m) {
  std::vector<OwnRow> rows;
  for (const model::Row& row : m.rows) {
    if (isOwnRow(m, row)) rows.push_back({row.name, row.label, row.at.text != ownText(m)});
  }
  return rows;
}

/// Texts of the faults that monitors find.
std::set<std::string> faultTexts(const Snapshot& s) {
  std::set<std::string> texts;
  for (const Finding& f : s.findings()) {
    if (f.severity == Severity::Fault) texts.insert(f.monitor + ": " + f.text);
  }
  return texts;
}

}  // namespace

CaseEdit setOwnRows(const Case& c, const std::string& typed, const Provenance& said) {
  std::string text = typed;
  std::erase(text, '\r');  // lines end alike, whatever wrote them
  CaseEdit edit{c, text.empty() ? "Drop the own rows" : "Change the own rows"};
  if (text.empty()) {
    edit.after.ownRows.erase(c.model);
  } else if (ownRowsInUse(c) != text) {
    edit.after.ownRows[c.model] = {text, said};
  }
  return edit;
}

CaseEdit setModel(const Case& c, const ShippedModel& model) {
  CaseEdit edit{c, "Use the model " + model.title};
  edit.after.model = model.name;
  return edit;
}

OwnRowsCheck checkOwnRows(const Snapshot& s, const std::string& text) {
  OwnRowsCheck check;
  const CaseEdit edit = setOwnRows(s.caseOf(), text, {});
  const Result<std::shared_ptr<const Snapshot>> next = s.evaluator->show(s.sources(), edit.after);
  if (!next) {
    check.fault = next.error();
    if (const auto place = model::placeOf(*check.fault, {{kOwnRows, text}})) check.at = place->at;
    return check;
  }
  const Snapshot& with = **next;
  check.rows = ownRowsOf(with.evaluation->model());
  for (int i = 0; i < s.evaluation->scenarios(); ++i) {
    check.effects.push_back({s.caseOf().scenarios[static_cast<size_t>(i)].label,
                             s.evaluation->constant(model::Role::ValuePerShare, i),
                             with.evaluation->constant(model::Role::ValuePerShare, i)});
  }
  const std::set<std::string> before = faultTexts(s);
  for (const std::string& fault : faultTexts(with)) {
    if (before.count(fault) == 0) check.newFaults.push_back(fault);
  }
  return check;
}

namespace {

/// What stands before a place on its line, cut into words and quoted texts.
std::vector<std::string> piecesBefore(const std::string& line) {
  std::vector<std::string> pieces;
  size_t at = 0;
  while (at < line.size()) {
    if (line[at] == '"') {
      const size_t close = std::min(line.find('"', at + 1), line.size() - 1);
      pieces.push_back(line.substr(at, close - at + 1));
      at = close + 1;
    } else if (isWordPart(line[at])) {
      const size_t from = at;
      while (at < line.size() && isWordPart(line[at])) ++at;
      pieces.push_back(line.substr(from, at - from));
    } else {
      if (line[at] != ' ' && line[at] != '\t') pieces.emplace_back(1, line[at]);
      ++at;
    }
  }
  return pieces;
}

std::vector<Completion> plain(const std::vector<std::string>& words, const char* meaning) {
  std::vector<Completion> list;
  list.reserve(words.size());
  for (const std::string& word : words) list.push_back({word, meaning});
  return list;
}

/// Filed concepts, in quotation marks as the language wants them: those cut into parts with axis and member.
std::vector<Completion> factSources(const Snapshot& s) {
  std::vector<Completion> list;
  list.reserve(s.review->segments.size() + s.filed->statements.unmapped().size());
  for (const SegmentRow& row : s.review->segments) {
    list.push_back({"\"" + row.concept_name + "\" along \"" + row.axis + "\" \"" + row.member + "\"",
                    plainMember(row.member) + ", " + row.unit});
  }
  for (const UnmappedConcept& u : s.filed->statements.unmapped()) {
    list.push_back({"\"" + u.concept_name + "\"", u.label});
  }
  return list;
}

/// Names that the text declares: the model in use may not have them yet.
std::vector<Completion> declared(const model::Model& m, const std::string& text) {
  std::vector<Completion> list;
  for (size_t at = 0; at < text.size();) {
    const size_t end = std::min(text.find('\n', at), text.size());
    const std::vector<std::string> pieces = piecesBefore(text.substr(at, end - at));
    const bool declares = pieces.size() > 2 && (pieces[0] == "row" || pieces[0] == "driver" || pieces[0] == "input");
    if (declares && !m.find(pieces[1]).known()) list.push_back({pieces[1], pieces[2] + ", own"});
    at = end + 1;
  }
  return list;
}

std::vector<Completion> names(const model::Model& m) {
  std::vector<Completion> list;
  list.reserve(m.rows.size());
  for (const model::Row& row : m.rows) {
    list.push_back({row.name, row.label + ", " + model::kindWord(row.kind) + " " + model::timingWord(row.timing)});
  }
  return list;
}

std::vector<Completion> candidates(const Snapshot& s, const std::string& text, const std::vector<std::string>& before) {
  const model::LanguageWords& words = model::languageWords();
  const model::Model& m = s.evaluation->model();
  if (before.empty()) {
    std::vector<Completion> list = plain(words.attributes, "attribute of the row above");
    for (Completion& c : plain(words.declarations, "declaration")) list.push_back(std::move(c));
    return list;
  }
  const std::string& first = before.front();
  const bool declares = first == "row" || first == "driver" || first == "input" || first == "given";
  if (declares) {
    if (before.size() == 3) return plain(words.kinds, "kind");
    if (before.size() == 4) return plain(words.timings, "timing");
    return {};
  }
  if (first == "group" || first == "help") return {};
  if (first == "amend" || first == "unprojected") return names(m);
  if (first == "default" && before.size() == 1) return {{"last", "the last figure of the driver's history"}};
  if (before.back() == "fact") return factSources(s);
  if (before.back() == "recorded") {
    std::vector<Completion> list;
    list.reserve(s.company().operating.size());
    for (const OperatingFigure& f : s.company().operating) list.push_back({"\"" + f.name + "\"", f.unit});
    return list;
  }
  std::vector<Completion> list = names(m);
  for (Completion& c : declared(m, text)) list.push_back(std::move(c));
  for (Completion& c : plain(words.functions, "function")) list.push_back(std::move(c));
  if (first == "history" && before.size() == 1) {
    for (Completion& c : plain(words.histories, "where history comes from")) list.push_back(std::move(c));
  }
  return list;
}

}  // namespace

std::vector<Completion> completionsAt(const Snapshot& s, const std::string& text, size_t place, size_t* typed) {
  place = std::min(place, text.size());
  const size_t lineStart = place == 0 ? 0 : text.rfind('\n', place - 1) + 1;  // npos + 1 is 0
  std::string line = text.substr(lineStart, place - lineStart);
  if (typed != nullptr) *typed = 0;
  if (line.find('#') != std::string::npos) return {};
  std::string begun;
  while (!line.empty() && isWordPart(line.back())) {
    begun.insert(begun.begin(), line.back());
    line.pop_back();
  }
  if (std::count(line.begin(), line.end(), '"') % 2 != 0) return {};  // inside a quoted text
  if (typed != nullptr) *typed = begun.size();
  std::vector<Completion> list = candidates(s, text, piecesBefore(line));
  std::erase_if(list, [&](const Completion& c) { return !c.word.starts_with(begun) || c.word == begun; });
  std::stable_sort(list.begin(), list.end(), [](const Completion& a, const Completion& b) { return a.word < b.word; });
  return list;
}

}  // namespace zl::services
