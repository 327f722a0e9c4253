#pragma once
// One command of the line: declares its arguments, then runs.

#include <CLI/CLI.hpp>
#include <memory>
#include <ostream>
#include <string>

#include "services/sessions/session.h"

namespace zl::cli {

struct Context {
  std::ostream& out;
  std::ostream& err;
  std::shared_ptr<const services::Resources> resources;
  const services::Desk& desk;
  int status = 0;  ///< with which a command that was done ends: 1 where it found what its caller must know
};

class Command {
 public:
  virtual ~Command() = default;
  [[nodiscard]] virtual const char* name() const = 0;
  [[nodiscard]] virtual const char* purpose() const = 0;
  virtual void declare(CLI::App& app) = 0;
  virtual Status run(Context& context) = 0;
  /// The book it works on, to be looked through where it turns out to be damaged; empty: none.
  [[nodiscard]] virtual std::string book() const { return {}; }
};

/// A command on one company of an existing book.
class SessionCommand : public Command {
 public:
  void declare(CLI::App& app) override;
  Status run(Context& context) override;
  [[nodiscard]] std::string book() const override { return book_; }

 protected:
  virtual void declareMore(CLI::App&) {}
  virtual Status runOn(services::Session& session, Context& context) = 0;
  /// Whether the command is of use where the company cannot be shown.
  [[nodiscard]] virtual bool worksUnshown() const { return false; }
  bool json_ = false;

 private:
  std::string book_;
  std::string company_;
};

std::vector<std::unique_ptr<Command>> viewCommands();
std::vector<std::unique_ptr<Command>> editCommands();
std::vector<std::unique_ptr<Command>> assumptionCommands();
std::vector<std::unique_ptr<Command>> recordCommands();
std::vector<std::unique_ptr<Command>> outlookCommands();
std::vector<std::unique_ptr<Command>> versionCommands();
std::vector<std::unique_ptr<Command>> modelCommands();
std::vector<std::unique_ptr<Command>> bookCommands();
std::vector<std::unique_ptr<Command>> marketCommands();
std::vector<std::unique_ptr<Command>> peerCommands();

/// Index of a scenario by id or label; fails naming those there are.
Result<int> scenarioIndex(const Case& c, const std::string& name);

}  // namespace zl::cli
