#include "app/charts/line_board.h"

#include <QFile>
#include <QFileInfo>
#include <QImage>
#include <QPainter>
#include <QSaveFile>
#include <QSvgGenerator>

#include "app/charts/line_board_paint.h"
#include "app/look/amounts.h"
#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "core/quantity/number_text.h"
#include "services/text/text_cells.h"

namespace zl::app {
namespace {

constexpr int kPictureWidth = 960, kPictureHeight = 400;

/// As a picture or a drawing shows it: no table stands above.
LineBoardContent spread(LineBoardContent content) {
  content.middles.clear();
  return content;
}

QString quoted(const QString& cell) {
  return text(services::csvCell(cell.toStdString()));
}

}  // namespace

LineBoard::LineBoard(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("lineBoard"));
  setAccessibleName(tr("Chart board"));
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void LineBoard::setContent(LineBoardContent content) {
  content.middles = std::move(content_.middles);
  content_ = std::move(content);
  QStringList names;
  for (const BoardLine& line : content_.lines) names << line.label;
  setAccessibleDescription(names.join(QStringLiteral(", ")));
  QStringList events;
  for (const BoardMark& event : content_.events) {
    events << content_.periods.value(event.column) + QStringLiteral(": ") + event.what;
  }
  setToolTip(tipText(events.join(QLatin1Char('\n'))));
  update();
}

void LineBoard::setMiddles(std::vector<double> middles) {
  content_.middles = std::move(middles);
  update();
}

void LineBoard::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  paintLineBoard(painter, rect(), content_, font());
}

QImage LineBoard::picture() const {
  constexpr int kSharpness = 2;
  QImage image(kPictureWidth * kSharpness, kPictureHeight * kSharpness, QImage::Format_ARGB32);
  image.setDevicePixelRatio(kSharpness);
  image.fill(theme().paper);
  QPainter painter(&image);
  paintLineBoard(painter, {0, 0, kPictureWidth, kPictureHeight}, spread(content_), font());
  return image;
}

QString LineBoard::figuresAsCsv() const {
  QString out = QStringLiteral("line,unit");
  for (const QString& period : content_.periods) out += QLatin1Char(',') + period;
  out += QLatin1Char('\n');
  for (const BoardLine& line : content_.lines) {
    out += quoted(line.label) + QLatin1Char(',') + quoted(line.unit);
    for (const Figure& f : line.figures) {
      out += QLatin1Char(',');
      if (f.hasValue()) out += text(plainNumber(f.value() / shownUnit(line.kind)));
    }
    out += QLatin1Char('\n');
  }
  return out;
}

QString LineBoard::save(const QString& path) const {
  const QString ending = QFileInfo(path).suffix().toLower();
  QSaveFile file(path);
  QString cannot = tr("'%1' cannot be written. Choose another folder or name").arg(path);
  if (ending != QLatin1String("svg") && ending != QLatin1String("png") && ending != QLatin1String("csv")) {
    return tr("A chart is saved as .svg, .png or .csv; '%1' ends in none of them").arg(QFileInfo(path).fileName());
  }
  if (!file.open(QIODevice::WriteOnly)) return cannot;
  if (ending == QLatin1String("csv")) {
    file.write(figuresAsCsv().toUtf8());
  } else if (ending == QLatin1String("png")) {
    if (!picture().save(&file, "PNG")) return cannot;
  } else {
    QSvgGenerator drawing;
    drawing.setOutputDevice(&file);
    drawing.setSize({kPictureWidth, kPictureHeight});
    drawing.setViewBox(QRect(0, 0, kPictureWidth, kPictureHeight));
    drawing.setTitle(accessibleDescription());
    QPainter painter(&drawing);
    paintLineBoard(painter, {0, 0, kPictureWidth, kPictureHeight}, spread(content_), font());
  }
  return file.commit() ? QString() : cannot;
}

}  // namespace zl::app
