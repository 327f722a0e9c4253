// Named versions of a company's assumptions.

#include <algorithm>

#include "exchange/json/case_json.h"
#include "services/library/companions.h"
#include "services/library/stored_case.h"
#include "services/sessions/session.h"

namespace zl::services {

using store::KeptVersion;

namespace {

constexpr size_t kLongestName = 80;

std::string trimmed(const std::string& text) {
  const size_t first = text.find_first_not_of(" \t\n");
  return first == std::string::npos ? "" : text.substr(first, text.find_last_not_of(" \t\n") - first + 1);
}

Result<Case> caseOf(const KeptVersion& version) {
  const std::string where = "version '" + version.name + "'";
  const Result<exchange::Json> json = exchange::parseJson(version.caseText, where);
  if (!json) return tl::unexpected(json.error());
  return exchange::caseFromJson(*json, where);
}

std::vector<std::int64_t> activeDocuments(const Evidence& e) {
  std::vector<std::int64_t> ids;
  for (const store::StoredDocument& d : e.documents) {
    if (d.active) ids.push_back(d.document.id);
  }
  std::sort(ids.begin(), ids.end());
  return ids;
}

}  // namespace

Result<KeptVersion> Session::version(const std::string& name) {
  Result<std::vector<KeptVersion>> all = versions();
  if (!all) return tl::unexpected(all.error());
  std::string known;
  for (KeptVersion& v : *all) {
    if (v.name == name) return std::move(v);
    known += (known.empty() ? "There are: " : ", ") + v.name;
  }
  return fail(ErrorKind::NotFound, "there is no version '" + name + "'", company_,
              known.empty() ? "Keep one first" : known);
}

Result<KeptVersion> Session::named(const std::string& name, const std::string& note) const {
  if (Status s = writable(); !s) return tl::unexpected(s.error());
  KeptVersion version;
  version.name = trimmed(name);
  if (version.name.empty() || version.name.size() > kLongestName || version.name == kNow) {
    return fail(ErrorKind::BadInput, "a version needs a name of 1 to 80 letters other than '" + std::string(kNow) + "'",
                company_, "Type another name");
  }
  version.company = company_;
  version.at = desk_.now();
  version.author = desk_.author;
  version.note = trimmed(note);
  version.caseText = exchange::textOf(exchange::toJson(snapshot_->caseOf()));
  version.documents = activeDocuments(*snapshot_->evidence);
  return version;
}

Status Session::keepVersion(const std::string& name, const std::string& note) {
  const Result<KeptVersion> version = named(name, note);
  if (!version) return tl::unexpected(version.error());
  const Result<std::int64_t> id = book_.keepVersion(*version);
  return id ? Status() : tl::unexpected(id.error());
}

Status Session::setVersionAside(const std::string& name) {
  if (!readOnly_.empty()) return writable();
  const Result<KeptVersion> v = version(name);
  return v ? book_.setVersionAside(v->id) : tl::unexpected(v.error());
}

Result<std::shared_ptr<const Snapshot>> Session::snapshotOf(const KeptVersion& version) {
  Result<Case> c = caseOf(version);
  if (!c) return tl::unexpected(c.error());
  std::vector<std::int64_t> documents = version.documents;
  std::sort(documents.begin(), documents.end());
  // What was fetched since moves a version's price no more than a later table would.
  if (documents == activeDocuments(*snapshot_->evidence) && snapshot_->market->lastObservation == 0) {
    pinBaseYear(*c, snapshot_->evidence, *evaluator_);
    return preview(*c);
  }
  const Result<store::Book::Moment> moment = book_.moment();
  if (!moment) return tl::unexpected(moment.error());
  const Result<Sources> sources =
      gatherWithPeers(book_, company_, *evaluator_, desk_.today(), AsOf{documents, version.at});
  if (!sources) return tl::unexpected(sources.error());
  pinBaseYear(*c, sources->evidence, *evaluator_);
  return evaluator_->show(*sources, *c, Standing::StoodBefore);
}

Status Session::goBackTo(const std::string& name) {
  const Result<KeptVersion> v = version(name);
  if (!v) return tl::unexpected(v.error());
  Result<Case> c = caseOf(*v);
  if (!c) return tl::unexpected(c.error());
  pinBaseYear(*c, snapshot_->evidence, *evaluator_);
  return apply({std::move(*c), "Back to version '" + v->name + "'"});
}

}  // namespace zl::services
