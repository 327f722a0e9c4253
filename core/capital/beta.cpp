#include "core/capital/beta.h"

#include <algorithm>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>

namespace zl {
namespace {

/// Which span a day belongs to; adjacent spans have adjacent numbers.
int spanOf(Date day, ReturnFrequency frequency) {
  const std::chrono::year_month_day ymd(day);
  switch (frequency) {
    case ReturnFrequency::Monthly:
      return static_cast<int>(ymd.year()) * 12 + static_cast<int>(static_cast<unsigned>(ymd.month()));
    case ReturnFrequency::Weekly:  // weeks begin on Monday; 1970-01-01 was a Thursday
      return static_cast<int>(
          std::chrono::floor<std::chrono::weeks>(day + std::chrono::days(3)).time_since_epoch().count());
    case ReturnFrequency::Daily:
      break;
  }
  return static_cast<int>(day.time_since_epoch().count());
}

/// A level with what was paid since the one before.
struct Close {
  Date day{};
  double share = 0, index = 0;
  double sharePaid = 0, indexPaid = 0;
};

/// Days that both have; what either paid on a day of its own counts with its next common one.
std::vector<Close> commonDays(const std::vector<SeriesPoint>& share, const std::vector<SeriesPoint>& index,
                              const ReturnWindow& window, int& unmatched) {
  std::vector<Close> common;
  double sharePaid = 0, indexPaid = 0;
  auto s = share.begin(), i = index.begin();
  const auto within = [&](Date day) { return day >= window.from && day <= window.to; };
  while (s != share.end() && i != index.end()) {
    if (s->date == i->date) {
      sharePaid += s->dividend;
      indexPaid += i->dividend;
      if (within(s->date)) {
        common.push_back({s->date, s->level, i->level, sharePaid, indexPaid});
        sharePaid = indexPaid = 0;
      }
      ++s, ++i;
    } else if (s->date < i->date) {
      sharePaid += s->dividend;
      unmatched += within(s->date) ? 1 : 0;
      ++s;
    } else {
      indexPaid += i->dividend;
      unmatched += within(i->date) ? 1 : 0;
      ++i;
    }
  }
  return common;
}

/// The last common day of each span, with all that was paid within it.
std::vector<Close> lastOfSpans(const std::vector<Close>& days, ReturnFrequency frequency) {
  std::vector<Close> last;
  for (const Close& day : days) {
    if (!last.empty() && spanOf(last.back().day, frequency) == spanOf(day.day, frequency)) {
      Close next = day;
      next.sharePaid += last.back().sharePaid;
      next.indexPaid += last.back().indexPaid;
      last.back() = next;
    } else {
      last.push_back(day);
    }
  }
  return last;
}

/// Sums about a centre near the data: the index's returns hardly differ from it, so that nothing is lost.
struct Sums {
  double x = 0, y = 0, xx = 0, xy = 0, yy = 0;
  void add(double dx, double dy, double sign = 1) {
    x += sign * dx;
    y += sign * dy;
    xx += sign * dx * dx;
    xy += sign * dx * dy;
    yy += sign * dy * dy;
  }
};

constexpr int kFewest = 3;
/// An index whose returns spread by less than this about their mean did not move.
constexpr double kFlat = 1e-14;

}  // namespace

PairedReturns pairReturns(const std::vector<SeriesPoint>& share, const std::vector<SeriesPoint>& index,
                          const ReturnWindow& window) {
  constexpr int kLongestDaily = 10;  // days: holidays
  PairedReturns paired;
  const std::vector<Close> closes = lastOfSpans(commonDays(share, index, window, paired.unmatched), window.frequency);
  for (size_t k = 1; k < closes.size(); ++k) {
    const Close& before = closes[k - 1];
    const Close& now = closes[k];
    const int longest = window.frequency == ReturnFrequency::Daily ? kLongestDaily : 1;
    if (spanOf(now.day, window.frequency) - spanOf(before.day, window.frequency) > longest) {
      ++paired.broken;
      continue;
    }
    const double sharePaid = window.total ? now.sharePaid : 0;
    const double indexPaid = window.total ? now.indexPaid : 0;
    paired.pairs.push_back(
        {now.day, (now.index + indexPaid) / before.index - 1, (now.share + sharePaid) / before.share - 1});
  }
  return paired;
}

Regression regress(const std::vector<ReturnPair>& pairs) {
  Regression r;
  r.n = static_cast<int>(pairs.size());
  const auto none = [&](const char* why) {
    for (Figure* f : {&r.beta, &r.alpha, &r.standardError, &r.rSquared, &r.low, &r.high, &r.adjusted})
      *f = Figure::notMeaningful(why);
    return r;
  };
  if (r.n < kFewest) return none("fewer than three pairs of returns");
  double meanX = 0, meanY = 0;
  for (const ReturnPair& p : pairs) {
    meanX += p.index / r.n;
    meanY += p.share / r.n;
  }
  Sums about;
  for (const ReturnPair& p : pairs) about.add(p.index - meanX, p.share - meanY);
  if (about.xx <= kFlat * r.n) return none("the index did not move");
  const double beta = about.xy / about.xx;
  double residual = 0;
  for (const ReturnPair& p : pairs) {
    const double e = p.share - meanY - beta * (p.index - meanX);
    residual += e * e;
  }
  const double error = std::sqrt(residual / (r.n - 2) / about.xx);
  const double t = boost::math::quantile(boost::math::students_t(r.n - 2), 0.975);
  r.beta = Figure::of(beta);
  r.alpha = Figure::of(meanY - beta * meanX);
  r.standardError = Figure::of(error);
  r.rSquared = about.yy > 0 ? Figure::of(1 - residual / about.yy) : Figure::notMeaningful("the share did not move");
  r.low = Figure::of(beta - t * error);
  r.high = Figure::of(beta + t * error);
  r.adjusted = Figure::of(2.0 / 3 * beta + 1.0 / 3);
  return r;
}

std::vector<std::pair<Date, Figure>> rollingBeta(const std::vector<ReturnPair>& pairs, int length) {
  std::vector<std::pair<Date, Figure>> rolling;
  if (length < kFewest || static_cast<int>(pairs.size()) < length) return rolling;
  Sums sums;
  const auto n = static_cast<double>(length);
  for (size_t k = 0; k < pairs.size(); ++k) {
    sums.add(pairs[k].index, pairs[k].share);
    const size_t count = k + 1;
    if (count > static_cast<size_t>(length)) {
      const ReturnPair& gone = pairs[k - static_cast<size_t>(length)];
      sums.add(gone.index, gone.share, -1);
    }
    if (count < static_cast<size_t>(length)) continue;
    const double xx = sums.xx - sums.x * sums.x / n;
    const double xy = sums.xy - sums.x * sums.y / n;
    rolling.emplace_back(pairs[k].on,
                         xx > kFlat * n ? Figure::of(xy / xx) : Figure::notMeaningful("the index did not move"));
  }
  return rolling;
}

Figure unlevered(const Figure& beta, const Figure& debt, const Figure& equity, const Figure& cash,
                 const Leverage& rule) {
  if (equity.hasValue() && equity.value() <= 0) return Figure::notMeaningful("equity is not positive");
  const Figure kept = Figure::of(1) - rule.taxRate;
  Figure own = rule.debtBeta == 0 ? beta / (Figure::of(1) + kept * debt / equity)
                                  : (beta * equity + Figure::of(rule.debtBeta) * kept * debt) / (equity + kept * debt);
  if (!rule.cashless) return own;
  const Figure share = cash / (debt + equity);
  if (share.hasValue() && share.value() >= 1) return Figure::notMeaningful("cash is as much as all capital");
  return own / (Figure::of(1) - share);
}

Figure relevered(const Figure& unleveredBeta, const Figure& debtToEquity, const Leverage& rule) {
  const Figure weight = (Figure::of(1) - rule.taxRate) * debtToEquity;
  if (rule.debtBeta == 0) return unleveredBeta * (Figure::of(1) + weight);
  return unleveredBeta + (unleveredBeta - Figure::of(rule.debtBeta)) * weight;
}

}  // namespace zl
