#include "app/pages/shape_bar.h"

#include <QHBoxLayout>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "app/look/amounts.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"

namespace zl::app {
namespace {

constexpr Shape kShapes[] = {Shape::Hold, Shape::Typed,    Shape::Steps, Shape::Glide,
                             Shape::Fade, Shape::Recovery, Shape::Cycle, Shape::Follow};

/// A figure as it is typed into a field: in the unit shown, without noise of the last digits.
QString fieldText(const std::optional<double>& x, Kind kind) {
  return x ? text(plainNumber(std::round(*x / shownUnit(kind) * 1e6) / 1e6)) : QString();
}

}  // namespace

ShapeBar::ShapeBar(QWidget* parent) : QWidget(parent) {
  auto* rows = new QVBoxLayout(this);
  rows->setContentsMargins(8, 2, 8, 2);
  rows->setSpacing(3);
  rows->addLayout(new QHBoxLayout);
  makeFields();
  why_ = new QWidget(this);
  auto* second = new QHBoxLayout(why_);
  second->setContentsMargins(0, 0, 0, 0);
  auto* why = new PlainLabel(tr("&Reason"), why_);
  reason_ = new QLineEdit(this);
  reason_->setObjectName(QStringLiteral("reason"));
  reason_->setPlaceholderText(tr("Why this path? A driver without a reason stays marked."));
  why->setBuddy(reason_);
  second->addWidget(why);
  second->addWidget(reason_, 1);
  reset_ = new QPushButton(why_);
  reset_->setObjectName(QStringLiteral("resetDriver"));
  second->addWidget(reset_);
  rows->addWidget(why_);
  connect(reset_, &QPushButton::clicked, this, &ShapeBar::resetWanted);
  connect(reason_, &QLineEdit::textEdited, this, &ShapeBar::reasonEdited);
  connect(reason_, &QLineEdit::editingFinished, this, [this] {
    if (!reason_->isModified()) return;
    reason_->setModified(false);
    Q_EMIT reasonTyped(reason_->text());
  });
}

/// One row where there is room for a reason beside the shape's fields, else two.
void ShapeBar::arrange() {
  auto* rows = static_cast<QVBoxLayout*>(layout());
  auto* first = static_cast<QHBoxLayout*>(rows->itemAt(0)->layout());
  const bool within = first->indexOf(why_) >= 0;
  int fields = 0;
  for (int i = 0; i < first->count(); ++i) {
    QLayoutItem* item = first->itemAt(i);
    if (item->widget() != why_ && !item->isEmpty()) fields += item->sizeHint().width() + first->spacing();
  }
  const int words = why_->sizeHint().width() - reason_->sizeHint().width() +
                    fontMetrics().horizontalAdvance(QStringLiteral("Orders on hand last for a year"));
  const bool room = fields + words < width() - 24;
  if (room == within) return;
  room ? first->addWidget(why_, 1) : rows->addWidget(why_);
}

void ShapeBar::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  arrange();
}

QLineEdit* ShapeBar::addLine(const char* name, const QString& words, int width, QLabel*& label) {
  auto* line = static_cast<QHBoxLayout*>(layout()->itemAt(0)->layout());
  auto* field = new QLineEdit(this);
  field->setObjectName(QString::fromLatin1(name));
  field->setMaximumWidth(width);
  field->setAlignment(Qt::AlignRight);
  label = new PlainLabel(words, this);
  label->setBuddy(field);
  line->addWidget(label);
  line->addWidget(field);
  connect(field, &QLineEdit::editingFinished, this, [this, field] {
    if (field->isModified()) ask();
  });
  return field;
}

void ShapeBar::makeFields() {
  auto* line = static_cast<QHBoxLayout*>(layout()->itemAt(0)->layout());
  const auto add = [&](const QString& words, QWidget* field) {
    auto* label = new PlainLabel(words, this);
    label->setBuddy(field);
    line->addWidget(label);
    line->addWidget(field);
    return label;
  };
  scenarioBox_ = new QComboBox(this);
  scenarioBox_->setObjectName(QStringLiteral("scenarioBox"));
  add(tr("S&cenario"), scenarioBox_);
  shapeBox_ = new QComboBox(this);
  shapeBox_->setObjectName(QStringLiteral("shapeBox"));
  for (const Shape shape : kShapes) {
    shapeBox_->addItem(QString::fromLatin1(shapeWord(shape)), static_cast<int>(shape));
  }
  add(tr("S&hape"), shapeBox_);
  level_ = addLine("level", tr("&Level"), 70, levelLabel_);
  level_->setPlaceholderText(tr("last"));
  list_ = addLine("stepList", {}, 150, listLabel_);
  distance_ = addLine("distance", tr("&distance"), 70, distanceLabel_);
  widening_ = new QCheckBox(tr("&widening"), this);
  widening_->setObjectName(QStringLiteral("widening"));
  widening_->setToolTip(tipText(tr("The distance grows by equal steps and is whole in the last year")));
  line->addWidget(widening_);
  from_ = new QSpinBox(this);
  from_->setObjectName(QStringLiteral("fromYear"));
  fromLabel_ = add(tr("&from year"), from_);
  to_ = new QSpinBox(this);
  to_->setObjectName(QStringLiteral("toYear"));
  toLabel_ = add(tr("&to year"), to_);
  halfLife_ = new QDoubleSpinBox(this);
  halfLife_->setObjectName(QStringLiteral("halfLife"));
  halfLife_->setRange(0.1, 50);
  halfLife_->setDecimals(1);
  halfLife_->setSuffix(tr(" y"));
  halfLabel_ = add(tr("h&alf-life"), halfLife_);
  // They appear with the shapes that use them; all at once they would widen the window.
  for (QWidget* w : std::initializer_list<QWidget*>{from_, fromLabel_, to_, toLabel_, halfLife_, halfLabel_, list_,
                                                    listLabel_, distance_, distanceLabel_, widening_}) {
    w->hide();
  }
  line->addStretch();
  connect(scenarioBox_, &QComboBox::activated, this, &ShapeBar::scenarioChosen);
  connect(shapeBox_, &QComboBox::activated, this, [this] {
    // Another shape starts from where the path runs now, not from fields of the one before.
    for (QLineEdit* field : {level_, list_, distance_}) field->setModified(false);
    ask();
  });
  connect(widening_, &QCheckBox::clicked, this, &ShapeBar::ask);
  for (QSpinBox* box : {from_, to_}) {
    box->setKeyboardTracking(false);
    connect(box, &QSpinBox::valueChanged, this, [this] {
      if (!filling_) ask();
    });
  }
  halfLife_->setKeyboardTracking(false);
  connect(halfLife_, &QDoubleSpinBox::valueChanged, this, [this] {
    if (!filling_) ask();
  });
}

