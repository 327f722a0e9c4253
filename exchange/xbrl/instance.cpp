#include "exchange/xbrl/instance.h"

#include <algorithm>
#include <cstring>
#include <functional>
#include <unordered_map>

#include "core/quantity/decimal.h"
#include "exchange/content.h"
#include "exchange/set_aside.h"
#include "exchange/xbrl/vocabulary.h"
#include "exchange/xml/runs.h"

namespace zl::exchange {
namespace {

using xml::localName;
using xml::prefixOf;

constexpr int kDeepestTuple = 32;

class InstanceReader {
 public:
  InstanceReader(const xml::Lines& lines, std::string name, const StopCheck& stopped)
      : name_(std::move(name)), lines_(lines), pace_(stopped, name_), vocabulary_(name_) {}

  /// What is in the root, one part after the other, for as long as it is asked for; false where that ended.
  using Visit = std::function<bool(pugi::xml_node parent)>;
  using Parts = std::function<bool(const Visit&)>;

  Filing run(pugi::xml_node root, const Parts& parts, size_t likelyFacts) {
    vocabulary_.declare(root);
    filing_.facts.reserve(likelyFacts);  // growing by halves would hold a million facts one and a half times
    // Nearly all files define contexts and units before their facts: one walk then does.
    if (!walk(parts, Pass::InOrder)) {
      filing_.facts.clear();
      textFacts_ = fractions_ = 0;
      unusable_ = SetAside("facts");
      line_ = 1;
      walk(parts, Pass::Definitions);
      walk(parts, Pass::Facts);
    }
    finish();
    return std::move(filing_);
  }

 private:
  void setAside(pugi::xml_node node, const std::string& what) {
    unusable_.add(xml::Stop{Error{ErrorKind::BadInput, what, name_ + ", " + lines_.text(node.offset_debug()),
                                  "Correct the instance or ask its filer for a valid one"}}
                      .error);
  }

  enum class Pass {
    InOrder,      ///< both, as they come; ends where a fact names something not seen yet
    Definitions,  ///< contexts and units
    Facts,        ///< with all of them known
  };

  bool walk(const Parts& parts, Pass pass) {
    return parts([&](pugi::xml_node parent) {
      for (pugi::xml_node node : parent.children()) {
        pace_.step();
        if (pass == Pass::Definitions) {
          readDefinition(node);
        } else if (!readItem(node, 0, pass)) {
          return false;
        }
      }
      return true;
    });
  }

  /// Takes a context or a unit; false for every other element.
  bool readDefinition(pugi::xml_node node) {
    const std::string_view local = localName(node.name());
    if (local == "context" && isXbrli(node)) {
      vocabulary_.readContext(node, lines_);
    } else if (local == "unit" && isXbrli(node)) {
      vocabulary_.readUnit(node, lines_);
    } else {
      return false;
    }
    return true;
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
    // A million facts ask this: the first letter tells most names apart.
    for (pugi::xml_attribute a = node.first_attribute(); a; a = a.next_attribute()) {
      const char* attribute = a.name();
      const auto is = [&](const char* known) { return attribute[0] == known[0] && std::strcmp(attribute, known) == 0; };
      if (is("contextRef")) {
        found.context = a.value();
      } else if (is("unitRef")) {
        found.unit = a.value();
      } else if (is("decimals")) {
        found.decimals = a.value();
      } else if (is("precision")) {
        found.precision = a.value();
      } else if (localName(attribute) == "nil") {
        const std::string_view said = a.value();
        found.nil = said == "true" || said == "1";
      }
    }
    return found;
  }

  /// False where the fact names a context or a unit that has not been defined before it.
  bool readItem(pugi::xml_node node, int depth, Pass pass) {
    if (node.type() != pugi::node_element) return true;
    const ItemAttributes said = attributesOf(node);
    if (said.context == nullptr) {
      if (depth == 0 && pass == Pass::InOrder && readDefinition(node)) return true;
      // A tuple has no context of its own; its leaves do. Links are never followed.
      if (depth >= kDeepestTuple || isXbrli(node)) return true;
      for (pugi::xml_node child : node.children()) {
        if (!readItem(child, depth + 1, pass)) return false;
      }
      return true;
    }
    const Context* context = vocabulary_.context(said.context);
    if (context == nullptr) {
      if (vocabulary_.isForever(said.context)) return true;
      if (const Error* fault = vocabulary_.faultOfContext(said.context)) return unusable(node, "context", *fault);
      return undefined(node, "a context", said.context, pass);
    }
    if (said.unit == nullptr) {
      ++textFacts_;
      return true;
    }
    const SharedText* unit = vocabulary_.unit(said.unit);
    if (unit == nullptr) {
      if (const Error* fault = vocabulary_.faultOfUnit(said.unit)) return unusable(node, "unit", *fault);
      return undefined(node, "a unit", said.unit, pass);
    }
    addFact(node, said, *context, *unit);
    return true;
  }

  bool unusable(pugi::xml_node node, const char* what, const Error& fault) {
    setAside(node, factOf(node.name(), what, fault));
    return true;
  }

  bool undefined(pugi::xml_node node, const char* what, const char* id, Pass pass) {
    if (pass == Pass::InOrder) return false;
    setAside(node,
             "the fact " + std::string(node.name()) + " names " + what + " '" + id + "' that the file does not define");
    return true;
  }

