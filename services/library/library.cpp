#include "services/library/library.h"

#include <algorithm>
#include <utility>

#include "exchange/content.h"
#include "exchange/json/company_json.h"
#include "exchange/json/reader.h"
#include "services/gather.h"
#include "services/library/stored_case.h"
#include "services/report.h"
#include "services/text_cells.h"

namespace zl::services {
namespace {

using exchange::Json;

/// The name in the newest record, where it can be read; who cannot be read is found under the id.
Result<std::string> nameOf(store::Book& book, const std::string& id) {
  const Result<std::vector<store::StoredDocument>> documents = book.documents(id);
  if (!documents) return tl::unexpected(documents.error());
  const auto record = std::find_if(documents->rbegin(), documents->rend(), [](const store::StoredDocument& d) {
    return d.active && d.document.kind == exchange::contentKindText(exchange::ContentKind::CompanyRecord);
  });
  if (record == documents->rend()) return id;
  const Result<std::string> content = book.content(record->document.id);
  if (!content) return tl::unexpected(content.error());
  const Result<Json> json = exchange::parseJson(*content, record->document.name);
  const Result<Company> company =
      json ? exchange::companyFromJson(*json, record->document.name) : tl::unexpected(json.error());
  return company && !company->name.empty() ? company->name : id;
}

Result<CompanyValue> valueOf(store::Book& book, const CompanyEntry& entry, CaseEvaluator& evaluator, Date today) {
  const Result<std::shared_ptr<const Evidence>> evidence = gather(book, entry.id);
  if (!evidence) return tl::unexpected(evidence.error());
  const Result<std::optional<std::string>> text = book.caseText(entry.id);
  if (!text) return tl::unexpected(text.error());
  const Result<StoredCase> stored = storedCase(*text, *evidence, evaluator, today);
  if (!stored) return tl::unexpected(stored.error());
  const Result<Evaluated> e = evaluator.evaluate(*evidence, stored->theCase, Standing::StoodBefore);
  if (!e) return tl::unexpected(e.error());
  CompanyValue value;
  value.company = entry;
  value.unit = (*evidence)->company.listing.unit;
  value.valuedOn = e->caseOf().valuationDate;
  value.price = e->givens.at("price").figure;
  for (size_t i = 0; i < e->caseOf().scenarios.size(); ++i) {
    const Scenario& s = e->caseOf().scenarios[i];
    value.values.push_back({s.id, s.label, e->evaluation->constant("value_per_share", static_cast<int>(i))});
  }
  value.weighted = weightedValue(*e->evaluation, "value_per_share");
  value.upside = value.price.hasValue() && value.price.value() <= 0 ? Figure::notMeaningful("the price is not positive")
                                                                    : value.weighted / value.price - Figure::of(1);
  return value;
}

}  // namespace

Result<std::vector<CompanyEntry>> companiesOf(store::Book& book) {
  const Result<store::Book::Moment> moment = book.moment();
  if (!moment) return tl::unexpected(moment.error());
  const Result<std::vector<std::string>> ids = book.companies();
  if (!ids) return tl::unexpected(ids.error());
  std::vector<CompanyEntry> entries;
  for (const std::string& id : *ids) {
    Result<std::string> name = nameOf(book, id);
    if (!name) return tl::unexpected(name.error());
    entries.push_back({id, std::move(*name)});
  }
  const auto place = [](const CompanyEntry& e) {
    std::string folded = e.name;
    for (char& c : folded) c = c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c;
    return std::pair(std::move(folded), e.id);
  };
  std::sort(entries.begin(), entries.end(),
            [&](const CompanyEntry& a, const CompanyEntry& b) { return place(a) < place(b); });
  return entries;
}

std::string companyList(const std::vector<std::string>& ids) {
  constexpr size_t kMost = 12;
  std::string names;
  for (size_t i = 0; i < std::min(kMost, ids.size()); ++i) names += (i == 0 ? "" : ", ") + ids[i];
  if (ids.size() > kMost) names += " and " + std::to_string(ids.size() - kMost) + " more";
  return names;
}

Result<std::vector<CompanyValue>> valuesOf(store::Book& book, CaseEvaluator& evaluator, Date today,
                                           const exchange::StopCheck& stopped,
                                           const std::function<void(size_t, size_t)>& progress) {
  const Result<std::vector<CompanyEntry>> entries = companiesOf(book);
  if (!entries) return tl::unexpected(entries.error());
  std::vector<CompanyValue> values;
  for (const CompanyEntry& entry : *entries) {
    if (stopped()) return fail(ErrorKind::Cancelled, "the valuing was stopped", book.path());
    if (progress) progress(values.size(), entries->size());
    // One moment each: others may write between two companies, and not within one.
    const Result<store::Book::Moment> moment = book.moment();
    if (!moment) return tl::unexpected(moment.error());
    Result<CompanyValue> value = valueOf(book, entry, evaluator, today);
    if (value) {
      values.push_back(std::move(*value));
    } else {
      values.push_back({});
      values.back().company = entry;
      values.back().fault = value.error().text();
    }
  }
  return values;
}

Json valuesJson(const std::vector<CompanyValue>& values) {
  Json list = Json::array();
  for (const CompanyValue& v : values) {
    Json item{{"company", v.company.id}, {"name", v.company.name}};
    if (!v.fault.empty()) {
      item["fault"] = v.fault;
    } else {
      Json scenarios = Json::object();
      for (const ScenarioValue& s : v.values) scenarios[s.id] = figureJson(s.value);
      item["unit"] = v.unit;
      item["valued_on"] = dateText(v.valuedOn);
      item["price"] = figureJson(v.price);
      item["value_per_share"] = std::move(scenarios);
      item["probability_weighted_value"] = figureJson(v.weighted);
      item["upside"] = figureJson(v.upside);
    }
    list.push_back(std::move(item));
  }
  return list;
}

std::string valuesText(const std::vector<CompanyValue>& values) {
  std::string out = "company,name,unit,valued on,price,worst,base,best,weighted,upside %,fault\n";
  for (const CompanyValue& v : values) {
    const auto of = [&](const char* id) {
      const auto found = std::find_if(v.values.begin(), v.values.end(), [&](const auto& s) { return s.id == id; });
      return csvCell(found == v.values.end() ? "-" : shownOrDash(found->value, Kind::Quote));
    };
    out += csvCell(v.company.id) + "," + csvCell(v.company.name) + ",";
    if (v.fault.empty()) {
      out += csvCell(v.unit) + "," + dateText(v.valuedOn) + "," + csvCell(shownOrDash(v.price, Kind::Quote)) + "," +
             of("worst") + "," + of(kBase) + "," + of("best") + "," + csvCell(shownOrDash(v.weighted, Kind::Quote)) +
             "," + csvCell(shownOrDash(v.upside, Kind::Ratio)) + ",\n";
    } else {
      out += ",,,,,,,," + csvCell(v.fault) + "\n";
    }
  }
  return out;
}

}  // namespace zl::services
