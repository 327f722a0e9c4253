#include "core/monitor/claimed_statistic.h"

#include <algorithm>
#include <array>
#include <vector>

#include "core/filing/labels.h"

namespace zl {
namespace {

constexpr std::array kDistances = {
    "under",       "over",      "below",   "above",    "less",        "more",      "than",     "off",
    "between",     "half",                                                                                  // English
    "unter",       "\u00FCber", "weniger", "mehr",     "zwischen",    "halb",      "abschlag", "zuschlag",  // German
    "sous",        "sur",       "dessous", "dessus",   "moins",       "plus",      "entre",    "moiti\u00E9",
    "d\u00E9cote",                                                                           // French
    "bajo",        "sobre",     "menos",   "m\u00E1s", "debajo",      "encima",    "mitad",  // Spanish
    "sotto",       "sopra",     "meno",    "pi\u00F9", "tra",         "met\u00E0",           // Italian
    "onder",       "boven",     "minder",  "meer",     "tussen",      "helft",               // Dutch
    "\u00F6ver",   "mindre",    "mer",     "mellan",   "h\u00E4lften"};                      // Swedish

constexpr std::array kPeers = {"peer",
                               "peers",
                               "comparables",
                               "vergleichsunternehmen",
                               "vergleichsgruppe",
                               "peergruppe",
                               "wettbewerber",
                               "pairs",
                               "pares",
                               "comparabili",
                               "vergelijkbare",
                               "j\u00E4mf\u00F6relsebolag",
                               "j\u00E4mf\u00F6relsebolagen"};

struct Name {
  const char* english;
  Figure MultipleStatistics::*figure;
  std::vector<const char*> words;
};

/// What is said in two words stands before what is said in one of them.
const std::array<Name, 6>& names() {
  static const std::array<Name, 6> kNames = {
      {{"lower quartile",
        &MultipleStatistics::lowerQuartile,
        {"lower quartile", "first quartile", "unteres quartil", "unteren quartil", "premier quartile", "primer cuartil",
         "primo quartile", "eerste kwartiel", "nedre kvartilen"}},
       {"upper quartile",
        &MultipleStatistics::upperQuartile,
        {"upper quartile", "third quartile", "oberes quartil", "oberen quartil", "troisi\u00E8me quartile",
         "tercer cuartil", "terzo quartile", "derde kwartiel", "\u00F6vre kvartilen"}},
       {"median", &MultipleStatistics::median, {"median", "medians", "m\u00E9diane", "mediana", "mediaan", "medianen"}},
       {"mean",
        &MultipleStatistics::mean,
        {"mean", "average", "mittelwert", "mittel", "durchschnitt", "moyenne", "media", "promedio", "gemiddelde",
         "genomsnitt", "genomsnittet"}},
       {"lowest",
        &MultipleStatistics::low,
        {"lowest", "low", "minimum", "niedrigster", "niedrigste", "minimo", "m\u00EDnimo", "laagste", "l\u00E4gsta"}},
       {"highest",
        &MultipleStatistics::high,
        {"highest", "high", "maximum", "h\u00F6chster", "h\u00F6chste", "massimo", "m\u00E1ximo", "hoogste",
         "h\u00F6gsta"}}}};
  return kNames;
}

}  // namespace

std::pair<Figure, std::string> claimedStatistic(const std::string& reason, const MultipleStatistics& of) {
  const std::string clause = " " + normalisedLabel(reason.substr(0, reason.find_first_of(",.;:"))) + " ";
  const auto says = [&](const char* word) { return clause.find(" " + std::string(word) + " ") != std::string::npos; };
  const auto saysAny = [&](const auto& words) { return std::any_of(std::begin(words), std::end(words), says); };
  if (saysAny(kPeers) && !saysAny(kDistances)) {
    for (const Name& name : names()) {
      if (saysAny(name.words)) return {of.*name.figure, name.english};
    }
  }
  return {Figure::absent("no statistic is named"), ""};
}

}  // namespace zl
