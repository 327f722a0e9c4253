#include "app/pages/capital_page.h"

#include <QHBoxLayout>
#include <QVBoxLayout>
#include <algorithm>

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/stories/capital_stories.h"
#include "services/stories/evidence_stories.h"

namespace zl::app {

CapitalPage::CapitalPage(Workbench& bench, QWidget* parent) : Page(bench, Stop::Capital, parent) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  views_ = new SubViews(this);
  layout->addWidget(views_);
  views_->add("rate", tr("the rate"), makeRate());
  views_->add("rivals", tr("rivals"), makeRivals());
  views_->add("beta", tr("beta"), makeBeta());
  views_->add("over", tr("over the years"), makeYears());
  views_->add("debt", tr("debt and rates"), makeDebt());
  connect(views_, &SubViews::turned, this, [this] {
    if (bench_.isOpen()) refresh();
  });
  connect(&bench_, &Workbench::scenarioChanged, this, [this] {
    if (isVisible() && bench_.isOpen()) refresh();
  });
}

QWidget* CapitalPage::makeRate() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  layout->addWidget(sectionLabel(tr("The rate of the first forecast year, part by part (weighted, %)"), view));
  stack_ = new RateStack(view);
  connectChart(stack_);
  layout->addWidget(stack_);
  auto* columns = new QHBoxLayout;
  columns->setSpacing(16);
  parts_ = addGrid("rateParts", tr("Parts of the rate by scenario"));
  parts_->setWidths(62, 0);
  columns->addWidget(parts_, 1, Qt::AlignTop);
  weights_ = addGrid("weights", tr("Weights and choices"));
  weights_->setWidths(66, 0);
  columns->addWidget(weights_, 1, Qt::AlignTop);
  layout->addLayout(columns);
  layout->addStretch();
  connect(&parts_->ledger(), &LedgerModel::typed, this, [this](int row, int column, const QString& typed) {
    const LedgerRow& line = parts_->ledger().ledgerRows()[static_cast<size_t>(row)];
    const std::optional<double> level = typedOrSay(typed, line);
    if (!level) return;
    Path path;
    path.level = level;
    const Case& c = bench_.settled().caseOf();
    const Scenario& s = c.scenarios[static_cast<size_t>(column)];
    const Assumption* before = c.driver(s, line.key.toStdString());
    bench_.apply(services::setDriver(c, now().evaluation->model(), s.id, line.key.toStdString(), path,
                                     bench_.saidNow(before != nullptr ? text(before->said.reason) : QString())));
  });
  takeInputs(weights_);
  return view;
}

QWidget* CapitalPage::makeRivals() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  rivalsHint_ = sectionLabel({}, view);
  layout->addWidget(rivalsHint_);
  rivals_ = addGrid("rivals", tr("What rivals each part of the rate"));
  rivals_->setColumns({80, 110, 90, 560});
  layout->addWidget(rivals_);
  layout->addWidget(sectionLabel(tr("Every value with the hurdle taken each way"), view));
  hurdle_ = addGrid("hurdleValues", tr("Values with a hurdle"));
  hurdle_->setWidths(120, 0);
  layout->addWidget(hurdle_);
  layout->addStretch();
  connect(rivals_, &LedgerView::rowActivated, this, [this](int row, int) { adoptRival(row); });
  return view;
}

