// The analyst's own rows upon the shipped model, ready builds, and the second shipped model.

#include <gmock/gmock.h>

#include <cmath>
#include <filesystem>
#include <fstream>

#include "services/stories/sources.h"
#include "services/views/builds.h"
#include "services/views/own_rows.h"
#include "tests/support/demo_book.h"
#include "tests/support/files.h"

namespace zl::services {
namespace {

using test::DemoBook;
using testing::Contains;
using testing::HasSubstr;
using testing::IsEmpty;

constexpr const char* kBacklog =
    "driver book_to_bill \"Orders over revenue\" ratio rate\n"
    "  range 0 to 5\n"
    "  default 1\n"
    "row orders \"Orders\" money flow\n"
    "  forecast revenue * book_to_bill\n";

class OwnRowsOfDemo : public DemoBook {
 protected:
  void SetUp() override {
    DemoBook::SetUp();
    session_ = open();
  }
  const Snapshot& now() const { return *session_->now(); }
  Status set(const std::string& text) {
    return session_->apply(setOwnRows(now().caseOf(), text, session_->said("tried")));
  }
  OwnRowsCheck check(const std::string& text) const { return checkOwnRows(now(), text); }
  double figure(const char* row, int column, const char* scenario = "base") const {
    const Figure f = now().evaluation->figure(row, column, now().caseOf().indexOf(scenario));
    EXPECT_TRUE(f.hasValue()) << row << ": " << f.reason();
    return f.valueOr(std::nan(""));
  }
  double value(const char* scenario = "base") const { return figure("raw_value", 0, scenario); }
  int first() const { return now().evaluation->layout().historyYears; }
  std::string build(const std::string& label) const {
    for (const Build& b : buildsFor(now())) {
      if (b.label == label) return b.text;
    }
    ADD_FAILURE() << "no build '" << label << "'";
    return {};
  }

