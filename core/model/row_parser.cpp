#include "core/model/row_parser.h"

#include <algorithm>
#include <array>
#include <optional>
#include <string>
#include <utility>

#include "core/model/language_words.h"

namespace zl::model {

/// An input that stands on one of its options.
Row RowParser::parseChoice() {
  constexpr size_t kMostOptions = 9;
  Row row;
  row.at = next().at;
  row.declared = Declared::Input;
  row.kind = Kind::Count;
  row.timing = Timing::Constant;
  row.name = word("a name for the choice");
  row.label = text("the choice's label in quotation marks");
  std::string chosen;
  Position chosenAt = row.at;
  while (peek().startsLine) {
    if (acceptWord("option")) {
      const Position at = peek().at;
      Option option;
      option.name = word("a name for the option");
      option.label = text("the option's label in quotation marks");
      if (row.option(option.name) >= 0) badAt(at, "'" + row.name + "' has an option '" + option.name + "' already");
      if (row.options.size() == kMostOptions) badAt(at, "a choice has nine options at most");
      row.options.push_back(std::move(option));
    } else if (acceptWord("default")) {
      chosenAt = peek().at;
      chosen = word("the option that stands until another is chosen");
    } else if (isWord("help")) {
      parseAttribute(row);
    } else {
      break;
    }
  }
  if (row.options.size() < 2) badAt(row.at, "the choice '" + row.name + "' needs two options or more");
  const int standing = chosen.empty() ? 0 : row.option(chosen);
  if (standing < 0) badAt(chosenAt, "'" + row.name + "' has no option '" + chosen + "'");
  row.preset = Default{false, static_cast<double>(standing)};
  row.range = Range{0, static_cast<double>(row.options.size() - 1)};
  return row;
}

Row RowParser::parseRow() {
  const std::optional<Declared> declared = meaningOf(kDeclared, peek().text);
  if (!declared) {
    bad("expected group, row, driver, input, choice, given, amend, unprojected, means, view or method, found '" +
        shown(peek()) + "'");
  }
  Row row;
  row.at = peek().at;
  row.declared = *declared;
  next();
  row.name = word("a name for the row");
  row.label = text("the row's label in quotation marks");
  const std::string kind = word("the kind of row '" + row.name + "'");
  const std::optional<Kind> k = meaningOf(kKinds, kind);
  if (!k)
    bad("row '" + row.name + "': '" + kind +
        "' is not a kind (money, shares, per_share, "
        "ratio, days, multiple, count, quote, quote_rate)");
  row.kind = *k;
  const std::string timing = word("the timing of row '" + row.name + "'");
  const std::optional<Timing> t = meaningOf(kTimings, timing);
  if (!t)
    bad("row '" + row.name + "': '" + timing +
        "' is not a timing (flow, balance, rate, "
        "constant)");
  row.timing = *t;
  while (peek().startsLine && parseAttribute(row)) {
  }
  return row;
}

bool RowParser::parseAttribute(Row& row) {
  if (acceptWord("history")) {
    row.historyFiled = false;
    row.history.reset();
    row.fact.reset();
    if (acceptWord("filed")) {
      row.historyFiled = true;
    } else if (acceptWord("recorded")) {
      row.historyFiled = true;
      row.fact = FactSource{text("the operating figure in quotation marks"), {}, {}, true};
    } else if (acceptWord("fact")) {
      row.historyFiled = true;
      row.fact = FactSource{text("the filed concept in quotation marks"), {}, {}};
      if (acceptWord("along")) {
        row.fact->axis = text("the axis in quotation marks");
        row.fact->member = text("the member in quotation marks");
      }
    } else {
      row.history = expression();
    }
  } else if (acceptWord("rule")) {  // of history and forecast alike
    row.historyFiled = false;
    row.fact.reset();
    row.forecast = expression();
    row.history = row.forecast;
    row.projected = true;
  } else if (acceptWord("first")) {
    row.first = expression();
  } else if (acceptWord("forecast")) {
    row.forecast = expression();
    row.projected = true;
  } else if (acceptWord("beyond")) {
    row.beyond = expression();
  } else if (acceptWord("value")) {
    row.value = expression();
  } else if (acceptWord("range")) {
    const double low = amount(row);
    expectWord("to");
    row.range = Range{low, amount(row)};
  } else if (acceptWord("default")) {
    Default preset;
    if (acceptWord("last")) {
      preset.last = true;
      if (acceptWord("else")) preset.level = amount(row);
    } else {
      preset.level = amount(row);
    }
    row.preset = preset;
  } else if (acceptWord("quoted")) {
    row.quoted = text("the name of the rate in quotation marks");
  } else if (acceptWord("peers")) {
    PeerTie tie;
    tie.measure = word("a measure of peers");
    if (onSameLine()) tie.statistic = word("a statistic of peers");
    row.peers = std::move(tie);
  } else if (acceptWord("record")) {
    row.record = recordTie(row);
  } else if (acceptWord("estimate")) {
    row.estimate = estimateTie(row);
  } else if (acceptWord("regular")) {
    row.regular = regularTie(row);
  } else if (acceptWord("help")) {
    row.help = text("the help text in quotation marks");
    while (peek().type == Token::Type::Text) row.help += " " + next().text;
  } else {
    return false;
  }
  return true;
}

/// A figure that a row may have: a number, with or without its unit.
double RowParser::amount(const Row& row) {
  const Position at = peek().at;
  const double n = signedNumber();
  const std::optional<Kind> unit = unitHere();
  if (unit && *unit != row.kind)
    badAt(at, "row '" + row.name + "' is " + kindWord(row.kind) + ", and this figure is " + kindWord(*unit));
  return n;
}

/// estimate ROW YEARS, of a given.
EstimateTie RowParser::estimateTie(const Row& row) {
  constexpr int kMostYears = 5;
  const Position at = peek().at;
  if (row.declared != Declared::Given) badAt(at, "only a given is read from estimates");
  EstimateTie tie;
  tie.item = word("a row that analysts estimate");
  tie.ahead = wholeNumber();
  if (tie.ahead < 1 || tie.ahead > kMostYears) badAt(at, "estimates are read for the first to the fifth year ahead");
  return tie;
}

/// regular PART over WHOLE, of a given.
RegularTie RowParser::regularTie(const Row& row) {
  if (row.declared != Declared::Given || row.kind != Kind::Ratio)
    badAt(peek().at, "a mean of regular years is a given ratio");
  RegularTie tie;
  tie.part = word("the row whose mean it is");
  expectWord("over");
  tie.whole = word("the row that it is a part of");
  return tie;
}

/// record LIST PLACE FIELD, of a given.
RecordTie RowParser::recordTie(const Row& row) {
  struct Field {
    const char* list;
    const char* name;
    Kind kind;
  };
  constexpr std::array<Field, 4> kFields = {{{"option_tranches", "count", Kind::Shares},
                                             {"option_tranches", "strike", Kind::Quote},
                                             {"convertibles", "shares", Kind::Shares},
                                             {"convertibles", "face", Kind::Money}}};
  const Position at = peek().at;
  if (row.declared != Declared::Given) badAt(at, "only a given is read from a list of the record");
  RecordTie tie;
  tie.list = word("a list of the record");
  tie.place = wholeNumber();
  tie.field = word("a field of the list");
  const auto* field = std::find_if(kFields.begin(), kFields.end(),
                                   [&](const Field& f) { return f.list == tie.list && f.name == tie.field; });
  if (field == kFields.end() || tie.place < 1) {
    badAt(at,
          "a list of the record is read by place from 1: option_tranches (count, strike) or convertibles "
          "(shares, face)");
  }
  if (field->kind != row.kind)
    badAt(at, "row '" + row.name + "' is " + kindWord(row.kind) + ", and the field is " + kindWord(field->kind));
  return tie;
}

}  // namespace zl::model
