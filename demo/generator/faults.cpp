// Files with one fault each, planted on purpose: docs/demo.md lists them with what must be said of
// each. They are no part of the demo book; import one to see its monitor speak.

#include <sstream>

#include "demo/generator/writers.h"

namespace demo {
namespace {

constexpr const char* kHead = "concept,label,start,end,unit,decimals,value\n";

void balance(std::ostringstream& out, const char* concept_name, const char* date, Thousands amount) {
  out << "ifrs-full:" << concept_name << ",,," << date << ",EUR,-3," << amount << "000\n";
}

const Year& yearOf(const Story& story, long long number) {
  return story.years.at(static_cast<size_t>(number - story.firstYear));
}

}  // namespace

std::string wrongDateFault(const Story& story) {
  std::ostringstream out;
  out << kHead;
  const Year& y = yearOf(story, 2016);
  // The comparative column: the balances of 2016 under the end of 2017.
  for (const auto& [line, concept_name] :
       std::initializer_list<std::pair<const char*, const char*>>{{"receivables", "TradeAndOtherCurrentReceivables"},
                                                                  {"inventory", "Inventories"},
                                                                  {"plant", "PropertyPlantAndEquipment"},
                                                                  {"payables", "TradeAndOtherCurrentPayables"},
                                                                  {"goodwill", "Goodwill"},
                                                                  {"total_assets", "Assets"}}) {
    balance(out, concept_name, "2017-12-31", y.at(line));
  }
  return out.str();
}

std::string scaleSlipFault(const Story& story) {
  std::ostringstream out;
  out << kHead << "ifrs-full:Revenue,,2025-01-01,2025-12-31,EUR,0," << yearOf(story, 2025).at("revenue") << '\n';
  return out.str();
}

std::string duplicateFault(const Story& story) {
  std::ostringstream out;
  out << kHead;
  balance(out, "Inventories", "2018-12-31", yearOf(story, 2018).at("inventory"));
  balance(out, "Inventories", "2018-12-31", yearOf(story, 2018).at("inventory") + 450);
  return out.str();
}

std::string currencyFault(const Story& story) {
  std::ostringstream out;
  out << kHead << "ifrs-full:AdministrativeExpense,,2018-01-01,2018-12-31,GBP,-3,"
      << yearOf(story, 2018).at("administration") * 88 / 100 << "000\n";
  return out.str();
}

std::string partsFault(const Story& story) {
  const Thousands revenue = yearOf(story, 2019).at("revenue");
  std::ostringstream out;
  out << R"({
 "documentInfo": {
  "documentType": "https://xbrl.org/2021/xbrl-json",
  "namespaces": {
   "ifrs-full": "https://xbrl.ifrs.org/taxonomy/2021-03-24/ifrs-full",
   "iso4217": "http://www.xbrl.org/2003/iso4217",
   "vsh": "https://vessingholt.example/xbrl",
   "entity": "https://registry.example/entities"
  },
  "taxonomy": ["vessingholt.xsd"]
 },
 "facts": {)";
  const auto fact = [&](const char* id, Thousands amount, const char* part, const char* after) {
    out << "\n  \"" << id << "\": {\"value\": \"" << amount
        << "000\", \"decimals\": -3, \"dimensions\": {\"concept\": \"ifrs-full:Revenue\", "
           "\"entity\": \"entity:VESSINGHOLT\", \"period\": \"2019-01-01T00:00:00/2020-01-01T00:00:00\", "
           "\"unit\": \"iso4217:EUR\""
        << part << "}}" << after;
  };
  const Thousands service = revenue * 29 / 100;
  fact("f1", revenue, "", ",");
  fact("f2", revenue - service, R"(, "ifrs-full:SegmentsAxis": "vsh:MachinesMember")", ",");
  fact("f3", service - 7000, R"(, "ifrs-full:SegmentsAxis": "vsh:ServiceAndPartsMember")", "");
  out << "\n }\n}\n";
  return out.str();
}

}  // namespace demo
