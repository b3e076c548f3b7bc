// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <fstream>
#include <sstream>
#include <string>
#include <vector>

#include "shell.h"
#include "temporary.h"
#include <gtest/gtest.h>

#include "core/board/files.h"

namespace chispa::test {

inline bool isInstalled(const std::string& program) {
  return shell("command -v " + program).status == 0;
}

/// Compilers and boards that are simulated: what needs one that is not here is skipped, visibly.
#define CHISPA_NEEDS(program) \
  if (!test::isInstalled(program)) GTEST_SKIP() << program << " is not installed; ./run test installs it"

/// A frame as a simulated board computed it.
struct BoardFrame {
  /// Cycles of an 8-bit board, instructions of a 32-bit one.
  double cost = 0;
  std::vector<std::uint8_t> bytes;
};
/// All that it printed.
struct BoardRun {
  std::vector<BoardFrame> frames;
  int ram = 0;
  /// High and low times of the one wire, in cycles.
  std::vector<std::pair<int, int>> wave;
  std::string text;
};

inline std::vector<std::uint8_t> bytesOfHex(const std::string& hex) {
  std::vector<std::uint8_t> bytes;
  for (std::size_t i = 0; i + 1 < hex.size(); i += 2)
    bytes.push_back(static_cast<std::uint8_t>(std::stoi(hex.substr(i, 2), nullptr, 16)));
  return bytes;
}

inline BoardRun readRun(const std::string& text) {
  BoardRun run;
  run.text = text.substr(0, 2000);
  std::istringstream lines(text);
  for (std::string line; std::getline(lines, line);) {
    std::istringstream words(line);
    std::string first, second;
    words >> first >> second;
    if (first == "ram") {
      run.ram = std::stoi(second);
    } else if (first.find(',') != std::string::npos) {
      std::istringstream pairs(line);
      for (std::string pair; pairs >> pair;)
        run.wave.emplace_back(std::stoi(pair), std::stoi(pair.substr(pair.find(',') + 1)));
    } else if (!second.empty() && first.find_first_not_of("0123456789") == std::string::npos) {
      run.frames.push_back({std::stod(first), bytesOfHex(second)});
    }
  }
  return run;
}

inline const std::string kBoardSources = std::string(CHISPA_SOURCE_DIR) + "/tests/board/";

/// A folder with the files of a board, and what is built from them.
class BoardFolder {
 public:
  BoardFolder(const board::BoardLight& light, const board::BoardKind& kind) {
    const auto written = board::writeBoardFiles(board::boardFiles(light, kind, "Fair"), folder_.path());
    EXPECT_TRUE(written);
  }
  std::string in(const std::string& command) const {
    return "cd " + folder_.path().string() + " && " + command;
  }

  /// Plays every `step`th of `frames` frames of each scene on an ATmega328P.
  BoardRun runAvr(int frames, int step) const {
    const Ran built = shell(in(
        "avr-gcc -std=c99 -Wall -Wextra -Werror -mmcu=atmega328p -Os -I. -DFRAMES=" + std::to_string(frames) +
        "UL -DSTEP=" + std::to_string(step) + " -o test.elf " + kBoardSources + "avrmain.c player.c"));
    EXPECT_EQ(built.status, 0) << built.out;
    return readRun(shell(in(CHISPA_BIN_DIR "/avrboard test.elf")).out);
  }
  /// The same on a Cortex-M3.
  BoardRun runArm(int frames, int step) const {
    const Ran built =
        shell(in("arm-none-eabi-gcc -std=c99 -Wall -Wextra -Werror -mcpu=cortex-m3 -mthumb -Os "
                 "-ffreestanding -nostdlib -I. "
                 "-DFRAMES=" +
                 std::to_string(frames) + "UL -DSTEP=" + std::to_string(step) + " -T " + kBoardSources +
                 "arm.ld -o test.elf " + kBoardSources + "armmain.c player.c -lgcc"));
    EXPECT_EQ(built.status, 0) << built.out;
    BoardRun run =
        readRun(shell(in("timeout 120 qemu-system-arm -M mps2-an385 -nographic -monitor none -serial none "
                         "-semihosting-config enable=on,target=native -icount shift=0 -kernel test.elf"))
                    .out);
    // With that count an instruction takes a nanosecond of the board's time; its timer counts every 40.
    constexpr double kInstructionsOfTick = 40;
    for (BoardFrame& frame : run.frames) frame.cost *= kInstructionsOfTick;
    return run;
  }

 private:
  TemporaryFolder folder_;
};

}  // namespace chispa::test
