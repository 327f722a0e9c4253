// The Company page: everything on one screen, by key, and what it says where nothing is known.

#include <gmock/gmock.h>

#include <QClipboard>
#include <QLineEdit>
#include <QMenu>

#include <QComboBox>
#include <QSpinBox>

#include "app/charts/stacked_bars.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

using testing::HasSubstr;

class CompanyByHand : public WindowFixture {};

TEST_F(CompanyByHand, OneScreenSaysWhatTheCompanyIs) {
  go(Qt::Key_1);
  EXPECT_TRUE(find<QWidget>("CompanyPage")->isVisible());
  EXPECT_THAT(find<QLabel>("companyFacts")->text().toStdString(), HasSubstr("one receipt for 2 shares"));
  EXPECT_THAT(find<QWidget>("businessBars")->accessibleDescription().toStdString(),
              HasSubstr("Service and Parts: 2020"));
  EXPECT_THAT(find<QWidget>("priceChart")->accessibleDescription().toStdString(), HasSubstr("Recall of a dosing head"));
  for (const char* chart : {"businessBars", "regionBars", "dueBars"})
    EXPECT_GT(coloursIn(find<QWidget>(chart)->grab().toImage()), 4) << chart;
  turnTo("price");
  EXPECT_GT(coloursIn(find<QWidget>("priceChart")->grab().toImage()), 4);
  turnTo("overview");
  auto* key = find<LedgerView>("keyFigures");
  place(key, QStringLiteral("roic"), 0);
  EXPECT_THAT(find<QLabel>("traceTitle")->text().toStdString(), HasSubstr("Return on invested capital 2025"));
  auto* parts = find<LedgerView>("companyParts");
  const auto& rows = parts->ledger().ledgerRows();
  const auto row = [&](const char* label) {
    const auto found =
        std::find_if(rows.begin(), rows.end(), [&](const LedgerRow& r) { return r.label == QLatin1String(label); });
    EXPECT_NE(found, rows.end()) << label;
    return found == rows.end() ? rows.front() : *found;
  };
  EXPECT_NEAR(
      row("Margin change: mix").cells[11].figure.value() + row("Margin change: within parts").cells[11].figure.value(),
      row("Margin change").cells[11].figure.value(), 1e-12);
  EXPECT_EQ(row("Machines installed").unit, QStringLiteral("thousand"));
}

TEST_F(CompanyByHand, TheBasisIsChosenByKeyOrFromTheTable) {
  go(Qt::Key_1);
  QTest::mouseClick(find<QPushButton>("sub.parts"), Qt::LeftButton);
  const auto chosen = [&](const char* input) {
    const InputChoice* choice = bench().now().caseOf().input(bench().now().caseOf().base(), input);
    return choice == nullptr ? -1 : choice->figure;
  };
  auto* leases = find<QComboBox>("leaseBasis");
  auto* table = find<LedgerView>("oneBasis");
  const auto valuePerShare = [&](size_t column) {
    const auto& rows = table->ledger().ledgerRows();
    const auto row = std::find_if(rows.begin(), rows.end(), [](const LedgerRow& r) { return r.strong; });
    return row == rows.end() ? Figure::absent("no such row") : row->cells.at(column).figure;
  };
  const Figure asRent = valuePerShare(1);
  ASSERT_TRUE(asRent.hasValue());
  leases->setFocus();
  QTest::keyClick(leases, Qt::Key_Up);
  EXPECT_EQ(chosen("leases_as_debt"), 0);
  EXPECT_EQ(valuePerShare(0), asRent) << "as the table said it would be";
  auto* research = find<QSpinBox>("researchBasis");
  research->setFocus();
  QTest::keyClick(research, Qt::Key_Up);
  QTest::keyClick(research, Qt::Key_Up);
  EXPECT_EQ(chosen("research_life"), 2);
  // The fourth figure column is stock pay the other way.
  table->setFocus();
  table->setCurrentIndex(table->model()->index(0, 4));
  QTest::keyClick(table, Qt::Key_Return);
  EXPECT_EQ(chosen("stock_pay_as_cost"), 0);
  EXPECT_EQ(find<QComboBox>("stockPayBasis")->currentIndex(), 0);
}

