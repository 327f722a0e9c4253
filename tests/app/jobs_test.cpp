// Work off the window's thread: what is wanted comes back, what is not is dropped, nothing gets out of it but
// a value.

#include "app/jobs/jobs.h"

#include <gmock/gmock.h>

#include <QLabel>
#include <QLineEdit>
#include <QProgressBar>
#include <QPushButton>
#include <QTest>
#include <QTimer>
#include <new>
#include <stdexcept>

#include "app/jobs/job_strip.h"

namespace zl::app {
namespace {

/// Holds a job until the test lets it go, or until the job is stopped.
struct Gate {
  std::atomic<bool> open{false};
  void wait(const JobContext& context) const {
    while (!open && !context.stopped()) std::this_thread::sleep_for(std::chrono::milliseconds(1));
  }
};

class JobsTest : public testing::Test {
 protected:
  void SetUp() override {
    QObject::connect(&jobs_, &Jobs::failed, &jobs_, [this](const QString& key, const QString& words) {
      faults_ << key + QStringLiteral(": ") + words;
    });
  }
  bool settles() {
    return QTest::qWaitFor([&] { return !jobs_.isRunning(QStringLiteral("a")); });
  }
  Jobs jobs_;
  QStringList faults_;
};

TEST_F(JobsTest, TheResultComesBackOnTheWindowsThread) {
  const auto here = std::this_thread::get_id();
  std::thread::id at, then;
  jobs_.start(QStringLiteral("a"), {}, [&](const JobContext&) -> Jobs::Then {
    at = std::this_thread::get_id();
    return [&] { then = std::this_thread::get_id(); };
  });
  ASSERT_TRUE(settles());
  EXPECT_NE(at, here);
  EXPECT_EQ(then, here);
}

TEST_F(JobsTest, ALaterJobOfTheKeyTakesThePlaceOfTheOneBefore) {
  Gate gate;
  QStringList done;
  const auto work = [&](const QString& name) {
    return [&, name](const JobContext& context) -> Jobs::Then {
      gate.wait(context);
      return [&, name] { done << name; };
    };
  };
  jobs_.start(QStringLiteral("a"), QStringLiteral("first"), work(QStringLiteral("first")));
  jobs_.start(QStringLiteral("b"), QStringLiteral("beside"), work(QStringLiteral("beside")));
  jobs_.start(QStringLiteral("a"), QStringLiteral("second"), work(QStringLiteral("second")));
  EXPECT_EQ(jobs_.running().size(), 2u) << "the first is wanted by nobody";
  gate.open = true;
  ASSERT_TRUE(QTest::qWaitFor([&] { return done.size() == 2; }));
  QTest::qWait(20);
  EXPECT_EQ(done.count(QStringLiteral("first")), 0);
}

TEST_F(JobsTest, AStoppedOneIsToldAndItsResultDropped) {
  std::atomic<bool> saw{false};
  bool done = false;
  jobs_.start(QStringLiteral("a"), QStringLiteral("long"), [&](const JobContext& context) -> Jobs::Then {
    while (!context.stopped()) std::this_thread::sleep_for(std::chrono::milliseconds(1));
    saw = true;
    return [&] { done = true; };
  });
  jobs_.stop(QStringLiteral("a"));
  EXPECT_FALSE(jobs_.isRunning(QStringLiteral("a")));
  ASSERT_TRUE(QTest::qWaitFor([&] { return saw.load(); }));
  QTest::qWait(20);
  EXPECT_FALSE(done);
}

TEST_F(JobsTest, WhatIsThrownIsSaid) {
  jobs_.start(QStringLiteral("a"), {}, [](const JobContext&) -> Jobs::Then { throw std::runtime_error("a bad day"); });
  ASSERT_TRUE(QTest::qWaitFor([&] { return faults_.size() == 1; }));
  jobs_.start(QStringLiteral("b"), {}, [](const JobContext&) -> Jobs::Then { throw std::bad_alloc(); });
  ASSERT_TRUE(QTest::qWaitFor([&] { return faults_.size() == 2; }));
  EXPECT_THAT(faults_[0].toStdString(), testing::HasSubstr("a: a fault in the program: a bad day"));
  EXPECT_THAT(faults_[1].toStdString(), testing::HasSubstr("b: there is not enough memory"));
}

TEST_F(JobsTest, TheEndWaitsForWorkThatRuns) {
  std::atomic<bool> over{false};
  {
    Jobs jobs;
    jobs.start(QStringLiteral("a"), {}, [&](const JobContext& context) -> Jobs::Then {
      while (!context.stopped()) std::this_thread::sleep_for(std::chrono::milliseconds(1));
      over = true;
      return {};
    });
  }
  EXPECT_TRUE(over);
}

TEST_F(JobsTest, TheStripShowsLongWorkAndStopsIt) {
  JobStrip strip(jobs_);
  Gate gate;
  jobs_.start(QStringLiteral("quick"), QStringLiteral("Quick"), [](const JobContext&) -> Jobs::Then { return {}; });
  ASSERT_TRUE(QTest::qWaitFor([&] { return !jobs_.isRunning(QStringLiteral("quick")); }));
  EXPECT_FALSE(strip.isVisibleTo(nullptr));
  jobs_.start(QStringLiteral("a"), QStringLiteral("Valuing"), [&](const JobContext& context) -> Jobs::Then {
    context.progress(3, 10, QStringLiteral("c0003"));
    gate.wait(context);
    return {};
  });
  ASSERT_TRUE(QTest::qWaitFor([&] { return strip.isVisible(); }));
  EXPECT_EQ(strip.findChild<QLabel*>(QStringLiteral("jobWords"))->text(), QStringLiteral("Valuing: c0003"));
  EXPECT_EQ(strip.findChild<QProgressBar*>()->value(), 3);
  QTest::mouseClick(strip.findChild<QPushButton*>(QStringLiteral("stopJob")), Qt::LeftButton);
  EXPECT_FALSE(strip.isVisible());
  EXPECT_FALSE(jobs_.isRunning(QStringLiteral("a")));
}

TEST_F(JobsTest, WhatIsWaitedForIsDoneWhenItComesBackAndTheWindowPaintsButTakesNoKey) {
  QLineEdit field;
  field.show();
  ASSERT_TRUE(QTest::qWaitForWindowExposed(&field));
  int turns = 0;
  QTimer timer;
  QObject::connect(&timer, &QTimer::timeout, &timer, [&] {
    ++turns;
    QTest::keyClick(&field, Qt::Key_X);
    EXPECT_TRUE(jobs_.isBusy());
    ASSERT_EQ(jobs_.running().size(), 1u);
    EXPECT_FALSE(jobs_.running().front().stoppable);
  });
  timer.start(5);
  const auto here = std::this_thread::get_id();
  std::thread::id at;
  jobs_.untilDone(QStringLiteral("Opening"), [&] {
    at = std::this_thread::get_id();
    std::this_thread::sleep_for(std::chrono::milliseconds(150));
    jobs_.untilDone(QStringLiteral("A part of it"), [&] { EXPECT_EQ(at, std::this_thread::get_id()); });
  });
  timer.stop();
  EXPECT_NE(at, here);
  EXPECT_GT(turns, 3) << "the loop of events went on";
  EXPECT_EQ(field.text(), QString());
  QTest::keyClick(&field, Qt::Key_X);
  EXPECT_EQ(field.text(), QStringLiteral("x")) << "and takes keys again";
  EXPECT_FALSE(jobs_.isBusy());
  EXPECT_TRUE(jobs_.running().empty());
}

TEST_F(JobsTest, WhatIsThrownOutOfWorkThatIsWaitedForIsThrownWhereItWasAskedFor) {
  for (const int milliseconds : {0, 100}) {
    EXPECT_THROW(jobs_.untilDone(QStringLiteral("Opening"),
                                 [&] {
                                   std::this_thread::sleep_for(std::chrono::milliseconds(milliseconds));
                                   throw std::bad_alloc();
                                 }),
                 std::bad_alloc);
    EXPECT_FALSE(jobs_.isBusy());
  }
}

}  // namespace
}  // namespace zl::app
