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

}  // namespace
}  // namespace chispa::engine
