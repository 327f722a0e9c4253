#pragma once
// Reads the tokens of a model text one after the other, and says what was expected in the place of another.

#include <string>
#include <utility>
#include <vector>

#include "core/model/fault.h"
#include "core/model/lexer.h"

namespace zl::model {

inline constexpr size_t kLongestName = 200;

/// What is read is `what` in the message of the Fault that is thrown where something else stands.
class TokenReader {
 public:
  TokenReader(std::vector<Token> tokens, std::string source) : tokens_(std::move(tokens)), source_(std::move(source)) {}

 protected:
  [[nodiscard]] const Token& peek() const { return tokens_[at_]; }
  [[nodiscard]] const Token& last() const { return tokens_[at_ - 1]; }  ///< what was read just now
  [[nodiscard]] bool onSameLine() const { return peek().type != Token::Type::End && !peek().startsLine; }
  [[nodiscard]] bool isSign(const char* sign) const { return peek().type == Token::Type::Sign && peek().text == sign; }
  [[nodiscard]] bool isWord(const char* expected) const {
    return peek().type == Token::Type::Word && peek().text == expected;
  }
  const Token& next();
  void expectSign(const char* sign);
  bool acceptWord(const char* expected);
  void expectWord(const char* expected);
  std::string word(const std::string& what);
  std::string text(const std::string& what);
  double number(const std::string& what);
  double signedNumber();
  int wholeNumber();  ///< 0 to 1000

  /// To be read next, as if they stood here.
  void insert(const std::vector<Token>& tokens);
  [[nodiscard]] const std::string& source() const { return source_; }
  [[nodiscard]] int textIndex() const { return tokens_.front().at.text; }

  /// What a message shows of a token: a damaged text may hold one of any length.
  static std::string shown(const Token& token);
  [[noreturn]] void bad(std::string what) const { badAt(peek().at, std::move(what)); }
  [[noreturn]] void badAt(Position at, std::string what) const;

 private:
  std::vector<Token> tokens_;
  std::string source_;
  size_t at_ = 0;
};

}  // namespace zl::model
