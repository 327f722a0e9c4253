#pragma once
// Comparable companies and their multiples.

#include <array>
#include <boost/container/flat_map.hpp>
#include <functional>
#include <map>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/outlook/case.h"
#include "core/peers/multiples.h"
#include "core/period/date.h"
#include "core/quantity/figure.h"

namespace zl {

/// How measures are taken, for the subject and its peers alike; the subject's own choice is in its
/// case, under the model's "One basis".
struct MeasureBasis {
  bool leasesAsDebt = true;    ///< else lease payments are an operating cost and no liability counts
  bool stockPayAsCost = true;  ///< else it is added back
  bool researchAsCost = true;  ///< else it is capital, written off over years
  friend bool operator==(const MeasureBasis&, const MeasureBasis&) = default;
};

/// One fiscal year of a peer, in its reporting currency. What the table does not give is absent.
struct PeerYear {
  Date end;
  Figure revenue;
  Figure ebitda = {};     ///< before one-offs, as the peer treats leases; stock pay and research are costs
  Figure netIncome = {};  ///< to common shareholders
  Figure ebit = {}, interest = {}, operatingCashFlow = {}, capex = {}, equity = {};
  Figure leaseCost = {};  ///< principal and interest, or rent
  Figure stockPay = {}, research = {};
  Figure nopat = {};                           ///< EBIT after the tax it bears, as filed or as the analyst sees it
  Figure intangibles = {};                     ///< goodwill and other intangibles
  Figure dividends = {};                       ///< paid to common shareholders
  std::map<std::string, Figure> further = {};  ///< what multiples of the analyst's own are of, by row of the model
};

/// A figure of a fiscal year as a peer table names it.
struct PeerColumn {
  const char* name;
  Figure PeerYear::*figure;
};
/// All of them, in the order of the view of the model that says which of its rows they are for a company of the book;
/// intangibles, which that view tells by way of tangible book, come last.
inline constexpr PeerColumn kPeerColumns[] = {
    {"revenue", &PeerYear::revenue},      {"ebitda", &PeerYear::ebitda},
    {"net_income", &PeerYear::netIncome}, {"ebit", &PeerYear::ebit},
    {"interest", &PeerYear::interest},    {"operating_cash_flow", &PeerYear::operatingCashFlow},
    {"capex", &PeerYear::capex},          {"equity", &PeerYear::equity},
    {"lease_cost", &PeerYear::leaseCost}, {"stock_pay", &PeerYear::stockPay},
    {"research", &PeerYear::research},    {"nopat", &PeerYear::nopat},
    {"dividends", &PeerYear::dividends},  {"intangibles", &PeerYear::intangibles}};
inline constexpr const char* kPeerYearsView = "as_peer_years";
/// What a peer table calls a further figure: this and the row of the model.
inline constexpr const char* kFurtherColumn = "row:";

/// Shares of revenue by region or by business, by the name in words as it is told.
using RevenueMix = std::map<std::string, double>;
/// "Europe 60 %; Asia 40 %". Empty where a part names no share, or they are more than the whole by over a point.
std::optional<RevenueMix> revenueMix(const std::string& text);

/// One peer. Claims are those of its last balance sheet, in its reporting currency.
struct Peer {
  std::string id;
  std::string name;
  std::string currency;       ///< reporting currency
  std::string priceCurrency;  ///< currency of the price, major unit
  double minorPerMajor = 1;   ///< the price's units in one major unit
  Figure price;               ///< in listing units
  Date priceDate{};
  Figure shares;  ///< diluted
  Figure debt, preferred, minorities, pension, cash, associates;
  Figure leases;                   ///< the liability; the analyst's estimate where the peer files rent
  bool filesRent = false;          ///< its EBITDA is after rent, no lease liability is on its balance sheet
  std::vector<PeerYear> years;     ///< filed, ascending by end
  std::vector<PeerYear> expected;  ///< what analysts expect of years after them, ascending by end
  /// Where its whole record of closes is at hand, in listing units, ascending: its price is then one of these.
  std::vector<std::pair<Date, double>> closes;
  RevenueMix regions, businesses;  ///< of its last fiscal year; empty where nobody says
  std::string remark;              ///< why it is comparable, or what is odd about it
  std::string source;              ///< where its figures are from, as the table or who typed it says
};

/// Months of a fiscal year that lie in the twelve compared.
struct MonthsOf {
  size_t year = 0;  ///< index; one past the last where the next year is not reported yet
  int months = 12;
};
/// How the twelve months that end at `target` are made of fiscal years: one, or two in a row; none
/// where no year ends inside them.
std::vector<MonthsOf> monthsInside(const std::vector<PeerYear>& years, Date target);

/// m/12 * FY_a + (12 - m)/12 * FY_b for the twelve months that end at `target`: FY_a ends inside
/// them, FY_b is the next; absent when FY_b is needed and missing, or no year ends inside.
Figure alignedMetric(const std::vector<PeerYear>& years, const std::function<Figure(const PeerYear&)>& metric,
                     Date target);

/// The peer's EBITDA of one year on the basis; absent, and says which, where the table lacks what
/// the change of basis needs.
Figure ebitdaOn(const MeasureBasis& basis, const Peer& peer, const PeerYear& year);

/// EBIT likewise; absent on a lease or research basis that the table cannot tell.
Figure ebitOn(const MeasureBasis& basis, const Peer& peer, const PeerYear& year);

/// What a multiple is of for a peer, in its reporting currency: twelve months that end so many years after `target`,
/// filed or expected; of a balance the last balance sheet; of a normal year its mean share of revenue in the filed
/// years times the revenue of the twelve months.
Figure metricOf(const MultipleRule& rule, const Peer& peer, const MeasureBasis& basis, Date target);

/// A peer's fiscal years laid along the twelve months that end with `target` and up to three years after it, once for
/// all multiples. Stands on the peer that it was made from.
class PeerTimeline {
 public:
  PeerTimeline(const Peer& peer, Date target);
  /// Of twelve months, as metricOf() says.
  [[nodiscard]] Figure aligned(const MultipleRule& rule, const MeasureBasis& basis) const;

