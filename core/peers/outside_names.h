#pragma once
// How multiples that are no peer's are called among the rates of a book: what follows is the multiple, then whose it
// is.

namespace zl {

inline constexpr const char* kSectorMultiple = "sector ";
inline constexpr const char* kDealMultiple = "deal ";

}  // namespace zl
