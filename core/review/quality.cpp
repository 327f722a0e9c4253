#include "core/review/quality.h"

#include <algorithm>
#include <charconv>

#include "core/filing/rule_lines.h"

namespace zl {
namespace {

using Statistic = QualityTest::Statistic;

constexpr std::pair<const char*, Statistic> kStatistics[] = {
    {"last", Statistic::Last},     {"mean", Statistic::Mean},      {"median", Statistic::Median},
    {"low", Statistic::Low},       {"high", Statistic::High},      {"growth", Statistic::Growth},
    {"change", Statistic::Change}, {"nonzero", Statistic::Nonzero}};

/// Words and quoted words of one line.
class Words {
 public:
  explicit Words(std::string_view line) : rest_(line) {}
  std::string_view next() {
    rest_ = trimmedRule(rest_);
    if (rest_.empty()) return {};
    const bool quoted = rest_.front() == '"';
    if (quoted) rest_.remove_prefix(1);
    const size_t end = std::min(rest_.size(), rest_.find_first_of(quoted ? "\"" : " \t"));
    const std::string_view word = rest_.substr(0, end);
    rest_.remove_prefix(std::min(rest_.size(), end + 1));
    return word;
  }
  [[nodiscard]] bool atEnd() const { return trimmedRule(rest_).empty(); }

