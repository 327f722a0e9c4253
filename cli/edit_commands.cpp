#include "cli/command.h"
#include "services/intake/judged.h"
#include "services/reports/report.h"
#include "services/sessions/case_file.h"
#include "services/sessions/demo.h"
#include "services/text/likely_names.h"

namespace zl::cli {
namespace {

using services::ImportFile;
using services::Session;

/// "Label=line" or "Label=-line" as typed for a row of a table or a concept.
Result<std::pair<std::string, LineChoice>> typedChoice(const std::string& text, const model::Model& m) {
  const std::size_t equals = text.rfind('=');
  LineChoice choice{equals == std::string::npos ? "" : text.substr(equals + 1), 1, "chosen by hand", true};
  if (!choice.line.empty() && choice.line[0] == '-') {
    choice.weight = -1;
    choice.line.erase(0, 1);
  }
  const model::RowId row = m.find(choice.line);
  const bool line = row.known() && m[row].isStandardLine();
  if (equals == std::string::npos || equals == 0 || (!choice.line.empty() && !line)) {
    return fail(ErrorKind::BadInput, "'" + text + "' names no standard line", "",
                "Write 'Label=line', 'Label=-line' for the other sign, 'Label=' to set it aside");
  }
  return std::pair(text.substr(0, equals), choice);
}

class ImportCommand : public Command {
  const char* name() const override { return "import"; }
  const char* purpose() const override { return "Bring files into a book (made when it does not exist), all or none"; }
  void declare(CLI::App& app) override {
    app.add_option("BOOK", book_, "The book")->required();
    app.add_option("--company", company_, "Short name of the company")->required();
    app.add_option("FILES", files_, "Filed reports, tables, workbooks, a company record, or folders of them")
        ->required();
    app.add_option("--line", lines_, "For tables: a row's line, as 'Label=line' or 'Label=-line'; may be repeated");
    app.add_option("--currency", currency_, "For tables: the currency");
    app.add_option("--scale", scale_, "For tables: the power of ten of the figures (3 thousands, 6 millions)");
    app.add_option(
        "--period", periods_,
        "For tables: a column's period, as 'Heading=12 to 2024-12-31'; 'Heading=' leaves it out; may be repeated");
    app.add_flag("--mend", mend_, "Make the changes of lines that let more ties hold, one after another");
    app.add_flag("--accept", accept_, "For tables: bring them in as they would be read");
  }
  Status run(Context& c) override {
    if (Status s = services::validCompanyId(company_); !s) return s;
    Result<std::vector<services::ImportPreview>> previews = read(c);
    if (!previews) return tl::unexpected(previews.error());
    bool guessed = false;
    for (const services::ImportPreview& p : *previews) {
      guessed = guessed || !p.readings.empty();
      c.out << services::readingText(p, c.resources->model);
    }
    if (guessed && !accept_) {
      for (const services::ImportPreview& p : *previews) {
        for (const std::string& warning : p.warnings) c.out << "note: " << p.name << ": " << warning << '\n';
      }
      c.out
          << "nothing is stored yet: correct with --line, --currency, --scale, --period or --mend, then add --accept\n";
      return {};
    }
    const auto result = Session::bringIn(book_, company_, std::move(*previews), c.resources, c.desk);
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
    if (result->shown) reportState(*result->shown, c);
    return {};
  }

  /// Reads each file once; tables are read by a guess, with what was typed.
  Result<std::vector<services::ImportPreview>> read(Context& c) {
    Result<services::ImportContext> context = Session::contextFor(book_, company_, c.resources, c.desk);
    if (!context) return tl::unexpected(context.error());
    for (const std::string& text : lines_) {
      const auto typed = typedChoice(text, c.resources->model);
      if (!typed) return tl::unexpected(typed.error());
      context->hints.remembered["label:" + typed->first] = typed->second;
    }
    if (!currency_.empty()) context->hints.fixedCurrency = currency_;
    if (scale_) context->hints.fixedScale = scale_;
    const Result<std::vector<ImportFile>> files = services::readFiles(files_);
    if (!files) return tl::unexpected(files.error());
    Result<std::vector<services::ImportPreview>> previews = services::preview(*files, *context);
    if (!previews) return previews;
    for (const std::string& text : periods_) {
      if (Status s = setPeriods(*previews, text); !s) return tl::unexpected(s.error());
    }
    for (services::ImportPreview& p : *previews) {
      if (p.readings.empty() || periods_.empty()) continue;
      if (Status s = services::applyReadings(p, *context); !s) return tl::unexpected(s.error());
    }
    for (services::ImportPreview& p : *previews) {
      while (mend_ && p.repair) {
        c.out << p.name << ": mended: " << services::repairText(p, c.resources->model) << '\n';
        if (Status s = services::takeRepair(p, *context); !s) return tl::unexpected(s.error());
      }
    }
    return previews;
  }

