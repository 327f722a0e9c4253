#include "services/views/still_needed.h"

#include <algorithm>
#include <set>

#include "core/outlook/trace.h"

namespace zl::services {

using model::Role;

namespace {

constexpr size_t kMostSteps = 4000;
constexpr size_t kMostNeeds = 12;

class Search {
 public:
  explicit Search(const Snapshot& s) : s_(s), e_(*s.evaluation), base_(std::max(0, s.caseOf().indexOf(kBase))) {}

  std::vector<Need> run() {
    const model::RowId value = s_.model().find(Role::ValuePerShare);
    if (value.known() && !e_.constant(value, base_).hasValue()) follow({value, 0});
    std::stable_sort(needs_.begin(), needs_.end(), [](const Need& a, const Need& b) { return a.what < b.what; });
    addPrice();
    if (needs_.size() > kMostNeeds) needs_.resize(kMostNeeds);
    return std::move(needs_);
  }

 private:
  void follow(model::Cell cell) {
    if (visited_.size() > kMostSteps || !visited_.insert({cell.row.at(), cell.column}).second) return;
    const TraceStep step = trace(e_, s_.filed->statements, cell, base_);
    bool deeper = false;
    const std::set<std::pair<size_t, int>> wanted = taken(cell);
    for (const TraceLink& input : step.inputs) {
      const bool unused = !wanted.empty() && wanted.count({input.cell.row.at(), input.cell.column}) == 0;
      if (input.figure.hasValue() || unused) continue;
      deeper = true;
      follow(input.cell);
    }
    if (!deeper) add(step);
  }

  /// What a cell's rule reads as choices stand: not the branch that another option would take, and of "a, else b" only
  /// b, which is all that a first value needs.
  [[nodiscard]] std::set<std::pair<size_t, int>> taken(model::Cell cell) const {
    std::set<std::pair<size_t, int>> cells;
    const model::Expr* rule = model::ruleOf(s_.model()[cell.row], e_.layout(), cell.column);
    if (rule != nullptr) take(*rule, cell.column, cells);
    return cells;
  }

  void take(const model::Expr& e, int column, std::set<std::pair<size_t, int>>& cells) const {
    using model::Op;
    if (e.op == Op::If && e.args[0].op == Op::Is && e.args[0].args[0].op == Op::Ref) {
      const Figure stands = e_.constant(e.args[0].args[0].row, base_);
      if (stands.hasValue()) return take(e.args[stands.value() == e.args[0].args[1].number ? 1 : 2], column, cells);
    }
    if (e.op == Op::Known) return take(e.args[1], column, cells);
    if (e.op == Op::Ref || e.op == Op::Average || e.op == Op::Total || e.op == Op::Sum) {
      for (const model::Cell& read : model::cellsRead(s_.model(), e_.layout(), e, column))
        cells.insert({read.row.at(), read.column});
      return;
    }
    for (const model::Expr& part : e.args) take(part, column, cells);
  }

  void add(const TraceStep& step) {
    const model::Row& row = s_.model()[step.self.cell.row];
    Need need;
    need.cell = step.self.cell;
    need.reason = step.self.figure.hasValue() ? std::string() : step.self.figure.reason();
    need.words = step.self.label + (step.self.period.empty() ? "" : " of " + step.self.period);
    const auto is = [&](Role role) { return s_.model().find(role) == step.self.cell.row; };
    const Company& c = s_.company();
    if (is(Role::SharesNow)) {
      need.what = Need::What::Shares;
      need.words = "ordinary shares outstanding";
      need.stop = Stop::Company;
    } else if (is(Role::QuoteRate)) {
      need.what = Need::What::Rate;
      need.series = "spot " + c.currency + "/" + c.listing.currency;
      need.words = c.listing.currency + " for one " + c.currency;
      need.stop = Stop::Company;
    } else if (is(Role::Stub) || is(Role::YearsPassed)) {
      need.what = Need::What::Date;
      need.words = "a valuation date within reach of what is filed";
      need.stop = Stop::CashValue;
    } else if (step.source == TraceStep::Source::NotFiled || row.isStandardLine()) {
      need.what = Need::What::Line;
      need.stop = Stop::Filings;
    } else {
      need.stop = Stop::Outlook;
    }
    // One line or figure is told once, for the latest year that lacks it.
    const auto same = std::find_if(needs_.begin(), needs_.end(), [&](const Need& other) {
      return other.what == need.what && (other.cell.row == need.cell.row || need.what == Need::What::Date);
    });
    if (same == needs_.end()) {
      needs_.push_back(std::move(need));
    } else if (same->cell.column < need.cell.column) {
      *same = std::move(need);
    }
  }

  void addPrice() {
    const GivenFigure& price = s_.given(Role::Price);
    if (price.figure.hasValue()) return;
    Need need;
    need.what = Need::What::Price;
    need.series = "price";
    need.words = "the price in " + s_.company().listing.unit;
    need.reason = price.figure.reason();
    need.cell = {s_.model().find(Role::Price), 0};
    need.stop = Stop::Company;
    needs_.push_back(std::move(need));
  }

  const Snapshot& s_;
  const Evaluation& e_;
  int base_;
  std::set<std::pair<size_t, int>> visited_;
  std::vector<Need> needs_;
};

}  // namespace

std::vector<Need> stillNeeded(const Snapshot& s) {
  return Search(s).run();
}

}  // namespace zl::services
