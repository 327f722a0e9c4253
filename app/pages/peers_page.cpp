#include "app/pages/peers_page.h"
#include "app/bench/draft_field.h"

#include <QHBoxLayout>
#include <QVBoxLayout>
#include <algorithm>

#include "app/grid/ledger_rows.h"
#include "app/look/amounts.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "app/pages/dividend_rows.h"
#include "app/pages/empty_note.h"
#include "app/pages/outside_rows.h"
#include "app/pages/own_ranges.h"
#include "core/peers/likeness.h"
#include "core/quantity/number_text.h"
#include "services/stories/peer_stories.h"
#include "services/views/company_view.h"
#include "services/views/dividend_view.h"
#include "services/views/method_figures.h"
#include "services/views/peer_view.h"

namespace zl::app {

PeersPage::PeersPage(Workbench& bench, QWidget* parent) : Page(bench, Stop::Peers, parent) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  views_ = new SubViews(this);
  layout->addWidget(views_);
  views_->add("set", tr("set and multiples"), makeSet());
  views_->add("implied", tr("statistics"), makeImplied());
  views_->add("range", tr("implied"), makeRange());
  past_ = new PastPanel(bench_, addGrid("pastMultiples", tr("Own past multiples")),
                        addGrid("pastYears", tr("Own past multiple by year")), views_);
  views_->add("past", tr("past"), past_);
  LedgerView* grounds = addGrid("whyGrounds", tr("Why the multiple differs"));
  auto* whyView = new QWidget(views_);
  why_ = new WhyPanel(bench_, grounds, addGrid("multipleFit", tr("Multiple fitted across the peers")), whyView);
  scrolledLayout(whyView)->addWidget(why_);
  views_->add("why", tr("why"), whyView);
  views_->add("ratios", tr("ratios"), makeRatios());
  LedgerView* exitValues = addGrid("exitReturn", tr("Exit return by scenario"));
  auto* exitView = new QWidget(views_);
  exit_ = new ExitPanel(bench_, exitValues, addGrid("exitGrid", tr("Yearly return by growth and multiple")),
                        addGrid("exitRuns", tr("Runs of the exit return kept as versions")), exitView);
  scrolledLayout(exitView)->addWidget(exit_);
  views_->add("exit", tr("exit return"), exitView);
  takeInputs(exitValues);
  LedgerView* parts = addGrid("parts", tr("Parts of the company"));
  auto* partsView = new QWidget(views_);
  parts_ = new PartsPanel(bench_, parts, addGrid("partsShare", tr("From the parts to a share")), partsView);
  scrolledLayout(partsView)->addWidget(parts_);
  views_->add("sumOfParts", tr("parts"), partsView);
  views_->add("ways", tr("other ways"), makeOthers());
  group_ = new QComboBox(this);
  group_->setObjectName(QStringLiteral("multipleGroup"));
  group_->setAccessibleName(tr("Multiples shown"));
  group_->addItems({tr("as chosen"), tr("of price, trailing"), tr("of the firm, trailing"), tr("of years to come"),
                    tr("of a normal year"), tr("all of them"), tr("how alike they are")});
  views_->addControl(group_);
  fitted_ = new QComboBox(this);
  fitted_->setObjectName(QStringLiteral("multipleFitted"));
  fitted_->setAccessibleName(tr("Multiple fitted across the peers"));
  fitted_->hide();  // but where it says something
  views_->addControl(fitted_);
  connect(fitted_, &QComboBox::currentIndexChanged, this, [this] {
    if (bench_.isOpen()) refresh();
  });
  connect(group_, &QComboBox::currentIndexChanged, this, [this] {
    if (bench_.isOpen()) refresh();
  });
  connect(views_, &SubViews::turned, this, [this] {
    if (bench_.isOpen()) refresh();
  });
}

