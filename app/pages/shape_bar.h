#pragma once
// The shape of the chosen path in a line of fields, its scenario and its reason. Fields appear
// with the shapes that use them.

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSpinBox>
#include <QWidget>

#include "core/quantity/kind.h"
#include "services/edits/driver_moves.h"

namespace zl::app {

struct ShapeShown {
  Path path;
  Kind kind = Kind::Ratio;
  QString unit;
  int horizon = 10;
  QStringList scenarios;
  int scenario = 0;
  bool base = true;  ///< the scenario is base: it cannot follow itself
  bool own = false;  ///< the scenario says something of its own
  QString reason, reasonTip;
  bool reasonIsDraft = false;  ///< typed and not yet taken
  QString proposal;            ///< what a proposed path stands on: a reason typed over it confirms it
};

class ShapeBar : public QWidget {
  Q_OBJECT

 public:
  explicit ShapeBar(QWidget* parent = nullptr);
  void setContent(const ShapeShown& shown);

 Q_SIGNALS:
  void scenarioChosen(int index);
  void shaped(const zl::services::ShapeWish& wish);
  void refused(const QString& message);
  void reasonTyped(const QString& reason);
  void reasonEdited(const QString& words);  ///< while it is typed
  void resetWanted();

 protected:
  void resizeEvent(QResizeEvent* event) override;

 private:
  void arrange();
  void makeFields();
  void ask();
  QLineEdit* addLine(const char* name, const QString& words, int width, QLabel*& label);
  /// Reads a field; false when what stands there is no figure, which is said.
  bool read(QLineEdit* field, std::optional<double>& into);

  ShapeShown shown_;
  QComboBox *scenarioBox_, *shapeBox_;
  QLineEdit *level_, *list_, *distance_, *reason_;
  QSpinBox *from_, *to_;
  QDoubleSpinBox* halfLife_;
  QCheckBox* widening_;
  QPushButton* reset_;
  QWidget* why_;  ///< the reason and the way back
  QLabel *fromLabel_, *toLabel_, *halfLabel_, *levelLabel_, *listLabel_, *distanceLabel_;
  bool filling_ = false;
};

}  // namespace zl::app
