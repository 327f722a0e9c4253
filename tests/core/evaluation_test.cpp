// The compiled tape against hand-worked cases, the interpreter, and itself in other lane counts.

#include <cmath>
#include <cstring>
#include <map>
#include <set>

#include "core/model/slice.h"
#include "tests/support/model_support.h"

namespace zl {
namespace {

using test::figures;
using test::SmallModel;

TEST(Evaluation, HandWorkedGrowthAndTotals) {
  SmallModel m;
  m.model = test::modelOf(R"(
driver growth "Growth" ratio rate
  history sales / sales[-1] - 1
  default 10%
row sales "Sales" money flow
  history filed
  forecast sales[-1] * (1 + growth)
row all "All" money constant
  value total(sales)
row last "Last" money constant
  value final(sales) - base(sales) + opening_year(sales)
)");
  m.filed["sales"] = figures({80, 100});
  const Evaluation e = m.evaluate();
  EXPECT_NEAR(e.figure("sales", 4, 0).value(), 133.1, 1e-12);  // 100 * 1.1^3
  EXPECT_NEAR(e.constant("all", 0).value(), 364.1, 1e-12);     // 110 + 121 + 133.1
  EXPECT_NEAR(e.constant("last", 0).value(), 143.1, 1e-12);    // 133.1 - 100 + 110
  EXPECT_NEAR(e.figure("growth", 1, 0).value(), 0.25, 1e-12);
  EXPECT_TRUE(e.figure("growth", 0, 0).isAbsent());  // the oldest year has no year before
}

TEST(Evaluation, CircularInterestMatchesItsClosedForm) {
  // debt_t = debt_{t-1} - cash + interest, interest = r * (debt_t + debt_{t-1}) / 2
  // => debt_t = (debt_{t-1} (1 + r/2) - cash) / (1 - r/2).
  SmallModel m;
  m.model = test::modelOf(R"(
driver rate "Rate" ratio rate
  default 8%
driver cash "Cash" money flow
  default 30
row interest "Interest" money flow
  forecast rate * avg(debt)
row debt "Debt" money balance
  history filed
  forecast debt[-1] - cash + interest
)");
  m.filed["debt"] = figures({200});
  const Evaluation e = m.evaluate();
  double debt = 200;
  for (int t = 1; t <= 3; ++t) {
    debt = (debt * 1.04 - 30) / 0.96;
    EXPECT_NEAR(e.figure("debt", t, 0).value(), debt, 1e-7) << t;  // tolerance 1e-10 of the balance, fed on
  }
  EXPECT_TRUE(e.settled(0));
  EXPECT_LT(e.rounds(), 20);
}

TEST(Evaluation, ACircleThatDivergesIsAnErrorNeverANumber) {
  SmallModel m;
  m.model = test::modelOf(R"(
row a "Alpha" money balance
  history filed
  forecast 2 * b + 1 * a[-1]
row b "Beta" money balance
  forecast a - 3 * a[-1]
row c "Gamma" money constant
  value final(a)
)");
  m.filed["a"] = figures({1});
  const Evaluation e = m.evaluate();
  EXPECT_FALSE(e.settled(0));
  for (const Figure& f : {e.figure("a", 1, 0), e.figure("b", 1, 0), e.constant("c", 0)}) {
    ASSERT_TRUE(f.isNotMeaningful());
    EXPECT_THAT(f.reason(), testing::HasSubstr("Alpha, Beta"));
  }
}

TEST(Evaluation, ReasonsTravelThroughEveryOperation) {
  SmallModel m;
  m.model = test::modelOf(R"(
input x "X" ratio constant
  default 0
row inverse "Inverse" ratio constant
  value 1 / x
row guarded "Guarded" ratio constant
  value guard(x > 1, x, "x is too small")
row laundered "Laundered" ratio constant
  value 1 / (1 + abs(inverse))
row larger "Larger" ratio constant
  value max(guarded, 5)
row chosen "Chosen" ratio constant
  value if(x > 1, guarded, 7)
row undecided "Undecided" ratio constant
  value if(inverse > 1, 1, 2)
row root "Root" ratio constant
  value (x - 4)^0.5
)");
  m.filed["none"] = figures({1});
  const Evaluation e = m.evaluate();
  EXPECT_EQ(e.constant("inverse", 0).reason(), "division by zero");
  EXPECT_EQ(e.constant("laundered", 0).reason(), "division by zero");  // 1/(1+inf) is 0 in plain arithmetic
  EXPECT_EQ(e.constant("larger", 0).reason(), "x is too small");       // std::max would give 5
  EXPECT_EQ(e.constant("undecided", 0).reason(), "division by zero");
  EXPECT_DOUBLE_EQ(e.constant("chosen", 0).value(), 7);  // the branch not taken does not matter
  EXPECT_TRUE(e.constant("root", 0).isNotMeaningful());
}

TEST(Evaluation, AGapFromOutsideACircleExplainsTheWholeCircle) {
  SmallModel m;
  m.model = test::modelOf(R"(
driver rate "Rate" ratio rate
row interest "Interest" money flow
  forecast rate * avg(debt)
row debt "Debt" money balance
  history filed
  forecast debt[-1] + interest
row far "Far" money constant
  value final(debt) * 2
)");
  m.filed["debt"] = figures({200});
  const Evaluation e = m.evaluate();
  EXPECT_TRUE(e.settled(0)) << "a missing figure is no failure to settle";
  for (const Figure& f : {e.figure("interest", 1, 0), e.figure("debt", 3, 0), e.constant("far", 0)}) {
    EXPECT_TRUE(f.isAbsent());
    EXPECT_EQ(f.reason(), "Rate has no path and no last actual to hold");
  }
}

/// Lane inputs drawn at random within each driver's range, around plausible figures.
class RandomLanes : public testing::Test {
 protected:
  static constexpr int kLanes = 100;