QWidget* CapitalPage::makeBeta() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(8, 0, 8, 0);
  const auto add = [&](const QString& words, QWidget* field) {
    auto* label = new PlainLabel(words, view);
    label->setBuddy(field);
    bar->addWidget(label);
    bar->addWidget(field);
  };
  index_ = new QComboBox(view);
  index_->setObjectName(QStringLiteral("betaIndex"));
  index_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
  add(tr("&Index"), index_);
  frequency_ = new QComboBox(view);
  frequency_->setObjectName(QStringLiteral("betaFrequency"));
  frequency_->addItems({tr("daily"), tr("weekly"), tr("monthly")});
  frequency_->setCurrentIndex(1);
  add(tr("&Returns"), frequency_);
  window_ = new QSpinBox(view);
  window_->setObjectName(QStringLiteral("betaYears"));
  window_->setRange(1, 20);
  window_->setValue(services::BetaSettings{}.years);
  add(tr("&Years back"), window_);
  total_ = new QCheckBox(tr("with &dividends"), view);
  total_->setObjectName(QStringLiteral("betaTotal"));
  total_->setChecked(true);
  bar->addWidget(total_);
  bar->addStretch();
  layout->addLayout(bar);
  auto* both = new QHBoxLayout;
  cloud_ = new BetaCloud(view);
  connectChart(cloud_);
  both->addWidget(cloud_, 3);
  auto* right = new QVBoxLayout;
  fit_ = addGrid("betaFit", tr("Own regression"));
  fit_->setWidths(80, 0);
  right->addWidget(fit_);
  rolling_ = new PriceChart(view);
  rolling_->setObjectName(QStringLiteral("rollingBeta"));
  rolling_->setMinimumHeight(110);
  rolling_->setTitle(tr("Beta over half of the window, rolling"));
  rolling_->setAccessibleName(tr("Rolling beta"));
  right->addWidget(rolling_, 1);
  both->addLayout(right, 2);
  layout->addLayout(both);
  betaNotes_ = new PlainLabel(view);
  betaNotes_->setObjectName(QStringLiteral("betaNotes"));
  betaNotes_->setWordWrap(true);
  betaNotes_->setContentsMargins(8, 0, 8, 0);
  layout->addWidget(betaNotes_);
  layout->addWidget(sectionLabel(tr("Peers' betas by the same way: without debt, their median, relevered"), view));
  peers_ = addGrid("peerBetas", tr("Peers' betas"));
  peers_->setColumns({80, 80, 80, 80, 360});
  layout->addWidget(peers_);
  layout->addStretch();
  const auto again = [this] {
    if (bench_.isOpen() && isVisible()) fillBeta();
  };
  connect(index_, &QComboBox::activated, this, again);
  connect(frequency_, &QComboBox::currentIndexChanged, this, again);
  connect(window_, &QSpinBox::valueChanged, this, again);
  connect(total_, &QCheckBox::toggled, this, again);
  return view;
}

QWidget* CapitalPage::makeYears() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  years_ = new StackedBars(view);
  years_->setObjectName(QStringLiteral("rateBars"));
  years_->setMinimumHeight(220);
  connectChart(years_);
  layout->addWidget(years_, 1);
  rateYears_ = addGrid("rateYears", tr("The rate over the years"));
  rateYears_->setWidths(64, 0);
  layout->addWidget(rateYears_);
  layout->addStretch();
  keepAbove(years_, rateYears_,
            [this](std::vector<double> middles, double from) { years_->setMiddles(std::move(middles), from); });
  connect(&rateYears_->ledger(), &LedgerModel::typed, this, [this](int row, int column, const QString& typed) {
    const LedgerRow& line = rateYears_->ledger().ledgerRows()[static_cast<size_t>(row)];
    if (const auto figure = typedOrSay(typed, line)) typeDriver(line.key, bench_.scenario(), {{column, *figure}});
  });
  return view;
}

QWidget* CapitalPage::makeDebt() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  layout->addWidget(sectionLabel(
      tr("Gross interest over average debt with leases; the oldest year has no opening balance and is not used"),
      view));
  debt_ = addGrid("interestOverDebt", tr("Interest over debt by year"));
  debt_->setWidths(56, 0);
  layout->addWidget(debt_);
  layout->addWidget(sectionLabel(tr("Rates in the book (latest at the valuation date)"), view));
  rates_ = addGrid("rates", tr("Rates"));
  rates_->setWidths(110, 0);
  layout->addWidget(rates_);
  layout->addStretch();
  return view;
}

void CapitalPage::refresh() {
  const QString shown = views_->shown();
  if (shown == QLatin1String("rate")) {
    fillStack();
    fillParts();
  } else if (shown == QLatin1String("over")) {
    fillYears();
  } else if (bench_.isPreviewing()) {
    return;  // what follows is not what is dragged
  } else if (shown == QLatin1String("rivals")) {
    fillRivals();
  } else if (shown == QLatin1String("beta")) {
    fillBeta();
  } else {
    fillDebt();
  }
}

