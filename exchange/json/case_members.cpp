#include "exchange/json/case_members.h"

#include <charconv>

namespace zl::exchange {
namespace {

/// A path for messages; names in a damaged file may be of any length.
std::string below(const ObjectReader& r, const char* member, const std::string& name) {
  return r.path() + "/" + member + "/" + name.substr(0, 60);
}

std::map<int, double> readYears(const Json& json, const std::string& where) {
  ObjectReader r(json, where);
  std::map<int, double> years;
  for (const auto& [text, figure] : json.items()) {
    int year = 0;
    const char* end = text.data() + text.size();
    const auto [stopped, code] = std::from_chars(text.data(), end, year);
    if (code != std::errc() || stopped != end) r.fault("'" + text.substr(0, 20) + "' is not a fiscal year");
    years[year] = r.number(text.c_str());
  }
  return years;
}

const Json& object(ObjectReader& r, const char* member) {
  const Json* found = r.member(member);
  if (found == nullptr || !found->is_object()) r.fault("'" + std::string(member) + "' must be an object");
  return *found;
}

PublishedSet readSet(const ObjectReader& in, const Json& json, const std::string& where) {
  ObjectReader r = in.inside(json, where);
  PublishedSet set;
  set.name = r.text("name");
  set.valuationDate = r.date("valuation_date");
  for (const auto& [row, years] : object(r, "figures").items()) {
    set.figures[row] = readYears(years, below(r, "figures", row));
  }
  ObjectReader values = r.inside(object(r, "values"), where + "/values");
  for (const auto& [scenario, value] : object(r, "values").items()) {
    set.values[scenario] = values.number(scenario.c_str());
  }
  if (r.member("methods") != nullptr) {
    ObjectReader methods = r.inside(object(r, "methods"), where + "/methods");
    for (const auto& [method, value] : object(r, "methods").items())
      set.methods[method] = methods.number(method.c_str());
  }
  set.price = r.optionalNumber("price");
  set.said = provenanceOf(r);
  r.finish();
  return set;
}

}  // namespace

Json toJson(const Provenance& p) {
  return {{"reason", p.reason}, {"author", p.author}, {"at", p.at}};
}

Provenance provenanceOf(ObjectReader& parent) {
  const Json* m = parent.member("said");
  if (m == nullptr) return {};
  ObjectReader r = parent.inside(*m, parent.path() + "/said");
  Provenance p{r.optionalText("reason"), r.optionalText("author"), r.optionalText("at")};
  r.finish();
  return p;
}

Json toJson(const std::map<std::string, OwnRows>& ownRows) {
  Json json = Json::object();
  for (const auto& [model, rows] : ownRows) json[model] = {{"text", rows.text}, {"said", toJson(rows.said)}};
  return json;
}

std::map<std::string, OwnRows> readOwnRows(ObjectReader& theCase) {
  std::map<std::string, OwnRows> all;
  if (theCase.member("own_rows") == nullptr) return all;
  for (const auto& [model, value] : object(theCase, "own_rows").items()) {
    ObjectReader r = theCase.inside(value, below(theCase, "own_rows", model));
    OwnRows rows{r.text("text"), provenanceOf(r)};
    r.finish();
    if (rows.text.size() > kLongestOwnRows) r.fault("'text' may hold 200,000 characters at most");
    all[model] = std::move(rows);
  }
  return all;
}

Json toJson(const std::vector<PublishedSet>& sets) {
  Json list = Json::array();
  for (const PublishedSet& set : sets) {
    Json figures = Json::object();
    for (const auto& [row, years] : set.figures) {
      Json byYear = Json::object();
      for (const auto& [year, figure] : years) byYear[std::to_string(year)] = figure;
      figures[row] = std::move(byYear);
    }
    Json json{{"name", set.name},
              {"valuation_date", dateText(set.valuationDate)},
              {"figures", std::move(figures)},
              {"values", set.values},
              {"said", toJson(set.said)}};
    if (!set.methods.empty()) json["methods"] = set.methods;
    if (set.price) json["price"] = *set.price;
    list.push_back(std::move(json));
  }
  return list;
}

Json toJson(const PriceChoice& price) {
  switch (price.stands) {
    case PriceChoice::Stands::Live:
      return {{"stands", "live"}};
    case PriceChoice::Stands::Pinned:
      return {{"stands", "pinned"}, {"figure", price.pinned}, {"said", toJson(price.said)}};
    case PriceChoice::Stands::AtValuationDate:
      break;
  }
  return {{"stands", "at_valuation_date"}};
}

PriceChoice readPrice(ObjectReader& theCase) {
  const Json* json = theCase.member("price");
  if (json == nullptr) return {};
  ObjectReader r = theCase.inside(*json, theCase.path() + "/price");
  PriceChoice price;
  const std::string stands = r.text("stands");
  if (stands == "live") {
    price.stands = PriceChoice::Stands::Live;
  } else if (stands == "pinned") {
    price.stands = PriceChoice::Stands::Pinned;
    price.pinned = r.number("figure");
    price.said = provenanceOf(r);
  } else if (stands != "at_valuation_date") {
    r.fault("'stands' is at_valuation_date, live or pinned, not '" + stands.substr(0, 40) + "'");
  }
  r.finish();
  return price;
}

std::vector<PublishedSet> readPublished(ObjectReader& theCase) {
  std::vector<PublishedSet> sets;
  const Json* list = theCase.member("published");
  if (list == nullptr) return sets;
  if (!list->is_array()) theCase.fault("'published' must be a list");
  for (const Json& json : *list) sets.push_back(readSet(theCase, json, theCase.path() + "/published"));
  return sets;
}

}  // namespace zl::exchange
