#include "exchange/xbrl/inline.h"

#include <algorithm>
#include <charconv>
#include <map>
#include <unordered_map>
#include <unordered_set>

#include "core/quantity/decimal.h"
#include "core/text/utf8.h"
#include "exchange/content.h"
#include "exchange/set_aside.h"
#include "exchange/xbrl/transformations.h"
#include "exchange/xbrl/vocabulary.h"

namespace zl::exchange {
namespace {

using xml::localName;

constexpr std::string_view kInlineNamespace = "http://www.xbrl.org/2013/inlineXBRL";
constexpr std::string_view kInlineNamespace10 = "http://www.xbrl.org/2008/inlineXBRL";
constexpr int kDeepestFact = 32;               ///< facts inside facts; filers nest two or three
constexpr int kLongestScale = 30;              ///< powers of ten either way
constexpr size_t kLongestText = 4096;          ///< of the texts kept about the filer
constexpr size_t kMostContinuations = 10'000;  ///< that one text may have
constexpr size_t kMostFollowed = 200'000;      ///< continuations of all texts of a page together

/// The node after `node` in reading order below `top`; with `skip` its children are passed over.
pugi::xml_node following(pugi::xml_node node, pugi::xml_node top, bool skip = false) {
  if (!skip && node.first_child()) return node.first_child();
  while (node && node != top) {
    if (node.next_sibling()) return node.next_sibling();
    node = node.parent();
  }
  return {};
}

class Page;

/// What the documents of a set give one another: each is asked only for what a fact's own lacks.
struct InlineSet {
  std::vector<std::unique_ptr<Page>> pages;
  std::unordered_map<std::string, const Page*> continuations;  ///< holder of an id: the first of them
  std::unordered_set<std::string> contextsInDispute, unitsInDispute;
  std::unordered_map<std::string, const Context*> contexts;
  std::unordered_map<std::string, const SharedText*> units;
};

/// One document of the set, walked once for what it defines and once for its facts.
class Page {
 public:
  Page(std::string name, const StopCheck& stopped)
      : name_(std::move(name)), pace_(stopped, name_), vocabulary_(name_) {}

  Status open(std::string_view content) {
    Result<std::unique_ptr<xml::Document>> document = xml::parse(content, name_, xml::Doctype::NameOnly);
    if (!document) return tl::unexpected(document.error());
    document_ = std::move(*document);
    const pugi::xml_node root = document_->tree.document_element();
    for (pugi::xml_node node = root; node; node = following(node, root)) {
      pace_.step();
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

  /// Gives the set what this page defines.
  void shareWith(InlineSet& set) const {
    for (const auto& [id, node] : continuations_) set.continuations.try_emplace(id, this);
    vocabulary_.eachContext([&](const std::string& id, const Context& context) {
      const auto [at, fresh] = set.contexts.try_emplace(id, &context);
      const bool same = fresh || (at->second->period == context.period && at->second->segments == context.segments);
      if (!same) set.contextsInDispute.insert(id);
    });
    vocabulary_.eachUnit([&](const std::string& id, const SharedText& unit) {
      const auto [at, fresh] = set.units.try_emplace(id, &unit);
      if (!fresh && !(*at->second == unit)) set.unitsInDispute.insert(id);
    });
  }

  Filing facts(const InlineSet& set) {
    set_ = &set;
    const pugi::xml_node root = document_->tree.document_element();
    // In reading order, with the facts that the place is inside of.
    int depth = 0;
    for (pugi::xml_node node = root; node;) {
      pace_.step();
      const bool number = isFact(node);
      if (number && depth >= kDeepestFact) {
        stop(node, "facts are nested more than " + std::to_string(kDeepestFact) + " deep");
      }
      take(node);
      if (node.first_child()) {
        depth += number ? 1 : 0;
        node = node.first_child();
        continue;
      }
      while (node && node != root && !node.next_sibling()) {
        node = node.parent();
        depth -= isFact(node) ? 1 : 0;
      }
      node = node == root ? pugi::xml_node() : node.next_sibling();
    }
    finish();
    return std::move(filing_);
  }

  [[nodiscard]] const SetAside& unusable() const { return unusable_; }

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

  [[nodiscard]] bool isFact(pugi::xml_node node) const {
    return node.type() == pugi::node_element && localName(node.name()) == "nonFraction" && isInline(node);
  }

  void take(pugi::xml_node node) {
    if (node.type() != pugi::node_element || !isInline(node)) return;
    const std::string_view local = localName(node.name());
    if (local == "nonFraction") {
      setAsideOnFault([&] { readNumber(node); });
    } else if (local == "nonNumeric") {
      setAsideOnFault([&] { readText(node); });
    } else if (local == "fraction") {
      setAside("fractions", node);
    }
  }

  template <class F>
  void setAsideOnFault(F read) {
    try {
      read();
    } catch (const xml::Stop& fault) {
      if (fault.error.kind == ErrorKind::Cancelled) throw;
      unusable_.add(fault.error);
    }
  }

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
      if (text.size() > kLongestText) break;  // no number is as long, and no more is kept of a text
      if (node.type() == pugi::node_element && localName(node.name()) == "exclude" && isInline(node)) skip = true;
      node = following(node, element, skip);
    }
    return text;
  }

