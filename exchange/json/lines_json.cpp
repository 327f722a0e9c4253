#include "exchange/json/lines_json.h"

namespace zl::exchange {

Json toJson(const LineChoices& choices) {
  Json json = Json::object();
  for (const auto& [concept_name, choice] : choices) {
    json[concept_name] = {{"line", choice.line}, {"weight", choice.weight}, {"reason", choice.reason}};
    if (choice.byHand) json[concept_name]["by_hand"] = true;
    if (choice.outOf.empty()) continue;
    json[concept_name]["out_of"] = choice.outOf;
    json[concept_name]["out_of_sign"] = choice.outOfSign;
  }
  return json;
}

LineChoices readLineChoices(const ObjectReader& lines, const Json& json) {
  LineChoices choices;
  for (const auto& [concept_name, value] : json.items()) {
    ObjectReader r = lines.inside(value, std::string(lines.path()).append("/").append(concept_name));
    LineChoice choice;
    choice.line = r.text("line");
    choice.weight = r.whole("weight");
    choice.reason = r.optionalText("reason");
    if (r.member("by_hand") != nullptr) choice.byHand = r.truth("by_hand");
    if (r.member("out_of") != nullptr) {
      choice.outOf = r.text("out_of");
      choice.outOfSign = r.whole("out_of_sign");
    }
    if (choice.weight != 1 && choice.weight != -1) r.fault("'weight' must be 1 or -1");
    if (choice.outOfSign != 1 && choice.outOfSign != -1) r.fault("'out_of_sign' must be 1 or -1");
    r.finish();
    choices[concept_name] = std::move(choice);
  }
  return choices;
}

std::string lineChoicesText(const LineChoices& choices) {
  const Json json{{"format", "zealous-ledger-lines"}, {"version", 1}, {"lines", toJson(choices)}};
  return exchange::textOf(json, 1);
}

Result<LineChoices> lineChoicesFromText(const std::string& text, const std::string& source) {
  const Result<Json> json = parseJson(text, source);
  if (!json) return tl::unexpected(json.error());
  try {
    ObjectReader r(*json, source);
    if (r.text("format") != "zealous-ledger-lines" || r.whole("version") != 1) r.fault("these are no choices of lines");
    const Json* lines = r.member("lines");
    if (lines == nullptr) r.fault("'lines' is missing");
    r.finish();
    return readLineChoices(r.inside(*lines, source + "/lines"), *lines);
  } catch (const JsonFault& fault) {
    return tl::unexpected(fault.error);
  }
}

}  // namespace zl::exchange
