#pragma once
// How the figures of a report are put together: rows of the model's views by scenario or year, and figures of no row.

#include <algorithm>
#include <string>
#include <utility>
#include <vector>

#include "services/reports/value_tables.h"

namespace zl::services {

class GatherFigures {
 public:
  explicit GatherFigures(const Snapshot& s) : s_(s) {}

  /// Constants of a view by scenario; a rate's figure of the forecast year told, from 1.
  void byScenario(const char* table, const char* view, int year = 1) {
    const Evaluation& e = *s_.evaluation;
    const int column = e.layout().historyYears + std::clamp(year, 1, e.layout().forecastYears) - 1;
    for (const model::ViewRow& shown : s_.model().view(view)) {
      const model::Row& row = s_.model()[shown.row];
      for (int k = 0; k < e.scenarios(); ++k) {
        const bool constant = row.timing == model::Timing::Constant;
        const Figure figure = constant ? e.constant(shown.row, k) : e.figure(shown.row, column, k);
        add({table, row.name, row.label, "", scenario(k), row.kind, figure, optionLabel(row, figure.valueOr(-1))});
      }
    }
  }
  void byYear(const char* table, const char* view, int lane) {
    const Evaluation& e = *s_.evaluation;
    for (const model::ViewRow& shown : s_.model().view(view)) {
      const model::Row& row = s_.model()[shown.row];
      for (int c = e.layout().historyYears; c < e.layout().columns(); ++c)
        add({table, row.name, row.label, s_.periodOf(c), scenario(lane), row.kind, e.figure(shown.row, c, lane), ""});
    }
  }
  void add(ReportFigure figure) { all_.push_back(std::move(figure)); }
  void add(const char* table, std::string label, int lane, Kind kind, Figure figure, std::string source) {
    add({table, "", std::move(label), "", scenario(lane), kind, std::move(figure), std::move(source)});
  }
  [[nodiscard]] std::string scenario(int lane) const { return s_.caseOf().scenarios[static_cast<size_t>(lane)].id; }
  std::vector<ReportFigure> take() { return std::move(all_); }

 private:
  const Snapshot& s_;
  std::vector<ReportFigure> all_;
};

}  // namespace zl::services
