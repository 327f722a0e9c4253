#pragma once
// Parts of a file that nobody can use: a fact without a number, a row without a date. Each is named and stops no other.

#include <optional>
#include <string>
#include <vector>

#include "core/quantity/error.h"

namespace zl::exchange {

class SetAside {
 public:
  /// `what`: of what there are several, "facts" or "rows".
  explicit SetAside(const char* what) : what_(what) {}

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
      warnings.push_back(std::to_string(count_ - kMostNamed) + " more " + what_ +
                         " could not be used and were set aside");
    }
  }

 private:
  static constexpr size_t kMostNamed = 5;
  const char* what_;
  size_t count_ = 0;
  std::optional<Error> first_;
  std::vector<std::string> named_;
};

}  // namespace zl::exchange