  void addFact(pugi::xml_node node, const ItemAttributes& said, const Context& context, const SharedText& unit) {
    if (!said.nil && node.first_child().type() == pugi::node_element) {
      ++fractions_;  // a numerator and a denominator (XBRL 2.1, 4.6.3): no figure of a statement
      return;
    }
    Fact& fact = filing_.facts.emplace_back();
    auto known = concepts_.find(std::string_view(node.name()));
    if (known == concepts_.end()) known = concepts_.emplace(node.name(), vocabulary_.usual(node.name())).first;
    fact.concept_name = known->second;
    fact.period = context.period;
    fact.segments = context.segments;
    fact.unit = unit;
    line_ = lines_.numberAfter(node.offset_debug(), line_);
    fact.place = xml::Lines::place(line_);
    fact.nil = said.nil;
    if (!fact.nil) {
      fact.text = xml::trimmed(xml::textOf(node, pieces_));
      const Status read = readPrecision(said.decimals, said.precision, fact);
      const bool number = Decimal::isNumber(fact.text);
      if (!number || !read) {
        setAside(node, number ? read.error().what
                              : "the fact " + fact.concept_name + " has the value '" + fact.text.substr(0, 40) +
                                    "', which is not a decimal number");
        filing_.facts.pop_back();
        return;
      }
    }
    noteYear(filing_.document, fact.period);
  }

  void finish() {
    filing_.document.name = name_;
    filing_.document.kind = contentKindText(ContentKind::XbrlInstance);
    if (filing_.facts.empty() && unusable_.first()) throw xml::Stop{*unusable_.first()};
    unusable_.tell(filing_.warnings);
    if (fractions_ > 0)
      filing_.warnings.push_back(std::to_string(fractions_) + (fractions_ == 1 ? " fraction was" : " fractions were") +
                                 " set aside");
    if (textFacts_ > 0) {
      filing_.warnings.push_back(std::to_string(textFacts_) + " facts without a unit are text and were left out");
    }
  }

  std::string name_;
  const xml::Lines& lines_;
  xml::Pace pace_;
  Vocabulary vocabulary_;
  Filing filing_;
  std::unordered_map<std::string, SharedText, TextHash, std::equal_to<>> concepts_;  ///< as in the file -> as kept
  int line_ = 1;                                                                     ///< of the last fact
  int textFacts_ = 0;
  int fractions_ = 0;
  SetAside unusable_{"facts"};
  std::string pieces_;  ///< of a value that comments cut
};

/// A run that does not parse: the whole is parsed then, to say what is wrong.
struct BrokenRun {};

/// Facts that a text of this size could hold at most.
size_t likelyFacts(const xml::Lines& lines, size_t size) {
  constexpr size_t kShortestFact = 60;  // bytes
  return std::min(lines.count(), size / kShortestFact);
}

Filing readRuns(std::string_view content, const xml::Runs& runs, const std::string& name, const StopCheck& stopped) {
  xml::Lines lines(content);
  pugi::xml_document head, tree;
  const std::string root = std::string(runs.startTag) + "</" + std::string(runs.name) + ">";
  if (!head.load_buffer(root.data(), root.size())) throw BrokenRun{};
  const auto parts = [&](const InstanceReader::Visit& visit) {
    for (const std::string_view run : runs.inner) {
      if (!xml::parseRun(run, tree)) throw BrokenRun{};
      lines.countFrom(run.data() - content.data());
      if (!visit(tree)) return false;
    }
    return true;
  };
  return InstanceReader(lines, name, stopped).run(head.document_element(), parts, likelyFacts(lines, content.size()));
}

Result<Filing> readWhole(std::string_view content, const std::string& name, const StopCheck& stopped) {
  const Result<std::unique_ptr<xml::Document>> document = xml::parse(content, name, xml::Doctype::Refused);
  if (!document) return tl::unexpected(document.error());
  const pugi::xml_node root = (*document)->tree.document_element();
  if (localName(root.name()) != "xbrl") {
    return fail(ErrorKind::WrongKind,
                "the outermost element is <" + std::string(root.name()).substr(0, 60) + ">, not an XBRL instance",
                name);
  }
  const auto parts = [&](const InstanceReader::Visit& visit) { return visit(root); };
  const xml::Lines& lines = (*document)->lines;
  return InstanceReader(lines, name, stopped).run(root, parts, likelyFacts(lines, content.size()));
}

Result<Filing> readAnySize(std::string_view content, const std::string& name, const StopCheck& stopped) {
  constexpr size_t kRun = size_t{1} << 20;
  if (content.size() > kRun) {
    if (const std::optional<xml::Runs> runs = xml::runsOf(content, kRun); runs && localName(runs->name) == "xbrl") {
      try {
        return readRuns(content, *runs, name, stopped);
      } catch (const BrokenRun&) {
        return readWhole(content, name, stopped);
      }
    }
  }
  return readWhole(content, name, stopped);
}

}  // namespace

Result<Filing> readXbrlInstance(std::string_view content, const std::string& name, const StopCheck& stopped) {
  try {
    Result<Filing> filing = readAnySize(content, name, stopped);
    if (filing && filing->facts.empty()) {
      return fail(ErrorKind::BadInput, "the instance holds no numeric facts", name);
    }
    return filing;
  } catch (const xml::Stop& failure) {
    return tl::unexpected(failure.error);
  }
}

}  // namespace zl::exchange
