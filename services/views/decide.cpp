#include "services/views/decide.h"

#include <algorithm>

#include "core/outlook/path_words.h"
#include "core/quantity/number_text.h"
#include "services/views/swings.h"

namespace zl::services {
namespace {

std::string wordsOf(const Snapshot& s, const model::Row& row, int lane) {
  if (row.declared != model::Declared::Driver) {
    const std::string unit = unitText(row.kind, s.company().currency, s.company().listing.unit);
    return figureText(s.evaluation->constant(s.model().find(row.name), lane), row.kind) +
           (unit.empty() ? "" : " " + unit);
  }
  const Figure last = s.history->at(s.model().find(row.name), s.evaluation->layout().baseColumn());
  const Path path = pathInForce(row, s.caseOf(), s.caseOf().base(), last);
  if (path.shape == Shape::Hold && !path.level) return "holds " + figureText(last, row.kind);
  return pathWords(path, row.kind);
}

}  // namespace

DecideNext decideNext(const Snapshot& s) {
  const model::Model& m = s.model();
  const Scenario& base = s.caseOf().base();
  const int lane = s.caseOf().indexOf(kBase);
  DecideNext next;
  std::vector<model::RowId> rows;
  for (size_t i = 0; i < m.rows.size(); ++i) {
    const model::Row& row = m.rows[i];
    const bool assumed = row.declared == model::Declared::Driver || row.declared == model::Declared::Input;
    if (!assumed || !row.projected || row.isChoice()) continue;
    const auto driver = base.drivers.find(row.name);
    const auto input = base.inputs.find(row.name);
    const Provenance* said = driver != base.drivers.end() ? &driver->second.said
                             : input != base.inputs.end() ? &input->second.said
                                                          : nullptr;
    if (said != nullptr && !said->isProposed()) continue;
    Undecided u;
    u.row = model::RowId(i);
    u.proposed = said != nullptr;
    u.placeholder = said != nullptr && said->from == Provenance::From::Placeholder;
    if (said != nullptr) u.reason = said->reason;
    u.words = wordsOf(s, row, lane);
    rows.push_back(u.row);
    next.list.push_back(std::move(u));
  }
  const Swings swings = swingsOf(s, rows);
  next.kind = swings.kind;
  next.value = swings.value;
  for (size_t i = 0; i < next.list.size(); ++i) {
    const Swing& swing = swings.of[i];
    next.list[i].apart = swing.apart;
    next.list[i].low = swing.low;
    next.list[i].high = swing.high;
    next.list[i].effect = swing.effect;
  }
  const auto moves = [](const Undecided& u) { return u.effect.valueOr(0); };
  std::stable_sort(next.list.begin(), next.list.end(), [&](const Undecided& a, const Undecided& b) {
    const bool first = a.placeholder && moves(a) > 0, second = b.placeholder && moves(b) > 0;
    return first != second ? first : moves(a) > moves(b);
  });
  return next;
}

CaseEdit confirm(const Snapshot& s, model::RowId row, const Provenance& said) {
  const model::Row& r = s.model()[row];
  const Scenario& base = s.caseOf().base();
  CaseEdit edit;
  if (r.declared == model::Declared::Driver) {
    const Figure last = s.history->at(row, s.evaluation->layout().baseColumn());
    edit = setDriver(s.caseOf(), s.model(), kBase, r.name, pathInForce(r, s.caseOf(), base, last), said);
  } else {
    edit = setInput(s.caseOf(), s.model(), kBase, r.name,
                    s.evaluation->constant(row, s.caseOf().indexOf(kBase)).valueOr(0), said);
  }
  edit.label = "Confirm " + r.label;
  return edit;
}

}  // namespace zl::services
