#include "exchange/xbrl/inline.h"

#include <algorithm>
#include <charconv>
#include <map>
#include <unordered_map>

#include "core/quantity/decimal.h"
#include "exchange/content.h"
#include "exchange/xbrl/transformations.h"
#include "exchange/xbrl/vocabulary.h"

namespace zl::exchange {
namespace {

using xml::localName;

constexpr std::string_view kInlineNamespace = "http://www.xbrl.org/2013/inlineXBRL";
constexpr std::string_view kInlineNamespace10 = "http://www.xbrl.org/2008/inlineXBRL";
constexpr std::string_view kInstanceNamespace = "http://www.xbrl.org/2003/instance";
constexpr int kDeepestFact = 32;       ///< facts inside facts; filers nest two or three
constexpr int kLongestScale = 30;      ///< powers of ten either way
constexpr size_t kLongestText = 4096;  ///< of the texts kept about the filer

/// The node after `node` in reading order below `top`; with `skip` its children are passed over.
pugi::xml_node following(pugi::xml_node node, pugi::xml_node top, bool skip = false) {
  if (!skip && node.first_child()) return node.first_child();
  while (node && node != top) {
    if (node.next_sibling()) return node.next_sibling();
    node = node.parent();
  }
  return {};
}

/// One document of the set, walked once for what it defines and once for its facts.
class Page {
 public:
  explicit Page(std::string name) : name_(std::move(name)), vocabulary_(name_) {}

  Status open(std::string_view content) {
    Result<std::unique_ptr<xml::Document>> document = xml::parse(content, name_, xml::Doctype::NameOnly);
    if (!document) return tl::unexpected(document.error());
    document_ = std::move(*document);
    const pugi::xml_node root = document_->tree.document_element();
    for (pugi::xml_node node = root; node; node = following(node, root)) {
      if (node.type() != pugi::node_element) continue;
      vocabulary_.declare(node);
      const std::string_view local = localName(node.name());
      if (local == "context" && isXbrli(node)) {
        vocabulary_.readContext(node, document_->lines);
      } else if (local == "unit" && isXbrli(node)) {
        vocabulary_.readUnit(node, document_->lines);
      } else if (local == "continuation" && isInline(node)) {
        continuations_[node.attribute("id").value()] = node;
      }
    }
    return {};
  }

  Filing facts(const std::vector<std::unique_ptr<Page>>& set) {
    set_ = &set;
    const pugi::xml_node root = document_->tree.document_element();
    for (pugi::xml_node node = root; node; node = following(node, root)) {
      if (node.type() != pugi::node_element || !isInline(node)) continue;
      const std::string_view local = localName(node.name());
      if (local == "nonFraction") {
        readNumber(node);
      } else if (local == "nonNumeric") {
        readText(node);
      } else if (local == "fraction") {
        setAside("fractions", node);
      }
    }
    finish();
    return std::move(filing_);
  }

 private:
  [[noreturn]] void stop(pugi::xml_node node, const std::string& what) const {
    throw xml::Stop{Error{ErrorKind::BadInput, what, name_ + ", " + place(node),
                          "Give all files of the report together, or ask its filer for a valid one"}};
  }

  [[nodiscard]] std::string place(pugi::xml_node node) const { return document_->lines.text(node.offset_debug()); }

  [[nodiscard]] bool isInline(pugi::xml_node node) const {
    const std::string_view uri = vocabulary_.uriOf(node.name());
    return uri == kInlineNamespace || uri == kInlineNamespace10;
  }
  [[nodiscard]] bool isXbrli(pugi::xml_node node) const { return vocabulary_.uriOf(node.name()) == kInstanceNamespace; }

  void setAside(const std::string& what, pugi::xml_node first) {
    auto& [count, where] = setAside_[what];
    if (++count == 1) where = place(first);
  }

