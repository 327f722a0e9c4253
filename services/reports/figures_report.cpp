#include "services/reports/figures_report.h"

#include "core/quantity/number_text.h"
#include "exchange/json/reader.h"
#include "services/text/text_cells.h"
#include "services/views/company_view.h"
#include "services/views/history_figures.h"
#include "services/views/interim_table.h"
#include "services/views/listing_view.h"
#include "services/views/method_figures.h"

namespace zl::services {
namespace {

struct Entry {
  std::string page, table, row, column, scenario, unit;
  Figure figure;
};

class Collection {
 public:
  explicit Collection(const Snapshot& s) : s_(s), e_(*s.evaluation), m_(e_.model()) {}

  std::vector<Entry> all() {
    rows();
    history();
    interim(Basis::Quarters, "quarters");
    interim(Basis::Trailing, "trailing");
    company();
    peers();
    return std::move(entries_);
  }

 private:
  void add(const char* page, const std::string& table, const std::string& row, const std::string& column,
           const std::string& scenario, const std::string& unit, const Figure& figure) {
    entries_.push_back({page, table, row, column, scenario, unit, figure});
  }
  [[nodiscard]] std::string unitOf(Kind kind) const {
    switch (kind) {
      case Kind::Money:
        return s_.company().currency;
      case Kind::Quote:
        return s_.company().listing.unit;
      default:
        return model::kindWord(kind);
    }
  }

  /// Filed years once, forecast years and single values by scenario.
  void rows() {
    const int historyYears = e_.layout().historyYears;
    for (size_t r = 0; r < m_.rows.size(); ++r) {
      const model::Row& row = m_.rows[r];
      const model::RowId id(r);
      const std::string unit = unitOf(row.kind);
      const std::string table = m_.textOf(r) == 0 ? "model" : "own rows";
      if (row.timing != model::Timing::Constant) {
        for (int c = 0; c < historyYears; ++c)
          add("statements", table, row.name, s_.periodOf(c), "", unit, e_.figure(id, c, 0));
      }
      for (int k = 0; k < e_.scenarios(); ++k) {
        const std::string& scenario = s_.caseOf().scenarios[static_cast<size_t>(k)].id;
        if (row.timing == model::Timing::Constant) {
          add("values", table, row.name, "", scenario, unit, e_.constant(id, k));
          continue;
        }
        for (int c = historyYears; c < e_.layout().columns(); ++c)
          add("statements", table, row.name, s_.periodOf(c), scenario, unit, e_.figure(id, c, k));
      }
    }
  }

  void history() {
    static const std::pair<HistoryView, const char*> kViews[] = {{HistoryView::Change, "change"},
                                                                 {HistoryView::Growth, "growth"},
                                                                 {HistoryView::GrowthTwoYears, "growth over two years"},
                                                                 {HistoryView::ShareOfRevenue, "share of revenue"},
                                                                 {HistoryView::PerShare, "per share"}};
    const std::vector<HistorySpan> spans = spansOf(s_);
    for (size_t r = 0; r < m_.rows.size(); ++r) {
      const model::Row& row = m_.rows[r];
      const model::RowId id(r);
      if (row.timing == model::Timing::Constant || !(row.historyFiled || row.history)) continue;
      for (const auto& [view, word] : kViews) {
        const std::optional<Kind> kind = kindIn(view, row);
        if (!kind) continue;
        const std::vector<Figure> figures = figuresIn(s_, id, view, Reading::Adjusted);
        for (size_t c = 0; c < figures.size(); ++c)
          add("history", word, row.name, s_.periodOf(static_cast<int>(c)), "", unitOf(*kind), figures[c]);
      }
      const RowTrends trends = trendsOf(s_, id, Reading::Adjusted);
      for (size_t i = 0; i < trends.spans.size() && i < spans.size(); ++i) {
        add("history", "change over a span", row.name, spans[i].label, "", unitOf(row.kind), trends.spans[i].change);
        add("history", "compound growth", row.name, spans[i].label, "", "ratio", trends.spans[i].compound);
        add("history", "mean growth", row.name, spans[i].label, "", "ratio", trends.spans[i].meanGrowth);
      }
      add("history", "fitted growth", row.name, "", "", "ratio", trends.fitted.growth);
      add("history", "fit", row.name, "", "", "ratio", trends.fitted.fit);
      statistics(row.name, unitOf(row.kind), "statistics of all years", trends.all);
      statistics(row.name, unitOf(row.kind), "statistics of regular years", trends.included);
    }
  }

  void statistics(const std::string& row, const std::string& unit, const std::string& table, const Statistics& of) {
    add("history", table, row, "count", "", "count", Figure::of(of.count));
    const std::pair<const char*, const Figure*> kFigures[] = {{"mean", &of.mean},
                                                              {"median", &of.median},
                                                              {"low", &of.low},
                                                              {"high", &of.high},
                                                              {"lower quartile", &of.lowerQuartile},
                                                              {"upper quartile", &of.upperQuartile}};
    for (const auto& [what, figure] : kFigures) add("history", table, row, what, "", unit, *figure);
  }

