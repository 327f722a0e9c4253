#pragma once
// What would come in before it does: files as they were read, tables as they would be read, with
// everything that was guessed open to correction. Stores nothing itself.

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QProgressBar>
#include <QPushButton>
#include <QSpinBox>
#include <QWidget>

#include "app/bench/import_job.h"
#include "app/grid/ledger_view.h"

namespace zl::app {

class ImportPanel : public QWidget {
  Q_OBJECT

 public:
  explicit ImportPanel(QWidget* parent = nullptr);
  /// Starts reading; the panel shows the progress, then what was found.
  void read(const QStringList& paths, const services::ImportContext& context);
  void read(const services::ImportFile& file, const services::ImportContext& context);
  /// Stops reading or drops what was read, and hides.
  void close();
  [[nodiscard]] bool isReading() const { return job_.isRunning(); }

 Q_SIGNALS:
  void accepted(std::vector<zl::services::ImportPreview> previews);
  void failed(const QString& message);
  void closed();                ///< accepted, left out or failed
  void tableShown(bool shown);  ///< a table needs the room

 private:
  QWidget* makeTablePart();
  QLayout* makeMending();
  /// The file whose repair is offered: the table looked at, else the first that has one.
  [[nodiscard]] std::optional<size_t> toMend() const;
  void showMending();
  void begin(const services::ImportContext& context);
  void show(std::vector<services::ImportPreview> previews);
  void showFiles();
  void showTable();
  /// Which table is looked at; false when the file chosen is none.
  bool tableAt(size_t& file, size_t& reading) const;
  void guessAgain(const std::function<void(TableHints&)>& fix);
  void typeCell(int row, int column, const QString& typed);
  void typePeriod(TableReading& reading, int column, const QString& typed);
  void typeLine(TableReading& reading, size_t line, const QString& typed);
  /// Takes a changed reading; says why when it cannot be.
  void take(const services::ImportPreview& changed, size_t file);

  ImportJob job_;
  std::optional<services::ImportContext> context_;
  std::vector<services::ImportPreview> previews_;
  std::vector<std::pair<size_t, size_t>> tables_;  ///< file and reading, in the order of the chooser

  QLabel *title_, *doubts_, *headerLabel_, *mending_;
  QProgressBar* progress_;
  LedgerView *files_, *table_;
  QWidget* tablePart_;
  QComboBox *which_, *scale_;
  QCheckBox* included_;
  QLineEdit* currency_;
  QSpinBox* header_;
  QPushButton *accept_, *leave_, *mend_;
  bool filling_ = false;
};

}  // namespace zl::app
