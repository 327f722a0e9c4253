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
  std::vector<ImportFile> files;
  for (const fs::path& p : paths) {
    Result<std::string> content = readFile(p.string());
    if (!content) return tl::unexpected(content.error());
    files.push_back({p.filename().string(), std::move(*content)});
  }
  const Result<std::string> text = readFile((folder / "case.json").string());
  if (!text) return tl::unexpected(text.error());
  // In one piece: the files and the assumptions upon them, or no book.
  const Result<store::Book> made = store::Book::make(path, [&](store::Book& book) -> Status {
    constexpr const char* kDemoCompany = "vessingholt";
    Result<std::unique_ptr<Session>> session =
        Session::openToFill(book, kDemoCompany, CaseEvaluator::upon(resources), desk);
    if (!session) return tl::unexpected(session.error());
    if (const auto imported = (*session)->importFiles(files); !imported) return tl::unexpected(imported.error());
    return applyCaseText(**session, *text, "case.json");
  });
  return made ? Status() : tl::unexpected(made.error());
}

}  // namespace zl::services
