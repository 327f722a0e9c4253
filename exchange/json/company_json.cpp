#include "exchange/json/company_json.h"

namespace zl::exchange {
namespace {

constexpr std::size_t kMostItems = 2000;

/// Every item of an optional list, each with its place.
template <class Item, class Read>
std::vector<Item> listOf(ObjectReader& r, const char* key, const Read& read) {
  std::vector<Item> items;
  const Json* list = r.member(key);
  if (list == nullptr) return items;
  if (!list->is_array() || list->size() > kMostItems) {
    r.fault("'" + std::string(key) + "' must be a list of at most " + std::to_string(kMostItems));
  }
  const std::string below = r.path() + "/" + key + "/";
  for (std::size_t i = 0; i < list->size(); ++i) {
    ObjectReader item((*list)[i], std::string(below).append(std::to_string(i)));
    items.push_back(read(item));
    item.finish();
  }
  return items;
}

double positive(ObjectReader& r, const char* key) {
  const double x = r.number(key);
  if (!(x > 0)) r.fault("'" + std::string(key) + "' must be positive");
  return x;
}

Listing listingOf(ObjectReader& l) {
  Listing listing{l.text("unit"), l.text("currency"), l.number("minor_per_major"), l.numberOr("shares_per_listed", 1)};
  if (!(listing.minorPerMajor > 0) || !(listing.sharesPerListed > 0)) {
    l.fault("'minor_per_major' and 'shares_per_listed' must be positive");
  }
  return listing;
}

ShareSplit splitOf(ObjectReader& r) {
  ShareSplit split;
  split.on = r.date("on");
  split.now = positive(r, "now");
  split.before = positive(r, "before");
  return split;
}

ShareClass classOf(ObjectReader& r) {
  ShareClass c;
  c.name = r.text("name");
  c.shares = positive(r, "shares");
  c.votes = r.number("votes");
  if (c.votes < 0) r.fault("'votes' must not be negative");
  c.holder = r.optionalText("holder");
  return c;
}

CompanyEvent eventOf(ObjectReader& r) {
  CompanyEvent event;
  event.on = r.date("on");
  event.what = r.text("what");
  event.line = r.optionalText("line");
  return event;
}

DebtDue dueOf(ObjectReader& r) {
  DebtDue due;
  due.year = r.whole("year");
  due.amount = positive(r, "amount");
  due.floating = r.truth("floating");
  due.what = r.optionalText("what");
  due.rate = r.optionalNumber("rate");
  if (due.rate && (*due.rate < 0 || *due.rate > 0.5)) r.fault("'rate' is a fraction from 0 to 0.5: 0.045 is 4.5 %");
  return due;
}

Deal dealOf(ObjectReader& r) {
  Deal deal;
  deal.on = r.date("on");
  deal.what = r.text("what");
  deal.price = r.number("price");
  deal.goodwill = r.numberOr("goodwill", 0);
  deal.revenue = r.numberOr("revenue", 0);
  deal.profit = r.numberOr("profit", 0);
  return deal;
}

OperatingFigure operatingOf(ObjectReader& r) {
  OperatingFigure figure;
  figure.name = r.text("name");
  figure.unit = r.text("unit");
  figure.years = listOf<std::pair<int, double>>(r, "years", [](ObjectReader& year) {
    const int label = year.whole("year");
    return std::pair(label, year.number("figure"));
  });
  return figure;
}

Identifier identifierOf(ObjectReader& r) {
  Identifier identifier;
  identifier.scheme = r.text("scheme");
  identifier.value = r.text("value");
  return identifier;
}

OptionTranche trancheOf(ObjectReader& r) {
  OptionTranche t;
  t.count = positive(r, "count");
  t.strike = positive(r, "strike");
  t.unit = r.optionalText("unit");
  t.expiry = r.optionalDate("expiry");
  t.what = r.optionalText("what");
  return t;
}

Convertible convertibleOf(ObjectReader& r) {
  Convertible c;
  c.shares = positive(r, "shares");
  c.face = positive(r, "face");
  c.due = r.optionalDate("due");
  c.what = r.optionalText("what");
  return c;
}

PartName partNameOf(ObjectReader& r) {
  PartName n;
  n.filed = r.text("filed");
  n.called = r.text("called");
  return n;
}

Holding holdingOf(ObjectReader& r) {
  Holding h;
  h.holder = r.text("holder");
  h.shares = positive(r, "shares");
  h.on = r.date("on");
  h.source = r.optionalText("source");
  return h;
}

InsiderTrade tradeOf(ObjectReader& r) {
  InsiderTrade t;
  t.on = r.date("on");
  t.who = r.text("who");
  t.shares = r.number("shares");
  if (t.shares == 0) r.fault("'shares' must not be 0: bought is positive, sold negative");
  t.price = r.optionalNumber("price");
  if (t.price && !(*t.price > 0)) r.fault("'price' must be positive");
  t.source = r.optionalText("source");
  return t;
}

PeerIdentity peerIdentityOf(ObjectReader& r) {
  PeerIdentity p;
  p.peer = r.text("peer");
  p.called = r.optionalText("called");
  p.country = r.optionalText("country");
  p.business = r.optionalText("business");
  p.identifier = r.optionalText("identifier");
  return p;
}

/// "09-30"; empty where it is not given.
std::string yearEndOf(ObjectReader& r) {
  const std::string day = r.optionalText("fiscal_year_end");
  if (day.empty()) return day;
  // Of a leap year, so that 29 February is a day.
  if (day.size() != 5 || !parseDate("2024-" + day))
    r.fault("'fiscal_year_end' is a month and a day, such as 09-30 for 30 September");
  return day;
}

std::map<std::string, RecordNote> notesOf(ObjectReader& r) {
  std::map<std::string, RecordNote> notes;
  const Json* said = r.member("said");
  if (said == nullptr) return notes;
  if (!said->is_object() || said->size() > kMostItems) r.fault("'said' names members of the record");
  for (const auto& [member, note] : said->items()) {
    ObjectReader of(note, r.path() + "/said/" + member);
    notes[member] = {of.optionalText("reason"), of.text("author"), of.text("at")};
    of.finish();
  }
  return notes;
}

Company companyOf(const Json& json, const std::string& source) {
  ObjectReader r(json, source);
  if (r.text("format") != "zealous-ledger-company") r.fault("this is not a company record");
  if (r.whole("version") != 1) r.fault("this program reads version 1 of the record");
  Company c;
  c.id = r.text("id");
  c.name = r.text("name");
  c.description = r.optionalText("description");
  c.currency = r.text("currency");
  if (c.id.empty() || c.id.find_first_of(" /\\\t\n") != std::string::npos) {
    r.fault("'id' must be a short name without spaces or slashes");
  }
  if (c.currency.size() != 3) r.fault("'currency' must be a code of three letters");
  const Json* listing = r.member("listing");
  if (listing == nullptr) r.fault("'listing' is missing");
  ObjectReader l(*listing, source + "/listing");
  c.listing = listingOf(l);
  l.finish();
  if (r.member("shares") != nullptr) c.shares = positive(r, "shares");
  const auto count = [&](const char* key) {
    const double x = r.numberOr(key, 0);
    if (x < 0) r.fault(std::string("'") + key + "' must not be negative");
    return x;
  };
  c.options = count("options");
  c.optionStrike = count("option_strike");
  c.unvestedShares = count("unvested_shares");
  c.convertibleShares = count("convertible_shares");
  c.convertibleFace = count("convertible_face");
  c.country = r.optionalText("country");
  if (!c.country.empty() &&
      (c.country.size() != 2 || c.country.find_first_not_of("ABCDEFGHIJKLMNOPQRSTUVWXYZ") != std::string::npos)) {
    r.fault("'country' is two capital letters (ISO 3166), such as DE");
  }
  c.sector = r.optionalText("sector");
  c.control = r.optionalText("control");
  c.plainPricesIn = r.optionalText("plain_prices_in");
  c.furtherListings = listOf<Listing>(r, "further_listings", listingOf);
  c.splits = listOf<ShareSplit>(r, "splits", splitOf);
  c.classes = listOf<ShareClass>(r, "share_classes", classOf);
  c.events = listOf<CompanyEvent>(r, "events", eventOf);
  c.debtDue = listOf<DebtDue>(r, "debt_due", dueOf);
  c.deals = listOf<Deal>(r, "deals", dealOf);
  c.operating = listOf<OperatingFigure>(r, "operating_figures", operatingOf);
  c.identifiers = listOf<Identifier>(r, "identifiers", identifierOf);
  c.fiscalYearEnd = yearEndOf(r);
  c.optionTranches = listOf<OptionTranche>(r, "option_tranches", trancheOf);
  c.convertibles = listOf<Convertible>(r, "convertibles", convertibleOf);
  c.partNames = listOf<PartName>(r, "part_names", partNameOf);
  c.holdings = listOf<Holding>(r, "holders", holdingOf);
  c.insiderTrades = listOf<InsiderTrade>(r, "insider_trades", tradeOf);
  c.peerIdentities = listOf<PeerIdentity>(r, "peers", peerIdentityOf);
  c.said = notesOf(r);
  r.finish();
  return c;
}

Json toJson(const Listing& l) {
  return {{"unit", l.unit},
          {"currency", l.currency},
          {"minor_per_major", l.minorPerMajor},
          {"shares_per_listed", l.sharesPerListed}};
}

Json toJson(const ShareSplit& s) {
  return {{"on", dateText(s.on)}, {"now", s.now}, {"before", s.before}};
}

Json toJson(const ShareClass& c) {
  return {{"name", c.name}, {"shares", c.shares}, {"votes", c.votes}, {"holder", c.holder}};
}

Json toJson(const CompanyEvent& e) {
  return {{"on", dateText(e.on)}, {"what", e.what}, {"line", e.line}};
}

Json toJson(const DebtDue& d) {
  Json json{{"year", d.year}, {"amount", d.amount}, {"floating", d.floating}, {"what", d.what}};
  if (d.rate) json["rate"] = *d.rate;
  return json;
}

Json toJson(const Deal& d) {
  return {{"on", dateText(d.on)},   {"what", d.what},       {"price", d.price},
          {"goodwill", d.goodwill}, {"revenue", d.revenue}, {"profit", d.profit}};
}

Json toJson(const OperatingFigure& f) {
  Json years = Json::array();
  for (const auto& [year, figure] : f.years) years.push_back({{"year", year}, {"figure", figure}});
  return {{"name", f.name}, {"unit", f.unit}, {"years", std::move(years)}};
}

Json toJson(const Identifier& i) {
  return {{"scheme", i.scheme}, {"value", i.value}};
}

Json withDay(Json json, const char* key, const std::optional<Date>& day) {
  if (day) json[key] = dateText(*day);
  return json;
}

Json toJson(const OptionTranche& t) {
  return withDay({{"count", t.count}, {"strike", t.strike}, {"unit", t.unit}, {"what", t.what}}, "expiry", t.expiry);
}

Json toJson(const Convertible& c) {
  return withDay({{"shares", c.shares}, {"face", c.face}, {"what", c.what}}, "due", c.due);
}

Json toJson(const PartName& n) {
  return {{"filed", n.filed}, {"called", n.called}};
}

Json toJson(const Holding& h) {
  return {{"holder", h.holder}, {"shares", h.shares}, {"on", dateText(h.on)}, {"source", h.source}};
}

Json toJson(const InsiderTrade& t) {
  Json json{{"on", dateText(t.on)}, {"who", t.who}, {"shares", t.shares}, {"source", t.source}};
  if (t.price) json["price"] = *t.price;
  return json;
}

Json toJson(const PeerIdentity& p) {
  return {{"peer", p.peer},
          {"called", p.called},
          {"country", p.country},
          {"business", p.business},
          {"identifier", p.identifier}};
}

template <class Item>
Json listJson(const std::vector<Item>& items) {
  Json list = Json::array();
  for (const Item& item : items) list.push_back(toJson(item));
  return list;
}

}  // namespace

Json toJson(const Company& c) {
  Json json{{"format", "zealous-ledger-company"},
            {"version", 1},
            {"id", c.id},
            {"name", c.name},
            {"description", c.description},
            {"country", c.country},
            {"sector", c.sector},
            {"control", c.control},
            {"currency", c.currency},
            {"listing", toJson(c.listing)},
            {"further_listings", listJson(c.furtherListings)},
            {"options", c.options},
            {"option_strike", c.optionStrike},
            {"unvested_shares", c.unvestedShares},
            {"convertible_shares", c.convertibleShares},
            {"convertible_face", c.convertibleFace},
            {"splits", listJson(c.splits)},
            {"share_classes", listJson(c.classes)},
            {"events", listJson(c.events)},
            {"debt_due", listJson(c.debtDue)},
            {"deals", listJson(c.deals)},
            {"operating_figures", listJson(c.operating)}};
  if (c.shares > 0) json["shares"] = c.shares;
  if (!c.plainPricesIn.empty()) json["plain_prices_in"] = c.plainPricesIn;
  if (!c.identifiers.empty()) json["identifiers"] = listJson(c.identifiers);
  if (!c.fiscalYearEnd.empty()) json["fiscal_year_end"] = c.fiscalYearEnd;
  if (!c.optionTranches.empty()) json["option_tranches"] = listJson(c.optionTranches);
  if (!c.convertibles.empty()) json["convertibles"] = listJson(c.convertibles);
  if (!c.partNames.empty()) json["part_names"] = listJson(c.partNames);
  if (!c.holdings.empty()) json["holders"] = listJson(c.holdings);
  if (!c.insiderTrades.empty()) json["insider_trades"] = listJson(c.insiderTrades);
  if (!c.peerIdentities.empty()) json["peers"] = listJson(c.peerIdentities);
  for (const auto& [member, note] : c.said) {
    json["said"][member] = {{"reason", note.reason}, {"author", note.author}, {"at", note.at}};
  }
  return json;
}

Result<Company> companyFromJson(const Json& json, const std::string& source) {
  try {
    return companyOf(json, source);
  } catch (const JsonFault& fault) {
    return tl::unexpected(fault.error);
  }
}

}  // namespace zl::exchange
