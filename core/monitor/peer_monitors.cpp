#include <algorithm>
#include <cmath>
#include <cstdlib>

#include "core/filing/labels.h"
#include "core/monitor/limits.h"
#include "core/monitor/market_monitors.h"
#include "core/peers/likeness.h"
#include "core/peers/measures.h"
#include "core/quantity/number_text.h"

namespace zl {
namespace {

using model::Role;

/// Names in one line: the first few, and how many more.
class Names {
 public:
  void add(std::string name) {
    if (count_++ < kMost) text_ += (text_.empty() ? "" : "; ") + std::move(name);
  }
  [[nodiscard]] bool any() const { return count_ > 0; }
  [[nodiscard]] std::string text() const {
    return count_ > kMost ? text_ + "; and " + std::to_string(count_ - kMost) + " more" : text_;
  }

 private:
  static constexpr int kMost = 4;
  int count_ = 0;
  std::string text_;
};

class PeerMonitors {
 public:
  PeerMonitors(const MarketView& view, std::vector<Finding>& found) : v_(view), c_(view.limited), found_(found) {}

  void run() {
    fewCounted();
    scale();
    outliers();
    subjectAmong();
    stalePrices();
    currencies();
    yearEnds();
    basisUnknown();
    unlike();
  }

 private:
  void add(const char* name, Severity severity, std::string text) {
    found_.push_back({name, severity, Stop::Peers, std::move(text), "", -1});
  }

  /// Whether a way to value takes the multiple: of others it is enough that their tables show.
  [[nodiscard]] bool isValuedBy(Multiple m) const {
    const auto& methods = v_.model.methods;
    return std::any_of(methods.begin(), methods.end(), [&](const model::Method& method) {
      const std::optional<model::PeerTie>& tie = v_.model[method.value].peers;
      return tie && tie->measure == multipleName(m);
    });
  }

  /// Whether a peer counts for a multiple that a way to value takes.
  [[nodiscard]] bool counts(const PeerRow& row) const {
    return std::any_of(row.cells.begin(), row.cells.end(),
                       [&](const auto& cell) { return cell.second.in && isValuedBy(cell.first); });
  }

  void fewCounted() {
    const double fewest = limitOf(c_, "few peers");
    for (const auto& [m, s] : v_.peers.statistics) {
      if (!isValuedBy(m) || s.count >= fewest) continue;
      const auto only = std::find_if(v_.peers.rows.begin(), v_.peers.rows.end(),
                                     [m = m](const PeerRow& row) { return row.cells.at(m).in; });
      if (s.count == 1 && only != v_.peers.rows.end()) {
        add("a multiple rests on one peer", Severity::Warning,
            multipleLabel(m) + " rests on " + only->name + " alone: what it implies is one company's price");
        continue;
      }
      add("few peers", Severity::Warning,
          multipleLabel(m) + ": " + std::to_string(s.count) + " peers counted; below " + plainNumber(fewest) +
              " a median says little");
    }
  }

  void scale() {
    const double limit = limitOf(c_, "peer out of scale");
    Names names;
    const Figure own = v_.peers.subject.revenue;
    for (const PeerRow& row : v_.peers.rows) {
      if (!row.outOfScale || !counts(row)) continue;
      const Figure times = row.revenue / own;
      names.add(row.name + (!times.hasValue() ? std::string()
                            : times.value() >= 1
                                ? " has " + groupedNumber(times.value(), 1) + " times the subject's revenue"
                                : " has 1/" + groupedNumber(1 / times.value(), 0) + " of the subject's revenue"));
    }
    if (!names.any()) return;
    add("peer out of scale", Severity::Warning,
        "more than " + plainNumber(limit) + " times away from the subject and counted: " + names.text());
  }

  void outliers() {
    for (const PeerRow& row : v_.peers.rows) {
      for (const auto& [m, cell] : row.cells) {
        if (!cell.outlier || !isValuedBy(m)) continue;
        add("peer multiple is an outlier", Severity::Note,
            row.name + ", " + multipleLabel(m) + " " + figureText(cell.multiple, Kind::Multiple) +
                ": beyond 1.5 interquartile ranges; it counts until you take it out");
      }
    }
  }

  /// By another short name than its own it would count as a peer of itself.
  void subjectAmong() {
    const Subject& subject = v_.peers.subject;
    for (const PeerRow& row : v_.peers.rows) {
      const bool byId = row.id == subject.id;
      if (!byId && (subject.name.empty() || normalisedLabel(row.name) != normalisedLabel(subject.name))) continue;
      const bool in = counts(row);
      add("subject among peers", in ? Severity::Warning : Severity::Note,
          row.name + " is the subject" + (in ? " and counts as a peer of itself: take it out" : "; it does not count"));
    }
  }

  [[nodiscard]] const PeerRow* rowOf(const Peer& peer) const {
    const auto found =
        std::find_if(v_.peers.rows.begin(), v_.peers.rows.end(), [&](const PeerRow& row) { return row.id == peer.id; });
    return found == v_.peers.rows.end() ? nullptr : &*found;
  }