QWidget* PeersPage::makeSet() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  sentence_ = new PlainLabel(view);
  sentence_->setObjectName(QStringLiteral("peersSentence"));
  sentence_->setWordWrap(true);
  sentence_->setContentsMargins(8, 0, 8, 2);
  layout->addWidget(sentence_);
  auto* bar = new QHBoxLayout;
  bar->setContentsMargins(8, 0, 8, 0);
  auto* why = new PlainLabel(tr("&Reason for the next change"), view);
  reason_ = new QLineEdit(view);
  reason_->setObjectName(QStringLiteral("peerReason"));
  keepAsDraft(bench_, reason_, reason_->objectName());
  reason_->setPlaceholderText(tr("Then press Space on a multiple to take it in or out"));
  why->setBuddy(reason_);
  bar->addWidget(why);
  bar->addWidget(reason_, 1);
  layout->addLayout(bar);
  sets_ = new PeerSetsBar(bench_, view);
  layout->addWidget(sets_);
  connect(reason_, &QLineEdit::textChanged, sets_, [this](const QString& typed) { sets_->setReason(typed.trimmed()); });
  connect(sets_, &PeerSetsBar::reasonUsed, reason_, &QLineEdit::clear);
  multiples_ = new MultiplesBar(bench_, view);
  sets_->add(multiples_->button());
  layout->addWidget(multiples_);
  auto* empty = new EmptyNote(
      bench_,
      tr("No peers yet. A name, a price, shares or a market value and a few figures begin one; a table from a "
         "workbook or a page may be pasted whole."),
      view);
  empty->offer(tr("&Type or paste peers"), Stop::Company, QStringLiteral("market"), QStringLiteral("peers"));
  empty_ = empty;
  layout->addWidget(empty_);
  peers_ = addGrid("peers", tr("Peers and their multiples"));
  peers_->setWidths(84, 0);
  layout->addWidget(peers_);
  effect_ = new PlainLabel(view);
  effect_->setObjectName(QStringLiteral("peerEffect"));
  effect_->setWordWrap(true);
  effect_->setContentsMargins(8, 2, 8, 2);
  layout->addWidget(effect_);
  strips_ = new MultipleStrips(view);
  connectChart(strips_);
  layout->addWidget(strips_);
  without_ = new PlainLabel(view);
  without_->setObjectName(QStringLiteral("multiplesWithoutPeers"));
  without_->setWordWrap(true);
  without_->setContentsMargins(8, 2, 8, 2);
  layout->addWidget(without_);
  layout->addStretch();
  connect(peers_->selectionModel(), &QItemSelectionModel::currentChanged, this, [this] { tellEffect(); });
  connect(peers_, &LedgerView::rowActivated, this, &PeersPage::toggle);
  return view;
}

QWidget* PeersPage::makeImplied() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  layout->addWidget(
      sectionLabel(tr("Statistics over the multiples that count, and what they imply for the subject"), view));
  statistics_ = addGrid("peerStatistics", tr("Statistics and implied value"));
  statistics_->setWidths(66, 0);
  layout->addWidget(statistics_);
  layout->addStretch();
  return view;
}

QWidget* PeersPage::makeRange() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  spread_ = new PlainLabel(view);
  spread_->setObjectName(QStringLiteral("impliedSentence"));
  spread_->setWordWrap(true);
  spread_->setContentsMargins(8, 0, 8, 2);
  layout->addWidget(spread_);
  layout->addWidget(sectionLabel(tr("A point and a range of one's own among them, weighed in Verdict"), view));
  chosen_ = addGrid("peersChosen", tr("The peers' range as chosen"));
  chosen_->setWidths(66, 0);
  layout->addWidget(chosen_);
  takeInputs(chosen_);
  layout->addWidget(sectionLabel(tr("Implied value per share against the price"), view));
  ranges_ = new RangeChart(view);
  connectChart(ranges_);
  layout->addWidget(ranges_);
  layout->addStretch();
  return view;
}

QWidget* PeersPage::makeRatios() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  layout->addWidget(
      sectionLabel(tr("The subject's ratios beside its peers', each of its own last fiscal years"), view));
  ratios_ = addGrid("peerRatios", tr("Ratios beside the peers'"));
  ratios_->setWidths(72, 0);
  layout->addWidget(ratios_);
  layout->addStretch();
  return view;
}