void CapitalPage::fillStack() {
  const services::Snapshot& s = now();
  const Evaluation& e = *s.evaluation;
  const int first = e.layout().historyYears;
  std::vector<RateBar> bars;
  for (int i = 0; i < e.scenarios(); ++i) {
    const Figure total = e.figure(model::Role::Wacc, first, i);
    if (!total.hasValue()) continue;
    const Scenario& sc = s.caseOf().scenarios[static_cast<size_t>(i)];
    RateBar bar{
        text(sc.id), text(sc.label), {}, total.value(), {model::Cell{e.model().find(model::Role::Wacc), first}, i, {}}};
    for (const model::ViewRow& part : e.model().view("rate_stack")) {
      const model::Row& row = e.model()[part.row];
      const double figure = e.figure(part.row, first, i).valueOr(0);
      if (figure == 0) continue;
      bar.parts.push_back({text(row.label), figure, {model::Cell{part.row, first}, i, {}}});
    }
    bars.push_back(std::move(bar));
  }
  stack_->setBars(std::move(bars));
}

void CapitalPage::fillParts() {
  const services::Snapshot& s = now();
  const int first = s.evaluation->layout().historyYears;
  std::vector<LedgerRow> rows;
  for (const model::ViewRow& shown : s.model().view("rate")) {
    const std::string& name = s.model()[shown.row].name;
    LedgerRow row = yearRow(s, shown.row, first, first + 1, 0);
    row.cells.clear();
    for (int i = 0; i < s.evaluation->scenarios(); ++i) {
      LedgerCell cell = yearRow(s, shown.row, first, first + 1, i).cells.front();
      cell.quiet = cell.editable && s.caseOf().scenarios[static_cast<size_t>(i)].drivers.count(name) == 0;
      row.cells.push_back(std::move(cell));
    }
    rows.push_back(std::move(row));
  }
  parts_->ledger().setCorner(tr("parts, held unless shaped"));
  parts_->ledger().fill(scenarioHeaders(s), std::move(rows));
  parts_->showAll();
  weights_->ledger().setCorner(cornerOf(s));
  weights_->ledger().fill(scenarioHeaders(s), scenarioRows(s, "weights"));
  weights_->showAll();
}

services::BetaSettings CapitalPage::settings() const {
  services::BetaSettings settings;
  settings.index = index_->currentText().toStdString();
  settings.frequency = static_cast<ReturnFrequency>(frequency_->currentIndex());
  settings.years = window_->value();
  settings.total = total_->isChecked();
  return settings;
}

