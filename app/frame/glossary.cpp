#include "app/frame/glossary.h"

#include <QDir>
#include <QLineEdit>
#include <QStandardPaths>
#include <QTextBrowser>
#include <QVBoxLayout>

#include "app/look/theme.h"

namespace zl::app {

QString demoBookPath() {
  const QString folder = QStandardPaths::writableLocation(QStandardPaths::AppDataLocation);
  QDir().mkpath(folder);
  return folder + QStringLiteral("/demo.zledger");
}

Glossary::Glossary(const model::Model& model, QWidget* parent) : QDialog(parent), model_(model) {
  setWindowTitle(tr("Glossary"));
  resize(720, 600);
  auto* layout = new QVBoxLayout(this);
  auto* filter = new QLineEdit(this);
  filter->setObjectName(QStringLiteral("glossaryFilter"));
  filter->setPlaceholderText(tr("Part of a name or definition"));
  layout->addWidget(filter);
  text_ = new QTextBrowser(this);
  text_->setObjectName(QStringLiteral("glossaryText"));
  layout->addWidget(text_);
  connect(filter, &QLineEdit::textChanged, this, &Glossary::fill);
  fill({});
}

void Glossary::fill(const QString& filter) {
  QString html;
  QString group;
  for (const model::Row& row : model_.rows) {
    const QString label = text(row.label);
    const QString help = text(row.help);
    if (!filter.isEmpty() && !label.contains(filter, Qt::CaseInsensitive) &&
        !help.contains(filter, Qt::CaseInsensitive))
      continue;
    if (text(row.group) != group) {
      group = text(row.group);
      html += QStringLiteral("<h3>%1</h3>").arg(group.toHtmlEscaped());
    }
    html += QStringLiteral("<p><b>%1</b> <i>%2, %3</i>")
                .arg(label.toHtmlEscaped(), QString::fromLatin1(model::kindWord(row.kind)),
                     QString::fromLatin1(model::timingWord(row.timing)));
    if (!help.isEmpty()) html += QStringLiteral("<br>") + help.toHtmlEscaped();
    const auto rule = [&](const QString& word, const std::optional<model::Expr>& e) {
      if (e) html += QStringLiteral("<br><small>%1: %2</small>").arg(word, text(expressionText(*e)).toHtmlEscaped());
    };
    if (row.historyFiled) html += QStringLiteral("<br><small>%1</small>").arg(tr("history: filed"));
    rule(tr("history"), row.history);
    rule(tr("first year"), row.first);
    rule(tr("forecast"), row.forecast);
    rule(tr("value"), row.value);
    html += QStringLiteral("</p>");
  }
  text_->setHtml(html.isEmpty() ? tr("Nothing matches.") : html);
}

}  // namespace zl::app