  void interim(Basis basis, const char* word) {
    const InterimTable table = interimTable(s_, basis);
    for (const InterimRow& row : table.rows) {
      for (size_t c = 0; c < row.figures.size(); ++c) {
        add("history", word, m_[row.row].name, table.periods[c], "", unitOf(m_[row.row].kind), row.figures[c]);
      }
    }
  }

  void company() {
    const MarketView view = marketView(s_);
    const std::string quote = s_.company().listing.unit;
    const std::string money = s_.company().currency;
    const std::tuple<const char*, std::string, const Figure*> kFigures[] = {
        {"price", quote, &view.price.last},
        {"low of 52 weeks", quote, &view.price.low52},
        {"high of 52 weeks", quote, &view.price.high52},
        {"average of 200 closes", quote, &view.price.average200},
        {"below its peak", "ratio", &view.price.drawdown},
        {"deepest fall", "ratio", &view.price.deepest},
        {"price over a year", "ratio", &view.price.return1},
        {"price over five years", "ratio", &view.price.return5},
        {"swing of a year", "ratio", &view.price.swing},
        {"market value of equity", money, &view.marketEquity},
        {"enterprise value", money, &view.enterpriseValue},
        {"price to earnings", "multiple", &view.priceToEarnings},
        {"EV to EBITDA", "multiple", &view.evToEbitda},
        {"EV to revenue", "multiple", &view.evToRevenue},
        {"price to book", "multiple", &view.priceToBook},
        {"earnings yield", "ratio", &view.earningsYield},
        {"simple free cash flow yield", "ratio", &view.freeCashYield},
        {"dividend yield", "ratio", &view.dividendYield}};
    for (const auto& [what, unit, figure] : kFigures) add("company", "market", what, "", "", unit, *figure);
    const std::vector<Figure> organic = organicGrowth(s_);
    for (size_t c = 0; c < organic.size(); ++c)
      add("company", "organic growth", "revenue", s_.periodOf(static_cast<int>(c)), "", "ratio", organic[c]);
    for (const SegmentView& axis : segmentViews(s_)) {
      for (size_t i = 0; i < axis.members.size(); ++i) {
        for (size_t c = 0; c < axis.revenue[i].size(); ++c) {
          const std::string period = s_.periodOf(static_cast<int>(c));
          add("company", axis.axis + ", revenue", axis.members[i], period, "", money, axis.revenue[i][c]);
          add("company", axis.axis + ", profit", axis.members[i], period, "", money, axis.profit[i][c]);
          add("company", axis.axis + ", margin", axis.members[i], period, "", "ratio", axis.margin[i][c]);
        }
      }
    }
    for (const ListingLine& line : listingLines(s_)) {
      add("company", "listings", line.listing.unit, "price", "", line.listing.unit, line.price);
      for (size_t k = 0; k < line.values.size(); ++k)
        add("company", "listings", line.listing.unit, "value", s_.caseOf().scenarios[k].id, line.listing.unit,
            line.values[k]);
    }
  }

  void peers() {
    for (const PeerRow& row : s_.crossCheck.rows) {
      add("peers", "size", row.id, "", "", s_.company().currency, row.revenue);
      for (const auto& [multiple, cell] : row.cells)
        add("peers", multipleId(multiple), row.id, cell.in ? "in" : "out", "", "multiple", cell.multiple);
    }
    for (const auto& [multiple, of] : s_.crossCheck.statistics) {
      add("peers", multipleId(multiple), "statistics", "count", "", "count", Figure::of(of.count));
      const std::pair<const char*, const Figure*> kFigures[] = {
          {"low", &of.low},   {"lower quartile", &of.lowerQuartile}, {"median", &of.median},
          {"mean", &of.mean}, {"harmonic mean", &of.harmonicMean},   {"upper quartile", &of.upperQuartile},
          {"high", &of.high}};
      for (const auto& [what, figure] : kFigures)
        add("peers", multipleId(multiple), "statistics", what, "", "multiple", *figure);
      for (const char* statistic : kValuedStatistics) {
        for (int k = 0; k < e_.scenarios(); ++k) {
          add("peers", multipleId(multiple) + ", implied per share", statistic, "",
              s_.caseOf().scenarios[static_cast<size_t>(k)].id, s_.company().listing.unit,
              impliedByPeers(e_, multiple, statistic, k));
        }
      }
    }
  }

  const Snapshot& s_;
  const Evaluation& e_;
  const model::Model& m_;
  std::vector<Entry> entries_;
};

}  // namespace

Json figuresJson(const Snapshot& s) {
  Json list = Json::array();
  for (const Entry& e : Collection(s).all()) {
    list.push_back({{"page", e.page},
                    {"table", e.table},
                    {"row", e.row},
                    {"column", e.column},
                    {"scenario", e.scenario},
                    {"unit", e.unit},
                    {"figure", figureJson(e.figure)}});
  }
  return list;
}

std::string figuresText(const Snapshot& s) {
  std::string out = "page,table,row,column,scenario,unit,figure,reason\n";
  for (const Entry& e : Collection(s).all()) {
    for (const std::string* cell : {&e.page, &e.table, &e.row, &e.column, &e.scenario, &e.unit})
      out += csvCell(*cell) + ",";
    out += e.figure.hasValue() ? plainNumber(e.figure.value()) + ",\n" : "," + csvCell(e.figure.reason()) + "\n";
  }
  return out;
}

}  // namespace zl::services
