#include "exchange/xml/document.h"

#include <algorithm>
#include <cctype>
#include <charconv>

#include "core/text/utf8.h"

namespace zl::exchange::xml {

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

std::string_view textOf(pugi::xml_node node, std::string& pieces) {
  const pugi::xml_node first = node.first_child();
  if (!first || !first.next_sibling()) return node.child_value();
  pieces.clear();
  for (const pugi::xml_node piece : node.children()) {
    if (piece.type() == pugi::node_pcdata || piece.type() == pugi::node_cdata) pieces += piece.value();
  }
  return pieces;
}

pugi::xml_node childNamed(pugi::xml_node node, std::string_view local) {
  for (pugi::xml_node child : node.children()) {
    if (localName(child.name()) == local) return child;
  }
  return {};
}

std::string_view attributeNamed(pugi::xml_node node, std::string_view local) {
  for (pugi::xml_attribute a : node.attributes()) {
    if (localName(a.name()) == local) return a.value();
  }
  return {};
}

Lines::Lines(std::string_view content) {
  for (std::size_t at = content.find('\n'); at != std::string_view::npos; at = content.find('\n', at + 1)) {
    ends_.push_back(at);
  }
}

std::string Lines::place(int line) {
  char text[24] = "line ";
  constexpr std::size_t kHead = 5;
  const char* end = std::to_chars(text + kHead, text + sizeof text, line).ptr;
  return {text, static_cast<std::size_t>(end - text)};
}

int Lines::number(std::ptrdiff_t offset) const {
  const auto at = std::lower_bound(ends_.begin(), ends_.end(), static_cast<std::size_t>(start_ + offset));
  return static_cast<int>(at - ends_.begin()) + 1;
}

int Lines::numberAfter(std::ptrdiff_t offset, int near) const {
  constexpr std::size_t kFewLines = 16;
  const auto wanted = static_cast<std::size_t>(start_ + offset);
  const std::size_t from = static_cast<std::size_t>(near) - 1;
  if (from > 0 && wanted <= ends_[from - 1]) return number(offset);
  for (std::size_t at = from; at < std::min(from + kFewLines, ends_.size()); ++at) {
    if (wanted <= ends_[at]) return static_cast<int>(at) + 1;
  }
  return number(offset);
}

namespace {

constexpr unsigned kParts = pugi::parse_default | pugi::parse_doctype;

/// How the bytes are to be read. The library takes what it does not know for UTF-8, unchecked: texts of
/// other encodings would go on as bytes that are none.
Result<pugi::xml_encoding> encodingOf(std::string_view content, const std::string& name) {
  if (content.substr(0, 4).find('\0') != std::string_view::npos || content.starts_with("\xFF\xFE") ||
      content.starts_with("\xFE\xFF")) {
    return pugi::encoding_auto;  // UTF-16 or UTF-32, which it converts
  }
  const std::size_t bad = firstBadUtf8(content);
  if (bad == std::string_view::npos) return pugi::encoding_utf8;
  std::string declared(content.substr(0, std::min(content.find("?>"), std::size_t{200})));
  std::transform(declared.begin(), declared.end(), declared.begin(),
                 [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
  if (declared.starts_with("<?xml") &&
      (declared.find("iso-8859-1\"") != std::string::npos || declared.find("iso-8859-1'") != std::string::npos ||
       declared.find("latin1") != std::string::npos || declared.find("windows-1252") != std::string::npos)) {
    return pugi::encoding_latin1;
  }
  const auto line = std::count(content.begin(), content.begin() + static_cast<std::ptrdiff_t>(bad), '\n');
  return fail(ErrorKind::BadInput,
              "the text is not in the encoding that the file declares (UTF-8 where it declares none)",
              name + ", " + Lines::place(static_cast<int>(line) + 1), "Save it as UTF-8");
}

Result<std::unique_ptr<Document>> checked(std::unique_ptr<Document> document, const pugi::xml_parse_result& parsed,
                                          const std::string& name, Doctype doctype) {
  if (!parsed) {
    return fail(ErrorKind::BadInput, std::string("the XML is broken: ") + parsed.description(),
                name + ", " + document->lines.text(parsed.offset), "The file may be truncated; fetch it again");
  }
  for (pugi::xml_node node : document->tree.children()) {
    if (node.type() != pugi::node_doctype) continue;
    const bool definesNothing = std::string_view(node.value()).find('[') == std::string_view::npos;
    if (doctype == Doctype::NameOnly && definesNothing) continue;
    return fail(
        ErrorKind::BadInput, "the file declares a document type, which may define entities; filed data needs none",
        name + ", " + document->lines.text(std::max<std::ptrdiff_t>(0, node.offset_debug())), "Remove the declaration");
  }
  return document;
}

}  // namespace

Result<std::unique_ptr<Document>> parse(std::string_view content, const std::string& name, Doctype doctype) {
  const Result<pugi::xml_encoding> encoding = encodingOf(content, name);
  if (!encoding) return tl::unexpected(encoding.error());
  auto document = std::make_unique<Document>(content);
  const pugi::xml_parse_result parsed = document->tree.load_buffer(content.data(), content.size(), kParts, *encoding);
  return checked(std::move(document), parsed, name, doctype);
}

Result<std::unique_ptr<Document>> parseHere(std::string content, const std::string& name, Doctype doctype) {
  const Result<pugi::xml_encoding> encoding = encodingOf(content, name);
  if (!encoding) return tl::unexpected(encoding.error());
  auto document = std::make_unique<Document>(std::move(content));
  const pugi::xml_parse_result parsed =
      document->tree.load_buffer_inplace(document->text.data(), document->text.size(), kParts, *encoding);
  return checked(std::move(document), parsed, name, doctype);
}

void Pace::end() const {
  throw Stop{Error{ErrorKind::Cancelled, "reading was stopped; nothing is stored", name_, {}}};
}

Stop::Stop(Error e) : error(std::move(e)) {
  constexpr size_t kLongest = 400;
  error.what = shortened(error.what, kLongest);
}

}  // namespace zl::exchange::xml
