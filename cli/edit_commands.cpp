#include "cli/command.h"
#include "services/demo.h"

namespace zl::cli {
namespace {

using services::ImportFile;
using services::Session;

class ImportCommand : public Command {
  const char* name() const override { return "import"; }
  const char* purpose() const override { return "Bring files into a book (made when it does not exist), all or none"; }
  void declare(CLI::App& app) override {
    app.add_option("BOOK", book_, "The book")->required();
    app.add_option("--company", company_, "Short name of the company")->required();
    app.add_option("FILES", files_, "XBRL instances, CSV tables, a company record")->required();
  }
  Status run(Context& c) override {
    std::vector<ImportFile> files;
    for (const std::string& path : files_) {
      Result<std::string> content = services::readFile(path);
      if (!content) return tl::unexpected(content.error());
      files.push_back({services::fileName(path), std::move(*content)});
    }
    const auto result = Session::import(book_, company_, files, *c.resources, c.desk);
    if (!result) return tl::unexpected(result.error());
    for (const services::ImportPreview& p : result->files) {
      c.out << p.name << ": " << p.incoming.document.kind;
      if (p.mapped + p.unmapped + p.segments > 0) {
        c.out << ", " << p.mapped << " facts mapped, " << p.unmapped << " unmapped, " << p.segments
              << " with segments set aside";
      }
      c.out << '\n';
    }
    for (const std::string& warning : result->warnings) c.out << "note: " << warning << '\n';
    return reportState(c);
  }

  /// Says at once what does not tie or map, so that the next step is known.
  Status reportState(Context& c) {
    const auto session = Session::open(book_, company_, c.resources, c.desk);
    if (!session) {
      c.out << "note: " << session.error().text() << '\n';
      return {};
    }
    for (const UnmappedConcept& u : (*session)->now()->evidence->statements.unmapped()) {
      c.out << "unmapped: " << u.concept_name << " (" << u.facts << ")\n";
    }
    for (const Finding& f : (*session)->now()->findings) {
      if (f.stop == Stop::Filings && f.severity == Severity::Fault) c.out << f.monitor << ": " << f.text << '\n';
    }
    return {};
  }
  std::string book_, company_;
  std::vector<std::string> files_;
};

class ApplyCommand : public SessionCommand {
  const char* name() const override { return "apply"; }
  const char* purpose() const override { return "Apply an exported case as one edit"; }
  void declareMore(CLI::App& app) override { app.add_option("FILE", file_, "The case")->required(); }
  Status runOn(Session& session, Context&) override {
    const Result<std::string> text = services::readFile(file_);
    if (!text) return tl::unexpected(text.error());
    return services::applyCaseText(session, *text, services::fileName(file_));
  }
  std::string file_;
};

class UndoCommand : public SessionCommand {
  const char* name() const override { return "undo"; }
  const char* purpose() const override { return "Take the last edit back"; }
  Status runOn(Session& session, Context& c) override {
    const std::string label = session.undoLabel();
    Status s = session.undo();
    if (s) c.out << "undone: " << label << '\n';
    return s;
  }
};

class RedoCommand : public SessionCommand {
  const char* name() const override { return "redo"; }
  const char* purpose() const override { return "Do the last undone edit again"; }
  Status runOn(Session& session, Context& c) override {
    const std::string label = session.redoLabel();
    Status s = session.redo();
    if (s) c.out << "done again: " << label << '\n';
    return s;
  }
};

class DemoCommand : public Command {
  const char* name() const override { return "demo"; }
  const char* purpose() const override { return "Make the demo book from the files that ship with the product"; }
  void declare(CLI::App& app) override { app.add_option("BOOK", book_, "The book to make")->required(); }
  Status run(Context& c) override { return services::makeDemoBook(book_, c.resources, c.desk); }
  std::string book_;
};

}  // namespace

std::vector<std::unique_ptr<Command>> editCommands() {
  std::vector<std::unique_ptr<Command>> list;
  list.push_back(std::make_unique<ImportCommand>());
  list.push_back(std::make_unique<ApplyCommand>());
  list.push_back(std::make_unique<UndoCommand>());
  list.push_back(std::make_unique<RedoCommand>());
  list.push_back(std::make_unique<DemoCommand>());
  return list;
}

}  // namespace zl::cli