TEST_F(CompanyByHand, ACompanyWithoutPartsSaysHowToBringThem) {
  StackedBars bars;
  bars.resize(300, 160);
  bars.setContent(QStringLiteral("Revenue by business"), {}, {}, Kind::Money,
                  QStringLiteral("No figures by part are filed"));
  EXPECT_GT(coloursIn(bars.grab().toImage()), 1) << "the reason is written where the bars would be";
  bars.setContent(QStringLiteral("With a loss"), {QStringLiteral("2024"), QStringLiteral("2025")},
                  {{QStringLiteral("a"), {Figure::of(5e6), Figure::of(-3e6)}},
                   {QStringLiteral("b"), {Figure::of(2e6), Figure::absent()}}},
                  Kind::Money, {});
  EXPECT_THAT(bars.accessibleDescription().toStdString(), HasSubstr("a: 2024 5.0, 2025 (3.0)"));
  EXPECT_GT(coloursIn(bars.grab().toImage()), 4);
}

class RecordByHand : public WindowFixture {
 protected:
  void SetUp() override {
    WindowFixture::SetUp();
    go(Qt::Key_1);
  }
  const Company& company() { return bench().now().company(); }
  void show(const char* view) { QTest::mouseClick(find<QPushButton>(view), Qt::LeftButton); }
  void choose(const char* box, const char* key) {
    auto* list = find<QComboBox>(box);
    list->setCurrentIndex(list->findData(QString::fromLatin1(key)));
  }
  static void paste(LedgerView* grid, int row, int column, const QString& cells) {
    grid->setFocus();
    grid->setCurrentIndex(grid->ledger().index(row, column + 1));
    QGuiApplication::clipboard()->setText(cells);
    QTest::keyClick(grid, Qt::Key_V, Qt::ControlModifier);
    QCoreApplication::processEvents();
  }
};

TEST_F(RecordByHand, FieldsAreTypedWithTheirReasonsAndUndone) {
  press(window_.get(), Qt::Key_Tab, Qt::ControlModifier);
  auto* fields = find<LedgerView>("recordFields");
  ASSERT_TRUE(fields->isVisible()) << "Ctrl+Tab goes to the next view";
  place(fields, QStringLiteral("shares"), 0);
  typeOver(fields, QStringLiteral("61.5m"));
  EXPECT_EQ(company().shares, 61.5e6);
  place(fields, QStringLiteral("shares"), 1);
  typeOver(fields, QStringLiteral("register of May"));
  EXPECT_EQ(company().said.at("shares").reason, "register of May");
  EXPECT_THAT(bench().now().given(model::Role::SharesNow).source, HasSubstr("register of May"));
  place(fields, QStringLiteral("country"), 0);
  typeOver(fields, QStringLiteral("Netherlands"));
  EXPECT_THAT(status().toStdString(), HasSubstr("two capital letters"));
  EXPECT_EQ(company().country, "");
  // A thousand times too many are asked about with both figures.
  confirms_ = false;
  place(fields, QStringLiteral("shares"), 0);
  typeOver(fields, QStringLiteral("61500m"));
  EXPECT_THAT(asked_.toStdString(), HasSubstr("61,500,000,000"));
  EXPECT_EQ(company().shares, 61.5e6);
  bench().undo();
  bench().undo();
  EXPECT_EQ(company().shares, 60.42e6);
}

TEST_F(RecordByHand, ListsTakeRowsAndPastedCellsAsFarAsTheyAreSound) {
  show("sub.record");
  choose("recordLists", "debt_due");
  auto* list = find<LedgerView>("recordList");
  const size_t before = company().debtDue.size();
  const int fresh = static_cast<int>(before);
  for (const auto& [column, words] : {std::pair(0, "2031"), std::pair(1, "45m"), std::pair(2, "no")}) {
    list->setFocus();
    list->setCurrentIndex(list->ledger().index(fresh, column + 1));
    typeOver(list, QString::fromLatin1(words));
  }
  ASSERT_EQ(company().debtDue.size(), before + 1) << status().toStdString();
  EXPECT_EQ(company().debtDue.back().amount, 45e6);
  paste(list, fresh + 1, 0, QStringLiteral("2033\t20m\tyes\tloan\t4.5%\n2034\tmany\tno\t\t\n2035\t30m\tno\tbond\t\n"));
  EXPECT_EQ(company().debtDue.size(), before + 3) << "what is sound came in";
  EXPECT_THAT(status().toStdString(), HasSubstr("line 2: 'many' is no number"));
  bench().undo();
  EXPECT_EQ(company().debtDue.size(), before + 1) << "one undo for the whole paste";
  list->setCurrentIndex(list->ledger().index(fresh, 1));
  QTest::mouseClick(find<QPushButton>("removeRecordRow"), Qt::LeftButton);
  EXPECT_EQ(company().debtDue.size(), before);
}