  /// The text below an element, without what is marked as no part of it.
  [[nodiscard]] std::string textOf(pugi::xml_node element) const {
    std::string text;
    for (pugi::xml_node node = element.first_child(); node;) {
      bool skip = false;
      if (node.type() == pugi::node_pcdata || node.type() == pugi::node_cdata) text += node.value();
      if (node.type() == pugi::node_element && localName(node.name()) == "exclude" && isInline(node)) skip = true;
      node = following(node, element, skip);
    }
    return text;
  }

  /// A context or unit: the page's own, else the one that the other pages agree on.
  template <class T>
  const T* find(pugi::xml_node fact, const std::string& id, const char* what,
                const T* (Vocabulary::*lookUp)(std::string_view) const, bool (*same)(const T&, const T&)) const {
    if (const T* own = (vocabulary_.*lookUp)(id)) return own;
    const T* found = nullptr;
    for (const std::unique_ptr<Page>& other : *set_) {
      const T* theirs = (other->vocabulary_.*lookUp)(id);
      if (theirs == nullptr) continue;
      if (found != nullptr && !same(*found, *theirs)) {
        stop(fact,
             std::string("the ") + what + " '" + id + "' is defined differently by two of the files given together");
      }
      found = theirs;
    }
    return found;
  }

  const Context* contextOf(pugi::xml_node node) const {
    const std::string id = node.attribute("contextRef").value();
    const Context* context = find<Context>(
        node, id, "context", &Vocabulary::context,
        [](const Context& a, const Context& b) { return a.period == b.period && a.segments == b.segments; });
    if (context == nullptr && !vocabulary_.isForever(id)) {
      stop(node, "the fact " + std::string(node.attribute("name").value()) + " names a context '" + id +
                     "' that no file given defines");
    }
    return context;
  }

  void readNumber(pugi::xml_node node) {
    if (*node.attribute("target").value() != 0) return setAside("facts of another target", node);
    int depth = 0;
    for (pugi::xml_node up = node.parent(); up; up = up.parent()) {
      if (localName(up.name()) == "nonFraction" && ++depth > kDeepestFact) {
        stop(node, "facts are nested more than " + std::to_string(kDeepestFact) + " deep");
      }
    }
    const Context* context = contextOf(node);
    if (context == nullptr) return;
    const std::string unitId = node.attribute("unitRef").value();
    const SharedText* unit = find<SharedText>(node, unitId, "unit", &Vocabulary::unit,
                                              [](const SharedText& a, const SharedText& b) { return a == b; });
    Fact fact;
    fact.concept_name = texts_(vocabulary_.usual(node.attribute("name").value()));
    if (fact.concept_name.empty()) stop(node, "a fact has no name");
    if (unit == nullptr) {
      stop(node, "the fact " + fact.concept_name + " names a unit '" + unitId + "' that no file given defines");
    }
    fact.period = context->period;
    fact.segments = context->segments;
    fact.unit = *unit;
    fact.place = place(node);
    if (const std::string_view id = node.attribute("id").value(); !id.empty()) {
      fact.place += ", element '" + std::string(id.substr(0, 80)) + "'";
    }
    const std::string_view nil = xml::attributeNamed(node, "nil");
    fact.nil = nil == "true" || nil == "1";
    if (!fact.nil && !readValue(node, fact)) return;
    noteYear(filing_.document, fact.period);
    if (filing_.about.filer.empty()) filing_.about.filer = context->entity;
    filing_.facts.push_back(std::move(fact));
  }

  /// False where the fact was set aside.
  bool readValue(pugi::xml_node node, Fact& fact) {
    const std::string_view format = node.attribute("format").value();
    const Result<std::string> plain = transformNumber(localName(format), textOf(node));
    if (!plain) {
      if (plain.error().kind == ErrorKind::Unsupported) {
        setAside("facts of an unknown format ('" + std::string(localName(format).substr(0, 40)) + "')", node);
        return false;
      }
      stop(node, "the fact " + fact.concept_name + ": " + plain.error().what);
    }
    int scale = 0;
    const std::string_view given = node.attribute("scale").value();
    if (!given.empty()) {
      const auto [end, code] = std::from_chars(given.data(), given.data() + given.size(), scale);
      if (code != std::errc() || end != given.data() + given.size() || scale < -kLongestScale ||
          scale > kLongestScale) {
        stop(node, "'" + std::string(given.substr(0, 20)) + "' is no scale of -30 to 30");
      }
    }
    const std::string_view sign = node.attribute("sign").value();
    if (!sign.empty() && sign != "-") stop(node, "'" + std::string(sign.substr(0, 20)) + "' is no sign");
    fact.text = (sign.empty() ? "" : "-") + scaledText(*plain, scale);
    if (!Decimal::isNumber(fact.text))
      stop(node, "the fact " + fact.concept_name + " has more digits than can be kept");
    const Status read = readPrecision(node.attribute("decimals").value(), node.attribute("precision").value(), fact);
    if (!read) stop(node, read.error().what);
    return true;
  }

