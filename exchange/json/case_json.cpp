#include "exchange/json/case_json.h"

#include "exchange/json/case_members.h"
#include "exchange/json/lines_json.h"

namespace zl::exchange {
namespace {

// What undecided drivers follow.
constexpr const char* kProposed = "proposed";
constexpr const char* kPresets = "presets";

using zl::exchange::toJson;

Json toJson(const Path& path) {
  Json j{{"shape", shapeWord(path.shape)}};
  if (path.level) j["level"] = *path.level;
  if (path.start) j["start"] = *path.start;
  if (path.from != 0) j["from"] = path.from;
  if (path.to != 0) j["to"] = path.to;
  if (path.shape == Shape::Fade) j["half_life"] = path.halfLife;
  if (path.shape == Shape::Follow) {
    j["distance"] = path.distance;
    j["widening"] = path.widening;
  }
  if (!path.typed.empty()) {
    Json typed = Json::array();
    for (const std::optional<double>& x : path.typed) typed.push_back(x ? Json(*x) : Json());
    j["typed"] = std::move(typed);
  }
  return j;
}

Json toJson(const Scenario& s) {
  Json drivers = Json::object();
  for (const auto& [row, a] : s.drivers) {
    if (a.said.isProposed()) continue;
    drivers[row] = {{"path", toJson(a.path)}, {"said", toJson(a.said)}};
  }
  Json inputs = Json::object();
  for (const auto& [row, choice] : s.inputs) {
    if (choice.said.isProposed()) continue;
    inputs[row] = choice.option.empty() ? Json{{"figure", choice.figure}} : Json{{"option", choice.option}};
    inputs[row]["said"] = toJson(choice.said);
  }
  return {{"id", s.id},
          {"label", s.label},
          {"probability", s.probability},
          {"drivers", std::move(drivers)},
          {"inputs", std::move(inputs)}};
}

Path pathOf(const ObjectReader& in, const Json& json) {
  ObjectReader r = in.inside(json, in.path() + "/path");
  Path path;
  const std::string shape = r.text("shape");
  const std::optional<Shape> known = shapeOf(shape);
  if (!known) r.fault("there is no shape '" + shape + "' (hold, typed, glide, fade, steps, recovery, cycle, follow)");
  path.shape = *known;
  path.level = r.optionalNumber("level");
  path.start = r.optionalNumber("start");
  if (r.member("from") != nullptr) path.from = r.whole("from");
  if (r.member("to") != nullptr) path.to = r.whole("to");
  path.halfLife = r.numberOr("half_life", 3.0);
  path.distance = r.numberOr("distance", 0);
  if (r.member("widening") != nullptr) path.widening = r.truth("widening");
  if (const Json* typed = r.member("typed")) {
    if (!typed->is_array() || typed->size() > kLongestHorizon) {
      r.fault("'typed' must be a list of at most 15 years");
    }
    for (const Json& x : *typed) {
      if (!x.is_null() && !x.is_number()) r.fault("'typed' holds numbers and nulls");
      path.typed.push_back(x.is_null() ? std::nullopt : std::optional(x.get<double>()));
    }
  }
  r.finish();
  return path;
}

Scenario scenarioOf(const ObjectReader& in, const Json& json, const std::string& where) {
  ObjectReader r = in.inside(json, where);
  Scenario s;
  s.id = r.text("id");
  s.label = r.text("label");
  s.probability = r.number("probability");
  if (const Json* drivers = r.member("drivers")) {
    ObjectReader shape = r.inside(*drivers, where + "/drivers");
    const std::string below = where + "/drivers/";
    for (const auto& [row, value] : drivers->items()) {
      ObjectReader a = r.inside(value, std::string(below).append(row));
      const Json* path = a.member("path");
      if (path == nullptr) a.fault("'path' is missing");
      s.drivers[row] = {pathOf(a, *path), provenanceOf(a)};
      a.finish();
    }
  }
  if (const Json* inputs = r.member("inputs")) {
    ObjectReader shape = r.inside(*inputs, where + "/inputs");
    const std::string below = where + "/inputs/";
    for (const auto& [row, value] : inputs->items()) {
      ObjectReader choice = r.inside(value, std::string(below).append(row));
      InputChoice& held = s.inputs[row];
      if (choice.member("option") != nullptr) {
        held.option = choice.text("option");
      } else {
        held.figure = choice.number("figure");
      }
      held.said = provenanceOf(choice);
      choice.finish();
    }
  }
  r.finish();
  return s;
}

/// The items of an optional list, each with its place; `most` bounds what a file can ask for.
template <class Read>
void eachOf(ObjectReader& r, const char* key, const std::string& source, size_t most, const Read& read) {
  const Json* list = r.member(key);
  if (list == nullptr) return;
  if (!list->is_array() || list->size() > most) {
    r.fault("'" + std::string(key) + "' must be a list of at most " + std::to_string(most));
  }
  const std::string below = source + "/" + key + "/";
  for (size_t i = 0; i < list->size(); ++i) {
    ObjectReader item = r.inside((*list)[i], std::string(below).append(std::to_string(i)));
    read(item);
    item.finish();
  }
}

void readHistoryChoices(ObjectReader& r, const std::string& source, Case& c) {
  eachOf(r, "acknowledged", source, 10000, [&](ObjectReader& item) {
    const std::string finding = item.text("finding");
    c.acknowledged[finding] = provenanceOf(item);
  });
  eachOf(r, "adjustments", source, 10000, [&](ObjectReader& item) {
    const CellOfLine cell{item.text("line"), item.whole("year")};
    Adjustment adjustment;
    adjustment.amount = item.number("amount");
    adjustment.said = provenanceOf(item);
    if (!c.adjustments.emplace(cell, std::move(adjustment)).second) item.fault("this line and year is given twice");
  });
  eachOf(r, "own_lines", source, 200, [&](ObjectReader& item) {
    const std::string name = item.text("name");
    const std::string label = item.text("label");
    c.ownLines.push_back({name, label, item.truth("flow")});
  });
  eachOf(r, "windows", source, 100, [&](ObjectReader& item) {
    const int from = item.whole("from");
    c.windows.push_back({from, item.whole("to"), item.text("reason")});
  });
  eachOf(r, "tests", source, 1000, [&](ObjectReader& item) {
    const std::string test = item.text("test");
    c.tests[test] = {item.optionalNumber("threshold"), item.optionalText("exempt")};
  });
}

void readPeerSets(ObjectReader& r, const std::string& source, Case& c) {
  c.peerSet = r.optionalText("peer_set");
  const Json* sets = r.member("peer_sets");
  if (sets != nullptr) {
    const ObjectReader shape = r.inside(*sets, source + "/peer_sets");
    for (const auto& [name, members] : sets->items()) {
      if (name.empty() || !members.is_array()) r.fault("a set of peers has a name and a list of short names");
      std::set<std::string>& ids = c.peerSets[name];
      for (const Json& id : members) {
        if (!id.is_string()) r.fault("a set of peers holds short names");
        ids.insert(id.get<std::string>());
      }
    }
  }
  const bool another = c.peerSet.find(kOfAnother) != std::string::npos;
  if (!c.peerSet.empty() && !another && c.peerSets.count(c.peerSet) == 0)
    r.fault("there is no set of peers '" + c.peerSet + "'");
  const Json* shown = r.member("shown_multiples");
  if (shown == nullptr) return;
  if (!shown->is_array()) r.fault("'shown_multiples' is a list of multiples by their ids");
  for (const Json& id : *shown) {
    if (!id.is_string()) r.fault("'shown_multiples' is a list of multiples by their ids");
    c.shownMultiples.insert(id.get<std::string>());
  }
}

void readParts(ObjectReader& r, const std::string& source, Case& c) {
  eachOf(r, "parts", source, 1000, [&](ObjectReader& item) {
    PartChoice part;
    const std::string key = item.text("part");
    const std::string of = item.text("of");
    if (of != "ebit" && of != "revenue") item.fault("'of' is ebit or revenue");
    part.of = of == "ebit" ? PartChoice::Of::Ebit : PartChoice::Of::Revenue;
    part.multiple = item.number("multiple");
    part.said = provenanceOf(item);
    c.parts[key] = std::move(part);
  });
}

Case caseOf(const Json& json, const std::string& source, bool newerToo) {
  ObjectReader r(json, source, newerToo ? Unknown::PassedOver : Unknown::Refused);
  if (r.text("format") != "zealous-ledger-case") r.fault("this is not a case");
  if (const int version = r.whole("version"); version < 1 || (version > kCaseVersion && !newerToo)) {
    r.fault("the case has version " + std::to_string(version) + "; this program reads versions 1 to " +
            std::to_string(kCaseVersion));
  }
  Case c;
  c.company = r.text("company");
  c.model = r.text("model");
  if (const std::string how = r.optionalText("undecided"); how == kProposed) {
    c.proposes = true;
  } else if (!how.empty() && how != kPresets) {
    r.fault("'undecided' is proposed or presets");
  }
  c.ownRows = readOwnRows(r);
  c.horizon = r.whole("horizon");
  if (const Json* stages = r.member("stages")) {
    if (!stages->is_array() || stages->size() > kLongestHorizon) r.fault("'stages' must be a list of at most 15");
    for (const Json& length : *stages) {
      if (!length.is_number_integer()) r.fault("'stages' holds whole years");
      c.stages.push_back(length.get<int>());
    }
  }
  c.valuationDate = r.date("valuation_date");
  c.price = readPrice(r);
  if (r.member("base_year") != nullptr) c.baseYear = r.whole("base_year");
  const Json* scenarios = r.member("scenarios");
  if (scenarios == nullptr || !scenarios->is_array() || scenarios->size() > 20) {
    r.fault("'scenarios' must be a list of at most 20");
  }
  for (std::size_t i = 0; i < scenarios->size(); ++i) {
    c.scenarios.push_back(scenarioOf(r, (*scenarios)[i], source + "/scenarios/" + std::to_string(i)));
  }
  if (const Json* years = r.member("exceptional_years")) {
    if (!years->is_array()) r.fault("'exceptional_years' must be a list");
    for (const Json& year : *years) {
      ObjectReader y = r.inside(year, source + "/exceptional_years");
      const int number = y.whole("year");
      c.exceptional[number] = y.text("reason");
      y.finish();
    }
  }
  if (const Json* peers = r.member("peers")) {
    ObjectReader shape = r.inside(*peers, source + "/peers");
    const std::string below = source + "/peers/";
    for (const auto& [key, value] : peers->items()) {
      ObjectReader choice = r.inside(value, std::string(below).append(key));
      const bool in = choice.truth("in");
      c.peers[key] = {in, choice.optionalText("reason")};
      choice.finish();
    }
  }
  readPeerSets(r, source, c);
  readParts(r, source, c);
  if (const Json* notes = r.member("notes")) {
    ObjectReader texts = r.inside(*notes, source + "/notes");
    for (const auto& [row, value] : notes->items()) c.notes[row] = texts.text(row.c_str());
  }
  if (const Json* lines = r.member("lines")) c.lines = readLineChoices(r.inside(*lines, source + "/lines"), *lines);
  readHistoryChoices(r, source, c);
  c.published = readPublished(r);
  if (const Json* limits = r.member("limits")) {
    ObjectReader figures = r.inside(*limits, source + "/limits");
    for (const auto& [monitor, limit] : limits->items()) c.limits[monitor] = figures.number(monitor.c_str());
  }
  if (const Json* lines = r.member("first_filed")) {
    if (!lines->is_array()) r.fault("'first_filed' must be a list");
    for (const Json& line : *lines) {
      if (!line.is_string()) r.fault("'first_filed' holds names of lines");
      c.firstFiled.insert(line.get<std::string>());
    }
  }
  r.member("stands_on");  // where an exported file comes from; no part of the case
  r.finish();
  return c;
}

}  // namespace

Json toJson(const Case& c) {
  Json scenarios = Json::array();
  for (const Scenario& s : c.scenarios) scenarios.push_back(toJson(s));
  Json years = Json::array();
  for (const auto& [year, reason] : c.exceptional) {
    years.push_back({{"year", year}, {"reason", reason}});
  }
  Json peers = Json::object();
  for (const auto& [key, choice] : c.peers) {
    peers[key] = {{"in", choice.in}, {"reason", choice.reason}};
  }
  Json adjustments = Json::array();
  for (const auto& [cell, a] : c.adjustments) {
    adjustments.push_back(
        {{"line", cell.first}, {"year", cell.second}, {"amount", a.amount}, {"said", toJson(a.said)}});
  }
  Json own = Json::array();
  for (const OwnLine& l : c.ownLines) own.push_back({{"name", l.name}, {"label", l.label}, {"flow", l.flow}});
  Json windows = Json::array();
  for (const HistoryWindow& w : c.windows) windows.push_back({{"from", w.from}, {"to", w.to}, {"reason", w.reason}});
  Json acknowledged = Json::array();
  for (const auto& [finding, said] : c.acknowledged) {
    acknowledged.push_back({{"finding", finding}, {"said", toJson(said)}});
  }
  Json parts = Json::array();
  for (const auto& [key, part] : c.parts) {
    parts.push_back({{"part", key},
                     {"of", part.of == PartChoice::Of::Ebit ? "ebit" : "revenue"},
                     {"multiple", part.multiple},
                     {"said", toJson(part.said)}});
  }
  Json tests = Json::array();
  for (const auto& [test, choice] : c.tests) {
    Json item{{"test", test}, {"exempt", choice.exempt}};
    if (choice.threshold) item["threshold"] = *choice.threshold;
    tests.push_back(std::move(item));
  }
  return {{"format", "zealous-ledger-case"},
          {"version", kCaseVersion},
          {"company", c.company},
          {"model", c.model},
          {"undecided", c.proposes ? kProposed : kPresets},
          {"own_rows", toJson(c.ownRows)},
          {"horizon", c.horizon},
          {"stages", c.stages},
          {"base_year", c.baseYear},
          {"valuation_date", dateText(c.valuationDate)},
          {"price", toJson(c.price)},
          {"scenarios", std::move(scenarios)},
          {"exceptional_years", std::move(years)},
          {"peers", std::move(peers)},
          {"peer_sets", c.peerSets},
          {"peer_set", c.peerSet},
          {"shown_multiples", c.shownMultiples},
          {"parts", std::move(parts)},
          {"notes", c.notes},
          {"lines", toJson(c.lines)},
          {"first_filed", c.firstFiled},
          {"own_lines", std::move(own)},
          {"adjustments", std::move(adjustments)},
          {"windows", std::move(windows)},
          {"tests", std::move(tests)},
          {"acknowledged", std::move(acknowledged)},
          {"published", toJson(c.published)},
          {"limits", c.limits}};
}

Result<Case> caseFromJson(const Json& json, const std::string& source) {
  try {
    return caseOf(json, source, false);
  } catch (const JsonFault& fault) {
    return tl::unexpected(fault.error);
  }
}

int newerVersion(const Json& json) {
  if (!json.is_object() || json.value("format", Json()) != "zealous-ledger-case") return 0;
  const Json version = json.value("version", Json());
  return version.is_number_integer() && version.get<int>() > kCaseVersion ? version.get<int>() : 0;
}

Result<Case> understoodCase(const Json& json, const std::string& source) {
  try {
    return caseOf(json, source, true);
  } catch (const JsonFault& fault) {
    return tl::unexpected(fault.error);
  }
}

}  // namespace zl::exchange
