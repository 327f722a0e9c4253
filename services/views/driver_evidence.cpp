#include "services/views/driver_evidence.h"

#include <algorithm>

#include "services/views/exit_return.h"
#include "services/views/history_figures.h"

namespace zl::services {

std::vector<bool> exceptionalColumns(const Snapshot& s) {
  std::vector<bool> flags;
  for (const FiscalYear& year : s.years()) flags.push_back(s.caseOf().exceptional.count(year.label()) > 0);
  return flags;
}

Consensus consensusOf(const Snapshot& s, EstimateBy by) {
  return {s.evaluation->model(), *s.history, s.years().back().label(),
          latestEstimates(s.market->estimates, s.caseOf().valuationDate, by), [&s](model::RowId row) {
            const model::Row& r = s.evaluation->model()[row];
            if (r.declared == model::Declared::Input) return assumedInput(s.evaluation->model(), s.caseOf(), row);
            const auto given = s.givens.find(r.name);
            return given == s.givens.end() ? Figure::absent(r.label + " is not known") : given->second.figure;
          }};
}

namespace {

/// What of the economy a driver is held against, where its row names a rate; "CUR" stands for the reporting currency.
std::optional<EconomyFigure> economyOf(const Snapshot& s, const model::Row& driver) {
  std::string name = driver.quoted;
  if (name.empty()) return std::nullopt;
  if (const size_t at = name.find("CUR"); at != std::string::npos) name.replace(at, 3, s.company().currency);
  const std::optional<MarketRate> found = rateAt(s.market->rates, name, s.caseOf().valuationDate);
  if (!found) return std::nullopt;
  return EconomyFigure{name, Figure::of(found->figure), dateText(found->date) + ", " + found->source};
}

/// What a figure moved by a year, by the line of least squares through the years that count.
Figure trendPerYear(const std::vector<Figure>& figures, const std::vector<bool>& out) {
  std::vector<std::pair<double, double>> points;
  for (size_t i = 0; i < figures.size(); ++i) {
    if (figures[i].hasValue() && !out[i]) points.emplace_back(static_cast<double>(i), figures[i].value());
  }
  return fitLine(points).slope;
}

/// The own past multiples that the exit multiple is held against, and what peers are at; null for every other driver.
struct ExitEvidence {
  std::vector<Figure> history;  ///< by filed year: in the first month in which it was known
  PeerSpread peers;
};
std::optional<ExitEvidence> exitEvidence(const Snapshot& s, model::RowId row) {
  const model::Model& m = s.model();
  const auto& parts = m.view("exit_parts");
  constexpr size_t kMultiple = 2;
  if (parts.size() <= kMultiple || parts[kMultiple].row != row) return std::nullopt;
  const PastMultiples past = pastMultiples(s);
  const PastSeries* series = pastOfExit(s, past);
  if (series == nullptr) return std::nullopt;
  ExitEvidence e;
  e.history.assign(static_cast<size_t>(s.evaluation->layout().historyYears),
                   Figure::absent("the book has no close of the months in which the year was known"));
  for (auto point = series->points.rbegin(); point != series->points.rend(); ++point)
    e.history[static_cast<size_t>(point->column)] = Figure::of(point->multiple);
  if (const auto multiple = trailingMultipleOf(m, m[series->row].name, series->ofFirm)) {
    const MultipleStatistics& peers = s.crossCheck.statistics.at(*multiple);
    e.peers = {peers.count, peers.low, peers.lowerQuartile, peers.median, peers.upperQuartile, peers.high};
  }
  return e;
}

}  // namespace

DriverEvidence evidenceOf(const Snapshot& s, model::RowId row, int scenario) {
  DriverEvidence e;
  const int filed = s.evaluation->layout().historyYears;
  for (int c = 0; c < filed; ++c) e.history.push_back(s.history->at(row, c));
  const std::optional<ExitEvidence> exit = exitEvidence(s, row);
  if (exit) {
    e.history = exit->history;
    e.peers = exit->peers;
  }
  e.exceptional = leftOut(s, row);
  for (int years : {3, 5, 10}) {
    const auto from = e.history.size() - static_cast<size_t>(std::min(years, filed));
    const std::vector<Figure> window(e.history.begin() + static_cast<std::ptrdiff_t>(from), e.history.end());
    const std::vector<bool> out(e.exceptional.begin() + static_cast<std::ptrdiff_t>(from), e.exceptional.end());
    e.windows.push_back({years, describe(window), describe(window, out), trendPerYear(window, out)});
  }
  e.spread = describe(e.history, e.exceptional);
  const Figure chosen = s.evaluation->figure(row, s.evaluation->layout().columns() - 1, scenario);
  e.percentile = chosen.hasValue() ? percentileOf(chosen.value(), e.history, e.exceptional) : chosen;
  const model::Row& described = s.model()[row];
  if (!s.market->estimates.empty()) {
    const Consensus consensus = consensusOf(s);
    const Consensus guidance = consensusOf(s, EstimateBy::Company);
    for (int c = filed; c < s.evaluation->layout().columns(); ++c) {
      e.consensus.push_back(consensus.spread(row, c));
      if (!guidance.empty()) e.guidance.push_back(guidance.spread(row, c));
    }
  }
  if (described.peers) {
    e.peers = peerSpread(s.market->peers, s.company().id, described.peers->measure, basisOf(s.model(), s.caseOf()));
  }
  e.economy = economyOf(s, described);
  return e;
}

}  // namespace zl::services
