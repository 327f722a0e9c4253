#pragma once
// Model text with {names} in it, by part, as a kit's file of builds holds it.

#include <map>
#include <string>
#include <string_view>

#include "core/quantity/error.h"

namespace zl::services {

class BuildTexts {
 public:
  /// Parts begin with their name in [brackets] on a line; what stands before the first is a comment.
  static Result<BuildTexts> parse(std::string_view text, const std::string& source);

  /// The other file's parts in place of this one's of the same name.
  void overlay(const BuildTexts& other);
  [[nodiscard]] bool empty() const { return parts_.empty(); }
  /// A part with its names filled in; empty where there is none of that name. A name that nobody fills in stays as it
  /// is written, so that the model's checker refuses it and says where.
  [[nodiscard]] std::string filled(const std::string& part, const std::map<std::string, std::string>& names) const;

 private:
  std::map<std::string, std::string> parts_;
};

}  // namespace zl::services
