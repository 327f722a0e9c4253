// Looking after a book: copies, whether it is whole, saving what is whole.

#include <algorithm>
#include <filesystem>

#include "cli/command.h"
#include "exchange/json/reader.h"
#include "services/library/library.h"
#include "services/sessions/book_care.h"
#include "services/sessions/session.h"

namespace zl::cli {
namespace {

class BackupCommand : public Command {
  const char* name() const override { return "backup"; }
  const char* purpose() const override {
    return "Copy a book, by the database's own backup; list the copies beside it; go back to one";
  }
  void declare(CLI::App& app) override {
    app.add_option("BOOK", book_, "The book")->required();
    app.add_option("TO", to_, "The copy to make; beside the book when left out");
    app.add_flag("--list", list_, "The copies beside the book, newest first");
    app.add_option("--back", back_, "Put the copy of that name in the book's place; what stood there is kept");
  }
  Status run(Context& c) override {
    if (list_) {
      for (const store::Copy& copy : store::copiesOf(book_)) c.out << copy.name << "  " << copy.path << '\n';
      return {};
    }
    return back_.empty() ? make(c) : goBack(c);
  }

  Status make(Context& c) {
    if (to_.empty()) {
      std::error_code ignored;
      std::filesystem::create_directories(store::copiesFolder(book_), ignored);
      std::string now = c.desk.now();
      std::replace(now.begin(), now.end(), ':', '-');  // not every file system has colons in names
      to_ = store::copiesFolder(book_) + "/by hand " + now + ".zledger";
    }
    Result<store::Book> book = store::Book::look(book_);
    if (!book) return tl::unexpected(book.error());
    if (Status s = book->copyTo(to_); !s) return s;
    c.out << "copied to " << to_ << '\n';
    return {};
  }

  Status goBack(Context& c) {
    for (const store::Copy& copy : store::copiesOf(book_)) {
      if (copy.name != back_ && copy.path != back_) continue;
      const Result<std::string> kept = store::putBack(copy.path, book_, c.desk.now());
      if (!kept) return tl::unexpected(kept.error());
      c.out << "the book is as it was in '" << copy.name << "'; what stood there is kept as " << *kept << '\n';
      return {};
    }
    return fail(ErrorKind::NotFound, "there is no copy '" + back_ + "'", book_,
                "'zledger backup BOOK --list' names them");
  }
  std::string book_, to_, back_;
  bool list_ = false;
};

class VerifyCommand : public Command {
  const char* name() const override { return "verify"; }
  const char* purpose() const override { return "Look through a book: pages, rows, documents, journals, companies"; }
  void declare(CLI::App& app) override {
    app.add_option("BOOK", book_, "The book")->required();
    app.add_flag("--json", json_, "Print JSON");
  }
  Status run(Context& c) override {
    const Result<services::BookCheck> check = services::checkBook(book_, c.resources, c.desk);
    if (!check) return tl::unexpected(check.error());
    c.out << (json_ ? exchange::textOf(services::checkJson(*check), 2) + "\n" : services::checkText(*check));
    if (check->isWhole()) return {};
    return fail(ErrorKind::Damaged, "the book is not whole", book_,
                "Go back to a copy ('zledger backup BOOK --list'), or save what is whole with 'zledger rescue'");
  }
  std::string book_;
  bool json_ = false;
};

class RescueCommand : public Command {
  const char* name() const override { return "rescue"; }
  const char* purpose() const override { return "Save what is whole of a damaged book into a new one"; }
  void declare(CLI::App& app) override {
    app.add_option("BOOK", book_, "The damaged book; it stays as it is")->required();
    app.add_option("NEW", into_, "The book to make")->required();
  }
  Status run(Context& c) override {
    const Result<store::Survey> survey = services::rescueBook(book_, into_, c.resources, c.desk);
    if (!survey) return tl::unexpected(survey.error());
    c.out << services::checkText({*survey, {}}) << "saved into " << into_ << '\n';
    return {};
  }
  std::string book_, into_;
};

class CompaniesCommand : public Command {
  const char* name() const override { return "companies"; }
  const char* purpose() const override { return "All companies of a book with their values per share and prices"; }
  void declare(CLI::App& app) override {
    app.add_option("BOOK", book_, "The book to open")->required();
    app.add_flag("--json", json_, "Print JSON");
  }
  Status run(Context& c) override {
    Result<store::Book> book = store::Book::open(book_, c.desk.patience);
    if (!book) return tl::unexpected(book.error());
    const auto evaluator = services::CaseEvaluator::upon(c.resources);
    const auto values = services::valuesOf(*book, *evaluator, c.desk.today());
    if (!values) return tl::unexpected(values.error());
    c.out << (json_ ? exchange::textOf(services::valuesJson(*values), 2) + "\n" : services::valuesText(*values));
    return {};
  }
  [[nodiscard]] std::string book() const override { return book_; }
  std::string book_;
  bool json_ = false;
};

class HomeCommand : public SessionCommand {
  const char* name() const override { return "home"; }
  const char* purpose() const override {
    return "The company that a book of several opens with where none is named; --set makes it another";
  }
  void declareMore(CLI::App& app) override { app.add_option("--set", home_, "Short name of the company"); }
  [[nodiscard]] bool worksUnshown() const override { return true; }
  Status runOn(services::Session& session, Context& c) override {
    if (!home_.empty()) {
      if (Status s = session.makeHome(home_); !s) return s;
    }
    c.out << (home_.empty() ? session.companyId() : home_) << '\n';
    return {};
  }
  std::string home_;
};

}  // namespace

std::vector<std::unique_ptr<Command>> bookCommands() {
  std::vector<std::unique_ptr<Command>> list;
  list.push_back(std::make_unique<CompaniesCommand>());
  list.push_back(std::make_unique<HomeCommand>());
  list.push_back(std::make_unique<BackupCommand>());
  list.push_back(std::make_unique<VerifyCommand>());
  list.push_back(std::make_unique<RescueCommand>());
  return list;
}

}  // namespace zl::cli
