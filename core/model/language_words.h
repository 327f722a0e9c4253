#pragma once
// The words of the model language and what they mean, for the parser, for messages and for whoever helps to write it.

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "core/model/syntax.h"

namespace zl::model {

template <class E>
struct Word {
  const char* text;
  E meaning;
};
inline constexpr std::array<Word<Kind>, 9> kKinds{{{"money", Kind::Money},
                                                   {"shares", Kind::Shares},
                                                   {"per_share", Kind::PerShare},
                                                   {"ratio", Kind::Ratio},
                                                   {"days", Kind::Days},
                                                   {"multiple", Kind::Multiple},
                                                   {"count", Kind::Count},
                                                   {"quote", Kind::Quote},
                                                   {"quote_rate", Kind::QuoteRate}}};
inline constexpr std::array<Word<Timing>, 4> kTimings{
    {{"flow", Timing::Flow}, {"balance", Timing::Balance}, {"rate", Timing::Rate}, {"constant", Timing::Constant}}};
inline constexpr std::array<Word<Declared>, 4> kDeclared{
    {{"row", Declared::Row}, {"driver", Declared::Driver}, {"input", Declared::Input}, {"given", Declared::Given}}};
struct Function {
  const char* text;
  Op op;
  size_t arguments;
};
inline constexpr std::array<Function, 9> kFunctions{{{"min", Op::Min, 2},
                                                     {"max", Op::Max, 2},
                                                     {"abs", Op::Abs, 1},
                                                     {"round", Op::Round, 1},
                                                     {"if", Op::If, 3},
                                                     {"guard", Op::Guard, 2},
                                                     {"known", Op::Known, 2},
                                                     {"avg", Op::Average, 1},
                                                     {"total", Op::Total, 1}}};
inline constexpr std::array<Word<Anchor>, 6> kAnchors{{{"base", Anchor::Base},
                                                       {"opening_year", Anchor::First},
                                                       {"second_year", Anchor::Second},
                                                       {"third_year", Anchor::Third},
                                                       {"final", Anchor::Final},
                                                       {"beyond", Anchor::Beyond}}};

template <class E, size_t N>
std::optional<E> meaningOf(const std::array<Word<E>, N>& words, const std::string& text) {
  for (const Word<E>& w : words) {
    if (text == w.text) return w.meaning;
  }
  return std::nullopt;
}

template <class E, size_t N>
const char* wordOf(const std::array<Word<E>, N>& words, E meaning) {
  for (const Word<E>& w : words) {
    if (w.meaning == meaning) return w.text;
  }
  return "?";
}

/// By what they are for.
struct LanguageWords {
  std::vector<std::string> declarations, attributes, kinds, timings, functions;
  std::vector<std::string> histories;  ///< what `history` may be besides a rule
};
const LanguageWords& languageWords();

}  // namespace zl::model