  void SetUp() override {
    m_ = test::shippedModel();
    auto compiled = model::compile(m_, {4, 10});
    ASSERT_TRUE(compiled);
    program_ = *compiled;
  }

  double next() {  // SplitMix64: the same on every machine
    unsigned long long z = (state_ += 0x9E3779B97F4A7C15ull);
    z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9ull;
    z = (z ^ (z >> 27)) * 0x94D049BB133111EBull;
    return static_cast<double>((z ^ (z >> 31)) >> 11) * 0x1p-53;
  }

  /// One plausible figure for an input cell; history cells form a balance sheet that ties.
  double draw(const model::Row& row) {
    static const std::map<std::string, double> kFiled{{"revenue", 1000},
                                                      {"cost_of_sales", 550},
                                                      {"cash", 120},
                                                      {"receivables", 160},
                                                      {"inventory", 150},
                                                      {"other_current_assets", 40},
                                                      {"plant", 400},
                                                      {"right_of_use", 60},
                                                      {"intangibles", 50},
                                                      {"goodwill", 80},
                                                      {"associates", 10},
                                                      {"other_noncurrent_assets", 20},
                                                      {"payables", 90},
                                                      {"other_current_liabilities", 80},
                                                      {"borrowings_current", 40},
                                                      {"borrowings_long", 200},
                                                      {"lease_liabilities", 62},
                                                      {"pension_deficit", 15},
                                                      {"other_noncurrent_liabilities", 25},
                                                      {"equity", 538},
                                                      {"minorities", 30},
                                                      {"preferred", 10},
                                                      {"tax_losses", 35},
                                                      {"shares", 50},
                                                      {"debt", 240},
                                                      {"net_debt", 180},
                                                      {"fixed_assets", 510},
                                                      {"worn_assets", 510},
                                                      {"financed_leases", 62},
                                                      {"operating_losses", 35},
                                                      {"trade_working_capital", 180},
                                                      {"operating_cash", 0},
                                                      {"operating_working_capital", 180},
                                                      {"spare_cash", 120},
                                                      {"invested_capital", 811},
                                                      {"revolver", 0}};
    if (const auto found = kFiled.find(row.name); found != kFiled.end()) return found->second;
    static const std::map<std::string, double> kGiven{
        {"price", 900},         {"quote_rate", 85},     {"shares_now", 50},        {"options", 2},
        {"option_strike", 700}, {"unvested_shares", 1}, {"convertible_shares", 3}, {"convertible_face", 30},
        {"stub", 0.6},          {"years_passed", 0}};
    if (const auto found = kGiven.find(row.name); found != kGiven.end()) return found->second;
    if (row.record) {  // a further tranche and convertible; no others
      if (row.record->place > 1) return 0;
      return row.kind == Kind::Quote ? 800 : row.kind == Kind::Money ? 12 : 1.5;
    }
    if (row.name == "lease_regime") return 0;  // the opening figures above are those of leases with interest
    if (row.declared == model::Declared::Input && row.kind == Kind::Count) return next() < 0.5 ? 0 : 1;
    if (row.name == "cost_of_sales_ratio") return 0.4 + 0.3 * next();
    if (row.name == "operating_expense_ratio") return 0.1 + 0.3 * next();
    if (row.name == "exit_multiple") return 4 + 8 * next();
    if (row.kind == Kind::Days) return 20 + 120 * next();
    if (row.name == "revenue_growth") return -0.2 + 0.4 * next();
    if (row.name == "debt_growth") return -0.3 + 0.5 * next();
    if (row.name == "beta") return 0.5 + next();
    const double high = row.range ? std::min(row.range->high, 0.12) : 0.1;
    const double low = row.range ? std::max(row.range->low, 0.0) : 0.0;
    return low + (high - low) * next();
  }

