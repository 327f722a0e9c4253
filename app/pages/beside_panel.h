#pragma once
// One year as filed beside the standard lines: every line with the facts it stands on, every fact
// with its line; a fact goes to another line by drag or by typing.

#include <QComboBox>
#include <QLineEdit>

#include "app/bench/workbench.h"
#include "app/grid/ledger_view.h"

namespace zl::app {

class BesidePanel : public QWidget {
  Q_OBJECT

 public:
  explicit BesidePanel(Workbench& bench, QWidget* parent = nullptr);
  void refresh();

 Q_SIGNALS:
  void factsWanted(const QString& title, const std::vector<size_t>& facts);
  void lineTyped(const std::string& concept_name, const QString& typed);

 private:
  /// What a row of the grid stands for.
  struct Place {
    std::string line;
    std::vector<size_t> facts;  ///< of a line all, of a fact's row that one
    bool isFact = false;
  };
  [[nodiscard]] int column() const;
  void addLine(model::RowId row, std::vector<LedgerRow>& rows);
  void addLoose(std::vector<LedgerRow>& rows);
  [[nodiscard]] LedgerRow factRow(size_t fact, int weight, const std::string& line);
  void put(const std::string& concept_name, const LineChoice& choice);
  void typeLine(int row, const QString& typed);
  void drag(int from, int to);
  void addOwn();
  void dropOwn();

  Workbench& bench_;
  QComboBox *year_, *ownKind_;
  QLineEdit* ownName_;
  LedgerView* grid_;
  std::vector<Place> places_;
};

}  // namespace zl::app
