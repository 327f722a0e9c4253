#pragma once
// A large document without its tree: a tree takes four times the file. In: the text. Out: the outermost element's start
// tag, and what is in it in runs that end where one of its children does; each run parses by itself.

#include <optional>
#include <pugixml.hpp>
#include <string_view>
#include <vector>

namespace zl::exchange::xml {

struct Runs {
  std::string_view name;                ///< of the outermost element, with its prefix
  std::string_view startTag;            ///< from '<' to '>'
  std::vector<std::string_view> inner;  ///< one after the other, without a gap
};

/// Runs of at least `size` bytes but the last. Nothing where the text is not in order as far as this looks (elements
/// close in turn, one outermost element, UTF-8, no document type): the parser says what is wrong then.
std::optional<Runs> runsOf(std::string_view content, size_t size);

/// The children in a run, below the tree's own node. False where the run is broken XML.
bool parseRun(std::string_view run, pugi::xml_document& tree);

}  // namespace zl::exchange::xml
