#include <fmt/format.h>

#include "core/quantity/number_text.h"
#include "services/text/figure_json.h"
#include "services/text/text_cells.h"
#include "services/views/decide.h"

namespace zl::services {

std::string decideText(const DecideNext& next, const Snapshot& s) {
  if (next.list.empty()) return "Everything is decided.\n";
  const std::string unit = next.kind == Kind::Quote ? s.company().listing.unit : s.company().currency + " m";
  std::string out = fmt::format("Base value {} {}; effect from the lower to the upper quartile, {}\n\n",
                                shownOrDash(next.value, next.kind), unit, unit);
  for (const Undecided& u : next.list) {
    const model::Row& row = s.model()[u.row];
    out += fmt::format(
        "{:>12}  {:<28} {}\n{:>12}  {}{}\n", shownOrDash(u.effect, next.kind), row.name, row.label, "", u.words,
        u.reason.empty() ? std::string(", the model's preset") : (u.placeholder ? ", placeholder: " : ": ") + u.reason);
  }
  return out;
}

exchange::Json decideJson(const DecideNext& next, const Snapshot& s) {
  exchange::Json list = exchange::Json::array();
  for (const Undecided& u : next.list) {
    const model::Row& row = s.model()[u.row];
    list.push_back({{"row", row.name},
                    {"label", row.label},
                    {"from", u.placeholder ? "placeholder"
                             : u.proposed  ? "proposal"
                                           : "preset"},
                    {"path", u.words},
                    {"reason", u.reason},
                    {"between", u.apart},
                    {"value_low", figureJson(u.low)},
                    {"value_high", figureJson(u.high)},
                    {"effect", figureJson(u.effect)}});
  }
  return {{"unit", next.kind == Kind::Quote ? s.company().listing.unit : s.company().currency},
          {"value", figureJson(next.value)},
          {"undecided", std::move(list)}};
}

}  // namespace zl::services
