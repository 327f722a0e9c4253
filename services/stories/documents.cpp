#include "services/stories/documents.h"

namespace zl::services {

namespace {

std::vector<std::string> namesOf(const Snapshot& s, exchange::ContentKind kind) {
  std::vector<std::string> names;
  for (const store::StoredDocument& d : s.evidence->documents) {
    if (d.active && d.document.kind == exchange::contentKindText(kind)) names.push_back(d.document.name);
  }
  if (names.empty()) names.emplace_back("no document");
  return names;
}

}  // namespace

std::string activeDocuments(const Snapshot& s, exchange::ContentKind kind) {
  std::string all;
  for (const std::string& name : namesOf(s, kind)) all += (all.empty() ? "" : ", ") + name;
  return all;
}

}  // namespace zl::services
