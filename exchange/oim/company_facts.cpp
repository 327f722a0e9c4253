#include "exchange/oim/company_facts.h"

#include <cmath>
#include <map>

#include "core/filing/tie.h"
#include "core/quantity/decimal.h"
#include "core/quantity/number_text.h"
#include "exchange/content.h"
#include "exchange/json/reader.h"

namespace zl::exchange {
namespace {

/// "USD-per-shares" and "USD/shares" are one unit; codes are written large.
std::string unitOf(const std::string& given) {
  std::string unit = given;
  if (const size_t per = unit.find("-per-"); per != std::string::npos) unit.replace(per, 5, "/");
  return unit == "Pure" ? "pure" : unit == "Shares" ? "shares" : unit;
}

class FactsOfCompany {
 public:
  FactsOfCompany(std::string name, const StopCheck& stopped) : name_(std::move(name)), stopped_(stopped) {}

  Result<Filing> read(const Json& json) {
    const auto facts = json.find("facts");
    if (facts == json.end() || !facts->is_object()) {
      return fail(ErrorKind::BadInput, "there is no object 'facts'", name_, "Give the file as it was published");
    }
    if (const auto entity = json.find("entityName"); entity != json.end() && entity->is_string()) {
      filing_.about.filerName = entity->get<std::string>();
    }
    for (const auto& [taxonomy, concepts] : facts->items()) {
      if (!concepts.is_object()) {
        passOver("'" + taxonomy + "' is no object");
        continue;
      }
      for (const auto& [local, about] : concepts.items()) {
        if (stopped_()) return fail(ErrorKind::Cancelled, "reading was stopped; nothing is stored", name_);
        readConcept(std::string(taxonomy).append(":").append(local), about);
      }
    }
    return finish();
  }

 private:
  struct Amount {
    Fact fact;
    std::string filed;
  };

  void passOver(const std::string& what) {
    ++passedOver_;
    if (first_.empty()) first_ = what;
  }

  void readConcept(const std::string& name, const Json& about) {
    const auto units = about.is_object() ? about.find("units") : about.end();
    if (!about.is_object() || units == about.end() || !units->is_object()) return passOver(name + " has no units");
    std::string label;
    if (const auto given = about.find("label"); given != about.end() && given->is_string()) {
      label = given->get<std::string>();
    }
    const SharedText shared = name;
    const SharedText sharedLabel = label;
    for (const auto& [unit, amounts] : units->items()) {
      const std::string where = std::string(name).append(", ").append(unit);
      if (!amounts.is_array()) {
        passOver(where + " is no list");
        continue;
      }
      const SharedText sharedUnit = unitOf(unit);
      size_t at = 0;
      for (const Json& amount : amounts) {
        readAmount(shared, sharedLabel, sharedUnit, amount,
                   std::string(where).append(" ").append(std::to_string(++at)));
      }
    }
  }

  void readAmount(const SharedText& name, const SharedText& label, const SharedText& unit, const Json& amount,
                  const std::string& place) {
    if (!amount.is_object()) return passOver(place + " is no object");
    const auto textIn = [&](const char* key) {
      const auto found = amount.find(key);
      return found != amount.end() && found->is_string() ? found->get<std::string>() : std::string();
    };
    const std::optional<Date> end = parseDate(textIn("end"));
    const std::string start = textIn("start");
    const std::optional<Date> from = parseDate(start);
    if (!end || (!start.empty() && !from) || (from && *from > *end)) return passOver(place + " has no period");
    const auto value = amount.find("val");
    if (value == amount.end() || !value->is_number()) return passOver(place + " has no figure");
    Amount read;
    read.fact.concept_name = name;
    read.fact.label = label;
    read.fact.unit = unit;
    read.fact.period = {from, *end};
    read.fact.text = value->is_number_float() ? plainNumber(value->get<double>()) : value->dump();
    const std::optional<Decimal> number = Decimal::parse(read.fact.text);
    if (!number) return passOver(place + " has no decimal figure");
    read.fact.decimals = decimalsOf(read.fact.text, *number);
    read.filed = textIn("filed");
    const std::string form = textIn("form");
    read.fact.place = place + (form.empty() ? "" : ", " + form) + (read.filed.empty() ? "" : " filed " + read.filed);
    const auto [at, fresh] = latest_.try_emplace(std::tuple(name.str(), unit.str(), read.fact.period), read);
    if (fresh || read.filed < at->second.filed) return;
    restated_ += agree(read.fact, at->second.fact) ? 0 : 1;
    at->second = std::move(read);
  }

  /// The layout does not say how exact a figure is: the noughts at its end are taken for its rounding, to millions at
  /// most.
  static int decimalsOf(const std::string& text, const Decimal& number) {
    if (text.find('.') != std::string::npos) return -number.lastPlace();
    int noughts = 0;
    while (noughts < 6 && static_cast<size_t>(noughts) + 1 < text.size() &&
           text[text.size() - 1 - static_cast<size_t>(noughts)] == '0')
      ++noughts;
    return -(noughts / 3 * 3);
  }

  Result<Filing> finish() {
    if (latest_.empty()) {
      return fail(ErrorKind::BadInput, "the file holds no facts" + (first_.empty() ? std::string() : ": " + first_),
                  name_, "Give the file as it was published");
    }
    filing_.document.name = name_;
    filing_.document.kind = contentKindText(ContentKind::CompanyFacts);
    for (auto& [key, amount] : latest_) {
      noteYear(filing_.document, amount.fact.period);
      filing_.facts.push_back(std::move(amount.fact));
    }
    if (restated_ > 0) {
      filing_.warnings.push_back(std::to_string(restated_) +
                                 " amounts were filed otherwise before; the last filed stand");
    }
    if (passedOver_ > 0) {
      filing_.warnings.push_back(std::to_string(passedOver_) +
                                 " entries could not be read and were passed over, the first: " + first_);
    }
    return std::move(filing_);
  }

  std::string name_;
  const StopCheck& stopped_;
  Filing filing_;
  std::map<std::tuple<std::string, std::string, Period>, Amount> latest_;
  int passedOver_ = 0, restated_ = 0;
  std::string first_;
};

}  // namespace

Result<Filing> readCompanyFacts(std::string_view content, const std::string& name, const StopCheck& stopped) {
  const Result<Json> json = parseJson(content, name, stopped);
  if (!json) return tl::unexpected(json.error());
  return FactsOfCompany(name, stopped).read(*json);
}

}  // namespace zl::exchange
