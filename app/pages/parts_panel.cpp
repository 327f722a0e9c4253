#include "app/pages/parts_panel.h"

#include <QVBoxLayout>

#include "app/grid/ledger_rows.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/edits/peer_edits.h"
#include "services/stories/parts_stories.h"

namespace zl::app {
namespace {

constexpr int kOfColumn = 2, kMultipleColumn = 3, kPeersColumn = 4;

QStringList metricNames() {
  return {PartsPanel::tr("profit"), PartsPanel::tr("revenue")};
}

}  // namespace

PartsPanel::PartsPanel(Workbench& bench, LedgerView* parts, LedgerView* share, QWidget* parent)
    : QWidget(parent), bench_(bench), parts_(parts), share_(share) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  words_ = new PlainLabel(this);
  words_->setObjectName(QStringLiteral("partsWords"));
  words_->setWordWrap(true);
  words_->setContentsMargins(8, 0, 8, 4);
  layout->addWidget(words_);
  parts_->setWidths(80, 0);
  layout->addWidget(parts_);
  share_->setWidths(66, 0);
  layout->addWidget(share_);
  layout->addStretch();
  connect(&parts_->ledger(), &LedgerModel::typed, this, &PartsPanel::typed);
  connect(parts_, &LedgerView::rowActivated, this, &PartsPanel::take);
}

void PartsPanel::refresh() {
  if (bench_.isPreviewing()) return;  // what is filed does not move under a hand
  const services::Snapshot& s = bench_.now();
  shown_ = services::partsView(s);
  words_->setText(text(shown_.words));
  const bool any = !shown_.cut.parts.empty();
  parts_->setVisible(any);
  share_->setVisible(any);
  if (!any) return;
  fillParts();
  share_->ledger().setCorner(cornerOf(s));
  share_->ledger().fill(scenarioHeaders(s), scenarioRows(s, "parts"));
  share_->showAll();
}

std::string PartsPanel::keyOf(int row) const {
  const auto at = static_cast<size_t>(std::max(0, row));
  if (at < shown_.cut.keys.size()) return shown_.cut.keys[at];
  return at == shown_.cut.keys.size() ? std::string(kUnallocated) : std::string();
}

std::optional<PartChoice> PartsPanel::chosen(const std::string& key) const {
  const auto& parts = bench_.settled().caseOf().parts;
  const auto found = parts.find(key);
  return found == parts.end() ? std::nullopt : std::optional(found->second);
}

void PartsPanel::fillParts() {
  const services::Snapshot& s = bench_.now();
  std::vector<LedgerRow> rows;
  const auto told = [&](const Figure& figure, Kind kind, size_t at, const QString& name) {
    LedgerCell cell = figureCell(figure);
    if (kind == Kind::Multiple && figure.hasValue()) cell.words = text(figureText(figure, kind));
    if (kind == Kind::Ratio && figure.hasValue()) cell.words = text(figureText(figure, kind)) + QStringLiteral(" %");
    cell.story = [view = shown_, at, figure, kind, label = name.toStdString()](const services::Snapshot& of) {
      return services::partStory(of, view, at, label, figure, kind);
    };
    return cell;
  };
  const size_t count = shown_.sum.parts.size();
  for (size_t i = 0; i <= count; ++i) {
    const bool isPart = i < count;
    const std::optional<PartChoice> choice = chosen(keyOf(static_cast<int>(i)));
    const bool ofProfit = !choice || choice->of == PartChoice::Of::Ebit;
    LedgerRow row;
    row.label = isPart ? text(shown_.sum.parts[i].part.label) : tr("Costs of no part");
    row.kind = Kind::Money;
    row.choices = metricNames();
    const auto name = [&](const QString& what) { return row.label + QStringLiteral(", ") + what; };
    const ValuedPart* v = isPart ? &shown_.sum.parts[i] : nullptr;
    row.cells.push_back(isPart ? told(v->part.revenue, Kind::Money, i, name(tr("revenue"))) : LedgerCell{});
    row.cells.push_back(told(isPart ? v->part.profit : shown_.sum.unallocated, Kind::Money, i, name(tr("profit"))));
    LedgerCell of = wordsCell(ofProfit ? metricNames()[0] : metricNames()[1]);
    of.left = false;
    of.editable = of.chooses = isPart;
    of.quiet = !choice;
    of.ink = Ink::Assumed;
    row.cells.push_back(of);
    LedgerCell multiple = told(choice ? Figure::of(choice->multiple) : Figure::absent("type a multiple"),
                               Kind::Multiple, i, name(tr("multiple")));
    multiple.editable = true;
    multiple.ink = Ink::Assumed;
    multiple.tip = tr("Type a multiple; an empty cell takes it away");
    row.cells.push_back(multiple);
    LedgerCell peers =
        told(ofProfit ? shown_.byProfit : shown_.byRevenue, Kind::Multiple, i, name(tr("peers' median")));
    peers.tip = tr("Enter takes it");
    row.cells.push_back(peers);
    row.cells.push_back(told(isPart ? v->value : -shown_.sum.unallocatedValue, Kind::Money, i, name(tr("worth"))));
    row.cells.push_back(isPart ? told(v->share, Kind::Ratio, i, name(tr("share of all"))) : LedgerCell{});
    rows.push_back(std::move(row));
  }
  LedgerRow sum;
  sum.label = tr("Together");
  sum.kind = Kind::Money;
  sum.strong = true;
  sum.cells.resize(kPeersColumn + 1);
  sum.cells.push_back(told(shown_.sum.enterprise, Kind::Money, count, sum.label));
  sum.cells.emplace_back();
  rows.push_back(std::move(sum));
  parts_->ledger().setCorner(cornerOf(s));
  parts_->ledger().fill(
      {tr("revenue"), tr("profit"), tr("valued by"), tr("multiple"), tr("peers' median"), tr("worth"), tr("of all")},
      std::move(rows));
  parts_->showAll();
}

