#include "core/table/calendar_words.h"

#include <algorithm>
#include <initializer_list>
#include <string>
#include <unordered_map>
#include <unordered_set>

namespace zl {
namespace {

using Words = std::initializer_list<const char*>;
using Numbers = std::unordered_map<std::string_view, int>;

/// Each number's words, one after another, to the number.
Numbers numbered(std::initializer_list<std::pair<int, Words>> lists) {
  Numbers numbers;
  for (const auto& [number, words] : lists) {
    for (const char* word : words) numbers.emplace(word, number);
  }
  return numbers;
}

std::optional<int> in(const Numbers& numbers, std::string_view word) {
  const auto found = numbers.find(word);
  return found == numbers.end() ? std::nullopt : std::optional(found->second);
}

}  // namespace

std::optional<unsigned> monthNamed(std::string_view word) {
  static const Numbers kMonths = numbered(
      {{1,
        {"jan", "january", "januar", "janner", "janvier", "janv", "enero", "ene", "gennaio", "gen", "januari",
         "janeiro"}},
       {2, {"feb", "february", "februar", "fevrier", "fevr", "fev", "febrero", "febbraio", "februari", "fevereiro"}},
       {3, {"mar", "march", "marz", "mrz", "mars", "marzo", "maart", "mrt", "marco", "marts"}},
       {4, {"apr", "april", "avril", "avr", "abril", "abr", "aprile"}},
       {5, {"may", "mai", "mayo", "maggio", "mag", "mei", "maj", "maio"}},
       {6, {"jun", "june", "juni", "juin", "junio", "giugno", "giu", "junho"}},
       {7, {"jul", "july", "juli", "juillet", "juil", "julio", "luglio", "lug", "julho"}},
       {8, {"aug", "august", "aout", "agosto", "ago", "augustus", "augusti"}},
       {9, {"sep", "sept", "september", "septembre", "septiembre", "setiembre", "settembre", "sett", "setembro"}},
       {10, {"oct", "october", "oktober", "okt", "octobre", "octubre", "ottobre", "ott", "outubro"}},
       {11, {"nov", "november", "novembre", "noviembre", "novembro"}},
       {12,
        {"dec", "december", "dezember", "dez", "decembre", "diciembre", "dic", "dicembre", "dezembro", "desember"}}});
  const std::optional<int> month = in(kMonths, word);
  return month ? std::optional(static_cast<unsigned>(*month)) : std::nullopt;
}

std::optional<int> numberNamed(std::string_view word) {
  static const Numbers kNumbers =
      numbered({{1, {"first", "erstes", "ersten", "premier", "primer", "primo", "eerste", "forsta"}},
                {2, {"second", "zweites", "zweiten", "deuxieme", "second", "segundo", "secondo", "tweede", "andra"}},
                {3,
                 {"three", "third", "drei", "drittes", "dritten", "trois", "troisieme", "tres", "tercer", "tre",
                  "terzo", "drie", "derde", "tredje"}},
                {4, {"fourth", "viertes", "vierten", "quatrieme", "cuarto", "quarto", "vierde", "fjarde"}},
                {6, {"six", "sechs", "seis", "sei", "zes", "sex"}},
                {9, {"nine", "neun", "neuf", "nueve", "nove", "negen", "nio"}},
                {12, {"twelve", "zwolf", "douze", "doce", "dodici", "twaalf", "tolv"}}});
  return in(kNumbers, word);
}

std::optional<int> spanNamed(std::string_view word) {
  static const Numbers kSpans =
      numbered({{1, {"months", "month", "monate", "monat", "mois", "meses", "mesi", "maanden", "manader"}},
                {3, {"quarter", "quartal", "trimestre", "kwartaal", "kvartal", "kvartalet"}},
                {6, {"half", "halbjahr", "semestre", "halfjaar", "halvar", "halvaret"}}});
  return in(kSpans, word);
}

bool namesWeeks(std::string_view word) {
  static const std::unordered_set<std::string_view> kWeeks = {"weeks",   "week",      "wochen", "semaines",
                                                              "semanas", "settimane", "weken",  "veckor"};
  return kWeeks.contains(word);
}

bool namesForecast(std::string_view word) {
  static const std::unordered_set<std::string_view> kForecast = {"e",        "est",    "f", "forecast",
                                                                 "estimate", "budget", "b", "prognose"};
  return kForecast.contains(word);
}

bool isOrdinalEnding(std::string_view word) {
  static const std::unordered_set<std::string_view> kEndings = {"st", "nd", "rd", "th", "er", "ere", "eme"};
  return kEndings.contains(word);
}

bool fillsHeading(std::string_view word) {
  static const std::unordered_set<std::string_view> kFillers = {
      // English
      "fy", "cy", "year", "years", "ended", "ending", "to", "the", "as", "at", "of", "fiscal", "full", "a", "actual",
      "audited", "annual", "half", "reported", "unaudited", "adjusted", "pro", "forma", "for", "from", "on", "and",
      "restated", "total", "statutory", "group", "consolidated", "period", "note", "calendar", "reclassified",
      "preliminary", "financial",
      // German
      "gj", "geschaftsjahr", "geschaftsjahres", "jahr", "bis", "zum", "vom", "per", "am", "geandert", "angepasst",
      "endend", "abgelaufenes", "wirtschaftsjahr",
      // French
      "exercice", "annee", "clos", "close", "le", "au", "du", "retraite", "publie", "arrete",
      // Spanish
      "ejercicio", "ano", "cerrado", "terminado", "finalizado", "el", "al", "de", "a", "reexpresado",
      // Italian
      "esercizio", "anno", "chiuso", "dal", "il",
      // Dutch
      "boekjaar", "einde", "fiscale", "jaar", "eindigend", "op", "tot", "van",
      // Swedish
      "rakenskapsar", "ar", "helar", "den", "till", "fran",
      // Danish, Norwegian
      "regnskabsar", "regnskabsaret", "regnskapsar", "regnskapsaret", "aret", "fra", "til",
      // Portuguese
      "exercicio", "findo", "encerrado", "em"};
  return kFillers.contains(word);
}

}  // namespace zl
