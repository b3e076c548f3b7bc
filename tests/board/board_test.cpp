// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>

#include "../core/boardshow.h"
#include "carousel/carousel.h"
#include "toolchain.h"
#include <gtest/gtest.h>

#include "core/board/kinds.h"
#include "core/board/player.h"
#include "core/edit/planedits.h"

// Light of boards on real instruction sets: compiled by their compilers, run by simulators of them.
namespace chispa {
namespace {

using board::BoardLight;
using board::BoardPlan;
using board::BoardPlayer;

const board::BoardKind& smallBoard() {
  return board::boardKinds()[1];
}

Result<BoardLight> lightOf(const Show& show, const BoardPlan& plan) {
  return board::writeBoard(show, *compile(show), plan, {});
}

/// Compares what the board computed with what Chispa says that it will, frame by frame.
void expectSame(const test::BoardRun& run, const BoardLight& light, int frames, int step) {
  BoardPlayer player(light.data);
  std::size_t at = 0;
  for (std::size_t scene = 0; scene < light.scenes.size(); ++scene) {
    player.begin(static_cast<int>(scene));
    for (int frame = 0; frame < frames; frame += step) {
      const auto told = player.frame(static_cast<std::uint32_t>(frame));
      if (told.empty()) break;
      ASSERT_LT(at, run.frames.size()) << run.text;
      ASSERT_EQ(run.frames[at].bytes, std::vector<std::uint8_t>(told.begin(), told.end()))
          << "scene " << scene << ", frame " << frame;
      ++at;
    }
  }
  EXPECT_EQ(at, run.frames.size());
}

double costliest(const test::BoardRun& run) {
  double most = 0;
  for (const auto& frame : run.frames) most = std::max(most, frame.cost);
  return most;
}

/// Frames a second that 16 MHz give, sending included: 1.25 µs a bit and the pause.
double ratePossible(const test::BoardRun& run, const BoardLight& light) {
  return 1 / (costliest(run) / 16e6 + light.sentBytes * 10e-6 + 300e-6);
}

/// The demo's waltz for the lanterns, made to fit into 32 KB and 2 KB.
BoardPlan waltzForLanterns(const Show& show) {
  board::BoardOptions options;
  options.framesPerSecond = 20;
  options.maxColours = 64;
  return {{board::BoardRun(findNamed(show.zones, "Lanterns")->id)}, {{show.scores.front()->id, 0}}, options};
}

TEST(AvrBoard, PlaysTheWaltzForTheLanterns) {
  CHISPA_NEEDS("avr-gcc");
  const Show show = demo::carousel();
  const auto light = lightOf(show, waltzForLanterns(show));
  ASSERT_TRUE(light) << light.failure().text();
  EXPECT_TRUE(board::lacksOf(*light, smallBoard()).empty()) << board::lacksOf(*light, smallBoard()).front();
  const test::BoardFolder folder(*light, smallBoard());
  const auto run = folder.runAvr(1600, 1);
  expectSame(run, *light, 1600, 1);
  EXPECT_GE(ratePossible(run, *light), 20);
  EXPECT_LE(run.ram, static_cast<int>(board::useOf(*light, smallBoard()).ram));
}

TEST(AvrBoard, PlaysTwoLooksForTheBooth) {
  CHISPA_NEEDS("avr-gcc");
  const Show show = demo::carousel();
  board::BoardOptions options;
  options.framesPerSecond = 10;
  options.pixelsPerValue = 2;
  const BoardPlan plan{
      {board::BoardRun(findNamed(show.fixtures, "Booth sign")->id)},
      {{findNamed(show.looks, "Welcome")->id, 15}, {findNamed(show.looks, "Work light")->id, 5}},
      options};
  const auto light = lightOf(show, plan);
  ASSERT_TRUE(light) << light.failure().text();
  EXPECT_TRUE(board::lacksOf(*light, smallBoard()).empty()) << board::lacksOf(*light, smallBoard()).front();
  const test::BoardFolder folder(*light, smallBoard());
  const auto run = folder.runAvr(400, 1);
  expectSame(run, *light, 400, 1);
  EXPECT_GE(ratePossible(run, *light), 10);
  EXPECT_LE(run.ram, 2048);
}

/// Programs whose cycles are counted.
BoardLight programs(int pixels, const std::vector<std::string>& effects, int rate) {
  test::BoardShow made(LineShape{pixels, 0.02});
  BoardPlan plan{{board::BoardRun(made.fixture)}, {}, {}};
  plan.options.framesPerSecond = rate;
  for (const std::string& effect : effects) {
    // Comets that come round in every bar would be smaller as frames.
    const ParamValues values = effect == "comets" ? ParamValues{{"passes", 0.35}} : ParamValues{};
    plan.scenes.push_back({made.addLookOf({made.clip(effect, values)}), 0});
  }
  const auto light = made.write(plan);
  EXPECT_TRUE(light) << light.failure().text();
  for (const auto& scene : light->scenes)
    EXPECT_TRUE(scene.isProgram) << scene.parts.front().effects << ": " << scene.parts.front().reason;
  return *light;
}

TEST(AvrBoard, ComputesSixtyPixelsFortyTimesASecond) {
  CHISPA_NEEDS("avr-gcc");
  const BoardLight light =
      programs(60, {"ribbon", "hue-wheel", "swell", "comets", "glints", "frost", "chase"}, 40);
  const test::BoardFolder folder(light, smallBoard());
  const auto run = folder.runAvr(400, 5);
  expectSame(run, light, 400, 5);
  EXPECT_GE(ratePossible(run, light), 40) << costliest(run) << " cycles";
  RecordProperty("cycles", std::to_string(costliest(run)));
}

TEST(AvrBoard, ComputesThreeHundredPixelsTwentyTimesASecond) {
  CHISPA_NEEDS("avr-gcc");
  const BoardLight light = programs(300, {"ribbon", "hue-wheel", "swell", "comets"}, 20);
  const test::BoardFolder folder(light, smallBoard());
  const auto run = folder.runAvr(200, 5);
  expectSame(run, light, 200, 5);
  EXPECT_GE(ratePossible(run, light), 20) << costliest(run) << " cycles";
  EXPECT_LE(run.ram, 2048);
}

TEST(AvrBoard, ComputesEveryEffectAsChispaDoes) {
  CHISPA_NEEDS("avr-gcc");
  const std::vector<std::string> all = {"ribbon",    "hue-wheel", "swell",    "ripples", "slats",
                                        "weave",     "glints",    "frost",    "hearth",  "comets",
                                        "drizzle",   "snowfall",  "chase",    "unveil",  "pour",
                                        "fireflies", "clouds",    "marbling", "pool",    "formula"};
  // Not all at once: together they are larger than the board.
  for (std::size_t first = 0; first < all.size(); first += 5) {
    const BoardLight light = programs(48,
                                      {all.begin() + static_cast<std::ptrdiff_t>(first),
                                       all.begin() + static_cast<std::ptrdiff_t>(first) + 5},
                                      10);
    const test::BoardFolder folder(light, smallBoard());
    expectSame(folder.runAvr(300, 25), light, 300, 25);
  }
}

TEST(AvrBoard, HasRoomForWhatIsWritten) {
  CHISPA_NEEDS("avr-gcc");
  const BoardLight light = programs(60, {"ribbon", "glints"}, 40);
  const test::BoardFolder folder(light, smallBoard());
  const auto built = test::shell(folder.in(
      "avr-gcc -std=c99 -Wall -Wextra -Werror -mmcu=atmega328p -Os -o light.elf example-8bit.c player.c"
      " && avr-size -A light.elf"));
  ASSERT_EQ(built.status, 0) << built.out;
  std::istringstream lines(built.out);
  std::size_t flash = 0;
  for (std::string name; lines >> name;)
    if (name == ".text" || name == ".data") {
      std::size_t bytes = 0;
      lines >> bytes;
      flash += bytes;
    }
  const std::size_t told = board::useOf(light, smallBoard()).flash();
  EXPECT_LE(flash, told);
  EXPECT_GE(flash + 1500, told) << "what is told is no guess";
}

TEST(AvrBoard, SendsOneWireWithinTheChipsTimes) {
  CHISPA_NEEDS("avr-gcc");
  const BoardLight light = programs(30, {"ribbon"}, 40);
  const test::BoardFolder folder(light, smallBoard());
  const auto built =
      test::shell(folder.in("avr-gcc -std=c99 -mmcu=atmega328p -Os -o light.elf example-8bit.c player.c"));
  ASSERT_EQ(built.status, 0) << built.out;
  constexpr int kCyclesOfSecond = 16'000'000;
  const auto run = test::readRun(test::shell(folder.in(std::string(CHISPA_BIN_DIR "/avrboard light.elf ") +
                                                       std::to_string(kCyclesOfSecond)))
                                     .out);
  const double cycle_ns = 62.5;
  // As data sheets of one-wire chips have it: 0 is 0.4 µs high, 1 is 0.8, a bit 1.25, each ± 0.15 µs; a pause
  // of 280 µs or more ends a frame.
  std::vector<std::vector<std::uint8_t>> frames(1);
  int bits = 0;
  std::uint8_t byte = 0;
  for (const auto& [high, low] : run.wave) {
    const double high_ns = high * cycle_ns;
    const bool isOne = high_ns > 600;
    EXPECT_NEAR(high_ns, isOne ? 800 : 400, 150);
    byte = static_cast<std::uint8_t>(byte << 1 | (isOne ? 1 : 0));
    if (++bits % 8 == 0) frames.back().push_back(byte);
    const double low_ns = low * cycle_ns;
    if (low_ns > 5000) {
      EXPECT_GE(low_ns, 280'000);
      EXPECT_EQ(frames.back().size(), static_cast<std::size_t>(light.sentBytes));
      frames.emplace_back();
    } else {
      EXPECT_NEAR(low_ns, isOne ? 450 : 850, 150);
    }
  }
  frames.pop_back();
  // One second at 40 frames a second; the first of them at once.
  EXPECT_NEAR(static_cast<double>(frames.size()), 40, 2);
  BoardPlayer player(light.data);
  std::uint32_t next = 0;
  for (const auto& frame : frames) {
    bool isFound = false;
    for (int ahead = 0; ahead < 3 && !isFound; ++ahead) {
      const auto told = player.frame(next++);
      isFound = std::equal(told.begin(), told.end(), frame.begin(), frame.end());
    }
    EXPECT_TRUE(isFound) << "before frame " << next;
  }
}

TEST(ArmBoard, ComputesAThousandPixelsFortyTimesASecond) {
  CHISPA_NEEDS("arm-none-eabi-gcc");
  CHISPA_NEEDS("qemu-system-arm");
  const BoardLight light = programs(1000, {"ribbon", "swell", "comets", "glints"}, 40);
  const test::BoardFolder folder(light, board::boardKinds()[2]);
  const auto run = folder.runArm(200, 10);
  expectSame(run, light, 200, 10);
  // Two cycles an instruction, flash waits included, at the 72 MHz that such boards have at most.
  constexpr double kCyclesOfInstruction = 2;
  EXPECT_LE(costliest(run) * kCyclesOfInstruction * 40, 72e6) << costliest(run) << " instructions";
  RecordProperty("instructions", std::to_string(costliest(run)));
}

TEST(ArmBoard, PlaysTheWaltzForTheLanterns) {
  CHISPA_NEEDS("arm-none-eabi-gcc");
  CHISPA_NEEDS("qemu-system-arm");
  const Show show = demo::carousel();
  BoardPlan plan = waltzForLanterns(show);
  plan.options = {};
  const auto light = lightOf(show, plan);
  ASSERT_TRUE(light);
  const test::BoardFolder folder(*light, board::boardKinds()[2]);
  expectSame(folder.runArm(3200, 3), *light, 3200, 3);
}

TEST(ArmBoard, ItsExampleCompiles) {
  CHISPA_NEEDS("arm-none-eabi-gcc");
  const BoardLight light = programs(60, {"ribbon"}, 40);
  const test::BoardFolder folder(light, board::boardKinds()[2]);
  const auto built =
      test::shell(folder.in("arm-none-eabi-gcc -std=c99 -Wall -Wextra -Werror -mcpu=cortex-m3 "
                            "-mthumb -Os -ffreestanding -c example-32bit.c player.c"));
  EXPECT_EQ(built.status, 0) << built.out;
}

TEST(Player, IsPortableC99) {
  const BoardLight light = programs(60, {"ribbon"}, 40);
  const test::BoardFolder folder(light, board::boardKinds()[2]);
  const auto built = test::shell(
      folder.in("cc -std=c99 -Wall -Wextra -Wpedantic -Wconversion -Wshadow -Werror -O2 -c player.c"));
  EXPECT_EQ(built.status, 0) << built.out;
}

}  // namespace
}  // namespace chispa
