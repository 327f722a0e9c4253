#include "cli/run.h"

#include <algorithm>
#include <new>
#include <sstream>

#include "cli/command.h"
#include "core/text/utf8.h"
#include "services/sessions/book_care.h"

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
  Status done;
  if (const std::optional<Error>& fault = (*session)->fault(); fault && !worksUnshown()) {
    const std::string label = (*session)->undoLabel();
    Error told = *fault;
    told.what = "the company cannot be shown: " + told.what;
    if (!label.empty()) told.todo += (told.todo.empty() ? "" : "; ") + ("'zledger undo' takes back '" + label + "'");
    done = tl::unexpected(told);
  } else {
    done = runOn(**session, context);
  }
  for (const std::string& notice : (*session)->notices()) context.err << "note: " << notice << '\n';
  return done;
}

Result<int> scenarioIndex(const Case& c, const std::string& name) {
  std::string known;
  for (size_t i = 0; i < c.scenarios.size(); ++i) {
    if (c.scenarios[i].id == name || c.scenarios[i].label == name) return static_cast<int>(i);
    known += (known.empty() ? "" : ", ") + c.scenarios[i].id;
  }
  return fail(ErrorKind::NotFound, "there is no scenario '" + name + "'", {}, "There are: " + known);
}

namespace {

std::vector<std::unique_ptr<Command>> allCommands() {
  std::vector<std::unique_ptr<Command>> commands = viewCommands();
  for (const auto more : {editCommands, assumptionCommands, recordCommands, outlookCommands, versionCommands,
                          modelCommands, bookCommands, marketCommands, peerCommands}) {
    for (auto& command : more()) commands.push_back(std::move(command));
  }
  return commands;
}

/// The command that was named, run; what it prints is gathered, so that a name out of a filing steers no terminal.
Status runNamed(const std::vector<std::unique_ptr<Command>>& commands, const CLI::App& app, Context& context) {
  for (const auto& command : commands) {
    if (!app.got_subcommand(command->name())) continue;
    const Status done = command->run(context);
    if (done || done.error().kind != ErrorKind::Damaged || command->book().empty()) return done;
    // Where the damage is, at once.
    const Result<services::BookCheck> check = services::checkBook(command->book(), context.resources, context.desk);
    if (check) context.err << services::checkText(*check);
    return done;
  }
  return {};
}

}  // namespace

int run(const std::vector<std::string>& arguments, std::ostream& out, std::ostream& err, const services::Desk& desk) {
  const auto refuse = [&](const std::string& message) {
    err << "zledger: " << harmless(message) << std::endl;
    return 1;
  };
  std::ostringstream printed;
  std::ostringstream noted;
  const auto show = [&]() -> bool {
    err << harmless(noted.str(), true) << std::flush;
    out << harmless(printed.str(), true) << std::flush;
    return static_cast<bool>(out);
  };
  constexpr const char* kUnprinted = "the output could not be written: check the disk or the program that reads it";
  try {
    CLI::App app("Zealous Ledger: equity forecasts and valuation from filed statements", "zledger");
    app.require_subcommand(1);
    const std::vector<std::unique_ptr<Command>> commands = allCommands();
    for (const auto& command : commands) command->declare(*app.add_subcommand(command->name(), command->purpose()));
    try {
      std::vector<std::string> reversed(arguments.rbegin(), arguments.rend());
      app.parse(std::move(reversed));
    } catch (const CLI::ParseError& e) {
      const int status = app.exit(e, printed, noted);
      if (!show()) return refuse(kUnprinted);
      return status == 0 ? 0 : 2;
    }
    const Result<std::shared_ptr<const services::Resources>> resources = services::Resources::load();
    if (!resources) return refuse(resources.error().text());
    for (const Error& fault : (*resources)->resting) noted << "note: a model is not in use: " << fault.text() << '\n';
    Context context{printed, noted, *resources, desk};
    const Status done = runNamed(commands, app, context);
    const bool shown = show();
    if (!done) return refuse(done.error().text());
    return shown ? context.status : refuse(kUnprinted);
  } catch (const std::bad_alloc&) {
    return refuse("there is not enough memory for this; what was stored before is stored");
  } catch (const std::exception& e) {
    show();
    return refuse("a fault in the program (" + std::string(e.what()) +
                  "); what was stored before is stored. Please report it");
  }
}

}  // namespace zl::cli
