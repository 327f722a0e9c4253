#include "core/model/token_reader.h"

#include <cmath>
#include <cstddef>

namespace zl::model {
namespace {

constexpr size_t kLongestText = 500;

}  // namespace

const Token& TokenReader::next() {
  const Token& token = tokens_[at_];
  if (at_ + 1 < tokens_.size()) ++at_;
  return token;
}

void TokenReader::expectSign(const char* sign) {
  if (!isSign(sign)) bad(std::string("expected '") + sign + "', found '" + shown(peek()) + "'");
  next();
}

bool TokenReader::acceptWord(const char* expected) {
  if (!isWord(expected)) return false;
  next();
  return true;
}

void TokenReader::expectWord(const char* expected) {
  if (!acceptWord(expected)) bad(std::string("expected '") + expected + "', found '" + shown(peek()) + "'");
}

std::string TokenReader::word(const std::string& what) {
  if (peek().type != Token::Type::Word) bad("expected " + what + ", found '" + shown(peek()) + "'");
  if (peek().text.size() > kLongestName) bad("'" + shown(peek()) + "' is longer than the 200 letters of a name");
  return next().text;
}

std::string TokenReader::text(const std::string& what) {
  if (peek().type != Token::Type::Text) bad("expected " + what + ", found '" + shown(peek()) + "'");
  if (peek().text.size() > kLongestText) bad("'" + shown(peek()) + "' is longer than the 500 letters of a text");
  return next().text;
}

double TokenReader::number(const std::string& what) {
  if (peek().type != Token::Type::Number) bad("expected " + what + ", found '" + shown(peek()) + "'");
  return next().number;
}

double TokenReader::signedNumber() {
  const bool negative = isSign("-");
  if (negative) next();
  const double n = number("a number");
  return negative ? -n : n;
}

int TokenReader::wholeNumber() {
  const double n = number("a whole number");
  if (n != std::floor(n) || n > 1000) bad("expected a whole number");
  return static_cast<int>(n);
}

void TokenReader::insert(const std::vector<Token>& tokens) {
  tokens_.insert(tokens_.begin() + static_cast<std::ptrdiff_t>(at_), tokens.begin(), tokens.end());
}

std::string TokenReader::shown(const Token& token) {
  constexpr size_t kMost = 40;
  return token.text.size() <= kMost ? token.text : token.text.substr(0, kMost) + "...";
}

void TokenReader::badAt(Position at, std::string what) const {
  throw Fault{Error{ErrorKind::BadInput, std::move(what), placeText(source_, at), {}}};
}

}  // namespace zl::model
