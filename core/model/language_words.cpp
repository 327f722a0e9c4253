#include "core/model/language_words.h"

namespace zl::model {

const LanguageWords& languageWords() {
  static const LanguageWords words = [] {
    LanguageWords w;
    w.declarations = {"group", "amend", "unprojected", "choice", "means", "view", "method", "multiple"};
    for (const auto& declared : kDeclared) w.declarations.emplace_back(declared.text);
    w.attributes = {"history", "rule",   "first", "forecast", "value",    "range",   "beyond", "default",
                    "option",  "quoted", "peers", "record",   "estimate", "regular", "help"};
    w.histories = {"filed", "fact", "recorded"};
    for (const auto& kind : kKinds) w.kinds.emplace_back(kind.text);
    for (const auto& timing : kTimings) w.timings.emplace_back(timing.text);
    for (const auto& function : kFunctions) w.functions.emplace_back(function.text);
    w.functions.emplace_back("sum");
    for (const auto& anchor : kAnchors) w.functions.emplace_back(anchor.text);
    return w;
  }();
  return words;
}

const char* kindWord(Kind kind) {
  return wordOf(kKinds, kind);
}
const char* timingWord(Timing timing) {
  return wordOf(kTimings, timing);
}
const char* declaredWord(Declared declared) {
  return wordOf(kDeclared, declared);
}

}  // namespace zl::model
