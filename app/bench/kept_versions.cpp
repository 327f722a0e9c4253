// Named versions of the open company, and its case moved on to a new year.

#include "app/bench/workbench.h"
#include "app/look/theme.h"
#include "services/views/roll_forward.h"

namespace zl::app {

std::vector<store::KeptVersion> Workbench::versions() {
  Result<std::vector<store::KeptVersion>> list = session_->versions();
  if (!list) report(tl::unexpected(list.error()));
  return list ? std::move(*list) : std::vector<store::KeptVersion>();
}

bool Workbench::keepVersion(const QString& name, const QString& note) {
  const bool done = report(session_->keepVersion(name.toStdString(), note.toStdString()));
  if (done) say(tr("Kept as '%1'").arg(name.trimmed()));
  tellChanged();
  return done;
}

bool Workbench::goBackTo(const QString& name) {
  preview_.reset();
  Status back;
  away(tr("Going back to '%1'").arg(name), [&] { back = session_->goBackTo(name.toStdString()); });
  const bool done = report(back);
  if (done) say(tr("Back to version '%1'").arg(name));
  tellChanged();
  return done;
}

bool Workbench::setVersionAside(const QString& name) {
  const bool done = report(session_->setVersionAside(name.toStdString()));
  if (done) say(tr("'%1' is off the list").arg(name));
  tellChanged();
  return done;
}

std::optional<services::Side> Workbench::sideOf(const QString& name) {
  if (name == QLatin1String(services::kNow))
    return services::Side{services::kNow, preview_ ? preview_ : session_->now()};
  Result<services::Side> side;
  away(tr("Reading version '%1'").arg(name), [&] { side = services::sideOf(*session_, name.toStdString()); });
  if (side) return std::move(*side);
  report(tl::unexpected(side.error()));
  return std::nullopt;
}

Result<ValueWalk> Workbench::walkBetween(const services::Side& from, const services::Side& to,
                                         const std::string& scenario, bool byRow) const {
  return services::walkBetween(from, to, scenario, byRow);
}

bool Workbench::rollForward() {
  preview_.reset();
  const QString kept = text(services::nameBeforeRolling(*session_->now()));
  Status rolled;
  away(tr("Rolling forward"), [&] { rolled = services::keepAndRollForward(*session_); });
  const bool done = report(rolled);
  if (done)
    say(tr("Rolled forward to %1; the state before is kept as '%2'").arg(now().years().back().label()).arg(kept));
  tellChanged();
  return done;
}

Result<Figure> Workbench::referenceValue(services::Reference reference) const {
  return services::referenceValue(now(), reference);
}

Result<services::SumOfCaution> Workbench::sumOfCaution() const {
  return services::sumOfCaution(now());
}

}  // namespace zl::app
