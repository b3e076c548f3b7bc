// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/helpercrew.h"

#include <array>
#include <numeric>
#include <set>

#include <gtest/gtest.h>

namespace chispa::engine {
namespace {

/// Each job is done once, whoever does it, round after round, however many jobs and helpers there are.
TEST(HelperCrew, DoesEachJobOnce) {
  for (const int helpers : {0, 1, 3}) {
    HelperCrew crew(helpers);
    EXPECT_EQ(crew.hands(), static_cast<std::size_t>(helpers) + 1);
    std::vector<std::atomic<int>> done(300);
    auto job = [&](std::size_t number, std::size_t hand) {
      ASSERT_LT(hand, crew.hands());
      done[number].fetch_add(1);
    };
    for (int round = 1; round <= 3'000; ++round) {
      const std::size_t jobs = static_cast<std::size_t>(round) * 7 % 300;
      for (auto& one : done) one.store(0);
      crew.run(jobs, job);
      for (std::size_t i = 0; i < done.size(); ++i)
        ASSERT_EQ(done[i].load(), i < jobs ? 1 : 0) << "job " << i << " of " << jobs << " in round " << round;
    }
  }
}

/// A hand does one job at a time: what belongs to it needs no lock.
TEST(HelperCrew, AHandHasAPlaceOfItsOwn) {
  HelperCrew crew(2);
  std::array<std::size_t, 3> sums{};
  auto job = [&](std::size_t number, std::size_t hand) { sums.at(hand) += number; };
  for (int round = 0; round < 500; ++round) {
    sums.fill(0);
    crew.run(100, job);
    ASSERT_EQ(std::accumulate(sums.begin(), sums.end(), std::size_t{0}), 4'950u);
  }
}

/// What was written before a round is seen in it, and what its jobs wrote is seen behind it.
TEST(HelperCrew, WhatIsWrittenIsSeen) {
  HelperCrew crew(1);
  std::vector<int> from(1'000), to(1'000);
  auto job = [&](std::size_t number, std::size_t) { to[number] = from[number] + 1; };
  for (int round = 0; round < 1'000; ++round) {
    std::fill(from.begin(), from.end(), round);
    crew.run(to.size(), job);
    for (const int one : to) ASSERT_EQ(one, round + 1);
  }
}

/// It can go at any time that no round runs: asleep, just woken, never used.
TEST(HelperCrew, GoesQuietly) {
  for (int i = 0; i < 50; ++i) {
    HelperCrew crew(2);
    auto job = [](std::size_t, std::size_t) {};
    if (i % 2 == 0) crew.run(5, job);
  }
}

}  // namespace
}  // namespace chispa::engine