void PartsPanel::say(int row, PartChoice choice) {
  const std::string label = parts_->ledger().ledgerRows()[static_cast<size_t>(row)].label.toStdString();
  bench_.apply(services::setPart(bench_.settled().caseOf(), keyOf(row), label, std::move(choice)));
}

void PartsPanel::typed(int row, int column, const QString& typed) {
  const std::string key = keyOf(row);
  if (key.empty()) return;
  std::optional<PartChoice> choice = chosen(key);
  if (column == kOfColumn) {
    const auto revenue = typed.trimmed().compare(metricNames()[1], Qt::CaseInsensitive) == 0;
    // What was a multiple of profit is none of revenue: the peers' is offered, and the old one is not kept in silence.
    const Figure median = revenue ? shown_.byRevenue : shown_.byProfit;
    if (!median.hasValue())
      return bench_.say(tr("The peers have no multiple of it to begin with: take this one away and type another"),
                        true);
    PartChoice next;
    next.of = revenue ? PartChoice::Of::Revenue : PartChoice::Of::Ebit;
    next.multiple = median.value();
    next.said = bench_.saidNow(tr("the peers' median, to begin with"));
    return say(row, next);
  }
  if (column != kMultipleColumn) return;
  if (typed.trimmed().isEmpty()) {
    const std::string label = parts_->ledger().ledgerRows()[static_cast<size_t>(row)].label.toStdString();
    bench_.apply(services::setPart(bench_.settled().caseOf(), key, label, std::nullopt));
    return;
  }
  const std::optional<double> figure = typedFigure(typed.toStdString(), Kind::Multiple);
  if (!figure) return bench_.say(tr("'%1' is not a number; the multiple stays").arg(typed.left(40)), true);
  PartChoice next = choice.value_or(PartChoice{});
  next.multiple = *figure;
  next.said = bench_.saidNow(QString());
  say(row, next);
}

void PartsPanel::take(int row, int column) {
  const std::string key = keyOf(row);
  if (key.empty() || column != kPeersColumn) return;
  PartChoice next = chosen(key).value_or(PartChoice{});
  const Figure median = next.of == PartChoice::Of::Ebit ? shown_.byProfit : shown_.byRevenue;
  if (!median.hasValue()) return bench_.say(tr("There is no median to take: %1").arg(text(median.reason())), true);
  next.multiple = median.value();
  next.said = bench_.saidNow(tr("the peers' median"));
  say(row, next);
}

}  // namespace zl::app
