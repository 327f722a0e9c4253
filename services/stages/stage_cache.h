#pragma once
// The last few values of one stage, each kept under all that it was made from. A value that is found
// is the value that making it again would give.

#include <cstddef>
#include <list>
#include <memory>
#include <mutex>
#include <utility>

namespace zl::services {

template <class Key, class Value>
class StageCache {
 public:
  explicit StageCache(std::size_t most) : most_(most) {}

  /// The value whose key `fits`; null when there is none. Used last, it goes last.
  template <class Fits>
  std::shared_ptr<const Value> find(const Fits& fits) {
    const std::lock_guard<std::mutex> lock(guard_);
    for (auto at = kept_.begin(); at != kept_.end(); ++at) {
      if (!fits(at->first)) continue;
      kept_.splice(kept_.begin(), kept_, at);
      return kept_.front().second;
    }
    return nullptr;
  }

  void keep(Key key, std::shared_ptr<const Value> value) {
    const std::lock_guard<std::mutex> lock(guard_);
    kept_.emplace_front(std::move(key), std::move(value));
    if (kept_.size() > most_) kept_.pop_back();
  }

 private:
  std::size_t most_;
  std::mutex guard_;
  std::list<std::pair<Key, std::shared_ptr<const Value>>> kept_;  ///< the last used first
};

}  // namespace zl::services
