#pragma once
// The lines of a rules text: numbered, without comments, blanks and surrounding space.

#include <string>
#include <string_view>

namespace zl {

inline std::string_view trimmedRule(std::string_view text) {
  const size_t first = text.find_first_not_of(" \t\r");
  if (first == std::string_view::npos) return {};
  return text.substr(first, text.find_last_not_of(" \t\r") - first + 1);
}

class RuleLines {
 public:
  RuleLines(std::string_view text, std::string source) : rest_(text), source_(std::move(source)) {}

  /// Moves to the next line that says something; false at the end.
  bool next() {
    while (!rest_.empty()) {
      ++number_;
      const size_t newline = rest_.find('\n');
      const std::string_view whole = rest_.substr(0, newline);
      rest_ = newline == std::string_view::npos ? std::string_view{} : rest_.substr(newline + 1);
      line_ = trimmedRule(whole.substr(0, whole.find('#')));
      if (!line_.empty()) return true;
    }
    return false;
  }
  [[nodiscard]] std::string_view line() const { return line_; }
  [[nodiscard]] std::string where() const { return source_ + ", line " + std::to_string(number_); }

 private:
  std::string_view rest_, line_;
  std::string source_;
  int number_ = 0;
};

}  // namespace zl
