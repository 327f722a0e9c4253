#include "exchange/xbrl/vocabulary.h"

#include <charconv>
#include <cstdlib>

#include "core/quantity/decimal.h"

namespace zl::exchange {

using xml::childNamed;
using xml::localName;
using xml::prefixOf;
using xml::trimmed;

std::string usualPrefix(std::string_view uri) {
  if (uri.find("/ifrs-full") != std::string_view::npos) return "ifrs-full";
  if (uri.find("fasb.org/us-gaap") != std::string_view::npos) return "us-gaap";
  return {};
}

std::optional<Date> xbrlDate(std::string_view text, bool periodEnd) {
  text = trimmed(text);
  const std::optional<Date> day = parseDate(text.substr(0, 10));
  if (!day || (text.size() > 10 && text[10] != 'T' && text[10] != 'Z' && text[10] != '+')) return std::nullopt;
  const bool midnight = text.size() >= 19 && text.substr(10, 9) == "T00:00:00";
  return midnight && periodEnd ? *day - std::chrono::days(1) : *day;
}

std::string factOf(const std::string& name, const char* what, const Error& fault) {
  return "the fact " + name + " names a " + what + " that cannot be used, " + fault.where + ": " + fault.what;
}

void Vocabulary::stop(pugi::xml_node node, const xml::Lines& lines, const std::string& what) const {
  throw xml::Stop{Error{ErrorKind::BadInput, what, source_ + ", " + lines.text(node.offset_debug()),
                        "Correct the file or ask its filer for a valid one"}};
}

void Vocabulary::declare(pugi::xml_node element) {
  for (pugi::xml_attribute a : element.attributes()) {
    const std::string_view attribute = a.name();
    if (attribute != "xmlns" && prefixOf(attribute) != "xmlns") continue;
    const std::string prefix(attribute == "xmlns" ? std::string_view{} : localName(attribute));
    const std::string usual = usualPrefix(a.value());
    uris_[prefix] = a.value();
    prefixes_[prefix] = usual.empty() ? prefix : usual;
  }
}

Date Vocabulary::date(pugi::xml_node parent, pugi::xml_node node, bool periodEnd, const xml::Lines& lines) const {
  if (!node) stop(parent, lines, "a context has no complete period");
  std::string pieces;
  const std::string_view text = xml::textOf(node, pieces);
  const std::optional<Date> day = xbrlDate(text, periodEnd);
  if (!day) {
    stop(node, lines, "'" + std::string(trimmed(text).substr(0, 40)) + "' is not a date");
  }
  return *day;
}

void Vocabulary::readContext(pugi::xml_node node, const xml::Lines& lines) {
  try {
    takeContext(node, lines);
  } catch (const xml::Stop& fault) {
    contextFaults_.try_emplace(node.attribute("id").value(), fault.error);
  }
}

void Vocabulary::readUnit(pugi::xml_node node, const xml::Lines& lines) {
  try {
    takeUnit(node, lines);
  } catch (const xml::Stop& fault) {
    unitFaults_.try_emplace(node.attribute("id").value(), fault.error);
  }
}

void Vocabulary::takeContext(pugi::xml_node node, const xml::Lines& lines) {
  Context context;
  const pugi::xml_node period = childNamed(node, "period");
  if (const pugi::xml_node instant = childNamed(period, "instant")) {
    context.period.end = date(period, instant, true, lines);
  } else if (childNamed(period, "forever")) {
    forever_.insert(node.attribute("id").value());  // no fiscal year to belong to
    return;
  } else {
    if (!period) stop(node, lines, "a context has no period");
    context.period.start = date(period, childNamed(period, "startDate"), false, lines);
    context.period.end = date(period, childNamed(period, "endDate"), true, lines);
    if (*context.period.start > context.period.end) {
      stop(period, lines, "the period " + context.period.text() + " ends before it starts");
    }
  }
  const pugi::xml_node entity = childNamed(node, "entity");
  std::string pieces;
  context.entity = trimmed(xml::textOf(childNamed(entity, "identifier"), pieces));
  std::vector<Segment> segments;
  for (const char* holder : {"segment", "scenario"}) {
    pugi::xml_node parent = childNamed(node, holder);
    if (!parent) parent = childNamed(entity, holder);
    for (pugi::xml_node member : parent.children()) {
      if (member.type() != pugi::node_element) continue;
      const pugi::xml_node typed = member.first_child();
      const bool isTyped = typed.type() == pugi::node_element;
      const std::string value(trimmed(xml::textOf(isTyped ? typed : member, pieces)));
      const char* axis = member.attribute("dimension").value();
      segments.push_back({*axis != 0 ? usual(axis) : member.name(), usual(value)});
    }
  }
  context.segments = std::move(segments);
  contexts_[node.attribute("id").value()] = std::move(context);
}

void Vocabulary::takeUnit(pugi::xml_node node, const xml::Lines& lines) {
  const auto measure = [&](pugi::xml_node parent) {
    std::string text;
    std::string pieces;
    for (pugi::xml_node m : parent.children()) {
      if (localName(m.name()) != "measure") continue;
      if (!text.empty()) text += "*";
      text += localName(trimmed(xml::textOf(m, pieces)));
    }
    return text;
  };
  std::string unit = measure(node);
  if (const pugi::xml_node divide = childNamed(node, "divide")) {
    unit = measure(childNamed(divide, "unitNumerator")) + "/" + measure(childNamed(divide, "unitDenominator"));
  }
  if (unit.empty() || unit == "/") stop(node, lines, "a unit has no measure");
  units_[node.attribute("id").value()] = unit;
}

std::string Vocabulary::usual(std::string_view qualified) const {
  const std::string prefix(prefixOf(qualified));
  const auto found = prefixes_.find(prefix);
  if (prefix.empty() || found == prefixes_.end()) return std::string(qualified);
  return found->second + ":" + std::string(localName(qualified));
}

std::string_view Vocabulary::uriOf(std::string_view qualified) const {
  const auto found = uris_.find(std::string(prefixOf(qualified)));
  return found == uris_.end() ? std::string_view{} : found->second;
}

const Context* Vocabulary::context(std::string_view id) const {
  const auto found = contexts_.find(id);
  return found == contexts_.end() ? nullptr : &found->second;
}

const SharedText* Vocabulary::unit(std::string_view id) const {
  const auto found = units_.find(id);
  return found == units_.end() ? nullptr : &found->second;
}

namespace {

/// Digits before the point; negative for leading zeros after it (XBRL 2.1, 4.6.6).
int integerDigits(std::string_view text) {
  const std::optional<Decimal> number = Decimal::parse(text);
  const std::string plain = number->abs().text();
  const std::size_t point = std::min(plain.find('.'), plain.size());
  if (plain[0] != '0') return static_cast<int>(point);
  const std::size_t digit = plain.find_first_not_of("0.");
  return digit == std::string::npos ? 1 : -static_cast<int>(digit - point - 1);
}

Result<int> wholeNumber(std::string_view text) {
  int n = 0;
  const auto [end, code] = std::from_chars(text.data(), text.data() + text.size(), n);
  if (code != std::errc() || end != text.data() + text.size() || n < -40 || n > 40) {
    return fail(ErrorKind::BadInput, "'" + std::string(text.substr(0, 40)) + "' is no number of decimals");
  }
  return n;
}

}  // namespace

Status readPrecision(std::string_view decimals, std::string_view precision, Fact& fact) {
  if (decimals == "INF" || (decimals.empty() && precision == "INF")) {
    fact.exact = true;
    return {};
  }
  if (decimals.empty() && precision.empty()) return {};
  const Result<int> n = wholeNumber(decimals.empty() ? precision : decimals);
  if (!n) return tl::unexpected(n.error());
  if (!decimals.empty()) {
    fact.decimals = *n;
  } else if (*n > 0) {
    fact.decimals = *n - integerDigits(fact.text);
  }
  return {};
}

}  // namespace zl::exchange
