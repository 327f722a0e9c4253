#include <algorithm>

#include "cli/command.h"
#include "exchange/json/reader.h"
#include "services/reports/figures_report.h"
#include "services/reports/peer_tables.h"
#include "services/reports/report.h"
#include "services/reports/value_tables.h"
#include "services/sessions/assumption_history.h"
#include "services/sessions/case_file.h"
#include "services/stories/trace_text.h"
#include "services/views/one_basis.h"
#include "services/views/still_needed.h"

namespace zl::cli {
namespace {

using services::Session;

/// The command that gives what is still needed.
std::string commandFor(const services::Need& need) {
  using What = services::Need::What;
  switch (need.what) {
    case What::Line:
      return "zledger map, or import with --line";
    case What::Shares:
      return "zledger company BOOK shares FIGURE";
    case What::Price:
      return "zledger price BOOK FIGURE";
    case What::Rate:
      return "zledger rate BOOK '" + need.series + "' FIGURE";
    case What::Date:
    case What::Other:
      break;
  }
  return "zledger trace";
}

class ValueCommand : public SessionCommand {
  const char* name() const override { return "value"; }
  const char* purpose() const override { return "Values per share by scenario, with the price and the cross-check"; }
  Status runOn(Session& session, Context& c) override {
    c.out << (json_ ? exchange::textOf(services::valueJson(*session.now()), 2) + "\n"
                    : services::valueText(*session.now()));
    if (json_) return {};
    const std::vector<services::Need> needs = services::stillNeeded(*session.now());
    if (!needs.empty()) c.out << "\nstill needed, in this order:\n";
    for (const services::Need& need : needs) {
      c.out << "  " << need.words << (need.reason.empty() ? "" : " (" + need.reason + ")") << ": " << commandFor(need)
            << '\n';
    }
    return {};
  }
};

class CheckCommand : public SessionCommand {
  const char* name() const override { return "check"; }
  const char* purpose() const override {
    return "Everything the monitors found; ends with 1 where anything is a fault";
  }
  Status runOn(Session& session, Context& c) override {
    const std::vector<Finding>& found = session.now()->findings();
    const bool fault = std::any_of(found.begin(), found.end(), [&](const Finding& f) {
      return f.severity == Severity::Fault && f.acknowledged.empty();
    });
    if (fault) c.status = 1;
    c.out << (json_ ? exchange::textOf(services::findingsJson(*session.now()), 2) + "\n"
                    : services::findingsText(*session.now()));
    return {};
  }
};

class ReviewCommand : public SessionCommand {
  const char* name() const override { return "review"; }
  const char* purpose() const override { return "The quality review: every test's figure beside its threshold"; }
  Status runOn(Session& session, Context& c) override {
    c.out << (json_ ? exchange::textOf(services::reviewJson(*session.now()), 2) + "\n"
                    : services::reviewText(*session.now()));
    return {};
  }
};

class BasisCommand : public SessionCommand {
  const char* name() const override { return "basis"; }
  const char* purpose() const override {
    return "What treating leases, stock pay or research otherwise would do to profit, capital and value";
  }
  void declareMore(CLI::App& app) override { app.add_option("--scenario", scenario_, "worst, base or best"); }
  Status runOn(Session& session, Context& c) override {
    const Result<int> scenario = scenarioIndex(session.now()->caseOf(), scenario_);
    if (!scenario) return tl::unexpected(scenario.error());
    c.out << (json_ ? exchange::textOf(services::basisJson(*session.now(), *scenario), 2) + "\n"
                    : services::basisText(*session.now(), *scenario));
    return {};
  }
  std::string scenario_ = kBase;
};

class FactsCommand : public SessionCommand {
  const char* name() const override { return "facts"; }
  const char* purpose() const override { return "All filed facts with their place of origin, as CSV or JSON"; }
  Status runOn(Session& session, Context& c) override {
    c.out << (json_ ? exchange::textOf(services::factsJson(*session.now()), 2) + "\n"
                    : services::factsText(*session.now()));
    return {};
  }
};

class StatementsCommand : public SessionCommand {
  const char* name() const override { return "statements"; }
  const char* purpose() const override { return "All rows by year, filed and projected, as CSV or JSON"; }
  void declareMore(CLI::App& app) override {
    app.add_option("--scenario", scenario_, "worst, base or best");
    app.add_option("--basis", basis_, "years, quarters (filed only) or trailing (twelve months to each quarter's end)")
        ->check(CLI::IsMember({"years", "quarters", "trailing"}));
  }
  Status runOn(Session& session, Context& c) override {
    const Result<int> scenario = scenarioIndex(session.now()->caseOf(), scenario_);
    if (!scenario) return tl::unexpected(scenario.error());
    if (basis_ != "years") {
      const services::Basis basis = basis_ == "quarters" ? services::Basis::Quarters : services::Basis::Trailing;
      c.out << (json_ ? exchange::textOf(services::interimJson(*session.now(), basis), 2) + "\n"
                      : services::interimText(*session.now(), basis));
      return {};
    }
    c.out << (json_ ? exchange::textOf(services::statementsJson(*session.now(), *scenario), 2) + "\n"
                    : services::statementsText(*session.now(), *scenario));
    return {};
  }
  std::string scenario_ = kBase;
  std::string basis_ = "years";
};

/// What the pages Capital and Cash value show, as text, CSV or JSON.
class TablesCommand : public SessionCommand {
 public:
  void declareMore(CLI::App& app) override { app.add_flag("--csv", csv_, "CSV at full precision"); }

