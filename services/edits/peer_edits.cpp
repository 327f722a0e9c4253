#include "services/edits/peer_edits.h"

#include <sstream>

#include "core/model/peer_multiple.h"

namespace zl::services {

CaseEdit setPeerSet(const Case& c, const std::string& name, const std::set<std::string>& members) {
  CaseEdit edit{c, (members.empty() ? "Drop the peer set " : "Peer set ") + name};
  if (members.empty()) {
    edit.after.peerSets.erase(name);
    if (edit.after.peerSet == name) edit.after.peerSet.clear();
  } else {
    edit.after.peerSets[name] = members;
  }
  return edit;
}

CaseEdit usePeerSet(const Case& c, const std::string& name) {
  CaseEdit edit{c, name.empty() ? "All peers count" : "The peer set " + name + " counts"};
  edit.after.peerSet = name;
  return edit;
}

CaseEdit addOwnMultiple(const Case& c, const model::PeerMultiple& multiple, const Provenance& said) {
  CaseEdit edit{c, "Own multiple: " + multiple.label};
  OwnRows& rows = edit.after.ownRows[c.model];
  if (!rows.text.empty() && rows.text.back() != '\n') rows.text += '\n';
  rows.text += model::lineOf(multiple);
  rows.said = said;
  return edit;
}

bool isOwnMultiple(const Case& c, const std::string& name) {
  const auto rows = c.ownRows.find(c.model);
  return rows != c.ownRows.end() && rows->second.text.find("multiple " + name + " ") != std::string::npos;
}

CaseEdit dropOwnMultiple(const Case& c, const std::string& name, const Provenance& said) {
  CaseEdit edit{c, "Drop the own multiple " + name};
  OwnRows& rows = edit.after.ownRows[c.model];
  std::istringstream lines(rows.text);
  std::string kept;
  for (std::string line; std::getline(lines, line);) {
    if (!line.starts_with("multiple " + name + " ")) kept += line + '\n';
  }
  rows = {kept, said};
  if (kept.empty()) edit.after.ownRows.erase(c.model);
  return edit;
}

CaseEdit showMultiples(const Case& c, const std::set<std::string>& ids) {
  CaseEdit edit{c, ids.empty() ? "Show the usual multiples" : "Show " + std::to_string(ids.size()) + " multiples"};
  edit.after.shownMultiples = ids;
  return edit;
}

CaseEdit adoptOwnPast(const Case& c, const model::Model& m, const std::string& scenario, int of,
                      const std::array<double, 3>& multiples, const Provenance& said) {
  CaseEdit edit{c, "Adopt an own past multiple as a method"};
  const auto& rows = m.view("past_method");
  if (rows.size() <= multiples.size()) return edit;
  const auto set = [&](size_t at, double figure) {
    edit.after = setInput(edit.after, m, scenario, m[rows[at].row].name, figure, said).after;
  };
  set(0, of);
  for (size_t i = 0; i < multiples.size(); ++i) set(i + 1, multiples[i]);
  return edit;
}

CaseEdit setPart(const Case& c, const std::string& key, const std::string& label,
                 const std::optional<PartChoice>& choice) {
  CaseEdit edit{c, "Worth of " + label};
  if (choice) {
    edit.after.parts[key] = *choice;
  } else {
    edit.after.parts.erase(key);
  }
  return edit;
}

}  // namespace zl::services
