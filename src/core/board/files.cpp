// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/files.h"

#include <cerrno>
#include <cmath>
#include <cstdio>
#include <cstring>
#include <fstream>
#include <iomanip>
#include <sstream>

#include "core/board/kit.h"
#include "core/files/pendingfile.h"

namespace chispa::board {
namespace {

std::string secondsText(double s) {
  char text[32];
  std::snprintf(text, sizeof text, "%.1f s", s);
  return text;
}

/// Names from a show end no comment and start no macro.
std::string harmless(const std::string& name) {
  std::string text;
  for (const char c : name) text += c == '*' || c == '\\' || static_cast<unsigned char>(c) < ' ' ? ' ' : c;
  return text;
}

std::string lightHeader(const BoardLight& light, const std::string& show) {
  std::ostringstream out;
  out << "/* Light of \"" << harmless(show) << "\", written by Chispa. Scenes:\n";
  for (std::size_t i = 0; i < light.scenes.size(); ++i)
    out << " *   " << i << "  " << harmless(light.scenes[i].name) << "\n";
  out << " */\n#ifndef LIGHT_H\n#define LIGHT_H\n\n#include <stdint.h>\n\n"
      << "#define LIGHT_PIXELS " << light.pixels << "\n"
      << "#define LIGHT_SCENES " << light.scenes.size() << "\n"
      << "/* Room that the player needs. */\n"
      << "#define LIGHT_BYTES " << light.frameBytes << "\n"
      << "#define LIGHT_REGISTERS " << light.registers << "\n"
      << "#define LIGHT_PARTS " << light.maxParts << "\n\n"
      << "/* How data that stay in flash are marked; empty where that needs no mark. */\n"
      << "#ifndef LIGHT_IN_FLASH\n#define LIGHT_IN_FLASH\n#endif\n\n"
      << "/* The data stand where LIGHT_WITH_DATA is defined: in one file of yours. */\n"
      << "#ifdef LIGHT_WITH_DATA\nstatic const uint8_t light_data[" << light.data.size()
      << "] LIGHT_IN_FLASH = {";
  constexpr std::size_t kPerLine = 24;
  for (std::size_t i = 0; i < light.data.size(); ++i)
    out << (i % kPerLine == 0 ? "\n  " : "") << static_cast<int>(light.data[i]) << ',';
  out << "\n};\n#endif\n\n#endif\n";
  return out.str();
}

void writeWiring(const BoardLight& light, const BoardKind& kind, std::ostringstream& out) {
  out << "## Wiring\n\n"
      << (kind.bits == 8 ? "- Strip: data in to pin PB0, through 330 Ω. Button: from PD2 to ground.\n"
                         : "- Strip: data in to pin PA7, through 330 Ω. Button: from PA0 to ground.\n")
      << "- Ground of the board, the strip and the supply are joined.\n"
      << "- The strip is fed by its own supply of " << light.volts << " V, not through the board: up to "
      << std::fixed << std::setprecision(2) << light.most_a << " A in these scenes.\n";
  if (kind.bits == 32)
    out << "- A board of 3.3 V needs a level shifter to 5 V before the strip if the strip is fed with 5 V.\n";
  out << "\n";
}

std::string readme(const BoardLight& light, const BoardKind& kind, const std::string& show) {
  std::ostringstream out;
  const BoardUse use = useOf(light, kind);
  const std::string example = kind.bits == 8 ? "example-8bit.c" : "example-32bit.c";
  out << "# Light of \"" << harmless(show) << "\" for a board\n\n"
      << "Written by Chispa for: " << kind.name << ". The strip has " << light.pixels << " pixels.\n\n"
      << "| File | What it is |\n|---|---|\n"
      << "| `light.h` | the scenes, as data |\n"
      << "| `player.h`, `player.c` | the player: portable C99, without a heap, floating point or a library "
         "|\n"
      << "| `" << example << "` | a whole program for a common board |\n\n";
  writeWiring(light, kind, out);
  out << "## Build\n\n```\n"
      << (kind.bits == 8
              ? "avr-gcc -std=c99 -mmcu=atmega328p -Os -o light.elf example-8bit.c player.c\n"
                "avrdude -p atmega328p -c YOUR_PROGRAMMER -U flash:w:light.elf:e\n"
              : "arm-none-eabi-gcc -std=c99 -mcpu=cortex-m3 -mthumb -Os -c example-32bit.c player.c\n")
      << "```\n\n"
      << "On another board two functions are yours: `light_send(bytes, count)` sends these bytes to the "
         "strip,\n"
         "`light_millis()` tells how many milliseconds have passed. Then `light_begin(&player, light_data)` "
         "once,\n"
         "and `light_poll(&player)` again and again; `light_next_scene(&player)` where a button is "
         "pressed.\n\n"
      << "## Scenes\n\n| | Scene | Lasts | Kept as | Bytes | ΔE₀₀ |\n|---|---|---|---|---|---|\n";
  for (std::size_t i = 0; i < light.scenes.size(); ++i) {
    const BoardSceneReport& scene = light.scenes[i];
    out << "| " << i << " | " << harmless(scene.name) << " | "
        << (scene.seconds > 0 ? secondsText(scene.seconds) : "until the next") << " | "
        << (scene.isProgram ? "program" : "frames") << " | " << scene.bytes << " | " << std::fixed
        << std::setprecision(1) << scene.loss << " |\n";
  }
  out << "\nΔE₀₀ is how far the light is from the full light, on the mean: below 1 it is hardly seen.\n\n"
      << "## Numbers\n\n"
      << "- Flash: " << use.flash() << " of " << kind.flash << " bytes (program code " << use.player
      << ", light " << light.data.size() << ").\n"
      << "- RAM: " << use.ram << " of " << kind.ram << " bytes, stack included.\n"
      << "- " << light.options.framesPerSecond << " frames a second; the board can about "
      << static_cast<int>(use.fastest) << ".\n";
  for (const std::string& lack : lacksOf(light, kind)) out << "- **It does not fit.** " << lack << "\n";
  return out.str();
}

Failure cannot(const char* what, const std::filesystem::path& where) {
  return {what, where.string() + ": " + std::strerror(errno), "Choose another folder."};
}

}  // namespace

std::vector<BoardFile> boardFiles(const BoardLight& light, const BoardKind& kind, const std::string& show) {
  return {{"light.h", lightHeader(light, show)},
          {"player.h", std::string(kPlayerHeader)},
          {"player.c", std::string(kPlayerSource)},
          kind.bits == 8 ? BoardFile{"example-8bit.c", std::string(kExample8)}
                         : BoardFile{"example-32bit.c", std::string(kExample32)},
          {"README.md", readme(light, kind, show)}};
}

Outcome writeBoardFiles(const std::vector<BoardFile>& files, const std::filesystem::path& folder) {
  std::error_code error;
  std::filesystem::create_directories(folder, error);
  if (error) {
    errno = error.value();
    return cannot("The folder cannot be made.", folder);
  }
  std::vector<PendingFile> pending;
  for (const BoardFile& file : files) {
    auto begun = PendingFile::begin(folder / file.name);
    if (!begun) return begun.failure();
    std::ofstream out(begun->path(), std::ios::binary);
    out << file.text;
    out.close();
    if (!out) return cannot("A file of the board cannot be written.", folder / file.name);
    pending.push_back(*std::move(begun));
  }
  for (PendingFile& file : pending)
    if (auto done = file.commit(); !done) return done;
  return Done{};
}

}  // namespace chispa::board
