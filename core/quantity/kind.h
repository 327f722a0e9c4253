#pragma once

namespace zl {

/// What a figure measures; decides its unit, its scale on screen and what it may be added to.
/// Quote is a price in listing units; QuoteRate turns reporting currency per share into it.
enum class Kind { Money, Shares, PerShare, Ratio, Days, Multiple, Count, Quote, QuoteRate };

}  // namespace zl
