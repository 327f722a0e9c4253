// Tables, charts and pages out of the window. What is written is read back by other readers than the writer.

#include <gmock/gmock.h>

#include <QFile>
#include <QImage>
#include <QSvgRenderer>

#include "exchange/workbook/workbook.h"
#include "tests/support/window_fixture.h"

namespace zl::app {
namespace {

using testing::HasSubstr;

class Saving : public WindowFixture {
 protected:
  std::string save(const char* name, const char* action = "saveShownAction") {
    chosenChart_ = text(folder_.file(name));
    find<QAction>(action)->trigger();
    QFile file(chosenChart_);
    return file.open(QIODevice::ReadOnly) ? file.readAll().toStdString() : std::string();
  }
};

TEST_F(Saving, TheTableLookedAtAsFiguresAndAsAWorkbookOfValues) {
  go(Qt::Key_1);
  find<LedgerView>("keyFigures")->setFocus();
  const LedgerModel& ledger = find<LedgerView>("keyFigures")->ledger();
  const double revenue = ledger.ledgerRows()[0].cells[0].figure.value();
  const std::string csv = save("t.csv");
  EXPECT_THAT(csv, HasSubstr("EUR m,2025,median,low,high\nRevenue," + plainNumber(revenue)));
  const std::string workbook = save("t.xlsx");
  const auto read = exchange::readTables(workbook, exchange::ContentKind::Workbook, "t.xlsx");
  ASSERT_TRUE(read) << read.error().text();
  const SheetCell* cell = read->sheets[0].at(1, 1);
  ASSERT_NE(cell, nullptr);
  EXPECT_EQ(cell->kind, SheetCell::Kind::Number);
  EXPECT_DOUBLE_EQ(std::stod(cell->text), revenue);
  EXPECT_EQ(read->sheets[0].at(1, 0)->text, "Revenue");
  EXPECT_EQ(save("t.doc"), "");
  EXPECT_THAT(status().toStdString(), HasSubstr("ends in neither"));
  chosenChart_ = QStringLiteral("/no/such/folder/t.csv");
  find<QAction>("saveShownAction")->trigger();
  EXPECT_THAT(status().toStdString(), HasSubstr("cannot be written"));
}

TEST_F(Saving, TheChartLookedAtAsADrawingAndAsAPicture) {
  go(Qt::Key_4);
  find<QWidget>("pathBoard")->setFocus();
  QSvgRenderer drawing(QByteArray::fromStdString(save("c.svg")));
  EXPECT_TRUE(drawing.isValid());
  const QImage picture = QImage::fromData(QByteArray::fromStdString(save("c.png")));
  EXPECT_EQ(picture.width(), 2 * find<QWidget>("pathBoard")->width());
  EXPECT_GT(coloursIn(picture), 8);
}

TEST_F(Saving, APageOnPaper) {
  for (const Qt::Key page : {Qt::Key_1, Qt::Key_9}) {
    go(page);
    const std::string pdf = save("p.pdf", "printAction");
    EXPECT_THAT(pdf, testing::StartsWith("%PDF"));
    EXPECT_GT(pdf.size(), 5000u);
  }
  EXPECT_EQ(status(), QStringLiteral("Printed"));
}

}  // namespace
}  // namespace zl::app
