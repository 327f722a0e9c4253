#pragma once
// Standard lines as people type and read them in a cell that chooses one.

#include <QString>
#include <QStringList>
#include <optional>

#include "core/filing/mapping.h"
#include "core/model/syntax.h"

namespace zl::app {

/// "Cost of sales", with a minus sign before it for the other sign; empty where set aside.
QString lineLabel(const model::Model& m, const LineChoice& choice);
/// The labels of all standard lines.
QStringList lineLabels(const model::Model& m);
/// What was typed: a label or name, '-' before it for the other sign, nothing to set aside. Empty
/// where no line is called so.
std::optional<LineChoice> typedLine(const model::Model& m, const QString& typed);

}  // namespace zl::app
