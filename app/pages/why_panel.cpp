#include "app/pages/why_panel.h"

#include <QVBoxLayout>
#include <cmath>

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "app/pages/page.h"
#include "core/quantity/number_text.h"
#include "services/stories/why_stories.h"

namespace zl::app {
namespace {

/// A difference of logarithms as the share that a multiple is more or less by.
Figure asShare(const Figure& log) {
  return log.hasValue() ? Figure::of(std::exp(log.value()) - 1) : log;
}

}  // namespace

WhyPanel::WhyPanel(Workbench& bench, LedgerView* grounds, LedgerView* fit, QWidget* parent)
    : QWidget(parent), bench_(bench), grounds_(grounds), fit_(fit) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  const auto label = [&](const char* name) {
    auto* words = new PlainLabel(this);
    words->setObjectName(QString::fromLatin1(name));
    words->setWordWrap(true);
    words->setContentsMargins(8, 0, 8, 4);
    return words;
  };
  words_ = label("whyWords");
  layout->addWidget(words_);
  grounds_->setWidths(84, 0);
  layout->addWidget(grounds_);
  layout->addWidget(sectionLabel(tr("Fitted across the peers that count"), this));
  fitWords_ = label("fitWords");
  layout->addWidget(fitWords_);
  fit_->setWidths(84, 0);
  layout->addWidget(fit_);
  layout->addStretch();
}

void WhyPanel::refresh(Multiple m) {
  if (bench_.isPreviewing()) return;  // nothing of it is read under a hand
  fillGrounds();
  fillFit(m);
}

void WhyPanel::fillGrounds() {
  const services::Snapshot& s = bench_.now();
  const services::WhyDiffers why = services::whyDiffers(s);
  const QString names[] = {tr("Growth"), tr("Payout"), tr("Return on equity"), tr("Required return")};
  std::vector<LedgerRow> rows;
  for (size_t i = 0; i < why.grounds.size(); ++i) {
    const services::GroundOfGap& of = why.grounds[i];
    LedgerRow row;
    row.label = names[i];
    row.unit = QStringLiteral("%");
    row.kind = Kind::Ratio;
    const auto add = [&](const Figure& figure, const QString& what) {
      row.cells.push_back(figureCell(figure));
      row.cells.back().story = [why, i, figure, label = (names[i] + QStringLiteral(", ") + what).toStdString()](
                                   const services::Snapshot& shown) {
        return services::groundStory(shown, why, i, label, figure, Kind::Ratio);
      };
    };
    add(of.here, tr("the subject's"));
    row.cells.back().source = model::Cell{of.row, 0};
    row.cells.back().scenario = std::max(0, s.caseOf().indexOf(kBase));
    add(of.there, tr("the peers' median"));
    LedgerCell count;
    count.words = QString::number(of.count);
    count.quiet = true;
    row.cells.push_back(count);
    add(asShare(of.part), tr("its part of the gap"));
    rows.push_back(std::move(row));
  }
  const auto closing = [&](const QString& name, const Figure& share, const Figure& here, const Figure& there) {
    LedgerRow row;
    row.label = name;
    row.kind = Kind::Multiple;
    row.strong = true;
    const auto add = [&](const Figure& figure, Kind kind) {
      row.cells.push_back(figureCell(figure));
      if (kind == Kind::Ratio && figure.hasValue()) row.cells.back().words = text(figureText(figure, kind));
      row.cells.back().story = [why, figure, kind, label = name.toStdString()](const services::Snapshot& shown) {
        return services::gapStory(shown, why, label, figure, kind);
      };
    };
    add(here, Kind::Multiple);
    add(there, Kind::Multiple);
    row.cells.emplace_back();
    add(share, Kind::Ratio);
    rows.push_back(std::move(row));
  };
  closing(tr("Multiple that they justify"), asShare(why.gap.whole - why.gap.unexplained), why.gap.justifiedHere,
          why.gap.justifiedThere);
  closing(text(multipleLabel(why.multiple)), asShare(why.gap.whole), why.own, why.peers);
  closing(tr("Not explained"), asShare(why.gap.unexplained), Figure::absent("of the gap alone"),
          Figure::absent("of the gap alone"));
  words_->setText(why.words.empty() ? tr("There is no gap to share out: %1.").arg(text(why.gap.unexplained.reason()))
                                    : text(why.words));
  grounds_->ledger().fill({tr("subject"), tr("peers"), tr("of them"), tr("makes, %")}, std::move(rows));
  grounds_->showAll();
}

void WhyPanel::fillFit(Multiple m) {
  const services::Snapshot& s = bench_.now();
  const MultipleFit fit = services::fitAcrossPeers(s, m);
  const std::array<std::string, 3> traits = services::traitsOf(m);
  std::vector<LedgerRow> rows;
  for (const FittedPeer& peer : fit.peers) {
    LedgerRow row;
    row.label = text(peer.name);
    row.kind = Kind::Multiple;
    const auto add = [&](const Figure& figure, Kind kind, const std::string& what) {
      row.cells.push_back(figureCell(figure));
      if (kind == Kind::Ratio && figure.hasValue()) row.cells.back().words = text(figureText(figure, kind));
      row.cells.back().story = [m, fit, figure, kind, label = peer.name + ", " + what,
                                id = peer.id](const services::Snapshot& shown) {
        return services::fitStory(shown, m, fit, label, figure, kind, id);
      };
    };
    for (size_t k = 0; k < traits.size(); ++k) add(peer.traits[k], Kind::Ratio, traits[k]);
    add(peer.multiple, Kind::Multiple, multipleLabel(m));
    add(peer.fitted, Kind::Multiple, "fitted");
    add(peer.residual, Kind::Multiple, "beyond the fit");
    rows.push_back(std::move(row));
  }
  QString words = tr("%1 has no fit: %2.").arg(text(multipleLabel(m)), text(fit.intercept.reason()));
  if (fit.intercept.hasValue()) {
    const auto times = [](const Figure& f) {
      return f.hasValue() ? text(groupedNumber(f.value(), 2, false)) : text(f.reason());
    };
    words = tr("%1 over %2 peers: growth, margin and return tell %3 % of its spread, adjusted %4 %; a point more of "
               "each moves it by %5, %6 and %7.")
                .arg(text(multipleLabel(m)))
                .arg(fit.count)
                .arg(text(figureText(fit.rSquared, Kind::Ratio)), text(figureText(fit.adjusted, Kind::Ratio)))
                .arg(times(fit.slopes[0] * Figure::of(0.01)), times(fit.slopes[1] * Figure::of(0.01)),
                     times(fit.slopes[2] * Figure::of(0.01)));
    words +=
        fit.subjects.hasValue()
            ? tr(" The subject would be at %1, give or take %2.").arg(times(fit.subjects), times(fit.standardError))
            : tr(" The subject has none: %1.").arg(text(fit.subjects.reason()));
  }
  fitWords_->setText(words);
  fit_->setVisible(!rows.empty());
  fit_->ledger().fill(
      {tr("growth, %"), tr("margin, %"), tr("return, %"), text(ruleOf(m).mark), tr("fitted"), tr("beyond it")},
      std::move(rows));
  fit_->showAll();
}

}  // namespace zl::app