/// Three filed years of the subject, then what its peers are at.
void PeersPage::fillRatios() {
  const services::Snapshot& s = now();
  const int base = s.evaluation->layout().baseColumn();
  const int from = std::max(0, base - 2);
  std::vector<LedgerRow> rows;
  for (const services::PeerRatio& ratio : services::peerRatios(s)) {
    LedgerRow row = yearRow(s, ratio.row, from, base + 1, 0);
    const std::string name = s.model()[ratio.row].name;
    const Kind kind = s.model()[ratio.row].kind;
    LedgerCell count;
    count.words = QString::number(ratio.peers.count);
    row.cells.push_back(count);
    for (const auto& [statistic, figure] :
         {std::pair("low", ratio.peers.low), std::pair("lower quartile", ratio.peers.lowerQuartile),
          std::pair("median", ratio.peers.median), std::pair("upper quartile", ratio.peers.upperQuartile),
          std::pair("high", ratio.peers.high), std::pair("median of two years before", ratio.before[1].median),
          std::pair("median of the year before", ratio.before[0].median)}) {
      row.cells.push_back(figureCell(figure));
      row.cells.back().story = [name, statistic = statistic, figure = figure, kind](const services::Snapshot& of) {
        return services::peerSpreadStory(of, name, statistic, figure, kind);
      };
    }
    row.cells.push_back(figureCell(ratio.apart));
    row.cells.back().story = [name, figure = ratio.apart, kind](const services::Snapshot& of) {
      return services::peerSpreadStory(of, name, "median, the subject less it", figure, kind);
    };
    row.cells.push_back(wordsCell(text(ratio.judged), tr("beyond the quartile, by the ratio's own direction")));
    rows.push_back(std::move(row));
  }
  ratios_->ledger().setCorner(cornerOf(s));
  ratios_->ledger().fill(periodHeaders(s, from, base + 1) << tr("peers") << tr("low") << tr("quartile") << tr("median")
                                                          << tr("quartile") << tr("high") << tr("median −2")
                                                          << tr("median −1") << tr("less median") << tr("than them"),
                         std::move(rows));
  ratios_->showAll();
}

QWidget* PeersPage::makeOthers() {
  auto* view = new QWidget(views_);
  QVBoxLayout* layout = scrolledLayout(view);
  LedgerView* values = addGrid("peersOtherValues", tr("Another way by scenario"));
  LedgerView* years = addGrid("peersOtherYears", tr("Another way by year"));
  LedgerView* payments = addGrid("peersOtherFurther", tr("Further figures of another way"));
  const auto words = [](const QString& remark) { return [remark](std::vector<LedgerRow>&) { return remark; }; };
  others_ = new OtherWays(
      "peersWay", bench_, values, years,
      {{"dividends", tr("Dividends"), "dividends", "dividend_years",
        [this](std::vector<LedgerRow>&) {
          return tr("What is paid out, at the cost of equity: at constant growth, in stages, or with growth that "
                    "fades. %1")
              .arg(text(services::dividendView(now()).words));
        },
        [this](LedgerView& grid) { return fillPayments(now(), grid); }},
       {"growth", tr("Growth multiple"), "growth_multiple", nullptr,
        words(tr("Earnings times a multiple that grows with growth, by the bond yield then over the yield now."))},
       {"yields", tr("Yields beside bonds"), "yields", nullptr,
        words(tr("What a year brings over the price, beside what high-grade bonds yield."))},
       {"justified", tr("Justified multiples"), "justified", nullptr,
        words(tr("What growth, payout and return justify, beside where the subject and its peers stand."))},
       {"book", tr("Excess return on book"), "excess_book", "excess_book_years",
        words(tr("Book, and what it earns beyond its cost: for companies whose book tells what they are."))},
       {"ownPast", tr("Own past multiple"), "past_method", nullptr,
        words(tr("One of the past multiples as a method of its own: typed here, or adopted in past."))},
       {"normalYear", tr("A normal year"), "normal_year", nullptr,
        words(
            tr("What multiples of a normal year are of: revenue of the base year at the margin typed, at 0 the mean of "
               "the last five regular years."))},
       {"outside", tr("Sectors, deals, others"), "", nullptr,
        [this](std::vector<LedgerRow>&) { return outsideWords(now()); },
        [this](LedgerView& grid) {
          std::vector<LedgerRow> rows = outsideRows(now());
          if (rows.empty()) return false;
          grid.ledger().setCorner({});
          grid.ledger().fill(outsideHeaders(now()), std::move(rows));
          return true;
        }}},
      view, payments);
  layout->addWidget(others_);
  takeInputs(values);
  return view;
}

