#include "cli/command.h"
#include "services/roll_forward.h"
#include "services/scenario_view.h"

namespace zl::cli {
namespace {

using services::Session;

class ScenariosCommand : public SessionCommand {
  const char* name() const override { return "scenarios"; }
  const char* purpose() const override { return "Scenarios side by side, where they differ, with the reference cases"; }
  Status runOn(Session& session, Context& c) override {
    c.out << (json_ ? services::scenariosJson(*session.now(), c.resources).dump(2) + "\n"
                    : services::scenariosText(*session.now(), c.resources));
    return {};
  }
};

class CautionCommand : public SessionCommand {
  const char* name() const override { return "caution"; }
  const char* purpose() const override {
    return "What each choice of base costs against a neutral one, and all together";
  }
  Status runOn(Session& session, Context& c) override {
    const Result<services::SumOfCaution> sum = services::sumOfCaution(*session.now(), c.resources);
    if (!sum) return tl::unexpected(sum.error());
    c.out << (json_ ? services::cautionJson(*sum).dump(2) + "\n" : services::cautionText(*sum, *session.now()));
    return {};
  }
};

class RollCommand : public SessionCommand {
  const char* name() const override { return "roll"; }
  const char* purpose() const override {
    return "Forecast against actual of a year filed since; or roll forward to it";
  }
  void declareMore(CLI::App& app) override {
    app.add_flag("--forward", forward_, "Keep the state before as a version and move the base year on");
  }
  Status runOn(Session& session, Context& c) override {
    if (forward_) return services::keepAndRollForward(session);
    c.out << (json_ ? services::forecastAgainstActualJson(*session.now()).dump(2) + "\n"
                    : services::forecastAgainstActualText(*session.now()));
    return {};
  }
  bool forward_ = false;
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
    for (const Finding& f : session.now()->findings) {
      if (f.key().find(finding_) == std::string::npos) continue;
      if (found != nullptr) {
        return fail(ErrorKind::BadInput, "several findings hold '" + finding_ + "'", {}, "Give more of its words");
      }
      found = &f;
    }
    if (found == nullptr)
      return fail(ErrorKind::NotFound, "no finding holds '" + finding_ + "'", {}, "'zledger check' lists them");
    return session.apply(services::acknowledge(session.now()->caseOf(), found->key(), session.said(reason_)));
  }
  std::string finding_, reason_;
};

}  // namespace

std::vector<std::unique_ptr<Command>> outlookCommands() {
  std::vector<std::unique_ptr<Command>> list;
  list.push_back(std::make_unique<ScenariosCommand>());
  list.push_back(std::make_unique<CautionCommand>());
  list.push_back(std::make_unique<RollCommand>());
  list.push_back(std::make_unique<AcknowledgeCommand>());
  return list;
}

}  // namespace zl::cli
