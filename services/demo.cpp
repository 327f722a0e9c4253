#include "services/demo.h"

#include <algorithm>
#include <filesystem>
#include <set>

#include "exchange/json/case_json.h"

namespace zl::services {

namespace fs = std::filesystem;

std::string caseText(const Snapshot& snapshot) {
  return exchange::toJson(snapshot.caseOf()).dump(2) + "\n";
}

namespace {

/// Rows that assumptions of a file may be for: of any shipped model, with the file's own rows upon
/// it, and what the present case holds already. Anything else is a slip of the pen.
Status checkNames(const Case& c, const Session& session, const std::string& source) {
  std::set<std::string> known;
  for (const ShippedModel& shipped : session.shipped()->models) {
    Case other = c;
    other.model = shipped.name;
    Result<std::shared_ptr<const Resources>> with = withOwn(session.shipped(), other);
    if (!with) {
      // Own rows with a fault are told of when they come into use; their names are not lost for that.
      other.ownRows.clear();
      with = withOwn(session.shipped(), other);
    }
    if (!with) return tl::unexpected(with.error());
    for (const model::Row& row : (*with)->model.rows) known.insert(row.name);
  }
  for (const Scenario& s : session.now()->caseOf().scenarios) {
    for (const auto& [name, assumption] : s.drivers) known.insert(name);
    for (const auto& [name, choice] : s.inputs) known.insert(name);
  }
  const auto unknown = [&](const char* what, const std::string& name, const Scenario& s) {
    return fail(ErrorKind::BadInput, std::string("no model has a") + what + name + "' (" + s.label + ")", source,
                "Correct the name, or give the row among the own rows");
  };
  for (const Scenario& s : c.scenarios) {
    for (const auto& [name, assumption] : s.drivers) {
      if (known.count(name) == 0) return unknown(" driver '", name, s);
    }
    for (const auto& [name, choice] : s.inputs) {
      if (known.count(name) == 0) return unknown("n input '", name, s);
    }
  }
  return {};
}

}  // namespace

Status applyCaseText(Session& session, const std::string& text, const std::string& source) {
  const Result<exchange::Json> json = exchange::parseJson(text, source);
  if (!json) return tl::unexpected(json.error());
  Result<Case> c = exchange::caseFromJson(*json, source);
  if (!c) return tl::unexpected(c.error());
  if (c->company != session.companyId()) {
    return fail(ErrorKind::BadInput,
                "the case is of '" + c->company + "', the open company is '" + session.companyId() + "'", source,
                "Name the company that the case belongs to");
  }
  if (Status s = checkNames(*c, session, source); !s) return s;
  // A file may leave open where its outlook starts: here, where the company's does.
  if (c->baseYear == 0) c->baseYear = session.now()->years().back().label();
  return session.apply({std::move(*c), "Apply " + source});
}

Status makeDemoBook(const std::string& path, std::shared_ptr<const Resources> resources, const Desk& desk) {
  std::error_code error;
  if (fs::exists(path, error)) {
    return fail(ErrorKind::Storage, "there is already a file of this name", path, "Choose another name");
  }
  const fs::path folder = fs::path(resources->folder) / "demo";
  std::vector<fs::path> paths{folder / "company.json", folder / "rates.csv", folder / "prices.csv",
                              folder / "peers.csv", folder / "estimates.csv"};
  std::vector<fs::path> filings;
  for (const auto& entry : fs::directory_iterator(folder / "filings", error)) filings.push_back(entry.path());
  if (error) return fail(ErrorKind::NotFound, "the demo's filings are missing", folder.string());
  std::sort(filings.begin(), filings.end());
  paths.insert(paths.end(), filings.begin(), filings.end());
  std::vector<ImportFile> files;
  for (const fs::path& p : paths) {
    Result<std::string> content = readFile(p.string());
    if (!content) return tl::unexpected(content.error());
    files.push_back({p.filename().string(), std::move(*content)});
  }
  const Result<std::string> text = readFile((folder / "case.json").string());
  if (!text) return tl::unexpected(text.error());
  const Result<Session::ImportResult> imported = Session::import(path, "vessingholt", files, resources, desk);
  if (!imported) return tl::unexpected(imported.error());
  const Result<std::unique_ptr<Session>> session = Session::open(path, "vessingholt", std::move(resources), desk);
  if (!session) return tl::unexpected(session.error());
  return applyCaseText(**session, *text, "case.json");
}

}  // namespace zl::services
