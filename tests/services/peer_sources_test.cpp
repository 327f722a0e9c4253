// Peers that are companies of the same book, sets of peers by name, the company as the sum of its parts, and why its
// multiple is another than theirs.

#include <gmock/gmock.h>

#include <cmath>
#include <numeric>
#include <tuple>

#include "core/capital/rates.h"
#include "core/model/peer_multiple.h"
#include "exchange/json/case_json.h"
#include "services/edits/peer_edits.h"
#include "services/intake/market.h"
#include "services/reports/peer_tables.h"
#include "services/views/dividend_view.h"
#include "services/views/outside_multiples.h"
#include "services/views/parts_view.h"
#include "services/views/past_multiples.h"
#include "services/views/peer_view.h"
#include "services/views/why_differs.h"
#include "tests/support/plain_company.h"

namespace zl::services {
namespace {

using testing::Contains;
using testing::HasSubstr;

class PeerSources : public test::DemoBook {
 protected:
  void SetUp() override {
    DemoBook::SetUp();
    // A dollar company: 1,000 thousand of revenue, then a tenth more; ten shares at 12,000 each.
    test::addCompany(book(), resources_, "umber-mills", "Umber Mills Inc.", {"USD", 1000, 1.1, 2023, 3, 12000});
    session_ = of("vessingholt");
  }
  [[nodiscard]] std::unique_ptr<Session> of(const char* company) const {
    auto session = Session::open(book(), company, resources_, test::testDesk());
    EXPECT_TRUE(session) << (session ? "" : session.error().text());
    return std::move(*session);
  }
  [[nodiscard]] const Snapshot& now() const { return *session_->now(); }
  [[nodiscard]] const PeerRow* peer(const std::string& id) const {
    for (const PeerRow& row : now().crossCheck.rows) {
      if (row.id == id) return &row;
    }
    return nullptr;
  }
  [[nodiscard]] Figure multiple(const std::string& id, Multiple m) const { return peer(id)->cells.at(m).multiple; }
  [[nodiscard]] std::vector<std::string> findings() const {
    std::vector<std::string> all;
    for (const Finding& f : now().findings()) all.push_back(now().wordsOf(f));
    return all;
  }

