#pragma once

namespace zl {

/// What a figure measures; decides its unit, its scale on screen and what it may be added to.
/// Quote is a price in listing units; QuoteRate turns reporting currency per share into it.
enum class Kind { Money, Shares, PerShare, Ratio, Days, Multiple, Count, Quote, QuoteRate };

/// Whether a figure is so much of something, so that a change of it can be told as a share of what it was.
constexpr bool isAmount(Kind kind) {
  return kind == Kind::Money || kind == Kind::Shares || kind == Kind::PerShare || kind == Kind::Quote;
}

}  // namespace zl
