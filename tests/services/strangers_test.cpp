// Companies nobody here has seen, in the shapes that reports have: every row on its line, every tie held, and a first
// value near what the firm is worth by an economy that the product knows nothing of
// (tests/services/stranger_economy.h).

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <fstream>
#include <iterator>

#include "services/intake/importer.h"
#include "services/library/stored_case.h"
#include "services/stages/case_evaluator.h"
#include "tests/services/stranger_statements.h"
#include "tests/support/source_folder.h"

namespace zl::services {
namespace {

using test::Shape;
using test::Stranger;

/// The filings of one company read as the importer reads them, with nothing said by anybody.
class Reader {
 public:
  Reader() : resources_(*Resources::load()), evaluator_(CaseEvaluator::upon(resources_)) {}

  Result<Sources> read(const Stranger& s) {
    ImportContext context{"stranger", resources_, "2026-01-01T00:00:00Z", {}};
    Result<std::vector<ImportPreview>> previews = preview({{s.name, s.csv}}, context);
    if (!previews) return tl::unexpected(previews.error());
    const ImportPreview& p = previews->front();
    auto evidence = std::make_shared<Evidence>();
    evidence->facts = p.incoming.facts;
    Result<Company> company = derivedRecord("stranger", p.filer.filerName, evidence->facts);
    if (!company) return tl::unexpected(company.error());
    evidence->company = *company;
    for (const SheetReading& sheet : p.readings) {
      doubts = sheet.reading.doubts;
      for (const auto& [name, choice] : choicesOf(sheet.reading)) evidence->choices[name] = choice;
    }
    return Sources{evidence, std::make_shared<Market>()};
  }

  Result<Evaluated> firstValue(const Sources& sources, const Date& today) {
    const Result<StoredCase> first = storedCase(std::nullopt, sources, *evaluator_, today);
    if (!first) return tl::unexpected(first.error());
    return evaluator_->evaluate(sources, first->theCase);
  }

