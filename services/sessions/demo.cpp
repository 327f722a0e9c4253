#include "services/sessions/demo.h"

#include <algorithm>
#include <filesystem>

#include "services/sessions/case_file.h"

namespace zl::services {

namespace fs = std::filesystem;

Status makeDemoBook(const std::string& path, std::shared_ptr<const Resources> resources, const Desk& desk) {
  std::error_code error;
  const fs::path folder = fs::path(resources->folder) / "demo";
  std::vector<fs::path> paths{folder / "company.json", folder / "rates.csv",     folder / "prices.csv",
                              folder / "peers.csv",    folder / "estimates.csv", folder / "series.csv"};
  std::vector<fs::path> filings;
  for (const auto& entry : fs::directory_iterator(folder / "filings", error)) filings.push_back(entry.path());
  if (error) return fail(ErrorKind::NotFound, "the demo's filings are missing", folder.string());
  std::sort(filings.begin(), filings.end());
  paths.insert(paths.end(), filings.begin(), filings.end());
  const auto filesOf = [](const std::vector<fs::path>& of) -> Result<std::vector<ImportFile>> {
    std::vector<ImportFile> files;
    for (const fs::path& p : of) {
      Result<std::string> content = readFile(p.string());
      if (!content) return tl::unexpected(content.error());
      files.push_back({p.filename().string(), std::move(*content)});
    }
    return files;
  };
  const Result<std::vector<ImportFile>> read = filesOf(paths);
  if (!read) return tl::unexpected(read.error());
  const std::vector<ImportFile>& files = *read;
  std::vector<fs::path> others;
  for (const char* name : {"record.json", "statements.csv", "prices.csv", "estimates.csv"})
    others.push_back(folder / "companion" / name);
  const Result<std::vector<ImportFile>> readOthers = filesOf(others);
  if (!readOthers) return tl::unexpected(readOthers.error());
  const std::vector<ImportFile>& companion = *readOthers;
  const Result<std::string> text = readFile((folder / "case.json").string());
  if (!text) return tl::unexpected(text.error());
  // In one piece: the files and the assumptions upon them, or no book.
  const Result<store::Book> made = store::Book::make(path, [&](store::Book& book) -> Status {
    constexpr const char *kDemoCompany = "vessingholt", *kCompanion = "ostravelle";
    Result<std::unique_ptr<Session>> session =
        Session::openToFill(book, kDemoCompany, CaseEvaluator::upon(resources), desk);
    if (!session) return tl::unexpected(session.error());
    if (const auto imported = (*session)->importFiles(files); !imported) return tl::unexpected(imported.error());
    // A peer that is a company of the book itself, before the assumptions that speak of it.
    Result<std::unique_ptr<Session>> other =
        Session::openToFill(book, kCompanion, CaseEvaluator::upon(resources), desk);
    if (!other) return tl::unexpected(other.error());
    if (const auto imported = (*other)->importFiles(companion); !imported) return tl::unexpected(imported.error());
    if (Status s = (*session)->peerOfBook(kCompanion, true, "sorts what the subject doses"); !s) return s;
    if (Status s = (*session)->makeHome(kDemoCompany); !s) return s;
    return applyCaseText(**session, *text, "case.json");
  });
  return made ? Status() : tl::unexpected(made.error());
}

}  // namespace zl::services
