// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/miditimecode.h"

#include <random>

#include <gtest/gtest.h>

#include "link/midi.h"

namespace chispa::link {
namespace {

using Bytes = std::vector<std::uint8_t>;

std::optional<TimeCode> reads(TimeCodeReader& reader, Bytes bytes) {
  return reader.read(bytes);
}

/// The eight quarter frames of 01:37:52:16 at 25 frames a second, as the specification lays their bits:
/// frames 16 = 0x10, seconds 52 = 0x34, minutes 37 = 0x25, hours 1 with the rate 1 in bits 5 and 6 = 0x21.
const std::vector<Bytes> kRun{{0xf1, 0x00}, {0xf1, 0x11}, {0xf1, 0x24}, {0xf1, 0x33},
                              {0xf1, 0x45}, {0xf1, 0x52}, {0xf1, 0x61}, {0xf1, 0x72}};
constexpr Micros k0137_52_16{(((1 * 60 + 37) * 60 + 52) * 25 + 16) * 40'000LL};

TEST(MidiTimeCode, EightQuarterFramesTellWhereTheClockIs) {
  TimeCodeReader reader;
  for (std::size_t i = 0; i + 1 < kRun.size(); ++i) EXPECT_FALSE(reads(reader, kRun[i])) << "piece " << i;
  const auto code = reads(reader, kRun.back());
  ASSERT_TRUE(code);
  EXPECT_TRUE(code->runs);
  EXPECT_EQ(code->at, k0137_52_16 + Micros(70'000))
      << "seven quarters of a frame have passed since the first";
}

/// One that is joined in the middle waits for a whole row; a piece that is lost makes it begin anew.
TEST(MidiTimeCode, OnlyWholeRowsCount) {
  TimeCodeReader reader;
  for (std::size_t i = 5; i < 8; ++i) EXPECT_FALSE(reads(reader, kRun[i]));
  for (std::size_t i = 0; i < 7; ++i) EXPECT_FALSE(reads(reader, kRun[i]));
  EXPECT_TRUE(reads(reader, kRun[7]));
  for (std::size_t i = 0; i < 8; ++i) {
    if (i == 3) continue;
    EXPECT_FALSE(reads(reader, kRun[i])) << "without its fourth piece";
  }
}

TEST(MidiTimeCode, BackwardsItStandsWhereItHasComeTo) {
  TimeCodeReader reader;
  std::optional<TimeCode> code;
  for (std::size_t i = 8; i-- > 0;) code = reads(reader, kRun[i]);
  ASSERT_TRUE(code);
  EXPECT_FALSE(code->runs);
  EXPECT_EQ(code->at, k0137_52_16);
}

TEST(MidiTimeCode, TheFullMessageSetsIt) {
  TimeCodeReader reader;
  const auto code = reads(reader, {0xf0, 0x7f, 0x7f, 0x01, 0x01, 0x21, 37, 52, 16, 0xf7});
  ASSERT_TRUE(code);
  EXPECT_EQ(*code, (TimeCode{k0137_52_16, false}));
  EXPECT_FALSE(reads(reader, {0xf0, 0x7f, 0x7f, 0x01, 0x01, 0x21, 37, 52, 25, 0xf7})) << "no 26th frame";
  EXPECT_FALSE(reads(reader, {0xf0, 0x7f, 0x7f, 0x01, 0x01, 0x3f, 37, 52, 16, 0xf7})) << "no 32nd hour";
  EXPECT_FALSE(reads(reader, {0xf0, 0x7f, 0x7f, 0x01, 0x01, 0x21, 37, 52, 16}));
  EXPECT_FALSE(reads(reader, {0xf0, 0x7e, 0x7f, 0x01, 0x01, 0x21, 37, 52, 16, 0xf7}));
}

/// 29.97 frames a second: the label of an hour is an hour, to a tenth of a second (SMPTE ST 12-1: 3.6 ms
/// short).
TEST(MidiTimeCode, DroppedNumbersAreCountedOut) {
  TimeCodeReader reader;
  const auto hour = reads(reader, {0xf0, 0x7f, 0x7f, 0x01, 0x01, 0x41, 0, 0, 0, 0xf7});
  ASSERT_TRUE(hour);
  EXPECT_EQ(hour->at, Micros(3'599'996'400));
  const auto minute = reads(reader, {0xf0, 0x7f, 0x7f, 0x01, 0x01, 0x40, 1, 0, 2, 0xf7});
  ASSERT_TRUE(minute);
  EXPECT_EQ(minute->at, Micros(60'060'000)) << "the frame behind 00:00:59:29 is 00:01:00:02, number 1,800";
}

TEST(MidiTimeCode, WhateverComesIsATimeOfTheDayOrNothing) {
  std::mt19937 chance(5);
  MidiReader reader("Recorder");
  for (int i = 0; i < 200'000; ++i) {
    Bytes bytes(chance() % 4 == 0 ? 10 : 2);
    for (auto& byte : bytes) byte = static_cast<std::uint8_t>(chance());
    bytes[0] = bytes.size() == 2 ? 0xf1 : 0xf0;
    reader.read(bytes);
    if (const auto code = reader.takeTimeCode()) {
      EXPECT_GE(code->at.count(), 0);
      EXPECT_LE(code->at, std::chrono::hours(24) + std::chrono::seconds(1));
    }
  }
}

}  // namespace
}  // namespace chispa::link
