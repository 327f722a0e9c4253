#include "cli/command.h"
#include "core/quantity/number_text.h"
#include "exchange/json/reader.h"
#include "services/views/compare.h"
#include "services/views/exit_runs.h"

namespace zl::cli {
namespace {

using services::Session;
using services::Side;

Result<std::vector<Side>> sidesOf(Session& session, const std::vector<std::string>& names) {
  std::vector<Side> sides;
  for (const std::string& name : names) {
    Result<Side> side = services::sideOf(session, name);
    if (!side) return tl::unexpected(side.error());
    sides.push_back(std::move(*side));
  }
  return sides;
}

class VersionsCommand : public SessionCommand {
  const char* name() const override { return "versions"; }
  const char* purpose() const override { return "The versions kept, oldest first; or keep, or take off the list"; }
  void declareMore(CLI::App& app) override {
    app.add_option("--keep", keep_, "Keep the present state under this name");
    app.add_option("--note", note_, "With --keep: what the version is for");
    app.add_option("--drop", drop_, "Take a version off the list");
  }
  Status runOn(Session& session, Context& c) override {
    if (!keep_.empty()) return session.keepVersion(keep_, note_);
    if (!drop_.empty()) return session.setVersionAside(drop_);
    const Result<std::vector<store::KeptVersion>> versions = session.versions();
    if (!versions) return tl::unexpected(versions.error());
    services::Json list = services::Json::array();
    for (const store::KeptVersion& v : *versions) {
      if (json_) {
        list.push_back({{"name", v.name}, {"at", v.at}, {"author", v.author}, {"note", v.note}});
      } else {
        c.out << v.name << "  " << v.at << "  " << v.author << (v.note.empty() ? "" : "  " + v.note) << '\n';
      }
    }
    if (json_) c.out << exchange::textOf(list, 2) << '\n';
    return {};
  }
  std::string keep_, note_, drop_;
};

class RestoreCommand : public SessionCommand {
  const char* name() const override { return "restore"; }
  const char* purpose() const override { return "Take the assumptions back to a version's, as one edit"; }
  void declareMore(CLI::App& app) override { app.add_option("VERSION", version_, "Its name")->required(); }
  Status runOn(Session& session, Context&) override { return session.goBackTo(version_); }
  std::string version_;
};

class ExitRunsCommand : public SessionCommand {
  const char* name() const override { return "exit-runs"; }
  const char* purpose() const override {
    return "Runs of the exit return beside each other: the present one and versions";
  }
  void declareMore(CLI::App& app) override {
    app.add_option("VERSIONS", versions_, "Their names; all of them where left out");
    app.add_option("--scenario", scenario_, "Which one");
  }
  Status runOn(Session& session, Context& c) override {
    if (versions_.empty()) {
      const Result<std::vector<store::KeptVersion>> all = session.versions();
      if (!all) return tl::unexpected(all.error());
      for (const store::KeptVersion& v : *all) versions_.push_back(v.name);
    }
    versions_.insert(versions_.begin(), services::kNow);
    const Result<std::vector<Side>> sides = sidesOf(session, versions_);
    if (!sides) return tl::unexpected(sides.error());
    if (session.now()->caseOf().indexOf(scenario_) < 0)
      return fail(ErrorKind::NotFound, "there is no scenario '" + scenario_ + "'", {},
                  "'zledger scenarios' lists them");
    services::Json json = services::Json::array();
    for (const services::ExitRunLine& line : services::exitRuns(*sides, scenario_)) {
      services::Json of{{"label", line.label}};
      if (!json_) c.out << line.label << ':';
      for (size_t i = 0; i < line.figures.size(); ++i) {
        if (json_) {
          of["runs"][versions_[i]] = services::figureJson(line.figures[i]);
        } else {
          c.out << "  " << versions_[i] << ' ' << figureText(line.figures[i], line.kind);
        }
      }
      if (!json_) c.out << '\n';
      json.push_back(std::move(of));
    }
    if (json_) c.out << exchange::textOf(json, 2) << '\n';
    return {};
  }
  std::vector<std::string> versions_;
  std::string scenario_ = kBase;
};

class CompareCommand : public SessionCommand {
  const char* name() const override { return "compare"; }
  const char* purpose() const override { return "Versions side by side: values, assumptions that differ, statements"; }
  void declareMore(CLI::App& app) override {
    app.add_option("VERSIONS", versions_, "Two or more names; 'now' is the present state")->required()->expected(2, 8);
    app.add_option("--scenario", scenario_, "Whose statements: worst, base or best");
  }
  Status runOn(Session& session, Context& c) override {
    const Result<std::vector<Side>> sides = sidesOf(session, versions_);
    if (!sides) return tl::unexpected(sides.error());
    const Result<int> scenario = scenarioIndex(sides->front().snapshot->caseOf(), scenario_);
    if (!scenario) return tl::unexpected(scenario.error());
    const services::Comparison comparison = services::compare(*sides);
    c.out << (json_ ? exchange::textOf(services::comparisonJson(comparison, *sides, scenario_), 2) + "\n"
                    : services::comparisonText(comparison, *sides, scenario_));
    return {};
  }
  std::vector<std::string> versions_;
  std::string scenario_ = kBase;
};

class WalkCommand : public SessionCommand {
  const char* name() const override { return "walk"; }
  const char* purpose() const override { return "What moved the value per share from one version to another"; }
  void declareMore(CLI::App& app) override {
    app.add_option("FROM", from_, "A version's name, or 'now'")->required();
    app.add_option("TO", to_, "A version's name, or 'now'")->required();
    app.add_option("--scenario", scenario_, "worst, base or best");
    app.add_flag("--weighted", weighted_, "Walk the probability-weighted value");
    app.add_flag("--rows", rows_, "Split by driver instead of by group");
  }
  Status runOn(Session& session, Context& c) override {
    const Result<std::vector<Side>> sides = sidesOf(session, {from_, to_});
    if (!sides) return tl::unexpected(sides.error());
    const Result<ValueWalk> walk = services::walkBetween(sides->at(0), sides->at(1), weighted_ ? "" : scenario_, rows_);
    if (!walk) return tl::unexpected(walk.error());
    c.out << (json_ ? exchange::textOf(services::walkJson(*walk, sides->at(0), sides->at(1)), 2) + "\n"
                    : services::walkText(*walk, sides->at(0), sides->at(1)));
    return {};
  }
  std::string from_, to_, scenario_ = kBase;
  bool weighted_ = false;
  bool rows_ = false;
};

}  // namespace

std::vector<std::unique_ptr<Command>> versionCommands() {
  std::vector<std::unique_ptr<Command>> list;
  list.push_back(std::make_unique<VersionsCommand>());
  list.push_back(std::make_unique<RestoreCommand>());
  list.push_back(std::make_unique<CompareCommand>());
  list.push_back(std::make_unique<ExitRunsCommand>());
  list.push_back(std::make_unique<WalkCommand>());
  return list;
}

}  // namespace zl::cli