void PeersPage::refresh() {
  const bool ofMultiples = views_->shown() == QLatin1String("set") || views_->shown() == QLatin1String("implied") ||
                           views_->shown() == QLatin1String("range");
  group_->setVisible(ofMultiples);
  fitted_->setVisible(views_->shown() == QLatin1String("why"));
  alike_ = group_->currentIndex() == group_->count() - 1;
  shown_ = services::multiplesOf(
      now(), alike_ ? services::MultipleGroup::Chosen : static_cast<services::MultipleGroup>(group_->currentIndex()));
  if (views_->shown() == QLatin1String("past")) return past_->refresh();
  if (views_->shown() == QLatin1String("why")) return why_->refresh(fittedMultiple());
  if (views_->shown() == QLatin1String("sumOfParts")) return parts_->refresh();
  if (views_->shown() == QLatin1String("ratios")) return fillRatios();
  if (views_->shown() == QLatin1String("exit")) return exit_->refresh();
  if (views_->shown() == QLatin1String("ways")) return others_->refresh();
  empty_->setVisible(now().crossCheck.rows.empty());
  if (views_->shown() == QLatin1String("implied")) return fillStatistics();
  if (views_->shown() == QLatin1String("range")) return fillRange();
  sentence_->setText(text(services::impliedWords(now())));
  sets_->refresh(shown_);
  multiples_->refresh();
  alike_ ? fillLikeness() : fillPeers();
  fillStrips();
  tellEffect();
}

/// The one that the list stands on; the list has the multiples of the model in use.
Multiple PeersPage::fittedMultiple() {
  const std::vector<Multiple>& multiples = now().crossCheck.multiples;
  const int stood = std::max(0, fitted_->currentIndex());
  const QSignalBlocker quiet(fitted_);
  QStringList labels;
  for (const Multiple m : multiples) labels << text(multipleLabel(m));
  QStringList there;
  for (int i = 0; i < fitted_->count(); ++i) there << fitted_->itemText(i);
  if (there != labels) {
    fitted_->clear();
    fitted_->addItems(labels);
  }
  fitted_->setCurrentIndex(std::min(stood, fitted_->count() - 1));
  return multiples[static_cast<size_t>(std::max(0, fitted_->currentIndex()))];
}

void PeersPage::fillPeers() {
  const services::Snapshot& s = now();
  std::vector<LedgerRow> rows;
  for (const PeerRow& peer : s.crossCheck.rows) {
    LedgerRow row;
    row.label = text(peer.name);
    row.key = text(peer.id);
    row.kind = Kind::Multiple;
    LedgerCell size;
    size.words = shownText(peer.revenue, Kind::Money) + (peer.outOfScale ? QStringLiteral(" ⚠") : QString());
    size.tip = peer.revenue.hasValue() ? (peer.outOfScale ? tr("more than %1 times away from the subject's revenue")
                                                                .arg(text(plainNumber(s.crossCheck.subject.scaleLimit)))
                                                          : QString())
                                       : text(peer.revenue.reason());
    size.figure = peer.revenue;
    size.story = [id = peer.id](const services::Snapshot& of) { return services::peerRevenueStory(of, id); };
    row.cells.push_back(size);
    for (const Multiple m : shown_) {
      const MultipleCell& c = peer.cells.at(m);
      LedgerCell figure;
      const std::string shown = figureText(c.multiple, Kind::Multiple);
      figure.words = text(shown) + (c.in ? QStringLiteral("  ●") : QStringLiteral("  ○")) +
                     (c.outlier ? QStringLiteral("!") : QString());
      figure.figure = c.multiple;
      figure.struck = !c.in && c.multiple.hasValue();
      figure.ink = c.byHand ? Ink::Assumed : Ink::Derived;
      figure.tip = c.in ? tr("counts%1").arg(c.reason().empty() ? QString() : QStringLiteral(": ") + text(c.reason()))
                        : tr("left out: %1").arg(text(c.reason().empty() ? "by hand, no reason given" : c.reason()));
      figure.story = [id = peer.id, m](const services::Snapshot& of) { return services::multipleStory(of, id, m); };
      row.cells.push_back(figure);
    }
    rows.push_back(std::move(row));
  }
  QStringList headers{tr("revenue, %1 m").arg(text(s.company().currency))};
  for (const Multiple m : shown_) headers << text(ruleOf(m).mark);
  peers_->ledger().fill(headers, std::move(rows));
  peers_->showAll();
}

