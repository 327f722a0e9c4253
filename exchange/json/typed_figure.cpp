#include "exchange/json/typed_figure.h"

#include "exchange/json/case_members.h"

namespace zl::exchange {
namespace {

constexpr const char* kFormat = "zealous-ledger-typed-figure";

}  // namespace

std::string typedFigureText(const TypedFigure& typed) {
  return textOf(Json{{"format", kFormat},
                     {"version", 1},
                     {"series", typed.series},
                     {"at", dateText(typed.at)},
                     {"figure", typed.figure},
                     {"unit", typed.unit},
                     {"said", toJson(typed.said)}},
                1);
}

Result<TypedFigure> typedFigureFrom(const std::string& text, const std::string& source) {
  const Result<Json> json = parseJson(text, source);
  if (!json) return tl::unexpected(json.error());
  try {
    ObjectReader r(*json, source);
    if (r.text("format") != kFormat || r.whole("version") != 1) r.fault("this is no typed figure");
    TypedFigure typed;
    typed.series = r.text("series");
    typed.at = r.date("at");
    typed.figure = r.number("figure");
    typed.unit = r.optionalText("unit");
    typed.said = provenanceOf(r);
    r.finish();
    return typed;
  } catch (const JsonFault& fault) {
    return tl::unexpected(fault.error);
  }
}

}  // namespace zl::exchange