  /// The page's own, else the one that the other pages agree on.
  template <class T>
  const T* find(pugi::xml_node fact, const T* own, const std::string& id, const char* what,
                const std::unordered_map<std::string, const T*>& shared,
                const std::unordered_set<std::string>& inDispute) const {
    if (own != nullptr) return own;
    if (inDispute.count(id) > 0) {
      stop(fact,
           std::string("the ") + what + " '" + id + "' is defined differently by two of the files given together");
    }
    const auto found = shared.find(id);
    return found == shared.end() ? nullptr : found->second;
  }

  const Context* contextOf(pugi::xml_node node) const {
    const std::string id = node.attribute("contextRef").value();
    const Context* context =
        find(node, vocabulary_.context(id), id, "context", set_->contexts, set_->contextsInDispute);
    if (context == nullptr && !vocabulary_.isForever(id)) {
      const std::string name = node.attribute("name").value();
      if (const Error* fault = vocabulary_.faultOfContext(id)) stop(node, factOf(name, "context", *fault));
      stop(node, "the fact " + name + " names a context '" + id + "' that no file given defines");
    }
    return context;
  }

  void readNumber(pugi::xml_node node) {
    if (*node.attribute("target").value() != 0) return setAside("facts of another target", node);
    const Context* context = contextOf(node);
    if (context == nullptr) return;
    const std::string unitId = node.attribute("unitRef").value();
    const SharedText* unit = find(node, vocabulary_.unit(unitId), unitId, "unit", set_->units, set_->unitsInDispute);
    Fact fact;
    fact.concept_name = texts_(vocabulary_.usual(node.attribute("name").value()));
    if (fact.concept_name.empty()) stop(node, "a fact has no name");
    if (unit == nullptr) {
      if (const Error* fault = vocabulary_.faultOfUnit(unitId)) stop(node, factOf(fact.concept_name, "unit", *fault));
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
    const bool wanted = (names && filing_.about.filerName.empty()) || (ends && !filing_.about.periodEnd);
    if (!wanted) return;
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
  std::string continuedText(pugi::xml_node node) {
    std::string text = textOf(node);
    std::string next = node.attribute("continuedAt").value();
    std::unordered_set<std::string> passed;
    while (!next.empty() && text.size() < kLongestText) {
      if (!passed.insert(next).second) stop(node, "the continuation '" + next + "' leads back to itself");
      if (passed.size() > kMostContinuations || ++followed_ > kMostFollowed) {
        stop(node, "texts continue more often than is followed (10,000 times for one, 200,000 in all)");
      }
      pace_.step();
      const Page* holder = this;
      if (continuations_.count(next) == 0) {
        const auto other = set_->continuations.find(next);
        if (other == set_->continuations.end()) {
          stop(node, "the text continues at '" + next + "', which no file given holds");
        }
        holder = other->second;
      }
      const pugi::xml_node more = holder->continuations_.at(next);
      text += holder->textOf(more);
      next = more.attribute("continuedAt").value();
    }
    return std::string(xml::trimmed(shortText(text)));
  }

  /// At most what is kept of a text, in whole characters.
  static std::string shortText(const std::string& text) {
    return text.size() <= kLongestText ? text : shortened(text, kLongestText);
  }

  void finish() {
    filing_.document.name = name_;
    filing_.document.kind = contentKindText(ContentKind::InlineXbrl);
    unusable_.tell(filing_.warnings);
    for (const auto& [what, aside] : setAside_) {
      filing_.warnings.push_back(std::to_string(aside.first) + " " + what + " were set aside, the first at " +
                                 aside.second);
    }
  }

  std::string name_;
  xml::Pace pace_;
  std::unique_ptr<xml::Document> document_;
  TextPool texts_;
  Vocabulary vocabulary_;
  std::unordered_map<std::string, pugi::xml_node> continuations_;
  const InlineSet* set_ = nullptr;
  size_t followed_ = 0;  ///< continuations
  Filing filing_;
  std::map<std::string, std::pair<int, std::string>> setAside_;
  SetAside unusable_{"facts"};
};

}  // namespace

Result<std::vector<Filing>> readInlineXbrl(std::span<const NamedContent> documents, const StopCheck& stopped) {
  try {
    InlineSet set;
    for (const NamedContent& document : documents) {
      set.pages.push_back(std::make_unique<Page>(document.name, stopped));
      if (Status s = set.pages.back()->open(document.content); !s) return tl::unexpected(s.error());
    }
    for (const std::unique_ptr<Page>& page : set.pages) page->shareWith(set);
    std::vector<Filing> filings;
    filings.reserve(set.pages.size());
    for (const std::unique_ptr<Page>& page : set.pages) filings.push_back(page->facts(set));
    if (std::any_of(filings.begin(), filings.end(), [](const Filing& f) { return !f.facts.empty(); })) return filings;
    for (const std::unique_ptr<Page>& page : set.pages) {
      if (page->unusable().first()) return tl::unexpected(*page->unusable().first());
    }
    return filings;
  } catch (const xml::Stop& failure) {
    return tl::unexpected(failure.error);
  }
}

}  // namespace zl::exchange
