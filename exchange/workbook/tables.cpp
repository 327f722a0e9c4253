#include "core/table/gathered.h"
#include "exchange/workbook/workbook.h"

namespace zl::exchange {
namespace {

Result<Workbook> asWritten(std::string_view content, ContentKind kind, const std::string& name,
                           const StopCheck& stopped) {
  if (kind == ContentKind::Workbook) return readXlsx(content, name, stopped);
  if (kind == ContentKind::OpenSheet) return readOds(content, name, stopped);
  if (kind == ContentKind::WebPage) return readWebTables(content, name, stopped);
  return readDelimited(content, name, stopped);
}

}  // namespace

Result<Workbook> readTables(std::string_view content, ContentKind kind, const std::string& name,
                            const StopCheck& stopped) {
  Result<Workbook> workbook = asWritten(content, kind, name, stopped);
  if (!workbook) return workbook;
  for (Sheet& sheet : workbook->sheets) sheet = gathered(std::move(sheet));
  return workbook;
}

}  // namespace zl::exchange
