#include "core/model/peer_multiple.h"

#include <cctype>

namespace zl::model {
namespace {

/// The year that a multiple is of, as a line says it and as an expression reads it; a normal year is a row of its own.
constexpr const char* kYearWords[] = {"base", "opening_year", "second_year", "third_year", "normal"};
const char* yearWord(PeerMultiple::Of of) {
  return kYearWords[static_cast<size_t>(of)];
}

/// The subject's own figure, as an expression of a constant row.
std::string metricOf(const PeerMultiple& m) {
  return m.of == PeerMultiple::Of::NormalYear ? m.row : std::string(yearWord(m.of)) + "(" + m.row + ")";
}

}  // namespace

std::string rowsOf(const PeerMultiple& m) {
  const std::string metric = metricOf(m);
  const std::string positive = "\"the subject's " + m.what + " not positive\"";
  std::string rows = "row own_" + m.name + " \"" + m.label + ", at the price\" multiple constant\n  value guard(" +
                     metric + " > 0, guard(price > 0, (price / quote_rate * diluted_shares" +
                     (m.ofFirm ? " + claims" : "") + ") / " + metric + ", \"there is no price\"), " + positive +
                     ")\n  help \"What the subject itself is at.\"\n";
  for (const char* statistic : {"low", "median", "mean", "high"}) {
    const std::string given = "peers_" + m.name + "_" + statistic;
    const std::string tie = "  peers " + m.name + " " + statistic + "\n";
    rows += "given " + given + " \"Peers' " + m.label + ", " + statistic + "\" multiple constant\n" + tie +
            "  help \"Of the peers that count, aligned to the subject's fiscal year and basis.\"\n";
    rows += "row by_" + m.name + "_" + statistic + " \"Value per share, peers' " + m.label + ", " + statistic +
            "\" quote constant\n  value guard(" + metric + " > 0, max(0, (" + given + " * " + metric +
            (m.ofFirm ? " - claims" : "") + ") / diluted_shares * quote_rate), " + positive + ")\n" + tie +
            "  help \"Multiple times the subject's own" + (m.ofFirm ? ", less claims," : "") +
            " over diluted shares.\"\n";
  }
  return rows;
}

PeerMultiple multipleOfRow(const Row& row, bool ofFirm, PeerMultiple::Of of) {
  struct Year {
    const char *name, *label, *what;
  };
  constexpr Year kYears[] = {{"", "", ""},
                             {"_this", ", this year", " of this year"},
                             {"_next", ", next year", " of next year"},
                             {"_after", ", year after next", " of the year after next"},
                             {"_normal", ", normal year", ""}};
  const Year& year = kYears[static_cast<size_t>(of)];
  // "Orders" within a sentence; "EBITDA" stays.
  std::string what = row.label;
  const auto is = [&](size_t at, int (*kind)(int)) { return kind(static_cast<unsigned char>(what[at])) != 0; };
  if (what.size() > 1 && is(0, std::isupper) && is(1, std::islower))
    what[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(what[0])));
  PeerMultiple m;
  m.name = (ofFirm ? "ev_to_" : "price_to_") + row.name + year.name;
  m.label = (ofFirm ? "EV to " : "Price to ") + what + year.label;
  m.what = what + year.what;
  m.ofFirm = ofFirm;
  m.of = of;
  m.row = row.name;
  return m;
}

std::string lineOf(const PeerMultiple& m) {
  return "multiple " + m.name + " \"" + m.label + "\" \"" + m.what + "\" " + (m.ofFirm ? "firm " : "shares ") +
         yearWord(m.of) + " " + m.row + "\n";
}

}  // namespace zl::model