  void readText(pugi::xml_node node) {
    const std::string concept_name = vocabulary_.usual(node.attribute("name").value());
    const std::string_view local = localName(concept_name);
    const bool names = local == "EntityRegistrantName" || local == "NameOfReportingEntityOrOtherMeansOfIdentification";
    const bool ends = local == "DocumentPeriodEndDate" || local == "DateOfEndOfReportingPeriod2013";
    if (!names && !ends) return;
    const std::string text = continuedText(node);
    if (names && filing_.about.filerName.empty()) filing_.about.filerName = text;
    if (ends && !filing_.about.periodEnd) {
      filing_.about.periodEnd = transformDate(localName(node.attribute("format").value()), text);
      if (!filing_.about.periodEnd) {
        filing_.warnings.push_back("the period's end '" + text.substr(0, 40) + "' (" + place(node) +
                                   ") was not understood");
      }
    }
  }

  /// The text of an element and of what continues it, across the set's files.
  std::string continuedText(pugi::xml_node node) const {
    std::string text = textOf(node);
    std::string next = node.attribute("continuedAt").value();
    std::vector<std::string> passed;
    while (!next.empty() && text.size() < kLongestText) {
      if (std::find(passed.begin(), passed.end(), next) != passed.end()) {
        stop(node, "the continuation '" + next + "' leads back to itself");
      }
      passed.push_back(next);
      const Page* holder = nullptr;
      for (const std::unique_ptr<Page>& page : *set_) {
        if (page->continuations_.count(next) > 0 && (holder == nullptr || page.get() == this)) holder = page.get();
      }
      if (holder == nullptr) stop(node, "the text continues at '" + next + "', which no file given holds");
      const pugi::xml_node more = holder->continuations_.at(next);
      text += holder->textOf(more);
      next = more.attribute("continuedAt").value();
    }
    return std::string(xml::trimmed(text.substr(0, kLongestText)));
  }

  void finish() {
    filing_.document.name = name_;
    filing_.document.kind = contentKindText(ContentKind::InlineXbrl);
    for (const auto& [what, aside] : setAside_) {
      filing_.warnings.push_back(std::to_string(aside.first) + " " + what + " were set aside, the first at " +
                                 aside.second);
    }
  }

  std::string name_;
  std::unique_ptr<xml::Document> document_;
  TextPool texts_;
  Vocabulary vocabulary_;
  std::unordered_map<std::string, pugi::xml_node> continuations_;
  const std::vector<std::unique_ptr<Page>>* set_ = nullptr;
  Filing filing_;
  std::map<std::string, std::pair<int, std::string>> setAside_;
};

}  // namespace

Result<std::vector<Filing>> readInlineXbrl(std::span<const NamedContent> documents) {
  try {
    std::vector<std::unique_ptr<Page>> set;
    for (const NamedContent& document : documents) {
      set.push_back(std::make_unique<Page>(document.name));
      if (Status s = set.back()->open(document.content); !s) return tl::unexpected(s.error());
    }
    std::vector<Filing> filings;
    filings.reserve(set.size());
    for (const std::unique_ptr<Page>& page : set) filings.push_back(page->facts(set));
    return filings;
  } catch (const xml::Stop& failure) {
    return tl::unexpected(failure.error);
  }
}

}  // namespace zl::exchange
