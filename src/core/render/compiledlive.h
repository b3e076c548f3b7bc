// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <memory>
#include <span>
#include <vector>

#include "core/render/compiled.h"
#include "core/render/liveevent.h"

namespace chispa {

struct CompiledStep {
  Micros hold{0};
  Micros fade{0};
  /// In the order in which they are laid on the pixels.
  std::vector<CompiledStave> staves;

  /// The lane of `zone`, or null.
  const CompiledStave* staveOf(ZoneId zone) const;
};

struct CompiledLook {
  LookId id;
  float level = 1;
  Micros fadeIn{0};
  Micros fadeOut{0};
  FadeShape fadeShape = FadeShape::Even;
  PadMode mode = PadMode::Toggle;
  std::vector<CompiledStep> steps;
  bool firstFades = true;
  int rounds = 0;
  LookEnd end = LookEnd::Stay;
  LookId next;
  /// Of all steps; 0 if there is one only.
  Micros round{0};
};

/// What a look shows at an instant: step `to`, with what is left of the step `from` while one passes into the
/// other.
struct LookMoment {
  std::size_t from = 0;
  std::size_t to = 0;
  /// 0–1 of `to`; 1 where nothing passes.
  float share = 1;
  /// All rounds are over.
  bool isOver = false;
};

/// `elapsed_s` is the look's own time since it began. Real-time safe.
LookMoment momentOf(const CompiledLook& look, double elapsed_s) noexcept;

struct CompiledBinding {
  Binding binding;
  /// 0 for one whose source sends no events.
  SourceCode code = 0;
  /// Of channels: where they stand in the buffer of all universes.
  std::vector<std::uint32_t> bytes;
  /// Of a desk's channel: which of `deskUniverses`; −1 for other sources.
  int universe = -1;
};

/// A zone whose brightness can be told.
struct CompiledLevel {
  ZoneId zone;
  std::shared_ptr<const ZoneCells> cells;
};

/// A universe that is listened to.
struct DeskUniverse {
  Protocol protocol = Protocol::E131;
  int universe = 1;

  auto operator<=>(const DeskUniverse&) const = default;
};

struct CompiledDeskInput {
  DeskInput input;
  std::shared_ptr<const ZoneCells> cells;
  /// Where a cell of the desk begins: which of `deskUniverses`, and the channel, from 0.
  struct Place {
    std::uint16_t universe = 0;
    std::uint16_t channel = 0;
  };
  /// One for each cell of the desk.
  std::vector<Place> places;
  /// Where in a cell red, green, blue and white stand, in bytes; −1 where there is none. Of an intensity all
  /// colours are the one.
  std::array<int, 4> offsets{-1, -1, -1, -1};

  /// The desk's cell that cell `i` of the zone shows.
  std::size_t placeOf(std::size_t i) const {
    return i * places.size() / static_cast<std::size_t>(cells->count());
  }
};

/// All of a show that is played by hand, made ready: immutable.
struct CompiledLive {
  std::vector<CompiledLook> looks;
  std::vector<CompiledBinding> bindings;
  std::vector<CompiledLevel> levels;
  std::vector<DeskUniverse> deskUniverses;
  std::vector<CompiledDeskInput> deskInputs;

  const CompiledLook* lookOf(LookId id) const noexcept;
};

/// Where the compiler gets what scores and looks share.
struct LiveSources {
  std::function<std::shared_ptr<const ZoneCells>(const Zone&)> cells;
  std::function<std::shared_ptr<const PaletteTable>(PaletteId)> palette;
};

/// Compiles looks, bindings and what listens to desks. `compiled` has its patch already.
std::shared_ptr<const CompiledLive> compileLive(const Show& show, const CompiledShow& compiled,
                                                const MediaLibrary& media, const LiveSources& sources);

/// Where the desk's cells of `input` stand, in universes and channels, cell by cell: each stays whole.
struct DeskAddress {
  int universe = 1;
  /// From 1.
  int channel = 1;
};
std::vector<DeskAddress> deskAddresses(const DeskInput& input, int zoneCells);

/// The first of a zone's cells that cell `place` of `places` lights, from 0: where
/// CompiledDeskInput::placeOf() begins to be `place`.
constexpr std::size_t firstCellOf(std::size_t place, std::size_t places, std::size_t zoneCells) {
  return (place * zoneCells + places - 1) / places;
}

}  // namespace chispa
