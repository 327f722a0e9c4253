#pragma once
// What every XML reader of this layer shares: names without prefixes, line numbers, and parsing
// that follows nothing outside the file.

#include <memory>
#include <pugixml.hpp>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/error.h"
#include "exchange/stop_check.h"

namespace zl::exchange::xml {

std::string_view localName(std::string_view name);
std::string_view prefixOf(std::string_view name);
std::string_view trimmed(std::string_view text);
/// The text of an element: comments, instructions and sections may cut it into pieces (XML 1.0, 2.4 to 2.7), which are
/// put together in `pieces` where there are several.
std::string_view textOf(pugi::xml_node node, std::string& pieces);
/// The first child of that local name, whatever its prefix; an empty node when there is none.
pugi::xml_node childNamed(pugi::xml_node node, std::string_view local);
/// The attribute of that local name, whatever its prefix; empty when there is none.
std::string_view attributeNamed(pugi::xml_node node, std::string_view local);

/// Line numbers from byte offsets.
class Lines {
 public:
  explicit Lines(std::string_view content);
  /// Offsets asked for from now on are of a part of the content that begins at `start`.
  void countFrom(std::ptrdiff_t start) { start_ = start; }
  [[nodiscard]] int number(std::ptrdiff_t offset) const;
  /// The same for an offset a little after one on line `near`: a walk in order need not search.
  [[nodiscard]] int numberAfter(std::ptrdiff_t offset, int near) const;
  [[nodiscard]] std::string text(std::ptrdiff_t offset) const { return place(number(offset)); }
  static std::string place(int line);
  [[nodiscard]] std::size_t count() const { return ends_.size() + 1; }

 private:
  std::vector<std::size_t> ends_;
  std::ptrdiff_t start_ = 0;
};

/// Thrown out of a walk when the reading is no longer wanted; readers turn it into a value like Stop.
/// Asked every few thousand nodes.
class Pace {
 public:
  Pace(const StopCheck& stopped, std::string name) : stopped_(stopped), name_(std::move(name)) {}
  void step() {
    constexpr unsigned kBetween = 4096;
    if (++steps_ % kBetween == 0 && stopped_()) end();
  }

 private:
  [[noreturn]] void end() const;
  const StopCheck& stopped_;
  std::string name_;
  unsigned steps_ = 0;
};

/// A failure on its way out of a walk; readers turn it into a value and never let it pass them.
struct Stop {
  /// Names out of a damaged file can be of any length: what a person is told stays short.
  explicit Stop(Error e);
  Error error;
};

enum class Doctype {
  Refused,   ///< data: a declaration has no use but to define entities
  NameOnly,  ///< web pages: <!DOCTYPE html>, without a set of its own
};

struct Document {
  explicit Document(std::string_view content) : lines(content) {}
  explicit Document(std::string content) : text(std::move(content)), lines(text) {}
  std::string text;  ///< what the tree's names and values point into, where it was handed over
  pugi::xml_document tree;
  Lines lines;
};

/// Parses without white space between elements. No entity, schema or link is ever followed.
Result<std::unique_ptr<Document>> parse(std::string_view content, const std::string& name, Doctype doctype);
/// The same for a text that nobody else needs: it is parsed where it stands.
Result<std::unique_ptr<Document>> parseHere(std::string content, const std::string& name, Doctype doctype);

}  // namespace zl::exchange::xml
