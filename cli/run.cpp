#include "cli/run.h"

#include <algorithm>

#include "cli/command.h"

namespace zl::cli {

void SessionCommand::declare(CLI::App& app) {
  app.add_option("BOOK", book_, "The book to open")->required();
  app.add_option("--company", company_, "Which company, when the book has several");
  app.add_flag("--json", json_, "Print JSON");
  declareMore(app);
}

Status SessionCommand::run(Context& context) {
  const Result<std::unique_ptr<services::Session>> session =
      services::Session::open(book_, company_, context.resources, context.desk);
  if (!session) return tl::unexpected(session.error());
  if (const std::string& notice = (*session)->readOnly(); !notice.empty()) context.err << "note: " << notice << '\n';
  return runOn(**session, context);
}

Result<int> scenarioIndex(const Case& c, const std::string& name) {
  std::string known;
  for (size_t i = 0; i < c.scenarios.size(); ++i) {
    if (c.scenarios[i].id == name || c.scenarios[i].label == name) return static_cast<int>(i);
    known += (known.empty() ? "" : ", ") + c.scenarios[i].id;
  }
  return fail(ErrorKind::NotFound, "there is no scenario '" + name + "'", {}, "There are: " + known);
}

int run(const std::vector<std::string>& arguments, std::ostream& out, std::ostream& err, const services::Desk& desk) {
  CLI::App app("Zealous Ledger: equity forecasts and valuation from filed statements", "zledger");
  app.require_subcommand(1);
  std::vector<std::unique_ptr<Command>> commands = viewCommands();
  for (const auto more : {editCommands, outlookCommands, versionCommands, modelCommands}) {
    for (auto& command : more()) commands.push_back(std::move(command));
  }
  for (const auto& command : commands) command->declare(*app.add_subcommand(command->name(), command->purpose()));
  try {
    std::vector<std::string> reversed(arguments.rbegin(), arguments.rend());
    app.parse(std::move(reversed));
  } catch (const CLI::ParseError& e) {
    const int status = app.exit(e, out, err);
    return status == 0 ? 0 : 2;
  }
  const Result<std::shared_ptr<const services::Resources>> resources = services::Resources::load();
  if (!resources) {
    err << "zledger: " << resources.error().text() << '\n';
    return 1;
  }
  Context context{out, err, *resources, desk};
  for (const auto& command : commands) {
    if (!app.got_subcommand(command->name())) continue;
    if (const Status s = command->run(context); !s) {
      err << "zledger: " << s.error().text() << '\n';
      return 1;
    }
  }
  return 0;
}

}  // namespace zl::cli
