#pragma once
// A board of lines over the years, or of two against each other with the points named by year, so
// that a change of regime shows. Draws on a widget, a picture or a drawing alike.

#include <QWidget>
#include <vector>

#include "core/quantity/figure.h"
#include "core/quantity/kind.h"

namespace zl::app {

struct BoardLine {
  QString key;
  QString label;
  QString unit;
  Kind kind = Kind::Money;
  std::vector<Figure> figures;  ///< one per period
};

struct BoardMark {
  int column = 0;
  QString what;
};

struct LineBoardContent {
  QStringList periods;
  std::vector<bool> exceptional;  ///< per period: hatched
  std::vector<BoardMark> events;
  std::vector<BoardLine> lines;
  bool against = false;  ///< the second line over the first, instead of both over time
  int split = -1;        ///< first column of the later regime; -1: one regime
  /// Where each period's middle lies, so that points stand beneath the columns of a table; none, or another number than
  /// of periods: spread over the width. Of the widget alone: pictures and drawings are spread.
  std::vector<double> middles = {};
};

class LineBoard : public QWidget {
  Q_OBJECT

 public:
  explicit LineBoard(QWidget* parent = nullptr);
  void setContent(LineBoardContent content);
  void setMiddles(std::vector<double> middles);
  [[nodiscard]] const LineBoardContent& content() const { return content_; }
  [[nodiscard]] QSize minimumSizeHint() const override { return {320, 120}; }

  [[nodiscard]] QImage picture() const;
  /// Writes by the ending of the name: .svg a drawing, .png a picture, .csv the figures at full
  /// precision. Gives what went wrong, empty when it was written.
  [[nodiscard]] QString save(const QString& path) const;
  [[nodiscard]] QString figuresAsCsv() const;

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  LineBoardContent content_;
};

}  // namespace zl::app
