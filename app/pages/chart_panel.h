#pragma once
// The chart board under the history grid: what is on it, how it is drawn, and how it leaves.

#include <QComboBox>
#include <QPushButton>
#include <functional>

#include "app/bench/workbench.h"
#include "app/charts/line_board.h"
#include "services/views/history_figures.h"

namespace zl::app {

class ChartPanel : public QWidget {
  Q_OBJECT

 public:
  explicit ChartPanel(Workbench& bench, QWidget* parent = nullptr);
  /// Puts a row on the board or takes it off; at most six lines in two units.
  void toggle(const std::string& row);
  void refresh(services::Reading reading);
  /// The board, whose points stand beneath the columns of a table (LineBoard::setMiddles).
  [[nodiscard]] LineBoard* board() { return board_; }
  /// Asks for a name to save under; set by the window.
  void setSaveDialog(std::function<QString(QWidget*)> dialog) { saveDialog_ = std::move(dialog); }
  [[nodiscard]] const std::vector<std::string>& shown() const { return shown_; }

 private:
  void copy() const;
  void save();
  void refillYears();
  [[nodiscard]] BoardLine lineOf(const services::Snapshot& s, model::RowId row) const;

  Workbench& bench_;
  LineBoard* board_;
  QComboBox *mode_, *split_;
  QPushButton *copy_, *save_, *clear_;
  std::vector<std::string> shown_;
  bool fresh_ = true;  ///< nothing was chosen yet: the model's view "charted" is shown
  services::Reading reading_ = services::Reading::Adjusted;
  std::function<QString(QWidget*)> saveDialog_;
};

}  // namespace zl::app