 protected:
  void print(const std::vector<services::ReportFigure>& figures, const services::Snapshot& s, Context& c) const {
    c.out << (json_  ? exchange::textOf(services::reportJson(figures, s), 2) + "\n"
              : csv_ ? services::reportCsv(figures)
                     : services::reportText(figures, s));
  }

 private:
  bool csv_ = false;
};

class CapitalCommand : public TablesCommand {
  const char* name() const override { return "capital"; }
  const char* purpose() const override {
    return "The cost of capital: parts with their rivals, beta, peers' betas, weights, the rate by year";
  }
  void declareMore(CLI::App& app) override {
    TablesCommand::declareMore(app);
    app.add_option("--scenario", scenario_, "Whose rivals: worst, base or best");
    app.add_option("--index", settings_.index, "The series that beta is taken against; the first where left out");
    app.add_option("--returns", returns_, "Of beta: daily, weekly or monthly")
        ->check(CLI::IsMember({"daily", "weekly", "monthly"}));
    app.add_option("--years", settings_.years, "Of beta, back from the valuation date")->check(CLI::Range(1, 50));
    app.add_flag("--price-alone", priceAlone_, "Returns without dividends");
  }
  Status runOn(Session& session, Context& c) override {
    const Result<int> scenario = scenarioIndex(session.now()->caseOf(), scenario_);
    if (!scenario) return tl::unexpected(scenario.error());
    settings_.frequency = returns_ == "daily"    ? ReturnFrequency::Daily
                          : returns_ == "weekly" ? ReturnFrequency::Weekly
                                                 : ReturnFrequency::Monthly;
    settings_.total = !priceAlone_;
    print(services::capitalFigures(*session.now(), settings_, *scenario), *session.now(), c);
    return {};
  }
  std::string scenario_ = kBase, returns_ = "weekly";
  services::BetaSettings settings_;
  bool priceAlone_ = false;
};

/// What one or another page says, of all scenarios.
class ReportCommand : public TablesCommand {
 public:
  using Figures = std::vector<services::ReportFigure> (*)(const services::Snapshot&);
  ReportCommand(const char* name, const char* purpose, Figures figures)
      : name_(name), purpose_(purpose), figures_(figures) {}

