#include "services/library/library.h"

#include <algorithm>
#include <atomic>
#include <exception>
#include <thread>
#include <utility>

#include "exchange/content.h"
#include "exchange/json/book_home.h"
#include "exchange/json/company_json.h"
#include "exchange/json/reader.h"
#include "services/library/companions.h"
#include "services/library/stored_case.h"
#include "services/text/figure_json.h"
#include "services/text/text_cells.h"

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
  const Result<Sources> sources = gatherWithPeers(book, entry.id, evaluator, today);
  if (!sources) return tl::unexpected(sources.error());
  const Result<std::optional<std::string>> text = book.caseText(entry.id);
  if (!text) return tl::unexpected(text.error());
  const Result<StoredCase> stored = storedCase(*text, *sources, evaluator, today);
  if (!stored) return tl::unexpected(stored.error());
  const Result<Evaluated> e = evaluator.evaluate(*sources, stored->theCase, Standing::StoodBefore);
  if (!e) return tl::unexpected(e.error());
  CompanyValue value;
  value.company = entry;
  value.unit = sources->evidence->company.listing.unit;
  value.valuedOn = e->caseOf().valuationDate;
  value.price = givenOf(e->evaluation->model(), e->given->givens, model::Role::Price).figure;
  for (size_t i = 0; i < e->caseOf().scenarios.size(); ++i) {
    const Scenario& s = e->caseOf().scenarios[i];
    value.values.push_back({s.id, s.label, e->evaluation->constant(model::Role::ValuePerShare, static_cast<int>(i))});
  }
  value.weighted = weightedValue(*e->evaluation, model::Role::ValuePerShare);
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

Result<std::string> homeOf(store::Book& book) {
  const Result<std::vector<std::string>> ids = book.companies();
  if (!ids) return tl::unexpected(ids.error());
  if (ids->size() == 1) return ids->front();
  const Result<std::vector<store::StoredDocument>> documents = book.documents(std::string());
  if (!documents) return tl::unexpected(documents.error());
  std::string home;
  for (const store::StoredDocument& d : *documents) {
    if (!d.active || d.document.kind != exchange::contentKindText(exchange::ContentKind::BookHome)) continue;
    const Result<std::string> content = book.content(d.document.id);
    if (!content) return tl::unexpected(content.error());
    Result<std::string> named = exchange::bookHomeFrom(*content, d.document.name);
    if (!named) return named;
    home = std::move(*named);
  }
  return std::find(ids->begin(), ids->end(), home) == ids->end() ? std::string() : home;
}

std::string companyList(const std::vector<std::string>& ids) {
  constexpr size_t kMost = 12;
  std::string names;
  for (size_t i = 0; i < std::min(kMost, ids.size()); ++i) names += (i == 0 ? "" : ", ") + ids[i];
  if (ids.size() > kMost) names += " and " + std::to_string(ids.size() - kMost) + " more";
  return names;
}

namespace {

/// Companies taken one after another by as many workers as there are, each with a connection of its own.
class Valuing {
 public:
  Valuing(const std::vector<CompanyEntry>& entries, CaseEvaluator& evaluator, Date today,
          const exchange::StopCheck& stopped)
      : entries_(entries), evaluator_(evaluator), today_(today), stopped_(stopped), values_(entries.size()) {}

  /// Until there is nothing left to take, or nobody wants it any more. `tell` is given how many were taken.
  void work(store::Book& book, const std::function<void(size_t)>& tell) {
    for (size_t at = next_++; at < entries_.size() && !stopped_(); at = next_++) {
      if (tell) tell(at);
      // One moment each: others may write between two companies, and not within one.
      const Result<store::Book::Moment> moment = book.moment();
      Result<CompanyValue> value =
          moment ? valueOf(book, entries_[at], evaluator_, today_) : tl::unexpected(moment.error());
      values_[at].company = entries_[at];
      if (value) {
        values_[at] = std::move(*value);
      } else {
        values_[at].fault = value.error().text();
      }
    }
  }

  std::vector<CompanyValue> take() { return std::move(values_); }

 private:
  const std::vector<CompanyEntry>& entries_;
  CaseEvaluator& evaluator_;
  Date today_;
  const exchange::StopCheck& stopped_;
  std::vector<CompanyValue> values_;
  std::atomic<size_t> next_ = 0;
};

}  // namespace

Result<std::vector<CompanyValue>> valuesOf(store::Book& book, CaseEvaluator& evaluator, Date today,
                                           const exchange::StopCheck& stopped,
                                           const std::function<void(size_t, size_t)>& progress) {
  constexpr size_t kMostReaders = 4;
  constexpr size_t kWorthAReader = 8;  // companies; opening a connection costs about as much as valuing one
  const Result<std::vector<CompanyEntry>> entries = companiesOf(book);
  if (!entries) return tl::unexpected(entries.error());
  Valuing valuing(*entries, evaluator, today, stopped);
  std::vector<std::exception_ptr> faults(std::min(
      {kMostReaders, static_cast<size_t>(std::thread::hardware_concurrency()), entries->size() / kWorthAReader}));
  {
    std::vector<std::jthread> others;
    for (size_t i = 1; i < faults.size(); ++i) {
      others.emplace_back([&, &fault = faults[i]] {
        try {
          Result<store::Book> own = store::Book::open(book.path());
          if (own) valuing.work(*own, {});  // where it cannot be opened, the first does it alone
        } catch (...) {
          fault = std::current_exception();
        }
      });
    }
    valuing.work(book, [&](size_t taken) {
      if (progress) progress(taken, entries->size());
    });
  }
  for (const std::exception_ptr& fault : faults) {
    if (fault) std::rethrow_exception(fault);
  }
  if (stopped()) return fail(ErrorKind::Cancelled, "the valuing was stopped", book.path());
  return valuing.take();
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
