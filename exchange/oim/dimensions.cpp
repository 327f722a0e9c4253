#include "exchange/oim/dimensions.h"

#include <algorithm>
#include <charconv>

#include "exchange/xbrl/vocabulary.h"

namespace zl::exchange {
namespace {

std::optional<int> wholeOf(std::string_view text) {
  int n = 0;
  const auto [end, code] = std::from_chars(text.data(), text.data() + text.size(), n);
  if (code != std::errc() || end != text.data() + text.size() || text.empty()) return std::nullopt;
  return n;
}

Date dayBefore(Date date) {
  return date - std::chrono::days(1);
}

std::optional<Period> months(int year, int first, int count) {
  if (first < 1 || first + count > 13) return std::nullopt;
  const Date start = makeDate(year, static_cast<unsigned>(first), 1);
  const int next = first + count;
  const Date end = next > 12 ? makeDate(year + 1, 1, 1) : makeDate(year, static_cast<unsigned>(next), 1);
  return Period{start, dayBefore(end)};
}

/// ISO 8601 week: week 1 holds the year's first Thursday; weeks start on Monday.
std::optional<Period> week(int year, int number) {
  if (number < 1 || number > 53) return std::nullopt;
  const Date fourth = makeDate(year, 1, 4);
  const unsigned weekday = std::chrono::weekday(fourth).iso_encoding();
  const Date first = fourth - std::chrono::days(static_cast<int>(weekday) - 1);
  const Date start = first + std::chrono::days(7 * (number - 1));
  return Period{start, start + std::chrono::days(6)};
}

/// A year, month, day, quarter, half or week by its short name.
std::optional<Period> shortPeriod(std::string_view text) {
  if (text.size() == 10) {
    const std::optional<Date> day = parseDate(text);
    return day ? std::optional(Period{*day, *day}) : std::nullopt;
  }
  if (text.size() < 4) return std::nullopt;
  const std::optional<int> year = wholeOf(text.substr(0, 4));
  if (!year || *year < 1000) return std::nullopt;
  if (text.size() == 4) return months(*year, 1, 12);
  const std::optional<int> number = wholeOf(text.substr(5));
  if (!number || *number < 1) return std::nullopt;
  switch (text[4]) {
    case '-':
      return text.size() == 7 ? months(*year, *number, 1) : std::nullopt;
    case 'Q':
      return *number <= 4 ? months(*year, 3 * (*number - 1) + 1, 3) : std::nullopt;
    case 'H':
      return *number <= 2 ? months(*year, 6 * (*number - 1) + 1, 6) : std::nullopt;
    case 'W':
      return week(*year, *number);
    default:
      return std::nullopt;
  }
}

std::optional<Period> withTimes(std::string_view text) {
  const std::size_t slash = text.find('/');
  if (slash == std::string_view::npos) {
    const std::optional<Date> at = xbrlDate(text, true);
    return at ? std::optional(Period{std::nullopt, *at}) : std::nullopt;
  }
  const std::optional<Date> start = xbrlDate(text.substr(0, slash), false);
  const std::optional<Date> end = xbrlDate(text.substr(slash + 1), true);
  if (!start || !end || *start > *end) return std::nullopt;
  return Period{*start, *end};
}

}  // namespace

std::optional<Period> oimPeriod(std::string_view text) {
  if (text.find('T') != std::string_view::npos) return withTimes(text);
  std::string_view end;
  if (const std::size_t at = text.find('@'); at != std::string_view::npos) {
    end = text.substr(at);
    text = text.substr(0, at);
    if (end != "@start" && end != "@end") return std::nullopt;
  }
  std::optional<Period> period;
  if (const std::size_t dots = text.find(".."); dots != std::string_view::npos) {
    const std::optional<Date> first = parseDate(text.substr(0, dots));
    const std::optional<Date> last = parseDate(text.substr(dots + 2));
    if (first && last && *first <= *last) period = Period{*first, *last};
  } else {
    period = shortPeriod(text);
  }
  if (!period || end.empty()) return period;
  return Period{std::nullopt, end == "@end" ? period->end : dayBefore(*period->start)};
}

std::string oimUnit(std::string_view text) {
  std::string unit;
  std::string word;
  const auto flush = [&] {
    unit += xml::localName(word);
    const bool any = !word.empty() && !xml::localName(word).empty();
    word.clear();
    return any;
  };
  for (const char c : text) {
    if (c == '(' || c == ')') continue;
    if (c == '*' || c == '/') {
      if (!flush()) return {};
      unit += c;
    } else {
      word += c;
    }
  }
  return flush() ? unit : std::string();
}

OimNames::OimNames(const Json* namespaces) {
  if (namespaces == nullptr || !namespaces->is_object()) return;
  for (const auto& [prefix, uri] : namespaces->items()) {
    if (!uri.is_string()) continue;
    const std::string usual = usualPrefix(uri.get<std::string>());
    prefixes_[prefix] = usual.empty() ? prefix : usual;
  }
}

std::string OimNames::usual(std::string_view qualified) const {
  const auto found = prefixes_.find(xml::prefixOf(qualified));
  if (found == prefixes_.end()) return std::string(qualified);
  return found->second + ":" + std::string(xml::localName(qualified));
}

std::string oimDocumentType(const Json& document) {
  const auto info = document.find("documentInfo");
  if (!document.is_object() || info == document.end() || !info->is_object()) return {};
  const auto type = info->find("documentType");
  if (type == info->end() || !type->is_string()) return {};
  const std::string text = type->get<std::string>();
  return text.find("xbrl.org/") == std::string::npos ? std::string() : text.substr(text.rfind('/') + 1);
}

Status readDimensions(const std::map<std::string, std::string>& dimensions, const OimNames& names, Fact& fact) {
  const auto bad = [](const std::string& what) { return fail(ErrorKind::BadInput, what); };
  bool dated = false;
  std::vector<Segment> segments;
  for (const auto& [dimension, value] : dimensions) {
    if (dimension == "concept") {
      fact.concept_name = names.usual(value);
    } else if (dimension == "period") {
      const std::optional<Period> period = oimPeriod(value);
      if (!period) return bad("'" + value.substr(0, 60) + "' is not a period");
      fact.period = *period;
      dated = true;
    } else if (dimension == "unit") {
      fact.unit = oimUnit(value);
      if (fact.unit.empty()) return bad("'" + value.substr(0, 60) + "' is not a unit");
    } else if (dimension != "entity" && dimension != "language" && dimension != "noteId") {
      segments.push_back({names.usual(dimension), names.usual(value)});
    }
  }
  if (fact.concept_name.empty()) return bad("the fact names no concept");
  if (!dated) return bad("the fact " + fact.concept_name + " has no period");
  fact.segments = std::move(segments);
  return {};
}

void OimReport::add(Fact fact, const std::map<std::string, std::string>& dimensions) {
  if (fact.unit.empty()) fact.unit = "pure";
  const auto entity = dimensions.find("entity");
  if (filing_.about.filer.empty() && entity != dimensions.end()) filing_.about.filer = xml::localName(entity->second);
  noteYear(filing_.document, fact.period);
  filing_.facts.push_back(std::move(fact));
}

Result<Filing> OimReport::finish(const std::string& name, ContentKind kind, const char* holder) {
  if (filing_.facts.empty() && unusable_.first()) return tl::unexpected(*unusable_.first());
  if (filing_.facts.empty()) {
    return fail(ErrorKind::BadInput, std::string(holder) + " no numeric facts", name);
  }
  unusable_.tell(filing_.warnings);
  filing_.document.name = name;
  filing_.document.kind = contentKindText(kind);
  if (texts_ > 0) {
    filing_.warnings.push_back(std::to_string(texts_) + " facts without unit and decimals are text and were left out");
  }
  return std::move(filing_);
}

}  // namespace zl::exchange