TEST_F(RecordByHand, OptionsConvertiblesOwnersAndNamesAreLists) {
  show("sub.record");
  const double before = base();
  choose("recordLists", "option_tranches");
  auto* list = find<LedgerView>("recordList");
  // 5 million at half the price, in pounds where pence are quoted: 2.5 million shares more.
  const double half = bench().now().given(model::Role::Price).figure.value() / 200;
  paste(list, 0, 0, QStringLiteral("5m\t%1\tGBP\t2030-01-31\tplan B\n1m\t1\tGBP\t2020-01-31\texpired\n").arg(half));
  ASSERT_EQ(company().optionTranches.size(), 2U) << status().toStdString();
  const double shares = bench().now().evaluation->constant(model::Role::DilutedShares, 1).value();
  bench().undo();
  EXPECT_NEAR(shares - bench().now().evaluation->constant(model::Role::DilutedShares, 1).value(), 2.5e6, 1);
  EXPECT_DOUBLE_EQ(base(), before);

  choose("recordLists", "part_names");
  paste(list, 0, 0, QStringLiteral("Service and Parts\tAfter sales\n"));
  choose("recordLists", "holders");
  paste(list, 0, 0, QStringLiteral("Orrel foundation\t6042000\t2026-04-30\tregister\n"));
  choose("recordLists", "insider_trades");
  paste(list, 0, 0, QStringLiteral("2026-03-12\tT. Aune, board\t-20000\t512\tnotice\n2026-03-13\tT. Aune\t0\t\t\n"));
  EXPECT_THAT(status().toStdString(), HasSubstr("bought is positive, sold negative"));
  show("sub.parts");
  const auto& parts = find<LedgerView>("companyParts")->ledger().ledgerRows();
  EXPECT_TRUE(std::any_of(parts.begin(), parts.end(),
                          [](const LedgerRow& r) { return r.label == QLatin1String("After sales"); }));
  const auto& owners = find<LedgerView>("owners")->ledger().ledgerRows();
  const auto of = [&](const char* who) {
    const auto found =
        std::find_if(owners.begin(), owners.end(), [&](const LedgerRow& r) { return r.label == QLatin1String(who); });
    EXPECT_NE(found, owners.end()) << who;
    return found == owners.end() ? owners.front() : *found;
  };
  EXPECT_NEAR(of("Orrel foundation").cells.at(1).figure.value(), 0.1, 1e-12) << "of 60.42 million shares";
  EXPECT_EQ(of("T. Aune, board").cells.at(0).figure.value(), -20000);

  // A year that ends elsewhere than the filed ones do is asked about.
  show("sub.record");
  confirms_ = false;
  auto* fields = find<LedgerView>("recordFields");
  place(fields, QStringLiteral("fiscal_year_end"), 0);
  typeOver(fields, QStringLiteral("06-30"));
  EXPECT_THAT(asked_.toStdString(), HasSubstr("2025-12-31"));
  EXPECT_EQ(company().fiscalYearEnd, "");
  asked_.clear();
  place(fields, QStringLiteral("fiscal_year_end"), 0);
  typeOver(fields, QStringLiteral("12-28"));
  EXPECT_EQ(company().fiscalYearEnd, "12-28") << "a year of 52 weeks ends a few days earlier";
}

TEST_F(RecordByHand, AnotherListingIsValuedByKey) {
  show("sub.record");
  auto* listings = find<LedgerView>("listings");
  const double there = listings->ledger().ledgerRows()[1].cells[2].figure.value();
  listings->setFocus();
  listings->setCurrentIndex(listings->ledger().index(1, 1));
  press(listings, Qt::Key_Return);
  EXPECT_EQ(company().listing.unit, "USD");
  EXPECT_NEAR(base(), there, 1e-6 * there) << "as its row said";
}

