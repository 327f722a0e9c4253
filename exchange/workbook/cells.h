#pragma once
// What readers of workbooks share.

#include <string>
#include <string_view>
#include <vector>

namespace zl::exchange {

constexpr int kMostRows = 1'048'576;  ///< of a sheet, in every program that writes these formats
constexpr int kMostColumns = 16'384;

/// The number that was typed where a program stored a binary one: the shortest text of the same double (0.1 for
/// 0.10000000000000001), and zero for what arithmetic leaves of a difference (1.4E-11).
std::string typedNumber(std::string_view stored);

/// A warning that rows and columns are hidden and left out, where there are any.
void noteHidden(const std::string& sheet, int rows, int columns, std::vector<std::string>& warnings);

}  // namespace zl::exchange
