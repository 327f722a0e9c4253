#include "bench/many_companies.h"

#include <cstdio>

#include "services/sessions/demo.h"
#include "services/sessions/session.h"
#include "tests/support/temporary_folder.h"

namespace zl::bench {
namespace {

constexpr const char* kDemo = "vessingholt";
constexpr const char* kDemoName = "Vessingholt N.V.";

/// What the demo's book holds of one document, as it came in.
Result<store::Incoming> incomingOf(store::Book& book, const services::Snapshot& s, const store::StoredDocument& d) {
  Result<std::string> content = book.content(d.document.id);
  if (!content) return tl::unexpected(content.error());
  store::Incoming in;
  in.document = d.document;
  in.document.id = 0;  // its own, in another book
  in.content = std::move(*content);
  const std::vector<std::int64_t> only{d.document.id};
  Result<std::vector<Fact>> facts = book.facts(s.company().id, &only);
  if (!facts) return tl::unexpected(facts.error());
  in.facts = std::move(*facts);
  return in;
}

void replaceAll(std::string& text, const std::string& from, const std::string& to) {
  for (size_t at = text.find(from); at != std::string::npos; at = text.find(from, at + to.size()))
    text.replace(at, from.size(), to);
}

}  // namespace

Status makeLibrary(const std::string& path, int count) {
  const auto resources = services::Resources::load();
  if (!resources) return tl::unexpected(resources.error());
  const services::Desk desk = services::Desk::ofThisMachine();
  const test::TemporaryFolder folder;
  const std::string one = folder.file("one.zledger");
  if (Status s = services::makeDemoBook(one, *resources, desk); !s) return s;
  Result<store::Book> from = store::Book::open(one);
  if (!from) return tl::unexpected(from.error());
  const auto session = services::Session::openIn(*from, kDemo, *resources, desk);
  if (!session) return tl::unexpected(session.error());
  const services::Snapshot& s = *(*session)->now();
  std::vector<store::Incoming> brought;
  for (const store::StoredDocument& d : s.evidence->documents) {
    Result<store::Incoming> in = incomingOf(*from, s, d);
    if (!in) return tl::unexpected(in.error());
    brought.push_back(std::move(*in));
  }
  const Result<std::optional<std::string>> text = from->caseText(kDemo);
  if (!text) return tl::unexpected(text.error());
  const Result<store::Book> made = store::Book::make(path, [&](store::Book& book) -> Status {
    for (int i = 1; i <= count; ++i) {
      char id[16];
      std::snprintf(id, sizeof id, "c%04d", i);
      store::Edit edit;
      edit.entry = {0, id, desk.now(), desk.author, "Import", "[]", "[]", {}, store::JournalEntry::State::Done};
      edit.incoming = brought;
      for (store::Incoming& in : edit.incoming) {
        in.company = id;
        if (!in.facts.empty()) continue;
        replaceAll(in.content, std::string("\"") + kDemo + "\"", std::string("\"") + id + "\"");
        replaceAll(in.content, kDemoName, std::string("Quernstone ") + id);
      }
      edit.caseText = text->value_or("");
      replaceAll(*edit.caseText, std::string("\"") + kDemo + "\"", std::string("\"") + id + "\"");
      if (const auto number = book.append(edit, 0); !number) return tl::unexpected(number.error());
    }
    return {};
  });
  return made ? Status() : tl::unexpected(made.error());
}

}  // namespace zl::bench
