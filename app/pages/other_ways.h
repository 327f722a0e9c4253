#pragma once
// Further ways to value, one at a time: its inputs and figures by scenario, beneath them its years. What a way shows is
// a view of the model; what is said beside it, and lines that are no rows of the model, are the page's.

#include <QComboBox>
#include <QLabel>
#include <QWidget>
#include <functional>

#include "app/bench/workbench.h"
#include "app/grid/ledger_rows.h"
#include "app/grid/ledger_view.h"

namespace zl::app {

struct OtherWay {
  const char* key;
  QString label;
  const char* values;           ///< a view of the model, by scenario
  const char* years = nullptr;  ///< a view of the model, by year; null: none
  /// Adds lines and gives the words beside it.
  std::function<QString(std::vector<LedgerRow>& rows)> more = {};
  /// Fills a further grid that is no view of the model; false: there is nothing to show.
  std::function<bool(LedgerView& grid)> further = {};
};

class OtherWays : public QWidget {
  Q_OBJECT

 public:
  /// `further` may be null where no way has a further grid.
  OtherWays(const char* name, Workbench& bench, LedgerView* values, LedgerView* years, std::vector<OtherWay> ways,
            QWidget* parent, LedgerView* further = nullptr);
  void refresh();
  void show(const QString& key);

 private:
  Workbench& bench_;
  std::vector<OtherWay> ways_;
  QComboBox* choice_;
  QLabel* remark_;
  LedgerView *values_, *years_, *further_;
};

}  // namespace zl::app
