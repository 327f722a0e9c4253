// Ways to value a share, as the model declares them: every output goes over them, and what peers say is worked out
// in the model like anything else.

#include <algorithm>
#include <cmath>

#include "core/capital/rates.h"
#include "services/edits/edits.h"
#include "services/reports/report.h"
#include "services/views/driver_evidence.h"
#include "services/views/exit_return.h"
#include "services/views/past_multiples.h"
#include "services/views/peer_view.h"
#include "services/views/probing.h"
#include "services/views/published.h"
#include "tests/support/bare_kits.h"
#include "tests/support/plain_company.h"

namespace zl::services {
namespace {

using testing::HasSubstr;

class Methods : public test::DemoBook {
 protected:
  void SetUp() override {
    DemoBook::SetUp();
    session_ = open();
  }
  [[nodiscard]] const Snapshot& now() const { return *session_->now(); }
  Figure value(const char* method, int lane = 1) const {
    const auto& methods = now().model().methods;
    const auto found =
        std::find_if(methods.begin(), methods.end(), [&](const model::Method& m) { return m.name == method; });
    return found == methods.end() ? Figure::absent("no such method") : now().evaluation->constant(found->value, lane);
  }

  std::unique_ptr<Session> session_;
};

/// Multiple times metric, less claims where it is of the enterprise, over diluted shares, at the listing's rate.
TEST_F(Methods, PeersMultiplesAreWorkedOutInEveryScenario) {
  const Evaluation& e = *now().evaluation;
  const auto median = [&](Multiple m) { return now().crossCheck.statistics.at(m).median.value(); };
  const int base = e.layout().baseColumn();
  for (int lane = 0; lane < e.scenarios(); ++lane) {
    const double perShare = e.constant("quote_rate", lane).value() / e.constant("diluted_shares", lane).value();
    ASSERT_LT(e.figure("net_income_common", base, lane).value(), 0);
    EXPECT_EQ(value("peers_earnings", lane).reason(), "the subject's earnings are not positive");
    EXPECT_NEAR(value("peers_ebitda", lane).value(),
                (median(Multiple::EvToEbitda) * e.figure("basis_ebitda", base, lane).value() -
                 e.constant("claims", lane).value()) *
                    perShare,
                1e-9);
  }
}

/// At the subject's own multiple its peers imply its price: of every multiple, through claims and back.
TEST_F(Methods, AtItsOwnMultipleTheSubjectIsWorthItsPrice) {
  const int base = 1;
  int tried = 0;
  for (const MultipleRule& rule : shippedMultiples()) {
    const Position position = positionOf(now(), rule.multiple);
    if (!position.own.hasValue()) continue;
    const model::RowId given = now().model().peerRow(model::Declared::Given, rule.name, "median");
    const model::RowId implied = now().model().peerRow(model::Declared::Row, rule.name, "median");
    ASSERT_TRUE(given.known() && implied.known()) << rule.id;
    const Figure value = probeScenario(now(), base, {{{given, {position.own}}}}, implied).front();
    EXPECT_NEAR(value.value(), now().given(model::Role::Price).figure.value(), 1e-9) << rule.id;
    ++tried;
  }
  EXPECT_GE(tried, 10);
}

TEST_F(Methods, WhatOnePeerMoreOrLessDoesIsWhatIsDone) {
  const PeerRow& peer = now().crossCheck.rows.front();
  const std::optional<PeerEffect> effect = effectOf(now(), peer.id, Multiple::EvToEbitda);
  ASSERT_TRUE(effect);
  EXPECT_TRUE(effect->in);
  ASSERT_TRUE(session_->apply(
      setPeerChoice(now().caseOf(), peerChoiceKey(peer.id, Multiple::EvToEbitda), "out", PeerChoice{false, "tried"})));
  EXPECT_DOUBLE_EQ(now().crossCheck.statistics.at(Multiple::EvToEbitda).median.value(), effect->medianThen.value());
  EXPECT_NEAR(value("peers_ebitda").value(), effect->impliedThen.value(), 1e-9);
  EXPECT_FALSE(effectOf(now(), "nobody", Multiple::EvToEbitda));
}

/// The close of a month end times the count of the year known then, over its earnings as first filed.
TEST_F(Methods, PastMultiplesStandOnWhatWasKnownThen) {
  const PastMultiples past = pastMultiples(now());
  ASSERT_FALSE(past.series.empty());
  const PastSeries& earnings = past.series.front();
  const auto at = std::find_if(earnings.points.begin(), earnings.points.end(), [](const PastMultiple& p) {
    return p.on > makeDate(2023, 3, 1) && p.on <= makeDate(2023, 3, 31);
  });
  ASSERT_NE(at, earnings.points.end());
  const auto year = now().years()[static_cast<size_t>(at->column)];
  EXPECT_EQ(yearOf(year.end), 2021) << "the year 2022 is known from April on";
  const std::optional<PricePoint> close = closeAt(now().market->prices, makeDate(2023, 3, 31));
  // No rate of that day is in the book: today's stands in, and the note says so.
  const double pence = now().given(model::Role::QuoteRate).figure.value();
  const double count = now().asFiled->at(now().model().find("shares"), at->column).value();
  const double income = now().asFiled->at(now().model().find("net_income_common"), at->column).value();
  EXPECT_NEAR(at->multiple, close->close / pence * count / income, 1e-9);
  EXPECT_THAT(past.note, HasSubstr("exchange rate"));
  EXPECT_TRUE(earnings.today.isNotMeaningful()) << "the last year known made a loss";
  const std::vector<PastYear> years = pastYears(earnings);
  ASSERT_GE(years.size(), 10u);
  for (const PastYear& y : years) {
    EXPECT_LE(y.low, y.mean);
    EXPECT_LE(y.mean, y.high);
  }
}

TEST_F(Methods, TheExitReturnIsItsOwnDefinition) {
  for (int lane = 0; lane < 3; ++lane) {
    const ExitReturn of = exitReturn(now(), lane);
    ASSERT_TRUE(of.yearly.hasValue()) << of.yearly.reason();
    const Evaluation& e = *now().evaluation;
    double worth = of.price.value() / std::pow(1 + of.yearly.value(), of.years);
    for (int t = 0; t < of.years; ++t)
      worth += e.figure("exit_dividends_year", e.layout().historyYears + t, lane).value() /
               std::pow(1 + of.yearly.value(), t + 1);
    EXPECT_NEAR(worth, now().given(model::Role::Price).figure.value(), 1e-8);
  }
}

/// The past of the same figure, whichever the exit is of; with the reason that the multiple was given.
TEST_F(Methods, TheExitMultipleStandsBesideItsOwnPastAndWhatIsJustified) {
  const PastMultiples past = pastMultiples(now());
  Provenance why = session_->said("half of the way back to the median");
  ASSERT_TRUE(session_->apply(setLevel(now().caseOf(), now().model(), kBase, "exit_return_multiple", 12, why)));
  const ExitBeside of = exitBeside(now());
  EXPECT_EQ(of.label, past.series.front().label);
  EXPECT_DOUBLE_EQ(of.upper.value(), past.series.front().upperQuartile.value());
  EXPECT_NEAR(of.scenarios[1].overMedian.value(), 12 / past.series.front().median.value() - 1, 1e-12);
  EXPECT_NEAR(of.scenarios[1].overJustified.value(), 12 / now().evaluation->constant("exit_justified", 1).value() - 1,
              1e-12);
  EXPECT_EQ(of.scenarios[1].reason, "half of the way back to the median");
  const auto chosen = [&](double option) {
    EXPECT_TRUE(session_->apply(setInput(now().caseOf(), now().model(), kBase, "exit_return_of", option, {})));
    return exitBeside(now());
  };
  EXPECT_EQ(chosen(3).label, "EV to EBITDA");
  EXPECT_TRUE(chosen(2).median.isAbsent()) << "no past of operating cash flow is shown";
  // On the path board the same past is its evidence, by the year that was known.
  chosen(0);
  const DriverEvidence e = evidenceOf(now(), now().model().find("exit_return_multiple"), 1);
  EXPECT_EQ(e.history.size(), now().years().size());
  EXPECT_GT(e.spread.count, 5);
  EXPECT_GT(e.peers.count, 5);
}

/// Counts at a day are balances; the average over a year is filed for the year.
TEST_F(Methods, AnAverageCountOfSharesIsToldApartFromOneAtADay) {
  for (const bool average : {false, true}) {
    const std::string path = folder_.file(average ? "average.zledger" : "day.zledger");
    std::string facts = test::PlainCompany{}.facts();
    for (size_t at = 0; average && (at = facts.find("shares,,,", at)) != std::string::npos; ++at)
      facts.replace(at, 9, "shares,," + facts.substr(at + 9, 4) + "-01-01,");
    ASSERT_TRUE(Session::import(path, "mills", {{"f.csv", facts}}, resources_, test::testDesk()));
    const auto session = Session::open(path, "mills", resources_, test::testDesk());
    const auto& findings = (*session)->now()->findings();
    EXPECT_EQ(std::any_of(findings.begin(), findings.end(),
                          [](const Finding& f) { return f.monitor == "count of shares is an average"; }),
              average);
    EXPECT_THAT((*session)->now()->given(model::Role::SharesNow).source, HasSubstr(average ? "average" : "close"));
  }
}

/// A stranger that earns 110 on 10 shares, and two peers at 10 and 20 times earnings: 15 times 11 a share.
TEST_F(Methods, AStrangerIsWorthWhatItsPeersMakeOfItsEarnings) {
  const std::string path = folder_.file("mills.zledger");
  std::vector<ImportFile> files = test::PlainCompany{}.files();
  std::string peers =
      "peer,name,currency,price_currency,minor_per_major,price,price_date,shares,debt,leases,preferred,minorities,"
      "pension,"
      "cash,associates,year_end,revenue,ebitda,net_income\n";
  for (const auto& [name, price] : {std::pair("oak", 50), std::pair("elm", 100)}) {
    peers += std::string(name) + "," + name + ",USD,USD,1," + std::to_string(price) +
             ",2025-03-31,10,0,0,0,0,0,0,0,2024-12-31,900,90,50\n";
  }
  files.push_back({"peers.csv", peers});
  const auto brought = Session::import(path, "umber-mills", files, resources_, test::testDesk());
  ASSERT_TRUE(brought) << brought.error().text();
  session_ = std::move(*Session::open(path, "", resources_, test::testDesk()));
  EXPECT_NEAR(value("peers_earnings").value(), 15 * 110.0 / 10, 1e-9);
  EXPECT_THAT(now().givens.at("peers_price_to_earnings_median").source, HasSubstr("of 2 peers that count"));
}

TEST_F(Methods, APeerTakenOutMovesTheValueInEveryOutputAtOnce) {
  Case c = now().caseOf();
  for (const PeerRow& row : now().crossCheck.rows)
    c.peers[peerChoiceKey(row.id, Multiple::EvToEbitda)] = {false, "gone"};
  ASSERT_TRUE(session_->apply({c, "No peers"}));
  EXPECT_EQ(value("peers_ebitda").reason(), "no peer counts");
  EXPECT_EQ(valueJson(now())["scenarios"][1]["methods"]["peers_ebitda"]["value"]["absent"], "no peer counts");
  EXPECT_THAT(valueText(now()), HasSubstr("Peers, price to earnings"));
}

TEST_F(Methods, TheHeadlineFollowsTheChoiceThatLeadsToAMethod) {
  const auto& m = now().model();
  EXPECT_EQ(now().evaluation->leadingMethod(1)->name, "perpetual_growth");
  ASSERT_TRUE(session_->apply(setInput(now().caseOf(), m, "base", "terminal_choice", 1, session_->said(""))));
  EXPECT_EQ(now().caseOf().base().inputs.at("terminal_choice").option, "exit_multiple") << "kept by name";
  EXPECT_EQ(now().evaluation->leadingMethod(1)->name, "exit_multiple");
  EXPECT_EQ(now().evaluation->constant(model::Role::ValuePerShare, 1), value("exit_multiple"));
}

TEST_F(Methods, PublishedSetsKeepEveryMethodsValue) {
  ASSERT_TRUE(session_->apply(publish(now(), "spring", session_->said("first"))));
  const PublishedSet& set = now().caseOf().published.back();
  for (const model::Method& method : now().model().methods) {
    const Figure figure = now().evaluation->constant(method.value, 1);
    EXPECT_EQ(set.methods.count(method.name), figure.hasValue() ? 1u : 0u) << method.name;
    if (!figure.hasValue()) continue;
    EXPECT_EQ(set.methods.at(method.name), figure.value()) << method.name;
  }
  const std::vector<PublishedLine> lines = publishedBeside(now(), "spring");
  const auto line = std::find_if(lines.begin(), lines.end(),
                                 [](const PublishedLine& l) { return l.label == "Peers, enterprise value to EBITDA"; });
  ASSERT_NE(line, lines.end());
  EXPECT_EQ(line->change.value(), 0);
}

TEST_F(Methods, AModelThatMeansNothingToTheProgramRestsAndBreaksNothing) {
  session_.reset();
  const auto resources = test::kitsWithoutMeaning(folder_.file("bare"));
  ASSERT_NE(resources, nullptr);
  auto opened = Session::open(book(), "", resources, test::testDesk());
  ASSERT_TRUE(opened) << opened.error().text();
  const Snapshot& s = *(*opened)->now();
  EXPECT_EQ(s.model().restingFeatures().size(), model::kRoles);
  EXPECT_THAT(s.evaluation->constant(model::Role::ValuePerShare, 1).reason(), HasSubstr("no row of the model means"));
  EXPECT_THAT(s.given(model::Role::Price).figure.reason(), HasSubstr("does not ask for it"));
  EXPECT_EQ(s.evaluation->leadingMethod(1), nullptr);
  EXPECT_TRUE(s.evaluation->constant("enterprise_value", 1).isAbsent())
      << "without the share of the year still to come";
  EXPECT_NO_THROW({
    valueText(s);
    valueJson(s);
    findingsText(s);
    statementsText(s, 1);
    reviewText(s);
    factsText(s);
    interimText(s, Basis::Trailing);
  });
  ASSERT_TRUE((*opened)->apply(setHorizon(s.caseOf(), 7)));
  ASSERT_TRUE((*opened)->undo());
}

}  // namespace
}  // namespace zl::services
