// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/kinds.h"

#include <algorithm>

#include "core/board/player.h"

namespace chispa::board {
namespace {

/// Bytes of code: the player and the example around it, compiled with -Os (tests/board measures them).
constexpr std::size_t kCode8 = 10'800, kCode32 = 5'200;

double lossOf(const BoardLight& light) {
  double most = 0;
  for (const BoardSceneReport& scene : light.scenes) most = std::max(most, scene.loss);
  return most;
}

std::string counted(std::size_t bytes) {
  return std::to_string(bytes) + " bytes";
}

}  // namespace

const std::vector<BoardKind>& boardKinds() {
  static const std::vector<BoardKind> all = {
      {"8 bit, 16 MHz, 16 KB flash, 1 KB RAM", 8, 16, 16 * 1024, 1024},
      {"8 bit, 16 MHz, 32 KB flash, 2 KB RAM", 8, 16, 32 * 1024, 2 * 1024},
      {"32 bit, 36 MHz, 64 KB flash, 20 KB RAM", 32, 36, 64 * 1024, 20 * 1024},
      {"32 bit, 48 MHz, 256 KB flash, 32 KB RAM", 32, 48, 256 * 1024, 32 * 1024},
      {"32 bit, 133 MHz, 2 MB flash, 264 KB RAM", 32, 133, 2048 * 1024, 264 * 1024},
      {"32 bit, 160 MHz, 4 MB flash, 320 KB RAM", 32, 160, 4096 * 1024, 320 * 1024}};
  return all;
}

BoardKind boardOf(std::size_t flash, std::size_t ram) {
  const auto& kinds = boardKinds();
  const auto found = std::find_if(kinds.begin(), kinds.end(), [&](const BoardKind& kind) {
    return kind.flash >= flash && kind.ram >= ram;
  });
  BoardKind own = found == kinds.end() ? kinds.back() : *found;
  if (own.flash == flash && own.ram == ram) return own;
  own.flash = flash;
  own.ram = ram;
  own.name = std::to_string(own.bits) + " bit, " + counted(flash) + " of flash, " + counted(ram) + " of RAM";
  return own;
}

BoardUse useOf(const BoardLight& light, const BoardKind& kind) {
  BoardUse use;
  const bool isSmall = kind.bits == 8;
  use.player = isSmall ? kCode8 : kCode32;
  for (const BoardSceneReport& scene : light.scenes)
    for (const BoardPart& part : scene.parts) (part.isProgram ? use.programs : use.frames) += part.bytes;
  use.rest = light.data.size() - std::min(light.data.size(), use.programs + use.frames);
  const auto parts = static_cast<std::size_t>(light.maxParts);
  use.ram = static_cast<std::size_t>(light.frameBytes) + 4 * static_cast<std::size_t>(light.registers) +
            parts * static_cast<std::size_t>(isSmall ? BoardPlayer::kPartRam8 : BoardPlayer::kPartRam32) +
            static_cast<std::size_t>(isSmall ? BoardPlayer::kFixedRam8 : BoardPlayer::kFixedRam32);
  // One wire takes 1.25 µs a bit; frames are copied.
  const double cyclesOfStep = isSmall ? 120 : 26;
  const double cyclesOfByte = isSmall ? 60 : 12;
  const double cycles =
      cyclesOfStep * static_cast<double>(light.stepsOfFrame) + cyclesOfByte * light.sentBytes;
  const double send_s = light.sentBytes * 8 * 1.25e-6 + 300e-6;
  use.fastest = 1 / (cycles / (kind.clock_mhz * 1e6) + send_s);
  return use;
}

std::vector<std::string> lacksOf(const BoardLight& light, const BoardKind& kind) {
  std::vector<std::string> lacks;
  const BoardUse use = useOf(light, kind);
  if (use.flash() > kind.flash)
    lacks.push_back("Flash: it takes " + counted(use.flash()) + " of " + std::to_string(kind.flash) + ".");
  if (use.ram > kind.ram)
    lacks.push_back("RAM: it takes " + counted(use.ram) + " of " + std::to_string(kind.ram) + ".");
  if (kind.bits == 8 && light.data.size() > 32767)
    lacks.push_back("Data: " + counted(light.data.size()) + "; an 8-bit compiler takes 32767 in one piece.");
  if (use.fastest < light.options.framesPerSecond)
    lacks.push_back("Speed: about " + std::to_string(static_cast<int>(use.fastest)) + " frames a second of " +
                    std::to_string(light.options.framesPerSecond) + ".");
  return lacks;
}

std::vector<BoardSaving> savingsOf(const Show& show, const CompiledShow& compiled, const BoardPlan& plan,
                                   const BoardLight& light, const Progress& progress) {
  struct Change {
    std::string what;
    BoardOptions options;
  };
  std::vector<Change> changes;
  const auto change = [&](std::string what, auto set) {
    BoardOptions options = plan.options;
    set(options);
    changes.push_back({std::move(what), options});
  };
  const int rate = plan.options.framesPerSecond;
  for (const int fewer : {rate / 2, rate / 4})
    if (fewer >= 5)
      change(std::to_string(fewer) + " frames a second in place of " + std::to_string(rate),
             [fewer](BoardOptions& o) { o.framesPerSecond = fewer; });
  for (const int colours : {64, 16})
    if (plan.options.maxColours == 0 || plan.options.maxColours > colours)
      change(std::to_string(colours) + " colours a part",
             [colours](BoardOptions& o) { o.maxColours = colours; });
  for (const int pixels : {2, 4})
    if (plan.options.pixelsPerValue < pixels)
      change((pixels == 2 ? "two" : "four") + std::string(" pixels share a value"),
             [pixels](BoardOptions& o) { o.pixelsPerValue = pixels; });
  const double looped_s = plan.options.lookSeconds / 2;
  if (looped_s >= 2)
    change("looks come again after " + std::to_string(static_cast<int>(looped_s)) + " s",
           [looped_s](BoardOptions& o) { o.lookSeconds = looped_s; });
  std::vector<BoardSaving> savings;
  for (std::size_t i = 0; i < changes.size(); ++i) {
    BoardPlan tried = plan;
    tried.options = changes[i].options;
    const auto own = [&](double share) {
      return !progress || progress((static_cast<double>(i) + share) / static_cast<double>(changes.size()));
    };
    const auto made = writeBoard(show, compiled, tried, own);
    if (!made) return savings;
    if (made->data.size() >= light.data.size()) continue;
    savings.push_back({changes[i].what, tried.options, light.data.size() - made->data.size(), lossOf(*made)});
  }
  return savings;
}

}  // namespace chispa::board
