// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <map>
#include <memory>
#include <optional>
#include <vector>

#include "core/base/frame.h"
#include "core/effect/effect.h"
#include "core/media/media.h"
#include "core/show/show.h"
#include "core/wire/pack.h"
#include "core/wire/patch.h"
#include "core/zone/cells.h"

namespace chispa {

/// A motion with everything looked up.
struct CompiledMotion {
  /// The parameter that moves; kStrength for the clip's strength, kPalettePlace for the turn of its palette.
  static constexpr std::size_t kStrength = static_cast<std::size_t>(-1);
  static constexpr std::size_t kPalettePlace = static_cast<std::size_t>(-2);
  std::size_t param = kStrength;
  Motion motion;
  /// Bounds of what moves.
  double least = 0;
  double most = 1;
  /// For Driver::Parameter: which, and its range.
  std::size_t follows = 0;
  double followsLeast = 0;
  double followsMost = 1;
};

/// A number, the strength, or the palette's place of a look's layer that a binding sets.
struct CompiledAdjust {
  BindingId binding;
  /// As CompiledMotion::param.
  std::size_t param = CompiledMotion::kStrength;
  double least = 0;
  double most = 1;
};

/// A clip with everything looked up.
struct CompiledClip {
  ClipId id;
  const Effect* effect = nullptr;
  ParamPack params;
  std::shared_ptr<const Prepared> prepared;
  std::shared_ptr<const LivePicture> screen;
  std::shared_ptr<const PaletteTable> palette;
  /// How far it is turned, and how often it turns in a bar.
  double paletteShift = 0;
  double paletteTurns = 0;
  Micros start{0};
  Micros length{0};
  Micros fadeIn{0};
  Micros fadeOut{0};
  FadeShape fadeShape = FadeShape::Even;
  bool givesWay = false;
  Evenness fades = Evenness::ToTheEye;
  /// How long it and the clip before it on its layer pass into each other, at its beginning and at its end.
  Micros crossIn{0};
  Micros crossOut{0};
  Micros contentOffset{0};
  double speed = 1;
  /// How long a beat is over the clip: on the mean, and the shortest.
  double beatLength_s = 0.5;
  double shortestBeat_s = 0.5;
  Micros whole{0};
  int layer = 0;
  Blend blend = Blend::Normal;
  float strength = 1;
  std::uint32_t seed = 1;
  std::vector<CompiledMotion> motions;
  std::vector<CompiledAdjust> adjusts;
  /// The zone whose light it shows, if it shows another's.
  ZoneId source;

  /// The palette `bars` after the clip began; turned by `place` where something moves that.
  TurnedPalette paletteAt(double bars, std::optional<double> place) const {
    const bool isTurned = place || paletteShift != 0 || paletteTurns != 0;
    return isTurned ? TurnedPalette(*palette, place.value_or(paletteShift) + paletteTurns * bars)
                    : TurnedPalette(*palette);
  }
  Micros end() const { return start + length; }
  bool isActiveAt(Micros t) const { return t >= start && t < end(); }
};

using CompiledClips = std::vector<CompiledClip>;

/// One zone's lane: its cells and its clips.
struct CompiledStave {
  ZoneId zone;
  std::shared_ptr<const ZoneCells> cells;
  /// Lowest layer first; versions of a show that have the same ones share them. Never null.
  std::shared_ptr<const CompiledClips> shared = std::make_shared<const CompiledClips>();
  /// The show's clips that they were made of; empty where some come out of blocks.
  std::vector<const Clip*> madeOf = {};
  /// None of its cells has a pixel of another's.
  bool isDistinct = false;

  std::span<const CompiledClip> clips() const { return *shared; }
};

struct CompiledScore {
  ScoreId id;
  Micros length{0};
  /// The lowest stave first, as they are laid on the pixels.
  std::vector<CompiledStave> staves;
  /// The first stave of each row of staves that light no pixel in common, so that they can be computed at
  /// once.
  std::vector<std::size_t> waves;
  MusicGrid grid;
  /// Where sections of the music begin, in order.
  std::vector<Micros> sections;
  std::shared_ptr<const MusicFeatures> features;
  Micros audioStart{0};

  /// The lane of `zone`, or null.
  const CompiledStave* staveOf(ZoneId zone) const;
};

struct CompiledLive;

/// A show made ready to play: immutable, shared between threads without locks. What has not changed from one
/// version of a show to the next is shared by both.
struct CompiledShow {
  /// What it was compiled from.
  Show source;
  MediaLibrary media;
  std::shared_ptr<const PixelMap> map;
  Patch patch;
  std::map<PaletteId, std::shared_ptr<const PaletteTable>> palettes;
  std::vector<CompiledScore> scores;
  /// What is played by hand; core/render/compiledlive.h.
  std::shared_ptr<const CompiledLive> live;
  std::shared_ptr<const std::vector<PowerChain>> power;
  std::shared_ptr<const PowerBudget> budget;
  std::shared_ptr<const Packer> packer;
  /// The most cells that a renderer has in hand at once.
  std::size_t maxCells = 0;
  LightSettings light;

  /// The score with `id`, or null.
  const CompiledScore* scoreOf(ScoreId id) const;
};

/// Compiles `show`; `music` holds the features of its audio files, `media` its pictures. What `before`, an
/// earlier version, has already is taken from it: the result is what it would be without.
std::shared_ptr<const CompiledShow> compile(const Show& show, const MusicLibrary& music = {},
                                            const MediaLibrary& media = {},
                                            const CompiledShow* before = nullptr);

/// Compiles one clip on its own, for the pictures that are drawn of it too.
CompiledClip compileClip(const Clip& clip, std::shared_ptr<const PaletteTable> palette,
                         const MediaLibrary& media);

/// Notes how long the beats are that a clip plays over.
void measureBeats(const MusicGrid& grid, CompiledClip& clip);

/// The clips that `clip` stands for: itself, or those of its block, moved to where it stands, cut to its
/// length and on the zones they play on.
std::vector<Clip> unfolded(const Show& show, const Clip& clip);

/// The table of the palette `id`; black if the show has none such.
std::shared_ptr<const PaletteTable> tableOf(const Show& show, PaletteId id);

/// The grid and features that `score` plays by.
MusicGrid gridOf(const Score& score);

}  // namespace chispa
