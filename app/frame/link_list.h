#pragma once
// Figures that a figure stands on, or that hang on it, each with its unit: one line of words each, whole, in as many
// lines as they need. As high as what it lists; whoever holds it scrolls.

#include <QListWidget>
#include <vector>

#include "core/model/program.h"
#include "core/outlook/trace.h"

namespace zl::app {

class LinkList : public QListWidget {
  Q_OBJECT

 public:
  explicit LinkList(QWidget* parent = nullptr);
  /// `currency` that of money, `listing` the unit of figures per share.
  void fill(const std::vector<TraceLink>& links, const std::string& currency, const std::string& listing);
  [[nodiscard]] static model::Cell cellOf(const QListWidgetItem& item);

 protected:
  void updateGeometries() override;
};

}  // namespace zl::app