/// Each peer's size and measures beside the subject's; what is beyond its limit is marked.
void PeersPage::fillLikeness() {
  const services::Snapshot& s = now();
  std::vector<LedgerRow> rows;
  for (const services::Likeness& peer : services::likenessOfPeers(s)) {
    LedgerRow row;
    row.label = text(peer.name);
    row.key = text(peer.id);
    const auto add = [&](const Figure& figure, Kind kind, bool unlike, const std::string& measure) {
      LedgerCell cell = figureCell(figure);
      if (figure.hasValue()) {
        const QString mark = unlike ? QStringLiteral(" ⚠") : QString();
        cell.words = text(figureText(figure, kind)) + mark;
        if (unlike) cell.tip = tr("beyond its limit, which Verdict keeps");
      }
      cell.story = [id = peer.id, measure, figure, kind](const services::Snapshot& of) {
        return services::likenessStory(of, id, measure, figure, kind);
      };
      row.cells.push_back(std::move(cell));
    };
    add(peer.size, Kind::Multiple, peer.unlike[0], {});
    for (size_t k = 0; k < peer.apart.size(); ++k) {
      const LikenessRule& rule = likenessRules()[k];
      add(peer.apart[k], std::string_view(rule.words) == "leverage" ? Kind::Multiple : Kind::Ratio, peer.unlike[k + 1],
          rule.mix != nullptr ? rule.words : rule.measure);
    }
    row.cells.push_back(wordsCell(text(peer.identity)));
    rows.push_back(std::move(row));
  }
  peers_->ledger().fill(
      {tr("times the revenue"), tr("growth, points"), tr("margin, points"), tr("return, points"), tr("leverage, turns"),
       tr("other regions, %"), tr("other businesses, %"), tr("what and where")},
      std::move(rows));
  peers_->showAll();
}

void PeersPage::fillStrips() {
  const services::Snapshot& s = now();
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  std::vector<MultipleStrip> strips;
  QStringList without;
  for (const Multiple m : shown_) {
    MultipleStrip strip;
    strip.label = text(multipleLabel(m));
    for (const PeerRow& peer : s.crossCheck.rows) {
      const MultipleCell& c = peer.cells.at(m);
      if (!c.multiple.hasValue() || peer.id == s.company().id) continue;
      strip.peers.push_back(
          {c.multiple.value(),
           c.in,
           text(peer.name + " " + figureText(c.multiple, Kind::Multiple)),
           {{}, -1, [id = peer.id, m](const services::Snapshot& of) { return services::multipleStory(of, id, m); }}});
    }
    if (strip.peers.empty()) {  // a strip with nobody on it says nothing
      without << strip.label;
      continue;
    }
    const MultipleStatistics& st = s.crossCheck.statistics.at(m);
    const auto of = [](const Figure& f) { return f.hasValue() ? std::optional(f.value()) : std::nullopt; };
    strip.lowerQuartile = of(st.lowerQuartile);
    strip.median = of(st.median);
    strip.upperQuartile = of(st.upperQuartile);
    const services::Position position = services::positionOf(s, m);
    if (position.own.hasValue()) {
      strip.subject = StripMark{position.own.value(),
                                true,
                                text(s.company().name + " " + figureText(position.own, Kind::Multiple)),
                                {model::Cell{ownMultipleRow(s.model(), m), 0}, base, {}}};
    }
    strip.words =
        !st.median.hasValue() ? text("no peer counts")
        : position.own.hasValue()
            ? tr("median %1, subject %2")
                  .arg(text(figureText(st.median, Kind::Multiple)), text(figureText(position.own, Kind::Multiple)))
            : tr("median %1; %2").arg(text(figureText(st.median, Kind::Multiple)), text(position.own.reason()));
    strips.push_back(std::move(strip));
  }
  strips_->setVisible(!strips.empty());
  strips_->setStrips(std::move(strips));
  without_->setVisible(!without.isEmpty() && !s.crossCheck.rows.empty());
  without_->setText(tr("No peer has a figure of %1.").arg(without.join(QStringLiteral("; "))));
}

