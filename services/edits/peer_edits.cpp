#include "services/edits/peer_edits.h"

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