 private:
  std::string_view rest_;
};

template <class Number>
bool readNumber(std::string_view word, Number& number) {
  const auto [end, error] = std::from_chars(word.data(), word.data() + word.size(), number);
  return error == std::errc{} && end == word.data() + word.size();
}

bool readThreshold(std::string_view word, double& threshold) {
  const bool percent = word.ends_with('%');
  if (percent) word.remove_suffix(1);
  if (!readNumber(word, threshold)) return false;
  if (percent) threshold /= 100;
  return true;
}

/// Why a test's line cannot be read; empty when it can.
std::string readTest(Words& words, QualityTest& test) {
  test.name = words.next();
  test.label = words.next();
  test.row = words.next();
  const std::string_view statistic = words.next();
  const auto known =
      std::find_if(std::begin(kStatistics), std::end(kStatistics), [&](const auto& s) { return s.first == statistic; });
  if (test.name.empty() || test.label.empty() || test.row.empty()) return "a test needs a name, a label and a row";
  if (known == std::end(kStatistics)) return "there is no statistic '" + std::string(statistic) + "'";
  test.statistic = known->second;
  if (words.next() != "over" || !readNumber(words.next(), test.years) || test.years < 1 || test.years > 50) {
    return "'over' and 1 to 50 years must follow the statistic";
  }
  const std::string_view at = words.next();
  const std::string_view side = words.next();
  if (at != "at" || (side != "least" && side != "most")) return "'at least' or 'at most' must follow the years";
  test.atLeast = side == "least";
  if (const std::string_view word = words.next(); !readThreshold(word, test.threshold)) {
    return "'" + std::string(word) + "' is no threshold";
  }
  if (words.atEnd()) return {};
  std::string_view word = words.next();
  if (word == "covers") {
    test.covers = words.next();
    if (test.covers.empty()) return "'covers' is followed by a row";
    if (words.atEnd()) return {};
    word = words.next();
  }
  if (word != "for") return "only 'covers' and a row, or 'for' and a sector, may follow the threshold";
  test.sector = words.next();
  return words.atEnd() && !test.sector.empty() ? "" : "'for' is followed by one sector in quotes";
}

Figure statisticOf(const QualityTest& test, const Series& series, QualityResult& result) {
  const size_t size = series.figures.size();
  const size_t count = std::min(size, static_cast<size_t>(test.years));
  const auto from = static_cast<std::ptrdiff_t>(size - count);
  const std::span<const Figure> window(series.figures.data() + from, count);
  const std::vector<bool> out(series.exceptional.begin() + from, series.exceptional.end());
  const Statistics regular = describe(window, out);
  result.count = regular.count;
  switch (test.statistic) {
    case Statistic::Last:
      result.count = series.figures.back().hasValue() ? 1 : 0;
      return series.figures.back();
    case Statistic::Mean:
      return regular.mean;
    case Statistic::Median:
      return regular.median;
    case Statistic::Low:
      return regular.low;
    case Statistic::High:
      return regular.high;
    case Statistic::Growth:
    case Statistic::Change: {
      // So many years of growth need one more year to grow from; a shorter history is said by n.
      const int first = std::max(series.years.front(), series.years.back() - test.years);
      const SpanTrend span = spanTrend(series, first, series.years.back());
      result.count = series.years.back() - first;
      return test.statistic == Statistic::Growth ? span.compound : span.change;
    }
    case Statistic::Nonzero: {
      double with = 0, known = 0;
      for (const Figure& f : window) {
        known += f.hasValue() ? 1 : 0;
        with += f.valueOr(0) != 0 ? 1 : 0;
      }
      result.count = static_cast<int>(known);
      return Figure::of(with) / Figure::of(known);
    }
  }
  return Figure::absent();
}

/// Nothing to cover, in every year looked at that is known, is no failure to cover it.
bool nothingToCover(const QualityTest& test, const Series& covered) {
  const size_t count = std::min(covered.figures.size(), static_cast<size_t>(test.years));
  const std::span<const Figure> window(covered.figures.data() + (covered.figures.size() - count), count);
  const auto known = [](const Figure& f) { return f.hasValue(); };
  return std::any_of(window.begin(), window.end(), known) &&
         std::none_of(window.begin(), window.end(), [](const Figure& f) { return f.valueOr(0) != 0; });
}

}  // namespace

const char* statisticWord(QualityTest::Statistic statistic) {
  return std::find_if(std::begin(kStatistics), std::end(kStatistics),
                      [&](const auto& s) { return s.second == statistic; })
      ->first;
}

Result<std::vector<QualityTest>> parseQualityTests(std::string_view text, const std::string& source) {
  std::vector<QualityTest> tests;
  std::string group;
  RuleLines lines(text, source);
  while (lines.next()) {
    Words words(lines.line());
    const std::string_view what = words.next();
    const auto bad = [&](const std::string& why) {
      return fail(ErrorKind::BadInput, why, lines.where(),
                  "A test reads: test name \"Label\" row median over 10 at least 8%");
    };
    if (what == "group") {
      group = words.next();
      if (group.empty() || !words.atEnd()) return bad("a group has one name in quotes");
      continue;
    }
    QualityTest test;
    test.group = group;
    if (what != "test" || group.empty()) return bad("expected a test inside a group");
    if (const std::string why = readTest(words, test); !why.empty()) return bad(why);
    const bool taken =
        std::any_of(tests.begin(), tests.end(), [&](const QualityTest& t) { return t.name == test.name; });
    if (taken) return bad("there are two tests called '" + test.name + "'");
    tests.push_back(std::move(test));
  }
  return tests;
}

std::vector<QualityResult> review(const std::vector<QualityTest>& tests,
                                  const std::map<std::string, TestChoice>& choices, const std::string& sector,
                                  const std::function<Series(const std::string&)>& seriesOf) {
  std::vector<QualityResult> results;
  for (size_t t = 0; t < tests.size(); ++t) {
    const QualityTest& test = tests[t];
    if (!test.sector.empty() && test.sector != sector) continue;
    QualityResult result;
    result.test = t;
    result.threshold = test.threshold;
    if (const auto own = choices.find(test.name); own != choices.end()) {
      result.exempt = own->second.exempt;
      result.ownThreshold = own->second.threshold.has_value();
      result.threshold = own->second.threshold.value_or(test.threshold);
    }
    const Series series = seriesOf(test.row);
    if (!series.figures.empty()) {
      result.figure = statisticOf(test, series, result);
      const Statistics all = describe(series.figures, series.exceptional);
      result.low = all.low;
      result.high = all.high;
    }
    if (!result.figure.hasValue()) result.remark = result.figure.reason();
    if (result.exempt.empty() && result.figure.hasValue()) {
      const double x = result.figure.value();
      result.holds = test.atLeast ? x >= result.threshold : x <= result.threshold;
    } else if (result.exempt.empty() && !test.covers.empty() && nothingToCover(test, seriesOf(test.covers))) {
      result.holds = true;
    }
    results.push_back(std::move(result));
  }
  return results;
}

}  // namespace zl