/// What the cell under the cursor would do the other way, before it is done.
void PeersPage::tellEffect() {
  const services::Snapshot& s = now();
  const QModelIndex at = peers_->currentIndex();
  const int column = at.column() - peers_->ledger().firstColumn();
  QString words;
  if (at.isValid() && column < 1 && at.row() < static_cast<int>(s.crossCheck.rows.size())) {
    const PeerRow& peer = s.crossCheck.rows[static_cast<size_t>(at.row())];
    QStringList parts{text(peer.name), text(services::peerIdentity(s.company(), peer))};
    parts << text(peer.remark);
    parts.removeAll(QString());
    words = parts.join(QStringLiteral(" · "));
  }
  if (!alike_ && at.isValid() && column >= 1 && column <= static_cast<int>(shown_.size()) && !bench_.isPreviewing() &&
      at.row() < static_cast<int>(s.crossCheck.rows.size())) {
    const PeerRow& peer = s.crossCheck.rows[static_cast<size_t>(at.row())];
    const Multiple m = shown_[static_cast<size_t>(column) - 1];
    const auto quote = [](const Figure& f) {
      return f.hasValue() ? text(figureText(f, Kind::Quote)) : text(f.reason());
    };
    const auto times = [](const Figure& f) {
      return f.hasValue() ? text(figureText(f, Kind::Multiple)) : text(f.reason());
    };
    if (const auto effect = services::effectOf(s, peer.id, m)) {
      words =
          tr("%1, %2: %3. %4 the median would be %5 instead of %6, and the value it implies %7 instead of %8. Space "
             "does it.")
              .arg(text(peer.name), text(multipleLabel(m)),
                   (effect->in ? tr("counts") : tr("left out")) +
                       (peer.cells.at(m).reason().empty() ? QString()
                                                          : tr(" (%1)").arg(text(peer.cells.at(m).reason()))),
                   effect->in ? tr("Without it") : tr("With it"), times(effect->medianThen), times(effect->median),
                   quote(effect->impliedThen), quote(effect->implied));
    } else {
      words =
          tr("%1, %2 cannot count: %3").arg(text(peer.name), text(multipleLabel(m)), text(peer.cells.at(m).reason()));
    }
  }
  effect_->setText(words);
}

