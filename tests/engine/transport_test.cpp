// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/transport.h"

#include <thread>

#include <gtest/gtest.h>

namespace chispa::engine {
namespace {

TransportState numbered(std::int64_t n) {
  return {ScoreId{static_cast<std::uint32_t>(n)}, Micros(n), MonoTime(n), n % 2 == 0, static_cast<double>(n)};
}

TEST(Transport, GivesBackWhatWasSetLast) {
  Transport transport;
  EXPECT_EQ(transport.get(), TransportState{});
  for (int n = 1; n < 100; ++n) {
    transport.set(numbered(n));
    EXPECT_EQ(transport.get(), numbered(n));
  }
}

/// Readers never see a state made of two, and never an older one than before.
TEST(Transport, IsNeverTornWhileItIsWritten) {
  Transport transport;
  std::atomic<bool> isDone{false};
  std::thread writer([&] {
    for (std::int64_t n = 1; n <= 200'000; ++n) transport.set(numbered(n));
    isDone = true;
  });
  std::int64_t last = 0;
  while (!isDone) {
    const TransportState state = transport.get();
    ASSERT_EQ(state, numbered(state.from.count()).from.count() == 0 ? TransportState{}
                                                                    : numbered(state.from.count()));
    ASSERT_GE(state.from.count(), last);
    last = state.from.count();
  }
  writer.join();
  EXPECT_EQ(transport.get(), numbered(200'000));
}

/// What comes next is met at its time, though nobody has told the transport yet.
TEST(Transport, GoesOnByItselfAtTheEndOfAPart) {
  TransportState state{ScoreId{1}, Micros(0),       MonoTime(0), true,
                       1,          Micros(500'000), ScoreId{2},  Micros(20'000)};
  EXPECT_EQ(state.resolvedAt(MonoTime(499'000'000)), state);
  const TransportState next = state.resolvedAt(MonoTime(507'000'000));
  EXPECT_EQ(next.score, ScoreId{2});
  EXPECT_EQ(next.positionAt(MonoTime(507'000'000)), Micros(27'000));
  // Where nothing follows, or nothing plays, it is as it was.
  state.then = {};
  EXPECT_EQ(state.resolvedAt(MonoTime(507'000'000)), state);
  state.holdsLast = true;
  EXPECT_EQ(state.resolvedAt(MonoTime(507'000'000)).positionAt(MonoTime(507'000'000)), Micros(499'999));
  state.then = ScoreId{2};
  state.playing = false;
  EXPECT_EQ(state.resolvedAt(MonoTime(507'000'000)), state);
}

}  // namespace
}  // namespace chispa::engine
