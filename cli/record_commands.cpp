// What is on record of the company and its market, typed one a command.

#include <fmt/format.h>

#include <algorithm>
#include <iostream>
#include <sstream>

#include "cli/command.h"
#include "core/quantity/number_text.h"
#include "exchange/json/company_json.h"
#include "services/edits/record_edits.h"
#include "services/intake/importer.h"
#include "services/intake/market.h"
#include "services/reports/market_report.h"
#include "services/sessions/case_file.h"
#include "services/text/text_cells.h"

namespace zl::cli {
namespace {

using services::Session;

RecordNote noted(const Session& session, const std::string& reason) {
  const Provenance said = session.said(reason);
  return {said.reason, said.author, said.at};
}

/// Stores a record unless it contradicts what is filed, which is asked about with both figures.
Status store(Session& session, const Result<services::RecordEdit>& edit, bool anyway) {
  if (!edit) return tl::unexpected(edit.error());
  const std::string against = services::contradictionOf(edit->after, *session.now());
  if (!against.empty() && !anyway) {
    return fail(ErrorKind::Conflict, against, "company record", "Add --anyway where the record is right");
  }
  return session.changeRecord(*edit);
}

/// Rows of a list, from a file or, for "-", from what is piped in: a line a row, cells parted by tab, else by ';'.
Result<std::vector<services::RecordRow>> rowsOf(const std::string& file) {
  std::string text;
  if (file == "-") {
    std::ostringstream all;
    all << std::cin.rdbuf();
    text = all.str();
  } else {
    Result<std::string> read = services::readFile(file);
    if (!read) return tl::unexpected(read.error());
    text = std::move(*read);
  }
  return services::recordRows(text);
}

class CompanyCommand : public SessionCommand {
  const char* name() const override { return "company"; }
  const char* purpose() const override { return "The company record; or type a field or a list of it"; }
  void declareMore(CLI::App& app) override {
    CLI::Option* field = app.add_option("FIELD", field_, "By its name, as the record prints it");
    app.add_option("VALUE", value_, "What it is; '' takes it away")->needs(field);
    app.add_option("--rows", rows_,
                   "Of a list: a file, or - for what is piped in, a line a row with cells parted by ';'")
        ->needs(field);
    app.add_option("--add", add_, "Of a list: one more row, its cells parted by ';'")->needs(field);
    app.add_option("--reason", reason_, "Why, or where it is from");
    app.add_flag("--anyway", anyway_, "Also where it contradicts what is filed");
  }
  Status runOn(Session& session, Context& c) override {
    const Company& company = session.now()->company();
    if (field_.empty()) {
      c.out << (json_ ? exchange::textOf(exchange::toJson(company), 2) + "\n" : services::recordText(company));
      return {};
    }
    if (const services::RecordList* list = services::recordList(field_); list != nullptr) {
      std::vector<services::RecordRow> rows = services::listTexts(company, *list);
      if (!rows_.empty()) {
        Result<std::vector<services::RecordRow>> read = rowsOf(rows_);
        if (!read) return tl::unexpected(read.error());
        rows = std::move(*read);
      } else if (!add_.empty()) {
        const std::vector<services::RecordRow> more = services::recordRows(add_);
        rows.insert(rows.end(), more.begin(), more.end());
      } else {
        c.out << services::recordListText(company, *list);
        return {};
      }
      return store(session, services::setList(company, field_, rows, noted(session, reason_)), anyway_);
    }
    if (!value_) {
      const services::RecordField* field = services::recordField(field_);
      if (field == nullptr) return store(session, services::setField(company, field_, "", {}), false);  // says so
      c.out << services::fieldText(company, *field) << '\n';
      return {};
    }
    return store(session, services::setField(company, field_, *value_, noted(session, reason_)), anyway_);
  }
  std::string field_, rows_, add_, reason_;
  std::optional<std::string> value_;
  bool anyway_ = false;
};

class ListingCommand : public SessionCommand {
  const char* name() const override { return "listing"; }
  const char* purpose() const override {
    return "The listings, each with its value and price; value another, or add one";
  }
  void declareMore(CLI::App& app) override {
    app.add_option("--value", value_, "Value this one, by its price unit");
    app.add_option("--add", add_, "'GBX;GBP;100;1': price unit, currency, units to the currency, shares per security");
    app.add_option("--reason", reason_, "Why");
  }
  Status runOn(Session& session, Context& c) override {
    const Company& company = session.now()->company();
    if (!add_.empty()) {
      const services::RecordList& list = *services::recordList("further_listings");
      std::vector<services::RecordRow> rows = services::listTexts(company, list);
      for (services::RecordRow& row : services::recordRows(add_)) rows.push_back(std::move(row));
      return store(session, services::setList(company, list.key, rows, noted(session, reason_)), false);
    }
    if (!value_.empty()) {
      std::string known;
      for (size_t i = 0; i < company.furtherListings.size(); ++i) {
        if (company.furtherListings[i].unit == value_)
          return store(session,
                       services::valueListing(company, i, services::rateTo(*session.now(), company.furtherListings[i]),
                                              noted(session, reason_)),
                       false);
        known += (known.empty() ? "" : ", ") + company.furtherListings[i].unit;
      }
      return fail(ErrorKind::NotFound, "there is no further listing in '" + value_ + "'", company.id,
                  known.empty() ? "Add one with --add" : "There are: " + known);
    }
    c.out << services::listingsText(*session.now());
    return {};
  }
  std::string value_, add_, reason_;
};

/// A table of one row, in the layout that files have.
std::string tableOf(const std::vector<std::pair<std::string, std::string>>& cells) {
  std::string head, row;
  for (const auto& [column, cell] : cells) {
    head += (head.empty() ? "" : ",") + column;
    row += (&cell == &cells.front().second ? "" : ",") + services::csvCell(cell);
  }
  return head + "\n" + row + "\n";
}

Status typeRow(Session& session, Context& c, const std::string& name, const std::string& label,
               const std::vector<std::pair<std::string, std::string>>& cells) {
  const Result<std::vector<std::string>> warnings = session.typeTable(name, tableOf(cells), label);
  if (!warnings) return tl::unexpected(warnings.error());
  for (const std::string& warning : *warnings) c.out << "note: " << warning << '\n';
  return {};
}

std::string dayOr(const std::string& given, const Context& c) {
  return given.empty() ? dateText(c.desk.today()) : given;
}

class RateCommand : public SessionCommand {
  const char* name() const override { return "rate"; }
  const char* purpose() const override { return "Type a rate of the market: yields, premiums, currencies"; }
  void declareMore(CLI::App& app) override {
    app.add_option("NAME", rate_,
                   "'risk-free EUR', 'equity premium EUR', 'spot EUR/GBP'; those there are where left out");
    app.add_option("FIGURE", figure_, "'2.6%', or units of the second currency");
    app.add_option("--date", day_, "Whose figure it is; today's where left out");
    app.add_option("--reason", reason_, "Where it is from");
  }
  Status runOn(Session& session, Context& c) override {
    if (rate_.empty()) {
      c.out << services::ratesText(*session.now());
      return {};
    }
    const std::optional<double> figure = typedNumber(figure_);
    const std::optional<Date> day = parseDate(dayOr(day_, c));
    if (!figure) return fail(ErrorKind::BadInput, "'" + figure_ + "' is no number", rate_, "Write 2.6% or 0.026");
    if (!day) return fail(ErrorKind::BadInput, "'" + day_ + "' is no date", rate_, "Write it as 2026-04-30");
    return session.typeFigure(rate_, *day, *figure, reason_);
  }
  std::string rate_, figure_, day_, reason_;
};

class PeerCommand : public SessionCommand {
  const char* name() const override { return "peer"; }
  const char* purpose() const override {
    return "Type a comparable company, or more of one; those there are without a name";
  }
  void declareMore(CLI::App& app) override {
    app.add_option("NAME", peer_, "The peer");
    for (Cell& cell : cells_) app.add_option("--" + cell.option, cell.text, cell.help);
    app.add_option("--figure", further_, "What a multiple of your own is of, by row: orders=350m");
  }
  Status runOn(Session& session, Context& c) override {
    if (peer_.empty()) {
      c.out << services::peersText(*session.now());
      return {};
    }
    std::vector<std::pair<std::string, std::string>> row = {{"name", peer_}};
    for (const Cell& cell : cells_) {
      if (cell.text.empty()) continue;
      if (!cell.amount) {
        row.emplace_back(cell.column, cell.text);
        continue;
      }
      const std::optional<double> typed = typedNumber(cell.text);
      if (!typed) {
        return fail(ErrorKind::BadInput, "'" + cell.text + "' is no number", "--" + cell.option,
                    "Write 350000000, 350m or 1.2bn");
      }
      row.emplace_back(cell.column + " (units)", plainNumber(*typed));
    }
    for (const std::string& told : further_) {
      const size_t equals = told.find('=');
      const std::string name = told.substr(0, equals);
      const std::optional<double> typed =
          equals == std::string::npos ? std::nullopt : typedNumber(told.substr(equals + 1));
      if (!typed) return fail(ErrorKind::BadInput, "'" + told + "' names no figure", "--figure", "Write orders=350m");
      const auto& multiples = session.now()->crossCheck.multiples;
      if (std::none_of(multiples.begin(), multiples.end(),
                       [&](Multiple m) { return ruleOf(m).metric.further == name; }))
        return fail(ErrorKind::NotFound, "no multiple is of '" + name + "'", "--figure",
                    "'zledger multiple " + name + "' adds one");
      row.emplace_back(kFurtherColumn + name + " (units)", plainNumber(*typed));
    }
    if (row.size() == 1)
      return fail(ErrorKind::BadInput, "nothing is said of the peer", peer_, "Give its price and figures");
    return typeRow(session, c, "peer " + peer_, "Type the peer " + peer_, row);
  }
  struct Cell {
    std::string option, column, help;
    bool amount = false;
    std::string text = {};
  };
  std::string peer_;
  std::vector<std::string> further_;
  std::vector<Cell> cells_ = {{"price", "price", "Last price"},
                              {"unit", "price unit", "What the price is quoted in: EUR, GBX"},
                              {"date", "price date", "Of the price; today where left out"},
                              {"currency", "currency", "Of its figures; the company's where left out"},
                              {"shares", "shares", "Diluted count", true},
                              {"market-value", "market value", "Instead of shares, in its currency", true},
                              {"year-end", "year end", "Of its figures: 2025-12-31"},
                              {"revenue", "revenue", "All amounts alike: plain, 350m or 1.2bn", true},
                              {"ebitda", "ebitda", "Before one-offs", true},
                              {"ebit", "ebit", "", true},
                              {"net-income", "net income", "To common shareholders", true},
                              {"debt", "debt", "", true},
                              {"net-debt", "net debt", "Where debt and cash are not known apart", true},
                              {"cash", "cash", "", true},
                              {"leases", "leases", "", true},
                              {"minorities", "minorities", "", true},
                              {"equity", "equity", "", true},
                              {"remark", "remark", "Why it is comparable"}};
};

class EstimateCommand : public SessionCommand {
  const char* name() const override { return "estimate"; }
  const char* purpose() const override { return "Type an analysts' estimate or the company's guidance"; }
  void declareMore(CLI::App& app) override {
    app.add_option("ITEM", item_, "A row by its name: revenue, ebit")->required();
    app.add_option("YEAR", year_, "Fiscal year")->required();
    app.add_option("MEAN", mean_, "350m, 1.2bn, 8%");
    app.add_option("--low", low_, "");
    app.add_option("--high", high_, "");
    app.add_option("--count", count_, "How many analysts");
    app.add_option("--date", day_, "Of the estimate; today where left out");
    app.add_option("--source", source_, "Whose it is");
    app.add_flag("--guidance", guidance_, "It is the company's own");
  }
  Status runOn(Session& session, Context& c) override {
    const model::Model& m = session.now()->model();
    const model::RowId row = m.find(item_);
    if (!row.known())
      return fail(ErrorKind::NotFound, "the model has no row '" + item_ + "'", {}, "'zledger statements' lists them");
    std::vector<std::pair<std::string, std::string>> cells = {{"item", item_}, {"year", std::to_string(year_)}};
    for (const auto& [column, text] :
         {std::pair<const char*, const std::string*>{"low", &low_}, {"mean", &mean_}, {"high", &high_}}) {
      const std::optional<double> figure = typedFigure(*text, m[row].kind);
      if (!figure && !text->empty()) {
        return fail(ErrorKind::BadInput, "'" + *text + "' is no number", item_,
                    "Write 350m, 1.2bn or 8%; a bare number is in the shown unit");
      }
      cells.emplace_back(column, figure ? plainNumber(*figure) : "");
    }
    cells.insert(cells.end(), {{"count", count_},
                               {"date", dayOr(day_, c)},
                               {"source", source_.empty() ? "typed" : source_},
                               {"by", guidance_ ? "company" : "analysts"}});
    return typeRow(session, c, "estimate of " + item_, "Type the estimate of " + item_ + " " + std::to_string(year_),
                   cells);
  }
  std::string item_, mean_, low_, high_, count_, day_, source_;
  int year_ = 0;
  bool guidance_ = false;
};

class MarketCommand : public SessionCommand {
  const char* name() const override { return "market"; }
  const char* purpose() const override { return "What the book has of the market: listings, rates, peers, estimates"; }
  Status runOn(Session& session, Context& c) override {
    const services::Snapshot& s = *session.now();
    c.out << (json_ ? exchange::textOf(services::marketJson(s), 2) + "\n"
                    : services::listingsText(s) + "\n" + services::ratesText(s) + "\n" + services::peersText(s) + "\n" +
                          services::estimatesText(s));
    return {};
  }
};

}  // namespace

std::vector<std::unique_ptr<Command>> recordCommands() {
  std::vector<std::unique_ptr<Command>> list;
  list.push_back(std::make_unique<CompanyCommand>());
  list.push_back(std::make_unique<ListingCommand>());
  list.push_back(std::make_unique<RateCommand>());
  list.push_back(std::make_unique<PeerCommand>());
  list.push_back(std::make_unique<EstimateCommand>());
  list.push_back(std::make_unique<MarketCommand>());
  return list;
}

}  // namespace zl::cli
