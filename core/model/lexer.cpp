#include "core/model/lexer.h"

#include <charconv>

namespace zl::model {
namespace {

bool isWordStart(char c) {
  return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_';
}
bool isDigit(char c) {
  return c >= '0' && c <= '9';
}

class Lexer {
 public:
  Lexer(std::string_view text, const std::string& source, int index) : text_(text), source_(source), index_(index) {}

  Result<std::vector<Token>> run() {
    while (skipBlank()) {
      Token token;
      token.at = {line_, static_cast<int>(at_ - lineStart_) + 1, index_};
      token.startsLine = fresh_;
      fresh_ = false;
      if (Status s = read(token); !s) return tl::unexpected(s.error());
      tokens_.push_back(std::move(token));
    }
    Token end;
    end.at = {line_, static_cast<int>(at_ - lineStart_) + 1, index_};
    end.startsLine = true;
    tokens_.push_back(end);
    return std::move(tokens_);
  }

 private:
  bool skipBlank() {
    while (at_ < text_.size()) {
      const char c = text_[at_];
      if (c == '\n') {
        ++at_;
        ++line_;
        lineStart_ = at_;
        fresh_ = true;
      } else if (c == '#') {
        while (at_ < text_.size() && text_[at_] != '\n') ++at_;
      } else if (c == ' ' || c == '\t' || c == '\r') {
        ++at_;
      } else {
        return true;
      }
    }
    return false;
  }

  Status read(Token& token) {
    const char c = text_[at_];
    if (isWordStart(c)) {
      token.type = Token::Type::Word;
      const size_t from = at_;
      while (at_ < text_.size() && (isWordStart(text_[at_]) || isDigit(text_[at_]))) ++at_;
      token.text = std::string(text_.substr(from, at_ - from));
      return {};
    }
    if (isDigit(c) || (c == '.' && at_ + 1 < text_.size() && isDigit(text_[at_ + 1]))) {
      token.type = Token::Type::Number;
      const char* first = text_.data() + at_;
      const auto [end, code] = std::from_chars(first, text_.data() + text_.size(), token.number);
      if (code != std::errc()) return bad(token.at, "this number cannot be read");
      token.text = std::string(first, end);
      at_ += static_cast<size_t>(end - first);
      if (at_ < text_.size() && text_[at_] == '%') {
        token.number /= 100.0;
        token.text += '%';
        ++at_;
      }
      return {};
    }
    if (c == '"') {
      token.type = Token::Type::Text;
      const size_t close = text_.find('"', at_ + 1);
      const size_t newline = text_.find('\n', at_);
      if (close == std::string_view::npos || newline < close) {
        return bad(token.at, "this text has no closing quotation mark");
      }
      token.text = std::string(text_.substr(at_ + 1, close - at_ - 1));
      at_ = close + 1;
      return {};
    }
    token.type = Token::Type::Sign;
    for (std::string_view two : {"<=", ">=", "=="}) {
      if (text_.substr(at_, 2) == two) {
        token.text = std::string(two);
        at_ += 2;
        return {};
      }
    }
    if (std::string_view("+-*/^()[],<>:=").find(c) == std::string_view::npos) {
      return bad(token.at, std::string("the character '") + c + "' has no meaning here");
    }
    token.text = std::string(1, c);
    ++at_;
    return {};
  }

  [[nodiscard]] tl::unexpected<Error> bad(Position at, std::string what) const {
    return fail(ErrorKind::BadInput, std::move(what), placeText(source_, at));
  }

  std::string_view text_;
  const std::string& source_;
  int index_;
  size_t at_ = 0;
  size_t lineStart_ = 0;
  int line_ = 1;
  bool fresh_ = true;
  std::vector<Token> tokens_;
};

}  // namespace

std::string placeText(const std::string& source, Position at) {
  return source + ", line " + std::to_string(at.line) + ", column " + std::to_string(at.column);
}

Result<std::vector<Token>> tokenize(std::string_view text, const std::string& source, int index) {
  return Lexer(text, source, index).run();
}

}  // namespace zl::model
