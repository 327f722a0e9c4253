#pragma once
// What rows, columns and lanes are known by. Three types, so that none is taken for another and none for a count; one
// that names nothing says so, and asking for its place stops the program.

#include <compare>
#include <cstddef>
#include <cstdlib>

namespace zl::model {

/// A place in a list that it belongs to. By default it names nothing.
template <class Tag>
class Id {
 public:
  constexpr Id() = default;
  constexpr explicit Id(int index) : index_(index < 0 ? -1 : index) {}
  constexpr explicit Id(std::size_t index) : index_(static_cast<int>(index)) {}

  [[nodiscard]] constexpr bool known() const { return index_ >= 0; }
  /// -1 where it names nothing: for what stores or shows it.
  [[nodiscard]] constexpr int number() const { return index_; }
  /// For indexing; an id that names nothing has none.
  [[nodiscard]] constexpr std::size_t at() const {
    if (index_ < 0) std::abort();
    return static_cast<std::size_t>(index_);
  }
  friend constexpr auto operator<=>(const Id&, const Id&) = default;

 private:
  int index_ = -1;
};

/// A row of one model.
using RowId = Id<struct RowTag>;

}  // namespace zl::model
