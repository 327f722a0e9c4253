#include "app/pages/outlook_rows.h"

#include <algorithm>

#include "core/model/shown.h"

#include "app/grid/ledger_rows.h"
#include "app/look/amounts.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/stories/evidence_stories.h"
#include "services/stories/interim_stories.h"
#include "services/stories/outlook_stories.h"
#include "services/stories/rows.h"

namespace zl::app {
namespace {

using services::baseLane;
using services::Snapshot;

/// A share in per cent in a row of another kind.
LedgerCell shareCell(const Figure& share) {
  LedgerCell cell = figureCell(share);
  if (share.hasValue()) cell.words = text(figureText(share, Kind::Ratio));
  return cell;
}

LedgerCell tracedCell(const Figure& figure, model::Cell source, int scenario) {
  LedgerCell cell = figureCell(figure);
  cell.source = source;
  cell.scenario = scenario;
  return cell;
}

LedgerCell told(LedgerCell cell, services::Telling story) {
  cell.story = std::move(story);
  return cell;
}

}  // namespace

std::vector<LedgerRow> cautionRows(const Snapshot& s, const services::SumOfCaution& sum) {
  std::vector<LedgerRow> rows;
  const auto total = [&](const QString& label, bool together) {
    LedgerRow row;
    row.label = label;
    row.kind = Kind::Quote;
    row.strong = true;
    const Figure& figure = together ? sum.together : sum.alone;
    row.cells = {LedgerCell{}, LedgerCell{}, told(figureCell(figure), [together, figure](const Snapshot& of) {
                   return services::cautionTotalStory(of, together, figure);
                 })};
    rows.push_back(std::move(row));
  };
  total(QObject::tr("All together"), true);
  total(QObject::tr("Sum, each taken alone"), false);
  for (const services::CautionLine& line : sum.lines) {
    LedgerRow row;
    row.label = text(line.label);
    row.unit = unitOf(s, line.kind);
    row.kind = line.kind;
    row.key = text(line.row);
    const model::RowId index = s.evaluation->model().find(line.row);
    const bool driver = s.evaluation->model()[index].declared == model::Declared::Driver;
    const int column = driver ? s.evaluation->layout().columns() - 1 : 0;
    row.cells = {
        tracedCell(line.chosen, {index, column}, baseLane(s)),
        told(figureCell(line.neutral), [line](const Snapshot& of) { return services::neutralStory(of, line); }),
        told(figureCell(line.effect), [line](const Snapshot& of) { return services::cautionStory(of, line); })};
    const model::Row& described = s.model()[index];
    if (described.isChoice()) {
      row.cells[0].words = text(model::shownText(described, line.chosen));
      row.cells[1].words = text(model::shownText(described, line.neutral));
    }
    row.cells[0].ink = Ink::Assumed;
    // The effect is in the listing's unit, whatever the choice is measured in.
    if (line.effect.hasValue()) row.cells[2].words = text(figureText(line.effect, Kind::Quote));
    rows.push_back(std::move(row));
  }
  return rows;
}

std::vector<LedgerRow> decideRows(const Snapshot& s, const services::DecideNext& next) {
  using services::UndecidedFigure;
  std::vector<LedgerRow> rows;
  double most = 0;
  for (const services::Undecided& u : next.list) most = std::max(most, u.effect.valueOr(0));
  bool placeholders = false;
  bool others = false;
  for (const services::Undecided& u : next.list) {
    // What moves nothing needs no decision now.
    if (u.effect.valueOr(0) <= 0) continue;
    if (u.placeholder && !placeholders)
      rows.push_back(headingRow(QObject::tr("Placeholders: round figures to replace")));
    if (!u.placeholder && !others && placeholders) rows.push_back(headingRow(QObject::tr("By what they move")));
    placeholders = placeholders || u.placeholder;
    others = others || !u.placeholder;
    const model::Row& described = s.model()[u.row];
    LedgerRow row;
    row.label = text(described.label);
    row.kind = next.kind;
    row.key = text(described.name);
    row.scale = ScaleMark{0, most, 0, u.effect.valueOr(0), true, true};
    const auto figure = [&](const Figure& f, UndecidedFigure which) {
      return told(figureCell(f), [u, kind = next.kind, which](const Snapshot& of) {
        return services::undecidedStory(of, u, kind, which);
      });
    };
    const bool driver = described.declared == model::Declared::Driver;
    LedgerCell stands = wordsCell(text(u.words));
    stands.ink = u.proposed ? Ink::Proposed : Ink::Plain;
    stands.source = model::Cell{u.row, driver ? s.evaluation->layout().columns() - 1 : 0};
    stands.scenario = baseLane(s);
    LedgerCell why = wordsCell(u.reason.empty() ? QObject::tr("the model's preset") : text(u.reason));
    why.editable = true;
    row.cells = {figure(u.effect, UndecidedFigure::Effect), figure(u.low, UndecidedFigure::Low),
                 figure(u.high, UndecidedFigure::High), std::move(stands), std::move(why)};
    rows.push_back(std::move(row));
  }
  return rows;
}

std::vector<LedgerRow> actualRows(const Snapshot& s) {
  std::vector<LedgerRow> rows;
  QString period;
  for (const services::ForecastAgainstActual& line : services::forecastAgainstActual(s)) {
    if (text(line.period) != period) rows.push_back(headingRow(period = text(line.period)));
    LedgerRow row;
    row.label = text(line.label);
    row.unit = line.kind == Kind::Money ? QString() : unitOf(s, line.kind);
    row.kind = line.kind;
    const model::RowId index = s.evaluation->model().find(line.row);
    for (size_t i = 0; i < line.forecast.size(); ++i)
      row.cells.push_back(tracedCell(line.forecast[i], {index, line.column}, static_cast<int>(i)));
    row.cells.push_back(
        told(figureCell(line.actual), [line](const Snapshot& of) { return services::actualStory(of, line); }));
    row.cells.back().ink = Ink::Filed;
    row.cells.push_back(
        told(figureCell(line.gap), [line](const Snapshot& of) { return services::gapStory(of, line, false); }));
    row.cells.push_back(
        told(shareCell(line.gapShare), [line](const Snapshot& of) { return services::gapStory(of, line, true); }));
    rows.push_back(std::move(row));
  }
  return rows;
}

std::vector<LedgerRow> interimRows(const Snapshot& s, const services::InterimProgress& progress) {
  using services::InterimFigure;
  std::vector<LedgerRow> rows;
  const std::string before = progress.period.substr(0, 3) + std::to_string(s.years().back().label());
  for (const services::InterimLine& line : progress.lines) {
    LedgerRow row;
    row.label = text(line.label);
    row.unit = line.kind == Kind::Money ? QString() : unitOf(s, line.kind);
    row.kind = line.kind;
    const model::RowId index = s.evaluation->model().find(line.row);
    const auto filed = [&](const Figure& figure, const std::string& period) {
      LedgerCell cell = told(figureCell(figure), [index, period, figure](const Snapshot& of) {
        return services::interimStory(of, index, period, InterimStatements::Span::YearToDate, figure);
      });
      cell.ink = Ink::Filed;
      return cell;
    };
    const auto measured = [&](LedgerCell cell, InterimFigure which) {
      return told(std::move(cell), [line, period = progress.period, which](const Snapshot& of) {
        return services::interimProgressStory(of, line, period, which);
      });
    };
    row.cells = {filed(line.actual, progress.period),
                 filed(line.yearBefore, before),
                 measured(shareCell(line.growth), InterimFigure::Growth),
                 tracedCell(line.forecast, {index, s.evaluation->layout().historyYears}, baseLane(s)),
                 measured(shareCell(line.reached), InterimFigure::Reached),
                 measured(shareCell(line.usual), InterimFigure::Usual),
                 measured(figureCell(line.rest), InterimFigure::Rest),
                 measured(shareCell(line.restGrowth), InterimFigure::RestGrowth)};
    rows.push_back(std::move(row));
  }
  return rows;
}

std::vector<LedgerRow> publishedRows(const Snapshot& s, const PublishedSet& set) {
  using services::PublishedFigure;
  std::vector<LedgerRow> rows;
  const auto shared = std::make_shared<const PublishedSet>(set);
  QString label;
  for (const services::PublishedLine& line : services::publishedBeside(s, set.name)) {
    LedgerRow row;
    row.kind = line.kind;
    row.unit = line.kind == Kind::Money ? QString() : unitOf(s, line.kind);
    row.strong = line.row.empty();
    const bool begins = text(line.label) != label;
    label = text(line.label);
    row.label = line.row.empty() ? label
                : begins         ? label + QLatin1Char(' ') + text(line.period)
                                 : QStringLiteral("    ") + text(line.period);
    if (!begins) row.unit.clear();
    const auto cellOf = [&](LedgerCell cell, PublishedFigure which) {
      return told(std::move(cell), [line, shared, which](const Snapshot& of) {
        return services::publishedStory(of, line, *shared, which);
      });
    };
    row.cells = {cellOf(figureCell(line.old), PublishedFigure::Old), cellOf(figureCell(line.now), PublishedFigure::Now),
                 cellOf(figureCell(line.change), PublishedFigure::Change),
                 cellOf(shareCell(line.share), PublishedFigure::Share), figureCell(line.consensus.mean)};
    row.cells[0].ink = Ink::Filed;
    if (const model::RowId index = s.evaluation->model().find(line.row); index.known()) {
      const int column = s.evaluation->layout().baseColumn() + line.year - s.years().back().label();
      if (line.now.hasValue()) row.cells[1] = tracedCell(line.now, {index, column}, baseLane(s));
      row.cells[4].story = [index, column, figure = line.consensus.mean](const Snapshot& of) {
        return services::estimateStory(of, index, column, EstimateBy::Analysts, EstimateEnd::Mean, figure);
      };
    }
    LedgerCell guidance;
    if (line.guidance.low.hasValue()) {
      guidance.words =
          shownText(line.guidance.low, line.kind) + QStringLiteral("–") + shownText(line.guidance.high, line.kind);
      guidance.story = [index = s.evaluation->model().find(line.row), line, year = s.years().back().label(),
                        range = *guidance.words](const Snapshot& of) {
        const int column = of.evaluation->layout().baseColumn() + line.year - year;
        services::Story story =
            services::estimateStory(of, index, column, EstimateBy::Company, EstimateEnd::Mean, line.guidance.mean);
        story.title += ", lowest to highest";
        story.figure = (range + QLatin1Char(' ') + unitOf(of, line.kind)).trimmed().toStdString();
        return story;
      };
    }
    row.cells.push_back(std::move(guidance));
    rows.push_back(std::move(row));
  }
  return rows;
}

}  // namespace zl::app
