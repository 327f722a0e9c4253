#include "services/sessions/case_file.h"

#include <algorithm>
#include <iterator>
#include <set>

#include "core/peers/peer.h"
#include "core/quantity/number_text.h"
#include "exchange/json/case_json.h"
#include "services/text/likely_names.h"

namespace zl::services {

namespace {

/// Rows that assumptions of a file may be for: of any shipped model, with the file's own rows upon
/// it, and what the present case holds already. Anything else is a slip of the pen.
Status checkNames(const Case& c, const Session& session, const std::string& source) {
  std::set<std::string> known;
  for (const ShippedModel& shipped : session.shipped()->models) {
    Case other = c;
    other.model = shipped.name;
    Result<std::shared_ptr<const Resources>> with = withOwn(session.shipped(), other);
    if (!with) {
      // Own rows with a fault are told of when they come into use; their names are not lost for that.
      other.ownRows.clear();
      with = withOwn(session.shipped(), other);
    }
    if (!with) return tl::unexpected(with.error());
    for (const model::Row& row : (*with)->model.rows) known.insert(row.name);
  }
  for (const Scenario& s : session.now()->caseOf().scenarios) {
    for (const auto& [name, assumption] : s.drivers) known.insert(name);
    for (const auto& [name, choice] : s.inputs) known.insert(name);
  }
  const auto unknown = [&](const char* what, const std::string& name, const Scenario& s) {
    return fail(ErrorKind::BadInput, std::string("no model has a") + what + name + "' (" + s.label + ")", source,
                "Correct the name, or give the row among the own rows");
  };
  for (const Scenario& s : c.scenarios) {
    for (const auto& [name, assumption] : s.drivers) {
      if (known.count(name) == 0) return unknown(" driver '", name, s);
    }
    for (const auto& [name, choice] : s.inputs) {
      if (known.count(name) == 0) return unknown("n input '", name, s);
    }
  }
  return {};
}

/// What a file says of years, concepts and peers that this company does not have, and that the present case does not
/// hold already, is a slip of the pen too.
Status checkSubjects(const Case& c, const Session& session, const std::string& source) {
  const Snapshot& s = *session.now();
  const Case& present = s.caseOf();
  std::set<std::string> years;
  for (const FiscalYear& year : (s.filed->ahead ? *s.filed->ahead : s.filed->statements).years()) {
    years.insert(std::to_string(year.label()));
  }
  const auto unknown = [&](const std::string& what, const std::string& name, const std::set<std::string>& known) {
    return fail(ErrorKind::BadInput, "there is no " + what + " '" + name + "'", source, likelyNames(name, known));
  };
  for (const auto& [year, reason] : c.exceptional) {
    if (present.exceptional.count(year) == 0 && years.count(std::to_string(year)) == 0)
      return unknown("filed year", std::to_string(year), years);
  }
  for (const auto& [cell, adjustment] : c.adjustments) {
    if (present.adjustments.count(cell) == 0 && years.count(std::to_string(cell.second)) == 0)
      return unknown("filed year", std::to_string(cell.second), years);
  }
  if (c.baseYear != 0 && c.baseYear != present.baseYear && years.count(std::to_string(c.baseYear)) == 0)
    return unknown("filed year", std::to_string(c.baseYear), years);
  std::set<std::string> concepts;
  for (const Fact& fact : s.evidence->facts) concepts.insert(fact.concept_name);
  for (const auto& [name, choice] : c.lines) {
    if (present.lines.count(name) == 0 && concepts.count(name) == 0) return unknown("filed concept", name, concepts);
  }
  std::set<std::string> peers;
  for (const Peer& peer : s.market->peers) {
    for (const Multiple multiple : declaredMultiples(s.model())) peers.insert(peerChoiceKey(peer.id, multiple));
  }
  for (const auto& [key, choice] : c.peers) {
    if (present.peers.count(key) == 0 && peers.count(key) == 0) return unknown("peer's multiple", key, peers);
  }
  return {};
}

/// The entry of the journal that an exported case stood on. Files written by hand have none.
constexpr const char* kStandsOn = "stands_on";

/// What was done since the file was exported from this book; empty where the file does not say, or
/// comes from another book.
std::vector<store::JournalEntry> doneSince(const exchange::Json& json,
                                           const std::vector<store::JournalEntry>& journal) {
  std::vector<store::JournalEntry> since;
  if (!json.is_object() || !json.contains(kStandsOn) || !json[kStandsOn].is_object()) return since;
  const exchange::Json number = json[kStandsOn].value("entry", exchange::Json());
  const exchange::Json at = json[kStandsOn].value("at", exchange::Json());
  const auto stood = std::find_if(journal.begin(), journal.end(),
                                  [&](const store::JournalEntry& e) { return number == e.number && at == e.at; });
  if (stood == journal.end()) return since;
  std::copy_if(stood + 1, journal.end(), std::back_inserter(since), [](const store::JournalEntry& e) {
    return e.state == store::JournalEntry::State::Done && e.forward != "[]";
  });
  return since;
}

}  // namespace

Result<std::string> caseText(Session& session) {
  exchange::Json json = exchange::toJson(session.now()->caseOf());
  const Result<std::vector<store::JournalEntry>> journal = session.journal();
  if (!journal) return tl::unexpected(journal.error());
  for (const store::JournalEntry& e : *journal) {
    if (e.state == store::JournalEntry::State::Done) json[kStandsOn] = {{"entry", e.number}, {"at", e.at}};
  }
  return exchange::textOf(json, 2) + "\n";
}

Status applyCaseText(Session& session, const std::string& text, const std::string& source, Over over) {
  const Result<exchange::Json> json = exchange::parseJson(text, source);
  if (!json) return tl::unexpected(json.error());
  Result<Case> c = exchange::caseFromJson(*json, source);
  if (!c) return tl::unexpected(c.error());
  if (c->company != session.companyId()) {
    return fail(ErrorKind::BadInput,
                "the case is of '" + c->company + "', the open company is '" + session.companyId() + "'", source,
                "Name the company that the case belongs to");
  }
  if (over == Over::SameState) {
    const Result<std::vector<store::JournalEntry>> journal = session.journal();
    if (!journal) return tl::unexpected(journal.error());
    if (const auto since = doneSince(*json, *journal); !since.empty()) {
      return fail(ErrorKind::Conflict,
                  std::to_string(since.size()) + (since.size() == 1 ? " edit was" : " edits were") +
                      " made since this file was exported, the last by " + since.back().author + ": " +
                      since.back().label,
                  source, "Export anew, or say that the file goes over them (undo takes that back)");
    }
  }
  if (c->scenario(kBase) != nullptr && !probabilitiesSumToOne(*c)) {
    return fail(ErrorKind::BadInput,
                "the probabilities sum to " + groupedNumber(probabilitySum(*c) * 100, 1) + " %, not to 100 %", source,
                "Correct the probabilities of its scenarios");
  }
  if (Status s = checkNames(*c, session, source); !s) return s;
  if (Status s = checkSubjects(*c, session, source); !s) return s;
  // A file may leave open where its outlook starts: here, where the company's does.
  if (c->baseYear == 0) c->baseYear = session.now()->years().back().label();
  return session.apply({std::move(*c), "Apply " + source});
}

}  // namespace zl::services
