#pragma once
// Figures whose thousands are parted by commas that also part cells: in which ways cells can be put together again.

#include <cstddef>
#include <limits>
#include <optional>
#include <string>
#include <vector>

namespace zl::exchange {

/// Whether a cell, without blanks around it, is a figure, nothing, or a piece of a figure.
bool isFigureOrPiece(const std::string& cell);

/// Whether a cell can go on with the figure before it: "204" after "1".
bool goesOn(const std::string& before, const std::string& cell);

/// Every way in which cells are so many figures. Years of one row do not lie far apart, digits that were put together
/// wrongly do.
class PartedFigures {
 public:
  /// The cells from `from` on, without blanks around them.
  PartedFigures(const std::vector<std::string>& cells, size_t from, size_t figures);
  [[nodiscard]] bool any() const { return best_.has_value(); }
  /// The number of cells of each figure in the way that puts them plainly nearest together; none where there is no
  /// such.
  [[nodiscard]] std::optional<std::vector<size_t>> plain() const;

 private:
  struct Way {
    std::vector<size_t> sizes;
    double apart = 0;  ///< decades between the smallest and the largest
  };

  void look(size_t from, size_t figures);
  [[nodiscard]] bool isOne(size_t from, size_t count) const;
  /// Empty for nothing and nought.
  [[nodiscard]] std::optional<double> decadesOf(size_t from, size_t count) const;
  void add();

  const std::vector<std::string>& cells_;
  std::vector<size_t> sizes_;
  std::vector<std::optional<double>> decades_;
  std::optional<Way> best_;
  double second_ = std::numeric_limits<double>::infinity();
  int steps_ = 0;
  bool left_ = true;  ///< there are not too many ways to look at them all
};

}  // namespace zl::exchange