void CapitalPage::fillRivals() {
  const services::Snapshot& s = now();
  const int scenario = bench_.scenario();
  rivalsHint_->setText(tr("What rivals each part in %1, and the value with it; Enter adopts")
                           .arg(text(s.caseOf().scenarios[static_cast<size_t>(scenario)].label)));
  constexpr size_t kMostRivals = 6;
  std::vector<LedgerRow> rows;
  shownRivals_.clear();
  for (const services::PartRivals& part : services::rivalsOf(s, settings(), scenario)) {
    const model::Row& driver = s.model()[part.row];
    rows.push_back(headingRow(text(driver.label)));
    shownRivals_.emplace_back(model::RowId(), services::Rival{});
    const Figure stands = part.rivals.front().value;
    const size_t shown = allRivals_ ? part.rivals.size() : std::min(kMostRivals, part.rivals.size());
    for (size_t i = 0; i < shown; ++i) {
      const services::Rival& rival = part.rivals[i];
      LedgerRow row;
      row.label = text(rival.label);
      row.kind = driver.kind;
      row.strong = rival.stands;
      LedgerCell figure = figureCell(rival.figure);
      figure.story = [id = part.row, rival, scenario](const services::Snapshot& of) {
        return services::rivalStory(of, id, rival, scenario, false);
      };
      LedgerCell value = figureCell(rival.value);
      value.words = text(figureText(rival.value, Kind::Quote));
      value.story = [id = part.row, rival, scenario](const services::Snapshot& of) {
        return services::rivalStory(of, id, rival, scenario, true);
      };
      const Figure moved = rival.value - stands;
      LedgerCell change =
          wordsCell(rival.stands || !moved.hasValue()
                        ? QString()
                        : (moved.value() > 0 ? QStringLiteral("+") : QString()) + text(figureText(moved, Kind::Quote)));
      change.left = false;
      change.story = [id = part.row, rival, stands, scenario, shown = *change.words](const services::Snapshot& of) {
        services::Story story = services::rivalStory(of, id, rival, scenario, true);
        story.figure = shown.toStdString() + ", from " + figureText(stands, Kind::Quote) + " to " + story.figure;
        return story;
      };
      const QString source = rival.figure.hasValue() ? text(rival.source) : text(rival.figure.reason());
      row.cells = {figure, value, change, wordsCell(source, source)};
      rows.push_back(std::move(row));
      shownRivals_.emplace_back(part.row, rival);
    }
    if (shown < part.rivals.size()) {
      LedgerRow more;
      more.label = tr("%1 more; Enter shows them").arg(part.rivals.size() - shown);
      more.key = QStringLiteral("more");
      more.cells = {wordsCell({}), wordsCell({}), wordsCell({}), wordsCell({})};
      rows.push_back(std::move(more));
      shownRivals_.emplace_back(model::RowId(), services::Rival{});
    }
  }
  rivals_->ledger().setCorner(tr("part and rivals"));
  rivals_->ledger().fill(
      {tr("figure"), tr("value, %1").arg(text(s.company().listing.unit)), tr("moves it"), tr("source")},
      std::move(rows));
  rivals_->showAll();

  rows.clear();
  const services::HurdleValues at = services::valuesAtHurdle(s, scenario);
  for (size_t m = 0; m < at.methods.size(); ++m) {
    LedgerRow row;
    row.label = text(at.methods[m]);
    row.kind = Kind::Quote;
    for (const Figure& value : at.values[m]) {
      LedgerCell cell = figureCell(value);
      cell.story = [label = at.methods[m], value, scenario](const services::Snapshot& of) {
        return services::hurdleStory(of, label, value, scenario);
      };
      row.cells.push_back(std::move(cell));
    }
    rows.push_back(std::move(row));
  }
  QStringList headers;
  if (!s.model().view("hurdle").empty()) {
    for (const model::Option& option : s.model()[s.model().view("hurdle").front().row].options)
      headers << text(option.label);
  }
  hurdle_->ledger().setCorner(tr("per share, %1").arg(text(s.company().listing.unit)));
  hurdle_->ledger().fill(headers, std::move(rows));
  hurdle_->showAll();
}

void CapitalPage::adoptRival(int row) {
  if (row < 0 || row >= static_cast<int>(shownRivals_.size())) return;
  if (rivals_->ledger().ledgerRows()[static_cast<size_t>(row)].key == QLatin1String("more")) {
    allRivals_ = true;
    return fillRivals();
  }
  const auto& [id, rival] = shownRivals_[static_cast<size_t>(row)];
  if (!id.known() || rival.stands) return;
  if (!rival.figure.hasValue()) {
    bench_.say(tr("There is nothing to adopt: %1").arg(text(rival.figure.reason())), true);
    return;
  }
  bench_.apply(services::adopt(bench_.settled(), id, rival, bench_.scenario(), bench_.saidNow({})));
}

