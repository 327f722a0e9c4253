#include "app/grid/line_choice.h"

#include "app/look/theme.h"

namespace zl::app {

QString lineLabel(const model::Model& m, const LineChoice& choice) {
  if (choice.line.empty()) return {};
  const model::RowId row = m.find(choice.line);
  const QString label = !row.known() ? text(choice.line) : text(m[row].label);
  return choice.weight < 0 ? QStringLiteral("\u2212 ") + label : label;
}

QStringList lineLabels(const model::Model& m) {
  QStringList labels;
  for (const model::Row& row : m.rows) {
    if (row.isStandardLine()) labels << text(row.label);
  }
  return labels;
}

std::optional<LineChoice> typedLine(const model::Model& m, const QString& typed) {
  QString words = typed.trimmed();
  LineChoice choice{"", 1, "chosen by hand"};
  if (words.startsWith(QLatin1Char('-')) || words.startsWith(QChar(0x2212))) {
    choice.weight = -1;
    words = words.mid(1).trimmed();
  }
  if (words.isEmpty()) return choice;
  for (const model::Row& row : m.rows) {
    if (!row.isStandardLine()) continue;
    if (words.compare(text(row.label), Qt::CaseInsensitive) == 0 || words == text(row.name)) {
      choice.line = row.name;
      return choice;
    }
  }
  return std::nullopt;
}

}  // namespace zl::app
