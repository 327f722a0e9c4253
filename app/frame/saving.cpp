#include "app/frame/saving.h"

#include <xlsxwriter.h>

#include <QFile>
#include <QFileInfo>
#include <QPainter>
#include <QSaveFile>
#include <QSvgGenerator>
#include <QTemporaryDir>
#include <algorithm>

#include "core/quantity/number_text.h"
#include "core/text/cells.h"
#include "services/text/text_cells.h"

namespace zl::app {
namespace {

QString unwritten(const QString& path) {
  return QObject::tr("'%1' cannot be written. Choose another folder or name").arg(path);
}

QString ending(const QString& path) {
  return QFileInfo(path).suffix().toLower();
}

/// Headings over the labels and the figures; the trend is drawn, not written.
QStringList headings(const LedgerModel& ledger) {
  QStringList list = {ledger.headerData(0, Qt::Horizontal, Qt::DisplayRole).toString()};
  for (int c = ledger.firstColumn(); c < ledger.columnCount(); ++c)
    list << ledger.headerData(c, Qt::Horizontal, Qt::DisplayRole).toString();
  return list;
}

QByteArray csvOf(const LedgerModel& ledger) {
  std::string out;
  const auto line = [&](const QStringList& cells) {
    for (qsizetype i = 0; i < cells.size(); ++i) out += (i == 0 ? "" : ",") + services::csvCell(cells[i].toStdString());
    out += '\n';
  };
  line(headings(ledger));
  for (int r = 0; r < ledger.rowCount(); ++r) {
    QStringList cells = {ledger.index(r, 0).data().toString()};
    for (int c = ledger.firstColumn(); c < ledger.columnCount(); ++c) cells << ledger.plainText(ledger.index(r, c));
    line(cells);
  }
  return QByteArray::fromStdString(out);
}

bool writeWorkbook(const LedgerModel& ledger, const QString& path) {
  lxw_workbook* workbook = workbook_new(QFile::encodeName(path).constData());
  if (workbook == nullptr) return false;
  lxw_worksheet* sheet = workbook_add_worksheet(workbook, nullptr);
  const auto words = [&](lxw_row_t row, lxw_col_t column, const QString& text) {
    worksheet_write_string(sheet, row, column, text.toUtf8().constData(), nullptr);
  };
  const QStringList heads = headings(ledger);
  for (qsizetype c = 0; c < heads.size(); ++c) words(0, static_cast<lxw_col_t>(c), heads[c]);
  for (int r = 0; r < ledger.rowCount(); ++r) {
    const auto row = static_cast<lxw_row_t>(r + 1);
    words(row, 0, ledger.index(r, 0).data().toString());
    for (int c = ledger.firstColumn(); c < ledger.columnCount(); ++c) {
      const LedgerCell* cell = ledger.cellAt(ledger.index(r, c));
      if (cell == nullptr) continue;
      const auto column = static_cast<lxw_col_t>(c - ledger.firstColumn() + 1);
      if (!cell->words && cell->figure.hasValue()) {
        worksheet_write_number(sheet, row, column, cell->figure.value(), nullptr);
      } else if (cell->words) {
        words(row, column, *cell->words);
      }
    }
  }
  return workbook_close(workbook) == LXW_NO_ERROR;
}

}  // namespace

QString saveTable(const LedgerModel& ledger, const QString& path) {
  const QString form = ending(path);
  if (form != QLatin1String("csv") && form != QLatin1String("xlsx")) {
    return QObject::tr("A table is saved as .csv or .xlsx; '%1' ends in neither").arg(QFileInfo(path).fileName());
  }
  QByteArray content;
  if (form == QLatin1String("csv")) {
    content = csvOf(ledger);
  } else {
    // The library writes in place: a whole workbook first, then the file that was asked for.
    const QTemporaryDir folder;
    const QString whole = folder.filePath(QStringLiteral("table.xlsx"));
    QFile written(whole);
    if (!folder.isValid() || !writeWorkbook(ledger, whole) || !written.open(QIODevice::ReadOnly))
      return unwritten(path);
    content = written.readAll();
  }
  QSaveFile file(path);
  const bool done = file.open(QIODevice::WriteOnly) && file.write(content) == content.size() && file.commit();
  return done ? QString() : unwritten(path);
}

QString saveDrawing(QWidget& chart, const QString& path) {
  constexpr int kTimes = 2;
  const QString form = ending(path);
  QSaveFile file(path);
  if (form != QLatin1String("png") && form != QLatin1String("svg")) {
    return QObject::tr("A chart is saved as .png or .svg; '%1' ends in neither").arg(QFileInfo(path).fileName());
  }
  if (!file.open(QIODevice::WriteOnly)) return unwritten(path);
  if (form == QLatin1String("png")) {
    QImage picture(chart.size() * kTimes, QImage::Format_ARGB32);
    picture.setDevicePixelRatio(kTimes);
    chart.render(&picture);
    if (!picture.save(&file, "PNG")) return unwritten(path);
  } else {
    QSvgGenerator drawing;
    drawing.setOutputDevice(&file);
    drawing.setSize(chart.size());
    drawing.setViewBox(chart.rect());
    drawing.setTitle(chart.accessibleName());
    QPainter painter(&drawing);
    chart.render(&painter);
  }
  return file.commit() ? QString() : unwritten(path);
}

void printPage(QWidget& page, QPagedPaintDevice& paper) {
  QPainter painter(&paper);
  const QRectF sheet = painter.viewport();
  const double scale = sheet.width() / page.width();
  painter.scale(scale, scale);
  const int height = std::max(1, static_cast<int>(sheet.height() / scale));
  for (int top = 0; top < page.height(); top += height) {
    if (top > 0) paper.newPage();
    page.render(&painter, {}, QRegion(0, top, page.width(), height));
  }
}

}  // namespace zl::app
