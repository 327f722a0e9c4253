#include "exchange/oim/xbrl_csv.h"

#include <algorithm>

#include "core/quantity/decimal.h"
#include "exchange/content.h"
#include "exchange/csv/table.h"
#include "exchange/oim/dimensions.h"
#include "exchange/xbrl/vocabulary.h"

namespace zl::exchange {
namespace {

using TextMap = std::map<std::string, std::string>;

/// Thrown inside this file only.
struct Refusal {
  Error error;
};

[[noreturn]] void refuse(const std::string& what, const std::string& where, ErrorKind kind = ErrorKind::BadInput) {
  throw Refusal{{kind, what, where, "The layout is that of xBRL-CSV 1.0"}};
}

/// An object's member; an empty object where it is missing.
const Json& objectOf(const Json& parent, const char* key, const std::string& where) {
  static const Json kNone = Json::object();
  const auto found = parent.find(key);
  if (found == parent.end()) return kNone;
  if (!found->is_object()) refuse(std::string("'") + key + "' must be an object", where);
  return *found;
}

TextMap textsOf(const Json& object, const std::string& where) {
  TextMap texts;
  for (const auto& [key, value] : object.items()) {
    if (value.is_string()) {
      texts[key] = value.get<std::string>();
    } else if (value.is_number_integer()) {
      texts[key] = std::to_string(value.get<long long>());
    } else if (!value.is_null()) {
      refuse("'" + key + "' must be text", where);
    }
  }
  return texts;
}

/// The dimensions and decimals that a level of the description gives to all facts below it.
struct Level {
  TextMap dimensions;
  std::string decimals;

  void take(const Json& object, const std::string& where) {
    for (const auto& [name, value] : textsOf(objectOf(object, "dimensions", where), where)) dimensions[name] = value;
    const auto found = object.find("decimals");
    if (found == object.end()) return;
    if (found->is_number_integer()) {
      decimals = std::to_string(found->get<long long>());
    } else if (found->is_string()) {
      decimals = found->get<std::string>();
    } else {
      refuse("'decimals' must be a whole number or a reference", where);
    }
  }
};

/// Only files given along are read, so the folder in a table's address does not matter.
std::string fileOf(const std::string& url) {
  return url.substr(url.rfind('/') + 1);
}

class ReportReader {
 public:
  ReportReader(const Json& description, std::string name, std::span<const NamedContent> tables,
               const StopCheck& stopped)
      : json_(description), name_(std::move(name)), files_(tables), names_(namespaces()), stopped_(stopped) {}

  Result<Filing> run() {
    const Json& info = json_.at("documentInfo");
    if (info.contains("extends")) refuse("descriptions that extend others are not read", name_, ErrorKind::Unsupported);
    Level report;
    report.take(json_, name_);
    const TextMap parameters = textsOf(objectOf(json_, "parameters", name_), name_);
    const Json& templates = objectOf(json_, "tableTemplates", name_);
    const Json& tables = objectOf(json_, "tables", name_);
    if (tables.empty()) refuse("the description names no tables", name_);
    for (const auto& [id, table] : tables.items()) {
      const std::string where = name_ + ", table '" + id + "'";
      if (!table.is_object()) refuse("a table must be an object", where);
      const std::string templateName = table.value("template", id);
      if (!templates.contains(templateName)) refuse("the template '" + templateName + "' is not described", where);
      TextMap known = parameters;
      for (const auto& [key, value] : textsOf(objectOf(table, "parameters", where), where)) known[key] = value;
      readTable(table, templates.at(templateName), report, known, where);
    }
    return report_.finish(name_, ContentKind::XbrlCsv, "the tables hold");
  }

 private:
  const Json* namespaces() const {
    const Json& info = json_.at("documentInfo");
    return info.contains("namespaces") ? &info["namespaces"] : nullptr;
  }

  void readTable(const Json& table, const Json& layout, const Level& report, const TextMap& parameters,
                 const std::string& where) {
    const auto url = table.find("url");
    if (url == table.end() || !url->is_string()) refuse("a table needs a 'url'", where);
    const std::string file = fileOf(url->get<std::string>());
    const auto given =
        std::find_if(files_.begin(), files_.end(), [&](const NamedContent& f) { return f.name == file; });
    if (given == files_.end()) {
      if (table.value("optional", false)) return;
      refuse("the table's file '" + file + "' was not given along", where);
    }
    const Result<CsvTable> csv = CsvTable::read(given->content, file, stopped_);
    if (!csv) throw Refusal{csv.error()};
    Level level = report;
    level.take(layout, where);
    const Json& columns = objectOf(layout, "columns", where);
    const std::string rowId = layout.value("rowIdColumn", std::string());
    for (const auto& [column, about] : columns.items()) {
      if (!about.is_object()) refuse("the column '" + column + "' must be an object", where);
      if (about.contains("propertyGroups") || about.contains("propertiesFrom")) {
        refuse("the column '" + column + "' uses property groups, which are not read", where, ErrorKind::Unsupported);
      }
      if (!about.contains("dimensions")) continue;  // a plain column: others refer to it
      if (csv->column(column) < 0) continue;        // columns may be left out of a table
      Level own = level;
      own.take(about, where);
      for (const CsvRow& row : csv->rows()) {
        try {
          readCell(*csv, row, column, own, parameters, rowId);
        } catch (const Refusal& refusal) {
          if (refusal.error.kind == ErrorKind::Cancelled) throw;
          report_.setAside(refusal.error);
        }
      }
    }
  }