  std::unique_ptr<Session> session_;
};

TEST_F(PeerSources, ACompanyOfTheBookIsAPeerWithItsOwnFigures) {
  ASSERT_TRUE(session_->peerOfBook("umber-mills", true, "the same mills"));
  ASSERT_NE(peer("umber-mills"), nullptr);
  // 2025: revenue 1,210,000, net income 133,100, EBITDA = 1000 - 600 - 200 of a thousand = 242,000, EBIT 181,500,
  // equity 726,000, cash 121,000, no debt; ten shares at 12,000 are 120,000.
  EXPECT_NEAR(multiple("umber-mills", Multiple::PriceToEarnings).value(), 120000 / 133100.0, 1e-9);
  EXPECT_NEAR(multiple("umber-mills", Multiple::PriceToSales).value(), 120000 / 1210000.0, 1e-9);
  EXPECT_NEAR(multiple("umber-mills", Multiple::PriceToBook).value(), 120000 / 726000.0, 1e-9);
  EXPECT_EQ(multiple("umber-mills", Multiple::EvToEbitda).reason(), "more net cash than market value");
  const auto told = std::find_if(now().market->peers.begin(), now().market->peers.end(),
                                 [](const Peer& p) { return p.id == "umber-mills"; });
  EXPECT_EQ(told->source, "a company of this book, from its own statements");
  EXPECT_EQ(told->years.size(), 3u);
  EXPECT_NEAR(told->years.back().dividends.value(), 133100, 1e-9);
  ASSERT_TRUE(session_->undo());
  EXPECT_EQ(peer("umber-mills"), nullptr);
  ASSERT_TRUE(session_->redo());
  ASSERT_NE(peer("umber-mills"), nullptr);
  ASSERT_TRUE(session_->peerOfBook("umber-mills", false, "no longer alike"));
  EXPECT_EQ(peer("umber-mills"), nullptr);
}

TEST_F(PeerSources, WhatItsOwnAnalystChangesShowsHere) {
  ASSERT_TRUE(session_->peerOfBook("umber-mills", true, ""));
  const auto theirs = of("umber-mills");
  ASSERT_TRUE(theirs->typeFigure(kPriceSeries, makeDate(2026, 4, 30), 24000, "twice"));
  const auto news = session_->refresh();
  ASSERT_TRUE(news);
  EXPECT_EQ(*news, Session::News::Company);
  EXPECT_NEAR(multiple("umber-mills", Multiple::PriceToEarnings).value(), 240000 / 133100.0, 1e-9);
}

TEST_F(PeerSources, ItStandsAtItsCloseOfTheSubjectsValuationDate) {
  ASSERT_TRUE(session_->peerOfBook("umber-mills", true, ""));
  const auto theirs = of("umber-mills");
  ASSERT_TRUE(theirs->typeFigure(kPriceSeries, makeDate(2026, 6, 30), 24000, "twice, later"));
  ASSERT_TRUE(session_->refresh());
  EXPECT_NEAR(multiple("umber-mills", Multiple::PriceToEarnings).value(), 120000 / 133100.0, 1e-9)
      << "the subject stands on 2026-04-30";
  ASSERT_TRUE(session_->apply(setValuationDate(now().caseOf(), makeDate(2026, 7, 1))));
  EXPECT_NEAR(multiple("umber-mills", Multiple::PriceToEarnings).value(), 240000 / 133100.0, 1e-9);
  ASSERT_TRUE(session_->apply(setValuationDate(now().caseOf(), makeDate(2026, 3, 30))));
  EXPECT_THAT(multiple("umber-mills", Multiple::PriceToEarnings).reason(), HasSubstr("first close, of 2026-03-31"));
}

/// Another company's set: its members are candidates here, it follows what its analyst makes of it, and it is told of
/// where it goes.
TEST_F(PeerSources, ASetIsSharedAndFollowed) {
  const auto theirs = of("umber-mills");
  ASSERT_TRUE(theirs->typeTable("peers",
                                "name\tprice\tcurrency\tshares (units)\tnet income (units)\trevenue (units)\tyear end\n"
                                "Orvane Works\t10\tUSD\t100\t50\t900\t2025-12-31\n"
                                "Calder Spun\t30\tUSD\t100\t100\t900\t2025-12-31",
                                "Type peers"));
  ASSERT_TRUE(theirs->apply(setPeerSet(theirs->now()->caseOf(), "mills", {"orvane-works"})));
  EXPECT_THAT(*session_->setsOfOthers(),
              testing::ElementsAre(std::pair<std::string, std::string>("umber-mills", "mills")));
  EXPECT_THAT(session_->shareSet("umber-mills", "looms", true, "").error().text(), HasSubstr("no set of peers looms"));
  ASSERT_TRUE(session_->shareSet("umber-mills", "mills", true, "the same trade"));
  EXPECT_THAT(session_->shareSet("umber-mills", "mills", true, "").error().text(), HasSubstr("shared already"));
  ASSERT_NE(peer("orvane-works"), nullptr);
  EXPECT_EQ(peer("calder-spun"), nullptr) << "in no set that is shared";
  ASSERT_TRUE(session_->apply(usePeerSet(now().caseOf(), "umber-mills/mills")));
  const auto earnings = [&] { return now().crossCheck.statistics.at(Multiple::PriceToEarnings); };
  EXPECT_EQ(earnings().count, 1);
  EXPECT_NEAR(earnings().median.value(), 20, 1e-9);
  ASSERT_TRUE(theirs->apply(setPeerSet(theirs->now()->caseOf(), "mills", {"orvane-works", "calder-spun"})));
  ASSERT_TRUE(session_->refresh());
  EXPECT_NEAR(earnings().median.value(), 25, 1e-9) << "20 and 30";
  session_ = of("vessingholt");
  EXPECT_NEAR(earnings().median.value(), 25, 1e-9) << "kept";
  ASSERT_TRUE(theirs->apply(setPeerSet(theirs->now()->caseOf(), "mills", {})));
  ASSERT_TRUE(session_->refresh());
  EXPECT_EQ(earnings().count, 0);
  EXPECT_THAT(findings(), Contains(HasSubstr("the set 'mills' of umber-mills")));
  ASSERT_TRUE(session_->apply(usePeerSet(now().caseOf(), "")));
  ASSERT_TRUE(session_->shareSet("umber-mills", "mills", false, ""));
  EXPECT_EQ(peer("orvane-works"), nullptr);
  EXPECT_GT(earnings().count, 1);
}

TEST_F(PeerSources, AMultipleOfAnyRowReadsCompaniesOfTheBookAndTypedFigures) {
  ASSERT_TRUE(session_->peerOfBook("umber-mills", true, ""));
  const model::Model& m = now().model();
  const auto receivables = model::multipleOfRow(m[m.find("receivables")], false, model::PeerMultiple::Of::Trailing);
  ASSERT_TRUE(session_->apply(addOwnMultiple(now().caseOf(), receivables, {})));
  const Multiple own = now().crossCheck.multiples.back();
  EXPECT_EQ(multipleName(own), "price_to_receivables");
  EXPECT_NEAR(multiple("umber-mills", own).value(), 120000 / 121000.0, 1e-9) << "a tenth of its revenue of 1,210,000";
  EXPECT_THAT(multiple("sorrelund", own).reason(), HasSubstr("does not give receivables"));
  const std::string label = m[m.find("receivables")].label;
  ASSERT_TRUE(session_->typeTable("peers", "name\t" + label + " (millions)\nSorrelund Process AB\t88", "Type"));
  EXPECT_NEAR(multiple("sorrelund", own).value(), 18.4 * 44 / 88, 1e-9);
  EXPECT_THAT(multiplesOf(now(), MultipleGroup::Chosen), Contains(own));
  // As it is implied: the mean of the three times the subject's own.
  const int base = now().evaluation->layout().baseColumn();
  const double amount = now().history->at(now().model().find("receivables"), base).value();
  EXPECT_NEAR(multiple("ostravelle", own).value(), 22.6 * 18 / 31.98, 1e-9) << "the demo's own second company";
  const double mean = (120000 / 121000.0 + 18.4 * 44 / 88 + 22.6 * 18 / 31.98) / 3;
  const Evaluation& e = *now().evaluation;
  EXPECT_NEAR(e.constant("by_price_to_receivables_mean", 1).value(),
              mean * amount / e.constant("diluted_shares", 1).value() * e.constant("quote_rate", 1).value(), 1e-6);
  EXPECT_FALSE(session_->apply(addOwnMultiple(now().caseOf(), receivables, {}))) << "twice the same";
  ASSERT_TRUE(session_->apply(showMultiples(now().caseOf(), {"price-sales"})));
  EXPECT_THAT(multiplesOf(now(), MultipleGroup::Chosen), testing::ElementsAre(Multiple::PriceToSales));
  ASSERT_TRUE(session_->apply(dropOwnMultiple(now().caseOf(), "price_to_receivables", {})));
  EXPECT_EQ(now().crossCheck.multiples.size(), shippedMultiples().size());
  EXPECT_EQ(now().caseOf().ownRows.count(now().caseOf().model), 0u);
}

/// Of one peer the median is its own: its price moved by its series, times its count, over the year filed by then.
TEST_F(PeerSources, ThePastStandsBesideThePeersOfThen) {
  ASSERT_TRUE(session_->apply(setPeerSet(now().caseOf(), "one", {"sorrelund"})));
  ASSERT_TRUE(session_->apply(usePeerSet(now().caseOf(), "one")));
  const PastMultiples past = pastMultiples(now());
  const PastSeries& sales = past.series[1];
  ASSERT_GT(sales.monthsBeside, 12);
  const auto at = std::find_if(sales.points.begin(), sales.points.end(),
                               [](const PastMultiple& p) { return p.on > makeDate(2025, 9, 1) && p.peersCount > 0; });
  ASSERT_NE(at, sales.points.end());
  const MarketSeries* series = seriesNamed(now().market->series, "Sorrelund Process AB");
  if (series == nullptr) series = seriesNamed(now().market->series, "sorrelund");
  ASSERT_NE(series, nullptr);
  const auto level = [&](Date day) {
    double last = 0;
    for (const SeriesPoint& p : series->points) last = p.date <= day ? p.level : last;
    return last;
  };
  const double price = 18.4 * level(at->on) / level(makeDate(2026, 4, 30));
  EXPECT_NEAR(at->peers, price * 44e6 / 588e6, 1e-9) << "the year 2024 is the last that was filed";
  EXPECT_EQ(at->peersCount, 1);
  EXPECT_NEAR(sales.gapToday.value(), sales.today.value() / sales.peersToday.value() - 1, 1e-12);
}

TEST_F(PeerSources, AnOwnPastMultipleBecomesAMethod) {
  const PastSeries sales = pastMultiples(now()).series[1];
  ASSERT_TRUE(session_->apply(adoptOwnPast(
      now().caseOf(), now().model(), kBase, 1,
      {sales.median.value(), sales.lowerQuartile.value(), sales.upperQuartile.value()}, session_->said("as it was"))));
  const Evaluation& e = *now().evaluation;
  const double revenue = now().history->at(now().model().find("revenue"), e.layout().baseColumn()).value();
  const double perShare = e.constant("quote_rate", 1).value() / e.constant("diluted_shares", 1).value();
  EXPECT_NEAR(e.constant("past_value", 1).value(), sales.median.value() * revenue * perShare, 1e-6);
  EXPECT_NEAR(e.constant("past_value_high", 1).value(), sales.upperQuartile.value() * revenue * perShare, 1e-6);
}

TEST_F(PeerSources, WhereRevenueIsFromIsHeldAgainstThePeers) {
  ASSERT_TRUE(session_->typeTable("peers",
                                  "name\tregions\tbusinesses\tremark\n"
                                  "Sorrelund Process AB\tWESTERN EUROPE 100 %\tnonsense\tas told",
                                  "Type"));
  const Subject& subject = now().crossCheck.subject;
  ASSERT_FALSE(subject.regions.empty());
  ASSERT_FALSE(subject.businesses.empty());
  for (const RevenueMix* mix : {&subject.regions, &subject.businesses}) {
    double sum = 0;
    for (const auto& [name, share] : *mix) sum += share;
    EXPECT_NEAR(sum, 1, 1e-9);
  }
  const auto likeness = likenessOfPeers(now());
  const auto sorrelund =
      std::find_if(likeness.begin(), likeness.end(), [](const Likeness& l) { return l.id == "sorrelund"; });
  EXPECT_NEAR(sorrelund->apart[4].value(), 1 - subject.regions.at("Western Europe"), 1e-9);
  EXPECT_TRUE(sorrelund->apart[5].isAbsent()) << "what is no mix is left out, and said";
}

TEST_F(PeerSources, WhatCannotBeAPeerIsRefusedAndChangesNothing) {
  const size_t before = now().market->peers.size();
  EXPECT_THAT(session_->peerOfBook("nobody", true, "").error().text(), HasSubstr("no company 'nobody'"));
  EXPECT_THAT(session_->peerOfBook("vessingholt", true, "").error().text(), HasSubstr("no peer of itself"));
  EXPECT_THAT(session_->peerOfBook("umber-mills", false, "").error().text(), HasSubstr("no peer from this book"));
  ASSERT_TRUE(session_->peerOfBook("umber-mills", true, ""));
  EXPECT_THAT(session_->peerOfBook("umber-mills", true, "").error().text(), HasSubstr("already"));
  EXPECT_EQ(now().market->peers.size(), before + 1);
}

TEST_F(PeerSources, APeerThatCannotBeReadIsToldOfAndStopsNothing) {
  ASSERT_TRUE(session_->peerOfBook("umber-mills", true, ""));
  test::spoilCase(book(), "umber-mills");
  session_ = of("vessingholt");
  EXPECT_EQ(peer("umber-mills"), nullptr);
  EXPECT_TRUE(now().evaluation->constant(model::Role::ValuePerShare, 1).hasValue());
  EXPECT_THAT(findings(), Contains(HasSubstr("umber-mills: case of umber-mills")));
}

TEST_F(PeerSources, TwoThatArePeersOfEachOtherEndNowhere) {
  ASSERT_TRUE(session_->peerOfBook("umber-mills", true, ""));
  const auto theirs = of("umber-mills");
  ASSERT_TRUE(theirs->peerOfBook("vessingholt", true, ""));
  EXPECT_EQ(theirs->now()->market->peers.size(), 1u);
  EXPECT_EQ(theirs->now()->market->peers.front().name, "Vessingholt N.V.");
}

TEST_F(PeerSources, OfASetItsMembersAloneCount) {
  std::set<std::string> all;
  for (const PeerRow& row : now().crossCheck.rows) all.insert(row.id);
  const auto medians = [&] {
    std::vector<Figure> list;
    for (const MultipleRule& rule : shippedMultiples())
      list.push_back(now().crossCheck.statistics.at(rule.multiple).median);
    return list;
  };
  const std::vector<Figure> before = medians();
  ASSERT_TRUE(session_->apply(setPeerSet(now().caseOf(), "everybody", all)));
  ASSERT_TRUE(session_->apply(usePeerSet(now().caseOf(), "everybody")));
  EXPECT_EQ(medians(), before) << "a set of all is all";
  ASSERT_TRUE(session_->apply(setPeerSet(now().caseOf(), "two", {"sorrelund", "tamberwick"})));
  ASSERT_TRUE(session_->apply(usePeerSet(now().caseOf(), "two")));
  const MultipleStatistics& of = now().crossCheck.statistics.at(Multiple::EvToEbitda);
  EXPECT_EQ(of.count, 2);
  EXPECT_EQ(
      of.median.value(),
      (multiple("sorrelund", Multiple::EvToEbitda).value() + multiple("tamberwick", Multiple::EvToEbitda).value()) / 2);
  EXPECT_EQ(peer("hoshinogi")->cells.at(Multiple::EvToEbitda).reason(), "not in the set 'two'");
  const auto again = exchange::caseFromJson(exchange::toJson(now().caseOf()), "test");
  ASSERT_TRUE(again) << again.error().text();
  EXPECT_EQ(*again, now().caseOf());
  ASSERT_TRUE(session_->apply(setPeerSet(now().caseOf(), "one", {"sorrelund"})));
  ASSERT_TRUE(session_->apply(usePeerSet(now().caseOf(), "one")));
  EXPECT_THAT(findings(), Contains(HasSubstr("rests on Sorrelund Process AB alone")));
  ASSERT_TRUE(session_->apply(setPeerSet(now().caseOf(), "one", {})));
  EXPECT_EQ(medians(), before) << "the set in use went, so all count";
  EXPECT_FALSE(session_->apply(usePeerSet(now().caseOf(), "nowhere")));
}

/// Two parts that file revenue and profit, one cost of no part; worth worked by hand.
TEST_F(PeerSources, ThePartsAreWorthTheirMultiples) {
  const std::vector<CutOfParts> cuts = cutsOfParts(*now().ground, {});
  ASSERT_FALSE(cuts.empty());
  const CutOfParts& cut = cuts.front();
  const std::map<std::string, PartChoice> demos = now().caseOf().parts;
  for (const auto& [key, part] : demos) ASSERT_TRUE(session_->apply(setPart(now().caseOf(), key, key, {})));
  ASSERT_EQ(cut.parts.size(), 2u) << cut.label;
  EXPECT_THAT(partsView(now()).words, HasSubstr("No sum yet: no multiple is chosen for"));
  const double first = cut.parts[0].revenue.value(), second = cut.parts[1].revenue.value();
  const auto choose = [&](const std::string& key, PartChoice::Of of, double times) {
    return session_->apply(setPart(now().caseOf(), key, key, PartChoice{of, times, session_->said("by hand")}));
  };
  ASSERT_TRUE(choose(cut.keys[0], PartChoice::Of::Revenue, 0.5));
  ASSERT_TRUE(choose(cut.keys[1], PartChoice::Of::Revenue, 1.25));
  const double parts = 0.5 * first + 1.25 * second;
  const Figure whole = now().evaluation->constant("parts_enterprise_value", 1);
  ASSERT_TRUE(whole.hasValue()) << whole.reason();
  EXPECT_NEAR(whole.value(), parts, 1e-6) << "the demo's parts bear all costs";
  const Evaluation& e = *now().evaluation;
  for (int lane = 0; lane < e.scenarios(); ++lane) {
    EXPECT_NEAR(e.constant("parts_value", lane).value(),
                std::max(0.0, (whole.value() - e.constant("claims", lane).value()) /
                                  e.constant("diluted_shares", lane).value() * e.constant("quote_rate", lane).value()),
                1e-9);
  }
  const auto again = exchange::caseFromJson(exchange::toJson(now().caseOf()), "test");
  ASSERT_TRUE(again);
  EXPECT_EQ(*again, now().caseOf());
  EXPECT_FALSE(choose(cut.keys[0], PartChoice::Of::Revenue, -1)) << "a multiple is above nought";
  ASSERT_GT(cuts.size(), 1u);
  ASSERT_TRUE(choose(cuts[1].keys[0], PartChoice::Of::Revenue, 1));
  EXPECT_THAT(now().evaluation->constant("parts_enterprise_value", 1).reason(), HasSubstr("parts of two cuts"));
}

TEST_F(PeerSources, APartWithoutAPositiveFigureSaysWhatToDo) {
  const Part loss{"Loss", Figure::of(100), Figure::of(-5), PartChoice{PartChoice::Of::Ebit, 8, {}}};
  const Part fine{"Fine", Figure::of(200), Figure::of(30), PartChoice{PartChoice::Of::Ebit, 10, {}}};
  EXPECT_THAT(zl::sumOfParts({loss, fine}, Figure::of(25), {}).enterprise.reason(), HasSubstr("value it by revenue"));
  // 30 x 10 + 100 x 0.4 - 3 x 5 of costs of no part: the parts' profit 25 less the whole's 20.
  Part byRevenue = loss;
  byRevenue.choice = PartChoice{PartChoice::Of::Revenue, 0.4, {}};
  const SumOfParts sum = zl::sumOfParts({byRevenue, fine}, Figure::of(20), PartChoice{PartChoice::Of::Ebit, 3, {}});
  EXPECT_NEAR(sum.enterprise.value(), 325, 1e-12);
  EXPECT_NEAR(sum.parts[1].share.value(), 300 / 340.0, 1e-12);
  EXPECT_NEAR(zl::sumOfParts({byRevenue, fine}, Figure::of(25), {}).enterprise.value(), 340, 1e-12);
}

TEST_F(PeerSources, HowAlikeAPeerIsIsItsMeasuresLessTheSubjects) {
  const std::vector<Likeness> all = likenessOfPeers(now());
  const auto of = [&](const std::string& id) {
    return *std::find_if(all.begin(), all.end(), [&](const Likeness& l) { return l.id == id; });
  };
  const Likeness peer = of("sorrelund");  // of the demo's table: 611 m after 588 m of revenue
  const int base = now().evaluation->layout().baseColumn();
  const model::RowId revenue = now().model().find(model::Role::Revenue);
  const double own = now().history->at(revenue, base).value();
  EXPECT_NEAR(peer.size.value(), 611e6 / own, 1e-9);
  EXPECT_NEAR(peer.apart[0].value(), 611.0 / 588 - own / now().history->at(revenue, base - 1).value(), 1e-9);
  EXPECT_FALSE(peer.unlike[0]);
  EXPECT_TRUE(of("quillhaven").unlike[0]) << "far larger";
  EXPECT_TRUE(of("calderbrune").unlike[1]) << "just past a merger";
  ASSERT_TRUE(session_->apply(setLimit(now().caseOf(), "peer out of scale", 20)));
  EXPECT_FALSE(likenessOfPeers(now())[3].unlike[0]) << "the limit is the analyst's to move";
  EXPECT_THAT(findings(), Contains(HasSubstr("peers unlike the subject: counted, and apart")));
}

TEST_F(PeerSources, HowFarTheImpliedValuesLieApartIsSaidWithItsReason) {
  const std::string words = impliedWords(now());
  const ImpliedSpread spread = impliedSpread(now());
  EXPECT_GT(spread.low.value(), 0) << "the floor under a share is no value";
  EXPECT_THAT(words, HasSubstr(" times apart, least by "));
  for (const Multiple m : spread.nothing) EXPECT_THAT(words, HasSubstr(multipleLabel(m)));
}

TEST_F(PeerSources, SectorsDealsAndOthersAreSetBesideTheSubject) {
  const size_t sectors = outsideMultiples(now()).sectors.size();
  for (const auto& [name, day, figure] : {std::tuple("sector ev-ebitda Stone mills", makeDate(2024, 3, 31), 8.0),
                                          {"sector EV/EBITDA Stone mills", makeDate(2025, 3, 31), 11.0},
                                          {"sector EV to EBITDA Stone mills", makeDate(2026, 3, 31), 9.0},
                                          {"sector ev-ebitda Stone mills", makeDate(2027, 3, 31), 99.0},
                                          {"deal ev-sales Umber Mills", makeDate(2025, 6, 1), 1.4},
                                          {"deal for Nobody", makeDate(2025, 6, 1), 3.0}}) {
    ASSERT_TRUE(session_->typeFigure(name, day, figure, "typed"));
  }
  const OutsideView view = outsideMultiples(now());
  ASSERT_EQ(view.sectors.size(), sectors + 1);
  const auto mills = std::find_if(view.sectors.begin(), view.sectors.end(),
                                  [](const OutsideMultiples& of) { return of.label == "Stone mills, EV to EBITDA"; });
  ASSERT_NE(mills, view.sectors.end());
  EXPECT_EQ(mills->count, 3) << "by id, mark or label; what comes after the valuation date is not known yet";
  EXPECT_EQ(mills->median.value(), 9);
  EXPECT_EQ(mills->latest.value(), 9);
  EXPECT_NEAR(mills->percentile.value(), 0.5, 1e-12);
  const Evaluation& e = *now().evaluation;
  const double ebitda = e.figure("basis_ebitda", e.layout().baseColumn(), 1).value();
  EXPECT_NEAR(mills->implied.value(),
              (9 * ebitda - e.constant("claims", 1).value()) / e.constant("diluted_shares", 1).value() *
                  e.constant("quote_rate", 1).value(),
              1e-9);
  const auto deal = std::find_if(view.deals.begin(), view.deals.end(),
                                 [](const OutsideMultiples& of) { return of.multiple == Multiple::EvToSales; });
  ASSERT_NE(deal, view.deals.end());
  EXPECT_EQ(deal->points.back().whose, "Umber Mills");
  EXPECT_THAT(view.untold, Contains("deal for Nobody"));

  const size_t others = othersValues(now()).size();
  ASSERT_TRUE(session_->importFiles({{"others.csv",
                                      "item,year,low,mean,high,count,date,source,by\n"
                                      "value_per_share,2027,700,850,950,1,2026-02-01,\"Tolmark; cash flow\",analysts\n"
                                      "value_per_share,2027,,900,,1,2026-03-01,\"Tolmark; cash flow\",analysts\n"}}));
  const std::vector<OthersValue> all = othersValues(now());
  ASSERT_EQ(all.size(), others + 1) << "of one source the latest";
  const auto tolmark = std::find_if(all.begin(), all.end(), [](const OthersValue& of) { return of.mean == 900; });
  ASSERT_NE(tolmark, all.end());
  EXPECT_NEAR(tolmark->against.value(), now().evaluation->constant("value_per_share", 1).value() / 900 - 1, 1e-12);
}

/// The demo's company has paid once a year, and once from a sale of land.
TEST_F(PeerSources, WhatWasPaidIsToldByYearWithItsCover) {
  const DividendView view = dividendView(now());
  ASSERT_EQ(view.payments.size(), 8u);
  EXPECT_TRUE(view.payments[3].special);
  const auto year = [&](int number) {
    return *std::find_if(view.years.begin(), view.years.end(),
                         [&](const DividendYear& y) { return y.sum.year == number; });
  };
  EXPECT_EQ(year(2021).sum.regular, 18);
  EXPECT_EQ(year(2021).sum.special, 45);
  EXPECT_NEAR(year(2022).sum.growth.value(), 20.0 / 18 - 1, 1e-12);
  const Snapshot& s = now();
  const double earnings = s.history->at(s.model().find(model::Role::EarningsPerShare), 8).value();  // 2022
  EXPECT_NEAR(year(2022).cover.value(), earnings * s.given(model::Role::QuoteRate).figure.value() / 20, 1e-9);
  EXPECT_EQ(view.lastYear.value(), 7) << "of 9 May 2025; the next is not known yet";
  EXPECT_NEAR(view.yield.value(), 7 / s.given(model::Role::Price).figure.value(), 1e-12);
  session_ = of("umber-mills");
  EXPECT_THAT(dividendView(now()).words, HasSubstr("no series called 'umber-mills'"));
}

TEST_F(PeerSources, WhyTheMultipleDiffersAddsUp) {
  const WhyDiffers why = whyDiffers(now());
  ASSERT_TRUE(why.gap.whole.hasValue()) << why.gap.whole.reason();
  EXPECT_NEAR(why.gap.whole.value(), std::log(why.own.value() / why.peers.value()), 1e-12);
  double sum = why.gap.unexplained.value();
  for (const GroundOfGap& of : why.grounds) sum += of.part.value();
  EXPECT_NEAR(sum, why.gap.whole.value(), 1e-12);
  EXPECT_THAT(why.words, HasSubstr("not explained"));
  for (const Multiple m : {Multiple::PriceToSales, Multiple::EvToEbitda}) {
    const MultipleFit fit = fitAcrossPeers(now(), m);
    EXPECT_LE(fit.count, now().crossCheck.statistics.at(m).count);
    ASSERT_GE(fit.count, kFewestToFit);
    EXPECT_TRUE(fit.subjects.hasValue()) << fit.subjects.reason();
  }
  EXPECT_THAT(reportCsv(ratioFigures(now())), HasSubstr("why the multiple differs"));
}

}  // namespace
}  // namespace zl::services
