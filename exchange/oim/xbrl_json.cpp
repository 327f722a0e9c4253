#include "exchange/oim/xbrl_json.h"

#include "core/quantity/decimal.h"
#include "exchange/content.h"
#include "exchange/oim/dimensions.h"
#include "exchange/xbrl/vocabulary.h"

namespace zl::exchange {
namespace {

class FactsReader {
 public:
  FactsReader(std::string name, const OimNames& names) : name_(std::move(name)), names_(names) {}

  void take(const std::string& id, const Json& object) {
    if (const Status read = this->read(id, object); !read) report_.setAside(read.error());
  }

  Result<Filing> finish() { return report_.finish(name_, ContentKind::XbrlJson, "the document holds"); }

 private:
  Status read(const std::string& id, const Json& object) {
    const auto bad = [&](const std::string& what) {
      return fail(ErrorKind::BadInput, what, name_ + ", fact '" + id.substr(0, 80) + "'",
                  "The layout is that of xBRL-JSON 1.0");
    };
    if (!object.is_object()) return bad("a fact must be an object");
    const auto value = object.find("value");
    const auto dimensions = object.find("dimensions");
    if (value == object.end() || dimensions == object.end() || !dimensions->is_object()) {
      return bad("a fact needs a value and dimensions");
    }
    std::map<std::string, std::string> given;
    for (const auto& [dimension, member] : dimensions->items()) {
      if (!member.is_string() && !member.is_null()) return bad("the dimension '" + dimension + "' must be text");
      given[dimension] = member.is_null() ? "" : member.get<std::string>();
    }
    const auto decimals = object.find("decimals");
    if (given.count("unit") == 0 && decimals == object.end()) {
      report_.countText();
      return {};
    }
    if (!value->is_string() && !value->is_null()) return bad("a value must be text or null");
    Fact fact;
    if (Status s = readDimensions(given, names_, fact); !s) return bad(s.error().what);
    fact.place = "fact '" + id.substr(0, 80) + "'";
    fact.nil = value->is_null();
    if (!fact.nil) {
      fact.text = value->get<std::string>();
      if (!Decimal::isNumber(fact.text)) {
        return bad("the fact " + fact.concept_name + " has the value '" + fact.text.substr(0, 40) +
                   "', which is not a decimal number");
      }
      fact.exact = decimals == object.end();  // absent decimals say that the value is exact
      if (!fact.exact) {
        if (!decimals->is_number_integer() || std::abs(decimals->get<double>()) > 40) {
          return bad("decimals must be a whole number of -40 to 40");
        }
        fact.decimals = decimals->get<int>();
      }
    }
    report_.add(std::move(fact), given);
    return {};
  }

  std::string name_;
  const OimNames& names_;
  OimReport report_;
};

}  // namespace

Result<Filing> readXbrlJson(std::string_view content, const std::string& name, const StopCheck& stopped) {
  const Result<Json> json = parseJson(content, name, stopped);
  if (!json) return tl::unexpected(json.error());
  if (oimDocumentType(*json) != "xbrl-json") {
    return fail(ErrorKind::WrongKind, "the document type is not xBRL-JSON", name);
  }
  const Json& info = json->at("documentInfo");
  const OimNames names(info.contains("namespaces") ? &info["namespaces"] : nullptr);
  FactsReader reader(name, names);
  const auto facts = json->find("facts");
  if (facts == json->end() || !facts->is_object()) {
    return fail(ErrorKind::BadInput, "the member 'facts' is missing or no object", name, "The file may be truncated");
  }
  size_t read = 0;
  for (const auto& [id, fact] : facts->items()) {
    constexpr size_t kBetween = 4096;
    if (++read % kBetween == 0 && stopped()) {
      return fail(ErrorKind::Cancelled, "reading was stopped; nothing is stored", name);
    }
    reader.take(id, fact);
  }
  return reader.finish();
}

}  // namespace zl::exchange