void PeersPage::fillStatistics() {
  const services::Snapshot& s = now();
  const QString unit = text(s.company().listing.unit);
  std::vector<LedgerRow> rows;
  const int base = std::max(0, s.caseOf().indexOf(kBase));
  for (const Multiple m : shown_) {
    const MultipleStatistics& st = s.crossCheck.statistics.at(m);
    LedgerRow multiples;
    multiples.label = text(multipleLabel(m));
    multiples.unit = QStringLiteral("×");
    multiples.kind = Kind::Multiple;
    LedgerCell count;
    count.words = QString::number(st.count);
    multiples.cells.push_back(count);
    struct Column {
      const char* what;
      const Figure* multiple;
    };
    const Column columns[] = {
        {"low", &st.low},   {"lower quartile", &st.lowerQuartile}, {"median", &st.median},
        {"mean", &st.mean}, {"harmonic mean", &st.harmonicMean},   {"upper quartile", &st.upperQuartile},
        {"high", &st.high}};
    for (const Column& column : columns) {
      multiples.cells.push_back(figureCell(*column.multiple));
      multiples.cells.back().story = [m, column, figure = *column.multiple](const services::Snapshot& of) {
        return services::multipleStatisticStory(of, m, column.what, figure);
      };
    }
    const services::Position position = services::positionOf(s, m);
    LedgerCell own = figureCell(position.own);
    own.source = model::Cell{ownMultipleRow(s.model(), m), 0};
    own.scenario = base;
    multiples.cells.push_back(own);
    LedgerCell place = figureCell(position.percentile);
    place.words = position.percentile.hasValue()
                      ? text(figureText(position.percentile, Kind::Ratio)) + QStringLiteral(" %")
                      : QStringLiteral("·");
    place.story = [m, position](const services::Snapshot& of) {
      return services::positionStory(of, m, position.percentile);
    };
    multiples.cells.push_back(place);
    rows.push_back(std::move(multiples));
    LedgerRow value;
    value.label = tr("  implied value per share");
    value.unit = unit;
    value.kind = Kind::Quote;
    value.strong = true;
    LedgerCell none;
    none.words = QString();
    value.cells.push_back(none);
    for (const Column& column : columns) {
      // None where the model values nothing by the statistic.
      const model::RowId row = s.model().peerRow(model::Declared::Row, multipleName(m), column.what);
      if (!row.known()) {
        value.cells.push_back(none);
        continue;
      }
      value.cells.push_back(figureCell(s.evaluation->constant(row, base)));
      value.cells.back().source = model::Cell{row, 0};
      value.cells.back().scenario = base;
    }
    value.cells.push_back(none);
    value.cells.push_back(none);
    rows.push_back(std::move(value));
    LedgerRow firm;
    firm.label = tr("  implied enterprise value");
    firm.kind = Kind::Money;
    firm.cells.push_back(none);
    for (const Column& column : columns) {
      if (!s.model().peerRow(model::Declared::Row, multipleName(m), column.what).known()) {
        firm.cells.push_back(none);
        continue;
      }
      const Figure whole = services::impliedEnterprise(*s.evaluation, m, column.what, base);
      firm.cells.push_back(figureCell(whole));
      firm.cells.back().story = [m, what = std::string(column.what), whole](const services::Snapshot& of) {
        return services::impliedEnterpriseStory(of, m, what, whole);
      };
    }
    firm.cells.push_back(none);
    firm.cells.push_back(none);
    rows.push_back(std::move(firm));
  }
  for (LedgerRow& row :
       yearRows(s, "peer_metrics", s.evaluation->layout().baseColumn(), s.evaluation->layout().historyYears, base)) {
    row.label = tr("subject: %1, %2").arg(row.label, text(s.periodOf(s.evaluation->layout().baseColumn())));
    rows.push_back(std::move(row));
  }
  statistics_->ledger().setCorner(cornerOf(s));
  statistics_->ledger().fill({tr("count"), tr("low"), tr("quartile"), tr("median"), tr("mean"), tr("harmonic"),
                              tr("quartile"), tr("high"), tr("subject"), tr("its place")},
                             std::move(rows));
  statistics_->showAll();
}

void PeersPage::fillRange() {
  const services::Snapshot& s = now();
  spread_->setText(text(services::impliedWords(s)));
  chosen_->ledger().setCorner(cornerOf(s));
  chosen_->ledger().fill(scenarioHeaders(s), scenarioRows(s, "peers_chosen"));
  chosen_->showAll();
  ranges_->setContent(rangesOfMultiples(s, shown_), rangeMark(s, model::Role::Price), std::nullopt,
                      text(s.company().listing.unit));
}

void PeersPage::toggle(int row, int column) {
  const services::Snapshot& s = bench_.settled();
  if (row < 0 || row >= static_cast<int>(s.crossCheck.rows.size())) return;
  const PeerRow& peer = s.crossCheck.rows[static_cast<size_t>(row)];
  if (alike_ || column < 1 || column > static_cast<int>(shown_.size())) return;
  const Multiple m = shown_[static_cast<size_t>(column) - 1];
  const MultipleCell& cell = peer.cells.at(m);
  if (!cell.multiple.hasValue() || peer.id == s.company().id) {
    bench_.say(tr("%1 cannot count: %2").arg(text(peer.name), text(cell.reason())), true);
    return;
  }
  const std::string label = (cell.in ? "Take out " : "Take in ") + peer.name + ", " + multipleLabel(m);
  bench_.apply(services::setPeerChoice(s.caseOf(), peerChoiceKey(peer.id, m), label,
                                       PeerChoice{!cell.in, reason_->text().trimmed().toStdString()}));
  reason_->clear();
}

}  // namespace zl::app
