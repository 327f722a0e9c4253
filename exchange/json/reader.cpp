#include "exchange/json/reader.h"

#include <cmath>
#include <cstdio>

#include "core/text/utf8.h"

namespace zl::exchange {

std::string textOf(const Json& json, int indent) {
  const std::string dumped = json.dump(indent, ' ', false, Json::error_handler_t::replace);
  std::string out;
  out.reserve(dumped.size());
  for (size_t i = 0; i < dumped.size();) {
    const std::string_view rest = std::string_view(dumped).substr(i);
    // What would steer a terminal stands as an escape, as JSON writes the other controls: nothing is lost.
    const std::string_view character = rest.substr(0, lengthOfFirst(rest));
    if (steers(character)) {
      char escape[8];
      std::snprintf(escape, sizeof escape, "\\u%04x", codeOf(character));
      out += escape;
    } else {
      out += character;
    }
    i += character.size();
  }
  return out;
}

ObjectReader::ObjectReader(const Json& object, std::string path, Unknown unknown)
    : object_(object), path_(std::move(path)), unknown_(unknown) {
  if (!object_.is_object()) fault("must be an object");
}

void ObjectReader::fault(const std::string& what) const {
  throw JsonFault{{ErrorKind::BadInput, what, path_, "The layout is described in docs/formats/"}};
}

const Json* ObjectReader::member(const char* key) {
  asked_.insert(key);
  const auto found = object_.find(key);
  return found == object_.end() ? nullptr : &*found;
}

const Json& ObjectReader::needed(const char* key) {
  const Json* found = member(key);
  if (found == nullptr) fault(std::string("'") + key + "' is missing");
  return *found;
}

std::string ObjectReader::text(const char* key) {
  const Json& m = needed(key);
  if (!m.is_string()) fault(std::string("'") + key + "' must be text");
  return m.get<std::string>();
}

std::string ObjectReader::optionalText(const char* key) {
  return member(key) == nullptr ? std::string() : text(key);
}

double ObjectReader::number(const char* key) {
  const Json& m = needed(key);
  if (!m.is_number()) fault(std::string("'") + key + "' must be a number");
  const double x = m.get<double>();
  if (!std::isfinite(x)) fault(std::string("'") + key + "' must be finite");
  return x;
}

double ObjectReader::numberOr(const char* key, double otherwise) {
  return member(key) == nullptr ? otherwise : number(key);
}

std::optional<double> ObjectReader::optionalNumber(const char* key) {
  const Json* m = member(key);
  if (m == nullptr || m->is_null()) return std::nullopt;
  return number(key);
}

int ObjectReader::whole(const char* key) {
  const double x = number(key);
  if (x != std::floor(x) || std::fabs(x) > 1e6) fault(std::string("'") + key + "' must be a whole number");
  return static_cast<int>(x);
}

bool ObjectReader::truth(const char* key) {
  const Json& m = needed(key);
  if (!m.is_boolean()) fault(std::string("'") + key + "' must be true or false");
  return m.get<bool>();
}

Date ObjectReader::date(const char* key) {
  const std::string s = text(key);
  const std::optional<Date> d = parseDate(s);
  if (!d) fault(std::string("'") + key + "' is '" + s + "', not a date of the form 2025-12-31");
  return *d;
}

std::optional<Date> ObjectReader::optionalDate(const char* key) {
  const Json* m = member(key);
  if (m == nullptr || m->is_null()) return std::nullopt;
  return date(key);
}

void ObjectReader::finish() const {
  if (unknown_ == Unknown::PassedOver) return;
  for (const auto& [key, value] : object_.items()) {
    if (asked_.count(key) == 0) fault("there is no member '" + key + "' in this layout");
  }
}

}  // namespace zl::exchange
