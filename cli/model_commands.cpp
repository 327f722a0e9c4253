#include "cli/command.h"
#include "exchange/json/reader.h"
#include "services/views/builds.h"
#include "services/views/own_rows.h"

namespace zl::cli {
namespace {

using services::Session;

class ModelCommand : public SessionCommand {
  const char* name() const override { return "model"; }
  const char* purpose() const override { return "The model in use and those that ship; or use another one"; }
  void declareMore(CLI::App& app) override { app.add_option("NAME", model_, "Of the model to use"); }
  Status runOn(Session& session, Context& c) override {
    const Case& now = session.now()->caseOf();
    std::string known;
    for (const services::ShippedModel& m : c.resources->models) {
      if (m.name == model_) return session.apply(services::setModel(now, m));
      known += (known.empty() ? "There are: " : ", ") + m.name;
      if (model_.empty()) c.out << (m.name == now.model ? "* " : "  ") << m.name << "  " << m.title << '\n';
    }
    for (const std::string& resting : session.now()->model().restingFeatures()) {
      if (model_.empty()) c.out << "  " << resting << '\n';
    }
    if (model_.empty()) return {};
    return fail(ErrorKind::NotFound, "there is no model '" + model_ + "'", "", known);
  }
  std::string model_;
};

class RowsCommand : public SessionCommand {
  const char* name() const override { return "rows"; }
  const char* purpose() const override { return "The own rows upon the model: print, try, set, or add a ready build"; }
  void declareMore(CLI::App& app) override {
    app.add_option("--try", try_, "A file of model text: what it would do, nothing is stored");
    app.add_option("--set", set_, "A file of model text that takes the own rows' place");
    app.add_flag("--drop", drop_, "Take the own rows away");
    app.add_option("--build", build_, "Add a ready build by its label; 'list' names them");
    app.add_option("--reason", reason_, "Why");
  }
  Status runOn(Session& session, Context& c) override {
    const services::Snapshot& now = *session.now();
    if (drop_) return session.apply(services::setOwnRows(now.caseOf(), "", session.said(reason_)));
    if (!build_.empty()) return build(session, c);
    const std::string& file = try_.empty() ? set_ : try_;
    if (file.empty()) {
      c.out << ownRowsInUse(now.caseOf());
      return {};
    }
    const Result<std::string> text = services::readFile(file);
    if (!text) return tl::unexpected(text.error());
    return accept(session, c, *text, set_.empty());
  }

  Status build(Session& session, Context& c) {
    const services::Snapshot& now = *session.now();
    for (const services::Build& b : services::buildsFor(now)) {
      if (build_ == "list") c.out << b.label << '\n';
      if (b.label != build_) continue;
      const std::string& before = ownRowsInUse(now.caseOf());
      return accept(session, c, before + (before.empty() ? "" : "\n") + b.text, false);
    }
    if (build_ == "list") return {};
    return fail(ErrorKind::NotFound, "there is no build '" + build_ + "'", "", "'--build list' names those there are");
  }

  Status accept(Session& session, Context& c, const std::string& text, bool onlyTry) {
    const services::OwnRowsCheck check = services::checkOwnRows(*session.now(), text);
    if (check.fault) return tl::unexpected(*check.fault);
    c.out << (json_ ? exchange::textOf(services::checkJson(check), 2) + "\n"
                    : services::checkText(check, *session.now()));
    if (onlyTry) return {};
    return session.apply(services::setOwnRows(session.now()->caseOf(), text, session.said(reason_)));
  }
  std::string try_, set_, build_, reason_;
  bool drop_ = false;
};

}  // namespace

std::vector<std::unique_ptr<Command>> modelCommands() {
  std::vector<std::unique_ptr<Command>> list;
  list.push_back(std::make_unique<ModelCommand>());
  list.push_back(std::make_unique<RowsCommand>());
  return list;
}

}  // namespace zl::cli
