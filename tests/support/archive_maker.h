#pragma once
// Archives and workbooks made in memory, part by part.

#include <zip.h>

#include <string>
#include <utility>
#include <vector>

namespace zl::test {

using Parts = std::vector<std::pair<std::string, std::string>>;

inline std::string archiveOf(const Parts& parts, bool compressed = true) {
  zip_error_t error;
  zip_error_init(&error);
  zip_source_t* buffer = zip_source_buffer_create(nullptr, 0, 0, &error);
  zip_source_keep(buffer);
  zip_t* zip = zip_open_from_source(buffer, ZIP_CREATE | ZIP_TRUNCATE, &error);
  for (const auto& [name, text] : parts) {
    zip_source_t* source = zip_source_buffer(zip, text.data(), text.size(), 0);
    const zip_int64_t at = zip_file_add(zip, name.c_str(), source, ZIP_FL_OVERWRITE);
    if (!compressed && at >= 0) zip_set_file_compression(zip, static_cast<zip_uint64_t>(at), ZIP_CM_STORE, 0);
  }
  zip_close(zip);
  zip_source_open(buffer);
  zip_source_seek(buffer, 0, SEEK_END);
  std::string bytes(static_cast<std::size_t>(zip_source_tell(buffer)), '\0');
  zip_source_seek(buffer, 0, SEEK_SET);
  zip_source_read(buffer, bytes.data(), bytes.size());
  zip_source_close(buffer);
  zip_source_free(buffer);
  return bytes;
}

/// A workbook of one sheet, with whatever the case puts in place of its parts.
struct XlsxParts {
  std::string sheetData;
  std::string strings;
  std::string target = "/xl/worksheets/sheet1.xml";  ///< absolute, as common writers have it
  std::string sheetName = "Income";

  [[nodiscard]] Parts parts() const {
    const std::string rel = "http://schemas.openxmlformats.org/officeDocument/2006/relationships/";
    const std::string head = "<?xml version=\"1.0\"?>";
    const auto relations = [&](const std::string& list) {
      return head + "<Relationships>" + list + "</Relationships>";
    };
    return {
        {"_rels/.rels",
         relations("<Relationship Id=\"r1\" Type=\"" + rel + "officeDocument\" Target=\"xl/workbook.xml\"/>")},
        {"xl/workbook.xml",
         head + "<workbook xmlns:r=\"x\"><sheets><sheet name=\"" + sheetName + "\" r:id=\"r1\"/></sheets></workbook>"},
        {"xl/_rels/workbook.xml.rels",
         relations("<Relationship Id=\"r1\" Type=\"" + rel + "worksheet\" Target=\"" + target +
                   "\"/><Relationship Id=\"r2\" Type=\"" + rel +
                   "sharedStrings\" Target=\"sharedStrings.xml\"/><Relationship Id=\"r3\" Type=\"" + rel +
                   "styles\" Target=\"styles.xml\"/>")},
        {"xl/sharedStrings.xml", head + "<sst>" + strings + "</sst>"},
        {"xl/styles.xml",
         head + "<styleSheet><numFmts><numFmt numFmtId=\"170\" formatCode=\"dd\\.mm\\.yyyy\"/></numFmts><cellXfs><xf "
                "numFmtId=\"0\"/><xf numFmtId=\"14\"/><xf numFmtId=\"170\"/></cellXfs></styleSheet>"},
        {"xl/worksheets/sheet1.xml", head + "<worksheet><sheetData>" + sheetData + "</sheetData></worksheet>"}};
  }
  [[nodiscard]] std::string bytes() const { return archiveOf(parts()); }
};

inline std::string odsOf(const std::string& table) {
  return archiveOf(
      {{"mimetype", "application/vnd.oasis.opendocument.spreadsheet"},
       {"content.xml", "<?xml version=\"1.0\"?><office:document-content><office:body><office:spreadsheet>" + table +
                           "</office:spreadsheet></office:body></office:document-content>"}},
      false);
}

}  // namespace zl::test
