#include "services/demo.h"

#include <algorithm>
#include <filesystem>

#include "exchange/json/case_json.h"

namespace zl::services {

namespace fs = std::filesystem;

std::string caseText(const Snapshot& snapshot) {
  return exchange::toJson(snapshot.caseOf()).dump(2) + "\n";
}

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
  const std::string model = session.now()->resources->model.name;
  if (c->model != model) {
    return fail(ErrorKind::Unsupported, "the case is for the model '" + c->model + "'", source,
                "This book uses the model '" + model + "'");
  }
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
