#include "services/edits/record_edits.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <sstream>

#include "core/period/date.h"
#include "core/quantity/number_text.h"
#include "exchange/json/company_json.h"
#include "services/text/likely_names.h"

namespace zl::services {

using exchange::Json;
using FieldKind = RecordField::Kind;

namespace {

constexpr const char* kOperating = "operating_figures";

/// "listing.unit" to the member of the record that notes are kept by.
std::string memberOf(const std::string& key) {
  return key.substr(0, key.find('.'));
}

Json::json_pointer pointerTo(const std::string& key) {
  std::string path = "/" + key;
  std::replace(path.begin(), path.end(), '.', '/');
  return Json::json_pointer(path);
}

/// As it would be typed.
std::string textOfValue(const Json& value, FieldKind kind) {
  if (value.is_string()) return value.get<std::string>();
  if (value.is_boolean()) return value.get<bool>() ? "yes" : "no";
  if (!value.is_number()) return {};
  const double number = value.get<double>();
  return kind == FieldKind::Rate ? plainNumber(std::round(number * 1e12) / 1e10) + "%" : plainNumber(number);
}

Result<Json> valueOf(const std::string& typed, const RecordField& field, const std::string& where) {
  const auto bad = [&](const std::string& what, const std::string& todo) {
    return fail(ErrorKind::BadInput, "'" + typed + "' is no " + what + " for " + field.label, where, todo);
  };
  switch (field.kind) {
    case FieldKind::Text:
      return Json(typed);
    case FieldKind::Day: {
      const std::optional<Date> day = parseDate(typed);
      if (!day) return bad("date", "Write it as 2026-04-30");
      return Json(typed);
    }
    case FieldKind::YesNo: {
      static const std::set<std::string> kYes = {"yes", "y", "true", "floating", "1"};
      static const std::set<std::string> kNo = {"no", "n", "false", "fixed", "0"};
      if (kYes.count(typed) > 0) return Json(true);
      if (kNo.count(typed) > 0) return Json(false);
      return bad("answer", "Write yes or no");
    }
    case FieldKind::Whole: {
      const std::optional<double> number = typedNumber(typed);
      if (!number || *number != std::floor(*number) || std::fabs(*number) > 1e6)
        return bad("whole number", "Write it as 2029");
      return Json(static_cast<int>(*number));
    }
    case FieldKind::Rate: {
      const std::optional<double> number = typedFigure(typed, Kind::Ratio);
      if (!number) return bad("rate", "Write it as 4.5%");
      return Json(*number);
    }
    case FieldKind::Number:
    case FieldKind::Shares:
    case FieldKind::Amount:
      break;
  }
  const std::optional<double> number = typedNumber(typed);
  if (!number) return bad("number", "Numbers may read 1250000, 12.5m, 1.2bn, 1,250.5 or 1 250,5");
  return Json(*number);
}

std::string trimmed(const std::string& text) {
  const size_t first = text.find_first_not_of(" \t\r\n");
  if (first == std::string::npos) return {};
  return text.substr(first, text.find_last_not_of(" \t\r\n") - first + 1);
}

/// Names the field as the window does where the reader of records names a JSON member.
Result<Company> readBack(const Json& json, const std::string& label) {
  Result<Company> read = exchange::companyFromJson(json, "company record");
  if (read) return read;
  Error error = read.error();
  error.where = label;
  if (error.todo.empty()) error.todo = "Nothing was changed";
  return tl::unexpected(error);
}

RecordEdit edited(Company after, const std::string& member, std::string label, const RecordNote& said) {
  after.said[member] = said;
  if (!said.reason.empty()) label += ": " + said.reason;
  return {std::move(after), std::move(label)};
}

/// Operating figures hold years within; a row names figure, unit, year and number.
Json operatingJson(const std::vector<Json>& rows) {
  Json list = Json::array();
  for (const Json& row : rows) {
    const auto same = std::find_if(list.begin(), list.end(), [&](const Json& f) { return f["name"] == row["name"]; });
    Json& figure = same != list.end() ? *same : list.emplace_back(Json{{"name", row["name"]}, {"unit", row["unit"]}});
    figure["years"].push_back({{"year", row["year"]}, {"figure", row["figure"]}});
  }
  for (Json& figure : list) {
    std::stable_sort(figure["years"].begin(), figure["years"].end(),
                     [](const Json& a, const Json& b) { return a["year"] < b["year"]; });
  }
  return list;
}

Result<Json> rowJson(const RecordRow& row, const RecordList& list, const std::string& where) {
  Json item = Json::object();
  for (size_t c = 0; c < list.columns.size(); ++c) {
    const RecordField& column = list.columns[c];
    const std::string typed = c < row.size() ? trimmed(row[c]) : std::string();
    if (typed.empty()) {
      if (column.needed) return fail(ErrorKind::BadInput, column.label + " is missing", where, column.hint);
      continue;
    }
    Result<Json> value = valueOf(typed, column, where);
    if (!value) return value;
    item[column.key] = std::move(*value);
  }
  return item;
}

}  // namespace

const std::vector<RecordField>& recordFields() {
  static const std::vector<RecordField> kFields = {
      {"name", "Name", FieldKind::Text, "The company's name"},
      {"description", "What it does", FieldKind::Text, "In a sentence"},
      {"sector", "Sector", FieldKind::Text, "In the analyst's own words"},
      {"country", "Country of tax", FieldKind::Text, "Two capital letters, such as DE"},
      {"fiscal_year_end", "Fiscal year ends", FieldKind::Text, "Month and day, such as 09-30; empty: as filed"},
      {"currency", "Reporting currency", FieldKind::Text, "A code of three letters, such as EUR"},
      {"control", "Control", FieldKind::Text, "Who controls it, and how"},
      {"listing.unit", "Price unit", FieldKind::Text, "What prices are quoted in: EUR, GBX"},
      {"listing.currency", "Price currency", FieldKind::Text, "The currency of that unit: GBP for GBX"},
      {"listing.minor_per_major", "Units to the currency", FieldKind::Number, "100 for pence, else 1"},
      {"listing.shares_per_listed", "Shares per security", FieldKind::Number,
       "10 where a receipt stands for ten shares, 0.5 where two receipts make one"},
      {"shares", "Ordinary shares now", FieldKind::Shares, "Outstanding, without those the company holds"},
      {"options", "Options", FieldKind::Shares, "Outstanding"},
      {"option_strike", "Option strike", FieldKind::Number, "Average, in the price's unit per share"},
      {"unvested_shares", "Unvested shares", FieldKind::Shares, "Granted and not yet vested"},
      {"convertible_shares", "Convertible into", FieldKind::Shares, "Ordinary shares on conversion"},
      {"convertible_face", "Convertible's face", FieldKind::Amount, "In reporting currency"}};
  return kFields;
}

const std::vector<RecordList>& recordLists() {
  static const std::vector<RecordList> kLists = {
      {"further_listings",
       "Further listings",
       "Where else it is traded",
       {{"unit", "Price unit", FieldKind::Text, "EUR, GBX", true},
        {"currency", "Currency", FieldKind::Text, "GBP for GBX", true},
        {"minor_per_major", "Units to the currency", FieldKind::Number, "100 for pence, else 1", true},
        {"shares_per_listed", "Shares per security", FieldKind::Number, "1 where left out", false}}},
      {"option_tranches",
       "Options, further tranches",
       "Besides those above; each counts by itself, until it expires",
       {{"count", "Options", FieldKind::Shares, "1.2m", true},
        {"strike", "Strike per share", FieldKind::Number, "450", true},
        {"unit", "In", FieldKind::Text, "EUR, GBX; the price's unit where left out", false},
        {"expiry", "Expires", FieldKind::Day, "2029-06-30", false},
        {"what", "What", FieldKind::Text, "", false}}},
      {"convertibles",
       "Convertibles, further ones",
       "Besides the one above; part of the filed borrowings, face in reporting currency",
       {{"shares", "Shares on conversion", FieldKind::Shares, "2.5m", true},
        {"face", "Face", FieldKind::Amount, "80m", true},
        {"due", "Due", FieldKind::Day, "2029-06-30", false},
        {"what", "What", FieldKind::Text, "", false}}},
      {"identifiers",
       "Identifiers",
       "Of any register",
       {{"scheme", "Register", FieldKind::Text, "ISIN", true}, {"value", "Identifier", FieldKind::Text, "", true}}},
      {"share_classes",
       "Share classes",
       "What each may vote, and who holds it",
       {{"name", "Class", FieldKind::Text, "A", true},
        {"shares", "Shares", FieldKind::Shares, "12.5m", true},
        {"votes", "Votes each", FieldKind::Number, "10", true},
        {"holder", "Holder", FieldKind::Text, "", false}}},
      {"splits",
       "Splits",
       "2 for 1 doubles the count",
       {{"on", "Day", FieldKind::Day, "2025-06-02", true},
        {"now", "Now", FieldKind::Number, "2", true},
        {"before", "For", FieldKind::Number, "1", true}}},
      {"debt_due",
       "Debt by year due",
       "In reporting currency",
       {{"year", "Year", FieldKind::Whole, "2029", true},
        {"amount", "Amount", FieldKind::Amount, "350m", true},
        {"floating", "Floating", FieldKind::YesNo, "yes or no", true},
        {"what", "What", FieldKind::Text, "", false},
        {"rate", "Rate", FieldKind::Rate, "4.5%", false}}},
      {kOperating,
       "Operating figures",
       "With units of their own, by fiscal year",
       {{"name", "Figure", FieldKind::Text, "Machines sold", true},
        {"unit", "Unit", FieldKind::Text, "pieces", true},
        {"year", "Year", FieldKind::Whole, "2025", true},
        {"figure", "Number", FieldKind::Number, "1200", true}}},
      {"part_names",
       "Names of parts",
       "Segments and regions as a filing names them, and as they are to be called",
       {{"filed", "As filed", FieldKind::Text, "Segment A", true},
        {"called", "Called", FieldKind::Text, "Machines", true}}},
      {"holders",
       "Holders",
       "Who holds shares, as of a day",
       {{"holder", "Holder", FieldKind::Text, "A name", true},
        {"shares", "Shares", FieldKind::Shares, "5.5m", true},
        {"on", "As of", FieldKind::Day, "2026-04-30", true},
        {"source", "Source", FieldKind::Text, "", false}}},
      {"insider_trades",
       "Insiders' trades",
       "Bought is positive, sold negative; the price in the listing's unit",
       {{"on", "Day", FieldKind::Day, "2026-03-12", true},
        {"who", "Who", FieldKind::Text, "Name, office", true},
        {"shares", "Shares", FieldKind::Shares, "-20000", true},
        {"price", "Price", FieldKind::Number, "512", false},
        {"source", "Source", FieldKind::Text, "", false}}},
      {"peers",
       "Who the peers are",
       "By the name they have in the tables",
       {{"peer", "Peer", FieldKind::Text, "As in the table", true},
        {"called", "Called", FieldKind::Text, "", false},
        {"country", "Country", FieldKind::Text, "", false},
        {"business", "What it does", FieldKind::Text, "", false},
        {"identifier", "Identifier", FieldKind::Text, "ISIN or other", false}}},
      {"events",
       "Events",
       "What happened, marked on charts",
       {{"on", "Day", FieldKind::Day, "2025-06-02", true},
        {"what", "What happened", FieldKind::Text, "A sentence", true},
        {"line", "Line", FieldKind::Text, "A standard line, or nothing", false}}},
      {"deals",
       "Deals",
       "Bought, or sold at a negative price; in reporting currency",
       {{"on", "Day", FieldKind::Day, "2025-06-02", true},
        {"what", "What", FieldKind::Text, "The business", true},
        {"price", "Price", FieldKind::Amount, "350m", true},
        {"goodwill", "Goodwill", FieldKind::Amount, "", false},
        {"revenue", "Revenue of its first year", FieldKind::Amount, "", false},
        {"profit", "EBIT of its first year", FieldKind::Amount, "", false}}}};
  return kLists;
}

const RecordField* recordField(const std::string& key) {
  const auto found =
      std::find_if(recordFields().begin(), recordFields().end(), [&](const RecordField& f) { return f.key == key; });
  return found == recordFields().end() ? nullptr : &*found;
}

const RecordList* recordList(const std::string& key) {
  const auto found =
      std::find_if(recordLists().begin(), recordLists().end(), [&](const RecordList& l) { return l.key == key; });
  return found == recordLists().end() ? nullptr : &*found;
}

std::string fieldText(const Company& company, const RecordField& field) {
  const Json json = exchange::toJson(company);
  const Json::json_pointer at = pointerTo(field.key);
  if (!json.contains(at)) return {};
  const Json& value = json.at(at);
  const bool count = field.kind == FieldKind::Shares || field.kind == FieldKind::Amount || field.key == "option_strike";
  if (count && value.is_number() && value.get<double>() == 0) return {};  // nought and nothing are one in these
  return textOfValue(value, field.kind);
}

std::vector<RecordRow> listTexts(const Company& company, const RecordList& list) {
  std::vector<RecordRow> rows;
  const Json json = exchange::toJson(company);
  const auto add = [&](const Json& item) {
    RecordRow row;
    for (const RecordField& column : list.columns) {
      row.push_back(item.contains(column.key) ? textOfValue(item.at(column.key), column.kind) : std::string());
    }
    rows.push_back(std::move(row));
  };
  if (!json.contains(list.key)) return rows;
  for (const Json& item : json.at(list.key)) {
    if (list.key != kOperating) {
      add(item);
      continue;
    }
    for (const Json& year : item.at("years")) {
      add({{"name", item.at("name")},
           {"unit", item.at("unit")},
           {"year", year.at("year")},
           {"figure", year.at("figure")}});
    }
  }
  return rows;
}

std::vector<RecordRow> recordRows(const std::string& text) {
  const char mark = text.find('\t') != std::string::npos ? '\t' : ';';
  std::vector<RecordRow> rows;
  std::istringstream lines(text);
  for (std::string line; std::getline(lines, line);) {
    if (!line.empty() && line.back() == '\r') line.pop_back();
    RecordRow row;
    for (size_t from = 0; from <= line.size();) {
      const size_t end = std::min(line.find(mark, from), line.size());
      row.push_back(trimmed(line.substr(from, end - from)));
      from = end + 1;
    }
    if (!trimmed(line).empty()) rows.push_back(std::move(row));
  }
  return rows;
}

Result<RecordEdit> setField(const Company& company, const std::string& key, const std::string& given,
                            const RecordNote& said) {
  const RecordField* field = recordField(key);
  if (field == nullptr) {
    std::set<std::string> known;
    for (const RecordField& f : recordFields()) known.insert(f.key);
    return fail(ErrorKind::NotFound, "the record has no field '" + key + "'", "company record",
                likelyNames(key, known));
  }
  const std::string typed = trimmed(given);
  Json json = exchange::toJson(company);
  if (typed.empty() && field->kind != FieldKind::Text) {
    const Json::json_pointer at = pointerTo(key);
    if (json.contains(at)) json.at(at.parent_pointer()).erase(at.back());
  } else {
    Result<Json> value = valueOf(typed, *field, field->label);
    if (!value) return tl::unexpected(value.error());
    json[pointerTo(key)] = std::move(*value);
  }
  Result<Company> after = readBack(json, field->label);
  if (!after) return tl::unexpected(after.error());
  if (after->name.empty())
    return fail(ErrorKind::BadInput, "a company has a name", field->label, "Nothing was changed");
  return edited(std::move(*after), memberOf(key),
                typed.empty() ? "Take " + field->label + " off the record" : "Record " + field->label + " " + typed,
                said);
}

Result<RecordEdit> setList(const Company& company, const std::string& key, const std::vector<RecordRow>& rows,
                           const RecordNote& said) {
  const RecordList* list = recordList(key);
  if (list == nullptr) {
    std::set<std::string> known;
    for (const RecordList& l : recordLists()) known.insert(l.key);
    return fail(ErrorKind::NotFound, "the record has no list '" + key + "'", "company record", likelyNames(key, known));
  }
  std::vector<Json> items;
  for (size_t r = 0; r < rows.size(); ++r) {
    if (std::all_of(rows[r].begin(), rows[r].end(), [](const std::string& text) { return trimmed(text).empty(); }))
      continue;
    const std::string where = list->label + ", row " + std::to_string(r + 1);
    if (rows[r].size() > list->columns.size())
      return fail(ErrorKind::BadInput, "there are more cells than columns", where, "Nothing was changed");
    Result<Json> item = rowJson(rows[r], *list, where);
    if (!item) return tl::unexpected(item.error());
    items.push_back(std::move(*item));
  }
  for (const Json& item : items) {
    const bool another = key == kOperating && std::any_of(items.begin(), items.end(), [&](const Json& other) {
                           return other["name"] == item["name"] && other["unit"] != item["unit"];
                         });
    if (another) {
      return fail(ErrorKind::BadInput, "'" + item["name"].get<std::string>() + "' is given in two units", list->label,
                  "Give each figure one unit");
    }
  }
  Json json = exchange::toJson(company);
  json[key] = key == kOperating ? operatingJson(items) : Json(items);
  Result<Company> after = readBack(json, list->label);
  if (!after) return tl::unexpected(after.error());
  return edited(std::move(*after), key, "Record " + list->label, said);
}

Result<RecordEdit> valueListing(const Company& company, size_t further, const Figure& rate, const RecordNote& said) {
  if (further >= company.furtherListings.size()) {
    return fail(ErrorKind::NotFound, "there is no such further listing", "company record",
                "The record has " + std::to_string(company.furtherListings.size()) + " of them");
  }
  Company after = company;
  if (after.plainPricesIn.empty()) after.plainPricesIn = company.listing.unit;
  for (OptionTranche& t : after.optionTranches) {  // stay in what they were typed in
    if (t.unit.empty()) t.unit = company.listing.unit;
  }
  std::swap(after.listing, after.furtherListings[further]);
  if (after.optionStrike != 0) {
    if (!rate.hasValue()) {
      return fail(ErrorKind::NotFound, "the options' strike cannot be told in " + after.listing.unit, rate.reason(),
                  "Type the rate 'spot " + company.listing.currency + "/" + after.listing.currency + "' first");
    }
    after.optionStrike *= rate.value() * after.listing.minorPerMajor / company.listing.minorPerMajor;
  }
  return edited(std::move(after), "listing", "Value the listing in " + company.furtherListings[further].unit, said);
}

}  // namespace zl::services
