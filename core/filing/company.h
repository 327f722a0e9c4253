#pragma once
// The company record: one consistent basis for all per-share figures.

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/period/date.h"

namespace zl {

/// One line of trading. A price of 450 in pence with minorPerMajor 100 is 4.50 of `currency`.
struct Listing {
  std::string unit;            ///< shown beside prices, "GBX"
  std::string currency;        ///< ISO 4217, "GBP"
  double minorPerMajor = 1;    ///< listing units in one unit of currency
  double sharesPerListed = 1;  ///< ordinary shares that one listed security stands for
  friend bool operator==(const Listing&, const Listing&) = default;
};

/// From this day on, `now` shares stand for `before` old ones: 2 for 1 doubles the count.
struct ShareSplit {
  Date on;
  double now = 1;
  double before = 1;
  friend bool operator==(const ShareSplit&, const ShareSplit&) = default;
};

/// A class of shares and what it may vote.
struct ShareClass {
  std::string name;
  double shares = 0;
  double votes = 1;    ///< per share
  std::string holder;  ///< who controls through it, may be empty
  friend bool operator==(const ShareClass&, const ShareClass&) = default;
};

/// Something that happened, marked on charts. `line` may be empty: it then concerns the company.
struct CompanyEvent {
  Date on;
  std::string what;
  std::string line;
  friend bool operator==(const CompanyEvent&, const CompanyEvent&) = default;
};

/// Borrowings that fall due in a year, in reporting currency.
struct DebtDue {
  int year = 0;
  double amount = 0;
  bool floating = false;
  std::string what;
  std::optional<double> rate = {};  ///< interest a year, where it is known
  friend bool operator==(const DebtDue&, const DebtDue&) = default;
};

/// A business bought (or sold: a negative price), in reporting currency.
struct Deal {
  Date on;
  std::string what;
  double price = 0;
  double goodwill = 0;
  double revenue = 0;  ///< it added in the first twelve months
  double profit = 0;   ///< EBIT it added in the first twelve months
  friend bool operator==(const Deal&, const Deal&) = default;
};

/// An operating or industry figure with a unit of its own, by fiscal year.
struct OperatingFigure {
  std::string name;
  std::string unit;
  std::vector<std::pair<int, double>> years;
  friend bool operator==(const OperatingFigure&, const OperatingFigure&) = default;
};

/// "ISIN" and its letters; of any register.
struct Identifier {
  std::string scheme;
  std::string value;
  friend bool operator==(const Identifier&, const Identifier&) = default;
};

/// Who typed a part of the record, when and why.
struct RecordNote {
  std::string reason;  ///< may be empty
  std::string author;
  std::string at;  ///< ISO 8601
  friend bool operator==(const RecordNote&, const RecordNote&) = default;
};

/// Options of one strike, besides the lot that the record names plainly.
struct OptionTranche {
  double count = 0;            ///< options, each on one ordinary share
  double strike = 0;           ///< in `unit` per ordinary share
  std::string unit = {};       ///< "GBX"; empty: the listing's
  std::optional<Date> expiry;  ///< they count until then
  std::string what = {};
  friend bool operator==(const OptionTranche&, const OptionTranche&) = default;
};

/// A convertible besides the one that the record names plainly, part of the filed borrowings.
struct Convertible {
  double shares = 0;  ///< ordinary shares on conversion
  double face = 0;    ///< in reporting currency
  std::optional<Date> due;
  std::string what = {};
  friend bool operator==(const Convertible&, const Convertible&) = default;
};

/// What a part of the company is called where a filing calls it otherwise.
struct PartName {
  std::string filed;
  std::string called;
  friend bool operator==(const PartName&, const PartName&) = default;
};

/// Who holds shares, as of a day.
struct Holding {
  std::string holder;
  double shares = 0;
  Date on;
  std::string source = {};
  friend bool operator==(const Holding&, const Holding&) = default;
};

/// Shares that somebody of the company bought, or sold: a negative count.
struct InsiderTrade {
  Date on;
  std::string who;
  double shares = 0;
  std::optional<double> price;  ///< in the listing's unit
  std::string source = {};
  friend bool operator==(const InsiderTrade&, const InsiderTrade&) = default;
};

/// Who a peer of the tables is.
struct PeerIdentity {
  std::string peer;  ///< its short name or name in the tables
  std::string called = {};
  std::string country = {};
  std::string business = {};
  std::string identifier = {};
  friend bool operator==(const PeerIdentity&, const PeerIdentity&) = default;
};

struct Company {
  std::string id;  ///< short name used on the command line
  std::string name;
  std::string description;
  std::string currency;  ///< reporting currency, ISO 4217
  Listing listing;
  double shares = 0;        ///< ordinary shares outstanding now
  double options = 0;       ///< options outstanding
  double optionStrike = 0;  ///< in listing units per ordinary share
  double unvestedShares = 0;
  double convertibleShares = 0;  ///< ordinary shares on conversion
  double convertibleFace = 0;    ///< in reporting currency; part of the filed borrowings
  std::string country = {};      ///< where it pays its tax, ISO 3166 in two letters; empty where nobody has said
  std::string sector = {};
  std::string control = {};  ///< who controls it and how, in words
  std::vector<Listing> furtherListings = {};
  std::string plainPricesIn = {};  ///< the unit of price tables that name none; empty: the listing's
  std::vector<ShareSplit> splits = {};
  std::vector<ShareClass> classes = {};
  std::vector<CompanyEvent> events = {};
  std::vector<DebtDue> debtDue = {};
  std::vector<Deal> deals = {};
  std::vector<OperatingFigure> operating = {};
  std::vector<Identifier> identifiers = {};
  std::string fiscalYearEnd = {};  ///< month and day, "09-30"; empty: as filed
  std::vector<OptionTranche> optionTranches = {};
  std::vector<Convertible> convertibles = {};
  std::vector<PartName> partNames = {};
  std::vector<Holding> holdings = {};
  std::vector<InsiderTrade> insiderTrades = {};
  std::vector<PeerIdentity> peerIdentities = {};
  std::map<std::string, RecordNote> said = {};  ///< by member of the record as its JSON names it: "shares", "debt_due"
  friend bool operator==(const Company&, const Company&) = default;
};

}  // namespace zl