bool ShapeBar::read(QLineEdit* field, std::optional<double>& into) {
  into.reset();
  const QString typed = field->text().trimmed();
  if (typed.isEmpty()) return true;
  into = typedShown(typed.toStdString(), shown_.kind);
  if (!into) {
    Q_EMIT refused(tr("'%1' is not a number; nothing was changed. Numbers may read 12.5%, 1.2bn, (350), 1,250.5 or "
                      "1 250,5")
                       .arg(typed.left(40)));
  }
  return into.has_value();
}

void ShapeBar::ask() {
  services::ShapeWish wish;
  Path& path = wish.path;
  path.shape = static_cast<Shape>(shapeBox_->currentData().toInt());
  std::optional<double> distance;
  const std::optional<std::vector<double>> list = typedShownList(list_->text().toStdString(), shown_.kind);
  wish.level = level_->isModified();
  wish.list = list_->isModified();
  wish.distance = distance_->isModified();
  if ((wish.level && !read(level_, path.level)) || (wish.distance && !read(distance_, distance))) {
    return setContent(shown_);
  }
  if (wish.list && !list) {
    Q_EMIT refused(tr("'%1' is not a list of numbers; write it as 8; 5; 2").arg(list_->text().left(40)));
    return setContent(shown_);
  }
  if (wish.list) path.typed.assign(list->begin(), list->end());
  path.distance = distance.value_or(0);
  path.widening = widening_->isChecked();
  path.halfLife = halfLife_->value();
  path.from = from_->value();
  path.to = to_->value();
  Q_EMIT shaped(wish);
}

void ShapeBar::setContent(const ShapeShown& shown) {
  shown_ = shown;
  filling_ = true;
  const Path& path = shown_.path;
  if (scenarioBox_->count() != shown_.scenarios.size()) scenarioBox_->clear();
  for (int i = 0; i < shown_.scenarios.size(); ++i) {
    if (i < scenarioBox_->count()) {
      scenarioBox_->setItemText(i, shown_.scenarios[i]);
    } else {
      scenarioBox_->addItem(shown_.scenarios[i]);
    }
  }
  scenarioBox_->setCurrentIndex(shown_.scenario);
  shapeBox_->setCurrentIndex(shapeBox_->findData(static_cast<int>(path.shape)));
  level_->setText(fieldText(path.level, shown_.kind));
  levelLabel_->setText(tr("&Level %1").arg(shown_.unit));
  distance_->setText(fieldText(path.distance, shown_.kind));
  widening_->setChecked(path.widening);
  QStringList list;
  for (const std::optional<double>& x : path.typed) list << (x ? fieldText(x, shown_.kind) : QString());
  list_->setText(list.join(QStringLiteral("; ")));
  list_->setCursorPosition(0);
  listLabel_->setText((path.shape == Shape::Cycle ? tr("de&viations %1") : tr("by sta&ge %1")).arg(shown_.unit));
  for (QLineEdit* field : {level_, list_, distance_}) field->setModified(false);
  from_->setRange(0, path.shape == Shape::Glide ? shown_.horizon - 1 : shown_.horizon);
  to_->setRange(0, shown_.horizon);
  to_->setSpecialValueText(tr("last"));
  from_->setValue(path.from);
  to_->setValue(path.to);
  halfLife_->setValue(path.halfLife);
  const auto only = [&](std::initializer_list<QWidget*> widgets, std::initializer_list<Shape> shapes) {
    const bool wanted = std::find(shapes.begin(), shapes.end(), path.shape) != shapes.end();
    for (QWidget* w : widgets) w->setVisible(wanted);
  };
  only({from_, fromLabel_}, {Shape::Glide, Shape::Fade});
  only({to_, toLabel_}, {Shape::Glide, Shape::Recovery});
  only({halfLife_, halfLabel_}, {Shape::Fade});
  only({list_, listLabel_}, {Shape::Steps, Shape::Cycle});
  only({distance_, distanceLabel_, widening_}, {Shape::Follow});
  only({level_, levelLabel_}, {Shape::Hold, Shape::Glide, Shape::Fade, Shape::Recovery, Shape::Cycle});
  reset_->setText(shown_.base ? tr("Model's preset") : tr("As base"));
  reset_->setEnabled(shown_.own);
  if (!reason_->hasFocus()) {
    reason_->setText(shown_.reason);
    reason_->setModified(shown_.reasonIsDraft);
    reason_->setCursorPosition(0);
  }
  reason_->setPlaceholderText(shown_.proposal.isEmpty() ? tr("Why this path? A driver without a reason stays marked.")
                                                        : shown_.proposal);
  reason_->setToolTip(tipText(shown_.reasonTip));
  arrange();
  filling_ = false;
}

}  // namespace zl::app
