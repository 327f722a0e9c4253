#include "exchange/xbrl/instance.h"

#include <unordered_map>

#include "core/quantity/decimal.h"
#include "exchange/content.h"
#include "exchange/xbrl/vocabulary.h"

namespace zl::exchange {
namespace {

using xml::localName;
using xml::prefixOf;

constexpr int kDeepestTuple = 32;
constexpr std::string_view kInstanceNamespace = "http://www.xbrl.org/2003/instance";

class InstanceReader {
 public:
  InstanceReader(const xml::Lines& lines, std::string name)
      : name_(std::move(name)), lines_(lines), vocabulary_(name_) {}

  Filing run(pugi::xml_node root) {
    vocabulary_.declare(root);
    size_t others = 0;
    for (pugi::xml_node node : root.children()) {
      const std::string_view local = localName(node.name());
      if (local == "context" && isXbrli(node)) {
        vocabulary_.readContext(node, lines_);
      } else if (local == "unit" && isXbrli(node)) {
        vocabulary_.readUnit(node, lines_);
      } else {
        ++others;
      }
    }
    filing_.facts.reserve(others);  // growing by halves would hold a million facts one and a half times
    for (pugi::xml_node node : root.children()) readItem(node, 0);
    finish();
    return std::move(filing_);
  }

 private:
  [[noreturn]] void stop(pugi::xml_node node, const std::string& what) const {
    throw xml::Stop{Error{ErrorKind::BadInput, what, name_ + ", " + lines_.text(node.offset_debug()),
                          "Correct the instance or ask its filer for a valid one"}};
  }

  bool isXbrli(pugi::xml_node node) const { return vocabulary_.uriOf(node.name()) == kInstanceNamespace; }

  /// What an item's attributes say, read in one walk.
  struct ItemAttributes {
    const char* context = nullptr;
    const char* unit = nullptr;
    const char* decimals = "";
    const char* precision = "";
    bool nil = false;
  };

  static ItemAttributes attributesOf(pugi::xml_node node) {
    ItemAttributes found;
    for (pugi::xml_attribute a : node.attributes()) {
      const std::string_view attribute = a.name();
      if (attribute == "contextRef") {
        found.context = a.value();
      } else if (attribute == "unitRef") {
        found.unit = a.value();
      } else if (attribute == "decimals") {
        found.decimals = a.value();
      } else if (attribute == "precision") {
        found.precision = a.value();
      } else if (localName(attribute) == "nil") {
        const std::string_view said = a.value();
        found.nil = said == "true" || said == "1";
      }
    }
    return found;
  }

  void readItem(pugi::xml_node node, int depth) {
    if (node.type() != pugi::node_element) return;
    const ItemAttributes said = attributesOf(node);
    if (said.context == nullptr) {
      // A tuple has no context of its own; its leaves do. Links are never followed.
      if (depth < kDeepestTuple && !isXbrli(node)) {
        for (pugi::xml_node child : node.children()) readItem(child, depth + 1);
      }
      return;
    }
    const Context* context = vocabulary_.context(said.context);
    if (context == nullptr) {
      if (vocabulary_.isForever(said.context)) return;
      stop(node, "the fact " + std::string(node.name()) + " names a context '" + said.context +
                     "' that the file does not define");
    }
    if (said.unit == nullptr) {
      ++textFacts_;
      return;
    }
    const SharedText* unit = vocabulary_.unit(said.unit);
    if (unit == nullptr) {
      stop(node,
           "the fact " + std::string(node.name()) + " names a unit '" + said.unit + "' that the file does not define");
    }
    addFact(node, said, *context, *unit);
  }

  void addFact(pugi::xml_node node, const ItemAttributes& said, const Context& context, const SharedText& unit) {
    Fact& fact = filing_.facts.emplace_back();
    SharedText& known = concepts_[node.name()];
    if (known.empty()) known = vocabulary_.usual(node.name());
    fact.concept_name = known;
    fact.period = context.period;
    fact.segments = context.segments;
    fact.unit = unit;
    line_ = lines_.numberAfter(node.offset_debug(), line_);
    fact.place = xml::Lines::place(line_);
    fact.nil = said.nil;
    if (!fact.nil) {
      fact.text = xml::trimmed(node.child_value());
      if (!Decimal::isNumber(fact.text)) {
        stop(node, "the fact " + fact.concept_name + " has the value '" + fact.text.substr(0, 40) +
                       "', which is not a decimal number");
      }
      const Status read = readPrecision(said.decimals, said.precision, fact);
      if (!read) stop(node, read.error().what);
    }
    noteYear(filing_.document, fact.period);
  }

  void finish() {
    filing_.document.name = name_;
    filing_.document.kind = contentKindText(ContentKind::XbrlInstance);
    if (textFacts_ > 0) {
      filing_.warnings.push_back(std::to_string(textFacts_) + " facts without a unit are text and were left out");
    }
  }

  std::string name_;
  const xml::Lines& lines_;
  Vocabulary vocabulary_;
  Filing filing_;
  std::unordered_map<std::string_view, SharedText> concepts_;  ///< as in the file -> as kept; keys live in the XML
  int line_ = 1;                                               ///< of the last fact
  int textFacts_ = 0;
};

}  // namespace

Result<Filing> readXbrlInstance(std::string_view content, const std::string& name) {
  const Result<std::unique_ptr<xml::Document>> document = xml::parse(content, name, xml::Doctype::Refused);
  if (!document) return tl::unexpected(document.error());
  const pugi::xml_node root = (*document)->tree.document_element();
  if (localName(root.name()) != "xbrl") {
    return fail(ErrorKind::WrongKind,
                "the outermost element is <" + std::string(root.name()).substr(0, 60) + ">, not an XBRL instance",
                name);
  }
  try {
    Filing filing = InstanceReader((*document)->lines, name).run(root);
    if (filing.facts.empty()) {
      return fail(ErrorKind::BadInput, "the instance holds no numeric facts", name);
    }
    return filing;
  } catch (const xml::Stop& failure) {
    return tl::unexpected(failure.error);
  }
}

}  // namespace zl::exchange