  /// Runs over the peers that count.
  template <class See>
  void eachCounted(const See& see) const {
    for (const Peer& peer : v_.companies) {
      const PeerRow* row = rowOf(peer);
      if (row != nullptr && counts(*row)) see(peer);
    }
  }

  void stalePrices() {
    const double limit = limitOf(c_, "stale peer price");
    Names names;
    eachCounted([&](const Peer& peer) {
      const int days = daysBetween(peer.priceDate, c_.valuationDate);
      if (peer.price.hasValue() && std::abs(days) > limit)
        names.add(peer.name + " " + dateText(peer.priceDate) + (days < 0 ? ", after the valuation date" : ""));
    });
    if (names.any())
      add("stale peer price", Severity::Warning,
          "more than " + plainNumber(limit) + " days from the valuation date and counted: " + names.text());
  }

  /// Of all peers, counted or not: without a rate none of its multiples comes about.
  void currencies() {
    Names missing, odd;
    for (const Peer& peer : v_.companies) {
      if (!spot(v_.spots, peer.priceCurrency, peer.currency).hasValue()) {
        missing.add(peer.name + ": " + peer.priceCurrency + " to " + peer.currency);
      } else if (!spot(v_.spots, peer.currency, v_.peers.subject.currency).hasValue()) {
        odd.add(peer.name + ": " + peer.currency + " to " + v_.peers.subject.currency);
      }
    }
    if (missing.any())
      add("peer currency", Severity::Warning,
          "no exchange rate from the price to the figures, so no multiple: " + missing.text() +
              ". Give 'spot A/B' under Company, rates by name");
    if (odd.any())
      add("peer currency", Severity::Note,
          "size cannot be set beside the subject's without an exchange rate: " + odd.text());
  }

  /// Twelve months that end with the subject's are made of two fiscal years where a peer's ends in other months.
  void yearEnds() {
    const double limit = limitOf(c_, "year ends apart");
    Names names;
    eachCounted([&](const Peer& peer) {
      if (peer.years.empty()) return;
      const int days = daysBetween(peer.years.back().end, v_.peers.subject.target);
      constexpr double kDaysOfMonth = 365.25 / 12;
      const double months = std::abs(days) / kDaysOfMonth;
      if (months > limit)
        names.add(peer.name + " " + dateText(peer.years.back().end) + (days > 0 ? ", earlier" : ", later"));
    });
    if (names.any())
      add("year ends apart", Severity::Note,
          "the last filed year of a peer ends more than " + plainNumber(limit) + " months from the subject's, " +
              dateText(v_.peers.subject.target) + ": " + names.text());
  }

  /// What a change of basis needs and the table lacks: the measure is absent, and so the multiple.
  void basisUnknown() {
    Names names;
    for (const Peer& peer : v_.companies) {
      if (peer.years.empty() || peer.id == v_.peers.subject.id) continue;
      const PeerYear& last = peer.years.back();
      const Figure on = ebitdaOn(v_.peers.subject.basis, peer, last);
      if (last.ebitda.hasValue() && !on.hasValue()) names.add(peer.name + ": " + on.reason());
    }
    if (names.any())
      add("peer basis unknown", Severity::Warning, "EBITDA cannot be put on the basis in use: " + names.text());
  }

  /// The subject's figure of a measure in the base year.
  [[nodiscard]] Figure subjects(const char* measure) const {
    const model::RowId row = rowOfMeasure(v_.model, measure);
    return row.known() ? v_.history.at(row, v_.baseColumn) : Figure::absent("the model has no such row");
  }

  /// One note of them all: to be unlike is no fault, and who is may still be the best there is.
  void unlike() {
    Names names;
    const std::vector<LikenessRule>& rules = likenessRules();
    eachCounted([&](const Peer& peer) {
      const std::vector<Figure> apart =
          distancesOf(peer, v_.peers.subject, [this](const char* measure) { return subjects(measure); });
      std::string words;
      for (size_t i = 0; i < rules.size(); ++i) {
        if (!apart[i].hasValue() || std::fabs(apart[i].value()) <= limitOf(c_, rules[i].limit)) continue;
        const bool turns = monitorLimit(rules[i].limit)->kind == Kind::Multiple;
        words += (words.empty() ? "" : ", ") + std::string(rules[i].words) + " " +
                 (rules[i].mix != nullptr ? groupedNumber(apart[i].value() * 100, 0, false) + " % elsewhere"
                  : turns                 ? groupedNumber(apart[i].value(), 1, false) + " turns"
                                          : groupedNumber(apart[i].value() * 100, 0, false) + " points");
      }
      if (!words.empty()) names.add(peer.name + ", " + words);
    });
    if (names.any())
      add("peers unlike the subject", Severity::Note, "counted, and apart from the subject: " + names.text());
  }

  const MarketView& v_;
  const Case& c_;
  std::vector<Finding>& found_;
};

}  // namespace

void monitorPeers(const MarketView& view, std::vector<Finding>& found) {
  PeerMonitors(view, found).run();
}

}  // namespace zl