 private:
  const char* name() const override { return name_; }
  const char* purpose() const override { return purpose_; }
  Status runOn(Session& session, Context& c) override {
    print(figures_(*session.now()), *session.now(), c);
    return {};
  }
  const char *name_, *purpose_;
  Figures figures_;
};

std::vector<std::unique_ptr<Command>> reportCommands() {
  std::vector<std::unique_ptr<Command>> list;
  const auto add = [&](const char* name, const char* purpose, ReportCommand::Figures figures) {
    list.push_back(std::make_unique<ReportCommand>(name, purpose, figures));
  };
  add("cash", "The value from cash: walk, years, what lies beyond, claims, and every other way to it",
      services::cashFigures);
  add("peers",
      "The company's ratios beside its peers', justified multiples, why its own differs, multiples fitted across peers",
      services::ratioFigures);
  add("multiples", "Peers' multiples with why each counts, statistics, the subject's place, what they imply per share",
      services::multipleFigures);
  add("past", "The company's own past multiples: statistics, today's place, every month", services::pastFigures);
  add("exit",
      "The return to an exit multiple: price to pay, return from today's price and what makes it, by growth and "
      "multiple",
      services::exitFigures);
  add("dividends", "Value from dividends, the growth multiple, yields beside bonds, excess return on book, the blend",
      services::dividendFigures);
  add("parts", "The company as the sum of its parts: figure, multiple and worth of each; 'part' says what one is worth",
      services::partsFigures);
  return list;
}

class FiguresCommand : public SessionCommand {
  const char* name() const override { return "figures"; }
  const char* purpose() const override {
    return "Every figure of every page at full precision, as CSV or JSON: rows, single values, statistics, trends";
  }
  void declareMore(CLI::App& app) override { app.add_flag("--csv", csv_, "CSV, as without --json"); }
  Status runOn(Session& session, Context& c) override {
    if (csv_ && json_) return fail(ErrorKind::BadInput, "--csv and --json ask for two forms", {}, "Give one");
    c.out << (json_ ? exchange::textOf(services::figuresJson(*session.now()), 2) + "\n"
                    : services::figuresText(*session.now()));
    return {};
  }
  bool csv_ = false;
};

class RestatementsCommand : public SessionCommand {
  const char* name() const override { return "restatements"; }
  const char* purpose() const override { return "Figures that later filings changed, as CSV or JSON; or which to use"; }
  void declareMore(CLI::App& app) override {
    app.add_option("--use", use_, "first or last: which filing's figures to use")
        ->check(CLI::IsMember({"first", "last"}));
    app.add_option("--line", line_, "Of one standard line; of all when left out");
  }
  Status runOn(Session& session, Context& c) override {
    if (!use_.empty()) {
      return session.apply(services::setFirstFiled(session.now()->caseOf(), c.resources->model,
                                                   line_.empty() ? kEveryLine : line_, use_ == "first"));
    }
    c.out << (json_ ? exchange::textOf(services::restatementsJson(*session.now()), 2) + "\n"
                    : services::restatementsText(*session.now()));
    return {};
  }
  std::string use_, line_;
};

class TraceCommand : public SessionCommand {
  const char* name() const override { return "trace"; }
  const char* purpose() const override { return "Where a figure comes from, down to filed facts and assumptions"; }
  void declareMore(CLI::App& app) override {
    app.add_option("ROW", row_, "Name of the row, as in the model")->required();
    app.add_option("--year", year_, "Fiscal year; the base year when left out");
    app.add_option("--scenario", scenario_, "worst, base or best");
    app.add_option("--depth", depth_, "How many steps down")->check(CLI::Range(0, 12));
  }
  Status runOn(Session& session, Context& c) override {
    const services::Snapshot& s = *session.now();
    const model::Model& m = s.evaluation->model();
    const model::RowId row = m.find(row_);
    if (!row.known())
      return fail(ErrorKind::NotFound, "the model has no row '" + row_ + "'", {}, "'zledger statements' lists them");
    const model::Layout& layout = s.evaluation->layout();
    int column = layout.baseColumn();
    if (m[row].timing == model::Timing::Constant) {
      column = 0;
    } else if (year_ != 0) {
      column = layout.baseColumn() + year_ - s.years().back().label();
      if (column < 0 || column >= layout.columns()) {
        return fail(ErrorKind::BadInput,
                    std::to_string(year_) + " is outside " + s.periodOf(0) + " to " + s.periodOf(layout.columns() - 1));
      }
    }
    const Result<int> scenario = scenarioIndex(s.caseOf(), scenario_);
    if (!scenario) return tl::unexpected(scenario.error());
    c.out << (json_ ? exchange::textOf(services::traceJson(s, {row, column}, *scenario, depth_), 2) + "\n"
                    : services::traceText(s, {row, column}, *scenario, depth_));
    return {};
  }
  std::string row_;
  int year_ = 0;
  int depth_ = 2;
  std::string scenario_ = kBase;
};

class ExportCommand : public SessionCommand {
  const char* name() const override { return "export"; }
  const char* purpose() const override { return "The company's case as JSON, to be applied again without loss"; }
  Status runOn(Session& session, Context& c) override {
    if (!json_) return fail(ErrorKind::Unsupported, "a case is exported as JSON", {}, "Add --json");
    const Result<std::string> text = services::caseText(session);
    if (!text) return tl::unexpected(text.error());
    c.out << *text;
    return {};
  }
};

class JournalCommand : public SessionCommand {
  bool worksUnshown() const override { return true; }
  const char* name() const override { return "journal"; }
  const char* purpose() const override {
    return "Who changed what, when; of one assumption, from what to what and why";
  }
  void declareMore(CLI::App& app) override {
    app.add_option("--row", row_, "One driver or input, by its name in the model");
    app.add_option("--scenario", scenario_, "Of which scenario: worst, base or best");
  }
  Status runOn(Session& session, Context& c) override {
    if (!row_.empty()) return ofAssumption(session, c);
    const auto journal = session.journal();
    if (!journal) return tl::unexpected(journal.error());
    for (const store::JournalEntry& e : *journal) {
      const char* state = e.state == store::JournalEntry::State::Done     ? ""
                          : e.state == store::JournalEntry::State::Undone ? "  (undone)"
                                                                          : "  (undone, then replaced)";
      c.out << e.number << "  " << e.at << "  " << e.author << "  " << e.label << state << '\n';
    }
    return {};
  }
  Status ofAssumption(Session& session, Context& c) const {
    const auto changes = services::historyOf(session, scenario_, row_);
    if (!changes) return tl::unexpected(changes.error());
    for (const services::AssumptionChange& change : changes->changes) {
      c.out << change.entry << "  " << change.at << "  " << change.author << "  " << services::changeText(change)
            << '\n';
    }
    if (const std::string untold = services::untoldText(*changes); !untold.empty()) c.out << untold << '\n';
    return {};
  }
  std::string row_, scenario_ = kBase;
};

}  // namespace

std::vector<std::unique_ptr<Command>> viewCommands() {
  std::vector<std::unique_ptr<Command>> list;
  list.push_back(std::make_unique<ValueCommand>());
  list.push_back(std::make_unique<CheckCommand>());
  list.push_back(std::make_unique<ReviewCommand>());
  list.push_back(std::make_unique<BasisCommand>());
  list.push_back(std::make_unique<StatementsCommand>());
  list.push_back(std::make_unique<FactsCommand>());
  list.push_back(std::make_unique<CapitalCommand>());
  for (std::unique_ptr<Command>& report : reportCommands()) list.push_back(std::move(report));
  list.push_back(std::make_unique<FiguresCommand>());
  list.push_back(std::make_unique<RestatementsCommand>());
  list.push_back(std::make_unique<TraceCommand>());
  list.push_back(std::make_unique<ExportCommand>());
  list.push_back(std::make_unique<JournalCommand>());
  return list;
}

}  // namespace zl::cli