  std::vector<std::string> doubts;
  std::shared_ptr<const Resources> resources_;
  std::shared_ptr<CaseEvaluator> evaluator_;
};

class Strangers : public testing::TestWithParam<Shape> {
 protected:
  static Reader& reader() {
    static Reader reader;
    return reader;
  }
};

TEST_P(Strangers, EveryRowComesOnItsLineAndEveryTieHolds) {
  for (const std::uint64_t seed : {1, 2, 3}) {
    const Stranger s = test::strangerOf(GetParam(), seed);
    SCOPED_TRACE(s.name + ", seed " + std::to_string(seed));
    const Result<Sources> sources = reader().read(s);
    ASSERT_TRUE(sources) << sources.error().text();
    EXPECT_EQ(sources->evidence->company.currency, s.currency);
    const auto filed = reader().evaluator_->filed(sources->evidence, {});
    const StandardStatements& statements = filed->statements;
    ASSERT_EQ(statements.years().size(), s.economy.years.size());
    std::map<std::string, std::string> wrong;
    for (const auto& [line, years] : s.lines) {
      for (size_t column = 0; column < statements.years().size(); ++column) {
        const int year = statements.years()[column].label();
        ASSERT_TRUE(years.count(year)) << year;
        const double unit = line == "shares" ? s.shareUnit : s.unit;
        // What functions hold of depreciation is taken out in proportion: to the unit.
        const double allowed = line == "cost_of_sales" || line == "operating_expenses" ? 1.0 : 0.0;
        const double shown = statements.at(line, static_cast<int>(column)).figure.valueOr(-1) / unit;
        if (std::abs(shown - static_cast<double>(years.at(year))) <= allowed) continue;
        wrong[line] += std::to_string(year) + ": " + std::to_string(std::lround(shown)) + " for " +
                       std::to_string(years.at(year)) + "; ";
      }
    }
    EXPECT_THAT(wrong, testing::IsEmpty());
    for (const TieResult& r : checkTies(reader().resources_->ties, statements, sources->evidence->facts)) {
      EXPECT_NE(r.state, TieResult::State::Fails)
          << reader().resources_->ties[r.tie].label << " " << r.column << " off by " << r.gap;
    }
    for (const UnmappedConcept& u : statements.unmapped()) {
      // Totals of a cash flow statement and of both sides of a balance sheet are known sums and stand on no line.
      EXPECT_THAT(u.concept_name, testing::AnyOf(testing::HasSubstr("otal"), testing::HasSubstr("Net cash"),
                                                 testing::HasSubstr("Change"), testing::HasSubstr("(2)"),
                                                 testing::HasSubstr("Net income"), testing::HasSubstr("Summe"),
                                                 testing::HasSubstr("Gross"), testing::HasSubstr("Net assets")));
    }
    EXPECT_THAT(reader().doubts, testing::Each(testing::Not(testing::HasSubstr("do not add up"))));
  }
}

TEST_P(Strangers, TheFirstValueIsNearWhatTheFirmIsWorth) {
  constexpr int kDrawn = 200;
  std::vector<double> ratios;
  int within = 0;
  for (int seed = 1; seed <= kDrawn; ++seed) {
    const Stranger s = test::strangerOf(GetParam(), static_cast<std::uint64_t>(seed));
    SCOPED_TRACE(s.name + ", seed " + std::to_string(seed));
    const Result<Sources> sources = reader().read(s);
    ASSERT_TRUE(sources) << sources.error().text();
    const Result<Evaluated> e = reader().firstValue(*sources, makeDate(s.lastYear, 12, 31));
    ASSERT_TRUE(e) << e.error().text();
    const Evaluation& evaluation = *e->evaluation;
    const auto value = [&](const char* scenario) {
      return evaluation.constant(model::Role::ValueBeforeFloor, e->caseOf().indexOf(scenario));
    };
    ASSERT_TRUE(value(kBase).hasValue()) << value(kBase).reason();
    EXPECT_LE(value(kWorst).value(), value(kBase).value());
    EXPECT_LE(value(kBase).value(), value(kBest).value());
    const double ratio = value(kBase).value() / s.valuePerShare();
    if (std::getenv("ZEALOUS_STRANGERS") != nullptr) std::cout << s.name << ' ' << seed << ' ' << ratio << '\n';
    ratios.push_back(ratio);
    within += ratio >= 0.5 && ratio <= 2 ? 1 : 0;
  }
  std::sort(ratios.begin(), ratios.end());
  EXPECT_GE(ratios[kDrawn / 2], 0.7);
  EXPECT_LE(ratios[kDrawn / 2], 1.4);
  EXPECT_GE(within, kDrawn * 9 / 10) << "median " << ratios[kDrawn / 2] << ", tenth " << ratios[kDrawn / 10]
                                     << ", ninetieth " << ratios[kDrawn * 9 / 10];
}

TEST_P(Strangers, FreeCashFlowOfFiledYearsIsTheirCashFlowStatementsAndIsExplained) {
  for (const std::uint64_t seed : {1, 2, 3}) {
    const Stranger s = test::strangerOf(GetParam(), seed);
    SCOPED_TRACE(s.name + ", seed " + std::to_string(seed));
    const Result<Sources> sources = reader().read(s);
    ASSERT_TRUE(sources) << sources.error().text();
    const Result<Evaluated> e = reader().firstValue(*sources, makeDate(s.lastYear, 12, 31));
    ASSERT_TRUE(e) << e.error().text();
    const Evaluation& evaluation = *e->evaluation;
    const int base = e->caseOf().indexOf(kBase);
    const double tax = evaluation.constant(model::Role::MarginalTax, base).value();
    const double share = evaluation.constant("operating_cash_share", base).value();
    for (size_t column = 1; column < s.economy.years.size(); ++column) {
      const test::EconomyYear& y = s.economy.years[column];
      const test::EconomyYear& before = s.economy.years[column - 1];
      // From the economics: cash from operations before interest at the marginal rate, less plant, less the cash that
      // more revenue ties up.
      const double flow = static_cast<double>(y.operatingFlow - y.capex) +
                          static_cast<double>(y.interest - y.interestIncome) * (1 - tax) -
                          share * static_cast<double>(y.revenue - before.revenue);
      const auto of = [&](const char* row) {
        return evaluation.figure(row, static_cast<int>(column), base).valueOr(-1e12) / s.unit;
      };
      EXPECT_NEAR(of("fcff"), flow, 1e-6 * std::abs(flow) + 1e-6) << column;
      EXPECT_NEAR(of("reconciled_tax"), tax * static_cast<double>(y.pretax) - static_cast<double>(y.tax), 1e-6)
          << column;
      EXPECT_NEAR(of("unexplained_flow"), 0, 1e-4) << column;
    }
  }
}

/// The files under tests/corpus/strangers are what the generator writes: whoever changes one changes the other.
TEST_P(Strangers, TheCorpusIsWhatTheGeneratorWrites) {
  const Stranger s = test::strangerOf(GetParam(), 1);
  const std::string path = test::sourceFolder() + "/tests/corpus/strangers/" + s.name;
  if (std::getenv("ZEALOUS_WRITE_STRANGERS") != nullptr) std::ofstream(path) << s.csv;
  std::ifstream in(path);
  EXPECT_EQ(std::string(std::istreambuf_iterator<char>(in), {}), s.csv)
      << "write it anew with ZEALOUS_WRITE_STRANGERS=1";
}

INSTANTIATE_TEST_SUITE_P(Shapes, Strangers, testing::ValuesIn(test::kShapes), [](const auto& tested) {
  std::string name = test::nameOf(tested.param);
  std::erase(name, '-');
  return name;
});

}  // namespace
}  // namespace zl::services
