#include "services/kits/build_texts.h"

namespace zl::services {

Result<BuildTexts> BuildTexts::parse(std::string_view text, const std::string& source) {
  BuildTexts texts;
  std::string* part = nullptr;
  int number = 0;
  while (!text.empty()) {
    const size_t end = text.find('\n');
    const std::string_view line = text.substr(0, end);
    text = end == std::string_view::npos ? std::string_view() : text.substr(end + 1);
    ++number;
    if (!line.empty() && line.front() == '[') {
      if (line.back() != ']' || line.size() < 3) {
        return fail(ErrorKind::BadInput, "a part begins with its name in [brackets], alone on its line",
                    source + ", line " + std::to_string(number));
      }
      part = &texts.parts_[std::string(line.substr(1, line.size() - 2))];
      part->clear();
    } else if (part != nullptr && !line.empty()) {
      part->append(line).push_back('\n');
    }
  }
  return texts;
}

void BuildTexts::overlay(const BuildTexts& other) {
  for (const auto& [name, text] : other.parts_) parts_[name] = text;
}

std::string BuildTexts::filled(const std::string& part, const std::map<std::string, std::string>& names) const {
  const auto found = parts_.find(part);
  if (found == parts_.end()) return {};
  std::string out;
  std::string_view rest = found->second;
  while (!rest.empty()) {
    const size_t open = rest.find('{');
    const size_t close = open == std::string_view::npos ? open : rest.find('}', open);
    if (close == std::string_view::npos) return out.append(rest);
    out.append(rest.substr(0, open));
    const auto name = names.find(std::string(rest.substr(open + 1, close - open - 1)));
    if (name != names.end()) {
      out += name->second;
    } else {
      out.append(rest.substr(open, close - open + 1));
    }
    rest = rest.substr(close + 1);
  }
  return out;
}

}  // namespace zl::services
