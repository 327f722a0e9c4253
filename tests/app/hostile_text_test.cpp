// Texts out of filings, records and people's hands are shown as they stand: on no page does one of
// them become markup, which would open files, take memory without end or say what is not so.

#include <gmock/gmock.h>

#include <QAbstractItemView>
#include <QComboBox>
#include <QListWidget>
#include <fstream>

#include "app/look/plain_text.h"
#include "exchange/json/reader.h"
#include "services/views/published.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

using testing::IsEmpty;

constexpr const char* kEvil = "<img src='file:///etc/hostname'><b>Worth 9999</b>&amp;";

class HostileText : public WindowFixture {
 protected:
  /// The demo's record with the hostile text in every member that is words.
  static std::string record() {
    exchange::Json json = exchange::Json::parse(test::demoFile("company.json"));
    const std::function<void(exchange::Json&)> poison = [&](exchange::Json& at) {
      for (auto& [key, value] : at.items()) {
        const bool word = key == "name" || key == "description" || key == "sector" || key == "control" ||
                          key == "what" || (key == "unit" && at.contains("years"));
        if (value.is_structured()) poison(value);
        if (value.is_string() && word) value = kEvil + value.get<std::string>();
      }
    };
    poison(json);
    return json.dump();
  }

  void bringIn(const std::string& name, const std::string& content) {
    const auto result =
        services::Session::import(book(), "vessingholt", {{name, content}}, resources_, test::testDesk());
    ASSERT_TRUE(result) << name << result.error().text();
  }

  /// Every field that a document or a person can fill.
  void poisonBook() {
    bringIn("company.json", record());
    const std::string csv = "concept,label,start,end,unit,decimals,value\n";
    bringIn("<img src=x>.csv", csv + "\"x:" + kEvil + "\",\"" + kEvil + "\",2025-01-01,2025-12-31,EUR,0,5\n");
    std::string peers = test::demoFile("peers.csv");
    for (size_t at = peers.find("Brackenfeld"); at != std::string::npos; at = peers.find("Brackenfeld", at + 100))
      peers.replace(at, 11, kEvil);
    bringIn("peers.csv", peers);
    std::string rates = test::demoFile("rates.csv");
    bringIn("rates.csv", rates + "risk-free XXX,2026-04-30,0.03," + kEvil + "\n");
    auto session = open();
    const auto apply = [&](const services::CaseEdit& edit) {
      const Status done = session->apply(edit);
      ASSERT_TRUE(done) << done.error().text();
    };
    const auto c = [&]() -> const Case& { return session->now()->caseOf(); };
    const model::Model& m = session->now()->evaluation->model();
    apply(services::setNote(c(), m, "value_per_share", kEvil));
    apply(services::setReason(c(), m, "base", "revenue_growth", session->said(kEvil)));
    apply(services::setExceptional(c(), 2020, kEvil));
    apply(services::keepWindow(c(), {2016, 2019, kEvil}));
    apply(services::publish(*session->now(), kEvil, session->said(kEvil)));
    ASSERT_TRUE(session->keepVersion(std::string(kEvil).substr(0, 70), kEvil));
    Case renamed = c();
    renamed.scenarios[0].label = kEvil;
    apply({renamed, kEvil});
    const auto findings = session->now()->findings();
    ASSERT_FALSE(findings.empty());
    apply(services::acknowledge(c(), findings.front(), session->said(kEvil)));
  }

  /// What of the window would be read as markup.
  void look(const char* where) {
    const auto markup = [&](const QString& words, const QString& what) {
      if (Qt::mightBeRichText(words) && words.contains(QLatin1String("<img")))
        found_.insert(what.toStdString() + " on " + where + ": " + words.left(60).toStdString());
      shown_ += words.contains(QLatin1String("9999")) ? 1 : 0;
    };
    for (QWidget* w : window_->findChildren<QWidget*>()) {
      markup(w->toolTip(), w->objectName() + QStringLiteral(" (tip)"));
      if (auto* label = qobject_cast<QLabel*>(w)) {
        if (label->textFormat() != Qt::PlainText) {
          found_.insert("a label that is not plain: " + label->objectName().toStdString());
        }
        shown_ += label->text().contains(QLatin1String("9999")) ? 1 : 0;
      }
      auto* view = qobject_cast<QAbstractItemView*>(w);
      if (view == nullptr || view->model() == nullptr || !view->isVisible()) continue;
      for (int r = 0; r < view->model()->rowCount(); ++r) {
        for (int k = 0; k < view->model()->columnCount(); ++k) {
          const QModelIndex index = view->model()->index(r, k);
          markup(index.data(Qt::ToolTipRole).toString(), w->objectName() + QStringLiteral(" (cell's tip)"));
          shown_ += index.data(Qt::DisplayRole).toString().contains(QLatin1String("9999")) ? 1 : 0;
        }
      }
    }
  }

  std::set<std::string> found_;
  int shown_ = 0;
};

TEST_F(HostileText, NoPageTakesWordsForMarkup) {
  poisonBook();
  ASSERT_TRUE(window_->openBook(path()));
  for (const Qt::Key page : kPageKeys) {
    go(page);
    eachView([this] { look("a page"); });
    for (const char* name : {"historyShow", "historyBasis", "filingsShow", "statementBox"}) {
      auto* box = window_->findChild<QComboBox*>(QString::fromLatin1(name));
      for (int i = 0; box != nullptr && box->isVisible() && i < box->count(); ++i) {
        box->setCurrentIndex(i);
        QCoreApplication::processEvents();
        look(name);
      }
      if (box != nullptr && box->isVisible()) box->setCurrentIndex(0);
    }
  }
  EXPECT_THAT(found_, IsEmpty());
  EXPECT_GT(shown_, 20) << "the texts must have been on the pages";
  EXPECT_TRUE(window_->windowTitle().contains(QLatin1String("<img")));
  bench().say(text(kEvil), true);
  EXPECT_EQ(status(), QStringLiteral("■ ") + text(kEvil));
}

TEST(PlainText, TipsMenusAndTitlesStandAsTheyAre) {
  EXPECT_EQ(tipText(QStringLiteral("2 < 3")), QStringLiteral("2 < 3")) << "what is no markup needs nothing";
  const QString evil = tipText(text(kEvil) + QStringLiteral("\nnext"));
  EXPECT_TRUE(evil.contains(QLatin1String("&lt;img")) && evil.contains(QLatin1String("&amp;amp;")) &&
              evil.contains(QLatin1String("<br/>next")));
  EXPECT_FALSE(evil.contains(QLatin1String("<img")));
  EXPECT_EQ(menuText(QStringLiteral("R&D")), QStringLiteral("R&&D"));
  EXPECT_EQ(text("1\xE2\x80\xAE"
                 "2\x07"),
            QString::fromUtf8("1\uFFFD2\uFFFD"));
}

}  // namespace
}  // namespace zl::app
