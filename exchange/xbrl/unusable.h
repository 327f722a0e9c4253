#pragma once
// Facts that nobody can use: without a number, of a context that is not defined. Each is set aside and named, and stops
// no other.

#include <optional>
#include <string>
#include <vector>

#include "core/quantity/error.h"

namespace zl::exchange {

class UnusableFacts {
 public:
  void add(const Error& fault) {
    if (++count_ > kMostNamed) return;
    if (!first_) first_ = fault;
    named_.push_back(fault.where + ": " + fault.what + "; it was set aside");
  }
  /// Why nothing can be read of a file in which there are no others.
  [[nodiscard]] const std::optional<Error>& first() const { return first_; }
  void tell(std::vector<std::string>& warnings) const {
    warnings.insert(warnings.end(), named_.begin(), named_.end());
    if (count_ > kMostNamed) {
      warnings.push_back(std::to_string(count_ - kMostNamed) + " more facts could not be used and were set aside");
    }
  }

 private:
  static constexpr size_t kMostNamed = 5;
  size_t count_ = 0;
  std::optional<Error> first_;
  std::vector<std::string> named_;
};

}  // namespace zl::exchange