 private:
  static constexpr int kTargets = 4;
  struct Twelve {
    const PeerYear *first = nullptr, *second = nullptr;
    int months = 0;  ///< of the first
  };
  template <class Metric>
  [[nodiscard]] Figure over(int ahead, const Metric& metric) const;
  [[nodiscard]] Figure normal(const MultipleRule& rule, const MeasureBasis& basis) const;

  const Peer& peer_;
  std::vector<const PeerYear*> all_;  ///< filed, then expected of later years
  std::array<Twelve, kTargets> twelve_;
};
Figure metricOf(const MultipleRule& rule, const Peer& peer, const MeasureBasis& basis, const PeerTimeline& timeline);

/// Spot rates by pair: units of `to` for one `from`. The same currency is 1; a pair that is quoted
/// neither way is crossed.
using SpotRates = std::map<std::pair<std::string, std::string>, double>;
Figure spot(const SpotRates& rates, const std::string& from, const std::string& to);
/// The currency that a pair is crossed through: of those quoted against both the one with the most pairs,
/// then the first by its letters. Empty where the pair is quoted, or nothing is quoted against both.
std::string crossOf(const SpotRates& rates, const std::string& from, const std::string& to);

/// Adds a table of peers to those there are: of a peer that is there every figure that the later table
/// gives stands, and its years come in by their end; what it leaves out stays.
void mergePeers(std::vector<Peer>& peers, const std::vector<Peer>& later);

/// The last close up to a day, of a peer with a record of closes; null before the first.
const std::pair<Date, double>* lastClose(const Peer& peer, Date day);
/// Its price is that close then; absent before the first. A peer without a record of closes stays at its one price.
void priceAt(Peer& peer, Date day);

/// Price times shares in the peer's reporting currency.
Figure marketEquity(const Peer& peer, const SpotRates& rates);
/// Market equity + debt + leases where they are debt + preferred + minorities + pension - cash -
/// associates.
Figure enterpriseValue(const Peer& peer, const SpotRates& rates, const MeasureBasis& basis);
/// The same upon a market equity that is known already.
Figure worthOfFirm(const Peer& peer, const Figure& equity, const MeasureBasis& basis);

/// What there is once for every multiple.
template <class T>
using PerMultiple = boost::container::flat_map<Multiple, T>;

/// One cell of the cross-check: a multiple, whether it counts, and why.
struct MultipleCell {
  Figure multiple;
  bool in = false;
  bool byHand = false;   ///< the analyst's choice, else the rules'
  bool outlier = false;  ///< beyond 1.5 interquartile ranges outside the quartiles (n >= 5)
  std::string said;      ///< what a choice or a rule says of a multiple that there is
  /// Why it counts or does not; empty where it counts as any other.
  [[nodiscard]] const std::string& reason() const { return multiple.hasValue() ? said : multiple.reason(); }
};

struct PeerRow {
  std::string id;
  std::string name;
  Figure revenue;  ///< aligned, in the subject's currency, for size
  bool outOfScale = false;
  std::string remark;
  PerMultiple<MultipleCell> cells;
};

struct MultipleStatistics {
  int count = 0;
  Figure low, lowerQuartile, median, mean, harmonicMean, upperQuartile, high;
  int harmonicCount = 0;
};

/// A peer with more than this times, or less than one such part of, the subject's revenue is out of scale, where the
/// analyst has set no other limit.
inline constexpr double kScaleLimit = 8.0;

/// What the subject brings: its own figures in its reporting currency.
struct Subject {
  std::string id;
  std::string name;
  std::string currency;
  Date target{};  ///< end of the twelve months that multiples are aligned to
  MeasureBasis basis{};
  Figure revenue;  ///< for size
  double scaleLimit = kScaleLimit;
  std::string set;                                   ///< the name of the peer set that counts; empty: all candidates
  std::optional<std::set<std::string>> members;      ///< of that set, by id
  std::vector<Multiple> multiples = shippedNames();  ///< that its model declares
  RevenueMix regions, businesses;                    ///< as filed; empty where nothing is
};

struct CrossCheck {
  Subject subject;
  std::vector<PeerRow> rows;
  std::vector<Multiple> multiples;  ///< in the order in which they are shown
  PerMultiple<MultipleStatistics> statistics;
};

/// The statistics that values are taken from, as model text and reports name them.
inline constexpr const char* kValuedStatistics[] = {"low", "median", "mean", "high"};
/// One of them; absent for a name that is none of them.
Figure statisticNamed(const MultipleStatistics& statistics, const std::string& name);

/// Peers' multiples and their statistics. What they imply for the subject is the model's to say, which they enter
/// as givens.
CrossCheck crossCheck(const Subject& subject, const std::vector<Peer>& peers, const SpotRates& rates,
                      const std::map<std::string, PeerChoice>& choices);

/// The key of a choice in Case::peers.
std::string peerChoiceKey(const std::string& peer, Multiple m);

}  // namespace zl
