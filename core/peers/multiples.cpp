#include "core/peers/multiples.h"

#include <algorithm>
#include <deque>
#include <mutex>

#include "core/peers/peer.h"

namespace zl {
namespace {

/// Why there is no figure of a column, made once each: tables that lack one lack it of every year.
const Figure& lackOf(Figure PeerYear::*column) {
  static const std::vector<Figure> kLacks = [] {
    std::vector<Figure> lacks;
    for (const PeerColumn& c : kPeerColumns)
      lacks.push_back(Figure::absent(std::string("the peer table does not give ") + c.name));
    return lacks;
  }();
  const auto* found = std::find_if(std::begin(kPeerColumns), std::end(kPeerColumns),
                                   [&](const PeerColumn& c) { return c.figure == column; });
  return kLacks[static_cast<size_t>(found - std::begin(kPeerColumns))];
}

const Figure& given(const PeerYear& year, Figure PeerYear::*column) {
  return (year.*column).isAbsent() ? lackOf(column) : year.*column;
}

Figure earnings(const MeasureBasis&, const Peer&, const PeerYear& y) {
  return given(y, &PeerYear::netIncome);
}
Figure sales(const MeasureBasis&, const Peer&, const PeerYear& y) {
  return given(y, &PeerYear::revenue);
}
Figure book(const MeasureBasis&, const Peer&, const PeerYear& y) {
  return given(y, &PeerYear::equity);
}
Figure tangibleBook(const MeasureBasis&, const Peer&, const PeerYear& y) {
  return given(y, &PeerYear::equity) - given(y, &PeerYear::intangibles);
}
Figure operatingCash(const MeasureBasis&, const Peer&, const PeerYear& y) {
  return given(y, &PeerYear::operatingCashFlow);
}
Figure freeCash(const MeasureBasis&, const Peer&, const PeerYear& y) {
  return given(y, &PeerYear::operatingCashFlow) - given(y, &PeerYear::capex);
}
Figure ebitda(const MeasureBasis& basis, const Peer& peer, const PeerYear& y) {
  return ebitdaOn(basis, peer, y);
}
Figure ebit(const MeasureBasis& basis, const Peer& peer, const PeerYear& y) {
  return ebitOn(basis, peer, y);
}
Figure nopat(const MeasureBasis& basis, const Peer& peer, const PeerYear& y) {
  const Figure change = ebitOn(basis, peer, y) - y.ebit;  // what the basis adds bears no tax
  return given(y, &PeerYear::nopat) + change;
}
/// The financing side of the last balance sheet, at book.
Figure capital(const MeasureBasis& basis, const Peer& peer, const PeerYear& y) {
  const Figure leases = basis.leasesAsDebt ? peer.leases : Figure::of(0);
  return given(y, &PeerYear::equity) + peer.debt + leases + peer.preferred + peer.minorities + peer.pension -
         peer.cash - peer.associates;
}

using Of = MultipleRule::Of;
using M = Multiple;

/// One kind of multiple over the years that it is taken of.
struct Written {
  M multiple;
  const char *id, *name, *label, *what, *mark;
  bool ofFirm;
  Of of;
  decltype(PeerMetric::measure) measure;
  bool balance = false;
};

constexpr Written kWritten[] = {
    {M::PriceToEarnings, "price-earnings", "price_to_earnings", "Price to earnings", "earnings", "P/E", false,
     Of::Trailing, earnings},
    {M::EvToEbitda, "ev-ebitda", "ev_to_ebitda", "EV to EBITDA", "EBITDA", "EV/EBITDA", true, Of::Trailing, ebitda},
    {M::PriceToSales, "price-sales", "price_to_sales", "Price to sales", "sales", "P/sales", false, Of::Trailing,
     sales},
    {M::PriceToBook, "price-book", "price_to_book", "Price to book", "book", "P/book", false, Of::Trailing, book, true},
    {M::PriceToTangibleBook, "price-tangible-book", "price_to_tangible_book", "Price to tangible book", "tangible book",
     "P/tangible", false, Of::Trailing, tangibleBook, true},
    {M::PriceToOperatingCash, "price-operating-cash", "price_to_operating_cash", "Price to operating cash",
     "operating cash flow", "P/op. cash", false, Of::Trailing, operatingCash},
    {M::PriceToFreeCash, "price-free-cash", "price_to_free_cash", "Price to free cash", "free cash flow", "P/free cash",
     false, Of::Trailing, freeCash},
    {M::EvToSales, "ev-sales", "ev_to_sales", "EV to sales", "sales", "EV/sales", true, Of::Trailing, sales},
    {M::EvToEbit, "ev-ebit", "ev_to_ebit", "EV to EBIT", "EBIT", "EV/EBIT", true, Of::Trailing, ebit},
    {M::EvToNopat, "ev-nopat", "ev_to_nopat", "EV to NOPAT", "NOPAT", "EV/NOPAT", true, Of::Trailing, nopat},
    {M::EvToCapital, "ev-capital", "ev_to_capital", "EV to invested capital", "invested capital", "EV/capital", true,
     Of::Trailing, capital, true},
    {M::PriceToEarningsThis, "price-earnings-this", "price_to_earnings_this", "Price to earnings, this year",
     "earnings of this year", "P/E this", false, Of::ThisYear, earnings},
    {M::EvToSalesThis, "ev-sales-this", "ev_to_sales_this", "EV to sales, this year", "sales of this year",
     "EV/sales this", true, Of::ThisYear, sales},
    {M::EvToEbitdaThis, "ev-ebitda-this", "ev_to_ebitda_this", "EV to EBITDA, this year", "EBITDA of this year",
     "EV/EBITDA this", true, Of::ThisYear, ebitda},
    {M::EvToEbitThis, "ev-ebit-this", "ev_to_ebit_this", "EV to EBIT, this year", "EBIT of this year", "EV/EBIT this",
     true, Of::ThisYear, ebit},
    {M::PriceToEarningsNext, "price-earnings-next", "price_to_earnings_next", "Price to earnings, next year",
     "earnings of next year", "P/E next", false, Of::NextYear, earnings},
    {M::EvToSalesNext, "ev-sales-next", "ev_to_sales_next", "EV to sales, next year", "sales of next year",
     "EV/sales next", true, Of::NextYear, sales},
    {M::EvToEbitdaNext, "ev-ebitda-next", "ev_to_ebitda_next", "EV to EBITDA, next year", "EBITDA of next year",
     "EV/EBITDA next", true, Of::NextYear, ebitda},
    {M::EvToEbitNext, "ev-ebit-next", "ev_to_ebit_next", "EV to EBIT, next year", "EBIT of next year", "EV/EBIT next",
     true, Of::NextYear, ebit},
    {M::PriceToEarningsAfter, "price-earnings-after", "price_to_earnings_after", "Price to earnings, year after next",
     "earnings of the year after next", "P/E after", false, Of::YearAfter, earnings},
    {M::EvToSalesAfter, "ev-sales-after", "ev_to_sales_after", "EV to sales, year after next",
     "sales of the year after next", "EV/sales after", true, Of::YearAfter, sales},
    {M::EvToEbitdaAfter, "ev-ebitda-after", "ev_to_ebitda_after", "EV to EBITDA, year after next",
     "EBITDA of the year after next", "EV/EBITDA after", true, Of::YearAfter, ebitda},
    {M::EvToEbitAfter, "ev-ebit-after", "ev_to_ebit_after", "EV to EBIT, year after next",
     "EBIT of the year after next", "EV/EBIT after", true, Of::YearAfter, ebit},
    {M::PriceToEarningsNormal, "price-earnings-normal", "price_to_earnings_normal", "Price to earnings, normal year",
     "earnings of a normal year", "P/E normal", false, Of::NormalYear, earnings},
    {M::EvToEbitdaNormal, "ev-ebitda-normal", "ev_to_ebitda_normal", "EV to EBITDA, normal year",
     "EBITDA of a normal year", "EV/EBITDA normal", true, Of::NormalYear, ebitda},
    {M::EvToEbitNormal, "ev-ebit-normal", "ev_to_ebit_normal", "EV to EBIT, normal year", "EBIT of a normal year",
     "EV/EBIT normal", true, Of::NormalYear, ebit},
    {M::EvToNopatNormal, "ev-nopat-normal", "ev_to_nopat_normal", "EV to NOPAT, normal year", "NOPAT of a normal year",
     "EV/NOPAT normal", true, Of::NormalYear, nopat}};
constexpr size_t kShipped = std::size(kWritten);

/// "ev_to_sales" -> "ev-sales".
std::string idOf(std::string name) {
  if (const size_t to = name.find("_to_"); to != std::string::npos) name.erase(to, 3);
  std::replace(name.begin(), name.end(), '_', '-');
  return name;
}

/// The rules of analysts' own multiples: one for all that say the same. It only grows, so that a name stays good.
struct OwnRules {
  std::mutex guard;
  std::deque<MultipleRule> rules;
};
OwnRules& ownRules() {
  static OwnRules rules;
  return rules;
}

Multiple named(MultipleRule rule) {
  OwnRules& own = ownRules();
  const std::lock_guard lock(own.guard);
  for (const MultipleRule& known : own.rules) {
    rule.multiple = known.multiple;
    if (rule == known) return known.multiple;
  }
  rule.multiple = static_cast<Multiple>(kShipped + own.rules.size());
  own.rules.push_back(std::move(rule));
  return own.rules.back().multiple;
}

const Written* writtenOf(const std::string& name) {
  const auto* found =
      std::find_if(std::begin(kWritten), std::end(kWritten), [&](const Written& w) { return name == w.name; });
  return found == std::end(kWritten) ? nullptr : found;
}

/// How peers say what a row of the model is: as the shipped multiple of that row does, as a column of their table that
/// the model takes for it, else as a further figure by the row's name.
MultipleRule metricOfRow(const model::Model& m, const std::string& row) {
  MultipleRule rule;
  for (const model::PeerMultiple& declared : m.multiples) {
    const Written* written = declared.row == row ? writtenOf(declared.name) : nullptr;
    if (written == nullptr) continue;
    rule.metric.measure = written->measure;
    rule.balance = written->balance;
    return rule;
  }
  const auto& columns = m.view(kPeerYearsView);
  for (size_t i = 0; i < columns.size() && i + 1 < std::size(kPeerColumns); ++i) {
    if (m[columns[i].row].name != row) continue;
    rule.metric.column = kPeerColumns[i].figure;
    return rule;
  }
  rule.metric.further = row;
  const model::RowId id = m.find(row);
  rule.balance = id.known() && m[id].timing == model::Timing::Balance;
  return rule;
}

}  // namespace

Figure PeerMetric::of(const MeasureBasis& basis, const Peer& peer, const PeerYear& year) const {
  if (measure != nullptr) return measure(basis, peer, year);
  if (column != nullptr) return given(year, column);
  const auto found = year.further.find(further);
  return found == year.further.end() ? Figure::absent("the peer table does not give " + further) : found->second;
}

int yearsAhead(MultipleRule::Of of) {
  constexpr int kAhead[] = {0, 1, 2, 3, 0};
  return kAhead[static_cast<size_t>(of)];
}

const char* wordsOf(MultipleRule::Of of) {
  constexpr const char* kWords[] = {"the last twelve months", "this year", "next year", "the year after next",
                                    "a normal year"};
  return kWords[static_cast<size_t>(of)];
}

const std::vector<MultipleRule>& shippedMultiples() {
  static const std::vector<MultipleRule> kRules = [] {
    std::vector<MultipleRule> rules;
    for (const Written& w : kWritten)
      rules.push_back(
          {w.multiple, w.id, w.name, w.label, w.what, w.mark, w.ofFirm, w.of, w.balance, {w.measure, nullptr, {}}});
    return rules;
  }();
  return kRules;
}

std::vector<Multiple> shippedNames() {
  std::vector<Multiple> all;
  for (const MultipleRule& rule : shippedMultiples()) all.push_back(rule.multiple);
  return all;
}

std::vector<Multiple> declaredMultiples(const model::Model& m) {
  std::vector<Multiple> all = shippedNames();
  for (const model::PeerMultiple& declared : m.multiples) {
    if (writtenOf(declared.name) != nullptr) continue;
    MultipleRule rule = metricOfRow(m, declared.row);
    rule.id = idOf(declared.name);
    // In and out are kept by the id: an own multiple must not share a shipped one's.
    if (std::any_of(std::begin(kWritten), std::end(kWritten), [&](const Written& w) { return rule.id == w.id; }))
      rule.id = "own-" + rule.id;
    rule.name = declared.name;
    rule.label = rule.mark = declared.label;
    rule.what = declared.what;
    rule.ofFirm = declared.ofFirm;
    rule.of = declared.of;
    // A balance of a year to come is no last balance sheet: for peers, too, it is what is expected.
    rule.balance = rule.balance && rule.of == Of::Trailing;
    all.push_back(named(std::move(rule)));
  }
  return all;
}

const MultipleRule& ruleOf(Multiple m) {
  const auto at = static_cast<size_t>(m);
  if (at < kShipped) return shippedMultiples()[at];
  OwnRules& own = ownRules();
  const std::lock_guard lock(own.guard);
  return own.rules.at(at - kShipped);
}

std::optional<Multiple> trailingMultipleOf(const model::Model& m, const std::string& row, bool ofFirm) {
  const MultipleRule of = metricOfRow(m, row);
  if (of.metric.measure == nullptr) return std::nullopt;
  for (const MultipleRule& rule : shippedMultiples()) {
    const bool same = rule.metric.measure == of.metric.measure && rule.ofFirm == ofFirm;
    if (same && rule.of == MultipleRule::Of::Trailing) return rule.multiple;
  }
  return std::nullopt;
}

model::RowId ownMultipleRow(const model::Model& m, Multiple multiple) {
  const std::string name = "own_" + multipleName(multiple);  // as the language writes it out
  return m.find(name);
}

const std::string& multipleId(Multiple m) {
  return ruleOf(m).id;
}

const std::string& multipleLabel(Multiple m) {
  return ruleOf(m).label;
}

const std::string& multipleName(Multiple m) {
  return ruleOf(m).name;
}

}  // namespace zl
