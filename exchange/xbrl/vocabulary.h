#pragma once
// The contexts, units and name prefixes that the facts of an XBRL document refer to. Instances and
// inline documents write them alike (XBRL 2.1, section 4; XBRL Dimensions 1.0).

#include <optional>
#include <string>
#include <string_view>
#include <unordered_map>
#include <unordered_set>
#include <vector>

#include "core/filing/fact.h"
#include "exchange/xml/document.h"

namespace zl::exchange {

constexpr std::string_view kInstanceNamespace = "http://www.xbrl.org/2003/instance";

struct Context {
  Period period;
  SharedList<Segment> segments;
  std::string entity;  ///< identifier of the reporting entity, as filed
};

/// One name for the public taxonomies' prefixes, whatever a file calls them: "ifrs-full",
/// "us-gaap". Empty for every other namespace.
std::string usualPrefix(std::string_view uri);

/// "2024-12-31", with or without a time; midnight at the start of a day is the end of the day
/// before where `periodEnd` (XBRL 2.1, 4.7.2).
std::optional<Date> xbrlDate(std::string_view text, bool periodEnd);

/// Lets maps keyed by text be searched without making one.
struct TextHash {
  using is_transparent = void;
  size_t operator()(std::string_view text) const { return std::hash<std::string_view>{}(text); }
};

/// What is wrong with a fact whose context or unit (`what`) has a fault.
std::string factOf(const std::string& name, const char* what, const Error& fault);

class Vocabulary {
 public:
  explicit Vocabulary(std::string source) : source_(std::move(source)) {}

  /// Takes the namespaces that an element declares.
  void declare(pugi::xml_node element);
  /// Reads a context or a unit element. One with a fault defines nothing: facts that name it learn why.
  void readContext(pugi::xml_node node, const xml::Lines& lines);
  void readUnit(pugi::xml_node node, const xml::Lines& lines);
  /// What is wrong with the context or the unit of that id; null where nothing is, or where there is none.
  [[nodiscard]] const Error* faultOfContext(std::string_view id) const { return faultOf(contextFaults_, id); }
  [[nodiscard]] const Error* faultOfUnit(std::string_view id) const { return faultOf(unitFaults_, id); }

  /// "prefix:Local" with the usual prefix where the namespace is a public taxonomy's.
  [[nodiscard]] std::string usual(std::string_view qualified) const;
  /// The namespace a qualified name's prefix stands for; empty when it was not declared.
  [[nodiscard]] std::string_view uriOf(std::string_view qualified) const;
  [[nodiscard]] const Context* context(std::string_view id) const;
  [[nodiscard]] const SharedText* unit(std::string_view id) const;
  template <class F>
  void eachContext(F visit) const {
    for (const auto& [id, context] : contexts_) visit(id, context);
  }
  template <class F>
  void eachUnit(F visit) const {
    for (const auto& [id, unit] : units_) visit(id, unit);
  }
  [[nodiscard]] bool isForever(std::string_view id) const { return forever_.count(std::string(id)) > 0; }

 private:
  using Faults = std::unordered_map<std::string, Error, TextHash, std::equal_to<>>;
  static const Error* faultOf(const Faults& faults, std::string_view id) {
    const auto found = faults.find(id);
    return found == faults.end() ? nullptr : &found->second;
  }

  [[noreturn]] void stop(pugi::xml_node node, const xml::Lines& lines, const std::string& what) const;
  void takeContext(pugi::xml_node node, const xml::Lines& lines);
  void takeUnit(pugi::xml_node node, const xml::Lines& lines);
  [[nodiscard]] Date date(pugi::xml_node parent, pugi::xml_node node, bool periodEnd, const xml::Lines& lines) const;

  std::string source_;
  std::unordered_map<std::string, std::string> uris_;      ///< prefix -> namespace
  std::unordered_map<std::string, std::string> prefixes_;  ///< prefix -> usual prefix
  std::unordered_map<std::string, Context, TextHash, std::equal_to<>> contexts_;
  std::unordered_map<std::string, SharedText, TextHash, std::equal_to<>> units_;
  std::unordered_set<std::string> forever_;
  Faults contextFaults_, unitFaults_;
};

/// `decimals` or `precision` of a fact whose text is a number (XBRL 2.1, 4.6.4 to 4.6.6). The
/// message says what is wrong, without the place.
Status readPrecision(std::string_view decimals, std::string_view precision, Fact& fact);

}  // namespace zl::exchange
