#include <QFileDialog>
#include <QInputDialog>
#include <QMessageBox>

#include <QPrintDialog>
#include <QPrinter>

#include "app/frame/main_window.h"
#include "app/frame/preferences.h"

namespace zl::app {

Dialogs Dialogs::native() {
  Dialogs d;
  const QString books = QObject::tr("Books (*.zledger);;All files (*)");
  const QString cases = QObject::tr("Cases (*.json);;All files (*)");
  d.openBook = [books](QWidget* w) {
    return QFileDialog::getOpenFileName(w, QObject::tr("Open a book"), Preferences::kept().books, books);
  };
  d.newBook = [books](QWidget* w) {
    QString path = QFileDialog::getSaveFileName(w, QObject::tr("Name the new book"), Preferences::kept().books, books);
    if (!path.isEmpty() && !path.endsWith(QLatin1String(".zledger"))) path += QLatin1String(".zledger");
    return path;
  };
  d.openFiles = [](QWidget* w) {
    return QFileDialog::getOpenFileNames(w, QObject::tr("Choose filings and tables"), Preferences::kept().files,
                                         QObject::tr("Filings and tables (*.xbrl *.xml *.xhtml *.html *.htm *.csv "
                                                     "*.tsv *.txt *.json *.xlsx *.ods *.zip *.xbri *.xbr);;All files "
                                                     "(*)"));
  };
  d.openCase = [cases](QWidget* w) { return QFileDialog::getOpenFileName(w, QObject::tr("Apply a case"), {}, cases); };
  d.saveCase = [cases](QWidget* w) {
    return QFileDialog::getSaveFileName(w, QObject::tr("Export the case"), {}, cases);
  };
  d.saveChart = [](QWidget* w) {
    return QFileDialog::getSaveFileName(w, QObject::tr("Save the chart"), QStringLiteral("chart.svg"),
                                        QObject::tr("Drawing (*.svg);;Picture (*.png);;Figures (*.csv)"));
  };
  d.saveTable = [](QWidget* w) {
    return QFileDialog::getSaveFileName(w, QObject::tr("Save the table"), QStringLiteral("table.xlsx"),
                                        QObject::tr("Workbook of values (*.xlsx);;Figures (*.csv)"));
  };
  d.saveDrawing = [](QWidget* w) {
    return QFileDialog::getSaveFileName(w, QObject::tr("Save the chart"), QStringLiteral("chart.svg"),
                                        QObject::tr("Drawing (*.svg);;Picture (*.png)"));
  };
  d.print = [](QWidget* w, QPrinter& printer) { return QPrintDialog(&printer, w).exec() == QDialog::Accepted; };
  d.confirm = [](QWidget* w, const QString& question) {
    QMessageBox box(QMessageBox::Question, QObject::tr("Zealous Ledger"), question, QMessageBox::Yes | QMessageBox::No,
                    w);
    box.setTextFormat(Qt::PlainText);
    box.setDefaultButton(QMessageBox::No);
    return box.exec() == QMessageBox::Yes;
  };
  d.companyName = [](QWidget* w) {
    return QInputDialog::getText(w, QObject::tr("Start a company"), QObject::tr("Name of the company")).trimmed();
  };
  return d;
}

}  // namespace zl::app
