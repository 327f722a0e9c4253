#include <algorithm>

#include "cli/command.h"
#include "exchange/json/reader.h"
#include "services/views/decide.h"
#include "services/views/interim_progress.h"
#include "services/views/published.h"
#include "services/views/roll_forward.h"
#include "services/views/scenario_view.h"

namespace zl::cli {
namespace {

using services::Session;

class ScenariosCommand : public SessionCommand {
  const char* name() const override { return "scenarios"; }
  const char* purpose() const override { return "Scenarios side by side, where they differ, with the reference cases"; }
  Status runOn(Session& session, Context& c) override {
    c.out << (json_ ? exchange::textOf(services::scenariosJson(*session.now()), 2) + "\n"
                    : services::scenariosText(*session.now()));
    return {};
  }
};

class CautionCommand : public SessionCommand {
  const char* name() const override { return "caution"; }
  const char* purpose() const override {
    return "What each choice of base costs against a neutral one, and all together";
  }
  Status runOn(Session& session, Context& c) override {
    const Result<services::SumOfCaution> sum = services::sumOfCaution(*session.now());
    if (!sum) return tl::unexpected(sum.error());
    c.out << (json_ ? exchange::textOf(services::cautionJson(*sum), 2) + "\n"
                    : services::cautionText(*sum, *session.now()));
    return {};
  }
};

class DecideCommand : public SessionCommand {
  const char* name() const override { return "decide"; }
  const char* purpose() const override {
    return "What is not decided yet, ranked by what it moves; or take one as it stands, with a reason";
  }
  void declareMore(CLI::App& app) override {
    CLI::Option* row = app.add_option("ROW", row_, "A driver or input of base that is taken as it stands");
    app.add_option("--reason", reason_, "Why it is right")->needs(row);
  }
  Status runOn(Session& session, Context& c) override {
    const services::Snapshot& now = *session.now();
    const services::DecideNext next = services::decideNext(now);
    if (row_.empty()) {
      c.out << (json_ ? exchange::textOf(services::decideJson(next, now), 2) + "\n" : services::decideText(next, now));
      return {};
    }
    if (reason_.empty()) {
      return fail(ErrorKind::BadInput, "a decision has a reason", row_, "Give --reason");
    }
    const auto open = std::find_if(next.list.begin(), next.list.end(),
                                   [&](const auto& u) { return now.model()[u.row].name == row_; });
    if (open != next.list.end()) return session.apply(services::confirm(now, open->row, session.said(reason_)));
    std::string names;
    for (const services::Undecided& u : next.list) names += (names.empty() ? "" : ", ") + now.model()[u.row].name;
    return fail(ErrorKind::NotFound, "'" + row_ + "' is nothing that waits to be decided", session.companyId(),
                names.empty() ? "Everything is decided" : "Waiting: " + names);
  }
  std::string row_, reason_;
};

class RollCommand : public SessionCommand {
  const char* name() const override { return "roll"; }
  const char* purpose() const override {
    return "Forecast against actual of a year filed since; or roll forward to it";
  }
  void declareMore(CLI::App& app) override {
    app.add_flag("--forward", forward_, "Keep the state before as a version and move the base year on");
    app.add_flag("--interim", interim_, "The latest interim report of the year that is forecast, against its forecast");
  }
  Status runOn(Session& session, Context& c) override {
    if (forward_) return services::keepAndRollForward(session);
    if (interim_) {
      const services::InterimProgress progress = services::interimProgress(*session.now());
      c.out << (json_ ? exchange::textOf(services::interimProgressJson(progress), 2) + "\n"
                      : services::interimProgressText(progress, *session.now()));
      return {};
    }
    c.out << (json_ ? exchange::textOf(services::forecastAgainstActualJson(*session.now()), 2) + "\n"
                    : services::forecastAgainstActualText(*session.now()));
    return {};
  }
  bool forward_ = false, interim_ = false;
};

class PublishCommand : public SessionCommand {
  const char* name() const override { return "publish"; }
  const char* purpose() const override { return "Freeze own estimates under a name; or list, compare, withdraw them"; }
  void declareMore(CLI::App& app) override {
    app.add_option("NAME", set_, "Of the estimates to freeze");
    app.add_option("--note", note_, "What they were made for");
    app.add_option("--compare", compare_, "Published estimates against today's");
    app.add_option("--withdraw", withdraw_, "Take a set off the list");
  }
  Status runOn(Session& session, Context& c) override {
    const services::Snapshot& now = *session.now();
    if (!set_.empty()) return session.apply(services::publish(now, set_, session.said(note_)));
    const std::string& wanted = compare_.empty() ? withdraw_ : compare_;
    std::string known;
    bool found = false;
    for (const PublishedSet& set : now.caseOf().published) {
      found = found || set.name == wanted;
      known += (known.empty() ? "There are: " : ", ") + set.name;
      if (wanted.empty()) {
        c.out << set.name << "  " << set.said.at << "  " << set.said.author
              << (set.said.reason.empty() ? "" : "  " + set.said.reason) << '\n';
      }
    }
    if (wanted.empty()) return {};
    if (!found) {
      return fail(ErrorKind::NotFound, "there are no published estimates '" + wanted + "'", session.companyId(),
                  known.empty() ? "Publish some first" : known);
    }
    if (!withdraw_.empty()) return session.apply(services::withdraw(now.caseOf(), withdraw_));
    c.out << (json_ ? exchange::textOf(services::publishedJson(now, compare_), 2) + "\n"
                    : services::publishedText(now, compare_));
    return {};
  }
  std::string set_, note_, compare_, withdraw_;
};

class AcknowledgeCommand : public SessionCommand {
  const char* name() const override { return "acknowledge"; }
  const char* purpose() const override {
    return "Accept a finding with a reason; it comes back when what it says changes";
  }
  void declareMore(CLI::App& app) override {
    app.add_option("FINDING", finding_, "Part of what 'zledger check' prints of it, found in one only")->required();
    app.add_option("--reason", reason_, "Why it may stand")->required();
  }
  Status runOn(Session& session, Context&) override {
    const Finding* found = nullptr;
    for (const Finding& f : session.now()->findings()) {
      if (session.now()->wordsOf(f).find(finding_) == std::string::npos) continue;
      if (found != nullptr) {
        return fail(ErrorKind::BadInput, "several findings hold '" + finding_ + "'", {}, "Give more of its words");
      }
      found = &f;
    }
    if (found == nullptr)
      return fail(ErrorKind::NotFound, "no finding holds '" + finding_ + "'", {}, "'zledger check' lists them");
    return session.apply(services::acknowledge(session.now()->caseOf(), *found, session.said(reason_)));
  }
  std::string finding_, reason_;
};

}  // namespace

std::vector<std::unique_ptr<Command>> outlookCommands() {
  std::vector<std::unique_ptr<Command>> list;
  list.push_back(std::make_unique<ScenariosCommand>());
  list.push_back(std::make_unique<CautionCommand>());
  list.push_back(std::make_unique<DecideCommand>());
  list.push_back(std::make_unique<RollCommand>());
  list.push_back(std::make_unique<PublishCommand>());
  list.push_back(std::make_unique<AcknowledgeCommand>());
  return list;
}

}  // namespace zl::cli
