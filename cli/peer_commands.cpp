// Who is a peer, which set of them counts, and what the parts of the company are worth.

#include <fmt/format.h>

#include <algorithm>

#include "cli/command.h"
#include "core/model/peer_multiple.h"
#include "core/quantity/number_text.h"
#include "services/edits/peer_edits.h"
#include "services/library/companions.h"
#include "services/stages/parts.h"
#include "services/views/peer_view.h"

namespace zl::cli {
namespace {

using services::Session;

class BookPeerCommand : public SessionCommand {
  const char* name() const override { return "book-peer"; }
  const char* purpose() const override {
    return "Make another company of the book a peer, with the figures of its own statements; --out takes it away";
  }
  void declareMore(CLI::App& app) override {
    app.add_option("PEER", peer_, "Short name of the company in this book")->required();
    app.add_flag("--out", out_, "It is no peer any more");
    app.add_option("--reason", reason_, "Why");
  }
  Status runOn(Session& session, Context& c) override {
    if (Status s = session.peerOfBook(peer_, !out_, reason_); !s) return s;
    c.out << peer_ << (out_ ? ": no peer any more\n" : ": a peer, from its own statements\n");
    return {};
  }
  std::string peer_, reason_;
  bool out_ = false;
};

class PeerSetCommand : public SessionCommand {
  const char* name() const override { return "peer-set"; }
  const char* purpose() const override {
    return "Sets of peers by name: list them, make or change one, choose the one that counts";
  }
  void declareMore(CLI::App& app) override {
    app.add_option("NAME", set_, "The set; without one they are listed");
    CLI::Option* members =
        app.add_option("--members", members_, "Short names of peers, with commas between")->delimiter(',');
    CLI::Option* drop = app.add_flag("--drop", drop_, "The set goes");
    CLI::Option* use = app.add_flag("--use", use_, "Its members alone count");
    drop->excludes(members)->excludes(use);
    app.add_flag("--all", all_, "All candidates count again")->excludes(use)->excludes(drop);
    app.add_option("--of", of_, "A set of another company of the book: its members are candidates here, too")
        ->excludes(members);
    app.add_option("--reason", reason_, "Why another company's set is shared");
    app.add_flag("--of-book", listAll_, "List the sets of all other companies of the book");
  }
  Status runOn(Session& session, Context& c) override {
    if (listAll_) return listOthers(session, c);
    if (!of_.empty()) return another(session, c);
    if (set_.find(kOfAnother) != std::string::npos && !members_.empty())
      return fail(ErrorKind::BadInput, "the name of a set has no '/'", set_, "Choose another name");
    if (set_.empty() && (!members_.empty() || drop_ || use_))
      return fail(ErrorKind::BadInput, "a set has a name", {}, "Give it before the options");
    const auto& peers = session.now()->crossCheck.rows;
    for (const std::string& id : members_) {
      if (std::none_of(peers.begin(), peers.end(), [&](const PeerRow& p) { return p.id == id; }))
        return fail(ErrorKind::NotFound, "there is no peer '" + id + "'", {}, "'zledger peer-set' lists them");
    }
    const auto known = [&] { return session.now()->caseOf().peerSets.count(set_) > 0; };
    if ((drop_ || (use_ && members_.empty())) && !known())
      return fail(ErrorKind::NotFound, "there is no set '" + set_ + "'", {}, "'zledger peer-set' lists them");
    if (!members_.empty() || drop_) {
      const auto edit =
          services::setPeerSet(session.now()->caseOf(), set_, std::set<std::string>(members_.begin(), members_.end()));
      if (Status s = session.apply(edit); !s) return s;
    }
    if (use_ || all_) {
      if (Status s = session.apply(services::usePeerSet(session.now()->caseOf(), all_ ? "" : set_)); !s) return s;
    }
    list(*session.now(), c);
    return {};
  }
  Status another(Session& session, Context& c) {
    if (set_.empty()) return fail(ErrorKind::BadInput, "a set has a name", {}, "Give it before the options");
    const std::string name = services::bookSetName(of_, set_);
    const auto shared = [&] { return session.now()->market->bookSets.count(name) > 0; };
    if (drop_) {
      if (session.now()->caseOf().peerSet == name) {
        if (Status s = session.apply(services::usePeerSet(session.now()->caseOf(), "")); !s) return s;
      }
      if (Status s = session.shareSet(of_, set_, false, reason_); !s) return s;
    } else {
      if (!shared() || !use_) {
        if (Status s = session.shareSet(of_, set_, true, reason_); !s) return s;
      }
      if (use_) {
        if (Status s = session.apply(services::usePeerSet(session.now()->caseOf(), name)); !s) return s;
      }
    }
    list(*session.now(), c);
    return {};
  }
  static Status listOthers(Session& session, Context& c) {
    const auto sets = session.setsOfOthers();
    if (!sets) return tl::unexpected(sets.error());
    for (const auto& [company, set] : *sets) c.out << set << " --of " << company << '\n';
    if (sets->empty()) c.out << "no other company of the book has a set of peers\n";
    return {};
  }
  static void list(const services::Snapshot& s, Context& c) {
    const Case& theCase = s.caseOf();
    c.out << (theCase.peerSet.empty() ? "* all candidates" : "  all candidates") << ':';
    for (const PeerRow& row : s.crossCheck.rows) c.out << ' ' << row.id;
    c.out << '\n';
    for (const auto& [name, members] : theCase.peerSets) {
      c.out << (name == theCase.peerSet ? "* " : "  ") << name << ':';
      for (const std::string& id : members) c.out << ' ' << id;
      c.out << '\n';
    }
    for (const auto& [name, members] : s.market->bookSets) {
      c.out << (name == theCase.peerSet ? "* " : "  ") << name << ", shared:";
      for (const std::string& id : members) c.out << ' ' << id;
      c.out << '\n';
    }
  }
  std::string set_, of_, reason_;
  std::vector<std::string> members_;
  bool drop_ = false, use_ = false, all_ = false, listAll_ = false;
};

class MultipleCommand : public SessionCommand {
  const char* name() const override { return "multiple"; }
  const char* purpose() const override {
    return "Which multiples are looked at first, and multiples of your own, of any row; 'multiples' lists them";
  }
  void declareMore(CLI::App& app) override {
    CLI::Option* row = app.add_option("ROW", row_, "A row of the model: what a multiple of your own is of");
    app.add_flag("--firm", firm_, "Enterprise value over it; else the market value of the shares")->needs(row);
    app.add_option("--year", year_, "base, this, next or after")
        ->check(CLI::IsMember({"base", "this", "next", "after"}))
        ->needs(row);
    app.add_option("--reason", reason_, "Why");
    CLI::Option* drop = app.add_flag("--drop", drop_, "It goes")->needs(row);
    CLI::Option* show = app.add_option("--show", shown_, "Ids, with commas between")->delimiter(',')->excludes(row);
    app.add_flag("--usual", usual_, "The usual ones and your own are looked at first again")
        ->excludes(row)
        ->excludes(show)
        ->excludes(drop);
  }
  Status runOn(Session& session, Context& c) override {
    const services::Snapshot& s = *session.now();
    if (!row_.empty()) {
      if (Status done = own(session, s); !done) return done;
    } else if (usual_ || !shown_.empty()) {
      for (const std::string& id : shown_) {
        const auto& all = s.crossCheck.multiples;
        if (std::none_of(all.begin(), all.end(), [&](Multiple m) { return multipleId(m) == id; }))
          return fail(ErrorKind::NotFound, "there is no multiple '" + id + "'", {}, "'zledger multiple' lists them");
      }
      const std::set<std::string> ids(shown_.begin(), shown_.end());
      if (Status done = session.apply(services::showMultiples(s.caseOf(), ids)); !done) return done;
    }
    const services::Snapshot& now = *session.now();
    const std::vector<Multiple> shown = services::multiplesOf(now, services::MultipleGroup::Chosen);
    for (const Multiple m : now.crossCheck.multiples) {
      const bool first = std::find(shown.begin(), shown.end(), m) != shown.end();
      c.out << (first ? "* " : "  ") << multipleId(m) << ": " << multipleLabel(m) << '\n';
    }
    return {};
  }
  Status own(Session& session, const services::Snapshot& s) {
    using Of = model::PeerMultiple::Of;
    const model::RowId row = s.model().find(row_);
    if (!row.known())
      return fail(ErrorKind::NotFound, "the model has no row '" + row_ + "'", {}, "'zledger statements' lists them");
    if (s.model()[row].timing == model::Timing::Constant)
      return fail(ErrorKind::BadInput, "'" + row_ + "' has no years", {}, "Take a row that has a figure per year");
    constexpr std::pair<const char*, Of> kYears[] = {
        {"base", Of::Trailing}, {"this", Of::ThisYear}, {"next", Of::NextYear}, {"after", Of::YearAfter}};
    Of of = Of::Trailing;
    for (const auto& [word, year] : kYears) of = year_ == word ? year : of;
    const model::PeerMultiple multiple = model::multipleOfRow(s.model()[row], firm_, of);
    if (!drop_) return session.apply(services::addOwnMultiple(s.caseOf(), multiple, session.said(reason_)));
    if (!services::isOwnMultiple(s.caseOf(), multiple.name))
      return fail(ErrorKind::NotFound, "there is no multiple of your own '" + multiple.name + "'", {},
                  "Nothing was changed");
    return session.apply(services::dropOwnMultiple(s.caseOf(), multiple.name, session.said(reason_)));
  }
  std::string row_, year_ = "base", reason_;
  std::vector<std::string> shown_;
  bool firm_ = false, drop_ = false, usual_ = false;
};

class PartCommand : public SessionCommand {
  const char* name() const override { return "part"; }
  const char* purpose() const override {
    return "What a part of the company is worth: a multiple of its profit or revenue; 'parts' lists them";
  }
  void declareMore(CLI::App& app) override {
    app.add_option("PART", part_, "By its name or its key; 'unallocated' for costs of no part")->required();
    CLI::Option* multiple = app.add_option("MULTIPLE", multiple_, "Of its figure of the base year");
    app.add_option("--of", of_, "profit or revenue")->check(CLI::IsMember({"profit", "revenue"}));
    app.add_option("--reason", reason_, "Why");
    app.add_flag("--drop", drop_, "Nothing is said of it any more")->excludes(multiple);
  }
  Status runOn(Session& session, Context& c) override {
    const services::Snapshot& s = *session.now();
    std::string key = part_ == kUnallocated ? part_ : std::string(), label = part_;
    std::string names;
    for (const services::CutOfParts& cut : services::cutsOfParts(*s.ground, s.caseOf().parts)) {
      for (size_t i = 0; i < cut.keys.size(); ++i) {
        names += (names.empty() ? "" : ", ") + cut.parts[i].label;
        if (!key.empty() || (cut.keys[i] != part_ && cut.parts[i].label != part_)) continue;
        key = cut.keys[i];
        label = cut.parts[i].label;
      }
    }
    if (key.empty())
      return fail(ErrorKind::NotFound, "there is no part '" + part_ + "'", {},
                  names.empty() ? "Nothing is filed by part" : "There are: " + names);
    if (!drop_ && !multiple_) return fail(ErrorKind::BadInput, "a multiple is missing", part_, "Give it, or --drop");
    std::optional<PartChoice> choice;
    if (multiple_)
      choice = PartChoice{of_ == "revenue" ? PartChoice::Of::Revenue : PartChoice::Of::Ebit, *multiple_,
                          session.said(reason_)};
    if (Status done = session.apply(services::setPart(s.caseOf(), key, label, choice)); !done) return done;
    c.out << label << ": " << (choice ? plainNumber(choice->multiple) + " times " + of_ : "nothing is said") << '\n';
    return {};
  }
  std::string part_, of_ = "profit", reason_;
  std::optional<double> multiple_;
  bool drop_ = false;
};

}  // namespace

std::vector<std::unique_ptr<Command>> peerCommands() {
  std::vector<std::unique_ptr<Command>> list;
  list.push_back(std::make_unique<BookPeerCommand>());
  list.push_back(std::make_unique<PeerSetCommand>());
  list.push_back(std::make_unique<MultipleCommand>());
  list.push_back(std::make_unique<PartCommand>());
  return list;
}

}  // namespace zl::cli
