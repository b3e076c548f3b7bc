// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/midi.h"

#include <cstdlib>
#include <mutex>
#include <random>

#include "eventually.h"
#include <gtest/gtest.h>

#include "link/osc.h"

namespace chispa::link {
namespace {

std::optional<ControlHeard> heard(MidiReader& reader, std::vector<std::uint8_t> bytes) {
  return reader.read(bytes);
}

TEST(MidiReader, ReadsNotesControlsBendsProgramsAndPressure) {
  MidiReader reader("Pads");
  auto note = heard(reader, {0x99, 36, 127});
  ASSERT_TRUE(note);
  EXPECT_EQ(note->source,
            (BindingSource{.kind = SourceKind::Note, .device = "Pads", .channel = 10, .number = 36}));
  EXPECT_FLOAT_EQ(note->value, 1);
  EXPECT_FLOAT_EQ(heard(reader, {0x89, 36, 64})->value, 0) << "note off, whatever its velocity";
  EXPECT_FLOAT_EQ(heard(reader, {0x99, 36, 0})->value, 0) << "velocity 0 is note off";
  EXPECT_FLOAT_EQ(heard(reader, {0xb0, 70, 127})->value, 1);
  EXPECT_EQ(heard(reader, {0xc1, 5})->source.kind, SourceKind::Program);
  EXPECT_FLOAT_EQ(heard(reader, {0xd0, 127})->value, 1);
  EXPECT_NEAR(heard(reader, {0xe0, 0, 64})->value, 0.5, 1e-3);
  EXPECT_FLOAT_EQ(heard(reader, {0xe0, 127, 127})->value, 1);
}

/// The fine half right behind its coarse one makes 14 bits; by itself it is a control like any other.
TEST(MidiReader, ReadsFourteenBits) {
  MidiReader reader("Faders");
  EXPECT_FLOAT_EQ(heard(reader, {0xb0, 7, 64})->value, 64 / 127.f);
  const auto fine = heard(reader, {0xb0, 39, 1});
  EXPECT_EQ(fine->source.number, 7);
  EXPECT_FLOAT_EQ(fine->value, (64 * 128 + 1) / 16383.f);
  EXPECT_EQ(heard(reader, {0xb0, 39, 100})->source.number, 39);
  heard(reader, {0xb0, 7, 64});
  EXPECT_EQ(heard(reader, {0xb1, 39, 1})->source.number, 39) << "of another channel";
}

TEST(MidiReader, DamagedMessagesSayNothing) {
  MidiReader reader("Pads");
  for (const std::vector<std::uint8_t>& bytes : std::vector<std::vector<std::uint8_t>>{{},
                                                                                       {0x90},
                                                                                       {0x90, 36},
                                                                                       {36, 100, 2},
                                                                                       {0x90, 0x90, 36},
                                                                                       {0x90, 36, 0xff},
                                                                                       {0xf0, 1, 2},
                                                                                       {0xb0, 200, 1}})
    EXPECT_FALSE(heard(reader, bytes));
  std::mt19937 chance(3);
  for (int i = 0; i < 100'000; ++i) {
    std::vector<std::uint8_t> bytes(chance() % 5);
    for (auto& byte : bytes) byte = static_cast<std::uint8_t>(chance());
    if (const auto one = heard(reader, bytes)) {
      EXPECT_GE(one->value, 0);
      EXPECT_LE(one->value, 1);
    }
  }
}

/// The clock's 24 ticks are a beat, counted from its start.
TEST(MidiReader, TheClockTellsBeats) {
  MidiReader reader("Clock");
  heard(reader, {0xfa});
  int beats = 0;
  for (int tick = 0; tick < 96; ++tick) {
    heard(reader, {0xf8});
    beats += reader.takeBeat();
  }
  EXPECT_EQ(beats, 4);
}

TEST(Osc, ReadsMessagesOfEveryNumber) {
  // "/a" with a float 0.5, written by hand (OSC 1.0).
  const std::vector<std::uint8_t> half{'/', 'a', 0, 0, ',', 'f', 0, 0, 0x3f, 0, 0, 0};
  auto all = readOsc(half);
  ASSERT_EQ(all.size(), 1u);
  EXPECT_EQ(all[0].address, "/a");
  EXPECT_FLOAT_EQ(all[0].value, 0.5);
  const std::vector<std::uint8_t> whole{'/', 'b', 0, 0, ',', 'i', 0, 0, 0, 0, 0, 1};
  EXPECT_FLOAT_EQ(readOsc(whole)[0].value, 1);
  const std::vector<std::uint8_t> yes{'/', 'c', 0, 0, ',', 'F', 0, 0};
  EXPECT_FLOAT_EQ(readOsc(yes)[0].value, 0);
  const std::vector<std::uint8_t> bare{'/', 'd', 0, 0, ',', 0, 0, 0};
  EXPECT_FLOAT_EQ(readOsc(bare)[0].value, 1);
}

/// A bundle is opened, and one of next year counts as now.
TEST(Osc, OpensBundles) {
  std::vector<std::uint8_t> bundle{'#', 'b', 'u', 'n', 'd', 'l', 'e', 0, 0xff, 0xff, 0xff, 0xff, 0, 0, 0, 0};
  const std::vector<std::uint8_t> half{'/', 'a', 0, 0, ',', 'f', 0, 0, 0x3f, 0, 0, 0};
  for (int i = 0; i < 2; ++i) {
    bundle.insert(bundle.end(), {0, 0, 0, static_cast<std::uint8_t>(half.size())});
    bundle.insert(bundle.end(), half.begin(), half.end());
  }
  EXPECT_EQ(readOsc(bundle).size(), 2u);
  bundle[19] = 200;
  EXPECT_TRUE(readOsc(bundle).empty()) << "a size that lies";
  EXPECT_TRUE(readOsc({}).empty()) << "an empty datagram";
}

/// A client that others wrote: oscsend of liblo-tools.
TEST(Osc, TheServerHearsAnotherClient) {
  std::mutex mutex;
  std::vector<OscHeard> all;
  auto server = OscServer::open("127.0.0.1", 0, [&](const OscHeard& one) {
    const std::scoped_lock lock(mutex);
    all.push_back(one);
  });
  ASSERT_TRUE(server) << server.failure().text();
  const std::string command = "oscsend 127.0.0.1 " + std::to_string((*server)->port()) + " /fader/1 f 0.5";
  if (std::system(command.c_str()) != 0) GTEST_SKIP() << "liblo-tools is not installed";
  ASSERT_TRUE(test::eventually([&] {
    const std::scoped_lock lock(mutex);
    return !all.empty();
  }));
  EXPECT_EQ(all[0].address, "/fader/1");
  EXPECT_FLOAT_EQ(all[0].value, 0.5);
}

TEST(Midi, TheLampsOfADeviceAreFoundByItsName) {
  EXPECT_EQ(outputOf("Pads 9", {"Pads 9"}, {"Keys", "Pads 9"}), "Pads 9");
  EXPECT_EQ(outputOf("bridge:Pads (capture): 1", {"bridge:Pads (capture): 1", "bridge:Keys (capture): 1"},
                     {"bridge:Keys (playback): 1", "bridge:Pads (playback): 1"}),
            "bridge:Pads (playback): 1");
  EXPECT_EQ(outputOf("Pads:out", {"Pads:out"}, {"Keys:in", "Pads-01:lamps"}), "Pads-01:lamps");
  EXPECT_EQ(outputOf("Pads:out", {"Pads:out"}, {"Pads:a", "Pads:b"}), "") << "which of the two is not known";
  EXPECT_EQ(outputOf("Pads:out", {"Pads:out"}, {"Keys:in"}), "");
}

TEST(Osc, RandomBytesDoNoHarm) {
  std::mt19937 chance(5);
  std::vector<std::uint8_t> message{'/',  'a', 0, 0, ',', 'f', 'i', 's', 0,   0, 0, 0,
                                    0x3f, 0,   0, 0, 0,   0,   0,   9,   'x', 0, 0, 0};
  for (int i = 0; i < 50'000; ++i) {
    auto bytes = message;
    for (int n = 0; n < 3; ++n) bytes[chance() % bytes.size()] = static_cast<std::uint8_t>(chance());
    bytes.resize(chance() % (bytes.size() + 1));
    readOsc(bytes);
  }
}

}  // namespace
}  // namespace chispa::link
