#include "app/frame/preferences.h"

#include <QFileDialog>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QPushButton>
#include <QSettings>
#include <algorithm>

#include "app/look/plain_text.h"

namespace zl::app {
namespace {

using Marks = NumberStyle::Marks;

constexpr int kSmallestText = 80, kLargestText = 200;  // per cent

/// A number that somebody may have written into the file of settings by hand.
int within(const QSettings& settings, const char* key, int low, int high, int otherwise) {
  bool isNumber = false;
  const int x = settings.value(QString::fromLatin1(key), otherwise).toInt(&isNumber);
  return isNumber && x >= low && x <= high ? x : otherwise;
}

}  // namespace

Preferences Preferences::kept() {
  const QSettings settings;
  Preferences p;
  p.author = settings.value(QStringLiteral("author")).toString().trimmed();
  p.numbers.marks = static_cast<Marks>(within(settings, "numberMarks", 0, 2, 0));
  p.numbers.parentheses = within(settings, "parentheses", 0, 1, 1) == 1;
  p.paper = static_cast<ThemeChoice>(within(settings, "theme", 0, 2, 0));
  p.textPercent = within(settings, "textPercent", kSmallestText, kLargestText, 100);
  const int power = within(settings, "amountPower", 0, 9, 0);
  p.amountPower = power % 3 == 0 ? power : 0;
  p.books = settings.value(QStringLiteral("booksFolder")).toString();
  p.files = settings.value(QStringLiteral("filesFolder")).toString();
  return p;
}

void Preferences::keep() const {
  QSettings settings;
  settings.setValue(QStringLiteral("author"), author);
  settings.setValue(QStringLiteral("numberMarks"), static_cast<int>(numbers.marks));
  settings.setValue(QStringLiteral("parentheses"), numbers.parentheses ? 1 : 0);
  settings.setValue(QStringLiteral("theme"), static_cast<int>(paper));
  settings.setValue(QStringLiteral("textPercent"), textPercent);
  settings.setValue(QStringLiteral("amountPower"), amountPower);
  settings.setValue(QStringLiteral("booksFolder"), books);
  settings.setValue(QStringLiteral("filesFolder"), files);
}

PreferencesWindow::PreferencesWindow(const QString& account, QWidget* parent) : QDialog(parent) {
  setObjectName(QStringLiteral("preferences"));
  setWindowTitle(tr("Preferences"));
  const Preferences now = Preferences::kept();
  auto* form = new QFormLayout(this);
  author_ = new QLineEdit(now.author, this);
  author_->setObjectName(QStringLiteral("authorName"));
  author_->setPlaceholderText(account);
  form->addRow(tr("&Your name on edits"), author_);
  marks_ = addChoice(*form, "numberMarks", tr("&Numbers"),
                     {{QStringLiteral("1,234.5"), 0}, {QStringLiteral("1 234.5"), 1}, {QStringLiteral("1 234,5"), 2}},
                     static_cast<int>(now.numbers.marks));
  negatives_ =
      addChoice(*form, "negatives", tr("Ne&gative figures"),
                {{QStringLiteral("(350)"), 1}, {QStringLiteral("\u2212350"), 0}}, now.numbers.parentheses ? 1 : 0);
  amounts_ =
      addChoice(*form, "amountsIn", tr("&Amounts, where a company has no choice of its own"),
                {{tr("as it fits"), 0}, {tr("thousand"), 3}, {tr("million"), 6}, {tr("billion"), 9}}, now.amountPower);
  paper_ = addChoice(*form, "paperChoice", tr("&Paper"), {{tr("as the system"), 0}, {tr("light"), 1}, {tr("dark"), 2}},
                     static_cast<int>(now.paper));
  std::vector<std::pair<QString, int>> sizes;
  for (const int percent : {90, 100, 110, 125, 150, 175, 200}) sizes.emplace_back(tr("%1 %").arg(percent), percent);
  text_ = addChoice(*form, "textSize", tr("&Size of text"), sizes, now.textPercent);
  books_ = addFolder(*form, "booksFolder", tr("&Books are in"), now.books);
  files_ = addFolder(*form, "filesFolder", tr("&Files to bring in are in"), now.files);
  auto* close = new QPushButton(tr("&Close"), this);
  close->setObjectName(QStringLiteral("closePreferences"));
  form->addRow(close);
  connect(close, &QPushButton::clicked, this, &QWidget::close);
  connect(author_, &QLineEdit::editingFinished, this, &PreferencesWindow::take);
  resize(560, sizeHint().height());
}

QComboBox* PreferencesWindow::addChoice(QFormLayout& form, const char* name, const QString& label,
                                        const std::vector<std::pair<QString, int>>& choices, int chosen) {
  auto* box = new QComboBox(this);
  box->setObjectName(QString::fromLatin1(name));
  for (const auto& [words, value] : choices) box->addItem(words, value);
  box->setCurrentIndex(std::max(0, box->findData(chosen)));
  form.addRow(label, box);
  connect(box, &QComboBox::activated, this, &PreferencesWindow::take);
  return box;
}

QLineEdit* PreferencesWindow::addFolder(QFormLayout& form, const char* name, const QString& label,
                                        const QString& folder) {
  auto* both = new QWidget(this);
  auto* layout = new QHBoxLayout(both);
  layout->setContentsMargins(0, 0, 0, 0);
  auto* line = new QLineEdit(folder, both);
  line->setObjectName(QString::fromLatin1(name));
  line->setPlaceholderText(tr("where the system says"));
  layout->addWidget(line, 1);
  auto* choose = new QPushButton(tr("Choose…"), both);
  choose->setAccessibleName(tr("Choose a folder"));
  layout->addWidget(choose);
  form.addRow(label, both);
  static_cast<QLabel*>(form.labelForField(both))->setBuddy(line);
  connect(choose, &QPushButton::clicked, this, [this, line, label] {
    const QString chosen = QFileDialog::getExistingDirectory(this, label, line->text());
    if (chosen.isEmpty()) return;
    line->setText(chosen);
    take();
  });
  connect(line, &QLineEdit::editingFinished, this, &PreferencesWindow::take);
  return line;
}

void PreferencesWindow::take() {
  Preferences p;
  p.author = author_->text().trimmed();
  p.numbers.marks = static_cast<Marks>(marks_->currentData().toInt());
  p.numbers.parentheses = negatives_->currentData().toInt() == 1;
  p.paper = static_cast<ThemeChoice>(paper_->currentData().toInt());
  p.textPercent = text_->currentData().toInt();
  p.amountPower = amounts_->currentData().toInt();
  p.books = books_->text().trimmed();
  p.files = files_->text().trimmed();
  p.keep();
  Q_EMIT changed();
}

}  // namespace zl::app
