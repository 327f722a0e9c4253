#include <zip.h>

#include <array>
#include <cstring>
#include <sstream>
#include <stdexcept>

#include "demo/generator/writers.h"

namespace demo {
namespace {

/// Part of the year's flows by the end of each of its first three quarters: mills buy in spring and
/// autumn.
constexpr std::array<double, 3> kByQuarter = {0.22, 0.47, 0.71};

struct InterimLine {
  const char* line;
  const char* concept_name;
  const char* label;
};

constexpr InterimLine kFlows[] = {
    {"revenue", "Revenue", "Revenue"},
    {"cost_of_sales", "CostOfSales", "Cost of sales"},
    {"distribution", "DistributionCosts", "Selling and distribution"},
    {"administration", "AdministrativeExpense", "Administration"},
    {"research", "ResearchAndDevelopmentExpense", "Research and development"},
    {"depreciation", "DepreciationAndAmortisationExpense", "Depreciation and amortisation"},
    {"exceptional_items", "ExpenseOfRestructuringActivities", "Exceptional items"},
    {"ebit", "ProfitLossFromOperatingActivities", "Operating profit"},
    {"interest_expense", "InterestExpense", "Interest expense"},
    {"interest_income", "InterestIncome", "Interest income"},
    {"pretax_profit", "ProfitLossBeforeTax", "Profit before tax"},
    {"tax", "IncomeTaxExpenseContinuingOperations", "Income tax"},
    {"net_income", "ProfitLoss", "Profit for the period"},
    {"operating_cash_flow", "CashFlowsFromUsedInOperatingActivities", "Cash flow from operating activities"},
};

constexpr InterimLine kBalances[] = {{"receivables", "TradeAndOtherCurrentReceivables", "Trade receivables"},
                                     {"inventory", "Inventories", "Inventories"},
                                     {"payables", "TradeAndOtherCurrentPayables", "Trade payables"}};

const char* const kEnds[] = {"03-31", "06-30", "09-30"};

/// The year to the end of a quarter (0 to 2), tied by construction; balances drift between years.
Year toDate(const Year& year, const Year& before, int quarter) {
  const double part = kByQuarter[static_cast<size_t>(quarter)];
  Year y;
  for (const InterimLine& l : kFlows) y[l.line] = static_cast<Thousands>(static_cast<double>(year.at(l.line)) * part);
  y["ebit"] = y["revenue"] - y["cost_of_sales"] - y["distribution"] - y["administration"] - y["research"] -
              y["depreciation"] - y["exceptional_items"];
  y["pretax_profit"] = y["ebit"] - y["interest_expense"] + y["interest_income"];
  y["net_income"] = y["pretax_profit"] - y["tax"];
  for (const InterimLine& l : kBalances) {
    const Thousands opening = before.at(l.line);
    y[l.line] = opening + (year.at(l.line) - opening) * (quarter + 1) / 4;
  }
  return y;
}

std::string endOf(long long year, int quarter) {
  return std::to_string(year) + "-" + kEnds[quarter];
}

/// 1234567 as 1,234,567, costs as people print them.
std::string grouped(Thousands amount) {
  std::string digits = std::to_string(amount < 0 ? -amount : amount);
  for (int at = static_cast<int>(digits.size()) - 3; at > 0; at -= 3) digits.insert(static_cast<size_t>(at), ",");
  return digits;
}

}  // namespace

std::string xbrlJsonInterim(const Year& year, const Year& before, int quarter) {
  const long long number = year.at("year");
  const Year y = toDate(year, before, quarter);
  const int month = (quarter + 1) * 3 + 1;
  const std::string next = std::to_string(number) + (month < 10 ? "-0" : "-") + std::to_string(month) + "-01T00:00:00";
  const std::string period = std::to_string(number) + "-01-01T00:00:00/" + next;
  std::ostringstream out;
  out << "{\n \"documentInfo\": {\n  \"documentType\": \"https://xbrl.org/2021/xbrl-json\",\n  \"namespaces\": {\n"
         "   \"ifrs-full\": \"https://xbrl.ifrs.org/taxonomy/2021-03-24/ifrs-full\",\n"
         "   \"iso4217\": \"http://www.xbrl.org/2003/iso4217\",\n   \"entity\": \"https://registry.example/entities\"\n"
         "  },\n  \"taxonomy\": [\"vessingholt.xsd\"]\n },\n \"facts\": {\n";
  int count = 0;
  const auto fact = [&](const InterimLine& l, const std::string& when) {
    ++count;
    out << (count > 1 ? ",\n" : "") << "  \"f" << count << "\": {\"value\": \"" << y.at(l.line) * 1000
        << "\", \"decimals\": -3, \"dimensions\": {\"concept\": \"ifrs-full:" << l.concept_name
        << "\", \"entity\": \"entity:VESSINGHOLT\", \"period\": \"" << when << "\", \"unit\": \"iso4217:EUR\"}}";
  };
  for (const InterimLine& l : kFlows) fact(l, period);
  for (const InterimLine& l : kBalances) fact(l, next);
  out << "\n }\n}\n";
  return out.str();
}

std::string inlineInterim(const Year& year, const Year& before, int quarter) {
  const std::string number = std::to_string(year.at("year"));
  const Year y = toDate(year, before, quarter);
  const std::string end = endOf(year.at("year"), quarter);
  std::ostringstream out;
  out << "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<!DOCTYPE html>\n"
         "<html xmlns=\"http://www.w3.org/1999/xhtml\" xmlns:ix=\"http://www.xbrl.org/2013/inlineXBRL\"\n"
         "  xmlns:ixt=\"http://www.xbrl.org/inlineXBRL/transformation/2020-02-12\" "
         "xmlns:xbrli=\"http://www.xbrl.org/2003/instance\"\n"
         "  xmlns:iso4217=\"http://www.xbrl.org/2003/iso4217\" "
         "xmlns:ifrs-full=\"https://xbrl.ifrs.org/taxonomy/2021-03-24/ifrs-full\">\n<head><title>Vessingholt interim "
         "report</title></head>\n<body>\n"
         "<div style=\"display:none\"><ix:header><ix:resources>\n";
  const std::string entity =
      "<xbrli:entity><xbrli:identifier "
      "scheme=\"https://registry.example/entities\">VESSINGHOLT</xbrli:identifier></xbrli:entity>";
  out << "<xbrli:context id=\"D\">" << entity << "<xbrli:period><xbrli:startDate>" << number
      << "-01-01</xbrli:startDate><xbrli:endDate>" << end
      << "</xbrli:endDate></xbrli:period></xbrli:context>\n<xbrli:context id=\"I\">" << entity
      << "<xbrli:period><xbrli:instant>" << end
      << "</xbrli:instant></xbrli:period></xbrli:context>\n<xbrli:unit "
         "id=\"EUR\"><xbrli:measure>iso4217:EUR</xbrli:measure></xbrli:unit>\n"
         "</ix:resources></ix:header></div>\n<h1><ix:nonNumeric "
         "name=\"ifrs-full:NameOfReportingEntityOrOtherMeansOfIdentification\" "
         "contextRef=\"D\">Vessingholt N.V.</ix:nonNumeric></h1>\n<p>Interim report, EUR thousand</p>\n<table>\n";
  const auto row = [&](const InterimLine& l, const char* context) {
    const Thousands amount = y.at(l.line);
    out << "<tr><td>" << l.label << "</td><td>" << (amount < 0 ? "(" : "")
        << "<ix:nonFraction name=\"ifrs-full:" << l.concept_name << "\" contextRef=\"" << context
        << "\" unitRef=\"EUR\" decimals=\"-3\" scale=\"3\" format=\"ixt:num-dot-decimal\""
        << (amount < 0 ? " sign=\"-\"" : "") << ">" << grouped(amount) << "</ix:nonFraction>" << (amount < 0 ? ")" : "")
        << "</td></tr>\n";
  };
  for (const InterimLine& l : kFlows) row(l, "D");
  for (const InterimLine& l : kBalances) row(l, "I");
  out << "</table>\n</body>\n</html>\n";
  return out.str();
}

namespace {

std::string columnName(size_t column) {
  return std::string(1, static_cast<char>('A' + column));
}

/// Stored, not packed, with a fixed time: the same bytes everywhere.
std::string packed(const std::vector<std::pair<std::string, std::string>>& parts) {
  zip_error_t error;
  zip_error_init(&error);
  zip_source_t* buffer = zip_source_buffer_create(nullptr, 0, 0, &error);
  zip_t* zip = buffer == nullptr ? nullptr : zip_open_from_source(buffer, ZIP_CREATE | ZIP_TRUNCATE, &error);
  if (zip == nullptr) throw std::runtime_error("cannot make a workbook");
  zip_source_keep(buffer);
  for (const auto& [name, text] : parts) {
    const zip_int64_t at = zip_file_add(zip, name.c_str(), zip_source_buffer(zip, text.data(), text.size(), 0), 0);
    if (at < 0) throw std::runtime_error("cannot add a part to a workbook");
    zip_set_file_compression(zip, static_cast<zip_uint64_t>(at), ZIP_CM_STORE, 0);
    zip_file_set_dostime(zip, static_cast<zip_uint64_t>(at), 0, (46 << 9) | (1 << 5) | 1, 0);  // 1 January 2026
  }
  if (zip_close(zip) != 0) throw std::runtime_error("cannot finish a workbook");
  zip_source_open(buffer);
  zip_source_seek(buffer, 0, SEEK_END);
  std::string bytes(static_cast<size_t>(zip_source_tell(buffer)), '\0');
  zip_source_seek(buffer, 0, SEEK_SET);
  zip_source_read(buffer, bytes.data(), bytes.size());
  zip_source_close(buffer);
  zip_source_free(buffer);
  return bytes;
}

}  // namespace

std::string csvHalfYear(const Year& year, const Year& before) {
  constexpr int kSecondQuarter = 1;
  const Year y = toDate(year, before, kSecondQuarter);
  const std::string number = std::to_string(year.at("year"));
  const std::string end = number + "-" + kEnds[kSecondQuarter];
  std::ostringstream out;
  out << "concept,label,start,end,unit,decimals,value\n";
  const auto write = [&](const InterimLine& l, const std::string& start) {
    out << "ifrs-full:" << l.concept_name << ",\"" << l.label << "\"," << start << ',' << end << ",EUR,-3,"
        << y.at(l.line) << "000\n";
  };
  for (const InterimLine& l : kFlows) write(l, number + "-01-01");
  for (const InterimLine& l : kBalances) write(l, "");
  return out.str();
}

std::string workbookInterims(const Year& year, const Year& before) {
  const std::string number = std::to_string(year.at("year"));
  std::ostringstream rows;
  int r = 0;
  const auto text = [&](size_t column, const std::string& words) {
    rows << "<c r=\"" << columnName(column) << r << "\" t=\"inlineStr\"><is><t>" << words << "</t></is></c>";
  };
  const auto open = [&] { rows << "<row r=\"" << ++r << "\">"; };
  open();
  text(0, "Vessingholt N.V., year to date, EUR thousand");
  rows << "</row>";
  open();
  for (int q = 0; q < 3; ++q) text(static_cast<size_t>(q) + 1, std::to_string(3 * (q + 1)) + "M " + number);
  rows << "</row>";
  const auto line = [&](const InterimLine& l, bool cost) {
    open();
    text(0, l.label);
    for (int q = 0; q < 3; ++q) {
      const Thousands amount = toDate(year, before, q).at(l.line);
      rows << "<c r=\"" << columnName(static_cast<size_t>(q) + 1) << r << "\"><v>" << (cost ? -amount : amount)
           << "</v></c>";
    }
    rows << "</row>";
  };
  // As an analyst keeps it: costs as negatives, one line for all operating expenses.
  for (const InterimLine& l : kFlows) {
    const std::string name = l.line;
    if (name == "distribution" || name == "research") continue;
    if (name == "administration") {
      open();
      text(0, "Operating expenses");
      for (int q = 0; q < 3; ++q) {
        const Year y = toDate(year, before, q);
        rows << "<c r=\"" << columnName(static_cast<size_t>(q) + 1) << r << "\"><v>"
             << -(y.at("distribution") + y.at("administration") + y.at("research")) << "</v></c>";
      }
      rows << "</row>";
      continue;
    }
    line(l, name == "cost_of_sales" || name == "depreciation" || name == "exceptional_items" ||
                name == "interest_expense" || name == "tax");
  }
  for (const InterimLine& l : kBalances) line(l, false);
  const std::string head = "<?xml version=\"1.0\" encoding=\"UTF-8\" standalone=\"yes\"?>\n";
  const std::string package = "http://schemas.openxmlformats.org/package/2006/";
  const std::string office = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
  const std::string sheet = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
  const std::string types = "application/vnd.openxmlformats-officedocument.spreadsheetml.";
  return packed(
      {{"[Content_Types].xml", head + "<Types xmlns=\"" + package +
                                   "content-types\"><Default Extension=\"rels\" "
                                   "ContentType=\"application/vnd.openxmlformats-package.relationships+xml\"/>"
                                   "<Override PartName=\"/xl/workbook.xml\" ContentType=\"" +
                                   types +
                                   "sheet.main+xml\"/>"
                                   "<Override PartName=\"/xl/worksheets/sheet1.xml\" ContentType=\"" +
                                   types + "worksheet+xml\"/></Types>"},
       {"_rels/.rels", head + "<Relationships xmlns=\"" + package + "relationships\"><Relationship Id=\"r1\" Type=\"" +
                           office + "/officeDocument\" Target=\"xl/workbook.xml\"/></Relationships>"},
       {"xl/workbook.xml", head + "<workbook xmlns=\"" + sheet + "\" xmlns:r=\"" + office +
                               "\"><sheets><sheet name=\"Interim\" sheetId=\"1\" r:id=\"r1\"/></sheets></workbook>"},
       {"xl/_rels/workbook.xml.rels", head + "<Relationships xmlns=\"" + package +
                                          "relationships\"><Relationship Id=\"r1\" Type=\"" + office +
                                          "/worksheet\" Target=\"worksheets/sheet1.xml\"/></Relationships>"},
       {"xl/worksheets/sheet1.xml",
        head + "<worksheet xmlns=\"" + sheet + "\"><sheetData>" + rows.str() + "</sheetData></worksheet>"}});
}

}  // namespace demo