TEST_F(RecordByHand, TheMarketIsTypedAndPasted) {
  show("sub.market");
  auto* rows = find<LedgerView>("marketRows");
  const size_t closes = bench().now().market->prices.size();
  paste(rows, 0, 0, QStringLiteral("Date\tOpen\tClose\nMay 1, 2026\t740\t748.5\nMay 2, 2026\tn/a\tn/a\n"));
  EXPECT_EQ(bench().now().market->prices.size(), closes + 1);
  EXPECT_EQ(bench().now().market->prices.back().close, 748.5);
  EXPECT_THAT(status().toStdString(), HasSubstr("it has no price"));

  choose("marketTable", "rates");
  const auto rate = [&](const char* name) { return rateAt(bench().now().market->rates, name, makeDate(2026, 5, 2)); };
  for (const auto& [column, words] : {std::pair(0, "risk-free NOK"), std::pair(2, "3.4%")}) {
    rows->setFocus();
    rows->setCurrentIndex(rows->ledger().index(0, column + 1));
    typeOver(rows, QString::fromLatin1(words));
  }
  ASSERT_TRUE(rate("risk-free NOK")) << status().toStdString();
  EXPECT_EQ(rate("risk-free NOK")->figure, 0.034);

  choose("marketTable", "regions");
  paste(rows, 0, 0, QStringLiteral("Nordics\t1.5%\t\nNL\t\t25.8%\n"));
  ASSERT_TRUE(rate("country premium Nordics")) << status().toStdString();
  EXPECT_EQ(rate("tax NL")->figure, 0.258);
  choose("marketTable", "spreads");
  paste(rows, 0, 0, QStringLiteral("4\t1.4%\n"));
  ASSERT_TRUE(rate("spread from cover 4")) << status().toStdString();
  choose("marketTable", "series");
  const size_t series = bench().now().market->series.size();
  QGuiApplication::clipboard()->setText(QStringLiteral("Date\tClose\n30/04/2026\t1,204.5\n29/04/2026\t1,190\n"));
  QTest::mouseClick(find<QPushButton>("pasteMarket"), Qt::LeftButton);
  EXPECT_EQ(bench().now().market->series.size(), series) << "nobody said whose levels they are";
  EXPECT_THAT(status().toStdString(), HasSubstr("whose levels they are"));
  find<QLineEdit>("seriesName")->setText(QStringLiteral("Wide index"));
  QTest::mouseClick(find<QPushButton>("pasteMarket"), Qt::LeftButton);
  const MarketSeries* wide = seriesNamed(bench().now().market->series, "Wide index");
  ASSERT_NE(wide, nullptr) << status().toStdString();
  EXPECT_EQ(wide->points.back().level, 1204.5);
  EXPECT_EQ(bench().now().market->prices.back().close, 748.5) << "they are not the company's";

  choose("marketTable", "peers");
  // A currency is chosen from a list that opens by key.
  place(rows, QStringLiteral("1"), 4);
  press(rows, Qt::Key_Return);
  auto* list = rows->findChild<QMenu*>(QStringLiteral("choices"));
  ASSERT_NE(list, nullptr);
  EXPECT_GT(list->actions().size(), 4);
  list->close();
  const auto peers = bench().now().market->peers;
  place(rows, QStringLiteral("1"), 1);
  typeOver(rows, QStringLiteral("19.4"));
  EXPECT_EQ(bench().now().market->peers[0].price.value(), 19.4);
  EXPECT_EQ(bench().now().market->peers[0].years.back().revenue, peers[0].years.back().revenue)
      << "a figure typed changes no other";
  paste(rows, 0, 0, QStringLiteral("Company\tMarket cap\tSales\tNet profit\nBrell Group\t1.2bn\t850m\t61m\n"));
  ASSERT_EQ(bench().now().market->peers.size(), peers.size() + 1) << status().toStdString();
  const auto& now = bench().now().market->peers;
  const auto brell = std::find_if(now.begin(), now.end(), [](const Peer& p) { return p.name == "Brell Group"; });
  ASSERT_NE(brell, now.end());
  EXPECT_EQ(brell->years.back().revenue.value(), 850e6);
  bench().undo();
  EXPECT_EQ(bench().now().market->peers.size(), peers.size());

  choose("marketTable", "estimates");
  paste(rows, 0, 0, QStringLiteral("revenue\t2027\t\t795\n"));
  const auto& estimates = bench().now().market->estimates;
  EXPECT_TRUE(std::any_of(estimates.begin(), estimates.end(), [](const Estimate& e) {
    return e.item == "revenue" && e.year == 2027 && e.mean == 795e6;
  })) << status().toStdString();
}

}  // namespace
}  // namespace zl::app
