// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <vector>

#include "core/effect/effect.h"
#include "core/render/frame.h"
#include "core/wire/pack.h"
#include "core/wire/patch.h"
#include "core/zone/cells.h"

namespace chispa {

/// A clip with everything looked up.
struct CompiledClip {
  ClipId id;
  const Effect* effect = nullptr;
  ParamPack params;
  std::shared_ptr<const PaletteTable> palette;
  Micros start{0};
  Micros length{0};
  Micros fadeIn{0};
  Micros fadeOut{0};
  int layer = 0;
  Blend blend = Blend::Normal;
  float strength = 1;
  std::uint32_t seed = 1;
};

/// One zone's lane: its cells and its clips, lowest layer first.
struct CompiledStave {
  ZoneId zone;
  std::shared_ptr<const ZoneCells> cells;
  std::vector<CompiledClip> clips;
};

struct CompiledScore {
  ScoreId id;
  Micros length{0};
  /// The lowest stave first, as they are laid on the pixels.
  std::vector<CompiledStave> staves;
  MusicGrid grid;
  std::shared_ptr<const MusicFeatures> features;
};

/// A show made ready to play: immutable, shared between threads without locks.
struct CompiledShow {
  PixelMap map;
  Patch patch;
  std::vector<CompiledScore> scores;
  std::vector<PowerChain> power;
  std::unique_ptr<const PowerBudget> budget;
  std::unique_ptr<const Packer> packer;
  std::size_t mostCells = 0;

  /// The score with `id`, or null.
  const CompiledScore* scoreOf(ScoreId id) const;
};

/// Compiles all of `show`; `music` holds the features of its audio files.
std::shared_ptr<const CompiledShow> compile(const Show& show, const MusicLibrary& music = {});

/// Compiles one clip on its own, for the pictures that are drawn of it too.
CompiledClip compileClip(const Clip& clip, std::shared_ptr<const PaletteTable> palette);

/// The table of the palette `id`; black if the show has none such.
std::shared_ptr<const PaletteTable> tableOf(const Show& show, PaletteId id);

/// The grid and features that `score` plays by.
MusicGrid gridOf(const Score& score);

}  // namespace chispa
