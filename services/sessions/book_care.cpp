#include "services/sessions/book_care.h"

#include <algorithm>
#include <tuple>

#include "core/text/utf8.h"
#include "exchange/json/case_json.h"

namespace zl::services {

using exchange::Json;
using store::JournalEntry;

namespace {

bool sameFacts(const std::vector<Fact>& a, const std::vector<Fact>& b) {
  const auto key = [](const Fact& f) {
    return std::tie(f.concept_name, f.period, f.unit, f.text, f.decimals, f.exact, f.nil, f.place);
  };
  return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                    [&](const Fact& x, const Fact& y) { return key(x) == key(y) && x.segments == y.segments; });
}

/// Walks back from the case through all that can be undone; the entry that does not fit, if any.
std::string whyNoWayBack(const Json& now, const std::vector<JournalEntry>& journal) {
  Json at = now;
  for (auto e = journal.rbegin(); e != journal.rend(); ++e) {
    if (e->state != JournalEntry::State::Done) continue;
    const std::string where = "entry " + std::to_string(e->number) + " (" + e->label + ")";
    const Result<Json> patch = exchange::parseJson(e->backward, where);
    if (!patch) return patch.error().text();
    try {
      if (!patch->empty()) at = at.patch(*patch);
    } catch (const Json::exception&) {
      return where + " cannot be taken back: it does not fit the case";
    }
  }
  return {};
}

void checkCompany(store::Book& book, const std::string& id, const std::shared_ptr<const Resources>& resources,
                  const Desk& desk, std::vector<store::DamageFound>& faults) {
  const std::string where = "company '" + id + "'";
  Result<std::unique_ptr<Session>> session = Session::openIn(book, id, resources, desk);
  if (!session) {
    faults.push_back({where, session.error().text()});
    return;
  }
  if ((*session)->fault()) faults.push_back({where, "cannot be shown: " + (*session)->fault()->text()});
  const auto text = book.caseText(id);
  const auto journal = book.journal(id);
  if (!text || !*text || !journal) return;
  const Result<Json> json = exchange::parseJson(**text, "case of " + id);
  const std::string fault = json ? whyNoWayBack(*json, *journal) : json.error().text();
  if (!fault.empty()) faults.push_back({"case of '" + id + "'", fault});
}

ImportContext contextOf(const std::shared_ptr<const Resources>& resources, const Desk& desk) {
  return {{}, resources, desk.now(), {}};
}

bool isFilingByItself(const std::string& kind) {
  using exchange::ContentKind;
  return kind == exchange::contentKindText(ContentKind::XbrlInstance) ||
         kind == exchange::contentKindText(ContentKind::FactTable) ||
         kind == exchange::contentKindText(ContentKind::XbrlJson);
}

/// By its digest; a filing that is one file is read again and must give the same facts. A page of inline
/// facts may be one of a set, which gives it what it lacks: then only its digest speaks.
std::string whyNotWhole(store::SurveyedDocument& d, const ImportContext& context) {
  const std::string& digest = d.stored.document.digest;
  if (digestOfTable(d.content, d.facts) == digest && !d.facts.empty()) return {};  // covers the facts too
  if (exchange::digestOf(d.content) != digest) return "is not what was imported: its content or its facts have changed";
  const bool page = d.stored.document.kind == exchange::contentKindText(exchange::ContentKind::InlineXbrl);
  const std::string doubt = d.factsDoubtful && !d.facts.empty() ? "some of its facts may be missing" : "";
  if (!page && !isFilingByItself(d.stored.document.kind)) return doubt;
  ImportContext own = context;
  own.company = d.stored.company;
  auto again = preview({{d.stored.document.name, d.content}}, own);
  if (!again) return page ? doubt : "cannot be read any more: " + again.error().text();  // a page may need its set
  std::vector<Fact>& facts = again->front().incoming.facts;
  if (sameFacts(facts, d.facts)) return {};
  if (!d.factsDoubtful) return "its facts are not those of its content";
  d.facts = std::move(facts);
  d.factsReadAgain = true;
  return {};
}

store::Judge judgeWith(const ImportContext& context) {
  return [context](store::SurveyedDocument& d) { return whyNotWhole(d, context); };
}

}  // namespace

Result<BookCheck> checkBook(const std::string& path, const std::shared_ptr<const Resources>& resources,
                            const Desk& desk) {
  BookCheck check;
  Result<store::Survey> survey = store::survey(path, judgeWith(contextOf(resources, desk)));
  if (!survey) return tl::unexpected(survey.error());
  check.survey = std::move(*survey);
  Result<store::Book> book = store::Book::look(path);
  if (!book) {
    check.faults.push_back({"book", book.error().text()});
    return check;
  }
  const auto companies = book->companies();
  if (!companies) {
    check.faults.push_back({"book", companies.error().text()});
    return check;
  }
  for (const std::string& id : *companies) checkCompany(*book, id, resources, desk, check.faults);
  return check;
}

std::string checkText(const BookCheck& check) {
  const store::Survey& s = check.survey;
  const auto count = [](auto n, const char* one, const char* many) {
    return std::to_string(n) + ' ' + (n == 1 ? one : many);
  };
  std::string out = "whole: " + count(s.documents, "document", "documents") + ", " + count(s.cases, "case", "cases") +
                    ", " + count(s.entries, "journal entry", "journal entries") + ", " +
                    count(s.versions, "version", "versions") + '\n';
  for (const auto* list : {&s.damage, &check.faults}) {
    for (const store::DamageFound& d : *list) {
      const bool named = d.what.rfind(d.where, 0) == 0;  // the place begins the message
      out += "damage: " + (named ? "" : d.where + ": ") + d.what + '\n';
    }
  }
  return out;
}

Json checkJson(const BookCheck& check) {
  const store::Survey& s = check.survey;
  Json damage = Json::array();
  for (const auto* list : {&s.damage, &check.faults}) {
    for (const store::DamageFound& d : *list) damage.push_back({{"where", d.where}, {"what", d.what}});
  }
  return {{"whole", check.isWhole()},     {"documents", s.documents}, {"cases", s.cases},
          {"journal_entries", s.entries}, {"versions", s.versions},   {"damage", std::move(damage)}};
}

Result<store::Survey> rescueBook(const std::string& path, const std::string& into,
                                 const std::shared_ptr<const Resources>& resources, const Desk& desk) {
  return store::rescue(path, into, judgeWith(contextOf(resources, desk)));
}

}  // namespace zl::services
