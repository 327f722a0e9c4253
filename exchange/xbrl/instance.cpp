#include "exchange/xbrl/instance.h"

#include <algorithm>
#include <charconv>
#include <pugixml.hpp>
#include <unordered_map>
#include <unordered_set>

#include "core/quantity/decimal.h"
#include "exchange/content.h"

namespace zl::exchange {
namespace {

constexpr int kDeepestTuple = 32;

std::string_view localName(std::string_view name) {
  const std::size_t colon = name.find(':');
  return colon == std::string_view::npos ? name : name.substr(colon + 1);
}

std::string_view prefixOf(std::string_view name) {
  const std::size_t colon = name.find(':');
  return colon == std::string_view::npos ? std::string_view{} : name.substr(0, colon);
}

std::string_view trimmed(std::string_view text) {
  const std::size_t first = text.find_first_not_of(" \t\r\n");
  if (first == std::string_view::npos) return {};
  return text.substr(first, text.find_last_not_of(" \t\r\n") - first + 1);
}

pugi::xml_node childNamed(pugi::xml_node node, std::string_view local) {
  for (pugi::xml_node child : node.children()) {
    if (localName(child.name()) == local) return child;
  }
  return {};
}

/// Line numbers from byte offsets.
class Lines {
 public:
  explicit Lines(std::string_view content) {
    for (std::size_t i = 0; i < content.size(); ++i) {
      if (content[i] == '\n') ends_.push_back(i);
    }
  }
  [[nodiscard]] std::string text(std::ptrdiff_t offset) const {
    const auto at = std::lower_bound(ends_.begin(), ends_.end(), static_cast<std::size_t>(offset));
    return "line " + std::to_string(at - ends_.begin() + 1);
  }

 private:
  std::vector<std::size_t> ends_;
};

struct Context {
  Period period;
  std::vector<Segment> segments;
};

struct Stop {  // carries a failure out of the walk; never leaves this file
  Error error;
};

class InstanceReader {
 public:
  InstanceReader(const Lines& lines, std::string name) : name_(std::move(name)), lines_(lines) {}

  Filing run(pugi::xml_node root) {
    readPrefixes(root);
    for (pugi::xml_node node : root.children()) {
      const std::string_view local = localName(node.name());
      if (isXbrli(node, "context")) {
        readContext(node);
      } else if (isXbrli(node, "unit")) {
        readUnit(node);
      } else if (local == "schemaRef" || local == "linkbaseRef" || local == "roleRef" || local == "arcroleRef" ||
                 local == "footnoteLink") {
        continue;  // never followed
      }
    }
    for (pugi::xml_node node : root.children()) readItem(node, 0);
    finish();
    return std::move(filing_);
  }

 private:
  [[noreturn]] void stop(pugi::xml_node node, const std::string& what) const {
    throw Stop{{ErrorKind::BadInput, what, name_ + ", " + lines_.text(node.offset_debug()),
                "Correct the instance or ask its filer for a valid one"}};
  }

  void readPrefixes(pugi::xml_node root) {
    for (pugi::xml_attribute a : root.attributes()) {
      const std::string_view attribute = a.name();
      if (attribute != "xmlns" && prefixOf(attribute) != "xmlns") continue;
      const std::string_view uri = a.value();
      std::string prefix(attribute == "xmlns" ? std::string_view{} : localName(attribute));
      // The two public taxonomies in wide use keep one name whatever prefix a file gives them.
      std::string usual = prefix;
      if (uri.find("/ifrs-full") != std::string_view::npos) usual = "ifrs-full";
      if (uri.find("fasb.org/us-gaap") != std::string_view::npos) usual = "us-gaap";
      if (uri == "http://www.xbrl.org/2003/instance") instancePrefix_ = prefix;
      prefixes_[prefix] = usual;
    }
  }

  bool isXbrli(pugi::xml_node node, std::string_view local) const {
    return localName(node.name()) == local && prefixOf(node.name()) == instancePrefix_;
  }

  Date date(pugi::xml_node parent, pugi::xml_node node, bool periodEnd) const {
    std::string_view text = trimmed(node.child_value());
    if (!node) stop(parent, "a context has no complete period");
    const std::optional<Date> day = parseDate(text.substr(0, 10));
    const bool midnight = text.substr(std::min(text.size(), std::size_t{10}), 9) == "T00:00:00";
    if (!day || (text.size() > 10 && text[10] != 'T' && text[10] != 'Z' && text[10] != '+')) {
      stop(node, "'" + std::string(text.substr(0, 40)) + "' is not a date");
    }
    // Midnight at the start of a day is the end of the day before (XBRL 2.1, 4.7.2).
    return midnight && periodEnd ? *day - std::chrono::days(1) : *day;
  }

