#pragma once
// Lets whoever waits for a reader end it inside a file.

#include <functional>
#include <utility>

namespace zl::exchange {

/// Asked by readers every few thousand steps; without a question nobody wants to stop.
class StopCheck {
 public:
  StopCheck() = default;
  explicit StopCheck(std::function<bool()> wanted) : wanted_(std::move(wanted)) {}
  /// Whether the reading is no longer wanted.
  [[nodiscard]] bool operator()() const { return wanted_ && wanted_(); }

 private:
  std::function<bool()> wanted_;
};

}  // namespace zl::exchange
