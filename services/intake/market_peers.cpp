#include "services/intake/market_peers.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <iterator>

#include "core/filing/minor_unit.h"
#include "core/quantity/number_text.h"

namespace zl::services {
namespace {

constexpr const char* kClaims[] = {"debt", "leases", "preferred", "minorities", "pension", "cash", "associates"};

}  // namespace

bool PeerRows::isExpected(std::string year) {
  while (!year.empty() && year.back() == ' ') year.pop_back();
  if (year.empty() || (year.back() != 'E' && year.back() != 'e')) return false;
  year.pop_back();
  while (!year.empty() && year.back() == ' ') year.pop_back();
  return !year.empty() && std::isdigit(static_cast<unsigned char>(year.back())) != 0;
}

void PeerRows::readPeers() {
  std::vector<std::string> amounts(std::begin(kClaims), std::end(kClaims));
  for (const PeerColumn& column : kPeerColumns) amounts.emplace_back(column.name);
  for (const MarketColumn& column : table_.columns()) {
    if (column.is.starts_with(kFurtherColumn)) amounts.push_back(column.is);
  }
  std::string headings =
      "peer,name,currency,price,price_currency,minor_per_major,price_date,shares,year_end,year_is,remark,source,"
      "regions,businesses";
  for (const std::string& amount : amounts) headings += ',' + amount;
  table_.begin(exchange::ContentKind::PeerTable, headings);
  scaleTold_ = table_.title().scale.has_value();
  const std::vector<std::optional<PeriodHeading>> years = findYears();
  for (size_t r = table_.firstRow(); r < table_.endRow(); ++r) {
    const std::string name = table_.textAt(r, "name");
    if (name.empty()) {
      if (!table_.isEmpty(r)) table_.setAside(r, "it names no peer");
      continue;
    }
    if (isStatistic(name)) continue;  // of the peers, at the foot of their table
    const size_t before = seen_.size();
    for (const std::optional<PeriodHeading>& year : years) {
      table_.ofYear(year);
      if (holdsAny(r, amounts)) readPeer(r, name, amounts);
    }
    // A peer without figures of any year is one all the same.
    table_.ofYear(table_.lastFiled());
    if (seen_.size() == before && !holdsAny(r, amounts)) readPeer(r, name, amounts);
  }
  table_.ofYear(std::nullopt);
  tellWhatWasTaken(years.front().has_value());
}

void PeerRows::tellWhatWasTaken(bool yearsNamed) {
  if (!scaleTold_ && table_.hasReadAmounts() && table_.smallAmounts())
    table_.note("the table names no scale; its amounts are taken to be millions");
  if (claimsAssumed_) table_.note("claims on a peer that the table has no column for are taken to be none");
  if (!assumed_.empty()) table_.note("the table names no currency; " + assumed_ + " is taken");
  if (!table_.has("year_end") && !yearsNamed)
    table_.note("the table names no year; figures are taken to be of the year to " + dateText(table_.hints().yearEnd));
  const std::vector<std::string>& unread = table_.unread();
  std::string named;
  for (size_t i = 0; i < std::min(unread.size(), kMostNoted); ++i) named += (i == 0 ? "'" : ", '") + unread[i] + "'";
  if (unread.size() > kMostNoted) named += " and " + std::to_string(unread.size() - kMostNoted) + " more";
  if (!named.empty()) table_.note("nothing was read of the columns " + named);
}

std::vector<std::optional<PeriodHeading>> PeerRows::findYears() {
  std::vector<std::optional<PeriodHeading>> years;
  for (const MarketColumn& column : table_.columns()) {
    const bool known = std::any_of(years.begin(), years.end(), [&](const auto& year) {
      return column.period && isSameYear(*year, *column.period);
    });
    if (column.period && !known) years.push_back(column.period);
  }
  std::stable_sort(years.begin(), years.end(), [](const auto& a, const auto& b) { return a->year < b->year; });
  for (const std::optional<PeriodHeading>& year : years) {
    if (!isAhead(*year, table_.hints().yearEnd)) table_.setLastFiled(year);
  }
  if (!table_.lastFiled()) years.insert(years.begin(), std::nullopt);
  return years;
}

bool PeerRows::isAhead(const PeriodHeading& year, Date ends) const {
  return year.forecast || year.endIn({monthOf(ends)}) > table_.hints().day;
}

unsigned PeerRows::monthOf(Date day) {
  return static_cast<unsigned>(std::chrono::year_month_day(day).month());
}

bool PeerRows::holdsAny(size_t row, const std::vector<std::string>& amounts) const {
  return std::any_of(amounts.begin(), amounts.end(),
                     [&](const std::string& is) { return isPeerFigure(is) && table_.writtenAt(row, is).has_value(); });
}

void PeerRows::readPeer(size_t r, const std::string& name, const std::vector<std::string>& amounts) {
  std::string currency = table_.textAt(r, "currency");
  if (currency.empty()) currency = table_.title().currency;
  for (const MarketColumn& c : table_.columns()) {
    const bool amount = std::find(amounts.begin(), amounts.end(), c.is) != amounts.end();
    if (currency.empty() && amount) currency = c.unit.currency;
    scaleTold_ = scaleTold_ || (amount && c.unit.scale);
  }
  const Peer* known = table_.knownAs(name);
  if (currency.empty() && known != nullptr) currency = known->currency;
  if (currency.empty()) {
    currency = table_.hints().currency;
    assumed_ = currency;
  }
  std::string quoted = table_.priceUnit(r);
  if (quoted.empty() && known == nullptr) quoted = currency;
  const std::optional<Listing> listing =
      quoted.empty() ? std::optional(Listing{known->priceCurrency, known->priceCurrency, known->minorPerMajor})
                     : listingOfUnit(quoted);
  if (!listing) {
    table_.setAside(r, "'" + quoted + "' is no currency");
    return;
  }
  table_.lookAtFigures(r, amounts, currency);
  table_.lookAtFigures(r, {"market_value", "ev", "net_debt", "shares"}, currency);
  table_.lookAtFigures(r, {"close"}, listing->currency);
  std::optional<double> price = table_.numberAt(r, "close");
  std::optional<double> shares;
  if (const std::optional<WrittenFigure> count = table_.writtenAt(r, "shares"))
    shares = count->whole ? count->number : count->number * sharesScale();
  if (const std::optional<double> whole = table_.amountAt(r, "market_value"); whole && !shares) {
    const double value = *whole;
    // Without a price, one share is the whole of it.
    shares = price ? value / (*price / listing->minorPerMajor) : 1;
    if (!price) price = value * listing->minorPerMajor;
  }
  const SheetCell* ended = table_.cellAt(r, "year_end");
  const std::optional<PeriodHeading> named = ended == nullptr ? std::nullopt : periodHeading(ended->text);
  const bool dated = known != nullptr && !known->years.empty();
  const Date usual = dated ? known->years.back().end : table_.hints().yearEnd;
  const Date row = named ? named->endIn({monthOf(table_.hints().yearEnd)}) : usual;
  const Date end = table_.year() ? table_.year()->endIn({monthOf(row)}) : row;
  const bool ahead =
      table_.year() ? isAhead(*table_.year(), row) : isExpected(ended == nullptr ? std::string() : ended->text);
  if (!seen_.insert({peerId(name), end, ahead}).second) {
    table_.setAside(r, name + " is there twice for the year to " + dateText(end) + "; the first stands");
    return;
  }
  const std::optional<Date> day = table_.has("date") ? table_.dayOf(table_.cellAt(r, "date")) : std::nullopt;
  const std::string id = table_.textAt(r, "id");
  std::vector<std::string> cells = {
      known != nullptr ? known->id
      : id.empty()     ? peerId(name)
                       : peerId(id),
      name,
      currency,
      price ? plainNumber(*price) : "",
      listing->currency,
      plainNumber(listing->minorPerMajor),
      dateText(day.value_or(table_.hints().day)),
      shares ? plainNumber(*shares) : "",
      dateText(end),
      ahead ? "expected" : "filed",
      table_.textAt(r, "remark"),
      table_.textAt(r, "source").empty() ? table_.hints().source : table_.textAt(r, "source")};
  for (const char* mix : {"regions", "businesses"}) {
    const std::string told = table_.textAt(r, mix);
    const bool read = revenueMix(told).has_value();
    if (!told.empty() && !read) table_.leaveOut(r, mix, "are no shares such as Europe 60 %; Asia 40 %");
    cells.push_back(read ? told : "");
  }
  std::optional<double> net = table_.amountAt(r, "net_debt");
  const std::optional<double> whole = table_.amountAt(r, "ev");
  if (!net && whole && price && shares && !table_.numberAt(r, "debt"))
    net = *whole - *price / listing->minorPerMajor * *shares;
  const bool claims = net || table_.numberAt(r, "debt");
  for (const std::string& column : amounts) {
    std::optional<double> x = table_.amountAt(r, column);
    if (!x && net && column == (*net >= 0 ? "debt" : "cash")) x = std::fabs(*net);
    // Who says what a peer owes says all that there is to be said, for want of further columns.
    const bool claim = std::find(std::begin(kClaims), std::end(kClaims), column) != std::end(kClaims);
    if (!x && known == nullptr && claims && claim && (!table_.has(column) || net)) {
      x = 0;
      claimsAssumed_ = true;
    }
    cells.push_back(x ? plainNumber(*x) : "");
  }
  table_.line(cells);
}

double PeerRows::sharesScale() const {
  const MarketColumn* column = table_.columnOf("shares");
  if (column != nullptr && column->unit.scale) return std::pow(10, *column->unit.scale);
  for (size_t r = table_.firstRow(); r < table_.endRow(); ++r) {
    if (const std::optional<double> x = table_.numberAt(r, "shares"); x && *x >= kPlainAmount / 100) return 1;
  }
  return 1e6;
}

}  // namespace zl::services