  void readContext(pugi::xml_node node) {
    Context context;
    const pugi::xml_node period = childNamed(node, "period");
    if (const pugi::xml_node instant = childNamed(period, "instant")) {
      context.period.end = date(period, instant, true);
    } else if (childNamed(period, "forever")) {
      forever_.insert(node.attribute("id").value());  // no fiscal year to belong to
      return;
    } else {
      if (!period) stop(node, "a context has no period");
      context.period.start = date(period, childNamed(period, "startDate"), false);
      context.period.end = date(period, childNamed(period, "endDate"), true);
      if (*context.period.start > context.period.end) {
        stop(period, "the period " + context.period.text() + " ends before it starts");
      }
    }
    for (const char* holder : {"segment", "scenario"}) {
      pugi::xml_node parent = childNamed(node, holder);
      if (!parent) parent = childNamed(childNamed(node, "entity"), holder);
      for (pugi::xml_node member : parent.children()) {
        if (member.type() != pugi::node_element) continue;
        const pugi::xml_node typed = member.first_child();
        const std::string value(typed.type() == pugi::node_element ? trimmed(typed.child_value())
                                                                   : trimmed(member.child_value()));
        const char* axis = member.attribute("dimension").value();
        context.segments.push_back({*axis != 0 ? usual(axis) : member.name(), usual(value)});
      }
    }
    contexts_[node.attribute("id").value()] = std::move(context);
  }

  void readUnit(pugi::xml_node node) {
    const auto measure = [&](pugi::xml_node parent) {
      std::string text;
      for (pugi::xml_node m : parent.children()) {
        if (localName(m.name()) != "measure") continue;
        if (!text.empty()) text += "*";
        text += localName(trimmed(m.child_value()));
      }
      return text;
    };
    std::string unit = measure(node);
    if (const pugi::xml_node divide = childNamed(node, "divide")) {
      unit = measure(childNamed(divide, "unitNumerator")) + "/" + measure(childNamed(divide, "unitDenominator"));
    }
    if (unit.empty() || unit == "/") stop(node, "a unit has no measure");
    units_[node.attribute("id").value()] = unit;
  }

  std::string usual(std::string_view qualified) const {
    const std::string prefix(prefixOf(qualified));
    const auto found = prefixes_.find(prefix);
    if (prefix.empty() || found == prefixes_.end()) return std::string(qualified);
    return found->second + ":" + std::string(localName(qualified));
  }

  void readItem(pugi::xml_node node, int depth) {
    if (node.type() != pugi::node_element) return;
    const pugi::xml_attribute ref = node.attribute("contextRef");
    if (!ref) {
      // A tuple has no context of its own; its leaves do.
      if (depth < kDeepestTuple && prefixOf(node.name()) != instancePrefix_) {
        for (pugi::xml_node child : node.children()) readItem(child, depth + 1);
      }
      return;
    }
    const auto context = contexts_.find(ref.value());
    if (context == contexts_.end()) {
      if (forever_.count(ref.value()) > 0) return;
      stop(node, "the fact " + std::string(node.name()) + " names a context '" + ref.value() +
                     "' that the file does not define");
    }
    const pugi::xml_attribute unitRef = node.attribute("unitRef");
    if (!unitRef) {
      ++textFacts_;
      return;
    }
    const auto unit = units_.find(unitRef.value());
    if (unit == units_.end()) {
      stop(node, "the fact " + std::string(node.name()) + " names a unit '" + unitRef.value() +
                     "' that the file does not define");
    }
    addFact(node, context->second, unit->second);
  }

  void addFact(pugi::xml_node node, const Context& context, const std::string& unit) {
    Fact fact;
    std::string& known = concepts_[node.name()];
    if (known.empty()) known = usual(node.name());
    fact.concept_name = known;
    fact.period = context.period;
    fact.segments = context.segments;
    fact.unit = unit;
    fact.place = lines_.text(node.offset_debug());
    const std::string_view nil = nilOf(node);
    fact.nil = nil == "true" || nil == "1";
    fact.text = std::string(trimmed(node.child_value()));
    if (fact.nil) {
      fact.text.clear();
    } else {
      if (!Decimal::isNumber(fact.text)) {
        stop(node, "the fact " + fact.concept_name + " has the value '" + fact.text.substr(0, 40) +
                       "', which is not a decimal number");
      }
      readPrecision(node, fact);
    }
    if (fact.period.isFullYear() && (!filing_.document.periodEnd || fact.period.end > *filing_.document.periodEnd)) {
      filing_.document.periodEnd = fact.period.end;
    }
    filing_.facts.push_back(std::move(fact));
  }

