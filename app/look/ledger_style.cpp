#include "app/look/ledger_style.h"

#include <QListWidget>
#include <QPainter>
#include <QStyleFactory>
#include <QStyleOptionHeader>

#include "app/look/theme.h"

namespace zl::app {

LedgerStyle::LedgerStyle() : QProxyStyle(QStyleFactory::create(QStringLiteral("Fusion"))) {}

void LedgerStyle::polish(QWidget* widget) {
  QProxyStyle::polish(widget);
  if (qobject_cast<QListWidget*>(widget) == nullptr) return;
  QPalette p;
  p.setColor(QPalette::Base, Qt::transparent);
  p.setColor(QPalette::Highlight, theme().selection);
  p.setColor(QPalette::HighlightedText, theme().ink);
  widget->setPalette(p);
}

void LedgerStyle::drawControl(ControlElement element, const QStyleOption* option, QPainter* painter,
                              const QWidget* widget) const {
  switch (element) {
    case CE_HeaderSection:
      painter->fillRect(option->rect, theme().paper);
      painter->fillRect(option->rect.left(), option->rect.bottom(), option->rect.width(), 1, theme().wideRule);
      return;
    case CE_HeaderEmptyArea:
      painter->fillRect(option->rect, theme().paper);
      return;
    case CE_HeaderLabel:
      if (const auto* header = qstyleoption_cast<const QStyleOptionHeader*>(option)) {
        QStyleOptionHeader quiet = *header;
        quiet.palette.setColor(QPalette::ButtonText, theme().quiet);
        // A heading begins where what is beneath it does.
        if ((header->textAlignment & Qt::AlignRight) == 0) quiet.rect.adjust(header->section == 0 ? 6 : 2, 0, 0, 0);
        return QProxyStyle::drawControl(element, &quiet, painter, widget);
      }
      break;
    case CE_Splitter:
      painter->fillRect(option->rect, theme().wideRule);
      return;
    default:
      break;
  }
  QProxyStyle::drawControl(element, option, painter, widget);
}

int LedgerStyle::pixelMetric(PixelMetric metric, const QStyleOption* option, const QWidget* widget) const {
  return metric == PM_SplitterWidth ? 1 : QProxyStyle::pixelMetric(metric, option, widget);
}

}  // namespace zl::app