void CapitalPage::fillBeta() {
  const services::Snapshot& s = now();
  QStringList indices;
  for (const std::string& name : services::indicesOf(s)) indices << text(name);
  QStringList there;
  for (int i = 0; i < index_->count(); ++i) there << index_->itemText(i);
  if (indices != there) {
    const QString chosen = index_->currentText();
    index_->clear();
    index_->addItems(indices);
    index_->setCurrentIndex(std::max(0, index_->findText(chosen)));
  }
  const services::BetaSettings how = settings();
  const services::OwnBeta own = services::ownBeta(s, how);
  CloudContent cloud{own.returns.pairs, own.fit, {}, text(own.index), {}};
  if (own.fit.beta.hasValue()) {
    cloud.title = tr("The share moves %1 times the index; 95 in 100 that it is %2 to %3")
                      .arg(text(groupedNumber(own.fit.beta.value(), 2)), text(groupedNumber(own.fit.low.value(), 2)),
                           text(groupedNumber(own.fit.high.value(), 2)));
  }
  cloud.whyNone = own.notes.empty() ? QString() : text(own.notes.front());
  cloud_->setContent(std::move(cloud));
  std::vector<LedgerRow> rows;
  const auto add = [&](const QString& label, const Figure& figure, Kind kind, int decimals) {
    LedgerRow row;
    row.label = label;
    row.kind = kind;
    LedgerCell cell = figureCell(figure);
    if (figure.hasValue()) cell.words = text(groupedNumber(figure.value(), decimals));
    cell.story = [label = label.toStdString(), figure, kind, own, how](const services::Snapshot& of) {
      services::Story story = services::regressionStory(of, label, figure, kind, own, how);
      if (figure.hasValue()) story.figure = plainNumber(figure.value()) + " (" + groupedNumber(figure.value(), 2) + ")";
      return story;
    };
    row.cells.push_back(std::move(cell));
    rows.push_back(std::move(row));
  };
  add(tr("Beta"), own.fit.beta, Kind::Multiple, 2);
  add(tr("Standard error"), own.fit.standardError, Kind::Multiple, 2);
  add(tr("From, 95 %"), own.fit.low, Kind::Multiple, 2);
  add(tr("To, 95 %"), own.fit.high, Kind::Multiple, 2);
  add(tr("Adjusted"), own.fit.adjusted, Kind::Multiple, 2);
  add(tr("R squared"), own.fit.rSquared, Kind::Count, 2);
  add(tr("Pairs of returns"), Figure::of(own.fit.n), Kind::Count, 0);
  fit_->ledger().fill({tr("own")}, std::move(rows));
  fit_->showAll();
  std::vector<PricePoint> line;
  for (const auto& [on, beta] : own.rolling) {
    if (beta.hasValue()) line.push_back({on, beta.value()});
  }
  rolling_->setVisible(line.size() > 1);
  rolling_->setContent(std::move(line), {}, {});
  QStringList notes;
  for (const std::string& note : own.notes) notes << text(note);
  betaNotes_->setText(notes.join(QStringLiteral(" · ")));
  betaNotes_->setVisible(!notes.isEmpty());
  fillPeerBetas();
}

void CapitalPage::fillPeerBetas() {
  const services::Snapshot& s = now();
  const services::PeerBetas all = services::peerBetas(s, settings(), bench_.scenario());
  std::vector<LedgerRow> rows;
  for (const services::PeerBeta& peer : all.peers) {
    LedgerRow row;
    row.label = text(peer.name);
    row.kind = Kind::Multiple;
    const auto told = [&](const char* label, const Figure& figure, Kind kind) {
      LedgerCell cell = figureCell(figure);
      if (figure.hasValue())
        cell.words = text(kind == Kind::Ratio ? figureText(figure, kind) : groupedNumber(figure.value(), 2));
      cell.story = [peer, label = std::string(label), figure, kind](const services::Snapshot& of) {
        services::Story story = services::peerBetaStory(of, label, figure, kind, peer);
        if (figure.hasValue() && kind != Kind::Ratio) story.figure = groupedNumber(figure.value(), 2);
        return story;
      };
      return cell;
    };
    row.cells = {told("beta", peer.beta, Kind::Multiple), told("debt to equity", peer.debtToEquity, Kind::Ratio),
                 told("tax", peer.taxRate, Kind::Ratio), told("without debt", peer.unlevered, Kind::Multiple),
                 wordsCell(text(peer.how.empty() ? peer.beta.reason() : peer.how), text(peer.taxSource))};
    rows.push_back(std::move(row));
  }
  const auto total = [&](const QString& label, const Figure& figure) {
    LedgerRow row;
    row.label = label;
    row.kind = Kind::Multiple;
    row.strong = true;
    LedgerCell cell = figureCell(figure);
    if (figure.hasValue()) cell.words = text(groupedNumber(figure.value(), 2));
    cell.story = [all, label = label.toStdString(), figure](const services::Snapshot& of) {
      services::Story story = services::peerMedianStory(of, label, figure, all);
      if (figure.hasValue()) story.figure = groupedNumber(figure.value(), 2);
      return story;
    };
    row.cells = {wordsCell({}), wordsCell({}), wordsCell({}), cell, wordsCell({})};
    rows.push_back(std::move(row));
  };
  total(tr("Median without debt"), all.median);
  total(tr("Relevered at the weights"), all.relevered);
  peers_->ledger().fill({tr("beta"), tr("debt/equity, %"), tr("tax, %"), tr("without debt"), tr("how")},
                        std::move(rows));
  peers_->showAll();
}

