#include "exchange/xml/runs.h"

#include "core/text/utf8.h"

namespace zl::exchange::xml {
namespace {

constexpr size_t kNone = std::string_view::npos;

/// Goes from mark to mark of a text (XML 1.0, 2.1): tags, comments, instructions, sections.
class Marks {
 public:
  explicit Marks(std::string_view text) : text_(text) {}

  enum class Kind { Start, Empty, End, Other, Finished, Fault };

  Kind next() {
    from_ = text_.find('<', at_);
    if (from_ == kNone) {
      between_ = text_.substr(at_);
      from_ = at_ = text_.size();
      return Kind::Finished;
    }
    between_ = text_.substr(at_, from_ - at_);
    const std::string_view rest = text_.substr(from_);
    if (rest.starts_with("<!--")) return until("-->", 4);
    if (rest.starts_with("<![CDATA[")) return until("]]>", 9);
    if (rest.starts_with("<?")) return until("?>", 2);
    if (rest.starts_with("<!")) return Kind::Fault;  // a document type
    return tag();
  }

  [[nodiscard]] size_t from() const { return from_; }  ///< where the mark begins
  [[nodiscard]] size_t to() const { return at_; }      ///< and where it has ended
  [[nodiscard]] std::string_view between() const { return between_; }
  [[nodiscard]] std::string_view name() const {
    const size_t first = from_ + (text_[from_ + 1] == '/' ? 2 : 1);
    const size_t end = text_.find_first_of(" \t\r\n/>", first);
    return text_.substr(first, end - first);
  }

 private:
  Kind until(std::string_view end, size_t head) {
    const size_t found = text_.find(end, from_ + head);
    if (found == kNone) return Kind::Fault;
    at_ = found + end.size();
    return Kind::Other;
  }

  /// A '>' in an attribute's quotes ends no tag.
  Kind tag() {
    size_t at = from_ + 1;
    for (;;) {
      // A million tags are gone through: one look a byte is faster here than searching for four.
      while (at < text_.size() && text_[at] != '>' && text_[at] != '"' && text_[at] != '\'' && text_[at] != '<') ++at;
      if (at == text_.size() || text_[at] == '<') return Kind::Fault;
      if (text_[at] == '>') break;
      at = text_.find(text_[at], at + 1);
      if (at == kNone) return Kind::Fault;
      ++at;
    }
    at_ = at + 1;
    if (text_[from_ + 1] == '/') return Kind::End;
    return text_[at - 1] == '/' ? Kind::Empty : Kind::Start;
  }

  std::string_view text_;
  size_t at_ = 0, from_ = 0;
  std::string_view between_;
};

bool isBlank(std::string_view text) {
  return text.find_first_not_of(" \t\r\n") == kNone;
}

}  // namespace

std::optional<Runs> runsOf(std::string_view content, size_t size) {
  if (firstBadUtf8(content) != kNone) return std::nullopt;
  constexpr std::string_view kByteOrder = "\xEF\xBB\xBF";
  const std::string_view text = content.substr(content.starts_with(kByteOrder) ? kByteOrder.size() : 0);
  Runs runs;
  Marks marks(text);
  size_t depth = 0, begun = 0;
  bool ended = false;
  for (;;) {
    const Marks::Kind kind = marks.next();
    if (kind == Marks::Kind::Fault) return std::nullopt;
    if (depth == 0 && !isBlank(marks.between())) return std::nullopt;
    if (kind == Marks::Kind::Finished) break;
    if (kind == Marks::Kind::Start && depth++ == 0) {
      if (ended) return std::nullopt;
      runs.name = marks.name();
      runs.startTag = text.substr(marks.from(), marks.to() - marks.from());
      begun = marks.to();
    } else if (kind == Marks::Kind::Empty && depth == 0) {
      return std::nullopt;  // nothing in it
    } else if (kind == Marks::Kind::End) {
      if (depth == 0) return std::nullopt;
      if (--depth == 0) {
        if (marks.name() != runs.name) return std::nullopt;
        if (marks.from() > begun) runs.inner.push_back(text.substr(begun, marks.from() - begun));
        ended = true;
      }
    }
    if (depth == 1 && marks.to() - begun >= size) {
      runs.inner.push_back(text.substr(begun, marks.to() - begun));
      begun = marks.to();
    }
  }
  return ended ? std::optional(std::move(runs)) : std::nullopt;
}

bool parseRun(std::string_view run, pugi::xml_document& tree) {
  return tree.load_buffer(run.data(), run.size(), pugi::parse_default | pugi::parse_fragment, pugi::encoding_utf8);
}

}  // namespace zl::exchange::xml
