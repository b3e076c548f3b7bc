// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/background.h"

#include <atomic>
#include <thread>

#include <QtTest>
#include <gtest/gtest.h>

namespace chispa::desk {
namespace {

TEST(Background, HandsItsResultToTheWindowsThread) {
  QThreadPool pool;
  QObject receiver;
  std::thread::id worked, done;
  int given = 0;
  runThen(
      pool, &receiver,
      [&] {
        worked = std::this_thread::get_id();
        return 7;
      },
      [&](int result) {
        given = result;
        done = std::this_thread::get_id();
      });
  ASSERT_TRUE(QTest::qWaitFor([&] { return given == 7; }, 60'000));
  EXPECT_NE(worked, std::this_thread::get_id());
  EXPECT_EQ(done, std::this_thread::get_id());
}

/// Who asked goes at every moment of the work, many times over; the address sanitizer looks on.
TEST(Background, WhoeverHasGoneIsNotCalled) {
  QThreadPool pool;
  std::atomic<int> worked{0};
  int called = 0;
  constexpr int kTimes = 2'000;
  for (int n = 0; n < kTimes; ++n) {
    auto receiver = std::make_unique<QObject>();
    runThen(
        pool, receiver.get(), [&worked] { return ++worked; }, [&called](int) { ++called; });
    for (int spin = 0; spin < n % 50; ++spin) std::this_thread::yield();
    receiver.reset();
    if (n % 100 == 0) QCoreApplication::processEvents();
  }
  pool.waitForDone();
  QCoreApplication::processEvents();
  EXPECT_EQ(worked, kTimes);
  EXPECT_EQ(called, 0);
}

/// What breaks off is told, and takes nothing with it.
TEST(Background, AnExceptionEndsTheWorkOnly) {
  QThreadPool pool;
  QObject receiver;
  bool isCalled = false;
  runThen(
      pool, &receiver, []() -> int { throw std::bad_alloc(); }, [&](int) { isCalled = true; });
  pool.waitForDone();
  QCoreApplication::processEvents();
  EXPECT_FALSE(isCalled);
}

}  // namespace
}  // namespace chispa::desk
