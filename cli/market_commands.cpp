// Figures of the market: taken in, typed, and which price a case stands on.

#include <fmt/format.h>

#include "cli/command.h"
#include "core/quantity/number_text.h"
#include "services/intake/market.h"

namespace zl::cli {
namespace {

using services::Session;

Result<Date> dayOf(const std::string& text) {
  const std::optional<Date> day = parseDate(text);
  if (day) return *day;
  return fail(ErrorKind::BadInput, "'" + text + "' is no date", {}, "Write it as 2026-04-30");
}

class ObserveCommand : public SessionCommand {
  const char* name() const override { return "observe"; }
  const char* purpose() const override {
    return "Take in a figure of the market: typed (an edit), or with --from as a program fetched it (beside the "
           "journal)";
  }
  void declareMore(CLI::App& app) override {
    app.add_option("SERIES", series_, "'price', or a rate by its name ('spot EUR/GBP', 'risk-free EUR')")->required();
    app.add_option("DATE", day_, "Whose figure it is")->required();
    app.add_option("FIGURE", figure_, "A price in the listing's unit; rates as fractions (0.03)")->required();
    app.add_option("--reason", reason_, "Why it was typed");
    app.add_option("--from", source_, "The source a program fetched it from");
    app.add_option("--unit", unit_, "Of a fetched price, where it is not to be taken for the listing's");
  }
  Status runOn(Session& session, Context& c) override {
    const Result<Date> day = dayOf(day_);
    if (!day) return tl::unexpected(day.error());
    store::Observation fetched;
    fetched.series = series_;
    fetched.at = *day;
    fetched.figure = figure_;
    fetched.unit = unit_;
    fetched.source = source_;
    const Status done =
        source_.empty() ? session.typeFigure(series_, *day, figure_, reason_) : session.observe({std::move(fetched)});
    if (done) c.out << fmt::format("{} of {}: {}\n", series_, dateText(*day), plainNumber(figure_));
    return done;
  }
  std::string series_, day_, reason_, source_, unit_;
  double figure_ = 0;
};

class PriceCommand : public SessionCommand {
  const char* name() const override { return "price"; }
  const char* purpose() const override { return "The price that the case stands on; type one, or stand on another"; }
  void declareMore(CLI::App& app) override {
    CLI::Option* figure = app.add_option("FIGURE", typed_, "Types a price, in the listing's unit");
    app.add_option("--date", day_, "Of a typed one; today where left out")->needs(figure);
    auto* ways = app.add_option_group("stands on");
    ways->add_flag("--live", live_, "The latest there is");
    ways->add_flag("--at-date", atDate_, "The close on or before the valuation date");
    ways->add_option("--pin", pinned_, "This one, whatever comes");
    ways->require_option(0, 1);
    app.add_option("--reason", reason_, "Why it is pinned, or where it is from");
  }
  Status runOn(Session& session, Context& c) override {
    if (!typed_.empty()) {
      const std::optional<double> figure = typedNumber(typed_);
      const Result<Date> day = day_.empty() ? Result<Date>(c.desk.today()) : dayOf(day_);
      if (!day) return tl::unexpected(day.error());
      if (!figure) return fail(ErrorKind::BadInput, "'" + typed_ + "' is no price", {}, "Write 742.5");
      if (Status s = session.typeFigure(services::kPriceSeries, *day, *figure, reason_); !s) return s;
    }
    if (live_ || atDate_ || pinned_) {
      PriceChoice price;
      if (live_) price.stands = PriceChoice::Stands::Live;
      if (pinned_) price = {PriceChoice::Stands::Pinned, *pinned_, session.said(reason_)};
      if (Status s = session.apply(services::setPriceChoice(session.now()->caseOf(), price)); !s) return s;
    }
    const services::GivenFigure& price = session.now()->given(model::Role::Price);
    c.out << (price.figure.hasValue() ? plainNumber(price.figure.value()) : price.figure.reason()) << "  ("
          << price.source << ")\n";
    return {};
  }
  bool live_ = false, atDate_ = false;
  std::optional<double> pinned_;
  std::string reason_, typed_, day_;
};

}  // namespace

std::vector<std::unique_ptr<Command>> marketCommands() {
  std::vector<std::unique_ptr<Command>> list;
  list.push_back(std::make_unique<ObserveCommand>());
  list.push_back(std::make_unique<PriceCommand>());
  return list;
}

}  // namespace zl::cli
