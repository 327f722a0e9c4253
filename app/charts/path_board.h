#pragma once
// The path of one driver: history as dots, the scenarios' paths as lines whose points can be
// dragged or nudged by key, behind them the band of its own history. With Shift a stage moves as a
// whole, with Ctrl (or by the handle at the right) the long-run level.

#include <QWidget>
#include <vector>

#include "app/charts/axis.h"
#include "core/history/statistics.h"
#include "core/outlook/path_grip.h"
#include "core/quantity/figure.h"
#include "core/quantity/kind.h"

namespace zl::app {

struct BoardPath {
  QString scenario;
  QString label;
  std::vector<Figure> figures;  ///< one per forecast year
  std::vector<Figure> ghost;    ///< before the edit; empty when nothing is being edited
  std::vector<bool> clipped;    ///< years in which it is held at the end of the driver's range
  bool inherited = false;       ///< says nothing of its own
  bool proposed = false;        ///< nobody has decided it: a thin line
};

/// What others say of a forecast year: the ends and the middle.
struct BoardBracket {
  Figure low, mean, high;
};

struct BoardContent {
  QString title;
  QString unit;
  Kind kind = Kind::Ratio;
  QStringList periods;  ///< history, then forecast
  std::vector<Figure> history;
  std::vector<bool> exceptional;  ///< per history year
  Statistics spread;              ///< of the history that counts
  std::vector<BoardPath> paths;
  std::vector<BoardBracket> consensus;  ///< per forecast year; empty: nobody estimates it
  Figure peers;                         ///< the peers' median in their last years
  Figure economy;                       ///< a figure of the economy to hold against
  QString economyLabel;
  std::vector<int> stages;        ///< lengths in forecast years; empty: one
  int chosen = 1;                 ///< the path that edits go to
  double low = -1e9, high = 1e9;  ///< allowed range
};

class PathBoard : public QWidget {
  Q_OBJECT

 public:
  explicit PathBoard(QWidget* parent = nullptr);
  void setContent(BoardContent content);
  /// Where forecast years stand, in widget coordinates: under the columns of a table beneath. History has the room to
  /// their left. Without them all years stand evenly.
  void setForecastYears(std::vector<double> places);
  [[nodiscard]] QSize minimumSizeHint() const override { return {320, 170}; }
  /// Where a forecast year's point of the chosen path stands, in widget coordinates.
  [[nodiscard]] QPointF pointOf(int year) const;
  /// Where the long-run level of the chosen path is taken hold of, right of the last year.
  [[nodiscard]] QPointF levelHandle() const;

 Q_SIGNALS:
  void dragging(int year, double figure, zl::Grip grip);  ///< while the mouse is down
  void dropped(int year, double figure, zl::Grip grip);
  void cancelled();
  void pathChosen(int path);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void changeEvent(QEvent* event) override;

 private:
  struct Edges {
    double left = 52, right = 70, top = 26, bottom = 22;  ///< pixels
  };
  [[nodiscard]] Edges edges() const;
  void rescale();
  void paintHistory(QPainter& painter) const;
  void paintPath(QPainter& painter, const BoardPath& path, bool chosen) const;
  void paintAxes(QPainter& painter) const;
  void paintStages(QPainter& painter) const;
  void paintOthers(QPainter& painter) const;
  [[nodiscard]] double xOf(int column) const;
  [[nodiscard]] bool isAligned() const;
  [[nodiscard]] double right() const;         ///< end of what is drawn
  [[nodiscard]] double halfForecast() const;  ///< half the distance of two forecast years
  [[nodiscard]] double clipped(double figure) const;
  [[nodiscard]] int yearAt(QPointF position, int path) const;
  [[nodiscard]] double stepSize() const;
  [[nodiscard]] const BoardPath* chosenPath() const;

  BoardContent content_;
  std::vector<double> places_;
  Scale y_;
  Edges edges_;
  int dragYear_ = -1;
  Grip grip_ = Grip::Year;
  int focusYear_ = 0;
  double dragFigure_ = 0;
};

}  // namespace zl::app