  model::LaneInputs randomInputs() {
    model::LaneInputs inputs(program_, kLanes);
    for (size_t i = 0; i < program_.inputs.size(); ++i) {
      const model::Row& row = m_[program_.inputs[i].cell.row];
      const bool varies = row.declared == model::Declared::Driver || row.declared == model::Declared::Input;
      const bool history = row.timing != model::Timing::Constant && program_.inputs[i].cell.column < 4;
      if (!varies || history) {
        inputs.setAll(i, draw(row));
      } else {
        for (int lane = 0; lane < kLanes; ++lane) inputs.set(i, lane, draw(row));
      }
    }
    return inputs;
  }

  std::vector<std::uint32_t> allCells() const {
    std::vector<std::uint32_t> slots;
    for (model::Cell c : program_.computed) slots.push_back(static_cast<std::uint32_t>(program_.slot(c)));
    return slots;
  }

  std::uint32_t slotOf(const char* row, int column) const {
    return static_cast<std::uint32_t>(program_.slot({m_.find(row), column}));
  }

  model::Model m_;
  model::Program program_;
  unsigned long long state_ = 7;
};

TEST_F(RandomLanes, StatementsBalanceInEveryYear) {
  const model::LaneInputs inputs = randomInputs();
  std::vector<std::uint32_t> slots;
  for (int c = 4; c < 14; ++c) {
    for (const char* row : {"balance_gap", "cash_gap", "fcff_gap", "total_assets", "cash", "revolver"})
      slots.push_back(slotOf(row, c));
  }
  const model::LaneResults r = model::evaluate(program_, inputs, slots);
  int drawn = 0;
  for (int lane = 0; lane < kLanes; ++lane) {
    for (size_t year = 0; year < 10; ++year) {
      const double size = std::fabs(r.at(year * 6 + 3, lane)) + 1;
      EXPECT_NEAR(r.at(year * 6, lane) / size, 0, 1e-9) << "balance, lane " << lane << " year " << year;
      EXPECT_NEAR(r.at(year * 6 + 1, lane) / size, 0, 1e-9) << "cash, lane " << lane;
      EXPECT_NEAR(r.at(year * 6 + 2, lane) / size, 0, 1e-9) << "free cash flow, lane " << lane;
      EXPECT_GE(r.at(year * 6 + 4, lane), -1e-6) << "cash is never negative: the revolver fills it";
      drawn += r.at(year * 6 + 5, lane) > 0 ? 1 : 0;
    }
  }
  EXPECT_GT(drawn, 0) << "some trial must draw the revolver, or this test says nothing about it";
}

TEST_F(RandomLanes, LanesAgreeWithOneByOneToTheLastBit) {
  const model::LaneInputs all = randomInputs();
  const std::vector<std::uint32_t> slots = allCells();
  const model::LaneResults together = model::evaluate(program_, all, slots);
  for (int lane : {0, 1, 31, 32, 57, 99}) {
    model::LaneInputs one(program_, 1);
    for (size_t i = 0; i < program_.inputs.size(); ++i) one.set(i, 0, all.at(i, lane));
    const model::LaneResults alone = model::evaluate(program_, one, slots);
    for (size_t s = 0; s < slots.size(); ++s) {
      const double a = together.at(s, lane);
      const double b = alone.at(s, 0);
      EXPECT_TRUE(std::memcmp(&a, &b, sizeof a) == 0 || (std::isnan(a) && std::isnan(b)))
          << "lane " << lane << " cell " << s;
    }
  }
}

/// What every computed cell reads by the rules as they are written, without a look at the tape.
using Reads = std::map<model::Cell, std::vector<model::Cell>>;
Reads readsOf(const model::Model& m, const model::Program& p) {
  Reads reads;
  for (const model::Cell cell : p.computed) {
    const model::Expr* rule = model::ruleOf(m[cell.row], p.layout, cell.column);
    reads.emplace(cell, model::cellsRead(m, p.layout, *rule, cell.column));
  }
  return reads;
}

std::set<model::Cell> reachedFrom(const Reads& reads, model::Cell wanted) {
  std::set<model::Cell> reached;
  std::vector<model::Cell> open{wanted};
  while (!open.empty()) {
    const auto cell = reads.find(open.back());
    open.pop_back();
    if (cell == reads.end() || !reached.insert(cell->first).second) continue;
    open.insert(open.end(), cell->second.begin(), cell->second.end());
  }
  return reached;
}

TEST_F(RandomLanes, APartOfTheProgramGivesTheBitsOfTheWhole) {
  const model::LaneInputs all = randomInputs();
  const std::vector<std::uint32_t> slots = allCells();
  const model::LaneResults whole = model::evaluate(program_, all, slots);
  std::map<model::Cell, size_t> inputOf;
  for (size_t i = 0; i < program_.inputs.size(); ++i) inputOf[program_.inputs[i].cell] = i;
  const Reads reads = readsOf(m_, program_);
  int tried = 0, withCircles = 0, shorter = 0;
  for (size_t s = 0; s < slots.size(); ++s) {
    const model::Cell cell = program_.computed[s];
    if (s % 3 != 0 || (m_[cell.row].timing != model::Timing::Constant && cell.column != 9)) continue;
    const model::Program part = model::sliceFor(program_, {{cell}});
    ASSERT_EQ(std::set<model::Cell>(part.computed.begin(), part.computed.end()), reachedFrom(reads, cell))
        << m_[cell.row].name << ": no cell too few, and none too many";
    model::LaneInputs inputs(part, kLanes);
    for (size_t i = 0; i < part.inputs.size(); ++i) {
      for (int lane = 0; lane < kLanes; ++lane) inputs.set(i, lane, all.at(inputOf.at(part.inputs[i].cell), lane));
    }
    const model::LaneResults alone = model::evaluate(part, inputs, {{static_cast<std::uint32_t>(part.slot(cell))}});
    for (int lane = 0; lane < kLanes; ++lane) {
      const double a = whole.at(s, lane), b = alone.at(0, lane);
      ASSERT_TRUE(std::memcmp(&a, &b, sizeof a) == 0 || (std::isnan(a) && std::isnan(b)))
          << m_[cell.row].name << " lane " << lane;
    }
    // A lane by itself passes over the branches that it does not take; among others it does not.
    for (const int lane : {0, 41}) {
      model::LaneInputs one(part, 1);
      for (size_t i = 0; i < part.inputs.size(); ++i) one.set(i, 0, inputs.at(i, lane));
      const double a = whole.at(s, lane),
                   b = model::evaluate(part, one, {{static_cast<std::uint32_t>(part.slot(cell))}}).at(0, 0);
      ASSERT_TRUE(std::memcmp(&a, &b, sizeof a) == 0 || (std::isnan(a) && std::isnan(b)))
          << m_[cell.row].name << " lane " << lane << " by itself";
    }
    ++tried;
    withCircles += part.circles.empty() ? 0 : 1;
    shorter += part.tape.size() < program_.tape.size() / 2 ? 1 : 0;
  }
  EXPECT_GT(withCircles, 10) << "groups must be among what was tried";
  EXPECT_GT(shorter, tried / 4) << "a part that is the whole would pass, too";
  const model::Program none = model::sliceFor(program_, {{{m_.find("price"), 0}}});
  EXPECT_TRUE(none.tape.empty()) << "a given stands on itself";
}

/// Of computed cells those that read a row's inputs, over however many steps. A driver's year beyond the last forecast
/// one is computed, and no input.
std::set<model::Cell> reachedBy(const Reads& reads, model::RowId row) {
  std::map<model::Cell, std::vector<model::Cell>> readers;
  std::vector<model::Cell> open;
  for (const auto& [cell, read] : reads) {
    for (const model::Cell of : read) {
      readers[of].push_back(cell);
      if (of.row == row && reads.count(of) == 0) open.push_back(cell);
    }
  }
  std::set<model::Cell> reached;
  while (!open.empty()) {
    const model::Cell cell = open.back();
    open.pop_back();
    if (!reached.insert(cell).second) continue;
    const auto further = readers.find(cell);
    if (further != readers.end()) open.insert(open.end(), further->second.begin(), further->second.end());
  }
  return reached;
}

TEST_F(RandomLanes, WhatAMovedRowDoesNotReachIsTakenFromTheRunBefore) {
  const model::LaneInputs before = randomInputs(), other = randomInputs();
  const std::vector<std::uint32_t> slots = allCells();
  const model::LaneResults known = model::evaluate(program_, before, slots);
  std::map<model::Cell, size_t> inputOf, computedAt;
  for (size_t i = 0; i < program_.inputs.size(); ++i) inputOf[program_.inputs[i].cell] = i;
  for (size_t s = 0; s < slots.size(); ++s) computedAt[program_.computed[s]] = s;
  const Reads reads = readsOf(m_, program_);
  const model::Cell wanted{m_.find(model::Role::ValueBeforeFloor), 0};
  const std::set<model::Cell> stoodOn = reachedFrom(reads, wanted);
  int moving = 0, withCircles = 0, shorter = 0;
  for (size_t r = 0; r < m_.rows.size(); r += 5) {
    const model::RowId row(r);
    if (m_[row].declared == model::Declared::Row) continue;
    model::LaneInputs after = before;
    for (size_t i = 0; i < program_.inputs.size(); ++i) {
      if (program_.inputs[i].cell.row != row) continue;
      for (int lane = 0; lane < kLanes; ++lane) after.set(i, lane, other.at(i, lane));
    }
    const model::Program part = model::sliceFor(program_, {{wanted}}, {row});
    std::set<model::Cell> expected;
    for (const model::Cell cell : reachedBy(reads, row)) {
      if (stoodOn.count(cell) > 0) expected.insert(cell);
    }
    ASSERT_EQ(std::set<model::Cell>(part.computed.begin(), part.computed.end()), expected) << m_[row].name;
    model::LaneInputs inputs(part, kLanes);
    for (size_t i = 0; i < part.inputs.size(); ++i) {
      const auto computed = computedAt.find(part.inputs[i].cell);
      for (int lane = 0; lane < kLanes; ++lane) {
        inputs.set(i, lane,
                   computed != computedAt.end() ? known.at(computed->second, lane)
                                                : after.at(inputOf.at(part.inputs[i].cell), lane));
      }
    }
    const auto wholeSlot = static_cast<std::uint32_t>(program_.slot(wanted));
    const model::LaneResults whole = model::evaluate(program_, after, {{wholeSlot}});
    const model::LaneResults reached = model::evaluate(part, inputs, {{static_cast<std::uint32_t>(part.slot(wanted))}});
    for (int lane = 0; lane < kLanes; ++lane) {
      const double a = whole.at(0, lane), b = reached.at(0, lane);
      ASSERT_TRUE(std::memcmp(&a, &b, sizeof a) == 0 || (std::isnan(a) && std::isnan(b)))
          << m_[row].name << " lane " << lane;
    }
    moving += expected.empty() ? 0 : 1;
    withCircles += part.circles.empty() ? 0 : 1;
    shorter += !part.tape.empty() && part.tape.size() < program_.tape.size() / 4 ? 1 : 0;
  }
  EXPECT_GT(moving, 15) << "rows that move nothing would pass, too";
  EXPECT_GT(withCircles, 3);
  EXPECT_GT(shorter, 3);
}

TEST_F(RandomLanes, TheTapeAgreesWithTheInterpreter) {
  // A second reading of the same rules: every computed cell satisfies its own rule, evaluated by
  // value-or-reason arithmetic on the tape's figures. Circles settle to 1e-10 of a balance.
  const model::LaneInputs all = randomInputs();
  const std::vector<std::uint32_t> slots = allCells();
  const model::LaneResults r = model::evaluate(program_, all, slots);
  for (int lane : {3, 42}) {
    std::map<model::Cell, Figure> known;
    for (size_t i = 0; i < program_.inputs.size(); ++i) known[program_.inputs[i].cell] = Figure::of(all.at(i, lane));
    for (size_t s = 0; s < slots.size(); ++s) known[program_.computed[s]] = Figure::of(r.at(s, lane));
    for (size_t s = 0; s < slots.size(); ++s) {
      const model::Cell cell = program_.computed[s];
      const model::Row& row = m_[cell.row];
      const Figure again = model::interpret(m_, program_.layout, *model::ruleOf(row, program_.layout, cell.column),
                                            cell.column, [&](model::Cell c) { return known.at(c); });
      ASSERT_EQ(again.hasValue(), std::isfinite(r.at(s, lane))) << row.name;
      if (again.hasValue()) {
        EXPECT_NEAR(again.value(), r.at(s, lane), 1e-6 * std::max(1.0, std::fabs(again.value()))) << row.name;
      }
    }
  }
}

TEST_F(RandomLanes, ValueFallsWhenTheRateRises) {
  model::LaneInputs inputs(program_, kLanes);
  for (size_t i = 0; i < program_.inputs.size(); ++i) {
    const model::Row& row = m_[program_.inputs[i].cell.row];
    if (row.name == "risk_free") {
      for (int lane = 0; lane < kLanes; ++lane) inputs.set(i, lane, 0.02 + 0.0015 * lane);
    } else {
      const double preset = row.preset && !row.preset->last ? *row.preset->level : draw(row);
      inputs.setAll(i, row.name == "revenue_growth"            ? 0.03
                       : row.name == "cost_of_sales_ratio"     ? 0.55
                       : row.name == "operating_expense_ratio" ? 0.2
                       : row.name == "return_weight"           ? 0.0
                                                               : preset);
    }
  }
  const std::uint32_t slot = slotOf("raw_value_growth", 0);
  const model::LaneResults r = model::evaluate(program_, inputs, {{slot}});
  for (int lane = 1; lane < kLanes; ++lane) EXPECT_LT(r.at(0, lane), r.at(0, lane - 1)) << lane;
}

}  // namespace
}  // namespace zl