  /// 'Heading=period' for every column of that heading.
  static Status setPeriods(std::vector<services::ImportPreview>& previews, const std::string& text) {
    const size_t equals = text.rfind('=');
    if (equals == std::string::npos || equals == 0) {
      return fail(ErrorKind::BadInput, "'" + text + "' names no column", "--period",
                  "Write 'Heading=12 to 2024-12-31'");
    }
    const std::string heading = text.substr(0, equals);
    std::string known;
    bool found = false;
    for (services::ImportPreview& p : previews) {
      for (services::SheetReading& s : p.readings) {
        for (size_t c = 0; c < s.reading.columns.size(); ++c) {
          known += (known.empty() ? "There are: '" : ", '") + s.reading.columns[c].heading + "'";
          if (s.reading.columns[c].heading != heading) continue;
          found = true;
          if (Status set = setPeriod(s.reading, c, text.substr(equals + 1)); !set) return set;
        }
      }
    }
    if (found) return {};
    return fail(ErrorKind::NotFound, "no column is headed '" + heading + "'", "--period",
                known.empty() ? "No table was read" : known);
  }

  /// Says at once what does not tie or map, so that the next step is known.
  static void reportState(const services::Snapshot& shown, Context& c) {
    for (const UnmappedConcept& u : shown.filed->statements.unmapped()) {
      c.out << (u.reason.empty() ? "unmapped: " : "set aside: ") << u.concept_name << " (" << u.facts << ")"
            << (u.reason.empty() ? "" : ": " + u.reason) << '\n';
    }
    for (const Finding& f : shown.findings()) {
      if (f.stop == Stop::Filings && f.severity == Severity::Fault) c.out << f.monitor << ": " << f.text << '\n';
    }
  }
  std::string book_, company_, currency_;
  std::vector<std::string> files_, lines_, periods_;
  std::optional<int> scale_;
  bool accept_ = false;
  bool mend_ = false;
};

class MapCommand : public SessionCommand {
  const char* name() const override { return "map"; }
  const char* purpose() const override { return "Put a filed concept on a standard line, or set it aside"; }
  void declareMore(CLI::App& app) override {
    app.add_option("CHOICE", choice_, "'concept=line', 'concept=-line' for the other sign, 'concept=' to set it aside")
        ->required();
    app.add_option("--reason", reason_, "Why");
  }
  Status runOn(Session& session, Context&) override {
    const model::Model& m = session.now()->resources->model;
    auto typed = typedChoice(choice_, m);
    if (!typed) return tl::unexpected(typed.error());
    std::set<std::string> concepts;
    for (const Fact& fact : session.now()->evidence->facts) concepts.insert(fact.concept_name);
    if (concepts.count(typed->first) == 0) {
      return fail(ErrorKind::NotFound, "no document files the concept '" + typed->first + "'", "CHOICE",
                  services::likelyNames(typed->first, concepts));
    }
    if (!reason_.empty()) typed->second.reason = reason_;
    return session.apply(services::setLineChoice(session.now()->caseOf(), m, typed->first, typed->second));
  }
  std::string choice_, reason_;
};

class ApplyCommand : public SessionCommand {
  const char* name() const override { return "apply"; }
  const char* purpose() const override { return "Apply an exported case as one edit"; }
  void declareMore(CLI::App& app) override {
    app.add_option("FILE", file_, "The case")->required();
    app.add_flag("--over", over_, "Also over edits that were made since the file was exported");
  }
  Status runOn(Session& session, Context&) override {
    const Result<std::string> text = services::readFile(file_);
    if (!text) return tl::unexpected(text.error());
    return services::applyCaseText(session, *text, services::fileName(file_),
                                   over_ ? services::Over::Anything : services::Over::SameState);
  }
  std::string file_;
  bool over_ = false;
};

class UndoCommand : public SessionCommand {
  bool worksUnshown() const override { return true; }
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
  bool worksUnshown() const override { return true; }
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
  list.push_back(std::make_unique<MapCommand>());
  list.push_back(std::make_unique<ApplyCommand>());
  list.push_back(std::make_unique<UndoCommand>());
  list.push_back(std::make_unique<RedoCommand>());
  list.push_back(std::make_unique<DemoCommand>());
  return list;
}

}  // namespace zl::cli