void CapitalPage::fillYears() {
  const services::Snapshot& s = now();
  const Evaluation& e = *s.evaluation;
  const int from = e.layout().historyYears;
  const int to = e.layout().columns();
  const int scenario = bench_.scenario();
  std::vector<BarPart> parts;
  for (const model::ViewRow& part : s.model().view("rate_stack")) {
    BarPart bar{text(s.model()[part.row].label), {}, {}};
    bool any = false;
    for (int c = from; c < to; ++c) {
      bar.figures.push_back(e.figure(part.row, c, scenario));
      any = any || bar.figures.back().valueOr(0) != 0;
    }
    bar.told = [row = part.row, from, scenario](int column) {
      return ToldFigure{model::Cell{row, from + column}, scenario, {}};
    };
    if (any) parts.push_back(std::move(bar));
  }
  years_->setContent(tr("What the rate is made of by year in %1, %")
                         .arg(text(s.caseOf().scenarios[static_cast<size_t>(scenario)].label)),
                     periodHeaders(s, from, to), std::move(parts), Kind::Ratio,
                     tr("The rate has no value; the trace of the WACC says why"));
  rateYears_->ledger().setCorner(tr("parts, typed by year"));
  rateYears_->ledger().fill(periodHeaders(s, from, to), yearRows(s, "rate_years", from, to, scenario));
  rateYears_->showAll();
}

void CapitalPage::fillDebt() {
  const services::Snapshot& s = now();
  const int to = s.evaluation->layout().historyYears;
  debt_->ledger().setCorner(cornerOf(s));
  debt_->ledger().fill(periodHeaders(s, 0, to), yearRows(s, "cost_of_debt", 0, to, bench_.scenario()));
  debt_->showAll();
  std::vector<LedgerRow> rows;
  QStringList seen;
  for (const MarketRate& r : s.market->rates) {
    const QString name = text(r.name);
    if (seen.contains(name)) continue;
    seen << name;
    const std::optional<MarketRate> latest = rateAt(s.market->rates, r.name, s.caseOf().valuationDate);
    if (!latest) continue;
    LedgerRow row;
    row.label = name;
    row.kind = name.startsWith(QLatin1String("spot"))    ? Kind::QuoteRate
               : name.startsWith(QLatin1String("beta ")) ? Kind::Multiple
                                                         : Kind::Ratio;
    row.unit = row.kind == Kind::Ratio ? QStringLiteral("%") : QString();
    LedgerCell figure;
    figure.figure = Figure::of(latest->figure);
    figure.ink = Ink::Filed;
    figure.story = [latest = *latest, kind = row.kind](const services::Snapshot& of) {
      return services::rateStory(of, latest.name, Figure::of(latest.figure), kind,
                                 dateText(latest.date) + ", " + latest.source);
    };
    LedgerCell date;
    date.words = text(dateText(latest->date));
    LedgerCell source;
    source.words = text(latest->source);
    row.cells = {figure, date, source};
    rows.push_back(std::move(row));
  }
  rates_->ledger().fill({tr("figure"), tr("date"), tr("source")}, std::move(rows));
  rates_->showAll();
}

}  // namespace zl::app