  static std::string_view nilOf(pugi::xml_node node) {
    for (pugi::xml_attribute a : node.attributes()) {
      if (localName(a.name()) == "nil") return a.value();
    }
    return {};
  }

  void readPrecision(pugi::xml_node node, Fact& fact) const {
    const auto whole = [&](const char* text) {
      int n = 0;
      const std::string_view s = text;
      const auto [end, code] = std::from_chars(s.data(), s.data() + s.size(), n);
      if (code != std::errc() || end != s.data() + s.size() || std::abs(n) > 40) {
        stop(node, "'" + std::string(s) + "' is no number of decimals");
      }
      return n;
    };
    if (const pugi::xml_attribute decimals = node.attribute("decimals")) {
      if (std::string_view(decimals.value()) == "INF") {
        fact.exact = true;
      } else {
        fact.decimals = whole(decimals.value());
      }
    } else if (const pugi::xml_attribute precision = node.attribute("precision")) {
      if (std::string_view(precision.value()) == "INF") {
        fact.exact = true;
      } else if (const int digits = whole(precision.value()); digits > 0) {
        fact.decimals = digits - integerDigits(fact.text);
      }
    }
  }

  /// Digits before the point; negative for leading zeros after it (XBRL 2.1, 4.6.6).
  static int integerDigits(std::string_view text) {
    const std::optional<Decimal> number = Decimal::parse(text);
    const std::string plain = number->abs().text();
    const std::size_t point = std::min(plain.find('.'), plain.size());
    if (plain[0] != '0') return static_cast<int>(point);
    const std::size_t digit = plain.find_first_not_of("0.");
    return digit == std::string::npos ? 1 : -static_cast<int>(digit - point - 1);
  }

  void finish() {
    filing_.document.name = name_;
    filing_.document.kind = contentKindText(ContentKind::XbrlInstance);
    if (textFacts_ > 0) {
      filing_.warnings.push_back(std::to_string(textFacts_) + " facts without a unit are text and were left out");
    }
  }

  std::string name_;
  const Lines& lines_;
  Filing filing_;
  std::string instancePrefix_;
  std::unordered_map<std::string, std::string> prefixes_;
  std::unordered_map<std::string_view, std::string> concepts_;  ///< as in the file -> as kept; keys live in the XML
  std::unordered_map<std::string, Context> contexts_;
  std::unordered_map<std::string, std::string> units_;
  std::unordered_set<std::string> forever_;
  int textFacts_ = 0;
};

}  // namespace

Result<Filing> readXbrlInstance(std::string_view content, const std::string& name) {
  pugi::xml_document xml;
  const pugi::xml_parse_result parsed =
      xml.load_buffer(content.data(), content.size(), pugi::parse_default | pugi::parse_doctype);
  const Lines lines(content);
  if (!parsed) {
    return fail(ErrorKind::BadInput, std::string("the XML is broken: ") + parsed.description(),
                name + ", " + lines.text(parsed.offset), "The file may be truncated; fetch it again");
  }
  for (pugi::xml_node node : xml.children()) {
    if (node.type() == pugi::node_doctype) {
      return fail(ErrorKind::BadInput,
                  "the file declares a document type, which may define entities; an XBRL instance "
                  "needs none",
                  name + ", " + lines.text(std::max<std::ptrdiff_t>(0, node.offset_debug())), "Remove the declaration");
    }
  }
  const pugi::xml_node root = xml.document_element();
  if (localName(root.name()) != "xbrl") {
    return fail(ErrorKind::WrongKind,
                "the outermost element is <" + std::string(root.name()).substr(0, 60) + ">, not an XBRL instance",
                name);
  }
  try {
    Filing filing = InstanceReader(lines, name).run(root);
    if (filing.facts.empty()) {
      return fail(ErrorKind::BadInput, "the instance holds no numeric facts", name);
    }
    return filing;
  } catch (const Stop& failure) {
    return tl::unexpected(failure.error);
  }
}

}  // namespace zl::exchange