  void readCell(const CsvTable& csv, const CsvRow& row, const std::string& column, const Level& level,
                const TextMap& parameters, const std::string& rowId) {
    constexpr size_t kBetween = 4096;
    if (++cells_ % kBetween == 0 && stopped_()) {
      throw Refusal{{ErrorKind::Cancelled, "reading was stopped; nothing is stored", name_, {}}};
    }
    if (const Status whole = csv.check(row); !whole) throw Refusal{whole.error()};
    const std::string& cell = csv.cell(row, column);
    if (cell.empty() || cell == "#none") return;
    const std::string where = csv.where(row) + ", column '" + column + "'";
    // $name stands for the row's cell of that column, else for a parameter; $$ for a dollar sign.
    const auto resolved = [&](const std::string& text) -> std::string {
      if (text.size() < 2 || text[0] != '$') return text;
      if (text[1] == '$') return text.substr(1);
      std::string reference = text.substr(1);
      std::string suffix;
      if (const std::size_t at = reference.find('@'); at != std::string::npos) {
        suffix = reference.substr(at);
        reference.resize(at);
      }
      if (csv.column(reference) >= 0) return csv.cell(row, reference) + suffix;
      const auto parameter = parameters.find(reference);
      if (parameter == parameters.end()) refuse("'" + text + "' names neither a column nor a parameter", where);
      return parameter->second + suffix;
    };
    TextMap dimensions;
    for (const auto& [dimension, text] : level.dimensions) {
      const std::string value = resolved(text);
      if (!value.empty() && value != "#none") dimensions[dimension] = value;
    }
    const std::string decimals = resolved(level.decimals);
    if (dimensions.count("unit") == 0 && decimals.empty()) {
      report_.countText();
      return;
    }
    Fact fact;
    if (Status s = readDimensions(dimensions, names_, fact); !s) refuse(s.error().what, where);
    fact.place =
        csv.where(row) + (rowId.empty() ? "" : ", row '" + csv.cell(row, rowId) + "'") + ", column '" + column + "'";
    fact.nil = cell == "#nil";
    if (!fact.nil) {
      fact.text = cell;
      if (!Decimal::isNumber(cell)) refuse("'" + cell.substr(0, 40) + "' is not a decimal number", where);
      fact.exact = decimals.empty() || decimals == "#none";
      if (!fact.exact) {
        if (Status s = readPrecision(decimals, {}, fact); !s) refuse(s.error().what, where);
      }
    }
    report_.add(std::move(fact), dimensions);
  }

  const Json& json_;
  std::string name_;
  std::span<const NamedContent> files_;
  OimNames names_;
  const StopCheck& stopped_;
  size_t cells_ = 0;
  OimReport report_;
};

}  // namespace

std::vector<std::string> xbrlCsvTables(std::string_view description) {
  std::vector<std::string> names;
  const Result<Json> json = parseJson(description, "");
  if (!json || oimDocumentType(*json) != "xbrl-csv") return names;
  const auto tables = json->find("tables");
  if (tables == json->end() || !tables->is_object()) return names;
  for (const auto& [id, table] : tables->items()) {
    if (table.is_object() && table.contains("url") && table["url"].is_string()) {
      names.push_back(fileOf(table["url"].get<std::string>()));
    }
  }
  return names;
}

Result<Filing> readXbrlCsv(const NamedContent& description, std::span<const NamedContent> tables,
                           const StopCheck& stopped) {
  const Result<Json> json = parseJson(description.content, description.name);
  if (!json) return tl::unexpected(json.error());
  if (oimDocumentType(*json) != "xbrl-csv") {
    return fail(ErrorKind::WrongKind, "the document type is not xBRL-CSV", description.name);
  }
  try {
    return ReportReader(*json, description.name, tables, stopped).run();
  } catch (const Refusal& refusal) {
    return tl::unexpected(refusal.error);
  } catch (const Json::exception&) {
    return fail(ErrorKind::BadInput, "a member of the description has another type than the standard's",
                description.name, "The layout is that of xBRL-CSV 1.0");
  }
}

}  // namespace zl::exchange