  std::unique_ptr<Session> session_;
};

TEST_F(OwnRowsOfDemo, AddRowsAndDriversLikeAnyOther) {
  const double before = value();
  ASSERT_TRUE(set(kBacklog));
  EXPECT_EQ(value(), before) << "nothing stands on the new rows yet";
  EXPECT_EQ(figure("orders", first()), figure("revenue", first()));
  Path path;
  path.level = 1.2;
  const model::Model& m = now().evaluation->model();
  ASSERT_TRUE(session_->apply(setDriver(now().caseOf(), m, kBase, "book_to_bill", path, session_->said("more"))));
  EXPECT_NEAR(figure("orders", first()), 1.2 * figure("revenue", first()), 1e-6);
  // It survives the file, with who said so; dropped rows leave what was assumed at rest, not lost.
  session_ = open();
  EXPECT_EQ(ownRowsInUse(now().caseOf()), kBacklog);
  EXPECT_EQ(now().caseOf().ownRows.at("standard").said.reason, "tried");
  ASSERT_TRUE(set(""));
  EXPECT_FALSE(now().evaluation->model().find("orders").known());
  const auto rests = [](const Finding& f) { return f.monitor == "assumptions at rest"; };
  EXPECT_TRUE(std::any_of(now().findings().begin(), now().findings().end(), rests));
  ASSERT_TRUE(session_->undo());
  EXPECT_NEAR(figure("orders", first()), 1.2 * figure("revenue", first()), 1e-6);
}

TEST_F(OwnRowsOfDemo, AreTriedBeforeTheyAreAccepted) {
  const OwnRowsCheck good = check(
      "input new_hall \"Capex for the new hall\" money constant\n  default 5000000\n"
      "amend capex\n  forecast revenue * capex_ratio + new_hall\n");
  ASSERT_FALSE(good.fault) << good.fault->text();
  ASSERT_EQ(good.rows.size(), 2u);
  EXPECT_TRUE(good.rows[0].amended);
  EXPECT_FALSE(good.rows[1].amended);
  EXPECT_EQ(good.effects.size(), 3u);
  for (const OwnEffect& e : good.effects) EXPECT_LT(e.after.value(), e.before.value()) << e.scenario;
  EXPECT_THAT(good.newFaults, IsEmpty());
  EXPECT_EQ(now().caseOf().ownRows.size(), 0u) << "trying stores nothing";
  // Five million a year beside the ratio, worked by its own driver: the same value.
  std::map<int, double> years;
  for (int year = 0; year < now().caseOf().horizon; ++year) {
    const int column = first() + year;
    years[year] = (figure("capex", column) + 5e6) / figure("revenue", column);
  }
  const CaseEdit typed = typeDriverYears(now().caseOf(), now().evaluation->model(), kBase, "capex_ratio",
                                         std::vector<Figure>(10, Figure::absent("typed")), years, {});
  const auto other = session_->preview(typed.after);
  ASSERT_TRUE(other);
  EXPECT_NEAR((*other)->evaluation->constant("value_per_share", 1).value(), good.effects[1].after.value(), 1e-6);

  const OwnRowsCheck broken = check("amend cash\n  forecast cash_before_revolver * 2\n");
  ASSERT_FALSE(broken.fault);
  EXPECT_THAT(broken.newFaults, Contains(HasSubstr("balance sheet gap")));
}

TEST_F(OwnRowsOfDemo, FaultsSayWhereAndReplaceNothing) {
  const struct {
    const char* text;
    int line, column;
    const char* message;
  } kCases[] = {
      {"row a \"A\" money flow\n  forecast nowhere\n", 2, 12, "there is no row 'nowhere'"},
      {"\n\nrow revenue \"Again\" money flow\n  forecast 0\n", 3, 1, "'amend revenue' changes its rules"},
      {"amend nothing\n  forecast 0\n", 1, 7, "there is no row 'nothing' to amend"},
      {"amend revenue\n", 2, 1, "expected what to amend"},
      {"row a \"A\" money flow\n  forecast revenue + wacc\n", 2, 20, "money and ratio cannot be added"},
      {"row a \"A\" money flow\n  forecast total(cash)\n", 2, 12, "belongs in a constant row"},
      {"unprojected terminal_growth\n", 1, 13, "has no years to leave out"},
      {"model other \"O\" 1 extends quick\n", 1, 27, "extends 'quick' and stands on 'standard'"},
      {"row a \"A\" money flow\n  forecast revenue ? 1\n", 2, 20, "has no meaning here"},
  };
  const double before = value();
  for (const auto& c : kCases) {
    const OwnRowsCheck tried = check(c.text);
    ASSERT_TRUE(tried.fault) << c.text;
    EXPECT_THAT(tried.fault->what, HasSubstr(c.message)) << c.text;
    ASSERT_TRUE(tried.at) << tried.fault->text();
    EXPECT_EQ(tried.at->line, c.line) << c.text;
    EXPECT_EQ(tried.at->column, c.column) << c.text;
    EXPECT_FALSE(set(c.text));
    EXPECT_EQ(value(), before);
  }
  // A fault in what stands on a row that the text has taken away is told without a place of its own.
  const OwnRowsCheck beneath = check("amend revenue\n  history fact \"x\"\nunprojected group \"Nowhere\"\n");
  ASSERT_TRUE(beneath.fault);
  EXPECT_EQ(beneath.at->line, 3);
}

TEST_F(OwnRowsOfDemo, TextsThatCouldNotBeReadAgainAreNotStored) {
  const Status latin = set("row orders \"Auftr\xE4ge\" money flow\n  forecast revenue\n");
  ASSERT_FALSE(latin);
  EXPECT_THAT(latin.error().what, HasSubstr("not UTF-8"));
  const Status endless = set("# " + std::string(200000, 'x') + "\n");
  ASSERT_FALSE(endless);
  EXPECT_EQ(endless.error().kind, ErrorKind::TooLarge);
  EXPECT_TRUE(open()->now()->caseOf().ownRows.empty());
  ASSERT_TRUE(set("row orders \"Aufträge\" money flow\r\n  forecast revenue\r\n"));
  EXPECT_EQ(ownRowsInUse(now().caseOf()), "row orders \"Aufträge\" money flow\n  forecast revenue\n");
}

TEST_F(OwnRowsOfDemo, AnUpgradedModelThatTakesAnOwnNameSetsThemAsideAndStillOpens) {
  ASSERT_TRUE(set(kBacklog));
  const double before = value();
  session_.reset();
  namespace fs = std::filesystem;
  const fs::path data = folder_.file("data");
  fs::create_directories(data);
  fs::copy(fs::path(resources_->folder) / "kits", data / "kits", fs::copy_options::recursive);
  std::ofstream(data / "kits" / "standard" / "model", std::ios::app)
      << "\nrow orders \"Orders of the new model\" money flow\n  forecast revenue\n";
  const auto upgraded = Resources::loadFrom(data.string());
  ASSERT_TRUE(upgraded) << upgraded.error().text();
  auto opened = Session::open(book(), "", *upgraded, test::testDesk());
  ASSERT_TRUE(opened) << opened.error().text();
  Session& session = **opened;
  EXPECT_EQ(session.now()->evaluation->constant("raw_value", 1).value(), before);
  ASSERT_TRUE(session.now()->ownRowsFault());
  EXPECT_THAT(session.now()->ownRowsFault()->what, HasSubstr("the model has this row already"));
  const auto& findings = session.now()->findings();
  EXPECT_TRUE(std::any_of(findings.begin(), findings.end(),
                          [](const Finding& f) { return f.monitor == "own rows not in use"; }));
  EXPECT_EQ(ownRowsInUse(session.now()->caseOf()), kBacklog) << "kept";
  ASSERT_TRUE(session.apply(setHorizon(session.now()->caseOf(), 8))) << "other work goes on";
  EXPECT_TRUE(session.now()->ownRowsFault());
  std::string mended = kBacklog;
  mended.replace(mended.find("orders"), 6, "order_intake");
  ASSERT_TRUE(session.apply(setOwnRows(session.now()->caseOf(), mended, {})));
  EXPECT_FALSE(session.now()->ownRowsFault());
  EXPECT_FALSE(session.apply(setOwnRows(session.now()->caseOf(), kBacklog, {}))) << "a new text must fit";
}

TEST_F(OwnRowsOfDemo, RevenueByPartsIsTheSumOfItsParts) {
  const std::string text = build("Revenue by Segments");
  ASSERT_TRUE(set(text)) << text;
  const int base = first() - 1;
  EXPECT_NEAR(figure("revenue_machines", base) + figure("revenue_service_and_parts", base), figure("revenue", base), 1)
      << "the filed parts make the filed whole";
  const model::Model m = now().evaluation->model();
  const auto grow = [&](const char* driver, double by) {
    Path path;
    path.level = by;
    ASSERT_TRUE(session_->apply(setDriver(now().caseOf(), m, kBase, driver, path, session_->said("tried"))));
  };
  grow("growth_machines", 0.02);
  grow("growth_service_and_parts", 0.05);
  // By hand: each part compounds by itself; the whole grows by what they make of it.
  for (int year = 1; year <= 10; ++year) {
    const double machines = figure("revenue_machines", base) * std::pow(1.02, year);
    const double service = figure("revenue_service_and_parts", base) * std::pow(1.05, year);
    EXPECT_NEAR(figure("revenue", base + year), machines + service, 1) << year;
    EXPECT_NEAR(figure("revenue_growth", base + year),
                figure("revenue", base + year) / figure("revenue", base + year - 1) - 1, 1e-12);
  }
  const TraceStep step = trace(*now().evaluation, now().filed->statements, {m.find("revenue_machines"), base}, 1);
  EXPECT_EQ(step.source, TraceStep::Source::Filed);
  EXPECT_THAT(sourceLines(now(), step), Contains(HasSubstr("ifrs-full:Revenue = ")));
  EXPECT_THAT(buildsFor(now()), testing::Each(testing::Field(&Build::label, testing::Not(HasSubstr("Revenue")))))
      << "revenue is built already";
}

TEST_F(OwnRowsOfDemo, EveryBuildStandsOnEitherModelAndTies) {
  for (const ShippedModel& model : resources_->models) {
    ASSERT_TRUE(session_->apply(setModel(now().caseOf(), model)));
    const std::vector<Build> builds = buildsFor(now());
    EXPECT_GE(builds.size(), 5u) << model.name;
    for (const Build& b : builds) {
      const OwnRowsCheck tried = check(b.text);
      ASSERT_FALSE(tried.fault) << model.name << ", " << b.label << ": " << tried.fault->text() << '\n' << b.text;
      EXPECT_THAT(tried.newFaults, IsEmpty()) << model.name << ", " << b.label;
      for (const OwnEffect& e : tried.effects) {
        EXPECT_TRUE(e.after.hasValue()) << b.label << ", " << e.scenario << ": " << e.after.reason();
      }
    }
  }
}

TEST_F(OwnRowsOfDemo, PartsWithProfitMakeTheWholesProfit) {
  ASSERT_TRUE(set(build("Revenue by Segments, with profit")));
  for (int c = first(); c < now().evaluation->layout().columns(); ++c) {
    const double parts = figure("profit_machines", c) + figure("profit_service_and_parts", c) -
                         figure("central_cost_ratio", c) * figure("revenue", c);
    EXPECT_NEAR(figure("ebit", c) + figure("exceptional_items", c), parts, 1) << c;
  }
}

TEST_F(OwnRowsOfDemo, DebtByTranchePaysEachRateAndFallsDueInItsYear) {
  const double debtNow = figure("debt", first() - 1);
  ASSERT_TRUE(set(build("Debt by tranche")));
  const model::Model m = now().evaluation->model();
  // The record: 44 m at 5.2 % due 2026, 18 m at 4.9 % due 2027, 52 m at 1.75 % due 2028, 100 m at
  // 3.6 % due 2030, 34 m at 4.1 % due 2032; what falls due is refinanced at the last average rate.
  const double fresh = figure("new_debt_rate", first());
  const double other = debtNow - 248e6;
  const double leases = (figure("lease_liabilities", first() - 1) + figure("lease_liabilities", first())) / 2;
  const double first2026 = 44e6 * 0.052 / 2 + 18e6 * 0.049 + 52e6 * 0.0175 + 100e6 * 0.036 + 34e6 * 0.041 +
                           fresh * 44e6 / 2 + figure("borrowing_rate", first()) * (other + leases);
  EXPECT_NEAR(figure("interest_expense", first()), first2026, 1);
  for (int c = first(); c < now().evaluation->layout().columns(); ++c) {
    EXPECT_NEAR(figure("debt", c), debtNow, 1) << "all is refinanced, so the sum stands";
  }
  EXPECT_NEAR(figure("borrowings_current", first()), 18e6, 1) << "2027 is the next to fall due";
  EXPECT_NEAR(figure("new_debt", first() + 4), 214e6, 1) << "2026, 2027, 2028 and 2030 have fallen due";
  // Half of what falls due is repaid, ten million more are drawn on the placement.
  for (const auto& [driver, level] : {std::pair("refinanced_share", 0.5), std::pair("tranche_4_draw", 10e6)}) {
    Path path;
    path.shape = Shape::Typed;
    path.typed = {level, driver == std::string("refinanced_share") ? 0.5 : 0.0};
    ASSERT_TRUE(session_->apply(setDriver(now().caseOf(), m, kBase, driver, path, session_->said("tried"))));
  }
  EXPECT_NEAR(figure("debt", first()), debtNow - 22e6 + 10e6, 1);
  EXPECT_NEAR(figure("debt", first() + 1), debtNow - 22e6 - 9e6 + 10e6, 1);
  for (const Finding& f : now().findings()) EXPECT_NE(f.monitor, "balance sheet gap") << f.text;
}

TEST_F(OwnRowsOfDemo, VolumeTimesPriceMakesRevenue) {
  ASSERT_TRUE(set(build("Service and Parts as Machines installed x revenue each")));
  const int base = first() - 1;
  EXPECT_EQ(figure("volume_machines_installed", base), 28.9);
  const double price = figure("revenue_service_and_parts", base) / 28.9;
  EXPECT_NEAR(figure("price_machines_installed", base), price, 1e-6);
  const TraceStep step = trace(*now().evaluation, now().filed->statements,
                               {now().evaluation->model().find("volume_machines_installed"), base}, 1);
  EXPECT_THAT(sourceLines(now(), step), Contains(HasSubstr("operating figure of the company record")));
  const double grown = 28.9 * (1 + figure("volume_growth_machines_installed", first()));
  const double dearer = price * (1 + figure("price_growth_machines_installed", first()));
  EXPECT_NEAR(figure("revenue_service_and_parts", first()), grown * dearer, 1);
}

TEST_F(OwnRowsOfDemo, TheQuickOutlookIsItsDefinition) {
  ASSERT_TRUE(session_->apply(setModel(now().caseOf(), resources_->models[1])));
  const int base = first() - 1;
  const double tax = 0.25;  // the case's rate in every year
  double revenue = figure("revenue", base);
  double discounted = 0, time = figure("stub", 0), factor = 1;
  const double stub = time;
  for (int year = 1; year <= 10; ++year) {
    const int c = base + year;
    const double next = revenue * (1 + figure("revenue_growth", c));
    // EBIT after tax, less added revenue over sales to capital (docs: the quick outlook's definition).
    const double flow =
        next * figure("operating_margin", c) * (1 - tax) - (next - revenue) / figure("growth_sales_to_capital", c);
    EXPECT_NEAR(figure("fcff", c), flow, 1e-3) << year;
    const double wacc = figure("wacc", c);
    const double span = year == 1 ? stub : 1;
    discounted += flow * span * factor / std::pow(1 + wacc, span / 2);
    factor /= std::pow(1 + wacc, span);
    revenue = next;
  }
  EXPECT_NEAR(figure("explicit_value", 0), discounted, 1);
  const Figure statement = now().evaluation->figure("receivables", first(), 1);
  EXPECT_TRUE(statement.isNotMeaningful());
  EXPECT_THAT(statement.reason(), HasSubstr("does not project"));
  for (const Finding& f : now().findings()) EXPECT_NE(f.severity, Severity::Fault) << f.monitor << ": " << f.text;

  // A year's lag takes the growth of the year before.
  const double growth = figure("revenue", base) - figure("revenue", base - 1);
  ASSERT_TRUE(session_->apply(
      setInput(now().caseOf(), now().evaluation->model(), kBase, "reinvestment_lag", 1, session_->said(""))));
  EXPECT_NEAR(figure("reinvestment", first()), growth / figure("growth_sales_to_capital", first()), 1e-3);
}

TEST_F(OwnRowsOfDemo, ModelsAreSwitchedWithoutLosingEither) {
  const double full = value();
  ASSERT_TRUE(set(kBacklog));
  ASSERT_TRUE(session_->apply(setModel(now().caseOf(), resources_->models[1])));
  EXPECT_FALSE(now().evaluation->model().find("orders").known()) << "own rows belong to the model they were made upon";
  Path path;
  path.level = 0.11;
  ASSERT_TRUE(session_->apply(setDriver(now().caseOf(), now().evaluation->model(), kBase, "operating_margin", path,
                                        session_->said("quick look"))));
  const double quick = value();
  EXPECT_NE(quick, full);
  session_ = open();
  EXPECT_EQ(value(), quick) << "the file says which model is in use";
  ASSERT_TRUE(session_->apply(setModel(now().caseOf(), resources_->models[0])));
  EXPECT_EQ(value(), full);
  EXPECT_TRUE(now().evaluation->model().find("orders").known());
  ASSERT_TRUE(session_->undo());
  EXPECT_EQ(value(), quick) << "what was assumed for the quick outlook was kept";
  Case unknown = now().caseOf();
  unknown.model = "elsewhere";
  EXPECT_THAT(session_->preview(unknown).error().todo, HasSubstr("standard, quick"));
}

TEST_F(OwnRowsOfDemo, WordsThatFitAreOffered) {
  const struct {
    const char* text;
    const char* offered;  ///< empty: nothing
  } kCases[] = {
      {"row orders \"Orders\" ", "money"},
      {"row orders \"Orders\" money ", "balance"},
      {"  forecast rev", "revenue_growth"},
      {"  forecast revenue * (1 + gua", "guard"},
      {"am", "amend"},
      {"amend net_i", "net_income_common"},
      {"  history ", "filed"},
      {"  history fact ", "\"ifrs-full:Revenue\" along \"ifrs-full:SegmentsAxis\" \"vsh:MachinesMember\""},
      {"  history recorded ", "\"Machines installed\""},
      {"  default ", "last"},
      {"row ord", ""},
      {"  help \"rev", ""},
      {"# rev", ""},
      {"row own_thing \"O\" money flow\n  forecast own_", "own_thing"},
  };
  for (const auto& c : kCases) {
    const std::string text = c.text;
    std::vector<std::string> words;
    for (const Completion& w : completionsAt(now(), text, text.size())) words.push_back(w.word);
    if (c.offered[0] == '\0') {
      EXPECT_THAT(words, IsEmpty()) << text;
    } else {
      EXPECT_THAT(words, Contains(c.offered)) << text;
    }
  }
}

}  // namespace
}  // namespace zl::services
